import { sql } from 'drizzle-orm'
import { randomUUID } from 'node:crypto'
import { harness, type Harness, write } from './tests/harness'

let h: Harness
beforeAll(async () => {
  h = await harness()
})
afterAll(() => h.close())

const newModel = async (): Promise<string> =>
  (await h.create('/models', { maker: 'Quillon', name: randomUUID(), kind: 'canister' })).body.id
const remove = (path: string, id: string, version = 1) =>
  h.call('DELETE', `/${path}/${id}`, undefined, { 'if-match': `"${version}"` })
const patch = (path: string, id: string, body: object, version = 1) =>
  h.call('PATCH', `/${path}/${id}`, body, { 'if-match': `"${version}"` })
const now = new Date().toISOString()
const VESSEL = { kind: 'vessel', takenAt: now, volume: 0.005, seconds: 20 }

describe('what cannot be right is refused where it is written, by the name of its field', () => {
  test('a printed figure beyond what its quantity can be, and one that says nothing', async () => {
    const modelId = await newModel()
    for (const [quantity, most] of [
      ['rated-flow', 1],
      ['max-head', 100],
      ['power', 1e5],
      ['tank-max', 1000],
      ['noise', 200],
    ] as const) {
      const refused = await h.create('/claims', { modelId, quantity, value: most * 1.01 })
      expect(refused.body.errors?.[0]).toMatchObject({
        field: 'value',
        message: expect.stringMatching(/^from \S+ to /),
      })
      expect((await h.create('/claims', { modelId, quantity, value: most })).status).toBe(201)
    }
    const nothing = await h.create('/claims', { modelId, quantity: 'tank-min' })
    expect(nothing.body.errors?.[0].field).toBe('value')
  })

  test('nothing is put under what was deleted, nor changed under it; putting it back makes it whole', async () => {
    const modelId = await newModel()
    const trial = (await h.create('/trials', { modelId })).body
    const run = (await h.create('/readings', { trialId: trial.id, ...VESSEL })).body
    await remove('trials', trial.id)
    const late = await h.create('/readings', { trialId: trial.id, ...VESSEL })
    expect(late).toMatchObject({ status: 409, body: { errors: [{ field: 'trialId' }] } })
    expect((await patch('readings', run.id, { note: 'x' })).body.errors?.[0].field).toBe('trialId')
    await remove('models', modelId)
    const orphan = await h.create('/claims', { modelId, quantity: 'noise', value: 30 })
    expect(orphan).toMatchObject({ status: 409, body: { errors: [{ field: 'modelId' }] } })
    await h.call('POST', `/models/${modelId}/restore`, undefined, { 'if-match': '"2"' })
    await h.call('POST', `/trials/${trial.id}/restore`, undefined, { 'if-match': '"2"' })
    expect((await h.create('/readings', { trialId: trial.id, ...VESSEL })).status).toBe(201)
  })

  test('another model’s unit, hookup, fill or chamber', async () => {
    const [mine, other] = [await newModel(), await newModel()]
    const unit = (await h.create('/specimens', { modelId: other })).body
    const hookup = (await h.create('/hookups', { modelId: other, name: 'Theirs' })).body
    const fill = (await h.create('/fills', { modelId: other, name: 'Theirs' })).body
    for (const foreign of [{ specimenId: unit.id }, { hookupId: hookup.id }, { fillId: fill.id }]) {
      const r = await h.create('/trials', { modelId: mine, ...foreign })
      expect(r.body.errors?.[0]).toMatchObject({
        field: Object.keys(foreign)[0],
        message: expect.stringContaining('same model'),
      })
    }
    const chamber = (
      await h.create('/chambers', {
        modelId: other,
        name: 'Tray',
        role: 'tray',
        position: 1,
        x: 0,
        y: 0,
        solid: { shape: 'box', length: 0.1, width: 0.1, height: 0.1 },
      })
    ).body
    const [medium] = (await h.call('GET', '/media')).body.items
    const layer = {
      id: randomUUID(),
      chamberId: chamber.id,
      mediumId: medium.id,
      amount: 0.05,
      measure: 'height',
      sealed: false,
      gap: 0,
      bagged: false,
      crossed: false,
      fouled: 0,
    }
    const own = (await h.create('/fills', { modelId: mine, name: 'Mine' })).body
    const r = await patch('fills', own.id, { layers: [layer] })
    expect(r.body.errors?.[0]).toMatchObject({ field: 'layers.0.chamberId' })
  })

  test('an import is held to the same: whole, or not at all', async () => {
    const modelId = await newModel()
    const trial = (await h.create('/trials', { modelId })).body
    await remove('trials', trial.id)
    const r = await h.call(
      'POST',
      '/imports',
      { readings: [{ id: randomUUID(), trialId: trial.id, ...VESSEL }] },
      { 'idempotency-key': randomUUID() },
    )
    expect(r).toMatchObject({ status: 409, body: { errors: [{ field: 'readings.0.trialId' }] } })
  })

  test('a field nobody knows, a name that cannot be seen, a run of the year 9999', async () => {
    const id = await newModel()
    const typo = await patch('models', id, { nmae: 'X' })
    expect(typo).toMatchObject({ status: 400, body: { errors: [{ field: 'nmae' }] } })
    expect((await h.call('GET', `/models/${id}`)).body.version).toBe(1)
    const unseen = await h.create('/models', { maker: '\u200b\u2060', name: 'x', kind: 'canister' })
    expect(unseen.body.errors?.[0].field).toBe('maker')
    const trial = (await h.create('/trials', { modelId: id })).body
    const far = await h.create('/readings', { trialId: trial.id, ...VESSEL, takenAt: '9999-01-01T00:00:00Z' })
    expect(far.body.errors?.[0].field).toBe('takenAt')
  })

  test('one house rule is in force, whoever chooses', async () => {
    const rules = async () =>
      (await h.call('GET', '/house-rules')).body.items as { id: string; chosen: boolean; version: number }[]
    const others = (await rules()).filter((r) => !r.chosen)
    const answers = await Promise.all(
      others.slice(0, 2).map((r) => patch('house-rules', r.id, { chosen: true }, r.version)),
    )
    expect(answers.map((r) => r.status)).toContain(200)
    expect((await rules()).filter((r) => r.chosen)).toHaveLength(1)
  })
})

