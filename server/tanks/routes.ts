import { StockClassList, TankPage, tankWater } from '@ypsometer/contract'
import { and, asc, isNull, sql } from 'drizzle-orm'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { z } from 'zod'
import type { Db } from '../db/client'
import { model, stockClass, tank } from '../db/schema'
import { readCursor, writeCursor } from '../http/cursor'
import { stockClasses } from './stock'
import { registerEditable } from '../http/editable'
import { travelling, type Written } from '../http/rows'
import { fieldProblem } from '../http/problems'
import type { Tie } from '../http/ties'

const ListQuery = z.object({
  cursor: z.string().max(400).optional(),
  limit: z.coerce.number().int().min(1).max(200).default(100),
})

function checkClass({ minTurnover, maxTurnover }: Written<'stock-classes'>): void {
  if (minTurnover > maxTurnover) throw fieldProblem('minTurnover', 'no more than the most they bear')
}

/** Tanks and the stock classes they are judged by. */
export function registerTanks(app: FastifyInstance, db: Db): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  const key = sql<string>`lower(${tank.name})`
  typed.get(
    '/tanks',
    { schema: { tags: ['tanks'], querystring: ListQuery, response: { 200: TankPage } } },
    async ({ query }) => {
      const cursor = readCursor(query.cursor)
      const after = cursor ? sql`(${key}, ${tank.id}) > (${cursor.value}, ${cursor.id}::uuid)` : undefined
      const rows = await db
        .select()
        .from(tank)
        .where(and(isNull(tank.deletedAt), after))
        .orderBy(asc(key), asc(tank.id))
        .limit(query.limit + 1)
      const page = rows.slice(0, query.limit)
      const last = page.at(-1)
      return {
        items: page.map(travelling),
        next:
          rows.length > query.limit && last
            ? writeCursor({ value: last.name.toLowerCase(), id: last.id })
            : null,
      }
    },
  )
  typed.get(
    '/stock-classes',
    { schema: { tags: ['tanks'], response: { 200: StockClassList } } },
    async () => ({ items: await stockClasses(db) }),
  )
  registerEditable(app, db, { name: 'stock-classes', table: stockClass, check: checkClass })
  registerEditable(app, db, {
    name: 'tanks',
    table: tank,
    // The core refuses a tank smaller than its substrate, and names the field.
    check: (row) => void tankWater(row),
    ties: (row) => [
      { field: 'stockClassId', to: stockClass, what: 'stock class', id: row.stockClassId },
      ...(row.filters ?? []).map(({ modelId }, i): Tie => ({
        field: `filters.${i}.modelId`,
        to: model,
        what: 'model',
        id: modelId,
      })),
    ],
  })
}
