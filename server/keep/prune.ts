import { RESOURCE_NAMES, type ResourceName } from '@ypsometer/contract'
import { sql, type SQL } from 'drizzle-orm'
import type { Db } from '../db/client'
import { layer, medium, stockClass, TABLES, tank } from '../db/schema'
import { asProgram } from '../db/signing'
import { IDLE_DAYS } from '../people/identity'

/** Days that answers to writes and deleted rows are kept: until then a write repeats, and a deletion can be undone. */
export const KEPT_DAYS = 90

/** Rows that may still stand on a deleted one: it stays as long as it does. */
const NEEDED: { readonly [N in ResourceName]?: SQL } = {
  media: sql`exists (select from ${layer} where ${layer.mediumId} = ${medium.id})`,
  'stock-classes': sql`exists (select from ${tank} where ${tank.stockClassId} = ${stockClass.id})`,
}

/** Takes away what was deleted long ago and answers nobody will ask for again; how many rows went. */
export const prune = (db: Db, days = KEPT_DAYS): Promise<number> =>
  asProgram(db, async (tx) => {
    const before = sql`now() - make_interval(days => ${days})`
    let gone = 0
    const take = async (table: SQL, old: SQL): Promise<void> => {
      gone += (await tx.execute(sql`delete from ${table} where ${old}`)).rowCount ?? 0
    }
    await take(sql`idempotency_key`, sql`created_at < ${before}`)
    await take(sql`ranking`, sql`finished_at < ${before}`)
    await take(sql`session`, sql`ends_at < now() or seen_at < now() - make_interval(days => ${IDLE_DAYS})`)
    await take(sql`pass`, sql`ends_at < ${before}`)
    await take(sql`sign_in_try`, sql`expire < extract(epoch from now()) * 1000`)
    // What belongs to others goes before them.
    for (const name of [...RESOURCE_NAMES].reverse()) {
      const needed = NEEDED[name]
      await take(sql`${TABLES[name]}`, sql`deleted_at < ${before}${needed ? sql` and not ${needed}` : sql``}`)
    }
    return gone
  })
