import { requireRange } from '../errors'
import { equalNormals, logDeviation, seeded } from '../statistics'
import { CRITERIA, type Criterion } from './criteria'

// Looked up once: some hosts make every look at a global slow.
const { exp, trunc } = Math

/**
 * One criterion of one option: a raw number x, how sure it is, and the ramp that makes a value of it: 0 at `zero`, 1 at
 * `one`, straight between and level beyond.
 */
export interface Measured {
  readonly raw: number
  /** Standard deviation: of x, or relative to it where it is drawn log-normal. */
  readonly own: number
  /** Relative standard deviation that all options share, because they hang on the same rule. */
  readonly common: number
  /** The rule they hang on: options of another do not share that doubt; one for all when absent. */
  readonly rule?: string
  /** Models that its own doubt is of: an option with one of them is wrong alike. Its own alone when absent. */
  readonly models?: readonly string[]
  readonly log: boolean
  readonly zero: number
  readonly one: number
}
/** The criteria of an option; null for what nobody knows, which is worth anything from 0 to 1. */
export type Measures = Readonly<Record<Criterion, Measured | null>>
export type Weights = Readonly<Record<Criterion, number>>

/** The value of a raw number on a ramp. */
export function valueOf(x: number, { zero, one }: Pick<Measured, 'zero' | 'one'>): number {
  return Math.min(1, Math.max(0, (x - zero) / (one - zero)))
}

/** Score of what nobody knows: half. */
export const UNKNOWN = 0.5
const valueNow = (m: Measured | null): number => (m ? valueOf(m.raw, m) : UNKNOWN)

/** A score, and how much of it each criterion brings. */
export interface Score {
  readonly score: number
  readonly parts: readonly {
    readonly criterion: Criterion
    readonly weight: number
    readonly value: number | null
    readonly brings: number
  }[]
}

/** Score of an option from 0 to 1: Σ w v ÷ Σ w. Source: additive multi-attribute value function (Keeney and Raiffa). */
export function scoreOf(measures: Measures, weights: Weights): Score {
  const all = CRITERIA.reduce((sum, c) => sum + weights[c], 0)
  const parts = CRITERIA.map((criterion) => {
    const m = measures[criterion]
    const weight = all > 0 ? weights[criterion] / all : 1 / CRITERIA.length
    return { criterion, weight, value: m && valueOf(m.raw, m), brings: weight * valueNow(m) }
  })
  return { score: parts.reduce((sum, p) => sum + p.brings, 0), parts }
}

/** How sure the scores of a set of options are. */
export interface Ranked {
  readonly draws: number
  readonly options: readonly {
    /** Score: 95 % of the draws, and their middle. */
    readonly low: number
    readonly middle: number
    readonly high: number
    /** Share of the draws in which it is best; among equals it is shared. */
    readonly best: number
    /** Ranks that hold in 95 % of the draws, 1 the best. */
    readonly rankLow: number
    readonly rankHigh: number
  }[]
}

/** Draws of a ranking. Source: JCGM 101 asks for about 10⁴ at 95 %. */
export const RANK_DRAWS = 10_000
/** Scores within so little of each other are equal: what rounding leaves. */
const TIE = 1e-12
/** Draws ranked between two looks at the clock. */
const BATCH = 1000

/** Draws that all options of a set share, worked out once for each doubt. */
class Shared {
  private readonly kept = new Map<string, Float64Array>()
  private readonly drawn = new Map<string, Float64Array>()
  /** Options that each model is in. */
  private readonly uses = new Map<string, number>()

  constructor(
    options: readonly Measures[],
    private readonly draw: () => Float64Array,
  ) {
    for (const o of options)
      for (const id of new Set(CRITERIA.flatMap((c) => o[c]?.models ?? [])))
        this.uses.set(id, (this.uses.get(id) ?? 0) + 1)
  }

  private normals(key: string): Float64Array {
    const made = this.drawn.get(key) ?? this.draw()
    this.drawn.set(key, made)
    return made
  }

  /** Of criterion i: factors exp(σ s) of a log-normal doubt of a rule, or r·s of a straight one. */
  of(i: number, { common, log, rule = '' }: Measured): Float64Array {
    const key = `${i} ${common} ${log} ${rule}`
    const made =
      this.kept.get(key) ??
      this.normals(`${i} ${rule}`).map((s) => (log ? exp(logDeviation(common) * s) : common * s))
    this.kept.set(key, made)
    return made
  }

