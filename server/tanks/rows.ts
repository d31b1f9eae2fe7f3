import { tankWater } from '@ypsometer/contract'
import { sql } from 'drizzle-orm'
import { stockClass, tank } from '../db/schema'
import { fieldProblem } from '../http/problems'
import type { Specials, Written } from '../http/rows'

function checkClass({ minTurnover, maxTurnover }: Written<'stock-classes'>): void {
  if (minTurnover > maxTurnover) throw fieldProblem('minTurnover', 'no more than the most they bear')
}

/** Specials of tanks and the stock classes they are judged by. */
export const TANK_SPECIALS: Specials = {
  'stock-classes': {
    check: checkClass,
    list: { by: sql<string>`lpad(${stockClass.position}::text, 12, '0')` },
  },
  tanks: {
    // The core refuses a tank smaller than its substrate, and names the field.
    check: (row) => void tankWater(row),
    list: { by: sql<string>`lower(${tank.name})` },
  },
}
