import { asc, isNull, sql } from 'drizzle-orm'
import type { Db } from '../db/client'
import { medium } from '../db/schema'
import { travelling } from '../http/rows'

/** The whole library of media, in the order of their names. */
export async function allMedia(db: Db) {
  const rows = await db
    .select()
    .from(medium)
    .where(isNull(medium.deletedAt))
    .orderBy(asc(sql`lower(${medium.name})`), asc(medium.id))
  return rows.map(travelling)
}
