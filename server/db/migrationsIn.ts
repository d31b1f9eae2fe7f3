import { createHash } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type pg from 'pg'

/** A connection, or many. */
type Asked = pg.Pool | pg.Client

const here = typeof __dirname === 'string' ? __dirname : dirname(fileURLToPath(import.meta.url))
export const MIGRATIONS = join(here, 'migrations')

/** The migrations this version knows, in order, each by the hash that the migrator keeps of it. */
const known: Promise<readonly string[]> = (async () => {
  const journal = JSON.parse(await readFile(join(MIGRATIONS, 'meta', '_journal.json'), 'utf8')) as {
    entries: { tag: string }[]
  }
  return Promise.all(
    journal.entries.map(async ({ tag }) =>
      createHash('sha256')
        .update(await readFile(join(MIGRATIONS, `${tag}.sql`)))
        .digest('hex'),
    ),
  )
})()

/** The migrations this version knows, by their hashes, in order. */
export const knownMigrations = (): Promise<readonly string[]> => known

/** The migrations that are in, by their hashes; none in a new database. */
export async function applied(db: Asked): Promise<readonly string[]> {
  const table = await db.query<{ known: string | null }>(
    "select to_regclass('drizzle.__drizzle_migrations')::text as known",
  )
  if (!table.rows[0]?.known) return []
  const { rows } = await db.query<{ hash: string }>(
    'select hash from drizzle.__drizzle_migrations order by id',
  )
  return rows.map((r) => r.hash)
}

/** Has a database that is in use migrations still to come? A new one has not: there is nothing in it to lose. */
export async function pendingMigrations(db: Asked): Promise<boolean> {
  const [ours, theirs] = await Promise.all([known, applied(db)])
  return theirs.length > 0 && theirs.length < ours.length
}
