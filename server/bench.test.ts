import { randomUUID } from 'node:crypto'
import { harness, type Harness } from './tests/harness'

let h: Harness
let modelId = ''
beforeAll(async () => {
  h = await harness()
  modelId = (await h.create('/models', { maker: 'Pellam Works', name: 'Bench', kind: 'canister' })).body.id
})
afterAll(() => h.close())

const newTrial = async (kind: string): Promise<string> =>
  (await h.create('/trials', { modelId, kind, setup: kind === 'noise' ? { distance: 1 } : {} })).body.id
const reading = (trialId: string, kind: string, body: Record<string, unknown>) =>
  h.create('/readings', { trialId, kind, takenAt: new Date().toISOString(), ...body })

test('a reading is of its trial’s kind and holds what that is made of', async () => {
  const noise = await newTrial('noise')
  expect((await reading(noise, 'noise', { value: 41, series: 'with' })).status).toBe(201)
  const wrong = await reading(noise, 'power', { value: 14 })
  expect([wrong.status, wrong.body.errors[0].field]).toEqual([422, 'kind'])
  const bare = await reading(noise, 'noise', { value: 41 })
  expect(bare.body.errors[0]).toMatchObject({ field: 'series', message: 'one of with, without' })
  const vessel = await newTrial('vessel')
  expect((await reading(vessel, 'vessel', { volume: 0.005, seconds: 0.1 })).body.errors[0].field).toBe(
    'seconds',
  )
  const gone = await reading(randomUUID(), 'vessel', { volume: 0.005, seconds: 30 })
  expect(gone.status).toBe(422)
})

test('a changed reading is held to the same; the database itself holds too', async () => {
  const trial = await newTrial('weighed')
  const made = await reading(trial, 'weighed', { value: 5, seconds: 30 })
  const path = `/readings/${made.body.id}`
  expect((await h.call('PATCH', path, { seconds: 0 }, { 'if-match': '"1"' })).body.errors[0].field).toBe(
    'seconds',
  )
  expect((await h.call('PATCH', path, { seconds: 31 }, { 'if-match': '"1"' })).body).toMatchObject({
    seconds: 31,
    version: 2,
  })
})

test('setup takes what is known and refuses the rest by name', async () => {
  const r = await h.create('/trials', { modelId, kind: 'meter', setup: { kFactor: -3 } })
  expect(r.body.errors[0].field).toBe('setup.kFactor')
  expect((await h.create('/trials', { modelId, kind: 'meter', setup: { colour: 1 } })).status).toBe(400)
  expect((await h.create('/trials', { modelId, kind: 'teapot' })).body.errors[0].field).toBe('kind')
})

test('a log is summed up by the server, its points are read apart and never with the dossier', async () => {
  const trial = await newTrial('power')
  const log = {
    trialId: trial,
    startedAt: new Date().toISOString(),
    times: [0, 1, 2, 3],
    values: [13, 15, 13, 15],
  }
  // Nobody says what it comes to but its points.
  expect((await h.create('/logs', { ...log, mean: 99 })).body.errors[0].field).toBe('mean')
  const made = await h.create('/logs', log)
  expect(made.body).toMatchObject({ n: 4, span: 3, mean: 14, min: 13, max: 15 })
  expect(made.body.times).toBeUndefined()
  const points = await h.call('GET', `/logs/${made.body.id}/points`)
  expect(points.body).toEqual({ times: [0, 1, 2, 3], values: [13, 15, 13, 15] })
  const part = await h.call('GET', `/logs/${made.body.id}/points?from=1&to=2`)
  expect(part.body).toEqual({ times: [1, 2], values: [15, 13] })
  // Ten thousand points with one peak, drawn with a hundred: the peak is among them.
  const times = Array.from({ length: 10_000 }, (_, i) => i)
  const long = await h.create('/logs', { ...log, times, values: times.map((t) => (t === 4321 ? 99 : 14)) })
  const few = (await h.call('GET', `/logs/${long.body.id}/points?most=100`)).body
  expect(few.times.length).toBeLessThanOrEqual(100)
  expect(few.times[few.values.indexOf(99)]).toBe(4321)
  expect((await h.call('GET', `/logs/${made.body.id}/points?most=3`)).body.errors[0].field).toBe('most')
  await h.call('DELETE', `/logs/${long.body.id}`, undefined, { 'if-match': '"1"' })
  const dossier = (await h.call('GET', `/models/${modelId}/dossier`)).body
  expect(dossier.logs).toHaveLength(1)
  expect(dossier.logs[0].values).toBeUndefined()
  // Levels whose energy is nothing that a number can hold are still a log, and the dossier stays readable.
  const silent = await h.create('/logs', {
    trialId: await newTrial('noise'),
    startedAt: new Date().toISOString(),
    times: [0, 1],
    values: [-9000, -9000],
  })
  expect([silent.status, silent.body.energyMean]).toEqual([201, -9000])
  expect((await h.call('GET', `/models/${modelId}/dossier`)).status).toBe(200)
  const bad = await h.create('/logs', {
    trialId: trial,
    startedAt: new Date().toISOString(),
    times: [0, 0],
    values: [1, 2],
  })
  expect(bad.body.errors[0].field).toBe('times[1]')
  expect((await h.call('GET', `/logs/${randomUUID()}/points`)).status).toBe(404)
})

test('an import is all or nothing, and once', async () => {
  const trialId = randomUUID()
  const body = (seconds: number[]) => ({
    trials: [{ id: trialId, modelId, kind: 'vessel' }],
    readings: seconds.map((s) => ({
      id: randomUUID(),
      trialId,
      kind: 'vessel',
      takenAt: new Date().toISOString(),
      volume: 0.005,
      seconds: s,
    })),
  })
  const key = { 'idempotency-key': randomUUID() }
  const refused = await h.call('POST', '/imports', body([30, 0.1, 31]), key)
  expect(refused.body.errors[0].field).toBe('readings.1.seconds')
  const count = async (): Promise<number> =>
    (await h.call('GET', `/models/${modelId}/dossier`)).body.readings.filter(
      (r: { trialId: string }) => r.trialId === trialId,
    ).length
  expect(await count()).toBe(0)
  const good = body([30, 30.5, 31])
  const again = { 'idempotency-key': randomUUID() }
  expect((await h.call('POST', '/imports', good, again)).body).toEqual({ trials: 1, readings: 3, logs: 0 })
  expect((await h.call('POST', '/imports', good, again)).status).toBe(201)
  expect(await count()).toBe(3)
  // A row that breaks in the database takes the whole import back with it.
  const broken = { readings: [...body([32]).readings, { ...body([33]).readings[0], trialId: randomUUID() }] }
  expect((await h.call('POST', '/imports', broken, { 'idempotency-key': randomUUID() })).status).toBe(422)
  expect(await count()).toBe(3)
})

test('a photo belongs to a part or to a trial', async () => {
  const trial = await newTrial('prime')
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
    'base64',
  )
  const r = await h.app.inject({
    method: 'POST',
    url: `/api/v1/trials/${trial}/photos?id=${randomUUID()}`,
    headers: { host: 'localhost', 'content-type': 'image/png', 'idempotency-key': randomUUID() },
    payload: png,
  })
  expect(r.json()).toMatchObject({ trialId: trial, partId: null })
  const dossier = (await h.call('GET', `/models/${modelId}/dossier`)).body
  expect(dossier.photos.map((p: { trialId: string }) => p.trialId)).toContain(trial)
})
