import {
  DOSSIER_ROWS,
  modelRecord,
  RESOURCES,
  type Medium,
  type Dossier,
  type ShelfPage,
  type ShelfRow,
  type ShelfQuery,
  type StockClassRow,
} from '@ypsometer/contract'
import { CoreError } from '@ypsometer/core/errors'
import { assess, claimed, printedFigure, type LabelBias } from '@ypsometer/core/judging'
import { and, asc, desc, eq, ilike, inArray, getTableColumns, isNull, or, sql, type SQL } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import type { Db } from '../db/client'
import {
  body,
  chamber,
  claim,
  contentItem,
  fill,
  hookup,
  log,
  model,
  part,
  photo,
  reading,
  specimen,
  trial,
} from '../db/schema'
import type { z } from 'zod'
import { LRUCache } from 'lru-cache'
import { createHash } from 'node:crypto'
import { readCursor, writeCursor } from '../http/cursor'
import { allMedia } from '../library/media'
import { shelfBias } from './bias'
import { stockClasses } from '../tanks/stock'
import { travelling } from '../http/editable'
import { problem } from '../http/problems'
import { layers, segments } from './resources'

type OwnedTable = PgTable & { id: PgColumn; modelId: PgColumn; createdAt: PgColumn; deletedAt: PgColumn }

/** A photo's record without its pictures. */
const { full: _full, thumb: _thumb, ...PHOTO_COLUMNS } = getTableColumns(photo)

/** A log without its points. */
const { times: _times, values: _values, ...LOG_COLUMNS } = getTableColumns(log)

type ModelRow = typeof model.$inferSelect

/** Everything the dossiers of these models stand on, in fourteen queries whatever their number. */
export async function dossiers(db: Db, models: readonly ModelRow[]): Promise<readonly Dossier[]> {
  const ids = models.map((m) => m.id)
  if (!ids.length) return []
  const live = (t: OwnedTable): SQL | undefined => and(inArray(t.modelId, ids), isNull(t.deletedAt))
  const byAge = (t: OwnedTable): SQL[] => [asc(t.createdAt), asc(t.id)]
  const [
    claims,
    specimens,
    hookups,
    trials,
    contents,
    parts,
    bodies,
    chambers,
    fills,
    readings,
    logs,
    photos,
  ] = await Promise.all([
    db
      .select()
      .from(claim)
      .where(live(claim))
      .orderBy(...byAge(claim)),
    db
      .select()
      .from(specimen)
      .where(live(specimen))
      .orderBy(...byAge(specimen)),
    db
      .select()
      .from(hookup)
      .where(live(hookup))
      .orderBy(...byAge(hookup)),
    db
      .select()
      .from(trial)
      .where(live(trial))
      .orderBy(...byAge(trial)),
    db
      .select()
      .from(contentItem)
      .where(live(contentItem))
      .orderBy(...byAge(contentItem)),
    db
      .select()
      .from(part)
      .where(live(part))
      .orderBy(...byAge(part)),
    db
      .select()
      .from(body)
      .where(live(body))
      .orderBy(...byAge(body)),
    db
      .select()
      .from(chamber)
      .where(live(chamber))
      .orderBy(...byAge(chamber)),
    db
      .select()
      .from(fill)
      .where(live(fill))
      .orderBy(...byAge(fill)),
    db
      .select({ reading, modelId: trial.modelId })
      .from(reading)
      .innerJoin(trial, eq(trial.id, reading.trialId))
      .where(and(inArray(trial.modelId, ids), isNull(trial.deletedAt), isNull(reading.deletedAt)))
      .orderBy(asc(reading.takenAt), asc(reading.id)),
    db
      .select({ log: LOG_COLUMNS, modelId: trial.modelId })
      .from(log)
      .innerJoin(trial, eq(trial.id, log.trialId))
      .where(and(inArray(trial.modelId, ids), isNull(trial.deletedAt), isNull(log.deletedAt)))
      .orderBy(asc(log.startedAt), asc(log.id)),
    db
      .select({ photo: PHOTO_COLUMNS, modelId: sql<string>`coalesce(${part.modelId}, ${trial.modelId})` })
      .from(photo)
      .leftJoin(part, eq(part.id, photo.partId))
      .leftJoin(trial, eq(trial.id, photo.trialId))
      .where(
        and(
          or(
            and(inArray(part.modelId, ids), isNull(part.deletedAt)),
            and(inArray(trial.modelId, ids), isNull(trial.deletedAt)),
          ),
          isNull(photo.deletedAt),
        ),
      )
      .orderBy(asc(photo.createdAt), asc(photo.id)),
  ])
  const piecesOf = await segments.read(db, idsOf(hookups))
  const layersOf = await layers.read(db, idsOf(fills))
  const of = <T extends { modelId: string }>(rows: readonly T[], id: string) =>
    rows.filter((r) => r.modelId === id).map(travelling)
  return models.map((m) => ({
    model: travelling(m),
    claims: of(claims, m.id),
    specimens: of(specimens, m.id),
    hookups: of(hookups, m.id).map((h) => ({ ...h, segments: piecesOf.get(h.id) ?? [] })),
    trials: of(trials, m.id),
    readings: readings.filter((r) => r.modelId === m.id).map((r) => travelling(r.reading)),
    logs: logs.filter((r) => r.modelId === m.id).map((r) => travelling(r.log)),
    contents: of(contents, m.id),
    parts: of(parts, m.id),
    bodies: of(bodies, m.id),
    chambers: of(chambers, m.id),
    fills: of(fills, m.id).map((f) => ({ ...f, layers: layersOf.get(f.id) ?? [] })),
    photos: photos.filter((r) => r.modelId === m.id).map((r) => travelling(r.photo)),
  }))
}

