import type { Change } from '@ypsometer/contract'
import { demoBundle } from '@ypsometer/demo'
import { sql } from 'drizzle-orm'
import fc from 'fast-check'
import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { demoHarness, type Harness } from '../tests/harness'

let h: Harness
beforeAll(async () => {
  h = await demoHarness()
})
afterAll(() => h.close())

const of = async (query: string): Promise<Change[]> => (await h.call('GET', `/history?${query}`)).body.items
const undo = (id: number | undefined) =>
  h.call('POST', `/history/${id}/undo`, undefined, { 'idempotency-key': randomUUID() })
const newModel = async (): Promise<string> =>
  (await h.create('/models', { maker: 'Quillon', name: randomUUID(), kind: 'canister' })).body.id
const patch = (path: string, version: number, body: object) =>
  h.call('PATCH', path, body, { 'if-match': `"${version}"` })
const rated = (modelId: string) =>
  h.create('/claims', { modelId, quantity: 'rated-flow', value: 2e-4, typed: { value: '720' } })

test('who did what and when, per row and per dossier, newest first', async () => {
  const modelId = await newModel()
  const claim = (await rated(modelId)).body
  const before = Date.now()
  await patch(`/claims/${claim.id}`, 1, { value: 3e-4, typed: { value: '1080' } })
  await h.call('DELETE', `/claims/${claim.id}`, undefined, { 'if-match': '"2"' })
  await h.call('POST', `/claims/${claim.id}/restore`, undefined, { 'if-match': '"3"' })
  const rows = await of(`row=${claim.id}`)
  expect(rows.map((c) => c.action)).toEqual(['restored', 'deleted', 'changed', 'made'])
  expect(rows[2]).toMatchObject({
    who: { name: 'This machine' },
    resource: 'claims',
    name: 'rated-flow',
    before: { value: 2e-4, typed: { value: '720' } },
    after: { value: 3e-4, typed: { value: '1080' } },
    undoable: true,
    undoneBy: null,
  })
  expect(Math.abs(Date.parse(rows[2]?.at ?? '') - before)).toBeLessThan(20_000)
  expect((await of(`model=${modelId}`)).map((c) => c.resource)).toEqual([
    ...['claims', 'claims', 'claims', 'claims'],
    'models',
  ])
})

test('only the fields that changed are kept; what changes nothing is no change', async () => {
  const modelId = await newModel()
  await patch(`/models/${modelId}`, 1, { note: 'loud', maker: 'Quillon' })
  await patch(`/models/${modelId}`, 2, { note: 'loud' })
  const rows = await of(`row=${modelId}`)
  expect(rows.map((c) => c.action)).toEqual(['changed', 'made'])
  expect([rows[0]?.before, rows[0]?.after]).toEqual([{ note: '' }, { note: 'loud' }])
})

test('a change taken back is a change of its own: value and text as they were, others’ fields untouched', async () => {
  const modelId = await newModel()
  const claim = (await rated(modelId)).body
  await patch(`/claims/${claim.id}`, 1, { value: 3e-4, typed: { value: '1080' } })
  await patch(`/claims/${claim.id}`, 2, { qualifier: 'without media', typed: { qualifier: 'w/o' } })
  const [, change] = await of(`row=${claim.id}`)
  expect((await undo(change?.id)).body).toEqual({ undone: true })
  const now = (await h.call('GET', `/claims/${claim.id}`)).body
  expect(now).toMatchObject({ value: 2e-4, qualifier: 'without media', version: 4, typed: { value: '720', qualifier: 'w/o' } }) // prettier-ignore
  const [back, , first] = await of(`row=${claim.id}`)
  expect(back).toMatchObject({ action: 'changed', undoes: change?.id, before: { value: 3e-4 } })
  expect(first).toMatchObject({ id: change?.id, undoneBy: back?.id, undoable: false })
  // And the taking back is taken back.
  await undo(back?.id)
  expect((await h.call('GET', `/claims/${claim.id}`)).body.value).toBe(3e-4)
})

test('what was changed again since is not overwritten', async () => {
  const modelId = await newModel()
  const claim = (await rated(modelId)).body
  await patch(`/claims/${claim.id}`, 1, { value: 3e-4 })
  await patch(`/claims/${claim.id}`, 2, { value: 4e-4 })
  const [, change] = await of(`row=${claim.id}`)
  expect(await undo(change?.id)).toMatchObject({
    status: 409,
    body: { code: 'changed-since', detail: expect.stringContaining('value') },
  })
  expect((await h.call('GET', `/claims/${claim.id}`)).body).toMatchObject({ value: 4e-4, version: 3 })
})

