import { FILTERS } from '../kinds'
import { isFillable, type FillLayer, type PlacedChamber } from '../fills'
import { countsForCapacity, isStraining, packVolume, type Medium } from '../media'
import { volumeBySchool, type StockClass } from '../tanks'
import type { ReachResult } from '../teardown/reach'
import { auditOrder, burden, type HouseRule, type OrderFinding } from './audit'
import type { PathCase } from './case'
import { outcomeOf, type Outcome } from './outcome'

/** Limits of the search. Flow in m³/s, money in minor units of the list’s currency. */
export interface FitLimits {
  readonly house: HouseRule
  readonly stock: StockClass
  readonly reaches?: readonly ReachResult[]
  /** Flow that must be left; what the fill may cost (null: anything). */
  readonly minFlow: number
  readonly maxCostMinor: number | null
  /** Media that may be used. */
  readonly media: readonly Medium[]
  /** Forecast of an arrangement on the tank it is for; null where it cannot be told. Absent: judged clean. */
  readonly dirt?: ((layers: readonly FillLayer[]) => Dirtied | null) | undefined
}

/** Forecast of an arrangement: days until it is due (null: not within its run), dirt on its media. */
export interface Dirtied {
  readonly days: number | null
  readonly within: number
  readonly toMedia: number
}

/** An arrangement with what it comes to; `broken` counts the limits it does not keep. */
export interface FillArrangement {
  readonly layers: readonly FillLayer[]
  readonly outcome: Outcome
  readonly findings: readonly OrderFinding[]
  readonly broken: number
}

/**
 * The best arrangement found beside the one it started from, how many were looked at, and what the forecast says of the
 * best and of the start (null: it was not asked, or cannot say).
 */
export interface FitResult {
  readonly start: FillArrangement
  readonly best: FillArrangement
  readonly tried: number
  readonly dirt: { readonly best: Dirtied | null; readonly start: Dirtied | null }
}

/** Findings that count as limits: faults, straining out of order, and the pad that gives a school its name. */
const isHard = (f: OrderFinding): boolean =>
  f.rule.severity === 'fault' || f.rule.id === 'coarse-to-fine' || f.rule.id === 'polish-last'

/** Tank (m³) an arrangement carries: no more than its current feeds and its turnover reaches, whoever leads. */
const carried = ({ outcome: { capacity } }: FillArrangement): number =>
  Math.min(
    capacity.volume,
    volumeBySchool(capacity, 'balance') ?? Infinity,
    volumeBySchool(capacity, 'turnover') ?? Infinity,
  )

/** Days at which half of what an arrangement carries clean is thought worth it: a month (ours). */
const WORTH_A_MONTH = 30
/** How much is lost where all of the dirt comes to the media (ours). */
const LOST_TO_DIRT = 0.7

/**
 * Share of what an arrangement carries clean that it is worth with the dirt of its tank: T/(T + 30 d) for the days
 * until it is due, times 1 − 0.7 s for the share of the dirt that comes to the media. Ours: nothing in the trade
 * fixes it; that floss which clogs in two weeks is no gain, everybody says. It runs no longer than what strains
 * lives (days).
 */
export function worthDirty({ days, within, toMedia }: Dirtied, life = Infinity): number {
  const runs = Math.min(days ?? within, life)
  return (runs / (runs + WORTH_A_MONTH)) * (1 - LOST_TO_DIRT * toMedia)
}

/** Works a candidate through; null when it cannot be (a gap too wide, nothing known of a medium). */
export function weighCandidate(
  c: PathCase,
  layers: readonly FillLayer[],
  limits: FitLimits,
): FillArrangement | null {
  try {
    // Media that were weighed were those of the fill as it is: of another nothing has been weighed.
    const weighed = (layers === c.fill.layers && c.weighed) || null
    const outcome = outcomeOf({ ...c, weighed, fill: { ...c.fill, layers } }, limits.stock, true)
    const findings = auditOrder(outcome, limits.house, limits.reaches)
    const broken =
      findings.filter(isHard).length +
      (outcome.flow < limits.minFlow ? 1 : 0) +
      (limits.maxCostMinor !== null && outcome.cost.costMinor > limits.maxCostMinor ? 1 : 0)
    return { layers, outcome, findings, broken }
  } catch {
    return null
  }
}

/**
 * Is `a` better than `b`? Fewer limits broken, then more capacity, then lighter findings, then less cost, then more
 * flow. What each is worth dirty scales what it carries.
 */
