import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import { migrate as runMigrations } from 'drizzle-orm/node-postgres/migrator'
import { GENERIC_MEDIA } from '@ypsometer/core/media'
import { HOUSE_RULES } from '@ypsometer/core/path'
import { STOCK_CLASSES } from '@ypsometer/core/tanks'
import { eq, getTableColumns, sql } from 'drizzle-orm'
import pg from 'pg'
import { asProgram } from './signing'
import { hasTriggers, installTriggers } from './triggers'
import { applied, knownMigrations, MIGRATIONS } from './migrationsIn'
import * as schema from './schema'

export type Db = NodePgDatabase<typeof schema> & { readonly $client: pg.Pool }
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0]

/** Most connections of a server or a worker, unless it is told otherwise. */
const POOL = 10
/** YPSOMETER_POOL. @throws an error that says what it takes. */
export function poolOf(text: string | undefined): number {
  const n = Number(text || POOL)
  if (!Number.isInteger(n) || n < 2 || n > 200)
    throw new Error(`YPSOMETER_POOL is “${text}”: give a whole number of connections from 2 to 200.`)
  return n
}

/**
 * A pool on `url` and Drizzle over it. A dropped connection is reported by the query that needed it, not by a crash.
 */
export function connect(url: string, most = POOL): { db: Db; pool: pg.Pool } {
  const pool = new pg.Pool({ connectionString: url, max: most, connectionTimeoutMillis: 5000 })
  pool.on('error', () => undefined)
  // A client that is out on a transaction has left the pool's own listener behind.
  pool.on('connect', (client) => client.on('error', () => undefined))
  const db = drizzle(pool, { schema })
  // Drizzle's own never gives back a client that `begin` finds dead: ten of those and the pool is empty.
  const transaction: Db['transaction'] = async (work, config) => {
    const client = await pool.connect()
    try {
      return await drizzle(client, { schema }).transaction(work, config)
    } finally {
      client.release()
    }
  }
  return { db: Object.assign(db, { transaction }), pool }
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

/** Columns as the row that could not be inserted has them, so that a corrected constant reaches rows made long ago. */
const excluded = (table: typeof schema.stockClass) =>
  Object.fromEntries(
    Object.entries(getTableColumns(table)).map(([k, c]) => [k, sql.raw(`excluded.${c.name}`)]),
  )

/** Brings the database to this version's schema and fills the reference rows that every tank, fill and audit needs. */
export async function migrate(db: Db): Promise<void> {
  await refuseForeign(db)
  // Who may not change the schema finds it as it should be.
  if (!(await isReady(db))) {
    await runMigrations(db, { migrationsFolder: MIGRATIONS })
    await installTriggers(db)
  }
  await asProgram(db, fillLibrary)
}

/** Lays down what every bench has. */
async function fillLibrary(tx: Tx): Promise<void> {
  await tx
    .insert(schema.stockClass)
    .values(STOCK_CLASSES.map((c, position) => ({ ...c, position })))
    .onConflictDoUpdate({
      target: schema.stockClass.id,
      set: excluded(schema.stockClass),
      // What the house has made of it stays.
      setWhere: eq(schema.stockClass.version, 1),
    })
  await tx
    .insert(schema.medium)
    .values(GENERIC_MEDIA.map((m) => ({ ...m, generic: true })))
    .onConflictDoNothing()
  await tx
    .insert(schema.houseRule)
    .values(HOUSE_RULES.map((r, i) => ({ ...r, shipped: true, chosen: i === 0 })))
    .onConflictDoNothing()
}

/** A database that has been through migrations this version does not know must not be written by it. */
export async function refuseForeign(db: Db): Promise<void> {
  const ours = await knownMigrations()
  const theirs = await applied(db.$client)
  if (theirs.every((hash, i) => ours[i] === hash)) return
  throw new Error(
    theirs.length > ours.length && ours.every((hash, i) => theirs[i] === hash)
      ? 'The database was written by a newer version of Ypsometer: update the program, or set YPSOMETER_DATA to another folder.'
      : 'The database was made before the first release of Ypsometer and cannot be carried over: set YPSOMETER_DATA to another folder.',
  )
}

/** True when the database answers and every migration this version knows has been applied. */
export async function isReady(db: Db): Promise<boolean> {
  try {
    const [ours, theirs] = await Promise.all([knownMigrations(), applied(db.$client)])
    return ours.every((hash, i) => theirs[i] === hash) && (await hasTriggers(db))
  } catch {
    return false
  }
}
