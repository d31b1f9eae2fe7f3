import { sum } from 'simple-statistics'
import { LONGEST_RUN, SHORTEST_RUN } from './shape'
import { OutOfRange, requireRange, TooFew } from '../errors'
import { effectiveFreedom, expanded, grubbsCritical, studentQuantile, summary } from '../statistics'

/** One timed run: vessel volume V (m³) and time t (s). */
export interface VesselRun {
  readonly volume: number
  readonly seconds: number
}

/** Instruments of a run: standard uncertainties of vessel (share of its volume), and of one press of the button (s). */
export interface TimingMethod {
  /** Relative standard uncertainty of the vessel's volume, the same in every run. */
  readonly vessel: number
  /** Resolution of the clock (s); taken as rectangular. */
  readonly resolution: number
  /** Standard uncertainty of the average reaction at start or at stop (s), the same in every run. */
  readonly reaction: number
  /** Relative scatter of one run (standard) as other runs have shown it, and the degrees of freedom it stands on. */
  readonly repeatability?: number
  /** Known for sure when absent. */
  readonly freedom?: number
}

/**
 * Scatter of one run by hand where the bench has shown none of its own (share, standard). Common practice, no source.
 */
export const USUAL_REPEATABILITY = 0.02
/** Hands differ: as many degrees of freedom as the usual scatter is worth. Common practice, no source. */
export const USUAL_FREEDOM = 4

/** A marked bucket, a phone, a thumb (common practice, no source). */
export const BUCKET_AND_STOPWATCH: TimingMethod = { vessel: 0.01, resolution: 0.01, reaction: 0.05 }

/** Flow from timed runs, with every part of its uncertainty. Flows in m³/s; u are standard, U expanded to 95 %. */
export interface FlowResult {
  readonly n: number
  readonly mean: number
  readonly deviation: number
  readonly flows: readonly number[]
  readonly typeA: number
  readonly typeB: { readonly vessel: number; readonly timing: number; readonly reaction: number }
  readonly standardUncertainty: number
  readonly effectiveDegreesOfFreedom: number
  readonly coverageFactor: number
  readonly expandedUncertainty: number
  readonly interval: readonly [number, number]
  /** Index of the run that Grubbs' test points at, or null. It is flagged, never taken out. */
  readonly suspect: { readonly index: number; readonly statistic: number; readonly critical: number } | null
}

const check = (runs: readonly VesselRun[]): void =>
  runs.forEach((r, i) => {
    // Nothing at all is a reading too: a blocked filter.
    requireRange(`runs[${i}].volume`, r.volume, { min: 0, unit: 'm³' })
    if (!(r.seconds >= SHORTEST_RUN) || !Number.isFinite(r.seconds))
      throw new OutOfRange(`runs[${i}].seconds`, r.seconds, {
        words: `at least ${SHORTEST_RUN} s; a shorter run cannot be timed by hand`,
      })
    requireRange(`runs[${i}].seconds`, r.seconds, { max: LONGEST_RUN, unit: 's' })
  })

/**
 * Flow from vessel-and-stopwatch runs: Q = mean of Vᵢ/tᵢ, type A from the scatter, type B from vessel, clock and
 * reaction, combined in quadrature; coverage factor from the effective degrees of freedom.
 *
 * Source: GUM, JCGM 100:2008, 4.2 (type A), 4.3 (type B), 5.1 (combined), G.4 (Welch–Satterthwaite); outlier flag
 * after Grubbs 1969. Vessel and reaction are common to all runs, so averaging does not shrink them.
 * Where the scatter of other runs is known it is pooled with that of these, s² = [ν₀ s₀² + (n − 1) s²]/(ν₀ + n − 1):
 * two runs alone say too little of how runs scatter (GUM 4.2.4). One run shows none: it carries what is known, or the
 * usual.
 * @throws TooFew without runs; OutOfRange naming `runs[i].volume` or `runs[i].seconds`.
 */
export function flowFromRuns(
  runs: readonly VesselRun[],
  method: TimingMethod = BUCKET_AND_STOPWATCH,
): FlowResult {
  if (!runs.length) throw new TooFew('runs', 0, 1, 'There are no runs yet: time at least one.')
  check(runs)
  const flows = runs.map((r) => r.volume / r.seconds)
  const n = flows.length
  const { mean, deviation } = summary(flows)
  const scatter = scatterOfRuns(mean, { n, deviation }, method)
  const typeA = scatter.deviation / Math.sqrt(n)
  // ∂Q/∂t = −Q/t: averaged over the runs for what they share.
  const perSecond = runs.reduce((a, r) => a + r.volume / r.seconds ** 2, 0) / n
  const typeB = {
    vessel: mean * method.vessel,
    timing: (perSecond * method.resolution) / Math.sqrt(12) / Math.sqrt(n),
    reaction: perSecond * Math.SQRT2 * method.reaction,
  }
  const standard = Math.hypot(typeA, typeB.vessel, typeB.timing, typeB.reaction)
  const dof = effectiveFreedom(standard ** 2, [
    { variance: typeA ** 2, degreesOfFreedom: scatter.degreesOfFreedom },
  ])
  const k = studentQuantile(0.975, dof)
  return {
    n,
    mean,
    deviation,
    flows,
    typeA,
    typeB,
    standardUncertainty: standard,
    effectiveDegreesOfFreedom: dof,
    coverageFactor: k,
    expandedUncertainty: k * standard,
    interval: [mean - k * standard, mean + k * standard],
    suspect: suspectRun(flows, mean, deviation),
  }
}

