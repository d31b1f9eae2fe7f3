import { demoBundle } from '@ypsometer/demo'
import { toInp } from '@ypsometer/core/network/inp'
import fc from 'fast-check'
import { harness, type Harness } from './tests/harness'

let h: Harness
beforeAll(async () => {
  h = await harness()
})
afterAll(() => h.close())

const fluid = { kinematicViscosity: 1e-6 }
const pump = { shutOffHead: 2, maxFlow: 3e-4, exponent: 1.75 }
/** A pump over a row of layers, each with a gap beside it. */
const rows = (n: number) => [
  { kind: 'pump', id: 'p', label: '', from: 'tank', to: 'n0', pump } as const,
  ...Array.from({ length: n }, (_, i) => ({
    kind: 'layer', id: `l${i}`, label: '', from: `n${i}`, to: i === n - 1 ? 'back' : `n${i + 1}`,
    thickness: 0.03, area: 0.03, permeability: 1e-8, inertia: 100,
  }) as const), // prettier-ignore
]
const heads = { tank: 0, back: 0 }

test('a file holds no more elements than a request may, and is refused at once', async () => {
  const inp = toInp({ elements: rows(420), heads, fluid })
  const r = await h.call('POST', '/calc/network', { inp })
  expect(r).toMatchObject({ status: 422, body: { errors: [{ field: 'inp' }] } })
  const most = await h.call('POST', '/calc/network', { inp: toInp({ elements: rows(300), heads, fluid }) })
  expect(most.status).toBe(200)
  expect(most.body.flows).toHaveLength(301)
}, 60_000)

test('a file with lines lost, doubled or garbled gives an answer or names what is wrong', async () => {
  const lines = toInp({ elements: rows(4), heads, fluid }).split('\n')
  await fc.assert(
    fc.asyncProperty(
      fc.nat(lines.length - 1),
      fc.oneof(
        fc.constant(''),
        fc.string({ maxLength: 40 }),
        fc.constant(';YPSOMETER {"'),
        fc.constantFrom(...lines),
      ),
      async (at, other) => {
        const r = await h.call('POST', '/calc/network', {
          inp: lines.map((l, i) => (i === at ? other : l)).join('\n'),
        })
        expect(r.status).toBeLessThan(500)
        if (r.status !== 200) expect(r.body.errors[0].field).toBeTruthy()
      },
    ),
    { numRuns: 120 },
  )
}, 60_000)

test('while something heavy is worked out, the server answers others; what would wait too long is told so', async () => {
  const [demo] = demoBundle.models
  const fill = demo?.fills[0]
  const body = demo?.bodies[0]
  if (!fill || !body) throw new Error('no demo fill')
  const { id: _id, modelId: _model, ...own } = body
  const request = {
    kind: demo.model.kind,
    body: own,
    chambers: demo.chambers.map(({ modelId: _of, ...c }) => c),
    media: demoBundle.media,
    layers: Array.from({ length: 3 }, (_, i) =>
      fill.layers.map((l) => ({
        ...l,
        id: `${l.id.slice(0, 30)}-${i}`,
        amount: Math.max(1e-6, l.amount / 3),
      })),
    ).flat(),
    pump,
  }
  const order: string[] = []
  const heavy = Array.from({ length: 40 }, async () => {
    const r = await h.call('POST', '/calc/path-audit', request)
    order.push('heavy')
    return r
  })
  const light = await Promise.all(
    Array.from({ length: 5 }, async () => {
      const r = await h.call('GET', '/health')
      order.push('light')
      return r.status
    }),
  )
  const answers = await Promise.all(heavy)
  expect(light).toEqual([200, 200, 200, 200, 200])
  const done = answers.filter((a) => a.status === 200)
  const turned = answers.filter((a) => a.status === 503)
  expect(done.length + turned.length).toBe(40)
  expect(done.length).toBeGreaterThan(10)
  for (const a of turned) expect([a.body.code, Number(a.headers['retry-after']) > 0]).toEqual(['busy', true])
  // Worked out where requests are answered, all forty would have come before the first of what asks for nothing.
  const before = order.slice(0, order.lastIndexOf('light')).filter((o) => o === 'heavy')
  expect(before.length).toBeLessThan(20)
}, 60_000)

test('under a flood of reads each is answered or told to come again, none that the database is away', async () => {
  const answers = await Promise.all(Array.from({ length: 400 }, () => h.call('GET', '/models?limit=100')))
  const codes = new Set(answers.map((a) => (a.status === 200 ? 'ok' : `${a.status} ${a.body.code}`)))
  expect([...codes].filter((c) => c !== 'ok' && c !== '503 busy')).toEqual([])
  expect((await h.call('GET', '/models')).status).toBe(200)
}, 60_000)

test('an answer travels small, and not at all while it has not changed', async () => {
  const ask = (headers: Record<string, string>) =>
    h.app.inject({ url: '/api/v1/media', headers: { host: 'localhost', ...headers } })
  const plain = await ask({})
  const first = await ask({ 'accept-encoding': 'br' })
  expect(first.headers['content-encoding']).toBe('br')
  expect(first.rawPayload.length).toBeLessThan(plain.rawPayload.length / 3)
  const { etag } = first.headers
  const again = await ask({ 'if-none-match': String(etag) })
  expect([again.statusCode, again.payload]).toEqual([304, ''])
})
