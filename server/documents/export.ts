import {
  RESOURCE_NAMES,
  documentFields,
  DOCUMENT_VERSION,
  RESOURCES,
  type ResourceName,
  type Subject,
  type YpsoDocument,
} from '@ypsometer/contract'
import { and, asc, inArray, isNull, type SQL } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import type { Db, Tx } from '../db/client'
import { TABLES } from '../db/schema'
import { travelling } from '../http/rows'
import { rowsOf } from '../rows'
import { problem } from '../http/problems'
import type { Plain } from '../db/undo'

/** A table as documents need it. */
type Table = PgTable & Record<'id' | 'createdAt' | 'deletedAt', PgColumn> & Record<string, unknown>
export const tableOf = (name: ResourceName): Table => TABLES[name] as unknown as Table

/** Every bench begins with rows of these; when they were made says nothing. */
const SHIPPED: readonly ResourceName[] = ['house-rules', 'stock-classes', 'media']

/** Stored rows as a document has them: what a person can give, what stands in other tables, and when it was made. */
export async function plainRows(tx: Db | Tx, name: ResourceName, where: SQL | undefined): Promise<Plain[]> {
  const table = tableOf(name)
  const fields = documentFields(name)
  // What is large and stands in no document, such as a picture, is not read.
  const wanted = Object.fromEntries(
    [...fields, 'id', 'createdAt'].flatMap((f) => (f in table ? [[f, table[f] as PgColumn]] : [])),
  )
  const stored = await tx
    .select(wanted)
    .from(table)
    .where(where)
    .orderBy(...(SHIPPED.includes(name) ? [] : [asc(table.createdAt)]), asc(table.id))
  const parts = rowsOf(name).apart
  const elsewhere = parts
    ? await parts.read(
        tx,
        stored.map((r) => String(r.id)),
      )
    : null
  return stored.map((r) => {
    const row = travelling(r) as Record<string, unknown>
    const own = Object.fromEntries(fields.flatMap((f) => (f in row ? [[f, row[f]]] : [])))
    return {
      ...own,
      ...(parts && { [String(parts.field)]: elsewhere?.get(String(row.id)) ?? [] }),
      id: String(row.id),
      ...(!SHIPPED.includes(name) && { createdAt: String(row.createdAt) }),
    }
  })
}

type Rows = { [N in ResourceName]?: readonly Plain[] }
/** Subjects of documents go by themselves, not along with what they belong to. */
const BY_ITSELF: readonly ResourceName[] = ['models', 'tanks', 'reviews']
/** The fields by which rows of a kind belong to others, and to which kinds. */
const ownersOf = (name: ResourceName): readonly { readonly field: string; readonly to: ResourceName }[] =>
  RESOURCES[name].links.flatMap((l) =>
    l.owner ? [{ field: l.path[0] ?? '', to: l.to as ResourceName }] : [],
  )

/**
 * One thing with all it stands on, or the whole bench, as a document that can be read anywhere.
 * @throws a problem where there is no such thing.
 */
export async function exported(
  db: Db,
  subject: Subject,
  id: string | null,
  photos = false,
): Promise<YpsoDocument> {
  const read = async (name: ResourceName, field: string, ids: readonly string[]): Promise<Plain[]> => {
    const table = tableOf(name)
    const column = table[field] as PgColumn | undefined
    if (!column || !ids.length) return []
    return plainRows(db, name, and(inArray(column, [...new Set(ids)]), isNull(table.deletedAt)))
  }
  const one = async (name: ResourceName): Promise<Plain[]> => {
    const found = await read(name, 'id', id ? [id] : [])
    if (!found.length) throw problem(404, 'not-found', `There is no such ${RESOURCES[name].singular}`)
    return found
  }
  const document = (rows: Rows): YpsoDocument =>
    ({ format: 'ypsometer', version: DOCUMENT_VERSION, subject, rows }) as unknown as YpsoDocument
  switch (subject) {
    case 'bench': {
      const all: Rows = {}
      for (const name of RESOURCE_NAMES.filter((n) => photos || n !== 'photos'))
        all[name] = await plainRows(db, name, isNull(tableOf(name).deletedAt))
      return document(living(all))
    }
    case 'medium':
      return document({ media: await one('media') })
    case 'house-rule':
      return document({ 'house-rules': await one('house-rules') })
    case 'tank': {
      const tanks = await one('tanks')
      const classes = await read('stock-classes', 'id', strings(tanks, 'stockClassId'))
      const rows = await withModels(await read('models', 'id', tanks.flatMap(filterModels)), tanks)
      return document(livingFilters({ ...rows, 'stock-classes': classes, tanks }))
    }
    case 'model':
      return document(await withModels(await one('models')))
    case 'review': {
      const reviews = await one('reviews')
      return document({
        ...(await withModels(await read('models', 'id', strings(reviews, 'modelId')))),
        reviews,
      })
    }
  }

  /** Models with all that belongs to them and all they stand on. */
  async function withModels(models: readonly Plain[], tanks: readonly Plain[] = []): Promise<Rows> {
    const rows: Rows = { models: models.map((m) => ({ ...m, kinId: null })) }
    // Owners come first in the order of the kinds.
    for (const name of RESOURCE_NAMES) {
      if (BY_ITSELF.includes(name) || (name === 'photos' && !photos)) continue
      for (const { field, to } of ownersOf(name))
        if (rows[to])
          rows[name] = [...(rows[name] ?? []), ...(await read(name, field, strings(rows[to], 'id')))]
    }
    const media = (rows.fills ?? []).flatMap((f) => strings(f.layers as Plain[], 'mediumId'))
    rows.media = await read('media', 'id', media)
    rows['house-rules'] = await read('house-rules', 'id', strings(models, 'houseRuleId'))
    return withTanks(rows, new Set(strings(tanks, 'id')))
  }
}

const strings = (rows: readonly Plain[] | undefined, field: string): string[] =>
  (rows ?? []).flatMap((r) => (typeof r[field] === 'string' ? [r[field]] : []))

const filterModels = (tank: Plain): string[] => strings(tank.filters as Plain[], 'modelId')

/** Filters of tanks whose model was deleted stay as filters that the shelf does not have. */
const livingFilters = (rows: Rows): Rows => {
  const models = new Set(strings(rows.models, 'id'))
  const filters = (tank: Plain): Plain[] =>
    (tank.filters as Plain[]).map((f) => (models.has(String(f.modelId)) ? f : { ...f, modelId: null }))
  return { ...rows, tanks: (rows.tanks ?? []).map((t) => ({ ...t, filters: filters(t) })) }
}

/** A model goes without the tanks of a house but those that go along; what was seen of it there stays. */
function withTanks(rows: Rows, tanks: ReadonlySet<string>): Rows {
  const out: Rows = { ...rows }
  for (const name of RESOURCE_NAMES)
    if (rows[name] && RESOURCES[name].links.some((l) => !l.owner && l.path[0] === 'tankId'))
      out[name] = rows[name].map((r) => (tanks.has(String(r.tankId)) ? r : { ...r, tankId: null }))
  return out
}

/** Rows whose owners are there: what hangs on a deleted model, trial or tank does not go out. */
function living(rows: Rows): Rows {
  const out: Rows = { ...rows }
  for (const name of RESOURCE_NAMES) {
    const owners = ownersOf(name).map(({ field, to }) => ({ field, ids: new Set(strings(out[to], 'id')) }))
    if (owners.length && rows[name])
      out[name] = rows[name].filter((r) =>
        owners.every(({ field, ids }) => r[field] === null || ids.has(String(r[field]))),
      )
  }
  return livingFilters(out)
}
