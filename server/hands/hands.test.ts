import { demoBundle } from '@ypsometer/demo'
import { randomUUID } from 'node:crypto'
import { demoHarness, type Harness } from '../tests/harness'

let h: Harness
beforeAll(async () => {
  h = await demoHarness()
})
afterAll(() => h.close())

const modelId = demoBundle.models[0]?.model.id ?? ''
const tankId = demoBundle.tanks[0]?.id ?? ''
const items = async (path: string): Promise<{ id: string; on: string }[]> =>
  (await h.call('GET', path)).body.items
const wrong = async (path: string, body: object): Promise<string> =>
  (await h.create(path, { id: randomUUID(), ...body })).body.errors?.[0]?.field

test('a set-up keeps what is ticked under its version; the newest stands first; deleted it is gone and comes back', async () => {
  const id = randomUUID()
  const made = await h.create('/set-ups', { id, modelId, tankId, on: '2026-11-26' })
  expect(made.status).toBe(201)
  const ticked = { 'trays-level': { state: 'refused', why: 'rocks' } }
  const changed = await h.call('PATCH', `/set-ups/${id}`, { ticked }, { 'if-match': '"1"' })
  expect(changed.body).toMatchObject({ ticked, version: 2 })
  expect((await h.call('PATCH', `/set-ups/${id}`, { ticked: {} }, { 'if-match': '"1"' })).status).toBe(409)
  expect((await items('/set-ups'))[0]?.id).toBe(id)
  await h.call('DELETE', `/set-ups/${id}`, undefined, { 'if-match': '"2"' })
  expect((await items('/set-ups')).some((s) => s.id === id)).toBe(false)
})

test('a change-over names its tank and what comes; one test a day; weeks within half a year', async () => {
  const next = { id: 'n1', modelId, fill: 'as-shipped', label: '', kind: null, ratedFlow: null, since: null }
  const body = { tankId, on: '2026-11-26', next }
  expect((await h.create('/change-overs', { id: randomUUID(), ...body })).status).toBe(201)
  expect(await wrong('/change-overs', { ...body, tankId: randomUUID() })).toBe('tankId')
  expect(await wrong('/change-overs', { ...body, weeks: 40 })).toBe('weeks')
  expect(await wrong('/change-overs', { ...body, way: 'dance' })).toBe('way')
  expect(await wrong('/change-overs', { ...body, next: { ...next, modelId: null } })).toBe('next.kind')
  const test = { on: '2026-11-27', ammonia: 0, nitrite: null }
  expect(await wrong('/change-overs', { ...body, tests: [test, test] })).toBe('tests')
  expect((await items('/change-overs')).map((c) => c.on)).toEqual(
    [...(await items('/change-overs'))].map((c) => c.on).sort((a, b) => b.localeCompare(a)),
  )
})

test('a search needs no model: a customer’s filter by its kind, or by nothing at all', async () => {
  const body = { symptom: 'leak', on: '2026-11-26', label: 'a grey one' }
  expect((await h.create('/fault-searches', { id: randomUUID(), ...body })).body).toMatchObject({ modelId: null, kind: null, outcomes: {} }) // prettier-ignore
  expect((await h.create('/fault-searches', { id: randomUUID(), ...body, kind: 'sump', outcomes: { power: 'clear' } })).status).toBe(201) // prettier-ignore
  expect(await wrong('/fault-searches', { ...body, symptom: 'sulks' })).toBe('symptom')
  expect(await wrong('/fault-searches', { ...body, outcomes: { power: 'perhaps' } })).toMatch(/^outcomes/)
  expect(await wrong('/fault-searches', { ...body, modelId: randomUUID() })).toBe('modelId')
})
