/** @jest-environment jsdom */
import '../../../tests/setup'
import { modelRecord, type Dossier } from '@ypsometer/contract'
import { assess, type Assessment } from '@ypsometer/core/judging'
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { MemoryRouter, Route, Routes } from 'react-router'
import { demoDossier } from '../../../tests/dossier'

let mockDossier: Dossier | undefined
let mockQuery: { error: Error | null; isPending: boolean } = { error: null, isPending: false }
let mockWorked: { assessment: Assessment | null; failure: string | null } = {
  assessment: null,
  failure: null,
}
const mockRefetch = jest.fn()
jest.mock('../../api/queries', () => ({
  ...jest.requireActual<object>('../../api/queries'),
  useDossier: () => ({ dossier: mockDossier, ...mockQuery, refetch: mockRefetch }),
  useStockClasses: () => ({ data: [] }),
}))
jest.mock('../../workers/useAssessment', () => ({ useAssessment: () => mockWorked }))

import { noServer, writes, writtenIds } from '../../../tests/backend'
import { toastStore } from '../../frame/toasts'
import { useDossierContext } from '../../frame/dossier'
import { DossierView, ToFirstStation } from './Dossier'

function Station() {
  const { dossier, assessment } = useDossierContext()
  return (
    <p>
      inside {dossier.model.name}, {assessment ? 'worked out' : 'not yet'}
    </p>
  )
}
const open = (path = '/models/x/claims'): void =>
  void render(
    <MemoryRouter initialEntries={[path]}>
      <Routes>
        <Route path="/" element={<p>the shelf</p>} />
        <Route path="/models/:id" element={<DossierView />}>
          <Route index element={<ToFirstStation />} />
          <Route path=":station" element={<Station />} />
        </Route>
      </Routes>
    </MemoryRouter>,
  )
const ruler = (): string[] =>
  within(screen.getByRole('navigation', { name: 'Stations' }))
    .getAllByRole('link')
    .map((l) => l.textContent ?? '')

beforeEach(() => {
  jest.clearAllMocks()
  mockDossier = demoDossier('Ledger 700')
  mockQuery = { error: null, isPending: false }
  mockWorked = { assessment: assess(modelRecord(mockDossier)), failure: null }
})
afterEach(cleanup)

test('the stations stand in working order, each filled as far as it is done', () => {
  open()
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Ledger 700')
  expect(ruler()).toEqual(['Claimsdone', 'Stripdone', 'Insidedone', 'Benchdone', 'Filldone', 'Pathdone', 'Tanksdone', 'Verdictdone']) // prettier-ignore
  expect(screen.getByText('inside Ledger 700, worked out')).toBeTruthy()
})

test('half the chambers measured is half a station; one of two fills is half; nothing typed is nothing', () => {
  const d = demoDossier('Ledger 700')
  const half = Math.floor(d.chambers.length / 2)
  mockDossier = {
    ...d,
    parts: [],
    chambers: d.chambers.map((c, i) => ({ ...c, measured: i < half })),
    fills: d.fills.filter((f) => f.basis === 'as-shipped'),
  }
  mockWorked = { assessment: assess(modelRecord(mockDossier)), failure: null }
  open()
  const said = ruler()
  expect(said[1]).toBe('Strip0 %')
  expect(said[2]).toBe(`Inside${Math.round((100 * half) / d.chambers.length)} %`)
  expect(said[4]).toBe('Fill50 %')
  cleanup()
  mockDossier = {
    ...d,
    claims: [],
    specimens: [],
    parts: [],
    chambers: [],
    fills: [],
    trials: [],
    readings: [],
    hookups: [],
  }
  mockWorked = { assessment: assess(modelRecord(mockDossier)), failure: null }
  open()
  expect(ruler().slice(1)).toEqual(['Strip0 %', 'Inside0 %', 'Bench0 %', 'Fill0 %', 'Path0 %', 'Tanks0 %', 'Verdict0 %']) // prettier-ignore
  expect(screen.getByRole('link', { name: /^Next: / })).toBeTruthy()
})

test('the bare address of a dossier leads to its first station', () => {
  open('/models/x')
  expect(screen.getByText('inside Ledger 700, worked out')).toBeTruthy()
  expect(screen.getByRole('link', { name: /Claims/ }).getAttribute('aria-current')).toBe('page')
})

test('a model is deleted by its name, and the shelf is what is left', () => {
  noServer()
  open()
  fireEvent.click(screen.getByRole('button', { name: 'Delete this model' }))
  expect(writes).toEqual([['delete', 'models', {}]])
  expect(writtenIds).toEqual([mockDossier?.model.id])
  expect(toastStore.get().at(-1)?.text).toMatch(/Ledger 700 deleted/)
  expect(screen.getByText('the shelf')).toBeTruthy()
})

test('while it is read nothing is claimed; a failure says so and can be tried again', () => {
  mockDossier = undefined
  mockQuery = { error: null, isPending: true }
  open()
  expect(screen.queryByRole('alert')).toBeNull()
  cleanup()
  mockQuery = { error: new Error('no road to the server'), isPending: false }
  open()
  expect(screen.getByRole('alert').textContent).toMatch(/no road to the server/)
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }))
  expect(mockRefetch).toHaveBeenCalledTimes(1)
})

test('numbers that cannot be worked out are said above the station, which stays usable', () => {
  mockWorked = { assessment: null, failure: 'hose of no bore' }
  open()
  expect(screen.getByRole('alert').textContent).toBe('The numbers could not be worked out: hose of no bore')
  expect(screen.getByText('inside Ledger 700, not yet')).toBeTruthy()
})

test('a station outside a dossier is a mistake of ours, and says so', () => {
  jest.spyOn(console, 'error').mockImplementation(() => undefined)
  expect(() => render(<Station />)).toThrow(/outside a dossier/)
})
