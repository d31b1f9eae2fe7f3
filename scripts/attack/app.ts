// An app of the attack's own, on loopback and in a folder of its own, and how it is asked.
import { spawn, type ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { chmodSync, createWriteStream, mkdirSync, mkdtempSync, readdirSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { freePort, ROOT } from '../lib/system.mjs'

export const SECONDS = Number(process.env.ATTACK_SECONDS ?? 20)
export const faults: string[] = []
export const say = (text: string): void => void process.stdout.write(`${text}\n`)
export const pause = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms))

export interface App {
  readonly child: ChildProcess
  readonly address: string
  readonly folder: string
  readonly stop: () => Promise<void>
}

export const scratch = mkdtempSync(join(tmpdir(), 'ypsometer-attack-'))
chmodSync(scratch, 0o755)
let count = 0
export function newFolder(): string {
  const folder = join(scratch, String(++count))
  mkdirSync(folder, { mode: 0o755 })
  return folder
}

/** Starts the app on a folder; resolves when it is ready, or with what it said when it left. */
export async function start(folder: string, port: number): Promise<App | string> {
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
    if (process.env.ATTACK_LOG) child.stdout.pipe(createWriteStream(process.env.ATTACK_LOG))
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
export async function started(folder = newFolder()): Promise<App> {
  const app = await start(folder, await freePort())
  if (typeof app === 'string') throw new Error(app)
  return app
}

export interface Answer {
  readonly status: number
  readonly code: string
  readonly body: unknown
}
/** Asks once; status 0 when nothing answered. */
export async function ask(
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
/** Makes a row, under a key of its own unless it is sent again. */
export const create = (app: App, path: string, body: object, key: string = randomUUID()): Promise<Answer> =>
  ask(`${app.address}/${path}`, 'POST', body, { 'idempotency-key': key })
export const tally = (answers: readonly Answer[]): string =>
  Object.entries(
    answers.reduce<Record<string, number>>((n, a) => {
      const what = a.status === 0 ? 'no answer' : `${a.status}${a.status === 503 ? ` ${a.code}` : ''}`
      return { ...n, [what]: (n[what] ?? 0) + 1 }
    }, {}),
  )
    .map(([what, n]) => `${n} × ${what}`)
    .join(', ')

/** The id of a process that this app's own start command has started, by its program; null where there is none. */
export function childOf(app: App, program: string): number | null {
  for (const name of readdirSync('/proc').filter((n) => /^\d+$/.test(n)))
    try {
      const parent = Number(readFileSync(`/proc/${name}/stat`, 'utf8').split(') ')[1]?.split(' ')[1])
      if (parent === app.child.pid && readFileSync(`/proc/${name}/cmdline`, 'utf8').includes(program))
        return Number(name)
    } catch {
      // It ended meanwhile.
    }
  return null
}

/** Most memory (MB) that the server of an app has held so far, and what it holds now. */
export function memoryOf(app: App): { readonly most: number; readonly now: number } {
  const pid = childOf(app, 'dist/server.mjs')
  const status = pid ? readFileSync(`/proc/${pid}/status`, 'utf8') : ''
  const of = (field: string): number => Number(new RegExp(`${field}:\\s+(\\d+)`).exec(status)?.[1]) / 1024
  return { most: of('VmHWM'), now: of('VmRSS') }
}
