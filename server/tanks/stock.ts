import type { StockClassRow } from '@ypsometer/contract'
import { asc } from 'drizzle-orm'
import type { Db } from '../db/client'
import { stockClass } from '../db/schema'

/** The stock classes everything is judged by, in their order. */
export const stockClasses = (db: Db): Promise<StockClassRow[]> =>
  db.select().from(stockClass).orderBy(asc(stockClass.position))
