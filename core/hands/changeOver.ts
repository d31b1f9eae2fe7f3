import { KIT_ZERO, RIPENESS, simulate, type Scenario, type Simulation } from '../biology'
import { NINETY_FIVE } from '../statistics'
import { posterior, type Belief } from '../clogging/learn'
import { dayAfter, daysBetween, type Day } from '../days'
import { TooFew } from '../errors'
import { put, type Figure } from '../figures'
import type { ChangeWay } from './vocabulary'
import {
  MOST_WEEKS,
  type ChangePlan,
  type ChangeSubject,
  type ChangeTest,
  changeSentences,
  SOURCE,
  changeSteps,
  WEEK,
} from './changeWords'

/** Watched so long after the last step (days). */
const AFTER = 28
const RIPENING = 60

/**
 * Standard deviation of the logarithm of how fast films grow against the constants: 95 % within a factor of two. Ours;
 * the constants are of activated sludge, and films differ from tank to tank.
 */
const PACE_SD = Math.log(2) / NINETY_FIVE
/** Paces the water is worked out at, in prior standard deviations. */
const PACES = [-4, -3, -2, -1.5, -1, -0.5, 0, 0.5, 1, 1.5, 2, 3, 4] as const
/** Floor of the doubt of the water, besides the kit (relative standard uncertainty; ours). */
const MODEL = 0.25
/** A kit is read to half of its first step either way: as a rectangle, GUM 4.3.7. */
const KIT = KIT_ZERO / Math.sqrt(3)

/** A change-over as a story of the tank, with the old filter taken out after so many weeks. */
export function changeStory(c: ChangeSubject, weeks: number, pace: number): Scenario {
  const stay = c.stay.map((films, i) => ({ id: `stay-${i}`, films, ripe: 1 }))
  const common = { keeping: c.keeping, happenings: [], pace }
  const next = (ripe: number): Scenario['filters'][number] => ({ id: 'next', films: c.next, ripe })
  switch (c.way) {
    case 'beside':
      return {
        ...common,
        filters: [...(c.old ? [{ id: 'old', films: c.old, ripe: 1 }] : []), next(0), ...stay],
        happenings: c.old ? [{ day: weeks * WEEK, what: 'take-out', filter: 'old' }] : [],
        days: weeks * WEEK + AFTER,
      }
    case 'moved':
      return { ...common, filters: [next(c.share), ...stay], days: RIPENING }
    case 'starter':
      return { ...common, filters: [next(RIPENESS.starter), ...stay], days: RIPENING }
  }
}

/** Peaks of ammonia and nitrite from a day on stay within what a kit reads as zero. */
const quiet = (told: Simulation, from: number): boolean =>
  told.points.every((p) => p.day < from || (p.ammonia <= KIT_ZERO && p.nitrite <= KIT_ZERO))

/** Fewest whole weeks beside each other after which nothing shows when the old one goes; null: not within 26. */
export function leastWeeks(c: ChangeSubject, pace: number): number | null {
  const fits = (weeks: number): boolean =>
    quiet(simulate({ ...changeStory(c, weeks, pace), days: weeks * WEEK + AFTER }), weeks * WEEK)
  if (!fits(MOST_WEEKS)) return null
  let [low, high] = [0, MOST_WEEKS]
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2)
    if (fits(middle)) high = middle
    else low = middle
  }
  return high
}

const TESTED = ['ammonia', 'nitrite'] as const

/** Days after the start on which to test while something is ripening: often at first (common practice, no source). */
const TEST_DAYS: Readonly<Record<ChangeWay, readonly number[]>> = {
  beside: [0],
  moved: [1, 2, 4, 7, 10, 14, 21, 28],
  starter: [1, 2, 4, 6, 8, 10, 14, 18, 22, 28, 35, 42],
}

/** Tests while both filters stay on, as long as it does not hold alone: weekly. */
const WEEKLY: readonly number[] = Array.from({ length: 8 }, (_, i) => (i + 1) * WEEK)

