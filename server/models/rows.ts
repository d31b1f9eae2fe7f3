import type { CreatedOf, Layer, Segment } from '@ypsometer/contract'
import { logSummary } from '@ypsometer/core/bench/logs'
import { roughnessFits } from '@ypsometer/core/hydraulics/segments'
import { CLAIM_LIMITS, type ClaimQuantity } from '@ypsometer/core/trials/records'
import { readingProblem } from '@ypsometer/core/trials/readings'
import type { Limits } from '@ypsometer/core/bench/shape'
import { asc, eq, inArray } from 'drizzle-orm'
import { layer, segment } from '../db/schema'
import { fieldProblem } from '../http/problems'
import { asMoments, type Parts, type Specials, type Written } from '../http/rows'

/** A claim holds one thing: a number, words, or money. */
function checkClaim(row: Written<'claims'>): void {
  const held = [row.value, row.words, row.amountMinor].filter((v) => v !== null)
  if (!held.length) throw fieldProblem('value', 'a number, words or a price: a claim says something')
  const limits = CLAIM_LIMITS[row.quantity as ClaimQuantity] as Limits | undefined
  if (limits && row.value !== null && !(row.value >= limits.min && row.value <= limits.max))
    throw fieldProblem('value', `from ${limits.min} to ${limits.max} ${limits.unit}`)
  if (held.length > 1) throw fieldProblem('value', 'one of a number, words or a price, not several')
  if (row.amountMinor !== null && !row.currency)
    throw fieldProblem('currency', 'a three-letter currency code such as EUR')
}

function checkModel(row: Written<'models'>): void {
  if ('id' in row && row.kinId !== null && row.kinId === row.id)
    throw fieldProblem('kinId', 'another model than itself')
}

function checkPart(row: Written<'parts'>): void {
  if ((row.sparePriceMinor === null) !== (row.spareCurrency === null))
    throw fieldProblem('sparePriceMinor', 'an amount together with its currency, such as 4.90 EUR')
}

function checkBody({ emptyMass, fullMass }: Written<'bodies'>): void {
  if (emptyMass !== null && fullMass !== null && fullMass < emptyMass)
    throw fieldProblem('fullMass', 'no less than the empty weight')
}

/** A reading must hold what its kind is made of. */
export function checkReading(row: Written<'readings'>, at = ''): void {
  const wrong = readingProblem(row.kind, row)
  if (wrong) throw fieldProblem(`${at}${wrong.field}`, wrong.message)
}

/** A hose's wall must leave room for water: the core computes up to a fifth of the bore. */
function checkHookup({ segments = [] }: Written<'hookups'>): void {
  segments.forEach((s, i) => {
    if (s.kind === 'hose' && !roughnessFits(s))
      throw fieldProblem(`segments.${i}.roughness`, 'at most a fifth of the bore')
  })
}

/** A log's columns with what it comes down to. @throws OutOfRange naming `times[i]` or `values[i]`. */
export const logColumns = (l: CreatedOf<'logs'>) => ({
  ...asMoments('logs', l),
  ...logSummary(l.times, l.values),
})

const toColumns = (hookupId: string, s: Segment, position: number) => ({ hookupId, position, ...s })

const toSegment = (row: typeof segment.$inferSelect): Segment => {
  const { id, label } = row
  if (row.kind === 'hose')
    return {
      kind: 'hose',
      id,
      label,
      length: row.length ?? 0,
      diameter: row.diameter ?? 0,
      roughness: row.roughness ?? 0,
      ...(row.clear !== null && { clear: row.clear }),
    }
  if (row.kind === 'fitting')
    return {
      kind: 'fitting',
      id,
      label,
      lossCoefficient: row.lossCoefficient ?? 0,
      diameter: row.diameter ?? 0,
      count: row.count ?? 1,
      catalogue: row.catalogue,
    }
  return {
    kind: 'spray-bar',
    id,
    label,
    holes: row.holes ?? 1,
    holeDiameter: row.holeDiameter ?? 0,
    dischargeCoefficient: row.dischargeCoefficient ?? 0.62,
  }
}

/** Values by the id of what they belong to; what has none gets an empty list. */
function byOwner<R, V>(
  ids: readonly string[],
  rows: readonly R[],
  owner: (row: R) => string,
  value: (row: R) => V,
): ReadonlyMap<string, V[]> {
  const map = new Map(ids.map((id) => [id, [] as V[]]))
  for (const row of rows) map.get(owner(row))?.push(value(row))
  return map
}

/** The segments of a hookup, in flow order; replaced as a whole under the hookup's version. */
export const segments: Parts<'segments', readonly Segment[]> = {
  field: 'segments',
  replace: async (tx, id, list) => {
    await tx.delete(segment).where(eq(segment.hookupId, id))
    if (list.length) await tx.insert(segment).values(list.map((s, i) => toColumns(id, s, i)))
  },
  read: async (db, ids) => {
    const all = await db
      .select()
      .from(segment)
      .where(inArray(segment.hookupId, [...ids]))
      .orderBy(asc(segment.position))
    return byOwner(ids, all, (s) => s.hookupId, toSegment)
  },
}

/** The layers of a fill, in the order of the water; replaced as a whole under the fill's version. */
export const layers: Parts<'layers', readonly Layer[]> = {
  field: 'layers',
  replace: async (tx, id, list) => {
    await tx.delete(layer).where(eq(layer.fillId, id))
    if (list.length)
      await tx.insert(layer).values(list.map((l, position) => ({ ...l, fillId: id, position })))
  },
  read: async (db, ids) => {
    const all = await db
      .select()
      .from(layer)
      .where(inArray(layer.fillId, [...ids]))
      .orderBy(asc(layer.position))
    return byOwner(
      ids,
      all,
      (l) => l.fillId,
      ({ fillId: _fill, position: _position, ...own }) => own,
    )
  },
}

/** Specials of the rows of a dossier. */
export const DOSSIER_SPECIALS: Specials = {
  models: { check: checkModel },
  claims: { check: checkClaim },
  hookups: { parts: segments, check: checkHookup },
  fills: { parts: layers },
  readings: { check: checkReading },
  logs: { columns: logColumns },
  parts: { check: checkPart },
  bodies: { check: checkBody },
  photos: { madeElsewhere: true },
}
