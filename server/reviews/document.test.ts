import type { ImportReport } from '@ypsometer/contract'
import { demoBundle } from '@ypsometer/demo'
import { randomUUID } from 'node:crypto'
import { demoHarness, harness, type Harness } from '../tests/harness'

jest.setTimeout(60_000)
let demo: Harness
let bare: Harness
let id = ''
beforeAll(async () => {
  demo = await demoHarness()
  bare = await harness()
  const modelId = demoBundle.models.find((m) => m.model.name === 'Mop 300')?.model.id ?? ''
  id = (await demo.create('/reviews', { modelId, title: '=A "hard" look <b>' })).body.id
  await post(demo, `/reviews/${id}/publish`, { anyway: 'No photo yet.' })
})
afterAll(async () => {
  await demo.close()
  await bare.close()
})

const post = (h: Harness, path: string, body: object) =>
  h.call('POST', path, body, { 'idempotency-key': randomUUID() })
const textOf = async (h: Harness): Promise<string> =>
  (await h.app.inject({ url: `/api/v1/documents/review?id=${id}` })).body
const preview = async (h: Harness, text: string): Promise<ImportReport> =>
  (await h.call('POST', '/documents/preview', { text })).body
interface Doc {
  rows: {
    reviews: [
      {
        published: {
          words: { title: string }
          snapshot: { sheet: { sections: { blocks: { figures?: { value: unknown }[] }[] }[] } }
        }[]
      } & Record<string, unknown>,
    ]
  }
}
const altered = (text: string, change: (review: Doc['rows']['reviews'][0]) => void): string => {
  const d = JSON.parse(text) as Doc
  change(d.rows.reviews[0])
  return JSON.stringify(d, null, 1)
}

test('a review goes to another bench with every number as it was said, and comes out byte for byte', async () => {
  const text = await textOf(demo)
  expect(await preview(bare, text)).toMatchObject({ subject: 'review', refused: [] })
  expect((await post(bare, '/documents', { text })).status).toBe(201)
  expect(await textOf(bare)).toBe(text)
  const [here, there] = await Promise.all(
    [demo, bare].map(async (h) => (await h.call('GET', `/reviews/${id}/editions`)).body.items),
  )
  expect(there).toEqual(here)
  // And is read there by a link of that bench.
  const { secret } = (await bare.call('POST', `/reviews/${id}/shares`, {})).body
  const shared = (await bare.call('GET', `/shared/${secret}`)).body
  expect(shared.edition.sheet).toEqual(here[0].snapshot.sheet)
})

test('a correction published elsewhere comes as one more edition, and goes when it is taken back', async () => {
  await post(demo, `/reviews/${id}/publish`, {
    what: 'the flow',
    why: 'a leaking hose',
    anyway: 'No photo yet.',
  })
  const text = await textOf(demo)
  const looked = await preview(bare, text)
  const review = looked.rows.find((r) => r.collection === 'reviews')
  expect(review?.fields).toContainEqual({ field: 'published', then: '1 editions', now: '2 editions' })
  const taken = await post(bare, '/documents', { text })
  const editions = async () => (await bare.call('GET', `/reviews/${id}/editions`)).body.items.length
  expect(await editions()).toBe(2)
  expect((await bare.call('GET', `/reviews/${id}`)).body).toMatchObject({ editions: 2, state: 'corrected' })
  await post(bare, `/documents/${taken.body.undo}/undo`, {})
  expect(await editions()).toBe(1)
  expect((await bare.call('GET', `/reviews/${id}`)).body).toMatchObject({ editions: 1, state: 'published' })
})

test('what was published is not rewritten by a document, and one that contradicts itself is refused by its line', async () => {
  const text = await textOf(demo)
  const before = await textOf(demo)
  const why = async (change: Parameters<typeof altered>[1]) => {
    const other = altered(text, change)
    const { refused } = await preview(demo, other)
    expect((await post(demo, '/documents', { text: other })).status).toBe(422)
    expect(refused[0]?.line).toBeGreaterThan(1)
    return [refused[0]?.field, refused[0]?.message]
  }
  const first = (r: Doc['rows']['reviews'][0]) => r.published[0] ?? { words: { title: '' }, snapshot: { sheet: { sections: [] } } } // prettier-ignore
  expect(await why((r) => (first(r).words.title = 'Never said'))).toEqual(['reviews.0.published', expect.stringMatching(/none is ever changed/)]) // prettier-ignore
  expect(await why((r) => r.published.pop())).toEqual([
    'reviews.0.published',
    expect.stringMatching(/every edition/),
  ])
  expect(await why((r) => r.published.reverse())).toEqual([
    'reviews.0.published',
    expect.stringMatching(/numbered/),
  ])
  expect(await why((r) => (r.state = 'draft'))).toEqual([
    'reviews.0.state',
    expect.stringMatching(/a draft where/),
  ])
  expect(await why((r) => (r.state = 'withdrawn'))).toEqual([
    'reviews.0.withdrawnOn',
    expect.stringMatching(/a day/),
  ])
  const [field] = await why((r) => {
    const numbers = first(r)
      .snapshot.sheet.sections.flatMap((s) => s.blocks)
      .find((b) => b.figures?.length)
    if (numbers?.figures?.[0]) numbers.figures[0].value = '577'
  })
  expect(field).toMatch(/^rows\.reviews\.0\.published\.0\.snapshot\.sheet\.sections/)
  expect(await textOf(demo)).toBe(before)
})

test('an editor without a review’s model cannot hang it on another', async () => {
  const other = altered(await textOf(demo), (r) =>
    Object.assign(r, { id: randomUUID(), modelId: randomUUID() }),
  )
  expect((await preview(demo, other)).refused[0]).toMatchObject({ field: 'reviews.0.modelId' })
})