/** Days after the old one is taken off on which to test. */
const AFTER_DAYS = [1, 3, 7, 14] as const

/** The water of a story on a day, by a straight line between its points, before what happens on that day. */
function waterOn({ points }: Simulation, day: number, what: (typeof TESTED)[number]): number {
  const after = points.findIndex((p) => p.day >= day)
  const [a, b] = [points[Math.max(0, after - 1)], points[after < 0 ? points.length - 1 : after]]
  if (!a || !b) return 0
  const t = b.day > a.day ? Math.min(1, (day - a.day) / (b.day - a.day)) : 0
  return (1 - t) * a[what] + t * b[what]
}

/** Tests that tell something: made on or after the first day, and within the story. */
const telling = (began: Day, tests: readonly ChangeTest[], days: number) =>
  tests.flatMap((t) => {
    const day = daysBetween(began, t.on)
    if (day <= 0 || day > days) return []
    return TESTED.flatMap((what) => {
      const value = t[what]
      // A kit and the model scatter by what is there, not by what was read.
      const uncertainty = (is: number): number => Math.hypot(KIT, MODEL * is)
      return value === null ? [] : [{ day, what, value, uncertainty }]
    })
  })

/**
 * How fast this tank’s films grow, learnt from tests: one unknown, the pace, log-normal; the water is worked out at 13
 * paces with straight lines between; Bayes’ rule on a fine grid, as {@link posterior}.
 */
function learnPace(c: ChangeSubject, weeks: number, began: Day, tests: readonly ChangeTest[]): Belief {
  const prior: Belief = { mean: 0, sd: PACE_SD, low: -NINETY_FIVE * PACE_SD, high: NINETY_FIVE * PACE_SD }
  const { days } = changeStory(c, weeks, 1)
  const seen = telling(began, tests, days)
  if (!seen.length) return prior
  const until = Math.max(...seen.map((s) => s.day))
  const at = PACES.map((p) => {
    const x = p * PACE_SD
    const told = simulate({ ...changeStory(c, weeks, Math.exp(x)), days: until })
    return { x, values: seen.map((s) => waterOn(told, s.day, s.what)) }
  })
  const predicted = (x: number): readonly number[] => {
    const i = Math.min(
      at.length - 2,
      Math.max(
        0,
        at.findLastIndex((r) => r.x <= x),
      ),
    )
    const [a, b] = [at[i], at[i + 1]]
    if (!a || !b) throw new TooFew('paces', at.length, 2, 'Two paces span a line.')
    const t = (x - a.x) / (b.x - a.x)
    return seen.map((_, j) => (1 - t) * (a.values[j] ?? 0) + t * (b.values[j] ?? 0))
  }
  return posterior(prior, predicted, seen)
}

/**
 * The plan of a change-over begun on a day: its steps with dates, the tests to take with what the balance predicts for
 * each, and where the tests made so far have moved it.
 * @throws OutOfRange for a field of the keeping.
 */
