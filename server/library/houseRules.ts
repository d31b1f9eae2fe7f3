import type { HouseRule } from '@ypsometer/contract'
import { asc, isNull } from 'drizzle-orm'
import type { Db } from '../db/client'
import { houseRule } from '../db/schema'
import { travelling } from '../http/rows'

/** House rules that are not deleted, the oldest first. */
export async function allHouseRules(db: Db): Promise<HouseRule[]> {
  const rows = await db
    .select()
    .from(houseRule)
    .where(isNull(houseRule.deletedAt))
    .orderBy(asc(houseRule.createdAt), asc(houseRule.id))
  return rows.map(travelling)
}
