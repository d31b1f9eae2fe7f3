import { join } from 'node:path'
import { readdir, rm } from 'node:fs/promises'
import { sql } from 'drizzle-orm'
import PgBoss from 'pg-boss'
import type { Db } from '../db/client'
import { setting } from '../db/schema'
import { refreshShelf } from '../models/shelfEntries'
import { makeBackup } from './backup'
import { workParts } from '../ranking/parts'
import { prune } from './prune'
import { BACKUP, lastBackup } from './status'

/** When each job runs, by the clock of the machine (cron). */
const SCHEDULE = {
  shelf: '* * * * *',
  ranking: '* * * * *',
  prune: '10 3 * * *',
  backup: '30 3 * * *',
} as const

export interface Keeping {
  readonly db: Db
  readonly url: string
  /** Where backups go, and how many of them stay; without a folder none are made. */
  readonly backups?: { readonly folder: string; readonly kept: number } | undefined
  readonly log: (text: string) => void
}

const NAME = /^ypsometer-\d{4}-\d\d-\d\dT\d{6}Z\.tar$/
const nameAt = (now: Date): string => `ypsometer-${now.toISOString().slice(0, 19).replace(/:/g, '')}Z.tar`

/** Backs the record up into the folder, notes it for the app to say, and lets go of the oldest beyond the count. */
export async function backUp({ db, url, backups, log }: Keeping, now = new Date()): Promise<void> {
  if (!backups) return
  const file = nameAt(now)
  const { bytes } = await makeBackup(url, join(backups.folder, file), now)
  const value = { at: now.toISOString(), file, bytes }
  await db
    .insert(setting)
    .values({ name: BACKUP, value })
    .onConflictDoUpdate({ target: setting.name, set: { value, updatedAt: now } })
  const old = (await readdir(backups.folder))
    .filter((n) => NAME.test(n))
    .sort()
    .slice(0, -backups.kept)
  for (const name of old) await rm(join(backups.folder, name))
  log(`Backed up to ${file} (${(bytes / 2 ** 20).toFixed(1)} MB).`)
}

/** How often a worker looks for a part of a ranking (ms). */
const EAGER = 1000

/** Any number, as long as every worker takes the same. */
const LAYING = 4682

/** A machine that is off at night backs up when it is next on. */
const HOUR = 3600 * 1000
const DAY = 24 * HOUR

/** Was the last backup made longer ago than this (ms), or never? */
async function isOlder(db: Db, age: number): Promise<boolean> {
  const last = await lastBackup(db)
  return !last || Date.now() - Date.parse(last.at) > age
}

/**
 * Takes part in the jobs on the database, as one of any number of workers: each run of a job is one worker's. Gives
 * what ends it, after the job in hand.
 */
export async function startJobs(k: Keeping): Promise<() => Promise<void>> {
  const boss = new PgBoss({ connectionString: k.url, max: 4 })
  boss.on('error', (error) => k.log(`jobs: ${error.message}`))
  const work: Record<keyof typeof SCHEDULE, () => Promise<unknown>> = {
    shelf: async () => {
      // Until all of it stands: what moved one row has often moved every row.
      while (going && (await refreshShelf(k.db)) > 0);
    },
    ranking: () => workParts(k.db, () => going),
    prune: () => prune(k.db),
    backup: async () => {
      // Two who started at once may both have found it due: whoever comes second finds it made.
      if (await isOlder(k.db, HOUR)) await backUp(k)
    },
  }
  // A ranking is waited for: every worker looks for parts of one, whoever got the job of the minute.
  let going = true
  let busy: Promise<unknown> | null = null
  const takePart = async (): Promise<void> => {
    if (busy || !going) return
    busy = workParts(k.db, () => going)
    await busy.catch((error: unknown) =>
      k.log(`ranking: ${error instanceof Error ? error.message : String(error)}`),
    )
    busy = null
  }
  const names = Object.keys(SCHEDULE) as (keyof typeof SCHEDULE)[]
  // Workers that start at once lay the queues one after the other.
  await k.db.transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(${LAYING})`)
    await boss.start()
    for (const name of names) {
      await boss.createQueue(name, { name, policy: 'stately', retryLimit: 2, retryDelay: 60 })
      await boss.schedule(name, SCHEDULE[name])
    }
  })
  for (const name of names) await boss.work(name, () => work[name]())
  const eager = setInterval(() => void takePart(), EAGER)
  if (k.backups && (await isOlder(k.db, DAY))) await boss.send('backup', {})
  return async () => {
    going = false
    clearInterval(eager)
    await busy?.catch(() => undefined)
    await boss.stop({ graceful: true, wait: true, timeout: 3000 })
  }
}
