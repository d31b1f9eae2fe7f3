import type { Dossier, ShelfRow } from '@ypsometer/contract'
import type { Candidate } from '@ypsometer/core/advice/candidate'
import type { LabelBias } from '@ypsometer/core/trials/bias'
import { CoreError } from '@ypsometer/core/errors/errors'
import { and, asc, eq, isNull, ne, or, sql } from 'drizzle-orm'
import { createHash } from 'node:crypto'
import type { Db } from '../db/client'
import { model, shelfEntry } from '../db/schema'
import { allMedia } from '../library/media'
import { allHouseRules } from '../library/houseRules'
import { stockClasses } from '../tanks/stock'
import { shelfBias } from './bias'
import { PROGRAM } from '../program'
import { dossiers, type ModelRow } from './queries'
import { shelfRow, type ShelfBasis } from './shelfRow'

/** Context that every dossier is worked out with. */
export async function readBasis(db: Db): Promise<ShelfBasis> {
  const [stock, rules, media, bias] = await Promise.all([
    stockClasses(db),
    allHouseRules(db),
    allMedia(db),
    shelfBias(db),
  ])
  return { stock, rules, media, bias }
}

/** Context of every row, and its name in few letters. */
export type NamedBasis = ShelfBasis & { readonly key: string }

/** Stock, rules and media as they were read last, with what tells that they are still the same. */
const read = new WeakMap<Db, { readonly mark: string; readonly basis: Promise<NamedBasis> }>()

/** Every write to one of the three lists moves this. */
async function markOf(db: Db, bias: LabelBias): Promise<string> {
  const of = (table: string) =>
    sql.raw(
      `(select concat(count(*) filter (where deleted_at is null), ' ', sum(version), ' ', max(updated_at)) from ${table})`,
    )
  const chosen = sql`(select string_agg(id::text, ' ' order by id) from house_rule where chosen)`
  const { rows } = await db.execute<{ mark: string }>(
    sql`select concat_ws('|', ${of('stock_class')}, ${of('house_rule')}, ${of('medium')}, ${chosen}) as mark`,
  )
  return `${rows[0]?.mark}|${JSON.stringify(bias)}`
}

/** The same for a row of the shelf, read anew when something of it was written to. */
export async function shelfBasis(db: Db): Promise<NamedBasis> {
  const mark = await markOf(db, await shelfBias(db))
  const last = read.get(db)
  if (last?.mark === mark) return last.basis
  const basis = namedBasis(db)
  read.set(db, { mark, basis })
  basis.catch(() => read.delete(db))
  return basis
}

async function namedBasis(db: Db): Promise<NamedBasis> {
  const basis = await readBasis(db)
  // What a house weighs in advice changes no row: it is asked for where options are ranked.
  const { n: _n, ...bias } = basis.bias
  const judged = {
    ...basis,
    bias,
    rules: basis.rules.map(({ advice: _, version: _v, updatedAt: _u, ...rule }) => rule),
  }
  const key = createHash('sha1').update(PROGRAM).update(JSON.stringify(judged)).digest('base64')
  return { ...basis, key }
}

export type Shown = Omit<ShelfRow, 'model' | 'old'>

/** The row of a model of which nothing has been worked out yet. */
export const NOT_YET: Shown = {
  ratedFlow: null,
  flow: null,
  basis: 'none',
  supportedMax: null,
  claimedMax: null,
  overclaim: null,
  level: 'open',
  borderline: false,
  split: null,
  claimsDone: 0,
  benchDone: 0,
  problem: null,
  next: null,
  missing: [],
}
/** The row of a model whose numbers cannot be worked out: it says so, and all others stand. */
const brokenRow = (error: unknown): Shown => ({
  ...NOT_YET,
  problem: error instanceof CoreError ? error.message : 'its numbers cannot be calculated',
})

/** Results for a model: its row on the shelf, and what it brings to a tank. */
export interface Worked {
  readonly shown: Shown
  readonly candidate: Candidate | null
}

function rowOrProblem(d: Dossier, basis: ShelfBasis): Worked {
  try {
    const { row, candidate } = shelfRow(d, basis)
    return { shown: row, candidate }
  } catch (error) {
    return { shown: brokenRow(error), candidate: null }
  }
}

/**
 * Works out what the shelf shows of these models and keeps it under the revision it was read at: one that was written
 * to meanwhile is worked out again by whoever asks next.
 */
export async function workOut(
  db: Db,
  models: readonly { readonly row: ModelRow; readonly revision: number }[],
  basis: NamedBasis,
): Promise<ReadonlyMap<string, Worked>> {
  const found = await dossiers(
    db,
    models.map((m) => m.row),
  )
  const worked = new Map(found.map((d) => [d.model.id, rowOrProblem(d, basis)]))
  if (!models.length) return worked
  const values = models.map(({ row, revision }) => ({
    modelId: row.id,
    revision,
    workedFrom: workedFrom(revision, basis.key),
    shown: worked.get(row.id)?.shown ?? null,
    candidate: worked.get(row.id)?.candidate ?? null,
    split: worked.get(row.id)?.shown.split != null,
    overclaim: worked.get(row.id)?.shown.overclaim?.value ?? 0,
  }))
  await db
    .insert(shelfEntry)
    .values(values)
    .onConflictDoUpdate({
      target: shelfEntry.modelId,
      set: {
        workedFrom: sql`excluded.worked_from`,
        shown: sql`excluded.shown`,
        candidate: sql`excluded.candidate`,
        split: sql`excluded.split`,
        overclaim: sql`excluded.overclaim`,
      },
      setWhere: sql`${shelfEntry.revision} = excluded.revision`,
    })
  return worked
}

export const workedFrom = (revision: number, basis: string): string => `${revision}:${basis}`

/** Works out rows that stand no longer, at most so many; how many there were. */
export async function refreshShelf(db: Db, most = 200): Promise<number> {
  const basis = await shelfBasis(db)
  const current = sql`${shelfEntry.revision} || ':' || ${basis.key}`
  const stale = await db
    .select({ row: model, revision: shelfEntry.revision })
    .from(shelfEntry)
    .innerJoin(model, eq(model.id, shelfEntry.modelId))
    .where(
      and(isNull(model.deletedAt), or(isNull(shelfEntry.workedFrom), ne(shelfEntry.workedFrom, current))),
    )
    .orderBy(asc(shelfEntry.modelId))
    .limit(most)
  for (let i = 0; i < stale.length; i += 25) await workOut(db, stale.slice(i, i + 25), basis)
  return stale.length
}
