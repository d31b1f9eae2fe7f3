import { FILTER_KINDS } from '@ypsometer/core/kinds/filters'
import { demoBundle, idOf } from '@ypsometer/demo'
import type { Snapshot } from '@ypsometer/contract/review'
import { eq } from 'drizzle-orm'
import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { review, reviewEdition, reviewShare } from '../db/schema'
import { demoHarness, type Harness } from '../tests/harness'

let h: Harness
beforeAll(async () => {
  h = await demoHarness()
})
afterAll(() => h.close())

const modelOf = (name: string): string => demoBundle.models.find((m) => m.model.name === name)?.model.id ?? ''
const begin = async (name: string, title = 'A title'): Promise<string> => {
  const id = randomUUID()
  const made = await h.create('/reviews', { id, modelId: modelOf(name), title })
  expect(made.status).toBe(201)
  return id
}
const act = (id: string, what: string, body: object = {}) =>
  h.call('POST', `/reviews/${id}/${what}`, body, { 'idempotency-key': randomUUID() })
/** Why it goes out although its checklist is not met. */
const ANYWAY = { anyway: 'Photos follow.' }
const editions = async (
  id: string,
): Promise<{ number: number; snapshot: Snapshot; erratum: object | null }[]> =>
  (await h.call('GET', `/reviews/${id}/editions`)).body.items
const share = async (id: string, body: object = {}): Promise<{ secret: string; id: string }> => {
  const made = await h.call('POST', `/reviews/${id}/shares`, body)
  expect(made.status).toBe(201)
  return { secret: made.body.secret, id: made.body.share.id }
}

test('the numbers are the server’s: a draft holds a snapshot, and nothing that is sent can change one', async () => {
  const id = await begin('Gale HB')
  const { snapshot } = (await h.call('GET', `/reviews/${id}/draft`)).body as { snapshot: Snapshot }
  expect(snapshot).toMatchObject({
    format: 'ypsometer-review',
    version: 1,
    core: expect.stringMatching(/^0\.1\.0\+/),
  })
  expect(snapshot.inputs.dossier.model.name).toBe('Gale HB')
  expect(snapshot.sheet.sections.map((s) => s.id)).toEqual(expect.arrayContaining(['verdict', 'tanks', 'claims', 'flow', 'cautions'])) // prettier-ignore
  for (const field of ['draft', 'state', 'editions', 'publishedOn', 'takenOn']) {
    const refused = await h.call('PATCH', `/reviews/${id}`, { [field]: 1 }, { 'if-match': '"1"' })
    expect([field, refused.status]).toEqual([field, 400])
  }
  const worded = await h.call(
    'PATCH',
    `/reviews/${id}`,
    { intro: 'Words.', words: { path: 'More.' } },
    { 'if-match': '"1"' },
  )
  expect(worded.body).toMatchObject({ intro: 'Words.', version: 2 })
  expect((await h.call('GET', `/reviews/${id}/draft`)).body.snapshot).toEqual(snapshot)
})

test('published it stays as it was said, whatever becomes of rules, prices and the dossier; the draft can be taken anew', async () => {
  const id = await begin('Ledger 700')
  expect((await act(id, 'publish', ANYWAY)).body).toMatchObject({ state: 'published', editions: 1 })
  const before = JSON.stringify(await editions(id))
  const rules = (await h.call('GET', '/house-rules')).body.items
  const other = rules.find((r: { chosen: boolean }) => !r.chosen)
  await h.call('PATCH', `/house-rules/${other.id}`, { chosen: true }, { 'if-match': `"${other.version}"` })
  const dossier = (await h.call('GET', `/models/${modelOf('Ledger 700')}/dossier`)).body
  const price = dossier.claims.find((c: { quantity: string }) => c.quantity === 'price')
  await h.call('PATCH', `/claims/${price.id}`, { amountMinor: 99900 }, { 'if-match': `"${price.version}"` })
  const timing = dossier.trials.find(
    (t: { hookupId: string | null; state: string }) => t.hookupId && t.state !== 'empty',
  )
  await h.call('DELETE', `/trials/${timing.id}`, undefined, { 'if-match': `"${timing.version}"` })
  expect(JSON.stringify(await editions(id))).toBe(before)
  const moved = (await h.call('GET', `/reviews/${id}/moved`)).body.items as { label: string }[]
  expect(moved.length).toBeGreaterThan(2)
  expect((await act(id, 'retake')).status).toBe(200)
  expect(JSON.stringify(await editions(id))).toBe(before)
  // Not by the database’s own hand either.
  await expect(
    h.db.update(reviewEdition).set({ publishedOn: '2020-01-01' }).where(eq(reviewEdition.reviewId, id)),
  ).rejects.toThrow()
  await h.call('POST', `/trials/${timing.id}/restore`, undefined, { 'if-match': `"${timing.version + 1}"` })
})

