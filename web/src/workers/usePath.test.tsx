import '../../tests/setup'
import { modelRecord } from '@ypsometer/contract'
import type { Fill } from '@ypsometer/core/fills/place'
import { assess } from '@ypsometer/core/judging/assess'
import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { act, cleanup, renderHook, waitFor } from '@testing-library/react'
import { demoDossier, demoMedia, demoRules } from '../../tests/dossier'

const asked: string[] = []
const answers: (() => void)[] = []
let ended = 0
jest.mock('./pathRemote', () => ({
  start: () => ({
    terminate: () => void ended++,
    remote: {
      prepare: async () => undefined,
      solve: (q: { fill: Fill }) => {
        asked.push(q.fill.name)
        if (q.fill.name === 'fault') return Promise.reject(new Error('broken'))
        return new Promise((done) => answers.push(() => done({ kind: 'missing', what: q.fill.name })))
      },
    },
  }),
}))

import { usePath } from './usePath'
import { forgetAnswers } from './useWork'

afterEach(cleanup)
afterAll(forgetAnswers)

/** What has come is on the page. */
const settle = (come: (() => void) | undefined) =>
  act(async () => {
    come?.()
    await new Promise((done) => setTimeout(done, 5))
  })

const dossier = demoDossier('Ledger 700')
const fixed = {
  dossier,
  assessment: assess(modelRecord(dossier)),
  media: demoMedia(),
  house: demoRules()[0],
  stock: STOCK_CLASSES[1],
  hookupId: null,
  against: null,
}
const fill = (name: string): Fill => ({ id: 'f', name, basis: 'variant', layers: [] })

test('while one question is under way, only the newest of those asked meanwhile is computed', async () => {
  const { result, rerender } = renderHook((p: { fill: Fill }) => usePath({ ...fixed, ...p }), {
    initialProps: { fill: fill('first') },
  })
  await waitFor(() => expect(asked).toEqual(['first']))
  for (const name of ['second', 'third', 'fourth']) rerender({ fill: fill(name) })
  await settle(answers.shift())
  await waitFor(() => expect(asked).toEqual(['first', 'fourth']))
  await settle(answers.shift())
  expect(result.current.answer).toEqual({ kind: 'missing', what: 'fourth' })
})

test('a fault is said, and the question after it is still answered', async () => {
  const { result, rerender } = renderHook((p: { fill: Fill }) => usePath({ ...fixed, ...p }), {
    initialProps: { fill: fill('fault') },
  })
  await waitFor(() =>
    expect(result.current.answer).toMatchObject({
      kind: 'wrong',
      message: 'Something failed on our side. What you typed is kept.',
    }),
  )
  rerender({ fill: fill('after') })
  await waitFor(() => expect(asked.at(-1)).toBe('after'))
  await settle(answers.shift())
  expect(result.current.answer).toEqual({ kind: 'missing', what: 'after' })
})

test('something long is ended when it is superseded, and its answer dropped', async () => {
  const { result } = renderHook(() => usePath({ ...fixed, fill: fill('x') }))
  const gate: (() => void)[] = []
  const slow = result.current.long(() => new Promise<string>((done) => gate.push(() => done('old'))))
  await waitFor(() => expect(gate).toHaveLength(1))
  const quick = result.current.long(async () => 'new')
  gate[0]?.()
  expect(await slow).toBeNull()
  expect(await quick).toBe('new')
  expect(ended).toBe(2)
})

test('what was answered not long ago stands at once, and an older question still under way does not replace it', async () => {
  const { result, rerender } = renderHook((p: { fill: Fill }) => usePath({ ...fixed, ...p }), {
    initialProps: { fill: fill('known') },
  })
  await waitFor(() => expect(asked.at(-1)).toBe('known'))
  await settle(answers.pop())
  rerender({ fill: fill('slow') })
  await waitFor(() => expect(asked.at(-1)).toBe('slow'))
  const before = asked.length
  rerender({ fill: fill('known') })
  expect(result.current.answer).toEqual({ kind: 'missing', what: 'known' })
  await settle(answers.pop())
  expect(result.current.answer).toEqual({ kind: 'missing', what: 'known' })
  // Another view of the same has it before it asks; nothing of it was computed twice.
  const again = renderHook(() => usePath({ ...fixed, fill: fill('slow') }))
  expect(again.result.current.answer).toEqual({ kind: 'missing', what: 'slow' })
  expect(asked).toHaveLength(before)
})
