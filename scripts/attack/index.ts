// `npm run attack`: does its worst to an app of its own, on loopback and in a folder of its own: bodies at the edge and
// beyond it, writers through kills of everything, a full disk, double starts, a flood. It prints figures, and ends with
// 1 on a loss, a write done twice, a fault of ours without one of its own, or a crash. ATTACK_SECONDS bounds each part.
import fc from 'fast-check'
import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import pg from 'pg'
import { runningUrl } from '../lib/cluster.mjs'
import { ensureBuild, ensurePackages, freePort, ROOT } from '../lib/system.mjs'
import { valuesOf, type Schema } from '../../contract/tests/values'

const SECONDS = Number(process.env.ATTACK_SECONDS ?? 20)
const faults: string[] = []
const say = (text: string): void => void process.stdout.write(`${text}\n`)
const pause = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms))

interface App {
  readonly child: ChildProcess
  readonly address: string
  readonly folder: string
  readonly stop: () => Promise<void>
}

const scratch = mkdtempSync(join(tmpdir(), 'ypsometer-attack-'))
chmodSync(scratch, 0o755)
let count = 0
function newFolder(): string {
  const folder = join(scratch, String(++count))
  mkdirSync(folder, { mode: 0o755 })
  return folder
}

/** Starts the app on a folder; resolves when it is ready, or with what it said when it left. */
async function start(folder: string, port: number): Promise<App | string> {
  const { DATABASE_URL: _db, HOST: _host, ...env } = process.env
  const child = spawn(process.execPath, ['scripts/start.mjs', '--empty'], {
    cwd: ROOT,
    env: { ...env, PORT: String(port), YPSOMETER_DATA: folder },
  })
  let said = ''
  const ready = new Promise<boolean>((done) => {
    const hear = (d: Buffer): void => {
      said += String(d)
      if (/ready: http/.test(said)) done(true)
    }
    child.stdout.on('data', hear)
    child.stderr.on('data', hear)
    child.on('exit', () => done(false))
  })
  if (!(await ready)) return said.trim()
  const stop = async (): Promise<void> => {
    if (child.exitCode !== null || child.signalCode !== null) return
    const gone = new Promise((r) => child.once('exit', r))
    child.kill('SIGINT')
    await gone
  }
  return { child, address: `http://127.0.0.1:${port}/api/v1`, folder, stop }
}
async function started(folder = newFolder()): Promise<App> {
  const app = await start(folder, await freePort())
  if (typeof app === 'string') throw new Error(app)
  return app
}

