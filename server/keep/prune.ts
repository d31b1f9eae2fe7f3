import { sql } from 'drizzle-orm'
import type { Db } from '../db/client'
import { IDLE_DAYS } from '../people/identity'

/** Days that answers to writes and deleted rows are kept: until then a write repeats, and a deletion can be undone. */
export const KEPT_DAYS = 90

/** Tables whose deleted rows are taken away for good; what hangs on a row goes with it. */
const TABLES = ['visit', 'tick', 'reading', 'log', 'photo', 'claim', 'specimen', 'trial', 'hookup', 'fill', 'chamber', 'body', 'part', 'content_item', 'model', 'tank', 'house_rule'] // prettier-ignore

/** Takes away what was deleted long ago and answers nobody will ask for again; how many rows went. */
export async function prune(db: Db, days = KEPT_DAYS): Promise<number> {
  const before = sql`now() - make_interval(days => ${days})`
  let gone = 0
  const take = async (table: string, old: ReturnType<typeof sql>): Promise<void> => {
    gone += (await db.execute(sql`delete from ${sql.identifier(table)} where ${old}`)).rowCount ?? 0
  }
  await take('idempotency_key', sql`created_at < ${before}`)
  await take('ranking', sql`finished_at < ${before}`)
  await take('session', sql`ends_at < now() or seen_at < now() - make_interval(days => ${IDLE_DAYS})`)
  await take('pass', sql`ends_at < ${before}`)
  await take('sign_in_try', sql`expire < extract(epoch from now()) * 1000`)
  for (const table of TABLES) await take(table, sql`deleted_at < ${before}`)
  // A medium may still lie in a fill.
  await take(
    'medium',
    sql`deleted_at < ${before} and not exists (select from layer where layer.medium_id = medium.id)`,
  )
  return gone
}
