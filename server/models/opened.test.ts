import { houseOf, judgedClasses, modelRecord, type Dossier } from '@ypsometer/contract'
import { assess } from '@ypsometer/core/judging/assess'
import { randomUUID } from 'node:crypto'
import { harness, type Harness } from '../tests/harness'

let h: Harness
let modelId: string
beforeAll(async () => {
  h = await harness()
  modelId = (await h.create('/models', { maker: 'Quillon', name: 'Opened', kind: 'canister' })).body.id
  await h.create('/claims', { modelId, quantity: 'rated-flow', value: 3e-4 })
  await h.create('/claims', { modelId, quantity: 'max-head', value: 1.8 })
})
afterAll(() => h.close())

const opened = async () => (await h.call('GET', `/models/${modelId}/opened`)).body
const patch = (path: string, body: object, version: number) =>
  h.call('PATCH', path, body, { 'if-match': `"${version}"`, 'idempotency-key': randomUUID() })

/** Parts of a page, worked out as they are asked for one by one. */
async function apart() {
  const [dossier, media, rules, classes, bias] = await Promise.all(
    [`/models/${modelId}/dossier`, '/media', '/house-rules', '/stock-classes', '/label-bias'].map(
      async (p) => {
        // A list comes page by page; this one is whole.
        const { next, ...body } = (await h.call('GET', p)).body
        return next ? Promise.reject(new Error(`${p} has more than one page`)) : body
      },
    ),
  )
  const house = houseOf(rules.items, (dossier as Dossier).model.houseRuleId)
  const assessment = assess(modelRecord(dossier, media.items), {
    stockClasses: judgedClasses(classes.items, house as never),
    bias,
  })
  return {
    dossier,
    media,
    'house-rules': rules,
    'stock-classes': classes,
    'label-bias': bias,
    assessment: JSON.parse(JSON.stringify(assessment)) as object,
  }
}

test('a dossier is opened with what it is worked out with, and with what a page would make of that', async () => {
  const before = await opened()
  expect(before).toEqual(await apart())
  expect(before.assessment.pump.from).toBe('label')
  // Asked again, it is the same to the last letter.
  expect(await opened()).toEqual(before)
})

test('whatever is written to it, to the media, the classes or the rules is in the next answer', async () => {
  const specimen = (await h.create('/specimens', { modelId, label: 'no. 1' })).body
  expect((await opened()).dossier.specimens).toEqual([specimen])
  const trial = (await h.create('/trials', { modelId, kind: 'vessel' })).body
  await h.create('/readings', { trialId: trial.id, kind: 'vessel', takenAt: '2026-03-01T10:00:00Z', volume: 0.005, seconds: 20 }) // prettier-ignore
  expect(await opened()).toEqual(await apart())
  const now = await opened()
  const [medium] = now.media.items
  await patch(`/media/${medium.id}`, { note: 'washed' }, medium.version)
  const [rule] = now['house-rules'].items
  await patch(`/house-rules/${rule.id}`, { advice: { ...rule.advice, minutesWorth: null } }, rule.version)
  const [stock] = now['stock-classes'].items
  await patch(`/stock-classes/${stock.id}`, { litresPerKilogram: 61 }, stock.version)
  const then = await opened()
  expect(then).toEqual(await apart())
  expect([then.media.items.find((m: { id: string }) => m.id === medium.id).note, then['stock-classes'].items[0].litresPerKilogram]).toEqual(['washed', 61]) // prettier-ignore
})

test('what cannot be worked out, or would keep others waiting, is left to the page; what is not there is said', async () => {
  await h.create('/claims', { modelId, quantity: 'rated-flow', value: 2e-4 })
  const trial = (await h.create('/trials', { modelId, kind: 'vessel' })).body
  const many = Array.from({ length: 1001 }, () => ({
    id: randomUUID(), trialId: trial.id, kind: 'vessel', takenAt: '2026-03-01T10:00:00Z', volume: 0.005, seconds: 20,
  })) // prettier-ignore
  await h.call('POST', '/imports', { readings: many }, { 'idempotency-key': randomUUID() })
  const body = await opened()
  expect(body.dossier.readings.length).toBeGreaterThan(1000)
  expect(body.assessment).toBeNull()
  expect((await h.call('GET', `/models/${randomUUID()}/opened`)).status).toBe(404)
})
