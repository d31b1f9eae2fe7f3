import {
  counterRule,
  houseOf,
  judgedClasses,
  tankRecord,
  type RankedTank,
  type Tank,
} from '@ypsometer/contract'
import { advise, NO_WISHES, standingOf } from '@ypsometer/core/advice/advise'
import { ranked } from '@ypsometer/core/advice/score'
import type { AdviceRule } from '@ypsometer/core/advice/rule'
import type { Candidate } from '@ypsometer/core/advice/candidate'
import { CoreError } from '@ypsometer/core/errors/errors'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import { and, asc, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm'
import { createHash, randomUUID } from 'node:crypto'
import { hostname } from 'node:os'
import type { Db, Tx } from '../db/client'
import { model, ranking, rankingPart, shelfEntry, tank } from '../db/schema'
import { travelling } from '../http/rows'
import { shelfBasis, workedFrom, workOut } from '../models/shelfEntries'

/** Models worked out in one part, and options kept for a tank. */
const AT_ONCE = 12
const KEPT = 10
const ME = `${hostname()} ${process.pid}`

/** Names all that a ranking hangs on: dossiers, library, rules, classes, tanks and the program. */
export async function rankingBasis(db: Db): Promise<string> {
  const [basis, shelf, tanks] = await Promise.all([
    shelfBasis(db),
    db.execute(sql`select coalesce(sum(revision), 0)::text || '/' || count(*) as name from ${shelfEntry}`),
    db.execute(
      sql`select coalesce(sum(version), 0)::text || '/' || count(*) filter (where deleted_at is null) as name from ${tank}`,
    ),
  ])
  const name = (rows: readonly Record<string, unknown>[]): string => String(rows[0]?.name)
  return createHash('sha1')
    .update(basis.key)
    .update(JSON.stringify([name(shelf.rows), name(tanks.rows)]))
    .digest('base64')
}

/**
 * Lays a ranking of the whole shelf out in parts; the one that is running already, where one is. Workers take the parts
 * as they come.
 */
export async function startRanking(db: Db, tx: Tx): Promise<string> {
  const [running] = await tx.select({ id: ranking.id }).from(ranking).where(eq(ranking.state, 'running'))
  if (running) return running.id
  const models = await tx
    .select({ id: model.id })
    .from(model)
    .where(isNull(model.deletedAt))
    .orderBy(asc(model.id))
  const tanks = await tx
    .select({ id: tank.id })
    .from(tank)
    .where(isNull(tank.deletedAt))
    .orderBy(asc(sql`lower(${tank.name})`), asc(tank.id))
  const id = randomUUID()
  // Two that start at once: the index on what runs lets one of them in.
  const made = await tx
    .insert(ranking)
    .values({ id, basis: await rankingBasis(db), models: models.length })
    .onConflictDoNothing()
    .returning({ id: ranking.id })
  if (!made.length) {
    const [other] = await tx.select({ id: ranking.id }).from(ranking).where(eq(ranking.state, 'running'))
    return other?.id ?? id
  }
  const chunks = Array.from({ length: Math.ceil(models.length / AT_ONCE) }, (_, i) =>
    models.slice(i * AT_ONCE, (i + 1) * AT_ONCE).map((m) => m.id),
  )
  const parts = [
    ...chunks.map((subjects) => ({ what: 'models' as const, subjects })),
    ...tanks.map((t) => ({ what: 'tank' as const, subjects: [t.id] })),
  ]
  if (parts.length)
    await tx.insert(rankingPart).values(parts.map((p, position) => ({ rankingId: id, position, ...p })))
  return id
}

type Part = typeof rankingPart.$inferSelect

/**
 * Takes the next part that nobody holds, works at it and keeps what comes of it, all in one transaction: a worker that
 * is killed lets go of its part with its connection, and another takes it at once; none is kept twice. Tanks come after
 * all models. False where there is nothing to take.
 */
export async function workPart(db: Db): Promise<boolean> {
  const worked = await db.transaction(async (tx) => {
    const [part] = await tx
      .select({ part: rankingPart })
      .from(rankingPart)
      .innerJoin(ranking, eq(ranking.id, rankingPart.rankingId))
      .where(
        and(
          eq(ranking.state, 'running'),
          isNull(rankingPart.doneAt),
          sql`(${rankingPart.what} = 'models' or not exists (select from ${rankingPart} q
            where q.ranking_id = ${rankingPart.rankingId} and q.what = 'models' and q.done_at is null))`,
        ),
      )
      .orderBy(asc(rankingPart.position))
      .limit(1)
      .for('update', { of: rankingPart, skipLocked: true })
    if (!part) return null
    const result = await resultOf(db, part.part)
    await tx
      .update(rankingPart)
      .set({ doneAt: new Date(), worker: ME, result })
      .where(
        and(eq(rankingPart.rankingId, part.part.rankingId), eq(rankingPart.position, part.part.position)),
      )
    return part.part.rankingId
  })
  await finish(db)
  return worked !== null
}

/** A ranking without a part left is done, whoever did the last one. */
const finish = (db: Db): Promise<unknown> =>
  db
    .update(ranking)
    .set({ state: 'done', finishedAt: new Date() })
    .where(
      and(
        eq(ranking.state, 'running'),
        sql`not exists (select from ${rankingPart} p where p.ranking_id = ${ranking.id} and p.done_at is null)`,
      ),
    )

/** Works at parts until none is left to take, or `going` says no; how many it did. */
export async function workParts(db: Db, going: () => boolean = () => true): Promise<number> {
  let done = 0
  while (going() && (await workPart(db))) done++
  return done
}

async function resultOf(db: Db, part: Part): Promise<RankedTank | null> {
  if (part.what === 'models') {
    await workOutModels(db, part.subjects)
    return null
  }
  const [tankId = ''] = part.subjects
  const [row] = await db.select().from(tank).where(eq(tank.id, tankId))
  if (!row) return null
  const shelf = await shelfOf(db, part.rankingId)
  try {
    return rankTank(travelling(row) as Tank, shelf)
  } catch (error) {
    // A fault of ours in one tank must not keep the others, and would come again with every try.
    process.stderr.write(`ranking, tank ${tankId}: ${error instanceof Error ? error.stack : String(error)}\n`)
    return { ...NOTHING, options: [], tankId, problem: 'it could not be calculated' }
  }
}

async function workOutModels(db: Db, ids: readonly string[]): Promise<void> {
  const basis = await shelfBasis(db)
  const rows = await db
    .select({ row: model, entry: shelfEntry })
    .from(model)
    .innerJoin(shelfEntry, eq(shelfEntry.modelId, model.id))
    .where(and(inArray(model.id, [...ids]), isNull(model.deletedAt)))
  const stale = rows.filter((r) => r.entry.workedFrom !== workedFrom(r.entry.revision, basis.key))
  await workOut(
    db,
    stale.map((r) => ({ row: r.row, revision: r.entry.revision })),
    basis,
  )
}

/** Candidates and rules that every tank of a ranking is held against. */
interface Shelf {
  readonly candidates: readonly Candidate[]
  readonly stock: readonly StockClass[]
  readonly rule: AdviceRule
}
let read: { readonly rankingId: string; readonly shelf: Shelf } | null = null

/** The shelf as a ranking reads it: once for all of its tanks that this worker does. */
async function shelfOf(db: Db, rankingId: string): Promise<Shelf> {
  if (read?.rankingId === rankingId) return read.shelf
  const basis = await shelfBasis(db)
  const rows = await db
    .select({ candidate: shelfEntry.candidate })
    .from(shelfEntry)
    .innerJoin(model, eq(model.id, shelfEntry.modelId))
    .where(and(isNull(model.deletedAt), isNotNull(shelfEntry.candidate)))
    .orderBy(asc(model.id))
  const house = houseOf(basis.rules, null)
  const shelf = {
    candidates: rows.flatMap((r) => r.candidate ?? []),
    stock: judgedClasses(basis.stock, house),
    rule: counterRule(house),
  }
  read = { rankingId, shelf }
  return shelf
}

const NOTHING = { will: 0, wont: 0 } as const

/** The shelf ranked for one tank, with how sure the first of it is. */
export function rankTank(t: Tank, { candidates, stock, rule }: Shelf): RankedTank {
  const none = { ...NOTHING, options: [], tankId: t.id }
  const own = stock.find((s) => s.id === t.stockClassId)
  if (!own) return { ...none, problem: 'its stock class was removed' }
  try {
    const list = advise({ tank: tankRecord(t, own), wishes: NO_WISHES, rule }, candidates)
    const will = list.filter((a) => standingOf(a) === 'will' || standingOf(a) === 'unknown')
    const shown = will.slice(0, KEPT)
    const drawn = ranked(
      shown.map((a) => a.measures),
      rule.weights,
    )
    return {
      tankId: t.id,
      will: will.length,
      wont: list.length - will.length,
      problem: null,
      options: shown.map((a, i) => {
        const d = drawn.options[i]
        return {
          id: a.id,
          name: a.name,
          score: a.score.score,
          low: d?.low ?? 0,
          high: d?.high ?? 1,
          best: d?.best ?? 0,
          carries: a.carries.value,
          uncertainty: a.carries.uncertainty ?? 0,
          priceMinor: a.price?.minor ?? null,
          currency: a.price?.currency ?? null,
        }
      }),
    }
  } catch (error) {
    if (error instanceof CoreError) return { ...none, problem: error.message }
    throw error
  }
}
