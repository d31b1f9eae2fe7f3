import '../../../tests/setup'
import type { Dossier } from '@ypsometer/contract'
import { QueryClientProvider } from '@tanstack/react-query'
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'
import { MemoryRouter, Route, Routes } from 'react-router'

import { emptyOutbox, haveDossier, haveLists, noServer, written } from '../../../tests/backend'
import { demoDossier, demoMedia } from '../../../tests/dossier'
import { queryClient } from '../../api/cache'
import { kitCounts } from '../../settings/settings'
import { VisitRun } from './VisitRun'

const START = Date.UTC(2026, 10, 26, 10)
let dossier: Dossier
const visitId = '00000000-0000-4000-8000-00000000aaaa'
const open = () => {
  haveDossier(dossier)
  haveLists({ media: demoMedia() })
  return render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter initialEntries={[`/models/${dossier.model.id}/visits/${visitId}/run`]}>
        <Routes>
          <Route path="/models/:id/visits/:visitId/run" element={<VisitRun />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  )
}
const next = (times = 1): void => {
  for (let i = 0; i < times; i++) fireEvent.click(screen.getByRole('button', { name: /^(Next|Skip)$/ }))
}
const title = (): string => screen.getByRole('heading', { level: 2 }).textContent ?? ''

beforeEach(() => {
  noServer()
  emptyOutbox()
  localStorage.clear()
  act(() => kitCounts.set('nitrogen'))
  jest.useFakeTimers({ now: START })
  const d = demoDossier('Ledger 700')
  const last = d.visits.at(-1) as Dossier['visits'][0]
  const blank = { dirt: {}, parts: {}, cleaned: [], failed: [], runsBefore: [], runsAfter: [], seeping: null, ammonia: null, nitrite: null, nitrate: null, clarity: null, hoses: null, holding: null, noise: null, watts: null } // prettier-ignore
  dossier = { ...d, visits: [...d.visits, { ...last, ...blank, id: visitId, on: '2026-11-26' }] }
})
afterEach(() => {
  cleanup()
  jest.useRealTimers()
})

test('one thing a screen, in the order of a visit; every screen can be skipped, and the place is kept', () => {
  open()
  expect(title()).toBe('Leave it uncleaned until you have looked')
  const seen: string[] = []
  for (let i = 0; i < 13; i++) {
    next()
    seen.push(title())
  }
  expect(seen).toEqual(['Does it seep?', 'Flow as it is', 'Noise and watts', 'Feet, cups and clips', 'Open it: the plug first', 'Where is the dirt?', 'Impeller, seals, locks', 'Inside the hoses', 'Test the water', 'What was cleaned, and how', 'Did anything fail?', 'Refit, prime, flow after', 'Anything else?']) // prettier-ignore
  expect(screen.getByRole('link', { name: 'Done' })).toBeTruthy()
  cleanup()
  open()
  expect(title()).toBe('Anything else?')
})

test('the space bar times a vessel; a slip of the thumb is no run; the last one is taken back', () => {
  open()
  next(2)
  const press = (): void => act(() => void fireEvent.keyDown(document.body, { key: ' ' }))
  const at = (s: number): void => act(() => void jest.setSystemTime(START + s * 1000))
  press()
  at(0.2)
  press()
  expect(written('change')).toHaveLength(0)
  at(10)
  press()
  at(46.5)
  press()
  expect(written('change').at(-1)).toMatchObject({ runsBefore: [{ volume: 0.005, seconds: 36.5 }] })
  // 5 L in 36.5 s are 493 L/h.
  expect(screen.getByRole('list', { name: 'Runs' }).textContent).toMatch(/493/)
  act(() => void fireEvent.keyDown(document.body, { key: 'Backspace' }))
  expect(written('change').at(-1)).toMatchObject({ runsBefore: [] })
})

test('dirt, parts, water, cleaning and failures are kept as they are tapped, and can be taken back', () => {
  open()
  next()
  fireEvent.click(screen.getByRole('button', { name: 'head' }))
  expect(written('change').at(-1)).toMatchObject({ seeping: ['head'] })
  next(4)
  expect(document.body.textContent).toMatch(/Unplug filter and heater before hands go in/)
  expect(document.body.textContent).toMatch(/no oxygen: do not start it into the tank unrinsed/)
  next()
  fireEvent.click(screen.getAllByRole('button', { name: 'blind' })[1] as HTMLElement)
  const layers = dossier.fills.find((f) => f.id === dossier.visits.at(-1)?.fillId)?.layers ?? []
  expect(written('change').at(-1)).toMatchObject({ dirt: { [layers[1]?.id ?? '']: 'blind' } })
  next()
  fireEvent.click(screen.getByRole('button', { name: 'pressed flat' }))
  expect(Object.values((written('change').at(-1)?.parts ?? {}) as object)).toEqual([['flat']])
  next(2)
  fireEvent.change(screen.getByLabelText('Nitrite, as N'), { target: { value: '0.2' } })
  fireEvent.blur(screen.getByLabelText('Nitrite, as N'))
  expect(written('change').at(-1)?.nitrite).toBeCloseTo(2e-4, 9)
  next()
  fireEvent.click(screen.getAllByRole('button', { name: 'tank water' })[0] as HTMLElement)
  expect(written('change').at(-1)).toMatchObject({ cleaned: [{ what: 'everything', how: 'tank-water' }] })
  fireEvent.click(screen.getAllByRole('button', { name: 'renewed' })[0] as HTMLElement)
  expect(written('change').at(-1)).toMatchObject({ cleaned: [{ what: 'everything', how: 'renewed' }] })
  next()
  fireEvent.change(screen.getByLabelText('Part'), { target: { value: 'Impeller' } })
  fireEvent.click(screen.getByRole('button', { name: 'Note the failure' }))
  expect(written('change').at(-1)).toMatchObject({ failed: [{ part: 'Impeller', how: '' }] })
})
