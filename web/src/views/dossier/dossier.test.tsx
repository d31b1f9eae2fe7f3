import '../../../tests/setup'
import { modelRecord, type Dossier } from '@ypsometer/contract'
import { assess, type Assessment } from '@ypsometer/core/judging/assess'
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { QueryClientProvider } from '@tanstack/react-query'
import { MemoryRouter, Route, Routes } from 'react-router'
import { demoDossier } from '../../../tests/dossier'

let dossier: Dossier
let mockWorked: { assessment: Assessment | null; failure: string | null } = {
  assessment: null,
  failure: null,
}
jest.mock('../../workers/useAssessment', () => ({ useAssessment: () => mockWorked }))
const mockAhead = jest.fn<null, [object]>(() => null)
jest.mock('../../fillPath/ahead', () => ({ __esModule: true, default: (of: object) => mockAhead(of) }))

import { haveDossier, noServer, serverReads, writes, writtenIds } from '../../../tests/backend'
import { toasts } from '../../frame/toastStore'
import { queryClient } from '../../api/cache'
import { useDossierContext } from '../../frame/dossier'
import { DossierView, ToFirstStation } from './Dossier'

function Station() {
  const shown = useDossierContext()
  return (
    <p>
      inside {shown.dossier.model.name}, {shown.assessment ? 'worked out' : 'not yet'}
    </p>
  )
}
/** Opens the dossier's page at a path below it, with its numbers worked out. */
const open = (path = '/claims'): void => {
  haveDossier(dossier)
  mockWorked = { assessment: assess(modelRecord(dossier)), failure: null }
  page(path)
}
const page = (path = '/claims'): void =>
  void render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter initialEntries={[`/models/${dossier.model.id}${path}`]}>
        <Routes>
          <Route path="/" element={<p>the shelf</p>} />
          <Route path="/models/:id" element={<DossierView />}>
            <Route index element={<ToFirstStation />} />
            <Route path=":station" element={<Station />} />
          </Route>
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  )
const ruler = (): string[] =>
  within(screen.getByRole('navigation', { name: 'Stations' }))
    .getAllByRole('link')
    .map((l) => l.textContent ?? '')

beforeEach(() => {
  noServer()
  queryClient.clear()
  dossier = demoDossier('Ledger 700')
})
afterEach(cleanup)

test('the stations stand in working order, each filled as far as it is done', () => {
  open()
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Ledger 700')
  expect(ruler()).toEqual(['Claimsdone', 'Teardowndone', 'Insidedone', 'Benchdone', 'Mediadone', 'Flow pathdone', 'Tanksdone', 'Verdictdone', 'Long-termdone']) // prettier-ignore
  expect(screen.getByText('inside Ledger 700, worked out')).toBeTruthy()
})

test('a row that cannot be read is named, and can be removed', () => {
  const lost = {
    collection: 'logs',
    one: 'log',
    id: 'x',
    version: 3,
    field: 'mean',
    message: 'no number',
  } as const
  dossier = { ...dossier, unreadable: [lost] }
  open()
  expect(screen.getByRole('alert').textContent).toContain(
    'One log cannot be read and counts nowhere (mean: no number)',
  )
  fireEvent.click(screen.getByRole('button', { name: 'Remove it' }))
  expect(writes.at(-1)).toEqual(['delete', 'logs', {}])
  expect(writtenIds.at(-1)).toBe('x')
})

test('half the chambers measured is half a station; one of two fills is half; nothing typed is nothing', () => {
  const d = demoDossier('Ledger 700')
  const half = Math.floor(d.chambers.length / 2)
  dossier = {
    ...d,
    parts: [],
    chambers: d.chambers.map((c, i) => ({ ...c, measured: i < half })),
    fills: d.fills.filter((f) => f.basis === 'as-shipped'),
  }
  open()
  const said = ruler()
  expect(said[1]).toBe('Teardown0 %')
  expect(said[2]).toBe(`Inside${Math.round((100 * half) / d.chambers.length)} %`)
  expect(said[4]).toBe('Media50 %')
  cleanup()
  dossier = {
    ...d,
    claims: [],
    specimens: [],
    parts: [],
    chambers: [],
    fills: [],
    visits: [],
    trials: [],
    readings: [],
    hookups: [],
  }
  open()
  expect(ruler().slice(1)).toEqual(['Teardown0 %', 'Inside0 %', 'Bench0 %', 'Media0 %', 'Flow path0 %', 'Tanks0 %', 'Verdict0 %', 'Long-term0 %']) // prettier-ignore
  const next = screen.getByRole('link', { name: /^Next: / })
  expect(next.getAttribute('href')).toMatch(/claims#claim-rated-flow$/)
})

test('the bare address of a dossier leads to its first station', () => {
  open('')
  expect(screen.getByText('inside Ledger 700, worked out')).toBeTruthy()
  expect(screen.getByRole('link', { name: /Claims/ }).getAttribute('aria-current')).toBe('page')
})

test('a model is deleted by its name, and the shelf is what is left', () => {
  open()
  fireEvent.click(screen.getByRole('button', { name: 'Delete this model' }))
  expect(writes).toEqual([['delete', 'models', {}]])
  expect(writtenIds).toEqual([dossier.model.id])
  expect(toasts.get().at(-1)?.text).toMatch(/Ledger 700 deleted/)
  expect(screen.getByText('the shelf')).toBeTruthy()
})

/** A list with nothing in it, as the server gives one. */
const NO_ROWS = { items: [] }

test('while it is read nothing is claimed; a failure says so and can be tried again', async () => {
  let fail = (_: Error): void => undefined
  serverReads((path) => (path.endsWith('/dossier') ? new Promise((_, reject) => (fail = reject)) : NO_ROWS))
  page()
  expect(screen.queryByRole('alert')).toBeNull()
  cleanup()
  serverReads(() => Promise.reject(new Error('no road to the server')))
  queryClient.setDefaultOptions({
    queries: { ...queryClient.getDefaultOptions().queries, retryDelay: 0 },
  })
  page()
  expect((await screen.findByRole('alert')).textContent).toMatch(/This dossier cannot be loaded now\./)
  serverReads((path) => (path.endsWith('/dossier') ? dossier : NO_ROWS))
  mockWorked = { assessment: null, failure: null }
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }))
  expect(await screen.findByText('inside Ledger 700, not yet')).toBeTruthy()
  fail(new Error('too late'))
})

test('numbers that cannot be worked out are said above the station, which stays usable', () => {
  haveDossier(dossier)
  mockWorked = { assessment: null, failure: 'hose of no bore' }
  page()
  expect(screen.getByRole('alert').textContent).toBe('Cannot calculate: hose of no bore')
  expect(screen.getByText('inside Ledger 700, not yet')).toBeTruthy()
})

test('a station outside a dossier is a mistake of ours, and says so', () => {
  jest.spyOn(console, 'error').mockImplementation(() => undefined)
  expect(() => render(<Station />)).toThrow(/outside a dossier/)
})

test('what the next station shows is worked out once this one was looked at, not for a reader who saves data', async () => {
  jest.useFakeTimers()
  const rest = (): Promise<void> => act(() => jest.advanceTimersByTimeAsync(5000))
  Object.assign(navigator, { connection: { saveData: true } })
  open('/bench')
  await rest()
  expect(mockAhead).not.toHaveBeenCalled()
  cleanup()
  Object.assign(navigator, { connection: { saveData: false } })
  open('/bench')
  await rest()
  expect(mockAhead).toHaveBeenCalledWith({ station: 'bench' })
  jest.useRealTimers()
})
