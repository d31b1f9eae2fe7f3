// `npm start` as its user meets it, and what survives when everything is killed. Run by Node's own test runner.
import assert from 'node:assert/strict'
import { spawn, spawnSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import {
  chmodSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  readlinkSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import https from 'node:https'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { after, before, test } from 'node:test'
import { keptCluster } from '../lib/cluster.mjs'
import { watchPulse } from '../lib/pulse.mjs'
import { ensureBuild, ensurePackages, freePort, isFree, ROOT, startServer } from '../lib/system.mjs'

before(() => {
  ensurePackages()
  return ensureBuild()
})

const folders = []
function emptyFolder() {
  const folder = mkdtempSync(join(tmpdir(), 'ypsometer-start-'))
  chmodSync(folder, 0o755)
  folders.push(folder)
  return folder
}
/** A data folder with a cluster that was made once and copied since; only the first start makes one for itself. */
let made = null
async function dataFolder() {
  if (!made) {
    made = emptyFolder()
    ;(await keptCluster(made)).stop()
  }
  const folder = emptyFolder()
  const copied = spawnSync('cp', ['-a', `${made}/.`, folder])
  assert.equal(copied.status, 0)
  return folder
}
const started = []
after(() => {
  for (const child of started) child.kill('SIGKILL')
})
after(() => folders.forEach((f) => rmSync(f, { recursive: true, force: true })))

/** When a first start is killed (ms after it began); MOMENTS=20 tries that many, spread over its three seconds. */
const MOMENTS = process.env.MOMENTS
  ? Array.from(
      { length: Number(process.env.MOMENTS) },
      (_, i) => ((i + 0.5) * 3000) / Number(process.env.MOMENTS),
    )
  : [150, 600, 1300]

const clean = () => {
  const env = { ...process.env }
  for (const name of ['DATABASE_URL', 'HOST', 'PORT', 'YPSOMETER_DATA']) Reflect.deleteProperty(env, name)
  return env
}

/** Starts `npm start`'s script; resolves with its address once it is ready, or rejects with what it said. */
function start(env, ...args) {
  const child = spawn(process.execPath, ['scripts/start.mjs', ...args], {
    cwd: ROOT,
    env: { ...clean(), ...env },
  })
  started.push(child)
  let out = ''
  const ready = new Promise((done, fail) => {
    child.stdout.on('data', (d) => {
      out += d
      const m = /ready: (https?:\S+)/.exec(out)
      if (m) done(m[1])
    })
    child.stderr.on('data', (d) => (out += d))
    child.on('exit', (code) => fail(new Error(`left with ${code}: ${out}`)))
  })
  const stop = () =>
    new Promise((done) => {
      if (child.exitCode !== null) return done()
      child.on('exit', done)
      child.kill('SIGINT')
    })
  return { child, ready, stop, said: () => out }
}

const refused = (env, ...args) =>
  spawnSync(process.execPath, ['scripts/start.mjs', ...args], {
    cwd: ROOT,
    env: { ...clean(), ...env },
    encoding: 'utf8',
    timeout: 60000,
  })

/** Processes whose parent is `pid`. */
function childrenOf(pid) {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .filter((name) => {
      try {
        return Number(readFileSync(`/proc/${name}/stat`, 'utf8').split(') ')[1].split(' ')[1]) === pid
      } catch {
        return false
      }
    })
    .map(Number)
}

/** The command line of a process; empty when there is none. */
function commandOf(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8')
  } catch {
    return ''
  }
}

const postmasterOf = (env) =>
  Number(readFileSync(join(env.YPSOMETER_DATA, 'pg', 'postmaster.pid'), 'utf8').split('\n')[0])

/** Waits for a condition, and gives up after half a minute. */
async function until(holds) {
  for (let i = 0; !(await holds()); i++) {
    assert.ok(i < 600, `waited in vain for ${holds}`)
    await new Promise((r) => setTimeout(r, 50))
  }
}

/** Does any process work in this folder? */
const runsIn = (folder) =>
  readdirSync('/proc').some((name) => {
    try {
      return /^\d+$/.test(name) && readlinkSync(`/proc/${name}/cwd`) === folder
    } catch {
      return false
    }
  })

test('a host other than this machine, a bad port and a taken port each get one sentence', async () => {
  const data = emptyFolder()
  const host = refused({ HOST: '0.0.0.0', PORT: String(await freePort()), YPSOMETER_DATA: data })
  assert.equal(host.status, 1)
  assert.match(host.stderr, /^HOST is 0\.0\.0\.0, beyond this machine, and nothing speaks TLS[^\n]*\n$/)
  assert.deepEqual(readdirSync(data), [])
  assert.match(
    refused({ PORT: 'seven', YPSOMETER_DATA: data }).stderr,
    /^PORT is “seven”: give a number[^\n]*\n$/,
  )
  const port = await freePort()
  const other = createServer().listen(port, '127.0.0.1')
  await new Promise((r) => other.once('listening', r))
  assert.match(
    refused({ PORT: String(port), YPSOMETER_DATA: data }).stderr,
    /^Port \d+ is taken by another program[^\n]*\n$/,
  )
  other.close()
})

test('starts with the demo, refuses a second start, stops all it started, and keeps the data', async () => {
  const env = { PORT: String(await freePort()), YPSOMETER_DATA: emptyFolder() }
  const first = start(env)
  // A second one on the same data, in the same moment, under another port: one of the two is told so.
  await until(() => existsSync(join(env.YPSOMETER_DATA, 'pg-password')))
  const early = refused({ ...env, PORT: String(await freePort()) })
  assert.match(early.stderr, /^Another start on \S+ is under way: wait until it is ready\.\n$/)
  const address = await first.ready
  const shelf = await (await fetch(`${address}/api/v1/models`)).json()
  assert.ok(shelf.total >= 8)
  const page = await fetch(address)
  assert.match(await page.text(), /<div id="root">/)
  assert.match(refused(env).stderr, /^Ypsometer is already running at http\S+\.\n$/)
  const id = randomUUID()
  const made = await fetch(`${address}/api/v1/models`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'idempotency-key': randomUUID() },
    body: JSON.stringify({ id, maker: 'Quillon', name: 'Kept', kind: 'internal' }),
  })
  assert.equal(made.status, 201)
  await first.stop()
  await assert.rejects(fetch(`${address}/api/v1/health`))

  const second = start(env)
  const again = await second.ready
  assert.equal((await (await fetch(`${again}/api/v1/models/${id}`)).json()).name, 'Kept')
  assert.equal((await (await fetch(`${again}/api/v1/models`)).json()).total, shelf.total + 1)
  await second.stop()
})

