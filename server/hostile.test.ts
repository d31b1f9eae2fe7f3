import { CSV_IN, CSV_TABLES } from '@ypsometer/contract'
import { strFromU8, unzipSync } from 'fflate'
import ICAL from 'ical.js'
import { randomUUID } from 'node:crypto'
import { harness, type Harness } from './tests/harness'

jest.setTimeout(60_000)
/** Names that are markup, formulas, statements, addresses, lines, or written from right to left. */
const NASTY = [
  '<script>alert(1)</script><img src=x onerror=alert(2)>',
  "'; DROP TABLE model; --",
  '=HYPERLINK("http://x","y")',
  '"quoted", and; parted\ttabs',
  '../../../etc/passwd',
  '\u202Egnp.exe',
  'BEGIN:VEVENT\nSUMMARY:planted',
  '${process.exit(1)} {{7*7}} %s %n',
  'مضخة 🐟 \u0301',
  'x'.repeat(80),
]
let h: Harness
let other: Harness
const models: string[] = []
const tanks: string[] = []
beforeAll(async () => {
  h = await harness()
  other = await harness()
  for (const name of NASTY) {
    const model = (await h.create('/models', { maker: name, name, kind: 'canister', note: name })).body
    models.push(model.id)
    await h.create('/claims', { modelId: model.id, quantity: 'guarantee', words: name, printedOn: name, qualifier: name }) // prettier-ignore
    await h.create('/parts', { modelId: model.id, position: 0, name, note: name, mark: name })
    const tank = { name, place: name, note: name, filters: [{ id: 'one', modelId: model.id, fill: 'proposed', label: name, kind: 'canister', ratedFlow: null, since: '2026-01-01' }] } // prettier-ignore
    const made = await h.create('/tanks', tank)
    if (made.status !== 201) throw new Error(JSON.stringify(made.body))
    tanks.push(made.body.id)
    await h.create('/media', { name, form: 'foam', note: name })
  }
})
afterAll(async () => {
  await h.close()
  await other.close()
})
const get = (path: string) => h.app.inject({ url: `/api/v1${path}`, headers: { host: 'localhost' } })
const post = (on: Harness, path: string, body: object) =>
  on.call('POST', path, body, { 'idempotency-key': randomUUID() })

test('they are kept as they are, and a dossier says them as they are', async () => {
  const trimmed = NASTY.map((n) => n.trim())
  for (const [i, id] of models.entries())
    expect((await h.call('GET', `/models/${id}/dossier`)).body).toMatchObject({
      model: { name: trimmed[i], note: NASTY[i] },
      claims: [{ words: NASTY[i] }],
    })
})

test('the whole bench as a document: out, into an empty one, and out again byte for byte', async () => {
  const text = (await get('/documents/bench')).body
  expect((await post(other, '/documents', { text })).status).toBe(201)
  expect(
    (await other.app.inject({ url: '/api/v1/documents/bench', headers: { host: 'localhost' } })).body,
  ).toBe(text)
})

test('names of files that go out are the program’s own, and an archive holds no other paths', async () => {
  for (const id of models) {
    const zip = await get(`/documents/model/zip?id=${id}`)
    expect(zip.headers['content-disposition']).toBe('attachment; filename="model.ypso.zip"')
    const files = unzipSync(new Uint8Array(zip.rawPayload))
    expect(Object.keys(files)).toEqual(['document.ypso.json'])
    expect(JSON.parse(strFromU8(files['document.ypso.json'] ?? new Uint8Array()))).toMatchObject({
      subject: 'model',
    })
  }
})

test.each(CSV_TABLES)('the table %s holds no cell that begins as a formula', async (table) => {
  const answer = await get(`/csv/${table}`)
  expect(answer.headers['content-type']).toMatch(/^text\/csv/)
  expect(answer.body).not.toMatch(/(^|,|\n)"?[=@]/)
})

test.each(CSV_IN.filter((t) => !['runs', 'prices', 'visits'].includes(t)))(
  'the table %s comes back as the same',
  async (table) => {
    const text = (await get(`/csv/${table}`)).body
    const { counts } = (await post(h, `/csv/${table}/preview`, { text })).body
    expect(counts).toMatchObject({ new: 0, changed: 0, same: NASTY.length })
  },
)

test('a calendar has the events that are due and none that was planted in a name', async () => {
  const answer = await get('/upkeep.ics')
  expect(answer.statusCode).toBe(200)
  const calendar = new ICAL.Component(ICAL.parse(answer.body) as [string, unknown[], unknown[]])
  const summaries = calendar
    .getAllSubcomponents('vevent')
    .map((e) => String(e.getFirstPropertyValue('summary')))
  expect(summaries.length).toBeGreaterThan(NASTY.length)
  expect(summaries.filter((s) => s === 'planted')).toEqual([])
  const planted = NASTY.find((n) => n.includes('planted')) ?? ''
  expect(summaries.some((s) => s.includes(planted.split('\n')[0] ?? '-'))).toBe(true)
})

test('the history says them, and what was taken back is as it was', async () => {
  for (const [i, id] of models.entries()) {
    await h.call('PATCH', `/models/${id}`, { note: 'plain' }, { 'if-match': '"1"' })
    const [change] = (await h.call('GET', `/history?row=${id}`)).body.items
    expect(change).toMatchObject({ name: NASTY[i]?.trim(), before: { note: NASTY[i] } })
    await post(h, `/history/${change.id}/undo`, {})
    expect((await h.call('GET', `/models/${id}`)).body.note).toBe(NASTY[i])
  }
})

test('an error that repeats them is JSON and nothing else', async () => {
  for (const nasty of NASTY) {
    const answer = await get(`/models/${encodeURIComponent(nasty)}/dossier?x=${encodeURIComponent(nasty)}`)
    expect(answer.statusCode).toBeGreaterThanOrEqual(400)
    expect(answer.statusCode).toBeLessThan(500)
    expect(answer.headers['content-type']).toMatch(/^application\/problem\+json/)
    expect(answer.headers['x-content-type-options']).toBe('nosniff')
  }
})
