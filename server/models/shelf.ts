import type { ShelfPage, ShelfQuery } from '@ypsometer/contract'
import { and, asc, eq, ilike, inArray, isNull, or, sql, type SQL } from 'drizzle-orm'
import type { z } from 'zod'
import type { Db } from '../db/client'
import { model, shelfEntry } from '../db/schema'
import { readCursor, writeCursor } from '../http/cursor'
import { travelling } from '../http/rows'
import { NOT_YET, shelfBasis, workedFrom } from './shelfEntries'
import { makeNew } from './shelfRefresh'

/** How the shelf is sorted: what an index gives in order, the id beside it, and how a cursor holds it. */
interface Sorting {
  readonly by: SQL
  readonly id: SQL
  readonly falls: boolean
  readonly held: SQL
  readonly read: (value: string | number | null) => SQL
}
const asItIs = (value: string | number | null): SQL => sql`${value}`
const SORTINGS: Readonly<Record<z.infer<typeof ShelfQuery>['sort'], Sorting>> = {
  name: {
    by: sql`lower(${model.name})`,
    id: sql`${model.id}`,
    falls: false,
    held: sql`lower(${model.name})`,
    read: asItIs,
  },
  updated: {
    by: sql`${model.updatedAt}`,
    id: sql`${model.id}`,
    falls: true,
    held: sql`to_char(${model.updatedAt} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`,
    read: (value) => sql`${value}::timestamptz`,
  },
  // Triggers make an entry with every model.
  'rated-flow': {
    by: sql`${shelfEntry.ratedFlow}`,
    id: sql`${shelfEntry.modelId}`,
    falls: true,
    held: sql`${shelfEntry.ratedFlow}`,
    read: asItIs,
  },
  claim: {
    by: sql`${shelfEntry.overclaim}`,
    id: sql`${shelfEntry.modelId}`,
    falls: true,
    held: sql`${shelfEntry.overclaim}`,
    read: asItIs,
  },
}

type Entry = typeof shelfEntry.$inferSelect
const stands = (e: Entry, key: string): boolean =>
  e.workedFrom === workedFrom(e.revision, key) && e.shown !== null
/** Was it worked out since its model was last written to? */
const ofRevision = (e: Entry): boolean => (e.workedFrom ?? '').startsWith(workedFrom(e.revision, ''))

/** One page of the shelf, by keyset on the sort value and the id, with the whole count. */
export async function shelf(db: Db, q: z.infer<typeof ShelfQuery>): Promise<ShelfPage> {
  const cursor = readCursor(q.cursor)
  const { by, id, falls, held, read } = SORTINGS[q.sort]
  const filters: SQL[] = [isNull(model.deletedAt)]
  if (q.kind) filters.push(eq(model.kind, q.kind))
  if (q.stands)
    filters.push(
      sql`exists (select 1 from ${shelfEntry} e where e.model_id = ${model.id} and e.split = ${q.stands === 'split'})`,
    )
  if (q.missing)
    filters.push(
      sql`exists (select 1 from ${shelfEntry} e where e.model_id = ${model.id} and jsonb_exists(e.shown->'missing', ${q.missing}))`,
    )
  const words = q.search?.replace(/\0/g, '').trim().split(/\s+/).filter(Boolean) ?? []
  for (const word of words) {
    const like = `%${word.replace(/[\\%_]/g, '\\$&')}%`
    const either = or(ilike(model.name, like), ilike(model.maker, like))
    if (either) filters.push(either)
  }
  const after = cursor
    ? falls
      ? sql`(${by}, ${id}) < (${read(cursor.value)}, ${cursor.id}::uuid)`
      : sql`(${by}, ${id}) > (${read(cursor.value)}, ${cursor.id}::uuid)`
    : undefined
  // In the order of the indexes on the entry, which stand with their nulls last.
  const last = q.sort === 'rated-flow' || q.sort === 'claim' ? sql` nulls last` : sql``
  const order = falls ? [sql`${by} desc${last}`, sql`${id} desc${last}`] : [asc(by), asc(id)]
  const [rows, count, basis] = await Promise.all([
    db
      .select({ row: model, entry: shelfEntry, key: sql<string | number>`${held}` })
      .from(model)
      .innerJoin(shelfEntry, eq(shelfEntry.modelId, model.id))
      .where(and(...filters, after))
      .orderBy(...order)
      .limit(q.limit + 1),
    db.$count(model, and(...filters)),
    shelfBasis(db),
  ])
  const page = rows.slice(0, q.limit)
  const end = page.at(-1)
  const stale = page.filter(({ entry: e }) => !stands(e, basis.key))
  const entries = new Map(page.map((r) => [r.row.id, r.entry]))
  if (stale.length) {
    const wanted = stale.map((r) => ({ row: r.row, revision: r.entry.revision }))
    await makeNew(
      db,
      wanted,
      stale.some((r) => !ofRevision(r.entry)) ? 'written' : 'moved',
      stale.some((r) => r.entry.shown === null),
    )
    const ids = stale.map((r) => r.row.id)
    const now = await db.select().from(shelfEntry).where(inArray(shelfEntry.modelId, ids))
    for (const e of now) entries.set(e.modelId, e)
  }
  return {
    items: page.map((r) => {
      const e = entries.get(r.row.id) ?? r.entry
      return { model: travelling(r.row), ...(e.shown ?? NOT_YET), old: !stands(e, basis.key) }
    }),
    next: rows.length > q.limit && end ? writeCursor({ value: end.key, id: end.row.id }) : null,
    total: count,
  }
}