test('a correction says what and why, and both editions can be read; a draft is not withdrawn, a withdrawn one says why', async () => {
  const id = await begin('Mop 300')
  expect((await act(id, 'withdraw', { why: 'x' })).status).toBe(409)
  await act(id, 'publish', ANYWAY)
  expect((await act(id, 'publish', ANYWAY)).body.errors[0].field).toBe('what')
  expect((await act(id, 'publish', { ...ANYWAY, what: 'A unit.' })).body.errors[0].field).toBe('why')
  expect((await act(id, 'publish', { ...ANYWAY, what: ' ', why: 'x' })).body.errors[0].field).toBe('what')
  const corrected = await act(id, 'publish', { ...ANYWAY, what: 'A unit.', why: 'A slip.' })
  expect(corrected.body).toMatchObject({ state: 'corrected', editions: 2 })
  expect((await editions(id)).map((e) => [e.number, e.erratum])).toEqual([[1, null], [2, { what: 'A unit.', why: 'A slip.' }]]) // prettier-ignore
  const { secret } = await share(id)
  expect((await h.call('GET', `/shared/${secret}?edition=1`)).body.edition.number).toBe(1)
  expect((await act(id, 'withdraw', {})).body.errors[0].field).toBe('why')
  expect((await act(id, 'withdraw', { why: 'The unit was swapped.' })).body).toMatchObject({ state: 'withdrawn', withdrawnWhy: 'The unit was swapped.' }) // prettier-ignore
  const read = (await h.call('GET', `/shared/${secret}`)).body
  expect([read.edition, read.withdrawn.why]).toEqual([null, 'The unit was swapped.'])
  // What was published is not deleted; a draft may be.
  const version = (await h.call('GET', `/reviews/${id}`)).body.version
  const kept = await h.call('DELETE', `/reviews/${id}`, undefined, { 'if-match': `"${version}"` })
  expect([kept.status, kept.body.errors[0].field]).toEqual([409, 'editions'])
  // Without a title nothing is published, nor with gaps in the checklist that nobody accounts for.
  const bare = await begin('Gale HB', '')
  expect((await act(bare, 'publish', ANYWAY)).body.errors[0].field).toBe('title')
  const gaps = await act(await begin('Gale HB'), 'publish')
  expect([gaps.status, gaps.body.errors[0].field]).toEqual([422, 'anyway'])
  expect(gaps.body.errors[0].message).toMatch(/missing: .*at least one photo$/)
  expect((await act(id, 'publish', { what: 'x', why: 'y' })).body.errors[0].field).toBe('anyway')
})

test('a link reads one review, counts its readings, and is refused once it is guessed, taken back or over', async () => {
  const id = await begin('Gale HB')
  expect((await h.call('POST', `/reviews/${id}/shares`, {})).status).toBe(409)
  await act(id, 'publish', ANYWAY)
  expect(
    (await h.call('POST', `/reviews/${id}/shares`, { expiresOn: '2020-01-01' })).body.errors[0].field,
  ).toBe('expiresOn')
  const { secret, id: shareId } = await share(id, { label: 'a reader', expiresOn: '2999-12-31' })
  // 24 bytes of chance; only a hash of it is kept.
  expect(secret).toMatch(/^[\w-]{32}$/)
  const [kept] = await h.db.select().from(reviewShare).where(eq(reviewShare.id, shareId))
  expect(JSON.stringify(kept)).not.toContain(secret)
  const read = await h.call('GET', `/shared/${secret}`)
  expect(read.headers['set-cookie']).toBeUndefined()
  expect(read.headers['x-robots-tag']).toBe('noindex')
  expect(read.body.edition.sheet.name).toBe('Gale HB')
  // Inputs, other reviews and the editor’s draft are not in it.
  expect(JSON.stringify(read.body)).not.toContain('"inputs"')
  await h.call('GET', `/shared/${secret}`)
  const shares = (await h.call('GET', `/reviews/${id}/shares`)).body.items
  expect(shares[0]).toMatchObject({ label: 'a reader', readings: 2, revokedAt: null })
  const gone = async (s: string): Promise<number> => (await h.call('GET', `/shared/${s}`)).status
  expect(await gone(`${secret.slice(0, -1)}${secret.endsWith('A') ? 'B' : 'A'}`)).toBe(404)
  expect(await gone('A'.repeat(32))).toBe(404)
  expect((await h.call('GET', `/shared/${secret}?edition=7`)).status).toBe(404)
  await h.db.update(reviewShare).set({ expiresOn: '2020-01-01' }).where(eq(reviewShare.id, shareId))
  expect(await gone(secret)).toBe(404)
  await h.db.update(reviewShare).set({ expiresOn: null }).where(eq(reviewShare.id, shareId))
  expect((await h.call('POST', `/shares/${shareId}/revoke`)).body.revokedAt).not.toBeNull()
  expect(await gone(secret)).toBe(404)
})