  /** Its own standard normal numbers, of the models it is made of; null where no other option has any of them. */
  own(i: number, { models = [] }: Measured): Float64Array | null {
    if (models.every((id) => (this.uses.get(id) ?? 0) < 2)) return null
    const each = models.map((id) => this.normals(`${i} model ${id}`))
    const [first] = each
    if (!first || each.length === 1) return first ?? null
    return first.map((_, d) => each.reduce((sum, z) => sum + (z[d] as number), 0) / Math.sqrt(each.length))
  }
}

/** Adds weight × value of a criterion, drawn, to the scores of an option. `shared`: see {@link Shared}. */
function addDrawn(
  scores: Float64Array,
  m: Measured | null,
  weight: number,
  {
    shared,
    own: drawnOwn,
  }: { readonly shared: (m: Measured) => Float64Array; readonly own: Float64Array | null },
  uniform: () => number,
): void {
  const n = scores.length
  if (!m) {
    for (let d = 0; d < n; d++) scores[d] = (scores[d] as number) + weight * uniform()
    return
  }
  const { raw, log, zero, one, own } = m
  const numbers = equalNormals().map((z) => (log ? raw * exp(logDeviation(own) * z) : raw + own * z))
  const many = numbers.length
  const value = (x: number): number => {
    const v = (x - zero) / (one - zero)
    return weight * (v < 0 ? 0 : v > 1 ? 1 : v)
  }
  if (drawnOwn) {
    const together = m.common === 0 ? null : shared(m)
    const sd = log ? logDeviation(own) : own
    for (let d = 0; d < n; d++) {
      const z = drawnOwn[d] as number
      const x = log ? raw * exp(sd * z) : raw + own * z
      const s = together ? (together[d] as number) : log ? 1 : 0
      scores[d] = (scores[d] as number) + value(log ? x * s : x + raw * s)
    }
    return
  }
  if (m.common === 0) {
    const values = numbers.map(value)
    for (let d = 0; d < n; d++)
      scores[d] = (scores[d] as number) + (values[trunc(uniform() * many)] as number)
    return
  }
  const together = shared(m)
  for (let d = 0; d < n; d++) {
    const x = numbers[trunc(uniform() * many)] as number
    const s = together[d] as number
    scores[d] = (scores[d] as number) + value(log ? x * s : x + raw * s)
  }
}

/**
 * Scores drawn with all that is doubted: `n` draws, those of a rule that all share drawn once for all. Yields the share
 * done now and then, so that whoever runs it can show progress and stop.
 * Source: JCGM 101:2008, clauses 5 to 7.
 * @throws OutOfRange for `draws`, 10 to 1 000 000.
 */
export function* rankDraws(
  options: readonly Measures[],
  weights: Weights,
  n = RANK_DRAWS,
  seed = 4680,
): Generator<number, Ranked> {
  requireRange('draws', n, { min: 10, max: 1e6 })
  const all = CRITERIA.reduce((sum, c) => sum + weights[c], 0)
  const uniform = seeded(seed)
  const normals = equalNormals()
  const normal = (): number => normals[trunc(uniform() * normals.length)] as number
  const shared = new Shared(options, () => {
    const draws = new Float64Array(n)
    for (let i = 0; i < n; i++) draws[i] = normal()
    return draws
  })
  const scores: Float64Array[] = []
  for (const o of options) {
    const sum = new Float64Array(n)
    CRITERIA.forEach((c, i) => {
      const weight = all > 0 ? weights[c] / all : 0
      const m = o[c]
      const own = m && m.own > 0 ? shared.own(i, m) : null
      if (weight > 0) addDrawn(sum, m, weight, { shared: (x) => shared.of(i, x), own }, uniform)
    })
    scores.push(sum)
    yield (0.8 * scores.length) / options.length
  }
  const ranking = new Ranking(options.length)
  for (let d = 0; d < n; d++) {
    ranking.add(scores, d)
    if ((d + 1) % BATCH === 0) yield 0.8 + (0.2 * (d + 1)) / n
  }
  return {
    draws: n,
    options: options.map((_, o) => {
      const sorted = (scores[o] as Float64Array).sort()
      const at = (p: number): number => sorted[Math.min(n - 1, Math.max(0, Math.ceil(p * n) - 1))] ?? NaN
      const [rankLow, rankHigh] = rankEnds(ranking.counts[o] as Int32Array, n)
      return {
        low: at(0.025),
        middle: at(0.5),
        high: at(0.975),
        best: (ranking.best[o] as number) / n,
        rankLow,
        rankHigh,
      }
    }),
  }
}

