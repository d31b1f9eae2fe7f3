import {
  houseOf,
  judgedClasses,
  keptFilter,
  modelRecord,
  tankRecord,
  type HouseRule,
  type Tank,
} from '@ypsometer/contract'
import { clogCase } from '@ypsometer/contract/clog'
import { feedDoubt } from '@ypsometer/core/clogging/tank'
import { CoreError } from '@ypsometer/core/errors/errors'
import { assess } from '@ypsometer/core/judging/assess'
import { UPKEEP_RULE } from '@ypsometer/core/upkeep/rule'
import type { KeptFilter } from '@ypsometer/core/upkeep/plan'
import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import { historyOf, observationsOf } from '@ypsometer/core/visits/history'
import type { CalcPool } from '../calc/pool'
import type { Db } from '../db/client'
import { model, shelfEntry, tank } from '../db/schema'
import { travelling } from '../http/rows'
import { ProblemError } from '../http/problems'
import { dossiers } from '../models/queries'
import { shelfBasis } from '../models/shelfEntries'

/** Longest that one forecast may take on a busy machine (ms): with many visits it is solved fourteen times. */
const LONGEST = 60_000
/** Forecasts kept, each under what it hangs on. */
const MOST_KEPT = 400
const kept = new Map<string, number | null>()

/** Every filter of every tank as its upkeep asks for it, and the house rule that holds. */
export async function keptFilters(
  db: Db,
  pool: CalcPool,
): Promise<{
  readonly house: HouseRule | undefined
  readonly tanks: readonly Tank[]
  readonly filters: readonly KeptFilter[]
}> {
  const basis = await shelfBasis(db)
  const house = houseOf(basis.rules, null)
  const rows = await db
    .select()
    .from(tank)
    .where(isNull(tank.deletedAt))
    .orderBy(asc(tank.place), asc(tank.name))
  const tanks = rows.map((r) => travelling(r) as Tank)
  const ids = [...new Set(tanks.flatMap((t) => t.filters.flatMap((f) => f.modelId ?? [])))]
  const shelf = ids.length
    ? await db
        .select({ row: model, entry: shelfEntry })
        .from(model)
        .innerJoin(shelfEntry, eq(shelfEntry.modelId, model.id))
        .where(and(inArray(model.id, ids), isNull(model.deletedAt)))
    : []
  const byId = new Map(shelf.map((s) => [s.row.id, s]))
  const by: ForecastBy = {
    basis,
    stock: judgedClasses(basis.stock, house),
    dueAt: 1 - (house?.upkeep.fall ?? UPKEEP_RULE.fall),
    pool,
  }
  const filters: KeptFilter[] = []
  for (const t of tanks)
    for (const f of t.filters) {
      const own = f.modelId ? byId.get(f.modelId) : undefined
      const days =
        house?.upkeep.by === 'flow' && own
          ? await dueIn(db, own, { tank: t, fill: f.fill, came: f.since }, by)
          : null
      const k = keptFilter(t, f, own?.entry.candidate ?? null, days)
      // One that is still to be worked out has its name, and what its kind asks for.
      if (k) filters.push(own ? { ...k, label: own.row.name } : k)
      else if (own)
        filters.push({ ...unknown(own.row), id: f.id, tankId: t.id, since: f.since, forecast: days })
    }
  return { house, tanks, filters }
}

/** A model that has not been worked out yet: what its kind alone asks for. */
const unknown = ({
  name,
  kind,
}: OnShelf['row']): Pick<KeptFilter, 'label' | 'kind' | 'media' | 'prefilter' | 'lamp'> => ({
  label: name,
  kind,
  media: [],
  prefilter: false,
  lamp: false,
})

/** Inputs of a forecast besides the model and the tank. */
interface ForecastBy {
  readonly basis: Awaited<ReturnType<typeof shelfBasis>>
  readonly stock: ReturnType<typeof judgedClasses>
  readonly dueAt: number
  readonly pool: CalcPool
}
interface On {
  readonly tank: Tank
  readonly fill: Tank['filters'][number]['fill']
  readonly came: string | null
}
interface OnShelf {
  readonly row: typeof model.$inferSelect
  readonly entry: typeof shelfEntry.$inferSelect
}

/** As {@link forecastDays}, kept under what it hangs on. */
async function dueIn(db: Db, { row, entry }: OnShelf, on: On, by: ForecastBy): Promise<number | null> {
  const key = [row.id, entry.revision, by.basis.key, by.dueAt, on.tank.id, on.tank.version, on.fill].join()
  const known = kept.get(key)
  if (known !== undefined) return known
  if (kept.size >= MOST_KEPT) kept.clear()
  const value = await forecastDays(db, row, on, by)
  // What could not be worked out just now is tried again when it is asked for.
  if (value === undefined) return null
  kept.set(key, value)
  return value
}

/**
 * Days until a model on a tank is due by its forecast; null where it cannot be forecast, or not within a year;
 * undefined where there was no time for it.
 */
async function forecastDays(
  db: Db,
  row: OnShelf['row'],
  { tank: t, fill: which, came }: On,
  { basis, stock, dueAt, pool }: ForecastBy,
): Promise<number | null | undefined> {
  const [d] = await dossiers(db, [row])
  const own = stock.find((s) => s.id === t.stockClassId)
  const fill =
    d?.fills.findLast((f) => f.basis === which) ?? d?.fills.findLast((f) => f.basis === 'as-shipped')
  if (!d || !own || !fill) return null
  try {
    const a = assess(modelRecord(d, basis.media), { stockClasses: stock, bias: basis.bias })
    const record = tankRecord(t, own)
    const c = clogCase(d, basis.media, a, { tank: record, fillId: fill.id })
    if (!c) return null
    // What was seen here with this fill, since it came; the layers are named as the fill names them.
    const here = d.visits.filter((v) => v.tankId === t.id && (v.fillId ?? fill.id) === fill.id)
    const { seen, services } = observationsOf(historyOf(here, came), fill.layers)
    const of = { ...c, services: services.filter((s) => s.day <= c.days) }
    const answer = await pool.run('upkeep-due', { of, feed: feedDoubt(record), seen, dueAt }, LONGEST)
    return typeof (answer as { day?: unknown }).day === 'number' ? (answer as { day: number }).day : null
  } catch (error) {
    if (error instanceof CoreError) return null
    if (error instanceof ProblemError) return undefined
    throw error
  }
}
