import '../../../tests/setup'
import type { Dossier, Trial } from '@ypsometer/contract'
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { MemoryRouter, Route, Routes } from 'react-router'
import { demoDossier } from '../../../tests/dossier'

let dossier: Dossier
jest.mock('../../workers/useAssessment', () => ({
  useAssessment: () => ({ assessment: null, failure: null }),
}))
jest.mock('../../instruments/LiveStrip', () => ({ LiveStrip: () => null }))
import { QueryClientProvider } from '@tanstack/react-query'
import { emptyOutbox, haveDossier, noServer, written } from '../../../tests/backend'
import { queryClient } from '../../api/cache'
import { units } from '../../settings/settings'
import { BenchRun } from './BenchRun'

const START = Date.UTC(2026, 10, 25, 10)
/** The clock on the wall goes on to a moment, and the screen with it. */
const at = (seconds: number): void =>
  act(() => {
    jest.setSystemTime(START + seconds * 1000 - 200)
    jest.advanceTimersByTime(200)
  })
const press = (key: string): void => act(() => void fireEvent.keyDown(document.body, { key }))
const text = (): string => document.body.textContent ?? ''

/** Opens the bench screen of a trial of a kind, with nothing read yet. */
function open(kind: Trial['kind'], more: Partial<Trial> = {}, name = 'Triptych 600'): Trial {
  const demo = demoDossier(name)
  const like = demo.trials.find((t) => t.kind === kind) ?? (demo.trials[0] as Trial)
  const trial: Trial = { ...like, kind, setup: like.kind === kind ? like.setup : {}, ...more }
  dossier = {
    ...demo,
    trials: demo.trials.map((t) => (t.id === like.id ? trial : t)),
    readings: demo.readings.filter((r) => r.trialId !== like.id),
  }
  haveDossier(dossier)
  render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter initialEntries={[`/models/${dossier.model.id}/bench/${trial.id}/run`]}>
        <Routes>
          <Route path="/models/:id/bench/:trialId/run" element={<BenchRun />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  )
  // The conditions stand first; the trial begins when they are right.
  const begin = screen.queryByRole('button', { name: /^(Begin|Ready|To the|Start timing|Go on)/ })
  if (begin) fireEvent.click(begin)
  return trial
}

/** Readings as they were kept. */
const kept = (): Record<string, unknown>[] => written('create')
beforeEach(() => {
  noServer()
  emptyOutbox()
  localStorage.clear()
  units.set('metric')
  jest.useFakeTimers({ now: START })
})
afterEach(() => {
  cleanup()
  jest.useRealTimers()
})

describe('holding', () => {
  test('let go and still holding are kept apart: the second is never counted as the first', () => {
    open('holding')
    press(' ')
    at(12.4)
    press(' ')
    expect(kept().at(-1)).toMatchObject({ seconds: 12.4, outcome: 'let-go', series: 'cups' })
    press(' ')
    at(32.4)
    press('s')
    expect(kept().at(-1)).toMatchObject({ seconds: 20, outcome: 'still' })
    expect(text()).toContain('Still holding at 20 s: kept as that.')
    expect(text()).toMatch(/≥\s*20/)
  })
  test('the last try is taken back, a running clock dropped without a reading', () => {
    open('holding')
    press(' ')
    at(5)
    press('Backspace')
    expect(kept()).toHaveLength(0)
    expect(text()).toContain('The running clock was dropped.')
    press(' ')
    at(9)
    press(' ')
    press('Backspace')
    expect(dossier.readings.filter((r) => r.kind === 'holding')).toHaveLength(0)
  })
  test('what holds is chosen by a large target', () => {
    open('holding')
    fireEvent.click(screen.getByRole('button', { name: /clips/i }))
    press(' ')
    at(3)
    press(' ')
    expect(kept().at(-1)?.series).toBe('clips')
  })
})

