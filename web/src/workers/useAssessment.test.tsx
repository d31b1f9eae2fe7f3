import '../../tests/setup'
import { act, cleanup, renderHook } from '@testing-library/react'
import { demoDossier } from '../../tests/dossier'

interface Asked {
  readonly name: string
  readonly answer: (value: unknown) => Promise<void>
  readonly fail: (error: unknown) => Promise<void>
}
const mockAsked: Asked[] = []
jest.mock('comlink', () => ({
  wrap: () => ({
    assess: (model: { id: string }) =>
      new Promise((done, broken) =>
        mockAsked.push({
          name: model.id,
          answer: async (value) => {
            done(value)
            await Promise.resolve()
          },
          fail: async (error) => {
            broken(error as Error)
            await Promise.resolve()
          },
        }),
      ),
  }),
}))
globalThis.Worker = jest.fn() as unknown as typeof Worker

import { useAssessment } from './useAssessment'
import { forgetAnswers } from './useWork'

beforeEach(forgetAnswers)
afterEach(cleanup)
afterAll(forgetAnswers)

const [ledger, torrent] = [demoDossier('Ledger 700'), demoDossier('Torrent 1400')]
let edits = 0
/** The same dossier with something in it changed. */
const edited = (d: typeof ledger): typeof ledger => ({
  ...d,
  claims: d.claims.map((c) => ({ ...c, value: (c.value ?? 1) * (1 + ++edits / 1e6) })),
})
const changed = edited(ledger)
const last = (): Asked => mockAsked.at(-1) as Asked
/** What has come is on the page. */
const settle = (come: Promise<void>) =>
  act(async () => {
    await come
    await new Promise((done) => setTimeout(done, 20))
  })
const show = () =>
  renderHook(({ dossier }) => useAssessment(dossier, {}), { initialProps: { dossier: ledger as typeof ledger | undefined } }) // prettier-ignore

test('one question is under way at a time, the newest is next, and the last answer stays meanwhile', async () => {
  const view = show()
  expect(view.result.current).toMatchObject({ assessment: null, failure: null })
  const begun = mockAsked.length
  view.rerender({ dossier: changed })
  view.rerender({ dossier: edited(changed) })
  expect(mockAsked).toHaveLength(begun)
  await settle(last().answer('old'))
  expect(mockAsked).toHaveLength(begun + 1)
  expect(view.result.current.assessment).toBe('old')
  await settle(last().answer('new'))
  expect(view.result.current.assessment).toBe('new')
  view.rerender({ dossier: edited(changed) })
  expect(view.result.current.assessment).toBe('new')
})

test('what belongs to one dossier never stands beside another', async () => {
  const view = show()
  await settle(last().answer('of Ledger'))
  view.rerender({ dossier: torrent })
  expect(view.result.current.assessment).toBeNull()
  await settle(last().answer('of Torrent'))
  expect(view.result.current.assessment).toBe('of Torrent')
  view.rerender({ dossier: undefined })
  expect(view.result.current.assessment).toBeNull()
})

test('a failure is said in words beside the last numbers of the same dossier, and gone with the next answer', async () => {
  const view = show()
  await settle(last().answer('first'))
  view.rerender({ dossier: changed })
  await settle(last().fail(Object.assign(new Error('hose of no bore'), { name: 'OutOfRange' })))
  expect(view.result.current).toMatchObject({ assessment: 'first', failure: 'hose of no bore' })
  view.rerender({ dossier: torrent })
  await settle(last().fail(new TypeError('broken')))
  expect(view.result.current).toMatchObject({
    assessment: null,
    failure: 'Something failed on our side. What you typed is kept.',
  })
  view.rerender({ dossier: edited(torrent) })
  await settle(last().answer('whole'))
  expect(view.result.current).toMatchObject({ assessment: 'whole', failure: null })
})

test('what the server worked out stands until the dossier or what it is judged by changes', async () => {
  const worked = 'by the server' as never
  const by = { media: [] as [] }
  const asked = mockAsked.length
  const view = renderHook((p: { dossier: typeof ledger; by: { media: []; stockClasses?: [] } | null; worked?: never }) => useAssessment(p.dossier, p.by, p.worked), { initialProps: { dossier: ledger, by: null as { media: []; stockClasses?: [] } | null, worked } as never }) // prettier-ignore
  expect(view.result.current.assessment).toBe(worked)
  view.rerender({ dossier: ledger, by, worked })
  expect([view.result.current.assessment, mockAsked.length]).toEqual([worked, asked])
  // A row was changed before anything else was asked: what stood stays meanwhile.
  view.rerender({ dossier: edited(ledger), by })
  expect([view.result.current.assessment, mockAsked.length]).toEqual([worked, asked + 1])
  // A rule was changed, and the dossier given anew.
  view.rerender({ dossier: ledger, by, worked })
  view.rerender({ dossier: ledger, by: { media: [] as [], stockClasses: [] }, worked })
  expect([view.result.current.assessment, mockAsked.length]).toEqual([worked, asked + 2])
  await settle(last().answer('by another rule'))
  expect(view.result.current.assessment).toBe('by another rule')
  // A row was changed: nothing of what the server said is left.
  view.rerender({ dossier: edited(ledger), by })
  expect(view.result.current.assessment).toBe('by another rule')
  await settle(last().answer('with the row'))
  expect(view.result.current.assessment).toBe('with the row')
})
