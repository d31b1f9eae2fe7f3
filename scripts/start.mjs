#!/usr/bin/env node
// `npm start`: everything up, with demo data in an empty database. Ctrl-C stops what this started.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { keptCluster } from './lib/cluster.mjs'
import {
  checkNode,
  command,
  ensureBuild,
  ensureDebian,
  ensurePackages,
  isFree,
  Plain,
  POSTGRES,
  ROOT,
  say,
  startRig,
  startServer,
} from './lib/system.mjs'

await command(async () => {
  checkNode()
  const empty = process.argv.includes('--empty')
  const port = Number(process.env.PORT || 4680)
  const host = process.env.HOST || '127.0.0.1'
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Plain(`PORT is “${process.env.PORT}”: give a number from 1 to 65535.`)
  if (!['127.0.0.1', 'localhost', '::1'].includes(host))
    throw new Plain(
      `HOST is ${host}: this version has no accounts yet, so it serves this machine only (127.0.0.1).`,
    )
  const folder = process.env.YPSOMETER_DATA || join(ROOT, '.data')
  const lock = join(folder, 'running')
  if (existsSync(lock)) {
    const [pid, address] = readFileSync(lock, 'utf8').split(' ')
    if (alive(Number(pid))) throw new Plain(`Ypsometer is already running at ${address}.`)
  }
  if (!(await isFree(port, host)))
    throw new Plain(
      `Port ${port} is taken by another program: set PORT to a free one, such as PORT=${port + 1} npm start.`,
    )
  ensurePackages()
  if (!process.env.DATABASE_URL) ensureDebian([POSTGRES])
  await ensureBuild()
  mkdirSync(folder, { recursive: true })
  const cluster = process.env.DATABASE_URL ? null : await keptCluster(folder)
  let child
  let rig
  let stopping = false
  const stop = (code) => {
    if (stopping) return
    stopping = true
    child?.kill('SIGTERM')
    rig?.child.kill('SIGTERM')
    cluster?.stop()
    rmSync(lock, { force: true })
    process.exit(code)
  }
  process.on('SIGINT', () => stop(0))
  process.on('SIGTERM', () => stop(0))
  try {
    if (!process.env.YPSOMETER_INSTRUMENTS) rig = await startRig(Number(process.env.RIG_PORT || port + 10))
    child = await startServer({
      port,
      host,
      databaseUrl: process.env.DATABASE_URL || cluster.url,
      demo: !empty,
      instruments: process.env.YPSOMETER_INSTRUMENTS || rig.address,
    })
  } catch (error) {
    rig?.child.kill('SIGTERM')
    cluster?.stop()
    throw error
  }
  const address = `http://${host}:${port}`
  writeFileSync(lock, `${process.pid} ${address}`)
  say(`Ypsometer is ready: ${address}   (Ctrl-C stops it; data in ${folder})`)
  child.on('exit', (code) => {
    if (stopping) return
    console.error(`The server stopped (code ${code}).`)
    stop(1)
  })
})

function alive(pid) {
  try {
    process.kill(pid, 0)
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('start.mjs')
  } catch {
    return false
  }
}
