import { FILTERS } from '../kinds'
import { isFillable, type FillLayer, type PlacedChamber } from '../fills'
import { countsForCapacity, isStraining, packVolume, type Medium } from '../media'
import { commonSchool, saidBy, type CapacitySchool, type StockClass } from '../tanks'
import type { ReachResult } from '../teardown/reach'
import { auditOrder, burden, type HouseRule, type OrderFinding } from './audit'
import type { PathCase } from './case'
import { outcomeOf, type Outcome } from './outcome'

/** What the search may use and must keep to. Flow in m³/s, money in minor units of the list’s currency. */
export interface FitLimits {
  readonly house: HouseRule
  readonly stock: StockClass
  readonly reaches?: readonly ReachResult[]
  /** Flow that must be left; what the fill may cost (null: anything). */
  readonly minFlow: number
  readonly maxCostMinor: number | null
  /** Media that may be used. */
  readonly media: readonly Medium[]
}

/** An arrangement with what it comes to; `broken` counts the limits it does not keep. */
export interface Candidate {
  readonly layers: readonly FillLayer[]
  readonly outcome: Outcome
  readonly findings: readonly OrderFinding[]
  readonly broken: number
}

/** The best arrangement found beside the one it started from, and how many were looked at. */
export interface FitResult {
  readonly start: Candidate
  readonly best: Candidate
  readonly tried: number
}

/** Findings that count as limits: faults, straining out of order, and the pad that gives a school its name. */
const isHard = (f: OrderFinding): boolean =>
  f.rule.severity === 'fault' || f.rule.id === 'coarse-to-fine' || f.rule.id === 'polish-last'

/** Tank (m³) an arrangement carries by a school: no more than its turnover reaches, whichever it is. */
const carried = ({ outcome: { capacity } }: Candidate, school: CapacitySchool | null): number =>
  Math.min((school && saidBy(capacity, school)) ?? capacity.volume, saidBy(capacity, 'turnover') ?? Infinity)

/** Works a candidate through; null when it cannot be (a gap too wide, nothing known of a medium). */
export function weighCandidate(
  c: PathCase,
  layers: readonly FillLayer[],
  limits: FitLimits,
): Candidate | null {
  try {
    const outcome = outcomeOf({ ...c, fill: { ...c.fill, layers } }, limits.stock, true)
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
 * flow.
 */
export function isBetter(a: Candidate, b: Candidate): boolean {
  if (a.broken !== b.broken) return a.broken < b.broken
  const school = commonSchool(a.outcome.capacity, b.outcome.capacity)
  const [ca, cb] = [carried(a, school), carried(b, school)]
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
  const first = start ?? (weighCandidate(c, [], limits) as Candidate)
  const room = base.topology.chambers.filter(
    (p) =>
      isFillable(p.chamber) &&
      p.chamber.role !== 'settling-void' &&
      p.way !== 'inward' &&
      !FILTERS[c.kind].mediaMove,
  )
  let best = first
  let tried = 0
  const consider = (layers: readonly FillLayer[]): void => {
    const candidate = weighCandidate(c, layers, limits)
    tried++
    if (candidate && isBetter(candidate, best)) best = candidate
  }
  const kept = c.fill.layers.filter((l) => !room.some((r) => r.chamber.id === l.chamberId))
  for (const plan of padPlans(room, limits))
    for (const medium of limits.media.filter(countsForCapacity))
      for (const counts of packCounts(room, plan, medium))
        consider([...kept, ...arrange(room, plan, medium, counts)])
  return { start: first, best, tried }
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
