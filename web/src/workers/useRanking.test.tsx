import '../../tests/setup'
import { ADVICE_RULE } from '@ypsometer/core/advice/rule'
import type { Measures, Ranked } from '@ypsometer/core/advice/score'
import { act, renderHook } from '@testing-library/react'

interface Asked {
  readonly progress: (share: number) => void
  readonly answer: (ranked: Ranked | null) => void
  readonly fail: (error: Error) => void
}
const mockAsked: Asked[] = []
jest.mock('./rankRemote', () => ({
  calledBack: (f: unknown) => f,
  rankRemote: () => ({
    rank: (_options: unknown, _weights: unknown, progress: Asked['progress']) =>
      new Promise<Ranked | null>((answer, fail) => mockAsked.push({ progress, answer, fail })),
  }),
}))

import { useRanking } from './useRanking'

const ranked: Ranked = { draws: 10, options: [] }
const show = () => {
  const view = renderHook(({ key }) => useRanking([{} as Measures], ADVICE_RULE.weights, key), {
    initialProps: { key: 'delicate' },
  })
  act(() => void jest.advanceTimersByTime(200))
  return view
}
const last = (): Asked => mockAsked.at(-1) as Asked

beforeEach(() => {
  jest.useFakeTimers()
  mockAsked.length = 0
})

test('what is said of the way after the end takes nothing away', async () => {
  const view = show()
  act(() => last().progress(0.8))
  expect(view.result.current.progress).toBe(0.8)
  await act(async () => last().answer(ranked))
  expect(view.result.current).toMatchObject({ ranked, progress: null })
  // It comes by a way of its own, and may come later than the answer.
  act(() => last().progress(1))
  expect(view.result.current).toMatchObject({ ranked, progress: null })
})

test('nor does it hide why nothing came of it', async () => {
  const view = show()
  await act(async () => last().fail(new RangeError('out of memory')))
  const { failure } = view.result.current
  expect(failure).not.toBeNull()
  act(() => last().progress(1))
  expect(view.result.current).toMatchObject({ failure, progress: null })
})

test('an older question says nothing any more', async () => {
  const view = show()
  const first = last()
  view.rerender({ key: 'planted' })
  act(() => void jest.advanceTimersByTime(200))
  expect(last()).not.toBe(first)
  act(() => first.progress(0.5))
  await act(async () => first.answer(null))
  expect(view.result.current).toMatchObject({ ranked: null, progress: 0 })
  await act(async () => last().answer(ranked))
  expect(view.result.current.ranked).toBe(ranked)
})
