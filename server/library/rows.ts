import { and, eq, ne, sql } from 'drizzle-orm'
import { houseRule, medium } from '../db/schema'
import { fieldProblem } from '../http/problems'
import type { Specials, Written } from '../http/rows'

/** A price is an amount together with its currency. */
function checkMedium(row: Written<'media'>): void {
  if ((row.priceMinor === null) !== (row.currency === null))
    throw fieldProblem('priceMinor', 'an amount together with its currency, such as 12.90 EUR')
}

/** Any number, as long as every server takes the same. */
const CHOICE = 4681

/** Specials of the library that every dossier reads. */
export const LIBRARY_SPECIALS: Specials = {
  media: { check: checkMedium, list: { by: sql<string>`lower(${medium.name})` } },
  'house-rules': {
    // One rule is in force: choosing one lets go of the others.
    afterWrite: async (tx, { id, chosen }) => {
      if (!chosen) return
      // Two who choose at once take turns.
      await tx.execute(sql`select pg_advisory_xact_lock(${CHOICE})`)
      await tx
        .update(houseRule)
        .set({ chosen: false, version: sql`${houseRule.version} + 1`, updatedAt: new Date() })
        .where(and(eq(houseRule.chosen, true), ne(houseRule.id, id)))
    },
  },
}
