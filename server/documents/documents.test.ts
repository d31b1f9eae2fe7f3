import { documentText, reviews, YpsoDocument, type ImportReport } from '@ypsometer/contract'
import { demoBundle } from '@ypsometer/demo'
import fc from 'fast-check'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { randomUUID } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import sharp from 'sharp'
import { demoHarness, harness, type Harness } from '../tests/harness'
import { isBare } from './archive'
import { readDocument } from './read'

jest.setTimeout(120_000)
let demo: Harness
let bare: Harness
let whole = ''
beforeAll(async () => {
  demo = await demoHarness()
  bare = await harness()
  whole = await textOf(demo, '/documents/bench')
})
afterAll(async () => {
  await demo.close()
  await bare.close()
})

const textOf = async (h: Harness, path: string): Promise<string> =>
  (await h.app.inject({ method: 'GET', url: `/api/v1${path}` })).body
const preview = async (h: Harness, text: string): Promise<ImportReport> =>
  (await h.call('POST', '/documents/preview', { text })).body
const take = (h: Harness, text: string) => h.create('/documents', { text })
const modelOf = (name: string): string => demoBundle.models.find((m) => m.model.name === name)?.model.id ?? ''
type Doc = { rows: Record<string, Record<string, unknown>[]>; version: number; format: string }
const changed = (text: string, change: (d: Doc) => void): string => {
  const d = JSON.parse(text) as Doc
  change(d)
  return JSON.stringify(d, null, 1)
}

test('the whole demo bench goes into an empty one and comes out byte for byte', async () => {
  const looked = await preview(bare, whole)
  expect(looked.refused).toEqual([])
  expect(looked.counts.new).toBeGreaterThan(900)
  // A look changes nothing.
  expect((await bare.call('GET', '/models')).body.items).toHaveLength(0)
  const taken = await take(bare, whole)
  expect(taken.status).toBe(201)
  expect(await textOf(bare, '/documents/bench')).toBe(whole)
  expect((await bare.call('GET', '/models')).body.items).toHaveLength(demoBundle.models.length)
  // Once more: everything is there already, and nothing is written.
  const again = await take(bare, whole)
  expect(again.body).toMatchObject({ counts: { new: 0, changed: 0 }, undo: null })
})

test('one model goes with all it stands on, and its dossier reads the same elsewhere', async () => {
  const other = await harness()
  const id = modelOf('Terrace 1200')
  const text = await textOf(demo, `/documents/model?id=${id}`)
  expect((await take(other, text)).status).toBe(201)
  expect(await textOf(other, `/documents/model?id=${id}`)).toBe(text)
  const [here, there] = await Promise.all(
    [demo, other].map(async (h) => (await h.call('GET', `/models/${id}/dossier`)).body),
  )
  for (const rows of ['claims', 'trials', 'fills', 'hookups', 'chambers'] as const)
    expect(there[rows].map((r: { id: string }) => r.id)).toEqual(here[rows].map((r: { id: string }) => r.id))
  await other.close()
})

test('what would change is shown field by field; taken back it is as it was, unless somebody has changed it since', async () => {
  const id = modelOf('Mop 300')
  const text = changed(await textOf(demo, `/documents/model?id=${id}`), (d) => {
    Object.assign(d.rows.models?.[0] ?? {}, { note: '<script>alert(1)</script> \u202E' })
    d.rows.claims?.push({ ...d.rows.claims[0], id: randomUUID(), quantity: 'guarantee', value: null, words: '9 years', amountMinor: null, currency: null, printedOn: 'a sticker' }) // prettier-ignore
  })
  const before = await textOf(demo, `/documents/model?id=${id}`)
  const looked = await preview(demo, text)
  expect(looked.counts).toMatchObject({ new: 1, changed: 1 })
  expect(looked.rows.find((r) => r.state === 'changed')).toMatchObject({ collection: 'models', name: 'Mop 300', fields: [{ field: 'note', now: '<script>alert(1)</script> \u202E' }] }) // prettier-ignore
  const first = await take(demo, text)
  expect((await demo.call('GET', `/models/${id}/dossier`)).body.model.note).toMatch(/script/)
  expect((await demo.call('POST', `/documents/${first.body.undo}/undo`)).body).toEqual({ undone: true })
  expect(await textOf(demo, `/documents/model?id=${id}`)).toBe(before)
  const second = await take(demo, text)
  const now = (await demo.call('GET', `/models/${id}/dossier`)).body.model
  await demo.call('PATCH', `/models/${id}`, { note: 'mine' }, { 'if-match': `"${now.version}"` })
  const refused = await demo.call('POST', `/documents/${second.body.undo}/undo`)
  expect([refused.status, refused.body.detail]).toEqual([
    409,
    expect.stringMatching(/changed after the import/),
  ])
  expect((await demo.call('GET', `/models/${id}/dossier`)).body.model.note).toBe('mine')
})

