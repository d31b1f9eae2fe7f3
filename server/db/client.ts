import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres'
import { sql } from 'drizzle-orm'
import pg from 'pg'
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
