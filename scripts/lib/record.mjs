// The record of `npm start` for a command that needs it, whether it is running or not.
import { existsSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { keptCluster, runningUrl } from './cluster.mjs'
import { holdFolder } from './lock.mjs'
import {
  carryOut,
  checkNode,
  ensureBuild,
  ensureDebian,
  ensurePackages,
  Plain,
  POSTGRES,
  ROOT,
} from './system.mjs'

/**
 * Carries out a command of a program, on the database of DATABASE_URL, or else on the one of YPSOMETER_DATA: as it
 * runs, or started for as long as the command takes. `make` makes the record where there is none.
 * @throws Plain when there is no record, or it is running and must not be.
 */
export async function withRecord(args, { program = 'keep', running, make = false }) {
  checkNode()
  ensurePackages()
  ensureDebian([POSTGRES])
  await ensureBuild()
  if (process.env.DATABASE_URL) return finish(carryOut(program, process.env.DATABASE_URL, ...args))
  const folder = process.env.YPSOMETER_DATA || join(ROOT, '.data')
  if (make) mkdirSync(folder, { recursive: true })
  if (!existsSync(folder))
    throw new Plain(`There is no record in ${folder}: set YPSOMETER_DATA to where it is.`)
  const held = await holdFolder(folder)
  if (!held) {
    if (!running)
      throw new Plain(`Ypsometer is running on ${folder}: stop it first (Ctrl-C where it was started).`)
    return finish(carryOut(program, runningUrl(folder), ...args))
  }
  const cluster = await keptCluster(folder)
  const went = carryOut(program, cluster.url, ...args)
  cluster.stop()
  return finish(went)
}

const finish = (went) => process.exit(went ? 0 : 1)
