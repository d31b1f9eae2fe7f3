import '../../../tests/setup'
import type { Dossier } from '@ypsometer/contract'
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'
import { MemoryRouter, Route, Routes } from 'react-router'
import { demoDossier } from '../../../tests/dossier'

let dossier: Dossier
jest.mock('../../workers/useAssessment', () => ({
  useAssessment: () => ({ assessment: null, failure: null }),
}))
import { QueryClientProvider } from '@tanstack/react-query'
import { emptyOutbox, haveDossier, noServer, written, writes } from '../../../tests/backend'
import { queryClient } from '../../api/cache'
import { BenchRun } from './BenchRun'

const START = Date.UTC(2026, 10, 25, 10)
const at = (seconds: number): void => act(() => void jest.setSystemTime(START + seconds * 1000))
const press = (key: string, target: Element = document.body): void =>
  act(() => void fireEvent.keyDown(target, { key }))
let trialId = ''
const open = () => {
  haveDossier(dossier)
  return render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter initialEntries={[`/models/${dossier.model.id}/bench/${trialId}/run`]}>
        <Routes>
          <Route path="/models/:id/bench/:trialId/run" element={<BenchRun />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  )
}

/** Readings as they were kept. */
const kept = (): Record<string, unknown>[] => written('create')
beforeEach(() => {
  noServer()
  emptyOutbox()
  localStorage.clear()
  jest.useFakeTimers({ now: START })
  dossier = demoDossier('Ledger 700')
  trialId = dossier.trials[0]?.id ?? ''
  dossier = { ...dossier, readings: dossier.readings.filter((r) => r.trialId !== trialId) }
})
afterEach(() => {
  cleanup()
  jest.useRealTimers()
})

test('the space bar starts and stops wherever the focus is; each run is kept with the vessel’s volume', () => {
  open()
  fireEvent.click(screen.getByRole('button', { name: 'Start timing' }))
  for (const [i, seconds] of [30.12, 29.9].entries()) {
    at(i * 100)
    press(' ', screen.getByRole('button', { name: /Conditions/ }))
    at(i * 100 + seconds)
    press(' ')
  }
  expect(kept().map((r) => [r.seconds, r.volume, r.trialId])).toEqual([
    [30.12, 0.005, trialId],
    [29.9, 0.005, trialId],
  ])
  // 5 L in 30.12 and 29.9 s: 597.6 and 602.0 L/h, mean 599.8.
  expect(screen.getByRole('status', { name: 'Mean flow' }).textContent).toMatch(/^600 ±/)
})

test('a key held down counts once, and typing in a field never starts the clock', () => {
  open()
  const field = screen.getByLabelText('Vessel, to its mark')
  press(' ', field)
  fireEvent.click(screen.getByRole('button', { name: 'Start timing' }))
  press(' ')
  at(20)
  act(() => void fireEvent.keyDown(document.body, { key: ' ', repeat: true }))
  expect(kept()).toEqual([])
  press(' ')
  expect(kept()).toHaveLength(1)
})

test('a run too short to be one is not kept and says so; Backspace drops a running clock, then the last run', () => {
  open()
  fireEvent.click(screen.getByRole('button', { name: 'Start timing' }))
  press(' ')
  at(0.3)
  press(' ')
  expect(screen.getByText(/Ignored: 0\.30 s is too short/)).toBeTruthy()
  press(' ')
  at(30)
  press(' ')
  expect(kept()).toHaveLength(1)
  press(' ')
  at(45)
  press('Backspace')
  expect(screen.getByText('The running clock was dropped.')).toBeTruthy()
  expect(written('delete')).toEqual([])
  press('Backspace')
  expect(writes.at(-1)?.slice(0, 2)).toEqual(['delete', 'readings'])
})

test('a press counts when it was made, not when a busy page gets round to it', () => {
  const late = (ms: number): void => {
    const pressed = new KeyboardEvent('keydown', { key: ' ', bubbles: true })
    Object.defineProperty(pressed, 'timeStamp', { value: performance.now() - ms })
    act(() => void document.body.dispatchEvent(pressed))
  }
  open()
  fireEvent.click(screen.getByRole('button', { name: 'Start timing' }))
  at(0.25)
  late(250)
  at(31)
  late(700)
  // Of another clock: the page was never busy for an hour.
  at(50)
  press(' ')
  at(70)
  late(3_600_000)
  expect(kept().map((r) => r.seconds)).toEqual([30.3, 20])
})

test('a reload in the middle of a run finds the clock still going', () => {
  const first = open()
  fireEvent.click(screen.getByRole('button', { name: 'Start timing' }))
  press(' ')
  at(12)
  first.unmount()
  at(31)
  open()
  fireEvent.click(screen.getByRole('button', { name: 'Start timing' }))
  expect(screen.getByText(/A run was going when the page closed/)).toBeTruthy()
  press(' ')
  expect(kept()[0]?.seconds).toBe(31)
})

test('a chosen precision changes how many more runs are asked for', () => {
  dossier = {
    ...dossier,
    readings: [30, 31.2, 29.4].map((seconds, i) => ({ id: `x${i}`, version: 1, createdAt: '', updatedAt: '', deletedAt: null, trialId, takenAt: `2026-11-25T10:0${i}:00.000Z`, volume: 0.005, seconds, kind: 'vessel', value: null, series: '', outcome: '', note: '', source: '' })),
  } // prettier-ignore
  open()
  const asked = (): number => Number(/About (\d+) more/.exec(document.body.textContent ?? '')?.[1] ?? 0)
  const atThree = asked()
  fireEvent.click(screen.getByRole('button', { name: /Conditions/ }))
  fireEvent.change(screen.getByLabelText('Target accuracy'), { target: { value: '0.05' } })
  fireEvent.click(screen.getByRole('button', { name: 'Start timing' }))
  expect(asked()).toBeLessThan(atThree)
})

test('advice: one run shows no scatter; an odd one is flagged and kept', () => {
  dossier = {
    ...dossier,
    readings: [30, 30.1, 29.9, 30.05, 38].map((seconds, i) => ({ id: `x${i}`, version: 1, createdAt: '', updatedAt: '', deletedAt: null, trialId, takenAt: `2026-11-25T10:0${i}:00.000Z`, volume: 0.005, seconds, kind: 'vessel', value: null, series: '', outcome: '', note: '', source: '' })),
  } // prettier-ignore
  open()
  expect(screen.getByText('possible outlier, still counted')).toBeTruthy()
  expect(screen.getAllByRole('listitem')).toHaveLength(5)
  cleanup()
  dossier = { ...dossier, readings: dossier.readings.slice(0, 1) }
  open()
  expect(screen.getByText(/Time at least 5 to see the spread/)).toBeTruthy()
})
