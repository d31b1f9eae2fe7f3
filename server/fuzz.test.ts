import fc from 'fast-check'
import { randomUUID } from 'node:crypto'
import { harness, type Harness } from './tests/harness'

let h: Harness
beforeAll(async () => {
  h = await harness()
})
afterAll(() => h.close())

const CREATES = [
  'models',
  'claims',
  'specimens',
  'hookups',
  'trials',
  'readings',
  'logs',
  'imports',
  'tanks',
  'contents',
  'parts',
  'bodies',
  'chambers',
  'media',
  'fills',
  'house-rules',
]
const CALCS = ['flow-runs', 'pump-fit', 'duty-point', 'tracer', 'network', 'path-audit', 'media-audit']

/** A problem document that names a field, or a success; never a fault of ours. */
function expectHonest(r: { status: number; body: { errors?: { field?: string }[]; code?: string } }): void {
  expect(r.status).toBeLessThan(500)
  if (r.status >= 400 && r.status !== 404) expect(r.body.errors?.[0]?.field ?? r.body.code).toBeTruthy()
}

/** Values that lean towards what a field might almost take. */
const value: fc.Arbitrary<unknown> = fc.oneof(
  fc.string({ unit: 'binary', maxLength: 30 }),
  fc.double(),
  fc.integer(),
  fc.boolean(),
  fc.constant(null),
  fc.uuid(),
  fc.constantFrom('canister', 'empty', 'hose', 'box', '', '\u0000', '2026-11-25', 1e308, -0),
  fc.array(fc.jsonValue({ maxDepth: 1 }), { maxLength: 3 }),
)
const FIELDS = ['id', 'modelId', 'trialId', 'maker', 'name', 'kind', 'quantity', 'value', 'words', 'state', 'lift', 'volume', 'seconds', 'takenAt', 'segments', 'height', 'waterLevel', 'typed', 'runs', 'points', 'pump', 'note'] // prettier-ignore
const body = fc.oneof(fc.dictionary(fc.constantFrom(...FIELDS), value), fc.jsonValue())

test.each(CREATES)('POST /%s takes or refuses anything, by name', async (path) => {
  await fc.assert(
    fc.asyncProperty(body, async (b) => {
      expectHonest(await h.call('POST', `/${path}`, b ?? undefined, { 'idempotency-key': randomUUID() }))
    }),
    { numRuns: 40 },
  )
})

test.each(CALCS)('POST /calc/%s takes or refuses anything, by name', async (path) => {
  const runs = fc.record({
    runs: fc.array(fc.record({ volume: fc.double(), seconds: fc.double() })),
    points: fc.array(
      fc.record({ flow: fc.double({ min: 0, max: 1 }), head: fc.double({ min: 0, max: 100 }) }),
      { maxLength: 8 },
    ),
    pump: fc.record({
      shutOffHead: fc.double({ min: 0.001, max: 1000 }),
      maxFlow: fc.double({ min: 1e-8, max: 10 }),
      exponent: fc.double({ min: 0.5, max: 10 }),
    }),
    segments: fc.array(
      fc.record({
        kind: fc.constantFrom('hose', 'fitting'),
        id: fc.uuid(),
        label: fc.constant('x'),
        length: fc.double({ min: 0, max: 100 }),
        diameter: fc.double({ min: 0.002, max: 0.2 }),
        roughness: fc.double({ min: 0, max: 0.005 }),
        lossCoefficient: fc.double({ min: 0, max: 1e6 }),
        count: fc.integer({ min: 0, max: 100 }),
      }),
      { maxLength: 6 },
    ),
    staticHead: fc.double({ min: -100, max: 1000 }),
  })
  await fc.assert(
    fc.asyncProperty(fc.oneof(body, runs), async (b) => {
      expectHonest(await h.call('POST', `/calc/${path}`, b ?? undefined))
    }),
    { numRuns: 80 },
  )
})

test.each([
  'session',
  'passes/look',
  'passes/use',
  'people',
  'people/first',
  'me/password',
  'presence',
  'documents',
  'documents/preview',
  'csv/tanks/preview',
  'history/1/undo',
  'upkeep/link',
])('POST /%s takes or refuses anything, by name', async (path) => {
  const credentials = fc.record({ name: value, password: value, next: value, secret: value, role: value }, { requiredKeys: [] }) // prettier-ignore
  const text = fc.record({ text: fc.string({ unit: 'binary', maxLength: 200 }) })
  await fc.assert(
    fc.asyncProperty(fc.oneof(body, credentials, text), async (b) => {
      expectHonest(await h.call('POST', `/${path}`, b ?? undefined, { 'idempotency-key': randomUUID() }))
    }),
    { numRuns: 40 },
  )
})

test('GET with any query or id is answered or refused by name', async () => {
  await fc.assert(
    fc.asyncProperty(fc.string({ unit: 'binary', maxLength: 40 }), async (s) => {
      const q = encodeURIComponent(s)
      for (const path of [
        `/models?search=${q}`,
        `/models?cursor=${q}`,
        `/models?kind=${q}`,
        `/tanks?cursor=${q}`,
        `/models/${q}`,
        `/models/${q}/dossier`,
        `/history?row=${q}`,
        `/history?before=${q}`,
        `/csv/${q}`,
        `/csv/claims?model=${q}`,
        `/upkeep.ics?key=${q}`,
      ])
        expectHonest(await h.call('GET', path))
    }),
    { numRuns: 60 },
  )
})