test('cut, altered, newer, foreign and self-contradicting documents are refused with their line, before anything is touched', async () => {
  const id = modelOf('Gale HB')
  const text = await textOf(demo, `/documents/model?id=${id}`)
  const before = await textOf(demo, '/documents/bench')
  const why = async (t: string) => {
    const { refused } = await preview(demo, t)
    expect((await take(demo, t)).status).toBe(422)
    return refused[0]
  }
  expect(await why(text.slice(0, 5000))).toMatchObject({
    field: 'text',
    line: text.slice(0, 5000).split('\n').length,
  })
  expect(await why(text.replace('"version": 1', '"version": 2'))).toMatchObject({ field: 'version', line: 3, message: expect.stringMatching(/newer program/) }) // prettier-ignore
  expect(await why(text.replace('"ypsometer"', '"other"'))).toMatchObject({ field: 'format', line: 2 })
  const broken = changed(text, (d) => Object.assign(d.rows.parts?.[1] ?? {}, { moves: -3 }))
  const line = broken.split('\n').findIndex((l) => l.includes('"moves": -3')) + 1
  expect(await why(broken)).toMatchObject({ field: 'rows.parts.1.moves', line, message: 'at least 0' })
  expect(await why(changed(text, (d) => Object.assign(d.rows.parts?.[0] ?? {}, { dance: 1 })))).toMatchObject({ field: 'rows.parts.0' }) // prettier-ignore
  expect(await why(changed(text, (d) => void d.rows.parts?.push(d.rows.parts[0] ?? {})))).toMatchObject({ message: expect.stringMatching(/once/) }) // prettier-ignore
  const stray = changed(text, (d) =>
    Object.assign(d.rows.parts?.[0] ?? {}, { id: randomUUID(), modelId: randomUUID() }),
  )
  expect(await why(stray)).toMatchObject({
    field: 'parts.0.modelId',
    message: 'points at something that is not there',
  })
  // Of another model, by an id of ours.
  const foreign = changed(text, (d) => Object.assign(d.rows.trials?.[0] ?? {}, { id: randomUUID(), hookupId: demoBundle.models[0]?.hookups[0]?.id })) // prettier-ignore
  expect(await why(foreign)).toMatchObject({ field: 'trials.0.hookupId' })
  const twice = changed(text, (d) => {
    const m = { ...d.rows.models?.[0], id: randomUUID() }
    d.rows = { models: [m] }
  })
  expect(await why(twice)).toMatchObject({ message: expect.stringMatching(/one already/) })
  expect(await textOf(demo, '/documents/bench')).toBe(before)
})