test('what dies is started again, and a killed start leaves nothing that stands in the way of the next', async () => {
  const env = { PORT: String(await freePort()), YPSOMETER_DATA: await dataFolder(), HOST: 'localhost' }
  const first = start(env, '--empty')
  const address = await first.ready
  const healthy = async () => (await fetch(`${address}/api/v1/health`).catch(() => ({ ok: false }))).ok
  const pids = () => childrenOf(first.child.pid).filter((pid) => /dist\//.test(commandOf(pid)))
  if (process.getuid() === 0)
    for (const pid of pids()) assert.match(readFileSync(`/proc/${pid}/status`, 'utf8'), /^Uid:\t(?!0)\d/m)

  process.kill(postmasterOf(env), 'SIGKILL')
  await until(() => first.said().includes('The database had ended; it runs again.'))
  await until(healthy)
  const [server] = pids().filter((pid) => /server/.test(commandOf(pid)))
  process.kill(server, 'SIGKILL')
  await until(() => first.said().includes('The server had ended; it runs again.'))
  assert.ok(await healthy())

  const left = pids()
  assert.ok(left.length >= 2)
  first.child.kill('SIGKILL')
  const second = start(env, '--empty')
  await second.ready
  for (const pid of left) assert.doesNotMatch(commandOf(pid), /dist\//)
  await second.stop()
})

test('a server that lives and does not answer is ended, one that answers again is not', async () => {
  const child = spawn(process.execPath, ['-e', 'setInterval(() => {}, 1000)'])
  started.push(child)
  // Three missed are a long breath; the fourth in a row is none.
  let asked = 0
  let answers = true
  const rest = watchPulse(
    async () => ++asked % 4 === 0 && answers,
    () => child,
    5,
  )
  try {
    await until(() => asked >= 40)
    assert.equal(child.signalCode, null)
    answers = false
    await until(() => child.signalCode === 'SIGKILL')
  } finally {
    rest()
  }
})

test('a server that a signal ends while it starts is told at once', async () => {
  const begun = Date.now()
  const starting = startServer({
    port: await freePort(),
    host: '127.0.0.1',
    // Nobody listens there: it would go on trying.
    databaseUrl: `postgres://nobody@127.0.0.1:${await freePort()}/none`,
    demo: false,
  })
  const failed = assert.rejects(starting, /did not start|stopped at once/)
  let pid
  await until(() => (pid = childrenOf(process.pid).find((p) => /dist\/server/.test(commandOf(p)))))
  process.kill(pid, 'SIGKILL')
  await failed
  assert.ok(Date.now() - begun < 15_000)
})

test('beyond this machine: no owner, no start; then everyone signs in, over TLS of its own', async () => {
  const { generate } = await import('selfsigned')
  const { cert, private: key } = await generate([{ name: 'commonName', value: 'bench.example' }], {
    keySize: 2048,
  })
  const data = await dataFolder()
  const file = (name, text) => {
    writeFileSync(join(data, name), text)
    chmodSync(join(data, name), 0o644)
    return join(data, name)
  }
  const port = await freePort()
  const env = {
    HOST: '0.0.0.0',
    PORT: String(port),
    YPSOMETER_DATA: data,
    YPSOMETER_ADDRESS: 'https://bench.example',
    YPSOMETER_TLS_CERT: file('cert.pem', cert),
    YPSOMETER_TLS_KEY: file('key.pem', key),
  }
  const people = (...args) =>
    spawnSync(process.execPath, ['scripts/people.mjs', ...args], {
      cwd: ROOT,
      env: { ...clean(), ...env },
      encoding: 'utf8',
    })
  const unowned = refused(env, '--empty')
  assert.equal(unowned.status, 1)
  assert.match(unowned.stderr, /this workspace has no owner yet\. Create one with `npm run people -- owner/)

  assert.match(people('link', 'Orla').stderr, /No person called “Orla”/)
  const first = people('owner', 'Orla')
  const secret = /^https:\/\/bench\.example\/join#(\S{43})$/m.exec(first.stdout)?.[1]
  assert.ok(secret, first.stdout + first.stderr)
  const run = start(env, '--empty')
  assert.equal(await run.ready, 'https://bench.example')
  const ask = (path, { method = 'GET', body, cookie, host = 'bench.example' } = {}) =>
    new Promise((done, fail) => {
      const headers = { host, ...(cookie && { cookie }), ...(body && { 'content-type': 'application/json' }) }
      const asked = https.request(
        { port, path: `/api/v1${path}`, method, headers, ca: cert, servername: 'bench.example' },
        (answer) => {
          let text = ''
          answer.on('data', (d) => (text += d))
          answer.on('end', () =>
            done({ status: answer.statusCode, text, cookie: answer.headers['set-cookie']?.[0] ?? '' }),
          )
        },
      )
      asked.on('error', fail)
      asked.end(body && JSON.stringify(body))
    })
  assert.equal((await ask('/models')).status, 401)
  assert.equal((await ask('/models', { host: 'elsewhere.example' })).status, 421)
  const used = await ask('/passes/use', {
    method: 'POST',
    body: { secret, password: 'otter granite nine lamp' },
  })
  assert.equal(used.status, 201)
  assert.match(
    used.cookie,
    /^__Host-ypsometer=[\w-]{43}; Max-Age=\d+; Path=\/; HttpOnly; Secure; SameSite=Strict$/,
  )
  assert.equal((await ask('/models', { cookie: used.cookie.split(';')[0] })).status, 200)
  assert.match(people('list').stdout, /^Orla \(owner\), last here \d{4}-\d{2}-\d{2}$/m)
  await run.stop()
})

test('the address is one that a browser takes, also on the newer protocol', async (t) => {
  const port = await freePort()
  if (!(await isFree(port, '::1'))) return t.skip('this machine has no ::1')
  const run = start({ HOST: '::1', PORT: String(port), YPSOMETER_DATA: await dataFolder() }, '--empty')
  const address = await run.ready
  assert.equal(address, `http://[::1]:${port}`)
  assert.ok((await fetch(`${address}/api/v1/health`)).ok)
  await run.stop()
})

/** Opens a cluster as a start would, and asks it something with the password that stands beside it. */
async function opens(folder) {
  const cluster = await keptCluster(folder)
  const { default: pg } = await import('pg')
  const client = new pg.Client({ connectionString: cluster.url })
  await client.connect()
  assert.equal((await client.query('select 1 as one')).rows[0].one, 1)
  await client.end()
  return cluster
}

test('a first start killed at any moment is made good by the next', async () => {
  for (const moment of MOMENTS) {
    const folder = emptyFolder()
    const code = `import('./scripts/lib/cluster.mjs').then((m) => m.keptCluster(process.argv[1]))`
    const child = spawn(process.execPath, ['-e', code, folder], { cwd: ROOT, stdio: 'ignore' })
    await new Promise((r) => setTimeout(r, moment))
    child.kill('SIGKILL')
    const cluster = await opens(folder)
    assert.deepEqual(
      readdirSync(folder).sort(),
      ['pg', 'pg-app-password', 'pg-password'],
      `killed after ${moment} ms`,
    )
    assert.equal(statSync(join(folder, 'pg-password')).mode & 0o077, 0)
    cluster.stop()
  }
})

test('a password lost, a pid file that is empty or names another program: the record opens all the same', async () => {
  const folder = await dataFolder()
  const secret = join(folder, 'pg-password')
  const pidFile = join(folder, 'pg', 'postmaster.pid')
  writeFileSync(secret, '')
  ;(await opens(folder)).stop()
  rmSync(secret)
  writeFileSync(pidFile, '')
  ;(await opens(folder)).stop()
  writeFileSync(pidFile, `${process.pid}\n${folder}/pg\n0\n5432\n`)
  const cluster = await opens(folder)
  // Taken over while it runs, and with its password lost while it runs.
  assert.equal((await opens(folder)).url, cluster.url)
  rmSync(secret)
  ;(await opens(folder)).stop()
})

/** Runs one of the commands that keep the record. */
const keeping = (name, env, ...args) =>
  spawnSync(process.execPath, [`scripts/${name}.mjs`, ...args], {
    cwd: ROOT,
    env: { ...clean(), ...env },
    encoding: 'utf8',
    timeout: 60000,
  })

test('a backup is made while it runs, by hand and by the worker; restored at rest it is the record again', async () => {
  const env = { PORT: String(await freePort()), YPSOMETER_DATA: await dataFolder() }
  const file = join(env.YPSOMETER_DATA, 'shop.tar')
  const first = start(env, '--empty')
  const address = await first.ready
  const name = async (wanted) =>
    (await (await fetch(`${address}/api/v1/models?search=${wanted}`)).json()).items.length
  const put = (wanted) =>
    fetch(`${address}/api/v1/models`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'idempotency-key': randomUUID() },
      body: JSON.stringify({ id: randomUUID(), maker: 'Quillon', name: wanted, kind: 'internal' }),
    })
  await put('Before')
  assert.match(
    keeping('backup', env, file).stdout,
    /^Backed up 1 models and 0 photos to \S+ \([\d.]+ MB\)\.\n$/,
  )
  await put('After')
  const backups = join(env.YPSOMETER_DATA, 'backups')
  await until(() => readdirSync(backups).some((n) => n.endsWith('.tar')))
  await until(async () => (await (await fetch(`${address}/api/v1/status`)).json()).backup !== null)
  assert.match(keeping('restore', env, file).stderr, /^Ypsometer is running on \S+: stop it first[^\n]*\n$/)
  await first.stop()
  assert.match(keeping('restore', env, file).stderr, /holds models/)
  assert.match(keeping('restore', env, file, '--over').stdout, /^Restored 1 models/)
  assert.ok(readdirSync(env.YPSOMETER_DATA).some((n) => n.startsWith('ypsometer-before-restore-')))
  const second = start(env, '--empty')
  await second.ready
  assert.deepEqual([await name('Before'), await name('After')], [1, 0])
  await second.stop()
})

test('--empty starts with an empty shelf and the stocking types every tank needs', async () => {
  const run = start({ PORT: String(await freePort()), YPSOMETER_DATA: await dataFolder() }, '--empty')
  const address = await run.ready
  assert.equal((await (await fetch(`${address}/api/v1/models`)).json()).total, 0)
  assert.equal((await (await fetch(`${address}/api/v1/stock-classes`)).json()).items.length, 8)
  await run.stop()
})

test('every acknowledged write survives kill -9 of server and database, none twice', async () => {
  const env = { PORT: String(await freePort()), YPSOMETER_DATA: await dataFolder() }
  const first = start(env, '--empty')
  const address = await first.ready
  const post = (path, body, key) =>
    fetch(`${address}/api/v1/${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'idempotency-key': key },
      body: JSON.stringify(body),
    })
  const modelId = randomUUID()
  await post('models', { id: modelId, maker: 'Quillon', name: 'Killed', kind: 'internal' }, randomUUID())
  const trialId = randomUUID()
  await post('trials', { id: trialId, modelId }, randomUUID())
  const acknowledged = []
  const unanswered = []
  let killed = false
  const writer = (async () => {
    for (let i = 0; i < 5000; i++) {
      const write = [randomUUID(), randomUUID()]
      const takenAt = new Date(Date.UTC(2026, 10, 25) + i * 1000).toISOString()
      const body = { id: write[0], trialId, takenAt, volume: 0.005, seconds: 30 }
      try {
        const r = await post('readings', body, write[1])
        if (r.status === 201) acknowledged.push([body, write[1]])
        else unanswered.push([body, write[1]])
      } catch {
        unanswered.push([body, write[1]])
        if (killed) return
      }
    }
  })()
  await until(() => acknowledged.length > 100)
  killed = true
  process.kill(postmasterOf(env), 'SIGKILL')
  const servers = childrenOf(first.child.pid)
  first.child.kill('SIGKILL')
  servers.forEach((pid) => process.kill(pid, 'SIGKILL'))
  await writer
  assert.ok(acknowledged.length > 20, `only ${acknowledged.length} writes were acknowledged before the kill`)
  // Its workers notice that the database process is gone, and go too.
  await until(() => !runsIn(join(env.YPSOMETER_DATA, 'pg')))

  const second = start(env, '--empty')
  await second.ready
  // The writer asks again for what it got no answer to, under the same keys, and for one it did.
  for (const [body, key] of [...unanswered, ...acknowledged.slice(-1)])
    assert.equal((await post('readings', body, key)).status, 201)
  const { readings } = await (await fetch(`${address}/api/v1/models/${modelId}/dossier`)).json()
  const ids = readings.map((r) => r.id)
  assert.equal(new Set(ids).size, ids.length)
  for (const [body] of [...acknowledged, ...unanswered]) assert.ok(ids.includes(body.id))
  assert.equal(ids.length, acknowledged.length + unanswered.length)
  await second.stop()
})
