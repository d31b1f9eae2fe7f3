import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import { migrate as runMigrations } from 'drizzle-orm/node-postgres/migrator'
import { GENERIC_MEDIA } from '@ypsometer/core/media'
import { HOUSE_RULES } from '@ypsometer/core/path'
import { STOCK_CLASSES } from '@ypsometer/core/tanks'
import { sql } from 'drizzle-orm'
import { readFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import pg from 'pg'
import * as schema from './schema'

export type Db = NodePgDatabase<typeof schema>
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]

const here = typeof __dirname === 'string' ? __dirname : dirname(fileURLToPath(import.meta.url))

/** A pool on `url` and Drizzle over it. A dropped connection is reported by the query that needed it, not by a crash. */
export function connect(url: string): { db: Db; pool: pg.Pool } {
  const pool = new pg.Pool({ connectionString: url, max: 10, connectionTimeoutMillis: 5000 })
  pool.on('error', () => undefined)
  return { db: drizzle(pool, { schema }), pool }
}

/** Waits up to 10 s for a database that is only just starting or recovering; then lets the last error through. */
export async function untilReachable(db: Db): Promise<void> {
  for (let i = 0; ; i++) {
    try {
      await db.execute(sql`select 1`)
      return
    } catch (error) {
      if (i >= 50) throw error
      await new Promise((r) => setTimeout(r, 200))
    }
  }
}

/** Brings the database to this version's schema and fills the reference rows that every tank, fill and audit needs. */
export async function migrate(db: Db): Promise<void> {
  await refuseNewer(db)
  await runMigrations(db, { migrationsFolder: join(here, 'migrations') })
  await db
    .insert(schema.stockClass)
    .values(STOCK_CLASSES.map((c, position) => ({ ...c, position })))
    .onConflictDoNothing()
  await db
    .insert(schema.medium)
    .values(GENERIC_MEDIA.map((m) => ({ ...m, generic: true })))
    .onConflictDoNothing()
  await db
    .insert(schema.houseRule)
    .values(HOUSE_RULES.map((r, i) => ({ ...r, shipped: true, chosen: i === 0 })))
    .onConflictDoNothing()
}

/** A database that has been through migrations this version does not know must not be written by it. */
async function refuseNewer(db: Db): Promise<void> {
  const journal = JSON.parse(await readFile(join(here, 'migrations', 'meta', '_journal.json'), 'utf8')) as {
    entries: unknown[]
  }
  const { rows } = await db.execute<{ known: string | null }>(
    sql`select to_regclass('drizzle.__drizzle_migrations')::text as known`,
  )
  if (!rows[0]?.known) return
  const applied = await db.execute<{ n: number }>(
    sql`select count(*)::int as n from drizzle.__drizzle_migrations`,
  )
  if ((applied.rows[0]?.n ?? 0) > journal.entries.length)
    throw new Error(
      'The database was written by a newer version of Ypsometer: update the program, or set YPSOMETER_DATA to another folder.',
    )
}

/** True when the database answers and every migration this version knows has been applied. */
export async function isReady(db: Db): Promise<boolean> {
  try {
    await db.execute(sql`select 1 from stock_class limit 1`)
    return true
  } catch {
    return false
  }
}