test('property: whatever text comes, it is looked at without a fault and without a trace', async () => {
  const id = modelOf('Whirlpot F1')
  const text = await textOf(demo, `/documents/model?id=${id}`)
  const before = await textOf(demo, `/documents/model?id=${id}`)
  await fc.assert(
    fc.asyncProperty(
      fc.nat(text.length - 1),
      fc.string({ maxLength: 12 }),
      fc.nat(40),
      async (at, put, cut) => {
        const broken = text.slice(0, at) + put + text.slice(at + cut)
        const answer = await demo.call('POST', '/documents/preview', { text: broken })
        expect(answer.status).toBe(200)
        for (const r of answer.body.refused) expect(r.message.length).toBeGreaterThan(3)
      },
    ),
    { numRuns: 60 },
  )
  expect(await textOf(demo, `/documents/model?id=${id}`)).toBe(before)
})

test('an archive takes the photos along: the same bytes out of another bench; what is no picture is refused', async () => {
  const model = demoBundle.models.find((m) => m.model.name === 'Gale HB')
  const picture = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#284' } })
    .png()
    .toBuffer()
  const photoId = randomUUID()
  const upload = await demo.app.inject({
    method: 'POST',
    url: `/api/v1/parts/${model?.parts[0]?.id}/photos?id=${photoId}&caption=${encodeURIComponent('<b>Lid</b>')}`,
    payload: picture,
    headers: { 'content-type': 'image/png', 'idempotency-key': randomUUID() },
  })
  expect(upload.statusCode).toBe(201)
  const zipOf = async (h: Harness): Promise<Buffer> =>
    (await h.app.inject({ method: 'GET', url: `/api/v1/documents/model/zip?id=${model?.model.id}` }))
      .rawPayload
  const give = async (h: Harness, path: string, payload: Buffer) =>
    h.app.inject({ method: 'POST', url: `/api/v1/documents/zip${path}`, payload, headers: { 'content-type': 'application/zip', 'idempotency-key': randomUUID() } }) // prettier-ignore
  const other = await harness()
  const zip = await zipOf(demo)
  expect((await give(other, '/preview', zip)).json().counts.new).toBeGreaterThan(50)
  const taken = await give(other, '', zip)
  expect(taken.statusCode).toBe(201)
  expect((await zipOf(other)).equals(zip)).toBe(true)
  const [here, there] = await Promise.all([demo, other].map((h) => h.app.inject({ method: 'GET', url: `/api/v1/photos/${photoId}/full` }))) // prettier-ignore
  expect(there?.rawPayload.equals(here?.rawPayload ?? Buffer.alloc(0))).toBe(true)
  // Taken back, the photo goes too.
  await other.call('POST', `/documents/${taken.json().undo}/undo`)
  expect((await other.call('GET', `/photos/${photoId}/thumb`)).status).toBe(404)
  // The document alone cannot bring a picture; an archive that is cut, foreign or holds no picture is refused.
  const files = unzipSync(zip)
  const text = strFromU8(files['document.ypso.json'] ?? new Uint8Array())
  const third = await harness()
  expect((await preview(third, text)).refused[0]).toMatchObject({ field: 'photos.0.id', message: expect.stringMatching(/archive/) }) // prettier-ignore
  expect((await give(third, '', zip.subarray(0, zip.length - 60))).statusCode).toBe(422)
  expect(
    (await give(third, '', Buffer.from(zipSync({ 'x.txt': strToU8('x') })))).json().errors[0].field,
  ).toBe('archive')
  const fake = Buffer.from(zipSync({ ...files, [`photos/${photoId}.jpg`]: strToU8('<svg onload=alert(1)>') }))
  expect((await give(third, '/preview', fake)).json().refused[0].message).toMatch(/JPEG, PNG or WebP/)
  await third.close()
  await other.close()
})

test('a house rule that comes by itself is not put in force; the choice of a whole bench comes with it', async () => {
  const other = await harness()
  const inForce = async (): Promise<string[]> =>
    (await other.call('GET', '/house-rules')).body.items.filter((r: { chosen: boolean }) => r.chosen).map((r: { name: string }) => r.name) // prettier-ignore
  const [was] = await inForce()
  const { items } = (await other.call('GET', '/house-rules')).body
  const text = changed(await textOf(other, `/documents/house-rule?id=${items[0].id}`), (d) => {
    Object.assign(d.rows['house-rules']?.[0] ?? {}, { id: randomUUID(), name: 'Ours', chosen: true })
  })
  expect((await take(other, text)).status).toBe(201)
  expect(await inForce()).toEqual([was])
  const bench = changed(await textOf(other, '/documents/bench'), (d) => {
    for (const r of d.rows['house-rules'] ?? []) r.chosen = r.name === 'Ours'
  })
  expect((await take(other, bench)).status).toBe(201)
  expect(await inForce()).toEqual(['Ours'])
  await other.close()
})

