#!/usr/bin/env node
// `npm start`: everything up, with demo data in an empty database. Ctrl-C stops what this started. While it runs it
// starts again what dies: the database process, the server, the simulated bench.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { keptCluster } from './lib/cluster.mjs'
import { holdFolder } from './lib/lock.mjs'
import {
  answers,
  carryOut,
  checkNode,
  command,
  end,
  ensureBuild,
  ensureDebian,
  ensurePackages,
  inAddress,
  isFree,
  ownFolder,
  Plain,
  POSTGRES,
  ROOT,
  say,
  startRig,
  startServer,
  startWorker,
} from './lib/system.mjs'
import { watchPulse } from './lib/pulse.mjs'

/** Ends within so long (ms) make what ended wait before it is started again, twice as long each time, up to a limit. */
const WINDOW = 10 * 60 * 1000
const AT_ONCE = 3
const LONGEST_WAIT = 30_000
/** Failed starts in a row after which it is given up. */
const MOST_FAILED = 5

await command(async () => {
  checkNode()
  const empty = process.argv.includes('--empty')
  const port = Number(process.env.PORT || 4680)
  const host = process.env.HOST || '127.0.0.1'
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Plain(`PORT is “${process.env.PORT}”: give a number from 1 to 65535.`)
  const folder = process.env.YPSOMETER_DATA || join(ROOT, '.data')
  const mark = join(folder, 'running')
  await own(folder, mark)
  const unclean = existsSync(mark)
  rmSync(mark, { force: true })
  await waitForPort(port, host, unclean)
  const building = await holdFolder(ROOT, { wait: true })
  ensurePackages()
  if (!process.env.DATABASE_URL) ensureDebian([POSTGRES])
  await ensureBuild()
  building.release()
  // What is missing before anybody beyond this machine is served is said before anything is started.
  if (!carryOut('before', process.env.DATABASE_URL ?? '', 'environment')) process.exit(1)

  const parts = {}
  let stopping = false
  const stop = async (code) => {
    if (stopping) return
    stopping = true
    await Promise.all([end(parts.server), end(parts.worker), end(parts.rig?.child)])
    parts.cluster?.stop()
    rmSync(mark, { force: true })
    process.exit(code)
  }
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0))

  const databaseUrl = () => process.env.DATABASE_URL || parts.cluster.appUrl
  // The record of another database is backed up by those who keep it, unless they say where to.
  const backups = process.env.YPSOMETER_BACKUPS || (process.env.DATABASE_URL ? '' : join(folder, 'backups'))
  const rig = async () => {
    parts.rig = await startRig(parts.rig?.port ?? Number(process.env.RIG_PORT || port + 10))
    parts.rig.child.on('exit', () => void died('simulated bench', rig))
  }
  const server = async () => {
    parts.server = await startServer({
      port,
      host,
      databaseUrl: databaseUrl(),
      demo: !empty,
      instruments: process.env.YPSOMETER_INSTRUMENTS || parts.rig.address,
    })
    parts.server.on('exit', () => void died('server', server))
  }
  const worker = () => {
    parts.worker = startWorker({ databaseUrl: databaseUrl(), backups })
    parts.worker.on('exit', () => void died('worker', worker))
  }
  const deaths = {}
  const reviving = new Set()
  /** Starts again what ended. Whoever can end it gets it slower, never ends all of it; what no longer starts does. */
  const died = async (what, again) => {
    const mine = (deaths[what] ??= [])
    mine.push(Date.now())
    if (stopping || reviving.has(what)) return
    reviving.add(what)
    for (let failed = 0; !stopping;) {
      const lately = mine.filter((t) => Date.now() - t < WINDOW).length + failed
      const wait = lately > AT_ONCE ? Math.min(LONGEST_WAIT, 500 * 2 ** (lately - AT_ONCE)) : 0
      if (wait) {
        say(`The ${what} has ended ${lately} times in ten minutes: it is started again in ${wait / 1000} s.`)
        await pause(wait)
      }
      if (stopping) return
      try {
        await again()
        if (!stopping) say(`The ${what} had ended; it runs again.`)
        break
      } catch (error) {
        if (stopping) return
        console.error(error instanceof Plain ? error.message : error)
        if (++failed < MOST_FAILED) continue
        console.error(`The ${what} did not come up ${MOST_FAILED} times in a row: stopped.`)
        return stop(1)
      }
    }
    reviving.delete(what)
  }

  try {
    if (!process.env.DATABASE_URL) parts.cluster = await keptCluster(folder)
    if (!process.env.YPSOMETER_INSTRUMENTS) await rig()
    if (
      backups &&
      !carryOut('before', process.env.DATABASE_URL || parts.cluster.url, 'migrating', ownFolder(backups))
    )
      throw new Plain(
        'No copy of the record could be made before it is brought up to date: nothing was changed.',
      )
    await server()
    worker()
  } catch (error) {
    if (stopping) return
    console.error(error instanceof Plain ? error.message : error)
    return stop(1)
  }
  if (parts.cluster) watch(parts.cluster, () => died('database', parts.cluster.again))
  watchPulse(
    () => answers(host, port),
    () => parts.server,
  )
  const address = process.env.YPSOMETER_ADDRESS || `http://${inAddress(host)}:${port}`
  writeFileSync(mark, address)
  say(`Ypsometer is ready: ${address}   (Ctrl-C stops it; data in ${folder})`)
})

/** Holds the data for this process alone. @throws Plain saying who holds it. */
async function own(folder, mark) {
  try {
    mkdirSync(folder, { recursive: true })
  } catch (error) {
    throw new Plain(
      `${folder} cannot be made (${error.code}): set YPSOMETER_DATA to a folder you may write to.`,
    )
  }
  if (await holdFolder(folder)) return
  const address = existsSync(mark) && readFileSync(mark, 'utf8').trim()
  throw new Plain(
    address
      ? `Ypsometer is already running at ${address}.`
      : `Another start on ${folder} is under way: wait until it is ready.`,
  )
}

/** After a start that was killed, its server may take a moment to notice and leave the port. */
async function waitForPort(port, host, unclean) {
  for (let i = 0; !(await isFree(port, host)); i++) {
    if (!unclean || i > 50)
      throw new Plain(
        `Port ${port} is taken by another program: set PORT to a free one, such as PORT=${port + 1} npm start.`,
      )
    await new Promise((r) => setTimeout(r, 100))
  }
}

/** Looks twice a second whether the database process lives, and has it started again when it does not. */
function watch(cluster, again) {
  let busy = false
  setInterval(async () => {
    if (busy || cluster.lives()) return
    busy = true
    await again()
    busy = false
  }, 500)
}
