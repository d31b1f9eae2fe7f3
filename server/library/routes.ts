import {
  HouseRule,
  HouseRuleCreate,
  HouseRuleList,
  HouseRulePatch,
  Medium,
  MediumCreate,
  MediumList,
  MediumPatch,
} from '@ypsometer/contract'
import { asc, isNull, sql } from 'drizzle-orm'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import type { z } from 'zod'
import type { Db } from '../db/client'
import { houseRule, medium } from '../db/schema'
import { plain, registerEditable, type Plain } from '../http/editable'
import { fieldProblem } from '../http/problems'

/** A price is an amount together with its currency. */
function checkMedium(row: Plain): void {
  if (((row.priceMinor ?? null) === null) !== ((row.currency ?? null) === null))
    throw fieldProblem('priceMinor', 'an amount together with its currency, such as 12.90 EUR')
}

/** Media and house rules: short lists that every dossier reads. */
export function registerLibrary(app: FastifyInstance, db: Db): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  typed.get('/media', { schema: { tags: ['library'], response: { 200: MediumList } } }, async () => {
    const rows = await db
      .select()
      .from(medium)
      .where(isNull(medium.deletedAt))
      .orderBy(asc(sql`lower(${medium.name})`), asc(medium.id))
      .limit(2000)
    return { items: rows.map(plain) as unknown as z.infer<typeof Medium>[] }
  })
  typed.get('/house-rules', { schema: { tags: ['library'], response: { 200: HouseRuleList } } }, async () => {
    const rows = await db
      .select()
      .from(houseRule)
      .where(isNull(houseRule.deletedAt))
      .orderBy(asc(houseRule.createdAt), asc(houseRule.id))
      .limit(500)
    return { items: rows.map(plain) as unknown as z.infer<typeof HouseRule>[] }
  })
  registerEditable(app, db, {
    path: 'media',
    one: 'medium',
    table: medium,
    row: Medium,
    create: MediumCreate,
    patch: MediumPatch,
    check: checkMedium,
  })
  registerEditable(app, db, {
    path: 'house-rules',
    one: 'house rule',
    table: houseRule,
    row: HouseRule,
    create: HouseRuleCreate,
    patch: HouseRulePatch,
  })
}