const idsOf = (rows: readonly { readonly id: string }[]): string[] => rows.map((r) => r.id)

/** One dossier. @throws 404 for a model that is not there; a deleted one is given, marked by `deletedAt`. */
export async function dossier(db: Db, id: string): Promise<Dossier> {
  const rows = await db.select().from(model).where(eq(model.id, id))
  const [found] = await dossiers(db, rows)
  if (!found) throw problem(404, 'not-found', 'There is no such model')
  return readable(found)
}

/** A dossier without the rows that cannot be read, which it names: one row never takes the others with it. */
function readable(d: Dossier): Dossier {
  const unreadable: NonNullable<Dossier['unreadable']> = []
  const read = DOSSIER_ROWS.map((collection) => {
    const { Row, one } = RESOURCES[collection]
    const whole = d[collection].filter((row) => {
      const wrong = Row.safeParse(row).error?.issues[0]
      if (!wrong) return true
      const { id, version } = row
      unreadable.push({ collection, one, id, version, field: wrong.path.join('.'), message: wrong.message })
      return false
    })
    return [collection, whole]
  })
  return unreadable.length ? { ...d, ...Object.fromEntries(read), unreadable } : d
}

/** What a row of the shelf is worked out with besides the model's own dossier. */
export interface ShelfBasis {
  readonly stock: readonly StockClassRow[]
  readonly media: readonly Medium[]
  readonly bias: LabelBias
}

/** What the shelf says of one model, computed from its dossier. */
export function shelfRow(d: Dossier, { stock, media, bias }: ShelfBasis): ShelfRow {
  const record = modelRecord(d, media)
  const a = assess(record, { stockClasses: stock, bias })
  const rated = claimed(record, 'rated-flow')
  const top = claimed(record, 'tank-max')
  return {
    model: d.model,
    ratedFlow: rated ? printedFigure(rated) : null,
    flow: a.verdict.flow,
    basis: a.verdict.basis,
    supportedMax: a.verdict.supported,
    claimedMax: top ? printedFigure(top) : null,
    overclaim: a.verdict.overclaim,
    level: a.verdict.level,
    borderline: a.verdict.borderline,
    claimsDone: a.progress.claims,
    benchDone: a.progress.bench,
    problem: null,
    next: a.progress.next.station === 'verdict' ? null : a.progress.next.action,
  }
}

/** The row of a model whose numbers cannot be worked out: it says so, and all others stand. */
const brokenRow = (d: Dossier, error: unknown): ShelfRow => ({
  model: d.model,
  ratedFlow: null,
  flow: null,
  basis: 'none',
  supportedMax: null,
  claimedMax: null,
  overclaim: null,
  level: 'open',
  borderline: false,
  claimsDone: 0,
  benchDone: 0,
  problem: error instanceof CoreError ? error.message : 'its record cannot be worked out',
  next: null,
})

/**
 * Rows worked out, by what they were worked out from: a page is not worked out anew while nothing of it has changed.
 */
const ROWS = new LRUCache<string, ShelfRow>({ max: 2000 })
/** Everything a row depends on, in few letters: the version of each row of the dossier, the library, the rules. */
function signature(d: Dossier, basis: string): string {
  const hash = createHash('sha1').update(basis)
  for (const rows of [[d.model], ...DOSSIER_ROWS.map((collection) => d[collection])])
    for (const r of rows) hash.update(`${r.id}:${r.version}:${r.deletedAt ?? ''};`)
  return hash.digest('base64')
}
function rowOrProblem(d: Dossier, basis: ShelfBasis): ShelfRow {
  try {
    return shelfRow(d, basis)
  } catch (error) {
    return brokenRow(d, error)
  }
}
function keptRow(d: Dossier, basis: ShelfBasis, basisKey: string): ShelfRow {
  const key = signature(d, basisKey)
  const row = ROWS.get(key) ?? rowOrProblem(d, basis)
  ROWS.set(key, row)
  return row
}

const ratedFlow = sql<number>`coalesce((select c.value from claim c where c.model_id = ${model.id}
  and c.quantity = 'rated-flow' and c.deleted_at is null order by c.created_at, c.id limit 1), 0)`
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
    .select({ row: model, key: sql<string | number>`${key}` })
    .from(model)
    .where(and(...filters, after))
    .orderBy(...order)
    .limit(q.limit + 1)
  const [count] = await db
    .select({ n: sql<number>`count(*)::int` })
    .from(model)
    .where(and(...filters))
  const page = rows.slice(0, q.limit)
  const last = page.at(-1)
  const basis = { stock: await stockClasses(db), media: await allMedia(db), bias: await shelfBias(db) }
  const basisKey = createHash('sha1').update(JSON.stringify(basis)).digest('base64')
  const found = await dossiers(
    db,
    page.map((r) => r.row),
  )
  return {
    items: found.map((d) => keptRow(d, basis, basisKey)),
    next: rows.length > q.limit && last ? writeCursor({ value: last.key, id: last.row.id }) : null,
    total: count?.n ?? 0,
  }
}