describe('addresses', () => {
  test('a wrong method is told which are right; an address that cannot be read is a problem like any other', async () => {
    const wrong = await h.call('PATCH', '/models', {})
    expect(wrong).toMatchObject({ status: 405, body: { code: 'wrong-method' } })
    expect(wrong.headers.allow).toContain('POST')
    const r = await h.app.inject({
      method: 'GET',
      url: '/api/v1/models/%E0%A4%A',
      headers: { host: 'localhost' },
    })
    expect(r.statusCode).toBe(400)
    expect(r.headers['content-type']).toContain('application/problem+json')
    expect(r.headers['content-security-policy']).toBeDefined()
  })
  test('a HEAD on the stream of the instruments ends', async () => {
    const r = await h.app.inject({
      method: 'HEAD',
      url: '/api/v1/instruments/stream',
      headers: { host: 'localhost' },
    })
    expect(r.statusCode).toBe(405)
  })
  test('instruments are sought on this machine and on what the house lists, nowhere else', async () => {
    for (const host of ['10.0.0.1', 'example.org', '169.254.169.254']) {
      const r = await h.call('PUT' as 'PATCH', '/instruments', { host, port: 80 })
      expect(r.body.errors?.[0]).toMatchObject({
        field: 'host',
        message: expect.stringContaining('YPSOMETER_INSTRUMENT_HOSTS'),
      })
    }
    expect((await h.call('PUT' as 'PATCH', '/instruments', { host: '127.0.0.1', port: 5025 })).status).toBe(
      200,
    )
  })
})

test('a row that cannot be read is named, left out, and can be removed; the rest of the dossier stands', async () => {
  const modelId = await newModel()
  const trial = (await h.create('/trials', { modelId, kind: 'power' })).body
  const log = { trialId: trial.id, startedAt: now, times: [0, 1], values: [5, 6] }
  const kept = (await h.create('/logs', log)).body
  const lost = (await h.create('/logs', log)).body
  await write(h.db, sql`update log set mean = 'Infinity' where id = ${lost.id}`)
  const { status, body } = await h.call('GET', `/models/${modelId}/dossier`)
  expect(status).toBe(200)
  expect(body.logs.map((l: { id: string }) => l.id)).toEqual([kept.id])
  expect(body.unreadable).toMatchObject([{ collection: 'logs', one: 'log', id: lost.id, field: 'mean' }])
  expect((await remove('logs', lost.id)).status).toBe(200)
  expect((await h.call('GET', `/models/${modelId}/dossier`)).body.unreadable).toBeUndefined()
})

test('a write whose row could not be read again is refused before it is kept', async () => {
  const modelId = await newModel()
  await h.db.execute(
    sql`create or replace function spoil() returns trigger as $$ begin new.note = repeat('x', 5000); return new; end $$ language plpgsql`,
  )
  await h.db.execute(sql`create trigger spoil before insert on trial for each row execute function spoil()`)
  const r = await h.create('/trials', { modelId })
  await h.db.execute(sql`drop trigger spoil on trial`)
  expect(r).toMatchObject({ status: 422, body: { errors: [{ field: 'note' }] } })
  expect((await h.call('GET', `/models/${modelId}/dossier`)).body.trials).toEqual([])
})

test('a full disk is said, and asked to be tried again', async () => {
  const modelId = await newModel()
  await h.db.execute(
    sql`create or replace function full_disk() returns trigger as $$ begin raise sqlstate '53100'; end $$ language plpgsql`,
  )
  await h.db.execute(
    sql`create trigger full_disk before insert on claim for each row execute function full_disk()`,
  )
  const r = await h.create('/claims', { modelId, quantity: 'noise', value: 30 })
  await h.db.execute(sql`drop trigger full_disk on claim`)
  expect(r).toMatchObject({ status: 503, body: { code: 'disk-full' } })
  expect(r.headers['retry-after']).toBeDefined()
})
