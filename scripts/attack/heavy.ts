import { strToU8, zipSync } from 'fflate'
import { randomUUID } from 'node:crypto'
import { setTimeout as pause } from 'node:timers/promises'
import sharp from 'sharp'
import { create, faults, memoryOf, say, type App } from './app'
import { at, Pulse } from './pulse'

const JSON_TYPE = 'application/json'
const ZIP = 'application/zip'
/** Longest that somebody else may wait beside the largest of requests (ms). */
const MOST = 200

type Body = string | Uint8Array
interface Blow {
  readonly what: string
  readonly path: string
  readonly body: () => Body | Promise<Body>
  readonly type?: string
  /** How many at once. */
  readonly times?: number
}

/** Heavy requests: large, deep or long, sent to whatever takes them. */
const blows = (trialId: string): readonly Blow[] => {
  const lists = (bytes: number): Uint8Array => {
    const big = Buffer.alloc(bytes, '{},')
    big[0] = 0x5b
    return big
  }
  const archive = (bytes: number): Uint8Array => zipSync({ 'document.ypso.json': lists(bytes) }, { level: 9 })
  const document = (text: string): string => JSON.stringify({ text })
  const png = () =>
    sharp({ create: { width: 8888, height: 8888, channels: 3, background: '#345' } })
      .png()
      .toBuffer()
  const photos = (): string => `/trials/${trialId}/photos?id=${randomUUID()}&caption=`
  const rows = (n: number): string =>
    `{"format":"ypsometer","version":1,"subject":"bench","rows":{"readings":[${'{},'.repeat(n)}{}]}}`
  return [
    {
      what: 'archive that opens to 500 MB',
      path: '/documents/zip/preview',
      body: () => archive(500e6),
      type: ZIP,
    },
    {
      what: 'archive that opens to 60 MB',
      path: '/documents/zip/preview',
      body: () => archive(60e6),
      type: ZIP,
    },
    {
      what: 'archive that is none',
      path: '/documents/zip/preview',
      body: () => zipSync({ a: strToU8('b') }),
      type: ZIP,
    },
    {
      what: 'document of 27 MB of [{},',
      path: '/documents/preview',
      body: () => document(`[${'{},'.repeat(9e6)}{}]`),
    },
    {
      what: 'document of 0.9 million rows',
      path: '/documents/preview',
      body: () => document(rows(9e5)),
    },
    {
      what: 'document of 100 000 brackets',
      path: '/documents/preview',
      body: () => document('['.repeat(1e5)),
    },
    { what: '28 MB of [0,0,', path: '/documents/preview', body: () => `[${'0,'.repeat(14e6)}0]` },
    {
      what: '12 MB of [0,0, to a calculation',
      path: '/calc/tracer',
      body: () => `{"points":[${'0,'.repeat(5.9e6)}0]}`,
    },
    { what: '100 000 brackets', path: '/models', body: () => '['.repeat(1e5) },
    { what: '1 MB of [{}, to imports', path: '/imports', body: () => `{"trials":[${'{},'.repeat(3e5)}{}]}` },
    {
      what: 'table of 8.8 MB',
      path: '/csv/runs/preview',
      body: () => document(`id,volume [m³]\n${'x,1\n'.repeat(2.2e6)}`),
    },
    {
      what: 'table of 49 000 lines',
      path: '/csv/runs/preview',
      body: () =>
        document(
          `trialId,volume [m³],seconds [s]\n${Array.from({ length: 49_000 }, () => `${randomUUID()},1,2`).join('\n')}`,
        ),
    },
    {
      what: '60 pictures of 79 megapixels',
      path: '',
      body: png,
      type: 'image/png',
      times: 60,
    },
    {
      what: '200 archives that open to 60 MB',
      path: '/documents/zip/preview',
      body: () => archive(60e6),
      type: ZIP,
      times: 200,
    },
  ].map((b) => ({ ...b, path: b.path || photos() }))
}

/** How many answers there were of each status. */
const counted = (statuses: readonly number[]): string =>
  Object.entries(statuses.reduce<Record<number, number>>((n, s) => ({ ...n, [s]: (n[s] ?? 0) + 1 }), {}))
    .map(([s, n]) => (n > 1 ? `${n} × ${s}` : s))
    .join(', ')

/** The largest and deepest of requests and the longest of exports: how they are answered, and others meanwhile. */
export async function heavy(app: App): Promise<void> {
  const modelId = randomUUID()
  const trialId = randomUUID()
  await create(app, 'models', { id: modelId, maker: 'Quillon', name: 'Heavy', kind: 'internal' })
  await create(app, 'trials', { id: trialId, modelId })
  const pulse = new Pulse(`${app.address}/models?limit=20`)
  const part = async (what: string, work: () => Promise<readonly number[]>): Promise<void> => {
    await pause(300)
    pulse.clear()
    const from = performance.now()
    const statuses = await work()
    const took = (performance.now() - from) / 1000
    await pause(200)
    const { times, refused } = await pulse.taken()
    const longest = at(times, 1)
    if (longest > MOST) faults.push(`beside ${what} somebody waited ${longest.toFixed(0)} ms`)
    if (refused) faults.push(`beside ${what} somebody else was refused ${refused} times`)
    if (statuses.some((s) => s === 0 || (s >= 500 && s !== 503)))
      faults.push(`${what} was answered ${counted(statuses)}`)
    say(
      `heavy: ${what}: ${counted(statuses)} in ${took.toFixed(1)} s; others at most ${longest.toFixed(0)} ms, p50 ${at(times, 0.5).toFixed(0)}, ${refused} of ${times.length} refused`,
    )
  }
  const send = async ({ path, type = JSON_TYPE }: Blow, body: Body): Promise<number> =>
    fetch(`${app.address}${path.replace(/id=[^&]+/, `id=${randomUUID()}`)}`, {
      method: 'POST',
      headers: { 'content-type': type, 'idempotency-key': randomUUID() },
      body: body as BodyInit,
    })
      .then(async (r) => (await r.arrayBuffer(), r.status))
      .catch(() => 0)
  for (const blow of blows(trialId)) {
    const body = await blow.body()
    await part(blow.what, () => Promise.all(Array.from({ length: blow.times ?? 1 }, () => send(blow, body))))
  }
  for (const path of ['csv/tracers', 'csv/runs', 'documents/bench', 'documents/bench/zip'])
    await part(`GET ${path}`, async () => [
      await fetch(`${app.address}/${path}`)
        .then(async (r) => (await r.arrayBuffer(), r.status))
        .catch(() => 0),
    ])
  await pulse.stop()
  const { most, now } = memoryOf(app)
  say(`heavy: the server held ${most.toFixed(0)} MB at most, ${now.toFixed(0)} MB after it`)
}
