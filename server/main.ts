import { count } from 'drizzle-orm'
import { join, resolve } from 'node:path'
import { loadDemo } from './demo/load'
import { serverEnvironment } from './people/environment'
import { optionsOf, refuseUnowned } from './startOptions'
import { buildApp } from './app'
import { TOO_MUCH_MEMORY } from './http/sending'
import { connect, poolOf, untilReachable } from './db/client'
import { migrate } from './db/migrate'
import { model } from './db/schema'

/** “host:port” of a SCPI socket. */
function addressOf(text: string): { host: string; port: number } {
  const m = /^(.+):(\d{1,5})$/.exec(text)
  if (!m?.[1] || !m[2]) throw new Error(`YPSOMETER_INSTRUMENTS is “${text}”: give host:port.`)
  return { host: m[1], port: Number(m[2]) }
}

/** Memory (bytes) beyond which the server turns requests away instead of being ended by the machine. */
const MOST_MEMORY = 1.25 * 1024 ** 3
/** Memory is looked at so often (ms); a server that has had far too much for so many looks leaves, to be replaced. */
const LOOK = 2000
const MOST_LOOKS = 10
/** Longest time an end in good order may take (ms). */
const LONGEST_END = 4000

/**
 * Starts the server from its environment: DATABASE_URL, HOST, PORT, and YPSOMETER_WEB, _DEMO, _INSTRUMENTS,
 * _INSTRUMENT_HOSTS, and those of {@link serverEnvironment}.
 */
async function main(): Promise<void> {
  const host = process.env.HOST ?? '127.0.0.1'
  const port = Number(process.env.PORT ?? 4680)
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set; `npm start` sets it.')
  const way = serverEnvironment(process.env)
  const { db, pool } = connect(url, poolOf(process.env.YPSOMETER_POOL))
  await untilReachable(db)
  await migrate(db)
  await refuseUnowned(db, way)
  const demo = process.env.YPSOMETER_DEMO === '1'
  if (demo) {
    const [row] = await db.select({ n: count() }).from(model)
    if (row?.n === 0) await loadDemo(db)
  }
  const app = await buildApp({
    db,
    webRoot: resolve(process.env.YPSOMETER_WEB ?? join(process.cwd(), 'web', 'dist')),
    logLevel: process.env.LOG_LEVEL ?? 'warn',
    mostMemory: MOST_MEMORY,
    threads: true,
    ...(await optionsOf(way, demo)),
    instrumentHosts: (process.env.YPSOMETER_INSTRUMENT_HOSTS ?? '').split(/[\s,]+/).filter(Boolean),
    ...(process.env.YPSOMETER_INSTRUMENTS && {
      instruments: addressOf(process.env.YPSOMETER_INSTRUMENTS),
    }),
  })
  const stop = async (): Promise<void> => {
    setTimeout(() => process.exit(0), LONGEST_END).unref()
    await app.close()
    await pool.end()
    process.exit(0)
  }
  process.on('SIGTERM', () => void stop())
  process.on('SIGINT', () => void stop())
  // Its pipe to the process that started it closes when that one is killed.
  if (process.env.YPSOMETER_TIED) process.stdin.on('end', () => void stop()).resume()
  await app.listen({ host, port })
  let over = 0
  setInterval(() => {
    over = process.memoryUsage.rss() > MOST_MEMORY * TOO_MUCH_MEMORY ? over + 1 : 0
    if (over < MOST_LOOKS) return
    process.stderr.write('The server has held far too much memory for a while: it leaves, to be replaced.\n')
    void stop()
  }, LOOK).unref()
}

main().catch((error: unknown) => {
  const code = (error as { code?: string }).code
  const cause = error instanceof Error && error.cause instanceof Error ? ` (${error.cause.message})` : ''
  const text = error instanceof Error ? error.message + cause : String(error)
  process.stderr.write(
    code === 'EADDRINUSE'
      ? `Port ${process.env.PORT ?? 4680} is taken: set PORT to another one.\n`
      : `${text}\n`,
  )
  process.exit(1)
})
