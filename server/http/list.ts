import { RESOURCES, type ListName } from '@ypsometer/contract'
import { MOST_OF_PAGE } from '@ypsometer/contract/page'
import { and, asc, desc, isNull, sql } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { z } from 'zod'
import type { Db } from '../db/client'
import { TABLES } from '../db/schema'
import { readCursor, writeCursor } from './cursor'
import { travelling, type Listing } from './rows'

/** Rows of a page unless something else is asked for. */
const USUAL = 100
const ListQuery = z.object({
  cursor: z.string().max(400).optional(),
  limit: z.coerce.number().int().min(1).max(MOST_OF_PAGE).default(USUAL),
})

type Listed = PgTable & Record<'id' | 'createdAt' | 'deletedAt', PgColumn>

/** `GET /{path}`: the rows of a kind that are not deleted, page after page by a key that no write between moves. */
export function registerList(app: FastifyInstance, db: Db, name: ListName, listing: Listing = {}): void {
  const { path, Row } = RESOURCES[name]
  const table = TABLES[name] as unknown as Listed
  const columns = Object.fromEntries(
    Object.keys(Row.shape).flatMap((f) => (f in table ? [[f, table[f as keyof Listed] as PgColumn]] : [])),
  )
  const key =
    listing.by ?? sql<string>`to_char(${table.createdAt} at time zone 'UTC', 'YYYY-MM-DD HH24:MI:SS.MS')`
  const beyond = sql.raw(listing.newestFirst ? '<' : '>')
  const order = listing.newestFirst ? desc : asc
  app.withTypeProvider<ZodTypeProvider>().get(
    `/${path}`,
    {
      schema: {
        tags: [path],
        querystring: ListQuery,
        response: { 200: z.object({ items: z.array(Row), next: z.string().nullable() }) },
      },
    },
    async ({ query }) => {
      const cursor = readCursor(query.cursor)
      const after = cursor
        ? sql`(${key}, ${table.id}) ${beyond} (${cursor.value}, ${cursor.id}::uuid)`
        : undefined
      const rows = await db
        .select({ row: columns, key })
        .from(table as PgTable)
        .where(and(isNull(table.deletedAt), listing.where, after))
        .orderBy(order(key), order(table.id))
        .limit(query.limit + 1)
      const page = rows.slice(0, query.limit)
      const last = page.at(-1)
      const more = rows.length > query.limit && last
      return {
        items: page.map(({ row }) => travelling(row)) as never,
        next: more ? writeCursor({ value: last.key, id: String((last.row as { id: unknown }).id) }) : null,
      }
    },
  )
}