test('an older document without fields that came later is read with their usual values; the schema is published', async () => {
  const id = modelOf('Coracle A1')
  const text = changed(await textOf(demo, `/documents/model?id=${id}`), (d) => {
    d.rows.parts = (d.rows.parts ?? []).map(
      ({ goesIn: _g, mark: _m, canGoWrong: _c, follows: _f, ...p }) => p,
    )
    for (const s of d.rows.specimens ?? []) delete s.disclosure
  })
  expect((await preview(demo, text)).refused).toEqual([])
  // A rule within which a criterion came later: nothing of it has changed.
  const older = changed(whole, (d) => {
    for (const r of d.rows['house-rules'] as { advice: { weights: Record<string, number> } }[])
      delete r.advice.weights.noise
  })
  const { refused, rows } = await preview(demo, older)
  expect([refused, rows.filter((r) => r.collection === 'house-rules' && r.state !== 'same')]).toEqual([
    [],
    [],
  ])
  const { schema } = (await demo.call('GET', '/documents/schema')).body
  expect(schema.properties.rows.properties.models.items.required).toEqual(
    expect.arrayContaining(['id', 'maker', 'name', 'kind']),
  )
  expect(documentText(YpsoDocument.parse(JSON.parse(whole)) as never)).toBe(whole)
})

test('a tank whose filter was deleted goes elsewhere without it, by itself and with the whole bench', async () => {
  const [house, other] = [await harness(), await harness()]
  const model = await house.create('/models', { maker: 'Quillon', name: 'Kettle', kind: 'canister' })
  const filter = { id: 'f1', modelId: model.body.id, fill: 'as-shipped', label: 'the old one', kind: 'canister', ratedFlow: null, since: null } // prettier-ignore
  const tank = await house.create('/tanks', { name: 'Front', filters: [filter] })
  const path = `/documents/tank?id=${tank.body.id}`
  expect(JSON.parse(await textOf(house, path)).rows.models).toHaveLength(1)
  const { version } = model.body
  await house.call('DELETE', `/models/${model.body.id}`, undefined, { 'if-match': `"${version}"` })
  for (const from of [path, '/documents/bench']) {
    const text = await textOf(house, from)
    expect((await preview(other, text)).refused).toEqual([])
    expect(JSON.parse(text).rows.tanks[0].filters).toEqual([{ ...filter, modelId: null }])
  }
  await Promise.all([house.close(), other.close()])
})

test('taken back into its own house, a model or a tank changes nothing: kin and where something was seen stay', async () => {
  const { models, tanks } = demoBundle
  const paths = [
    ...models.map((m) => `/documents/model?id=${m.model.id}`),
    ...tanks.map((t) => `/documents/tank?id=${t.id}`),
  ]
  for (const path of paths) {
    const { counts, refused } = await preview(demo, await textOf(demo, path))
    expect({ path, ...counts, refused }).toMatchObject({ path, new: 0, changed: 0, refused: [] })
  }
})