/** Counts ranks draw by draw; equals share the better one, and a first place among them. */
class Ranking {
  readonly counts: readonly Int32Array[]
  readonly best: Float64Array
  /** Options from best to worst in the draw before: the next one is nearly in that order. */
  private readonly order: Int32Array
  private readonly row: Float64Array

  constructor(private readonly many: number) {
    this.counts = Array.from({ length: many }, () => new Int32Array(many + 1))
    this.best = new Float64Array(many)
    this.order = Int32Array.from({ length: many }, (_, i) => i)
    this.row = new Float64Array(many)
  }

  add(scores: readonly Float64Array[], draw: number): void {
    const { many, order, row, counts, best } = this
    for (let o = 0; o < many; o++) row[o] = (scores[o] as Float64Array)[draw] as number
    for (let i = 1; i < many; i++) {
      const own = order[i] as number
      const v = row[own] as number
      let j = i - 1
      for (; j >= 0 && (row[order[j] as number] as number) < v; j--) order[j + 1] = order[j] as number
      order[j + 1] = own
    }
    let rank = 1
    let first = 0
    for (let i = 0; i < many; i++) {
      const own = order[i] as number
      const before = order[i - 1]
      if (before === undefined || (row[before] as number) - (row[own] as number) > TIE) rank = i + 1
      const mine = counts[own] as Int32Array
      mine[rank] = (mine[rank] as number) + 1
      if (rank === 1) first++
    }
    for (let i = 0; i < first; i++) {
      const own = order[i] as number
      best[own] = (best[own] as number) + 1 / first
    }
  }
}

/** The shortest ends that leave out no more than 2.5 % of the draws on either side. */
function rankEnds(counts: Int32Array, n: number): readonly [low: number, high: number] {
  const end = (list: readonly number[]): number => {
    let seen = 0
    for (const rank of list) {
      seen += counts[rank] ?? 0
      if (seen > 0.025 * n) return rank
    }
    return list.at(-1) ?? 1
  }
  const up = Array.from({ length: counts.length - 1 }, (_, i) => i + 1)
  return [end(up), end([...up].reverse())]
}

/** All draws at once. See {@link rankDraws}. */
export function ranked(options: readonly Measures[], weights: Weights, n?: number, seed?: number): Ranked {
  const run = rankDraws(options, weights, n, seed)
  for (;;) {
    const step = run.next()
    if (step.done) return step.value
  }
}

/** The weight of one criterion, the others left as they are, at which a second option draws level with the first. */
export interface Overtaking {
  readonly criterion: Criterion
  readonly from: number
  readonly to: number
}

/**
 * Switching weights: for each criterion the weight at which b overtakes a, w' = Σ_{j≠c} w_j (a_j − b_j) ÷
 * (b_c − a_c), where there is one; the smallest change first.
 */
export function overtaking(a: Measures, b: Measures, weights: Weights): readonly Overtaking[] {
  const apart = (c: Criterion): number => valueNow(a[c]) - valueNow(b[c])
  const lead = CRITERIA.reduce((sum, c) => sum + weights[c] * apart(c), 0)
  return CRITERIA.flatMap((criterion): Overtaking[] => {
    const own = -apart(criterion)
    if (Math.abs(own) < 1e-9) return []
    const to = (lead + weights[criterion] * own) / own
    return to >= 0 && Number.isFinite(to) ? [{ criterion, from: weights[criterion], to }] : []
  }).sort((x, y) => Math.abs(x.to - x.from) - Math.abs(y.to - y.from))
}

/** Swing weight of one criterion, worst to best, beside the most important one’s, which is worth 100. */
export interface SwingAnswer {
  readonly criterion: Criterion
  readonly worth: number
}

/**
 * Weights by swings, adding up to 100: w_c = worth_c ÷ Σ worth. Those nobody was asked about weigh nothing.
 * Source: von Winterfeldt and Edwards, Decision Analysis and Behavioral Research, ch. 8 (from memory).
 */
export function swingWeights(first: Criterion, others: readonly SwingAnswer[]): Weights {
  const worth = new Map<Criterion, number>([
    [first, 100],
    ...others.map((o) => [o.criterion, o.worth] as const),
  ])
  const all = [...worth.values()].reduce((sum, v) => sum + v, 0)
  return Object.fromEntries(CRITERIA.map((c) => [c, ((worth.get(c) ?? 0) / all) * 100])) as unknown as Weights
}
