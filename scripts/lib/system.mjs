// What the two commands need of the machine: Node, npm packages, Debian packages. Plain Node, nothing installed yet.
import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { chownSync, existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import http from 'node:http'
import https from 'node:https'
import { createServer } from 'node:net'
import { dirname, join, relative } from 'node:path'
import { fileURLToPath } from 'node:url'

export const ROOT = dirname(dirname(dirname(fileURLToPath(import.meta.url))))

/** An error whose message is all that should be printed. */
export class Plain extends Error {}

export const say = (text) => console.log(text)

/** Runs `main`, printing a Plain error as one sentence and leaving with 1. */
export async function command(main) {
  try {
    await main()
  } catch (error) {
    console.error(error instanceof Plain ? error.message : error)
    process.exit(1)
  }
}

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19))
    throw new Plain(`Node ${process.versions.node} is too old: 20.19 or newer is needed.`)
}

const hashFiles = (files) => {
  const h = createHash('sha256')
  for (const f of files.sort()) h.update(relative(ROOT, f)).update(readFileSync(f))
  return h.digest('hex')
}

/** Installs npm packages when they are missing or the lock file has changed since. */
export function ensurePackages() {
  const mark = join(ROOT, 'node_modules', '.installed-lock')
  const lock = join(ROOT, 'package-lock.json')
  const want = hashFiles([lock])
  if (existsSync(mark) && readFileSync(mark, 'utf8') === want) return
  say('Installing npm packages (once) …')
  const r = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: ROOT,
    stdio: 'inherit',
  })
  if (r.status !== 0) throw new Plain('npm could not install the packages; see its message above.')
  writeFileSync(mark, want)
}

const isRoot = () => process.getuid?.() === 0

/** Installs Debian packages whose test fails. */
export function ensureDebian(wanted) {
  const missing = wanted.filter(([, present]) => !present()).map(([name]) => name)
  if (!missing.length) return
  if (!isRoot())
    throw new Plain(`Missing: ${missing.join(', ')}. Install with: sudo apt-get install ${missing.join(' ')}`)
  say(`Installing ${missing.join(', ')} from Debian (once) …`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  const apt = (...args) =>
    spawnSync('apt-get', args, { stdio: ['ignore', 'ignore', 'inherit'], env }).status === 0
  if (!apt('update', '-qq') || !apt('install', '-y', '-qq', '--no-install-recommends', ...missing))
    throw new Plain(`apt-get could not install ${missing.join(', ')}; see its message above.`)
}

/** Newest PostgreSQL binaries of Debian, or null. */
export function postgresBin() {
  const base = '/usr/lib/postgresql'
  if (!existsSync(base)) return null
  const found = readdirSync(base)
    .filter((v) => existsSync(join(base, v, 'bin', 'initdb')))
    .sort((a, b) => Number(b) - Number(a))[0]
  return found ? join(base, found, 'bin') : null
}

export const POSTGRES = ['postgresql', () => postgresBin() !== null]
export const CHROMIUM = ['chromium-headless-shell', () => existsSync('/usr/bin/chromium-headless-shell')]

/** Every file below the folders, for telling whether sources changed. */
function walk(folder, out = []) {
  if (statSync(folder).isFile()) return [folder]
  for (const name of readdirSync(folder)) {
    if (name === 'node_modules' || name === 'dist' || /\.test\.tsx?$/.test(name)) continue
    const path = join(folder, name)
    if (statSync(path).isDirectory()) walk(path, out)
    else out.push(path)
  }
  return out
}

/** Builds what changed since the last build. @throws Plain with what the builder said. */
export async function ensureBuild() {
  await Promise.all([
    build('the web app', ['web', 'core', 'contract'], join('web', 'dist'), 'npm', [
      'run',
      '-s',
      'build',
      '-w',
      'web',
    ]),
    build(
      'the server',
      ['server', 'core', 'contract', 'demo', 'rig', 'web/src', 'scripts/bundle.mjs'],
      'dist',
      process.execPath,
      [join('scripts', 'bundle.mjs')],
    ),
  ])
}

async function build(what, sources, out, program, args) {
  const mark = join(ROOT, out, '.built-from')
  const want = hashFiles([...sources.flatMap((f) => walk(join(ROOT, f))), join(ROOT, 'package-lock.json')])
  if (existsSync(mark) && readFileSync(mark, 'utf8') === want) return
  say(`Building ${what} …`)
  const child = spawn(program, args, { cwd: ROOT })
  let said = ''
  child.stdout.on('data', (d) => (said += d))
  child.stderr.on('data', (d) => (said += d))
  const code = await new Promise((done) => child.on('close', done))
  if (code !== 0) throw new Plain(`The build of ${what} failed:\n${said}`)
  writeFileSync(mark, want)
}

/** A free TCP port on loopback. */
export const freePort = () =>
  new Promise((done, fail) => {
    const server = createServer()
    server.once('error', fail)
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address()
      server.close(() => done(port))
    })
  })

/** True when nothing listens on the port of that host yet. */
export const isFree = (port, host) =>
  new Promise((done) => {
    const server = createServer()
    server.once('error', () => done(false))
    server.listen(port, host, () => server.close(() => done(true)))
  })

/**
 * The user that servers run as when root started them, as an option of `spawn`: an ordinary one that can read the
 * program. Empty for any other user, and, with a warning, where root alone can read it.
 */