export function isBetter(a: FillArrangement, b: FillArrangement, worthA = 1, worthB = 1): boolean {
  if (a.broken !== b.broken) return a.broken < b.broken
  const [ca, cb] = [worthA * carried(a), worthB * carried(b)]
  if (Math.abs(ca - cb) > 0.002 * Math.max(ca, cb)) return ca > cb
  const [ba, bb] = [burden(a.findings), burden(b.findings)]
  if (ba !== bb) return ba < bb
  const [pa, pb] = [a.outcome.cost.costMinor, b.outcome.cost.costMinor]
  if (pa !== pb) return pa < pb
  return a.outcome.flow > b.outcome.flow * 1.0001
}

/**
 * Fits media into the body: every set of pads the house rule’s order allows, every biological medium, every number of
 * whole packs in each chamber (all of them where there are few, else filled from the chamber of the largest area on,
 * which costs least head). The start is one of the candidates, so the result is never worse than it.
 */
export function fitFill(c: PathCase, limits: FitLimits): FitResult {
  const start = weighCandidate(c, c.fill.layers, limits)
  const base = outcomeOf({ ...c, fill: { ...c.fill, layers: [] } }, limits.stock, true)
  const first = start ?? (weighCandidate(c, [], limits) as FillArrangement)
  const room = base.topology.chambers.filter(
    (p) =>
      isFillable(p.chamber) &&
      p.chamber.role !== 'settling-void' &&
      p.way !== 'inward' &&
      !FILTERS[c.kind].mediaMove,
  )
  let tried = 0
  /** The better of two, the one from the fresh arrangement. */
  const over = (best: FillArrangement | null, layers: readonly FillLayer[]): FillArrangement | null => {
    const candidate = weighCandidate(c, layers, limits)
    tried++
    return candidate && (!best || isBetter(candidate, best)) ? candidate : best
  }
  const kept = c.fill.layers.filter((l) => !room.some((r) => r.chamber.id === l.chamberId))
  // Media made to be moved lie dead where nothing moves them.
  const media = limits.media.filter((m) => countsForCapacity(m) && m.form !== 'moving')
  // Dirt tells one set of pads from another: the best of each set is held against those of the others.
  const bests: FillArrangement[] = []
  for (const plan of padPlans(room, limits)) {
    let best: FillArrangement | null = null
    for (const medium of media)
      for (const counts of packCounts(room, plan, medium))
        best = over(best, [...kept, ...arrange(room, plan, medium, counts)])
    if (best) bests.push(best)
  }
  const of = (candidate: FillArrangement): Judged => {
    const dirt = limits.dirt?.(candidate.layers) ?? null
    return { candidate, dirt, worth: dirt ? worthDirty(dirt, lifeOf(candidate.layers, limits.media)) : 1 }
  }
  const began = of(first)
  let won = began
  // Only what keeps as many limits as the best of all can still win.
  const least = Math.min(first.broken, ...bests.map((b) => b.broken))
  for (const candidate of bests.filter((b) => b.broken === least)) {
    const next = of(candidate)
    if (isBetter(candidate, won.candidate, next.worth, won.worth)) won = next
  }
  return { start: first, best: won.candidate, tried, dirt: { best: won.dirt, start: began.dirt } }
}

/** Days until the first of what strains is to be renewed, as its media say. */
const lifeOf = (layers: readonly FillLayer[], media: readonly Medium[]): number =>
  Math.min(
    ...layers.flatMap((l) => {
      const m = media.find((x) => x.id === l.mediumId)
      return m && isStraining(m) && m.lifeDays ? [m.lifeDays] : []
    }),
  )

interface Judged {
  readonly candidate: FillArrangement
  readonly dirt: Dirtied | null
  readonly worth: number
}

/** Pads ahead of the media and after them, and the chemical media with their place. */
interface Plan {
  readonly ahead: readonly Medium[]
  readonly after: readonly Medium[]
}

const thin = (m: Medium): number => m.sheetThickness ?? 0.02