/** Scatter of one run (m³/s) with its degrees of freedom: of these runs, pooled with what others have shown. */
function scatterOfRuns(
  mean: number,
  { n, deviation }: { readonly n: number; readonly deviation: number },
  { repeatability, freedom = Infinity }: TimingMethod,
): { readonly deviation: number; readonly degreesOfFreedom: number } {
  if (n === 1)
    return {
      deviation: mean * (repeatability ?? USUAL_REPEATABILITY),
      degreesOfFreedom: repeatability === undefined ? USUAL_FREEDOM : freedom,
    }
  if (repeatability === undefined || freedom === Infinity) return { deviation, degreesOfFreedom: n - 1 }
  const degreesOfFreedom = freedom + n - 1
  const squares = freedom * (mean * repeatability) ** 2 + (n - 1) * deviation ** 2
  return { deviation: Math.sqrt(squares / degreesOfFreedom), degreesOfFreedom }
}

/** Fewest degrees of freedom that a scatter pooled over trials stands on. */
const ENOUGH = 3

/**
 * Scatter of one run as a share of its flow (standard), pooled over trials, with its degrees of freedom; with `usual`
 * the usual one of a hand is among them. Null while too few runs show it. Source: pooled estimate of variance, GUM
 * (JCGM 100) 4.2.4 and H.5.
 */
export function pooledScatter(
  results: readonly FlowResult[],
  usual = false,
): { readonly relative: number; readonly degreesOfFreedom: number } | null {
  const known = usual ? USUAL_FREEDOM : 0
  const flowing = results.filter((r) => r.n > 1 && r.mean > 0)
  const degreesOfFreedom = known + sum(flowing.map((r) => r.n - 1))
  if (degreesOfFreedom < ENOUGH) return null
  const squares =
    known * USUAL_REPEATABILITY ** 2 + sum(flowing.map((r) => (r.n - 1) * (r.deviation / r.mean) ** 2))
  return { relative: Math.sqrt(squares / degreesOfFreedom), degreesOfFreedom }
}

function suspectRun(flows: readonly number[], mean: number, deviation: number): FlowResult['suspect'] {
  if (flows.length < 3 || deviation === 0) return null
  // Of three readings two of which are rounded to the same, the third stands as far off as it can, however near it is:
  // the test says nothing.
  if (flows.length === 3 && new Set(flows).size < 3) return null
  const index = flows.reduce(
    (far, q, i) => (Math.abs(q - mean) > Math.abs((flows[far] ?? mean) - mean) ? i : far),
    0,
  )
  const statistic = Math.abs((flows[index] ?? mean) - mean) / deviation
  const critical = grubbsCritical(flows.length)
  return statistic > critical ? { index, statistic, critical } : null
}

/** How many runs in all would bring the 95 % interval to ± `target` (a share of the mean). */
export type RunsNeeded =
  | { readonly possible: true; readonly total: number; readonly more: number }
  | { readonly possible: false; readonly floor: number }

/**
 * Runs still needed for a chosen relative precision, assuming the scatter stays as it is. Vessel and reaction set a
 * floor no number of runs gets below; then `possible` is false and `floor` says what can be had.
 * @throws TooFew below two runs: one run shows no scatter.
 */
export function runsNeeded(
  runs: readonly VesselRun[],
  target: number,
  method: TimingMethod = BUCKET_AND_STOPWATCH,
): RunsNeeded {
  requireRange('target', target, { min: 1e-4, max: 1 })
  if (runs.length < 2)
    throw new TooFew('runs', runs.length, 2, 'Time a second run first: one run shows no scatter.')
  const r = flowFromRuns(runs, method)
  const shared = Math.hypot(r.typeB.vessel, r.typeB.reaction)
  const floor = (studentQuantile(0.975, Infinity) * shared) / r.mean
  if (floor >= target) return { possible: false, floor }
  for (let n = 2; n <= 10000; n++) {
    const { deviation, degreesOfFreedom } = scatterOfRuns(r.mean, { n, deviation: r.deviation }, method)
    const typeA = deviation / Math.sqrt(n)
    const u = Math.hypot(typeA, shared, (r.typeB.timing * Math.sqrt(r.n)) / Math.sqrt(n))
    if (expanded(u ** 2, [{ variance: typeA ** 2, degreesOfFreedom }]) / r.mean <= target)
      return { possible: true, total: n, more: Math.max(0, n - r.n) }
  }
  return { possible: false, floor }
}