const EXAMPLES = join(__dirname, '../../examples')
test.each(readdirSync(EXAMPLES).filter((f) => f.endsWith('.ypso.json')))(
  'the example %s goes into an empty bench and comes out byte for byte',
  async (file) => {
    const other = await harness()
    const text = readFileSync(join(EXAMPLES, file), 'utf8')
    const looked = await preview(other, text)
    expect([looked.refused, looked.counts.new > 0]).toEqual([[], true])
    expect((await take(other, text)).status).toBe(201)
    const { subject } = YpsoDocument.parse(JSON.parse(text))
    const { rows } = JSON.parse(text) as Doc
    const about: Readonly<Record<string, string>> = { model: 'models', tank: 'tanks', medium: 'media', 'house-rule': 'house-rules', review: 'reviews' } // prettier-ignore
    const id = subject === 'bench' ? '' : `?id=${String(rows[about[subject] ?? '']?.at(-1)?.id)}`
    expect(await textOf(other, `/documents/${subject}${id}`)).toBe(text)
    await other.close()
  },
)

test('property: any bench that can be made goes out, into an empty one, and out again the same, and its dossiers read the same', async () => {
  const words = fc.string({ unit: 'grapheme', maxLength: 24 }).filter((s) => !s.includes('\0'))
  const name = words.filter((s) => /[^\p{C}\p{Z}\p{M}]/u.test(s))
  const number = (min: number, max: number) => fc.double({ min, max, noNaN: true })
  const model = fc.record({
    name,
    note: words,
    kind: fc.constantFrom('canister', 'internal', 'sump', 'air-sponge'),
    claims: fc.uniqueArray(fc.constantFrom('rated-flow', 'max-head', 'power', 'tank-max'), { maxLength: 4 }),
    value: number(1e-6, 0.01),
    segments: fc.array(fc.record({ label: words, length: number(0.01, 20), diameter: number(0.004, 0.1) }), { maxLength: 4 }), // prettier-ignore
    runs: fc.array(fc.record({ volume: number(1e-3, 1), seconds: number(1, 3600), note: words }), {
      maxLength: 4,
    }),
    gone: fc.boolean(),
  })
  const tank = fc.record({ name, place: words, length: number(0.1, 5), waterTemperature: number(10, 30), covered: fc.boolean() }) // prettier-ignore
  await fc.assert(
    fc.asyncProperty(
      fc.array(model, { maxLength: 3 }),
      fc.array(tank, { maxLength: 2 }),
      async (models, tanks) => {
        const from = await harness()
        const to = await harness()
        try {
          const ids: string[] = []
          for (const { name, note, kind, claims, value, segments, runs, gone } of models) {
            const made = await from.create('/models', { maker: 'Any', name, kind, note })
            // Two of one name are refused, as anywhere.
            if (made.status !== 201) continue
            const modelId = made.body.id
            for (const quantity of claims)
              await from.create('/claims', { modelId, quantity, value, typed: { value: note } })
            await from.create('/hookups', {
              modelId,
              name: 'Any',
              segments: segments.map((s, i) => ({ kind: 'hose', id: `s${i}`, roughness: 1e-6, ...s })),
            })
            const trial = (await from.create('/trials', { modelId, kind: 'vessel' })).body
            for (const r of runs)
            await from.create('/readings', { trialId: trial.id, kind: 'vessel', takenAt: '2026-11-26T10:00:00.000Z', ...r }) // prettier-ignore
            if (gone) await from.call('DELETE', `/models/${modelId}`, undefined, { 'if-match': '"1"' })
            else ids.push(modelId)
          }
          for (const t of tanks) await from.create('/tanks', t)
          const text = await textOf(from, '/documents/bench')
          const { status, body } = await take(to, text)
          expect([status, body.refused]).toEqual([201, []])
          expect(await textOf(to, '/documents/bench')).toBe(text)
          const read = async (h: Harness, id: string) => {
            const { model, claims, hookups, trials, readings } = (
              await h.call('GET', `/models/${id}/dossier`)
            ).body
            const bare = (rows: { updatedAt: string }[]) => rows.map(({ updatedAt: _, ...r }) => r)
            return [model, ...[claims, hookups, trials, readings].map(bare)].map((x) =>
              Array.isArray(x) ? x : { ...x, updatedAt: '' },
            )
          }
          for (const id of ids) expect(await read(to, id)).toEqual(await read(from, id))
        } finally {
          await Promise.all([from.close(), to.close()])
        }
      },
    ),
    { numRuns: 12 },
  )
})