test('made, deleted and put back are taken back; of many at once, one does it', async () => {
  const modelId = await newModel()
  const claim = (await rated(modelId)).body
  const there = async (): Promise<boolean> =>
    (await h.call('GET', `/claims/${claim.id}`)).body.deletedAt === null
  const [made] = await of(`row=${claim.id}`)
  const all = await Promise.all([1, 2, 3, 4].map(() => undo(made?.id)))
  expect(all.map((r) => r.status).sort()).toEqual([200, 409, 409, 409])
  expect(await there()).toBe(false)
  const [deleted] = await of(`row=${claim.id}`)
  expect(deleted?.action).toBe('deleted')
  await undo(deleted?.id)
  expect(await there()).toBe(true)
  const [restored] = await of(`row=${claim.id}`)
  await undo(restored?.id)
  expect(await there()).toBe(false)
  // A field of a deleted row is not set behind its back.
  await patch(`/claims/${claim.id}`, 4, { value: 9e-4 })
})

test('parts that stand in other tables come back as they were: hoses in their order, layers of a fill', async () => {
  const found = demoBundle.models.find((m) => m.hookups.length && m.fills.some((f) => f.layers.length > 2))
  const dossier = (await h.call('GET', `/models/${found?.model.id}/dossier`)).body
  const hookup = dossier.hookups[0]
  const fill = dossier.fills.find((f: { layers: unknown[] }) => f.layers.length > 2)
  await patch(`/hookups/${hookup.id}`, hookup.version, { segments: hookup.segments.slice(0, 1) })
  await patch(`/fills/${fill.id}`, fill.version, { layers: [...fill.layers].reverse() })
  for (const [path, row, field] of [
    ['hookups', hookup, 'segments'],
    ['fills', fill, 'layers'],
  ] as const) {
    const [change] = await of(`row=${row.id}`)
    expect(change?.before).toEqual({ [field]: row[field] })
    expect((await undo(change?.id)).status).toBe(200)
    expect((await h.call('GET', `/${path}/${row.id}`)).body[field]).toEqual(row[field])
  }
})

test('an undo is held against the same rules as any write', async () => {
  const [a, b] = [await newModel(), await newModel()]
  await patch(`/models/${a}`, 1, { kinId: b })
  await patch(`/models/${a}`, 2, { kinId: null })
  await h.call('DELETE', `/models/${b}`, undefined, { 'if-match': '"1"' })
  const [change] = await of(`row=${a}`)
  expect(await undo(change?.id)).toMatchObject({ status: 409, body: { errors: [{ field: 'kinId' }] } })
})

test('imports, documents and photos are in it, and what takes a document back', async () => {
  const modelId = await newModel()
  const trialId = randomUUID()
  const reading = { id: randomUUID(), trialId, kind: 'vessel', takenAt: new Date().toISOString(), volume: 0.005, seconds: 30 } // prettier-ignore
  await h.call(
    'POST',
    '/imports',
    { trials: [{ id: trialId, modelId, kind: 'vessel' }], readings: [reading], logs: [] },
    { 'idempotency-key': randomUUID() },
  )
  expect((await of(`model=${modelId}`)).map((c) => [c.action, c.resource])).toEqual([
    ['made', 'readings'],
    ['made', 'trials'],
    ['made', 'models'],
  ])
  const picture = await sharp({ create: { width: 8, height: 8, channels: 3, background: 'grey' } }).jpeg().toBuffer() // prettier-ignore
  const photo = await h.app.inject({
    method: 'POST',
    url: `/api/v1/trials/${trialId}/photos?id=${randomUUID()}`,
    headers: { host: 'localhost', 'content-type': 'image/jpeg', 'idempotency-key': randomUUID() },
    payload: picture,
  })
  expect(photo.statusCode).toBe(201)
  expect((await of(`model=${modelId}`))[0]).toMatchObject({ action: 'made', resource: 'photos' })
  const text = JSON.stringify((await h.call('GET', `/documents/model?id=${modelId}`)).body)
  const other = text.replace('"note":""', '"note":"from elsewhere"')
  const taken = await h.call('POST', '/documents', { text: other }, { 'idempotency-key': randomUUID() })
  expect(taken.status).toBe(201)
  expect((await of(`row=${modelId}`))[0]).toMatchObject({
    action: 'changed',
    after: { note: 'from elsewhere' },
    who: { name: 'This machine' },
  })
  await h.call('POST', `/documents/${taken.body.undo}/undo`)
  expect((await of(`row=${modelId}`))[0]).toMatchObject({
    before: { note: 'from elsewhere' },
    after: { note: '' },
  })
})

test('a preview of a document leaves nothing in it', async () => {
  const modelId = await newModel()
  const text = JSON.stringify((await h.call('GET', `/documents/model?id=${modelId}`)).body)
  await h.call('POST', '/documents/preview', { text: text.replace('"note":""', '"note":"x"') })
  expect(await of(`row=${modelId}`)).toHaveLength(1)
})

