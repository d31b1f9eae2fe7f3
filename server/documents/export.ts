import {
  COLLECTIONS,
  documentFields,
  DOCUMENT_VERSION,
  RESOURCES,
  type CollectionName,
  type Subject,
  type YpsoDocument,
} from '@ypsometer/contract'
import { and, asc, inArray, isNull, type SQL } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import type { Db, Tx } from '../db/client'
import { editableOf, travelling, type AnyParts } from '../http/rows'
import { publishedEditions } from '../reviews/document'
import { problem } from '../http/problems'
import type { Plain } from './undo'

/** A table as documents need it. */
type Table = PgTable & Record<'id' | 'createdAt' | 'deletedAt', PgColumn> & Record<string, unknown>
export const tableOf = (db: Db, name: CollectionName): Table => editableOf(db, name).table as unknown as Table

/** What of a row stands in other tables; a document has more of it than a row that travels. */
export const partsOf = (db: Db, name: CollectionName): AnyParts | undefined =>
  name === 'reviews' ? publishedEditions : editableOf(db, name).parts

/** Every bench begins with rows of these; when they were made says nothing. */
const SHIPPED: readonly CollectionName[] = ['house-rules', 'stock-classes', 'media']

/** Stored rows as a document has them: what a person can give, what stands in other tables, and when it was made. */
export async function plainRows(
  db: Db,
  tx: Db | Tx,
  name: CollectionName,
  where: SQL | undefined,
): Promise<Plain[]> {
  const table = tableOf(db, name)
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
  const parts = partsOf(db, name)
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

type Rows = { [N in CollectionName]?: readonly Plain[] }
/** By which field rows of a collection belong to a model, a tank or a trial. */
const OF_MODEL = ['claims', 'specimens', 'hookups', 'bodies', 'chambers', 'fills', 'trials', 'contents', 'parts', 'visits', 'set-ups', 'fault-searches'] as const // prettier-ignore
/** What stands on its own and goes with the whole bench where its model does. */
const ON_MODEL = [...OF_MODEL, 'reviews'] as const
const OF_TANK = ['ticks', 'change-overs'] as const
const OF_TRIAL = ['readings', 'logs'] as const
/** What photos belong to, and by which field. */
const PHOTOS_OF = [
  ['partId', 'parts'],
  ['trialId', 'trials'],
  ['visitId', 'visits'],
] as const

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
  const read = async (name: CollectionName, field: string, ids: readonly string[]): Promise<Plain[]> => {
    const table = tableOf(db, name)
    const column = table[field] as PgColumn | undefined
    if (!column || !ids.length) return []
    return plainRows(db, db, name, and(inArray(column, [...new Set(ids)]), isNull(table.deletedAt)))
  }
  const one = async (name: CollectionName): Promise<Plain[]> => {
    const found = await read(name, 'id', id ? [id] : [])
    if (!found.length) throw problem(404, 'not-found', `There is no such ${RESOURCES[name].one}`)
    return found
  }
  const document = (rows: Rows): YpsoDocument =>
    ({ format: 'ypsometer', version: DOCUMENT_VERSION, subject, rows }) as unknown as YpsoDocument
  switch (subject) {
    case 'bench': {
      const all: Rows = {}
      for (const name of COLLECTIONS.filter((n) => photos || n !== 'photos'))
        all[name] = await plainRows(db, db, name, isNull(tableOf(db, name).deletedAt))
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
    for (const name of OF_MODEL) rows[name] = await read(name, 'modelId', strings(models, 'id'))
    for (const name of OF_TRIAL) rows[name] = await read(name, 'trialId', strings(rows.trials, 'id'))
    const media = (rows.fills ?? []).flatMap((f) => strings(f.layers as Plain[], 'mediumId'))
    rows.media = await read('media', 'id', media)
    if (photos)
      for (const [field, owners] of PHOTOS_OF)
        rows.photos = [...(rows.photos ?? []), ...(await read('photos', field, strings(rows[owners], 'id')))]
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
const withTanks = (rows: Rows, tanks: ReadonlySet<string>): Rows => ({
  ...rows,
  ...Object.fromEntries(
    (['visits', 'set-ups', 'fault-searches'] as const).map((n) => [
      n,
      (rows[n] ?? []).map((r) => (tanks.has(String(r.tankId)) ? r : { ...r, tankId: null })),
    ]),
  ),
})

/** Rows whose owners are there: what hangs on a deleted model, trial or tank does not go out. */
function living(rows: Rows): Rows {
  const ids = (name: CollectionName): ReadonlySet<string> => new Set(strings(rows[name], 'id'))
  const [models, tanks] = [ids('models'), ids('tanks')]
  const out: Rows = { ...rows }
  for (const name of ON_MODEL)
    out[name] = (rows[name] ?? []).filter((r) => r.modelId === null || models.has(String(r.modelId)))
  for (const name of OF_TANK) out[name] = (rows[name] ?? []).filter((r) => tanks.has(String(r.tankId)))
  if (rows.photos)
    out.photos = rows.photos.filter((p) =>
      PHOTOS_OF.some(([field, owners]) => strings(out[owners], 'id').includes(String(p[field]))),
    )
  const trials = new Set(strings(out.trials, 'id'))
  for (const name of OF_TRIAL) out[name] = (rows[name] ?? []).filter((r) => trials.has(String(r.trialId)))
  return livingFilters(out)
}