test('a huge document, and one with too many rows of a kind, are refused before anything is read of them', async () => {
  const large = await demo.call('POST', '/documents/preview', { text: ' '.repeat(30_000_001) })
  expect(large).toMatchObject({
    status: 400,
    body: { errors: [{ field: 'text', message: 'at most 30 MB' }] },
  })
  const beyond = await demo.call('POST', '/documents/preview', { text: ' '.repeat(41 * 1024 * 1024) })
  expect(beyond).toMatchObject({ status: 413, body: { errors: [{ message: 'at most 40 MB here' }] } })
  const row = { id: '', modelId: modelOf('Mop 300'), quantity: 'guarantee', words: 'x' }
  const rows = Array.from({ length: 50_001 }, (_, i) => ({ ...row, id: `00000000-0000-4000-8000-${String(i).padStart(12, '0')}` })) // prettier-ignore
  const many = { format: 'ypsometer', version: 1, subject: 'bench', rows: { claims: rows } }
  const before = await textOf(demo, '/documents/bench')
  const { refused } = await preview(demo, JSON.stringify(many))
  expect(refused[0]).toMatchObject({ field: 'rows.claims', message: 'at most 50000 rows' })
  expect(await textOf(demo, '/documents/bench')).toBe(before)
})

describe('pictures from elsewhere', () => {
  const plain = () => sharp({ create: { width: 40, height: 30, channels: 3, background: '#456' } }).jpeg().toBuffer() // prettier-ignore
  /** A segment of a JPEG put in behind its start. */
  const withSegment = (bytes: Buffer, kind: number, words: string): Buffer => {
    const body = Buffer.from(words, 'latin1')
    const head = Buffer.from([0xff, kind, (body.length + 2) >> 8, (body.length + 2) & 255])
    return Buffer.concat([bytes.subarray(0, 2), head, body, bytes.subarray(2)])
  }
  test('only a JPEG of nothing but its picture stays byte for byte', async () => {
    const bytes = await plain()
    expect(isBare(bytes)).toBe(true)
    expect(isBare(await sharp({ create: { width: 900, height: 700, channels: 3, background: '#456' } }).jpeg({ progressive: true }).toBuffer())).toBe(true) // prettier-ignore
    for (const [what, kind, words] of [
      ['places as XMP', 0xe1, 'http://ns.adobe.com/xap/1.0/\0<x:xmpmeta exif:GPSLatitude="48,12N"/>'],
      ['IPTC', 0xed, 'Photoshop 3.0\x008BIM\x04\x04'],
      ['a comment', 0xfe, 'at home, 48.2 north'],
      ['a profile', 0xe2, 'ICC_PROFILE\0'],
      ['a second head', 0xe0, 'JFXX\0'],
    ] as const)
      expect([what, isBare(withSegment(bytes, kind, words))]).toEqual([what, false])
    expect(isBare(Buffer.concat([bytes, Buffer.from('behind the end')]))).toBe(false)
    expect(isBare(Buffer.concat([bytes, bytes]))).toBe(false)
    expect(isBare(bytes.subarray(0, bytes.length - 2))).toBe(false)
  })
})

test('names that every object has are no names of a document’s', () => {
  const refusedOf = (text: string) => {
    const read = readDocument(text)
    return 'refused' in read ? read.refused : []
  }
  const of = (inner: string) => `{"format":"ypsometer","version":1,"subject":"bench","rows":{},${inner}}`
  for (const inner of ['"__proto__":{"a":1}', '"constructor":{"prototype":{"a":1}}'])
    expect(refusedOf(of(inner))).not.toEqual([])
  expect(reviews.Patch.safeParse({ words: { summary: 'fine' } }).success).toBe(true)
  for (const key of ['constructor', 'toString', ''])
    expect(reviews.Patch.safeParse({ words: JSON.parse(`{"${key}":"x"}`) }).success).toBe(false)
})
