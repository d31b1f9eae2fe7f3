import type { ShelfPage, ShelfQuery } from '@ypsometer/contract'
import { and, asc, desc, eq, ilike, isNull, or, sql, type SQL } from 'drizzle-orm'
import type { z } from 'zod'
import type { Db } from '../db/client'
import { model, shelfEntry } from '../db/schema'
import { readCursor, writeCursor } from '../http/cursor'
import { travelling } from '../http/editable'
import { shelfBasis, workedFrom, workOut, type Shown } from './shelfEntries'

const ratedFlow = sql<number>`coalesce(${shelfEntry.ratedFlow}, 0)`
const nameKey = sql<string>`lower(${model.name})`
const updatedKey = sql<string>`to_char(${model.updatedAt} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS')`

/** One page of the shelf, by keyset on the sort value and the id, with the whole count. */
export async function shelf(db: Db, q: z.infer<typeof ShelfQuery>): Promise<ShelfPage> {
  const cursor = readCursor(q.cursor)
  const key: SQL = q.sort === 'name' ? nameKey : q.sort === 'updated' ? updatedKey : ratedFlow
  const falls = q.sort !== 'name'
  const filters: SQL[] = [isNull(model.deletedAt)]
  if (q.kind) filters.push(eq(model.kind, q.kind))
  const words = q.search?.replace(/\0/g, '').trim().split(/\s+/).filter(Boolean) ?? []
  for (const word of words) {
    const like = `%${word.replace(/[\\%_]/g, '\\$&')}%`
    const either = or(ilike(model.name, like), ilike(model.maker, like))
    if (either) filters.push(either)
  }
  const after = cursor
    ? falls
      ? sql`(${key}, ${model.id}) < (${cursor.value}, ${cursor.id}::uuid)`
      : sql`(${key}, ${model.id}) > (${cursor.value}, ${cursor.id}::uuid)`
    : undefined
  const order = falls ? [desc(key), desc(model.id)] : [asc(key), asc(model.id)]
  const rows = await db
    .select({ row: model, entry: shelfEntry, key: sql<string | number>`${key}` })
    .from(model)
    .leftJoin(shelfEntry, eq(shelfEntry.modelId, model.id))
    .where(and(...filters, after))
    .orderBy(...order)
    .limit(q.limit + 1)
  const [count] = await db
    .select({ n: sql<number>`count(*)::int` })
    .from(model)
    .where(and(...filters))
  const page = rows.slice(0, q.limit)
  const last = page.at(-1)
  const basis = await shelfBasis(db)
  const revisionOf = (r: (typeof page)[number]): number => r.entry?.revision ?? 1
  const stands = (r: (typeof page)[number]): Shown | null =>
    r.entry?.workedFrom === workedFrom(revisionOf(r), basis.key) ? r.entry.shown : null
  const stale = page.filter((r) => !stands(r)).map((r) => ({ row: r.row, revision: revisionOf(r) }))
  const fresh = await workOut(db, stale, basis)
  return {
    items: page.flatMap((r) => {
      const shown = stands(r) ?? fresh.get(r.row.id)
      return shown ? [{ model: travelling(r.row), ...shown }] : []
    }),
    next: rows.length > q.limit && last ? writeCursor({ value: last.key, id: last.row.id }) : null,
    total: count?.n ?? 0,
  }
}