interface Answer {
  readonly status: number
  readonly code: string
  readonly body: unknown
}
/** Asks once; status 0 when nothing answered. */
async function ask(
  url: string,
  method: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Answer> {
  try {
    const r = await fetch(url, {
      method,
      headers: { ...(body !== undefined && { 'content-type': 'application/json' }), ...headers },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    })
    const json = (await r.json().catch(() => null)) as { code?: string } | null
    return { status: r.status, code: json?.code ?? '', body: json }
  } catch {
    return { status: 0, code: '', body: null }
  }
}
const tally = (answers: readonly Answer[]): string =>
  Object.entries(
    answers.reduce<Record<string, number>>((n, a) => {
      const what = a.status === 0 ? 'no answer' : `${a.status}${a.status === 503 ? ` ${a.code}` : ''}`
      return { ...n, [what]: (n[what] ?? 0) + 1 }
    }, {}),
  )
    .map(([what, n]) => `${n} × ${what}`)
    .join(', ')

interface OpenApi {
  readonly paths: Record<
    string,
    Record<string, { requestBody?: { content?: { 'application/json'?: { schema: Schema } } } }>
  >
}
/** Any change that a careless or hostile program makes to a body. */
const spoilt = (good: fc.Arbitrary<unknown>): fc.Arbitrary<unknown> =>
  fc.oneof(
    { weight: 4, arbitrary: good },
    { weight: 1, arbitrary: fc.jsonValue() },
    {
      weight: 3,
      arbitrary: fc
        .tuple(
          good,
          fc.nat(20),
          fc.oneof(fc.jsonValue({ maxDepth: 1 }), fc.constantFrom(1e308, -1e308, -0, '\u0000', [], {})),
        )
        .map(([body, at, other]) => {
          const keys = Object.keys((body ?? {}) as object)
          const key = keys[at % Math.max(1, keys.length)]
          return key === undefined ? body : { ...(body as object), [key]: other }
        }),
    },
  )

/** The collection that a field names a row of. */
const NAMES: Readonly<Record<string, string>> = {
  modelId: 'models',
  trialId: 'trials',
  hookupId: 'hookups',
  specimenId: 'specimens',
  fillId: 'fills',
  houseRuleId: 'house-rules',
}
/** A body with the rows it names among those that are there, and an id of its own where it has one. */
function tied(body: unknown, some: (collection: string) => string): unknown {
  if (!body || typeof body !== 'object' || Array.isArray(body)) return body
  return Object.fromEntries(
    Object.entries(body).map(([k, v]: [string, unknown]) => {
      if (k === 'id') return [k, randomUUID()]
      const collection = NAMES[k]
      return [k, collection && typeof v === 'string' ? some(collection) : v]
    }),
  )
}

/** Every endpoint with bodies at the limits of what it takes, and beyond. */
async function fuzz(app: App): Promise<void> {
  const api = (await ask(`${app.address}/openapi.json`, 'GET')).body as OpenApi
  /** Ids of the rows that were made, by the collection they are in. */
  const made = new Map<string, string[]>()
  const some = (collection: string, n: number): string => {
    const list = made.get(collection) ?? []
    return list[n % Math.max(1, list.length)] ?? randomUUID()
  }
  const seen: Answer[] = []
  const until = Date.now() + SECONDS * 1000
  const targets = Object.entries(api.paths).flatMap(([path, methods]) =>
    Object.entries(methods).map(([method, { requestBody }]) => {
      const schema = requestBody?.content?.['application/json']?.schema
      return { path, method: method.toUpperCase(), bodies: schema ? spoilt(valuesOf(schema)) : null }
    }),
  )
  for (let round = 0; Date.now() < until; round++)
    for (const { path, method, bodies } of targets) {
      // From its first owner on a bench lets nobody in who does not sign in, and there would be nothing left to try.
      if (path.endsWith('/people/first')) continue
      if (path.endsWith('/rig') || (path.endsWith('/instruments') && method === 'PUT')) continue
      const body = bodies ? fc.sample(bodies, { numRuns: 1, seed: round * 1000 + seen.length })[0] : undefined
      const collection = path.replace('/api/v1/', '').split('/')[0] ?? ''
      // Three in four bodies are tied to rows that are there, and new by their id.
      const linked = seen.length % 4 ? tied(body, (of) => some(of, round)) : body
      const where = path.replace('/api/v1', '').replace('{size}', 'full')
      const a = await ask(
        `${app.address}${where.replace(/\{\w+\}/g, some(collection, round))}`,
        method,
        linked,
        {
          'idempotency-key': randomUUID(),
          'if-match': `"${1 + (round % 3)}"`,
        },
      )
      seen.push(a)
      const { id } = (a.body ?? {}) as { id?: unknown }
      if (a.status === 201 && typeof id === 'string')
        made.set(collection, [...(made.get(collection) ?? []), id])
      if (a.status === 0 || (a.status >= 500 && a.code !== 'busy'))
        faults.push(
          `${method} ${path} gave ${a.status} ${a.code} for ${JSON.stringify(linked)?.slice(0, 300)}`,
        )
    }
  const shelf = await ask(`${app.address}/models?limit=100`, 'GET')
  if (shelf.status !== 200) faults.push(`the shelf gave ${shelf.status} after the fuzz`)
  say(`fuzz: ${seen.length} requests to ${targets.length} endpoints: ${tally(seen)}`)
}

/** Twenty writers while connections are cut, the database and the server are killed, and at last all of it at once. */
async function writers(app: App): Promise<void> {
  const { address, folder } = app
  const modelId = randomUUID()
  const trialId = randomUUID()
  const create = (path: string, body: object, key: string) =>
    ask(`${address}/${path}`, 'POST', body, { 'idempotency-key': key })
  await create('models', { id: modelId, maker: 'Quillon', name: 'Attacked', kind: 'internal' }, randomUUID())
  await create('trials', { id: trialId, modelId }, randomUUID())
  const until = Date.now() + SECONDS * 1000
  const acknowledged = new Set<string>()
  const all: Answer[] = []
  const writer = async (): Promise<void> => {
    while (Date.now() < until) {
      const body = {
        id: randomUUID(),
        trialId,
        takenAt: new Date().toISOString(),
        volume: 0.005,
        seconds: 20,
      }
      const key = randomUUID()
      for (let tries = 0; tries < 200; tries++) {
        const a = await create('readings', body, key)
        all.push(a)
        if (a.status === 201) {
          acknowledged.add(body.id)
          break
        }
        if (a.status !== 0 && a.status !== 503) faults.push(`a writer got ${a.status} ${a.code}`)
        await pause(100)
      }
    }
  }
  let kills = 0
  const killer = async (): Promise<void> => {
    while (Date.now() < until - 4000) {
      await pause(2500)
      const kind = kills++ % 3
      if (kind === 0) {
        const client = new pg.Client({ connectionString: runningUrl(folder) })
        client.on('error', () => undefined)
        await client.connect().catch(() => undefined)
        await client
          .query('select pg_terminate_backend(pid) from pg_stat_activity where pid <> pg_backend_pid()')
          .catch(() => undefined)
        await client.end().catch(() => undefined)
      } else if (kind === 1) {
        process.kill(
          Number(readFileSync(join(folder, 'pg', 'postmaster.pid'), 'utf8').split('\n')[0]),
          'SIGKILL',
        )
      } else spawnSync('pkill', ['-KILL', '-P', String(app.child.pid), '-f', 'dist/server.mjs'])
    }
  }
  await Promise.all([killer(), ...Array.from({ length: 20 }, writer)])
  for (let i = 0; (await ask(`${address}/health`, 'GET')).status !== 200; i++) {
    if (i > 300 || app.child.exitCode !== null) {
      faults.push('after the kills the app did not come back')
      return
    }
    await pause(100)
  }
  const dossier = (await ask(`${address}/models/${modelId}/dossier`, 'GET')).body as {
    readings: { id: string }[]
  }
  const ids = dossier.readings.map((r) => r.id)
  const there = new Set(ids)
  const lost = [...acknowledged].filter((id) => !there.has(id)).length
  if (lost) faults.push(`${lost} acknowledged writes were lost`)
  if (there.size !== ids.length) faults.push(`${ids.length - there.size} writes were done twice`)
  say(
    `writers: 20 through ${kills} kills: ${acknowledged.size} acknowledged, ${lost} lost, ${ids.length - there.size} twice (${tally(all)})`,
  )
}

/** The answers of a flood of readers, and how health was answered meanwhile. */
async function flood(app: App): Promise<void> {
  const until = Date.now() + Math.min(SECONDS, 8) * 1000
  const answers: Answer[] = []
  const waits: number[] = []
  const reader = async (): Promise<void> => {
    while (Date.now() < until) answers.push(await ask(`${app.address}/models?limit=100`, 'GET'))
  }
  const pulse = async (): Promise<void> => {
    while (Date.now() < until) {
      const from = performance.now()
      await ask(`${app.address}/health`, 'GET')
      waits.push(performance.now() - from)
      await pause(50)
    }
  }
  await Promise.all([pulse(), ...Array.from({ length: 200 }, reader)])
  for (const a of answers)
    if (a.status !== 200 && !(a.status === 503 && a.code === 'busy'))
      faults.push(`the flood got ${a.status} ${a.code}`)
  const sorted = waits.sort((a, b) => a - b)
  const at = (share: number): string =>
    `${(sorted[Math.floor(share * (sorted.length - 1))] ?? NaN).toFixed(0)} ms`
  say(`flood: 200 readers, ${tally(answers)}; health meanwhile ${at(0.5)} (median), ${at(0.95)} (95 %)`)
}

/** Two starts on one folder, again and again: one is ready, the other says why not, and its end ends nothing. */
async function doubleStarts(): Promise<void> {
  let good = 0
  for (let i = 0; i < 5; i++) {
    const folder = newFolder()
    const [a, b] = await Promise.all([start(folder, await freePort()), start(folder, await freePort())])
    const apps = [a, b].filter((x): x is App => typeof x !== 'string')
    const words = [a, b].find((x): x is string => typeof x === 'string') ?? ''
    const [only] = apps
    const lives = only && (await ask(`${only.address}/models`, 'GET')).status === 200
    if (apps.length === 1 && lives && /under way|already running/.test(words)) good++
    else faults.push(`double start ${i + 1}: ${apps.length} ready; ${words}`)
    for (const app of apps) await app.stop()
  }
  say(`double starts: ${good} of 5 as they should be`)
}

/** First starts killed at twenty moments; each is made good by the next. */
function killedStarts(): void {
  const r = spawnSync(
    process.execPath,
    ['--test', '--test-name-pattern', 'first start killed', 'scripts/tests/'],
    {
      cwd: ROOT,
      env: { ...process.env, MOMENTS: '20' },
      encoding: 'utf8',
    },
  )
  if (r.status !== 0) faults.push(`a first start that was killed was not made good: ${r.stdout.slice(-500)}`)
  say(`first starts killed at 20 moments: ${r.status === 0 ? 'all made good' : 'see the faults'}`)
}

/** A small file system that runs full while it is written to, and has room again. */
async function fullDisk(): Promise<void> {
  const folder = newFolder()
  if (spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=220m,mode=755', 'tmpfs', folder]).status !== 0) {
    say('full disk: left out, a small file system cannot be mounted here')
    return
  }
  try {
    const app = await started(folder)
    const fill = join(folder, 'filler')
    const add = (i: number) =>
      ask(
        `${app.address}/models`,
        'POST',
        {
          id: randomUUID(),
          maker: 'Quillon',
          name: `Full ${i} ${'x'.repeat(40)}`,
          kind: 'internal',
          note: 'y'.repeat(3900),
        },
        { 'idempotency-key': randomUUID() },
      )
    spawnSync('dd', ['if=/dev/zero', `of=${fill}`, 'bs=1M'], { stdio: 'ignore' })
    const full: Answer[] = []
    for (let i = 0; i < 3000 && !full.some((a) => a.status !== 201); i++) full.push(await add(i))
    for (let i = 0; i < 20; i++) full.push(await add(5000 + i))
    for (const a of full)
      if (![201, 503].includes(a.status)) faults.push(`on a full disk: ${a.status} ${a.code}`)
    rmSync(fill)
    let back = false
    for (let i = 0; i < 100 && !back; i++) {
      back = (await add(9000 + i)).status === 201
      if (!back) await pause(200)
    }
    if (!back) faults.push('with room again nothing was written')
    say(`full disk: ${tally(full)}; with room again ${back ? 'it writes' : 'it does not write'}`)
    writeFileSync(fill, '')
    spawnSync('dd', ['if=/dev/zero', `of=${fill}`, 'bs=1M'], { stdio: 'ignore' })
    await app.stop()
    const again = await start(folder, await freePort())
    say(`full disk, started again: “${typeof again === 'string' ? again.split('\n').at(-1) : 'ready'}”`)
    if (typeof again !== 'string') await again.stop()
  } finally {
    spawnSync('umount', ['-l', folder])
  }
}

ensurePackages()
await ensureBuild()
try {
  const app = await started()
  await fuzz(app)
  await flood(app)
  await writers(app)
  await app.stop()
  await doubleStarts()
  killedStarts()
  await fullDisk()
} catch (error) {
  faults.push(error instanceof Error ? error.message : String(error))
}
rmSync(scratch, { recursive: true, force: true })
for (const f of [...new Set(faults)].slice(0, 40)) say(`FAULT ${f}`)
say(faults.length ? `${faults.length} faults` : 'nothing lost, nothing twice, no fault of ours, no crash')
process.exit(faults.length ? 1 : 0)