describe('dye', () => {
  test('strengths are tapped or keyed against the running watch, at the point that is chosen', () => {
    open('dye')
    press('5')
    expect(kept()).toHaveLength(0)
    press(' ')
    at(15.2)
    press('3')
    expect(kept().at(-1)).toMatchObject({ seconds: 15.2, value: 3, series: 'return side' })
    fireEvent.click(screen.getByRole('button', { name: 'far corner' }))
    at(40)
    fireEvent.click(within(screen.getByRole('group', { name: 'Strength at far corner' })).getByText('1'))
    expect(kept().at(-1)).toMatchObject({ seconds: 40, value: 1, series: 'far corner' })
    expect(text()).toContain('far corner: 1 at 40.0 s.')
  })
  test('the watch is ended and taken up again; nothing read is lost', () => {
    open('dye')
    press(' ')
    at(8)
    press('2')
    fireEvent.click(screen.getByRole('button', { name: 'End the watch' }))
    expect(text()).toContain('The watch was ended.')
    expect(screen.getByText('Dye in again: continue timing')).toBeTruthy()
    expect(kept()).toHaveLength(1)
  })
})

describe('priming', () => {
  test('a try is timed from the switch; not priming is a result too', () => {
    open('prime')
    press(' ')
    at(14.3)
    press(' ')
    expect(kept().at(-1)).toMatchObject({ series: 'prime', outcome: 'yes', seconds: 14.3 })
    press(' ')
    at(74.3)
    fireEvent.keyDown(screen.getByText('It did not prime'), { key: 'Enter' })
    expect(kept().at(-1)).toMatchObject({ series: 'prime', outcome: 'no', seconds: 60 })
  })
  test('a leak is kept with its water and its place; an amount that is none is said and nothing kept', () => {
    open('prime')
    fireEvent.click(screen.getByRole('button', { name: /Leak/ }))
    fireEvent.change(screen.getByLabelText(/Water caught/), { target: { value: 'a lot' } })
    fireEvent.keyDown(screen.getByText('It leaks'), { key: 'Enter' })
    expect(kept()).toHaveLength(0)
    fireEvent.change(screen.getByLabelText(/Water caught/), { target: { value: '18' } })
    fireEvent.change(screen.getByLabelText('Where, and when'), {
      target: { value: 'left clip, first night' },
    })
    fireEvent.keyDown(screen.getByText('It leaks'), { key: 'Enter' })
    expect(kept().at(-1)).toMatchObject({ series: 'leak', outcome: 'yes', note: 'left clip, first night' })
    expect(kept().at(-1)?.value).toBeCloseTo(18e-6, 12)
  })
  test('quiet is one press of the space bar', () => {
    open('prime')
    fireEvent.click(screen.getByRole('button', { name: /Rattle/ }))
    press(' ')
    expect(kept().at(-1)).toMatchObject({ series: 'rattle', outcome: 'no', seconds: 0 })
  })
})

describe('a number typed at the sink', () => {
  const field = (): HTMLInputElement =>
    screen.getAllByRole<HTMLInputElement>('textbox').at(-1) as HTMLInputElement
  const keep = (value: string): void => {
    fireEvent.change(field(), { target: { value } })
    fireEvent.click(screen.getByRole('button', { name: 'Keep' }))
  }
  test('watts: kept as typed; letters are refused with what is accepted, and stay in the field', () => {
    open('power')
    keep('6,8 W')
    expect(kept().at(-1)?.value).toBeCloseTo(6.8, 9)
    keep('seven')
    expect(kept()).toHaveLength(1)
    expect(field().value).toBe('seven')
    expect(screen.getByRole('alert').textContent.length).toBeGreaterThan(10)
  })
  test('shut-off head in feet and inches becomes metres', () => {
    open('shut-off')
    keep('2 ft 6')
    expect(kept().at(-1)?.value).toBeCloseTo(0.762, 6)
  })
  test('noise goes to the series that is chosen, with the filter or without', () => {
    open('noise')
    keep('38.5')
    fireEvent.click(screen.getByRole('button', { name: /without|off|stopped|room/i }))
    keep('31')
    expect(kept().map((k) => k.series)).toEqual(['with', 'without'])
  })
  test('the last one is taken out again', () => {
    open('power')
    keep('7')
    fireEvent.click(screen.getAllByRole('button', { name: /^Undo/ })[0] as HTMLElement)
    expect(text()).toContain('Reading 1 taken out.')
  })
})

test('a water test asks what the kit counts before its first number, and keeps the answer with the test', () => {
  open('water-test', { setup: {} })
  const counts = screen.getByRole('group', { name: 'The test kit counts' })
  expect(screen.queryByLabelText(/^Ammonia/)).toBeNull()
  fireEvent.click(within(counts).getByRole('button', { name: /^The ion/ }))
  expect(written('change').at(-1)).toMatchObject({ setup: { countedAs: 'ion' } })
})