test('photos are kept as they were: they outlive their deletion, and a link shows its own review’s only', async () => {
  const modelId = modelOf('Gale HB')
  const part = demoBundle.models.find((m) => m.model.id === modelId)?.parts[0]
  const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#456' } })
    .jpeg()
    .toBuffer()
  const photoId = randomUUID()
  const upload = await h.app.inject({
    method: 'POST',
    url: `/api/v1/parts/${part?.id}/photos?id=${photoId}&caption=Lid`,
    payload: picture,
    headers: { 'content-type': 'image/jpeg', 'idempotency-key': randomUUID() },
  })
  expect(upload.statusCode).toBe(201)
  const id = await begin('Gale HB')
  await act(id, 'publish', ANYWAY)
  const { secret } = await share(id)
  await h.call('DELETE', `/photos/${photoId}`, undefined, { 'if-match': '"1"' })
  expect((await h.call('GET', `/photos/${photoId}/full`)).status).toBe(404)
  expect((await h.call('GET', `/shared/${secret}/photos/${photoId}`)).headers['content-type']).toBe(
    'image/jpeg',
  )
  expect((await h.call('GET', `/reviews/${id}/photos/${photoId}`)).status).toBe(200)
  const other = await begin('Mop 300')
  await act(other, 'publish', ANYWAY)
  const { secret: elsewhere } = await share(other)
  expect((await h.call('GET', `/shared/${elsewhere}/photos/${photoId}`)).status).toBe(404)
})

test.each(FILTER_KINDS)(
  '%s: a model of which nothing is known but its name can be written up',
  async (kind) => {
    const modelId = randomUUID()
    const name = `\u202E${kind} ${'W'.repeat(60)}`
    expect((await h.create('/models', { id: modelId, maker: '<b>Nobody</b>', name, kind })).status).toBe(201)
    const id = randomUUID()
    expect((await h.create('/reviews', { id, modelId, title: 'W'.repeat(200) })).status).toBe(201)
    expect((await act(id, 'publish', ANYWAY)).body.state).toBe('published')
    const { secret } = await share(id)
    const { edition } = (await h.call('GET', `/shared/${secret}`)).body
    expect(edition.sheet).toMatchObject({
      name,
      disclosure: expect.stringMatching(/How we got the unit is not disclosed yet/),
    })
    expect(edition.sheet.sections.map((s: { id: string }) => s.id)).toEqual(
      expect.arrayContaining(['verdict', 'cautions']),
    )
    expect(edition.drawing).toBeNull()
  },
)

test('a link that is hammered is refused for a minute', async () => {
  const answers = await Promise.all(
    Array.from({ length: 75 }, () => h.call('GET', `/shared/${'x'.repeat(32)}`)),
  )
  const refused = answers.filter((a) => a.status === 429)
  expect(refused.length).toBeGreaterThan(5)
  expect(refused[0]?.body.title).toMatch(/Too many readings/)
  expect(refused[0]?.headers['retry-after']).toBeDefined()
})

test('the demo has one published, one corrected with both editions, and one whose numbers have moved', async () => {
  const rows = await h.db.select({ id: review.id, state: review.state }).from(review)
  expect(rows.filter((r) => r.id === idOf('review-Torrent 1400')).map((r) => r.state)).toEqual(['corrected'])
  const [first, second] = await editions(idOf('review-Torrent 1400'))
  const flow = (s: Snapshot | undefined) => s?.sheet.sections.find((x) => x.id === 'flow')?.blocks[0]
  expect(flow(first?.snapshot)).not.toEqual(flow(second?.snapshot))
  const moved = (await h.call('GET', `/reviews/${idOf('review-Plainbody 1000')}/moved`)).body
  expect(moved.since).toBe('2026-06-10')
  expect(
    moved.items.filter((m: { then: object | null; now: object | null }) => m.then && m.now).length,
  ).toBeGreaterThan(1)
})