let ordinary
function ordinaryUser() {
  if (!isRoot()) return {}
  if (ordinary) return ordinary
  const [, , uid, gid] = /^nobody:.*$/m.exec(readFileSync('/etc/passwd', 'utf8'))?.[0].split(':') ?? []
  const as = { uid: Number(uid), gid: Number(gid) }
  const code = `require('fs').accessSync(${JSON.stringify(join(ROOT, 'dist', 'server.mjs'))}, 4)`
  const can = uid && spawnSync(process.execPath, ['-e', code], { ...as, cwd: '/', env: {} }).status === 0
  if (!can)
    console.error(
      `The server runs as root: no ordinary user can read ${ROOT}. Move it to where all users may enter.`,
    )
  return (ordinary = can ? as : {})
}

/** Makes a folder that the app's own processes may write to. */
export function ownFolder(path) {
  mkdirSync(path, { recursive: true, mode: 0o750 })
  const { uid, gid } = ordinaryUser()
  if (uid !== undefined) chownSync(path, uid, gid)
  return path
}

/** Starts the worker for the jobs on the database. */
export const startWorker = ({ databaseUrl, backups }) =>
  spawnTied(
    'worker.mjs',
    { DATABASE_URL: databaseUrl, ...(backups && { YPSOMETER_BACKUPS: backups }) },
    'inherit',
  )

/** Carries out a command of one of the app's programs on a database; true when it went well. */
export function carryOut(program, databaseUrl, ...args) {
  const r = spawnSync(
    process.execPath,
    ['--enable-source-maps', join(ROOT, 'dist', `${program}.mjs`), ...args],
    {
      stdio: 'inherit',
      env: { ...process.env, DATABASE_URL: databaseUrl },
    },
  )
  return r.status === 0
}

/** A process of the app that ends with this one, however suddenly that ends, and is no more than an ordinary user. */
function spawnTied(script, env, stderr) {
  return spawn(process.execPath, ['--enable-source-maps', join('dist', script)], {
    cwd: ROOT,
    // Memory that a picture took goes back to the machine, not to each thread that worked on one.
    env: { MALLOC_ARENA_MAX: '2', ...process.env, YPSOMETER_TIED: '1', ...env },
    stdio: ['pipe', 'inherit', stderr],
    ...ordinaryUser(),
  })
}

/** Starts the simulated bench on the first free port from `from` on; gives the child and its address. */
export async function startRig(from) {
  let port = from
  while (!(await isFree(port, '127.0.0.1'))) {
    if (++port > from + 50)
      throw new Plain(`No free port from ${from} on for the simulated bench: set RIG_PORT.`)
  }
  const child = spawnTied('rig.mjs', { RIG_PORT: String(port) }, 'inherit')
  return { child, port, address: `127.0.0.1:${port}` }
}

/** A host as it stands in an address. */
export const inAddress = (host) => (host.includes(':') ? `[${host}]` : host)

/** The address of this machine at which a server that listens at `host` is reached. */
const reachedAt = (host) => (host === '0.0.0.0' ? '127.0.0.1' : host === '::' ? '::1' : host)

/** Health of the server as it answers, whatever name its certificate is for; null for nothing. */
const healthOf = (host, port) =>
  new Promise((resolve) => {
    const tls = Boolean(process.env.YPSOMETER_TLS_CERT)
    const asked = (tls ? https : http).get(
      {
        host: reachedAt(host),
        port,
        path: '/api/v1/health',
        headers: { host: 'localhost' },
        rejectUnauthorized: false,
        timeout: 5000,
      },
      (answer) => {
        answer.resume()
        resolve(answer.statusCode)
      },
    )
    asked.on('error', () => resolve(null))
    asked.on('timeout', () => asked.destroy())
  })

/** Does the server answer at all? */
export const answers = async (host, port) => (await healthOf(host, port)) !== null

/** Has a child ended, by itself or by a signal? */
export const hasEnded = (child) => child.exitCode !== null || child.signalCode !== null

/** Starts the server as a child; resolves once it answers on /api/v1/health. */
export async function startServer({ port, host, databaseUrl, demo, instruments = '' }) {
  const child = spawnTied(
    'server.mjs',
    {
      PORT: String(port),
      HOST: host,
      DATABASE_URL: databaseUrl,
      YPSOMETER_DEMO: demo ? '1' : '0',
      NODE_ENV: 'production',
      ...(instruments && { YPSOMETER_INSTRUMENTS: instruments }),
    },
    'pipe',
  )
  let stderr = ''
  child.stderr.on('data', (d) => {
    stderr += d
    process.stderr.write(d)
  })
  for (let i = 0; i < 300; i++) {
    if (hasEnded(child))
      throw new Plain(stderr.trim() ? 'The server did not start; see above.' : 'The server stopped at once.')
    if ((await healthOf(host, port)) === 200) return child
    await new Promise((r) => setTimeout(r, 100))
  }
  child.kill('SIGKILL')
  throw new Plain('The server did not become ready within 30 s.')
}

/** Ends a child: asked first, and after five seconds not asked. */
export async function end(child) {
  if (!child || hasEnded(child)) return
  const gone = new Promise((done) => child.once('exit', done))
  child.kill('SIGTERM')
  const timer = setTimeout(() => child.kill('SIGKILL'), 5000)
  await gone
  clearTimeout(timer)
}

export { isRoot }