export function planChange(c: ChangeSubject, began: Day, made: readonly ChangeTest[]): ChangePlan {
  const beside = c.way === 'beside' && c.old !== null
  const weeksAt = (pace: number): ChangePlan['weeks'] => {
    if (!beside) return null
    const least = leastWeeks(c, pace)
    return { agreed: c.weeks, least, planned: Math.max(c.weeks, least ?? c.weeks) }
  }
  const first = weeksAt(1)
  const belief = learnPace(c, first?.planned ?? c.weeks, began, made)
  const learnt = belief.mean !== 0
  const pace = Math.exp(belief.mean)
  const weeks = learnt ? weeksAt(pace) : first
  const run = (w: ChangePlan['weeks'], p: number): Simulation =>
    simulate(changeStory(c, w?.planned ?? c.weeks, p))
  const asShipped = run(first, 1)
  const told = learnt ? run(weeks, pace) : asShipped
  const fast = run(weeks, Math.exp(belief.high))
  const slow = run(weeks, Math.exp(belief.low))
  // Where the new one never comes to do it alone, the old one stays: no day is set to take it off.
  const stays = beside && weeks?.least === null
  const off = weeks && !stays ? weeks.planned * WEEK : null
  // Not over before the old one is off.
  const end = (t: Simulation, w: ChangePlan['weeks']): number | null =>
    t.safeFrom === null ? null : Math.max(Math.ceil(t.safeFrom), w ? w.planned * WEEK : 0)
  const on = (t: Simulation): Day | null => {
    const day = stays ? null : end(t, weeks)
    return day === null ? null : dayAfter(began, day)
  }
  const [now, before] = [end(told, weeks), end(asShipped, first)]
  const moved = now === null || before === null ? null : now - before
  const bandOn = (day: number, what: (typeof TESTED)[number]): number => {
    const [a, b] = [waterOn(fast, day, what), waterOn(slow, day, what)]
    return Math.abs(a - b) / 2
  }
  const predict = (day: number, what: (typeof TESTED)[number]): Figure => {
    const value = waterOn(told, day, what)
    return {
      id: `predicted-${what}-${day}`,
      label: `${what === 'ammonia' ? 'Ammonia' : 'Nitrite'} on day ${day}, as N`,
      value,
      uncertainty: Math.hypot(bandOn(day, what), NINETY_FIVE * MODEL * value),
      dimension: 'concentration',
      provenance: 'computed',
      conditions: [`day ${day} of the filter swap`],
      formula: 'dx/dt = pace · x (μ S/(K + S) − b) + seeding;  uptake x · r_max S/(1.93 + S)',
      working: [
        put('pace', 'of growth, compared with the assumed', pace, 'ratio', learnt ? 'measured' : 'rule'),
      ],
      source: SOURCE,
    }
  }
  const days = testDays(c.way, off, told)
  const wanted = [...new Set([...days.map((d) => dayAfter(began, d)), ...made.map((t) => t.on)])].sort()
  return {
    told,
    asShipped,
    belief,
    weeks,
    steps: changeSteps(c, began, off, on(told), stays),
    tests: wanted.map((day) => {
      const n = Math.max(0, daysBetween(began, day))
      return {
        on: day,
        predicted: { ammonia: predict(n, 'ammonia'), nitrite: predict(n, 'nitrite') },
        made: made.find((t) => t.on === day) ?? null,
      }
    }),
    safe: { soonest: on(fast), middle: on(told), latest: on(slow) },
    moved,
    sentences: changeSentences(c, {
      told,
      belief,
      weeks,
      first,
      moved,
      learnt,
      slow,
      unlike: unlikeOf(told, began, made),
    }),
  }
}

/** A reading further than this from what is foretold, in its standard uncertainty, is of something else (ours). */
const UNLIKE = 3

/** Days of tests that the plan does not explain even at the pace they taught. */
function unlikeOf(told: Simulation, began: Day, made: readonly ChangeTest[]): readonly Day[] {
  const last = told.points.at(-1)?.day ?? 0
  const days = telling(began, made, last).flatMap(({ day, what, value }) => {
    const foretold = waterOn(told, day, what)
    return Math.abs(value - foretold) > UNLIKE * Math.hypot(KIT, MODEL * Math.max(value, foretold))
      ? [day]
      : []
  })
  return [...new Set(days)].map((d) => dayAfter(began, d))
}

/** Days on which to test, until a week after the water is safe. */
function testDays(way: ChangeWay, off: number | null, told: Simulation): readonly number[] {
  const last = told.safeFrom === null ? Infinity : Math.max(off ?? 0, told.safeFrom) + WEEK
  const all =
    off === null
      ? way === 'beside'
        ? WEEKLY
        : TEST_DAYS[way]
      : [0, Math.max(1, off - 1), ...AFTER_DAYS.map((d) => off + d)]
  return all.filter((d, i) => i < 3 || d <= last || (off === null && way === 'beside'))
}