test('what was deleted here comes back with its document, and goes again when that is taken back', async () => {
  const modelId = await newModel()
  const text = JSON.stringify((await h.call('GET', `/documents/model?id=${modelId}`)).body)
  await h.call('DELETE', `/models/${modelId}`, undefined, { 'if-match': '"1"' })
  const taken = await h.call('POST', '/documents', { text }, { 'idempotency-key': randomUUID() })
  expect(taken.body.counts).toMatchObject({ new: 1 })
  const there = async () => (await h.call('GET', `/models/${modelId}`)).body.deletedAt === null
  expect(await there()).toBe(true)
  expect((await of(`row=${modelId}`))[0]?.action).toBe('restored')
  await h.call('POST', `/documents/${taken.body.undo}/undo`)
  expect(await there()).toBe(false)
})

test('what was published is not taken back here; what the server set is told', async () => {
  const modelId = demoBundle.models[0]?.model.id ?? ''
  const review = (await h.create('/reviews', { modelId, title: 'Read' })).body
  const anyway = { anyway: 'No photo yet.' }
  await h.call('POST', `/reviews/${review.id}/publish`, anyway, { 'idempotency-key': randomUUID() })
  const [change] = await of(`row=${review.id}`)
  expect(change).toMatchObject({ after: { state: 'published', editions: 1 }, undoable: false })
  expect(await undo(change?.id)).toMatchObject({ status: 409, body: { code: 'not-undoable' } })
})

test('it is read page by page, each change once', async () => {
  const modelId = await newModel()
  for (let i = 0; i < 7; i++) await patch(`/models/${modelId}`, i + 1, { note: `note ${i}` })
  const seen: number[] = []
  for (let before = ''; ;) {
    const { body } = await h.call('GET', `/history?row=${modelId}&limit=3${before}`)
    seen.push(...body.items.map((c: Change) => c.id))
    if (body.next === null) break
    before = `&before=${body.next}`
  }
  expect(seen).toHaveLength(8)
  expect([...new Set(seen)].sort((a, b) => b - a)).toEqual(seen)
})

test.each(['update row_change set who_name = $$nobody$$', 'delete from row_change'])(
  'the database itself refuses: %s',
  async (statement) => {
    await newModel()
    await expect(h.db.execute(sql.raw(statement))).rejects.toMatchObject({
      cause: { message: 'what was done is never written anew' },
    })
  },
)

test('bad questions are answered by name', async () => {
  expect(await h.call('GET', '/history?row=x')).toMatchObject({
    status: 400,
    body: { errors: [{ field: 'row' }] },
  })
  expect(await h.call('GET', '/history?limit=1000')).toMatchObject({ status: 400 })
  expect(await undo(999_999_999)).toMatchObject({ status: 404 })
})

test('whatever is changed in whatever order, taken back one by one it is as it was (a property)', async () => {
  const found = demoBundle.models.find((m) => m.fills.some((f) => f.layers.length > 2) && m.hookups.length)
  const dossier = (await h.call('GET', `/models/${found?.model.id}/dossier`)).body
  const fill = dossier.fills.find((f: { layers: unknown[] }) => f.layers.length > 2)
  const hookup = dossier.hookups[0]
  const claim = dossier.claims.find((c: { quantity: string }) => c.quantity === 'rated-flow')
  const text = fc.string({ unit: 'grapheme', maxLength: 20 }).filter((s) => !s.includes('\0'))
  const edit = fc.oneof(
    fc.record({ path: fc.constant(`/claims/${claim.id}`), body: fc.record({ value: fc.double({ min: 1e-5, max: 0.01, noNaN: true }), typed: fc.record({ value: text }) }, { requiredKeys: ['value'] }) }), // prettier-ignore
    fc.record({ path: fc.constant(`/models/${found?.model.id}`), body: fc.record({ note: text }) }),
    fc.record({ path: fc.constant(`/fills/${fill.id}`), body: fc.shuffledSubarray([...fill.layers], { minLength: 1 }).map((layers) => ({ layers })) }), // prettier-ignore
    fc.record({ path: fc.constant(`/hookups/${hookup.id}`), body: fc.shuffledSubarray([...hookup.segments]).map((segments) => ({ segments })) }), // prettier-ignore
  )
  const paths = [
    `/claims/${claim.id}`,
    `/models/${found?.model.id}`,
    `/fills/${fill.id}`,
    `/hookups/${hookup.id}`,
  ]
  const state = async () =>
    Promise.all(
      paths.map(async (p) => {
        const { version: _, updatedAt: _u, ...row } = (await h.call('GET', p)).body
        return row
      }),
    )
  await fc.assert(
    fc.asyncProperty(fc.array(edit, { minLength: 1, maxLength: 6 }), async (edits) => {
      const before = await state()
      const since = (await of(`model=${found?.model.id}&limit=1`))[0]?.id ?? 0
      for (const { path, body } of edits) {
        const { version } = (await h.call('GET', path)).body
        expect((await patch(path, version, body)).status).toBe(200)
      }
      for (const c of await of(`model=${found?.model.id}`))
        if (c.id > since) expect((await undo(c.id)).status).toBe(200)
      expect(await state()).toEqual(before)
    }),
    { numRuns: 20 },
  )
})
