import { giveWay } from './threads/priority'
import { connect, poolOf } from './db/client'
import { isReady } from './db/migrate'
import { startJobs } from './keep/jobs'

/** Longest wait (ms) for a server to bring the database up to date. */
const PATIENCE = 60_000

/**
 * A worker: takes part in the jobs of the database in DATABASE_URL. YPSOMETER_BACKUPS is the folder for backups and
 * YPSOMETER_BACKUPS_KEPT how many stay (14). Any number may run, on any machines.
 */
async function main(): Promise<void> {
  giveWay()
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set: it says which database to work for.')
  const kept = Number(process.env.YPSOMETER_BACKUPS_KEPT ?? 14)
  if (!Number.isInteger(kept) || kept < 1)
    throw new Error(
      `YPSOMETER_BACKUPS_KEPT is “${process.env.YPSOMETER_BACKUPS_KEPT}”: give a whole number from 1 on.`,
    )
  const { db, pool } = connect(url, poolOf(process.env.YPSOMETER_POOL))
  const until = Date.now() + PATIENCE
  while (!(await isReady(db))) {
    if (Date.now() > until)
      throw new Error('The database is not reached, or no server has brought it up to date.')
    await new Promise((r) => setTimeout(r, 500))
  }
  const folder = process.env.YPSOMETER_BACKUPS
  const end = await startJobs({
    db,
    url,
    backups: folder ? { folder, kept } : undefined,
    log: (text) => void process.stdout.write(`${text}\n`),
  })
  const stop = async (): Promise<void> => {
    setTimeout(() => process.exit(0), 4000).unref()
    await end()
    await pool.end()
    process.exit(0)
  }
  process.on('SIGTERM', () => void stop())
  process.on('SIGINT', () => void stop())
  // Its pipe to the process that started it closes when that one is killed.
  if (process.env.YPSOMETER_TIED) process.stdin.on('end', () => void stop()).resume()
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
  process.exit(1)
})
