import { houseOf, judgedClasses, type HouseRule, type StockClassRow } from '@ypsometer/contract'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import { asc, isNull } from 'drizzle-orm'
import type { Db } from '../db/client'
import { stockClass } from '../db/schema'
import { travelling } from '../http/rows'

/** The stock classes, in their order. */
export async function stockClasses(db: Db): Promise<StockClassRow[]> {
  const rows = await db
    .select()
    .from(stockClass)
    .where(isNull(stockClass.deletedAt))
    .orderBy(asc(stockClass.position), asc(stockClass.createdAt), asc(stockClass.id))
  return rows.map(travelling)
}

/** The classes as they are judged in a dossier that chose a house rule, or none. */
export const classesUnder = (
  rows: readonly StockClassRow[],
  rules: readonly HouseRule[],
  chosenByDossier: string | null,
): readonly StockClass[] => judgedClasses(rows, houseOf(rules, chosenByDossier))
