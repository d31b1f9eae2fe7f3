import jstat from 'jstat'
import { FILM_BAND, KIT_ZERO, OWN_BAND } from '../biology'
import { daysBetween } from '../days'
import { capacityInput, capacityOf, ruleOf, type CapacitySchool } from '../tanks'
import { tankBalance } from './tankBalance'
import { feedBand, type TankRecord } from '../tanks/tankRecord'
import type { RunningFilter } from './together'

/** A water test of a tank on a day (kg/m³ as N); a conditioner that binds ammonia falsifies it. */
export interface WaterTest {
  readonly on: string
  readonly ammonia: number | null
  readonly nitrite: number | null
  readonly binder: boolean
}

/** Prediction of one school for a case: the chance that the tank holds. */
export interface Prediction {
  readonly school: CapacitySchool
  readonly chance: number
}

/** A tank on record as a case: what each school said of it, and what became of it. */
export interface TrialCase {
  readonly id: string
  readonly name: string
  readonly filters: readonly string[]
  readonly said: readonly Prediction[]
  /** Did ammonia and nitrite stay at what a kit reads as zero? */
  readonly held: boolean
  /** Tests that count, and the highest reading of each (kg/m³). */
  readonly tests: number
  readonly worst: { readonly ammonia: number; readonly nitrite: number }
}

/** Days until a filter has cycled: tests before say nothing of what it carries (common practice: six weeks). */
const CYCLED = 42
/** No school is ever surer than this: a tank fails for reasons no rule knows (ours). */
const OTHER_CAUSES = 0.03

const between = (p: number): number => Math.min(1 - OTHER_CAUSES, Math.max(OTHER_CAUSES, p))

/** Chance that a log-normal quantity of some half-width (relative, 95 %) is at least 1. */
const atLeastOne = (ratio: number, half: number): number =>
  ratio > 0 ? between(jstat.normal.cdf(Math.log(ratio) / Math.max(0.02, half / 2), 0, 1)) : OTHER_CAUSES

/** Predictions of the schools for a tank with its filters; one that is silent of a filter is silent of the tank. */
function saidOf(tank: TankRecord, running: readonly RunningFilter[]): readonly Prediction[] {
  const { order } = ruleOf(tank.stock)
  const all = running.map((r) => capacityOf(capacityInput(r.fill, r.claimedMax ?? null), tank.stock))
  return order.flatMap((school): Prediction[] => {
    // A floor says that it is too little, never that it is enough.
    if (school === 'turnover') return []
    if (school === 'balance') {
      const study = tankBalance(tank, ...running.map((r) => r.fill))
      if (!study || running.some((r) => !r.fill.films)) return []
      const { reserve, nitrogen } = study.balance
      const { mass } = running[0]?.fill ?? {}
      const media = mass && mass.value > 0 ? (mass.uncertainty ?? 0) / mass.value : 0
      const own = nitrogen.oxidised > 0 ? nitrogen.own / nitrogen.oxidised : 0
      const half = Math.hypot(FILM_BAND, feedBand(tank), media * (1 - own), OWN_BAND * own)
      return [{ school, chance: Number.isFinite(reserve) ? atLeastOne(reserve, half) : 1 - OTHER_CAUSES }]
    }
    const says = all.map((c) => c.schools.find((s) => s.school === school))
    let [volume, half] = [0, 0]
    for (const s of says) {
      if (!s?.interval || s.volume === null) return []
      volume += s.volume
      half += Math.max(s.volume - s.interval[0], s.interval[1] - s.volume)
    }
    return [
      { school, chance: volume > 0 ? atLeastOne(volume / tank.water.value, half / volume) : OTHER_CAUSES },
    ]
  })
}

/**
 * A tank with its filters and water tests as a case; null while nothing is fed, no filter is known, or no test counts.
 * Tests count once all filters have cycled and where nothing bound the ammonia.
 * @throws OutOfRange naming a field of the tank.
 */
