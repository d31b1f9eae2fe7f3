import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { harness, type Harness } from './tests/harness'

let h: Harness
let modelId: string
let partId: string
beforeAll(async () => {
  h = await harness()
  modelId = (await h.create('/models', { maker: 'Quillon', name: 'Strip', kind: 'canister' })).body.id
  partId = (await h.create('/parts', { modelId, position: 1, name: 'Main O-ring', findings: ['dry'] })).body
    .id
})
afterAll(() => h.close())

const upload = async (
  bytes: Buffer,
  type = 'image/jpeg',
  id: string = randomUUID(),
  key: string = randomUUID(),
) => {
  const r = await h.app.inject({
    method: 'POST',
    url: `/api/v1/parts/${partId}/photos?id=${id}&caption=seal`,
    headers: { host: 'localhost', 'content-type': type, 'idempotency-key': key },
    payload: bytes,
  })
  return { status: r.statusCode, body: r.json() }
}

/** A photo that carries a place and a camera in its metadata, lying on its side. */
const photograph = () =>
  sharp({ create: { width: 3000, height: 1500, channels: 3, background: '#336677' } })
    .withExif({ IFD0: { Make: 'Nobody', Copyright: 'private' }, IFD3: { GPSLatitude: '51/1 30/1 0/1' } })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer()

describe('photos', () => {
  test('are re-encoded upright, made smaller, without metadata, with a thumbnail', async () => {
    const sent = await upload(await photograph())
    expect(sent.status).toBe(201)
    expect(sent.body).toMatchObject({ partId, caption: 'seal', width: 1000, height: 2000 })
    expect(sent.body.full).toBeUndefined()
    const get = async (size: string) =>
      (await h.app.inject({ url: `/api/v1/photos/${sent.body.id}/${size}`, headers: { host: 'localhost' } }))
        .rawPayload
    const full = await sharp(await get('full')).metadata()
    expect(full).toMatchObject({ format: 'jpeg', width: 1000, height: 2000 })
    expect(full.exif).toBeUndefined()
    expect(full.orientation).toBeUndefined()
    expect((await sharp(await get('thumb')).metadata()).height).toBe(320)
  })

  test('a repeated upload under one key is one photo', async () => {
    const bytes = await photograph()
    const [id, key] = [randomUUID(), randomUUID()]
    const both = [await upload(bytes, 'image/jpeg', id, key), await upload(bytes, 'image/jpeg', id, key)]
    expect(both.map((r) => r.status)).toEqual([201, 201])
    const { photos } = (await h.call('GET', `/models/${modelId}/dossier`)).body
    expect(photos.filter((p: { id: string }) => p.id === id)).toHaveLength(1)
  })

  test('a fake, an empty one, one cut off midway and one of 30 MB are refused with the reason', async () => {
    const whole = await photograph()
    const cases: [Buffer, number, string][] = [
      [Buffer.from('GIF89a but not really a picture'), 422, 'a photo such as JPEG'],
      [
        Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'),
        422,
        'a photo such as JPEG',
      ],
      [Buffer.alloc(0), 422, 'empty'],
      [whole.subarray(0, Math.floor(whole.length / 2)), 422, 'cut off midway'],
      [Buffer.alloc(30 * 1024 * 1024, 1), 413, 'at most 20 MB'],
    ]
    for (const [bytes, status, words] of cases) {
      const r = await upload(bytes)
      expect(r.status).toBe(status)
      expect(r.body.errors[0].field).toBe('photo')
      expect(r.body.errors[0].message).toContain(words)
    }
  })

  test('a caption can be changed, a photo taken out and brought back', async () => {
    const { body } = await upload(await photograph(), 'application/octet-stream')
    const captioned = await h.call('PATCH', `/photos/${body.id}`, { caption: 'flat' }, { 'if-match': '"1"' })
    expect(captioned.body).toMatchObject({ caption: 'flat', version: 2 })
    await h.call('DELETE', `/photos/${body.id}`, undefined, { 'if-match': '"2"' })
    const ids = async () =>
      (await h.call('GET', `/models/${modelId}/dossier`)).body.photos.map((p: { id: string }) => p.id)
    expect(await ids()).not.toContain(body.id)
    await h.call('POST', `/photos/${body.id}/restore`, undefined, { 'if-match': '"3"' })
    expect(await ids()).toContain(body.id)
    expect((await h.call('GET', `/photos/${randomUUID()}/full`)).status).toBe(404)
  })
})

test('parts, contents, body and chambers are in the dossier; checks name their fields', async () => {
  await h.create('/contents', { modelId, name: 'hose 3 m', found: 'missing' })
  await h.create('/bodies', { modelId, outerWidth: 0.2, outerDepth: 0.2, outerHeight: 0.4, emptyMass: 3 })
  await h.create('/chambers', {
    modelId,
    position: 1,
    name: 'Tray',
    shape: 'cylinder',
    diameter: 0.18,
    height: 0.1,
  })
  const d = (await h.call('GET', `/models/${modelId}/dossier`)).body
  expect([d.parts, d.contents, d.bodies, d.chambers].map((l: unknown[]) => l.length)).toEqual([1, 1, 1, 1])
  expect(d.parts[0].findings).toEqual(['dry'])
  const field = async (path: string, body: Record<string, unknown>) =>
    (await h.create(path, body)).body.errors[0].field
  expect(await field('/parts', { modelId, position: 2, name: 'x', sparePriceMinor: 490 })).toBe(
    'sparePriceMinor',
  )
  expect(await field('/bodies', { modelId, outerWidth: 0.2, outerDepth: 0.2, outerHeight: 0.4 })).toBe(
    'modelId',
  )
  expect(await field('/chambers', { modelId, position: 1, name: 'x', role: 'attic' })).toBe('role')
  const heavy = await h.call('PATCH', `/bodies/${d.bodies[0].id}`, { fullMass: 2 }, { 'if-match': '"1"' })
  expect(heavy.body.errors[0]).toMatchObject({ field: 'fullMass', message: 'no less than the empty weight' })
})

test('two people tick different findings of typed fields without losing either’s text', async () => {
  const made = (await h.create('/parts', { modelId, position: 3, name: 'Clip', typed: { wetMass: '10 g' } }))
    .body
  const changed = await h.call(
    'PATCH',
    `/parts/${made.id}`,
    { moves: 3, typed: { moves: '3' } },
    { 'if-match': '"1"' },
  )
  expect(changed.body.typed).toEqual({ wetMass: '10 g', moves: '3' })
})