/** The sets of pads worth trying: none or one of each fineness, in the order of the school. */
function padPlans(room: readonly PlacedChamber[], { house, media }: FitLimits): readonly Plan[] {
  const pick = (job: Medium['job']): readonly (Medium | null)[] => [
    null,
    ...media.filter((m) => isStraining(m) && m.job === job && ['foam', 'pad', 'floss'].includes(m.form)),
  ]
  const plans: Plan[] = []
  for (const coarse of pick('coarse'))
    for (const medium of pick('medium'))
      for (const fine of pick('fine')) {
        const ahead = [coarse, medium].filter((m) => m !== null)
        const all = fine ? [...ahead, fine] : ahead
        plans.push({ ahead: all, after: [] })
        if (fine && house.school === 'polish-last') plans.push({ ahead, after: [fine] })
      }
  const deep = room.reduce((sum, r) => sum + r.length, 0)
  return plans.filter((p) => [...p.ahead, ...p.after].reduce((sum, m) => sum + thin(m), 0) < deep)
}

/** Length left for media in each chamber once the plan’s pads are in: from the first chamber on, from the last back. */
function padsIn(
  room: readonly PlacedChamber[],
  plan: Plan,
): { pads: Medium[][]; tops: Medium[][]; left: number[] } {
  const left = room.map((r) => r.length)
  const pads: Medium[][] = room.map(() => [])
  const tops: Medium[][] = room.map(() => [])
  let i = 0
  for (const m of plan.ahead) {
    while (i < room.length - 1 && (left[i] ?? 0) < thin(m)) i++
    pads[i]?.push(m)
    left[i] = (left[i] ?? 0) - thin(m)
  }
  for (const m of plan.after) {
    tops[room.length - 1]?.push(m)
    left[room.length - 1] = (left[room.length - 1] ?? 0) - thin(m)
  }
  return { pads, tops, left }
}

/** A chamber filled loose to its rim, in place of a number of packs. */
const LOOSE = -1

/** More combinations than this are not all tried. */
const ALL_TRIED = 256

/** Numbers of whole packs worth trying in each chamber, and each filled loose to its rim. */
function packCounts(
  room: readonly PlacedChamber[],
  plan: Plan,
  medium: Medium,
): readonly (readonly number[])[] {
  const { left, pads } = padsIn(room, plan)
  const pack = packVolume(medium)
  const lastPad = pads.findLastIndex((p) => p.length > 0)
  const options = room.map((r, i): readonly number[] => {
    if (i < lastPad || (left[i] ?? 0) < 0.005 || r.chamber.role === 'pre-filter') return [0]
    const most = pack ? Math.floor(((left[i] ?? 0) * r.area) / pack + 1e-9) : 0
    return [...Array.from({ length: most + 1 }, (_, k) => k), LOOSE]
  })
  if (options.reduce((product, o) => product * o.length, 1) <= ALL_TRIED)
    return options.reduce<number[][]>((lists, o) => lists.flatMap((l) => o.map((k) => [...l, k])), [[]])
  const counts = options.map(() => 0)
  const out: number[][] = [[...counts]]
  const order = room.map((_, i) => i).sort((a, b) => (room[b]?.area ?? 0) - (room[a]?.area ?? 0))
  for (const i of order)
    for (const k of (options[i] ?? []).slice(1)) {
      counts[i] = k
      out.push([...counts])
    }
  return out
}

function arrange(
  room: readonly PlacedChamber[],
  plan: Plan,
  medium: Medium,
  counts: readonly number[],
): readonly FillLayer[] {
  const { pads, tops, left } = padsIn(room, plan)
  const layer = (chamber: PlacedChamber, m: Medium, n: string, more: Partial<FillLayer>): FillLayer => ({
    id: `${chamber.chamber.id.slice(0, 8)}-${n}`,
    chamberId: chamber.chamber.id,
    mediumId: m.id,
    measure: 'height',
    amount: thin(m),
    bagged: false,
    gap: 0,
    crossed: true,
    sealed: false,
    fouled: 0,
    ...more,
  })
  return room.flatMap((r, i) => {
    const seal = (m: Medium): Partial<FillLayer> =>
      r.chamber.wallGap && m.job === 'fine' ? { sealed: true } : {}
    const n = counts[i] ?? 0
    return [
      ...(pads[i] ?? []).map((m, k) => layer(r, m, `p${k}`, seal(m))),
      ...(n > 0 ? [layer(r, medium, 'm', { measure: 'packs', amount: n })] : []),
      ...(n === LOOSE
        ? [layer(r, medium, 'm', { measure: 'height', amount: Math.floor((left[i] ?? 0) * 1000) / 1000 })]
        : []),
      ...(tops[i] ?? []).map((m, k) => layer(r, m, `t${k}`, seal(m))),
    ]
  })
}
