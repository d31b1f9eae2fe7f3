import { HouseRuleList, MediumList } from '@ypsometer/contract'
import { and, eq, ne, sql } from 'drizzle-orm'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import type { Db } from '../db/client'
import { houseRule, medium } from '../db/schema'
import { allMedia } from './media'
import { registerEditable } from '../http/editable'
import { type Written } from '../http/rows'
import { fieldProblem } from '../http/problems'
import { allHouseRules } from './houseRules'

/** A price is an amount together with its currency. */
function checkMedium(row: Written<'media'>): void {
  if ((row.priceMinor === null) !== (row.currency === null))
    throw fieldProblem('priceMinor', 'an amount together with its currency, such as 12.90 EUR')
}

/** Any number, as long as every server takes the same. */
const CHOICE = 4681

/** Media and house rules: short lists that every dossier reads. */
export function registerLibrary(app: FastifyInstance, db: Db): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  typed.get('/media', { schema: { tags: ['library'], response: { 200: MediumList } } }, async () => ({
    items: await allMedia(db),
  }))
  typed.get(
    '/house-rules',
    { schema: { tags: ['library'], response: { 200: HouseRuleList } } },
    async () => ({
      items: await allHouseRules(db),
    }),
  )
  registerEditable(app, db, { name: 'media', table: medium, check: checkMedium })
  registerEditable(app, db, {
    name: 'house-rules',
    table: houseRule,
    // One rule is in force: choosing one lets go of the others.
    settle: async (tx, { id, chosen }) => {
      if (!chosen) return
      // Two who choose at once take turns.
      await tx.execute(sql`select pg_advisory_xact_lock(${CHOICE})`)
      await tx
        .update(houseRule)
        .set({ chosen: false, version: sql`${houseRule.version} + 1`, updatedAt: new Date() })
        .where(and(eq(houseRule.chosen, true), ne(houseRule.id, id)))
    },
  })
}