export function trialCase(
  { id, tank }: { readonly id: string; readonly tank: TankRecord },
  running: readonly (RunningFilter & { readonly since: string | null })[],
  tests: readonly WaterTest[],
): TrialCase | null {
  const counted = tests.filter(
    (t) =>
      !t.binder &&
      (t.ammonia !== null || t.nitrite !== null) &&
      running.every((r) => r.since === null || daysBetween(r.since, t.on) >= CYCLED),
  )
  if (!running.length || !counted.length) return null
  const said = saidOf(tank, running)
  if (!said.length) return null
  const worst = {
    ammonia: Math.max(0, ...counted.map((t) => t.ammonia ?? 0)),
    nitrite: Math.max(0, ...counted.map((t) => t.nitrite ?? 0)),
  }
  return {
    id,
    name: tank.name,
    filters: running.map((r) => r.name),
    said,
    held: worst.ammonia <= KIT_ZERO && worst.nitrite <= KIT_ZERO,
    tests: counted.length,
    worst,
  }
}

/** How one school did over the cases it spoke of. */
export interface SchoolOnTrial {
  readonly school: CapacitySchool
  readonly cases: number
  /** Likelihood of what became of them, for each case (geometric mean): 0.5 is a coin. */
  readonly perCase: number
  /** Weight it would earn by Bayes from equal weights; 0 where it spoke of none. */
  readonly weight: number
  /** Of those it said would hold, how many did, with the 95 % interval of the share. */
  readonly said: number
  readonly held: number
  readonly calibration: readonly [low: number, high: number] | null
}

/** The schools on trial. */
export interface Trial {
  readonly cases: number
  /** Fewer than ten cases tell nothing. */
  readonly tooFew: boolean
  readonly schools: readonly SchoolOnTrial[]
}

/** Fewest cases that tell anything (common practice, no source). */
export const ENOUGH_CASES = 10

/** Interval of a share k of n (95 %). Source: Jeffreys’ prior, Brown, Cai and DasGupta, Stat. Sci. 16 (2001) 101. */
export const shareInterval = (k: number, n: number): readonly [number, number] => [
  k === 0 ? 0 : jstat.beta.inv(0.025, k + 0.5, n - k + 0.5),
  k === n ? 1 : jstat.beta.inv(0.975, k + 0.5, n - k + 0.5),
]

/**
 * Each school’s likelihood over the cases that all of them spoke of, its calibration, and the weight it would earn:
 * w ∝ Π p^held (1 − p)^(1 − held) from equal weights. Source: Bayes’ rule.
 */
export function onTrial(cases: readonly TrialCase[]): Trial {
  const schools = [...new Set(cases.flatMap((c) => c.said.map((s) => s.school)))]
  const chanceOf = (c: TrialCase, school: CapacitySchool): number | undefined =>
    c.said.find((s) => s.school === school)?.chance
  // Weights are held against each other on the same cases only.
  const common = cases.filter((c) => schools.every((s) => chanceOf(c, s) !== undefined))
  const logOf = (list: readonly TrialCase[], school: CapacitySchool): number =>
    list.reduce((sum, c) => {
      const p = chanceOf(c, school)
      return p === undefined ? sum : sum + Math.log(c.held ? p : 1 - p)
    }, 0)
  const logs = schools.map((s) => logOf(common, s))
  const most = Math.max(...logs)
  const all = logs.reduce((sum, l) => sum + Math.exp(l - most), 0)
  return {
    cases: cases.length,
    tooFew: cases.length < ENOUGH_CASES,
    schools: schools.map((school, i) => {
      const own = cases.filter((c) => chanceOf(c, school) !== undefined)
      const said = own.filter((c) => (chanceOf(c, school) ?? 0) > 0.5)
      const held = said.filter((c) => c.held).length
      return {
        school,
        cases: own.length,
        perCase: own.length ? Math.exp(logOf(own, school) / own.length) : 0,
        weight: Math.exp((logs[i] ?? 0) - most) / all,
        said: said.length,
        held,
        calibration: said.length ? shareInterval(held, said.length) : null,
      }
    }),
  }
}
