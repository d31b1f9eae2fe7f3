import { DAY, type Films } from '../biology'
import { showPercent } from '../units'
import { put, type Figure } from '../figures'
import { filmCounts, filmsOf, type Outcome } from '../path'
import type { School } from '../path/rules'
import { bySchool, withoutPrefilter, withPrefilter, type Arrangement } from './arrange'
import { CONSTANTS } from './constants'
import { forecast, type ClogCase, type ClogDay, type ClogRun, type Ledger } from './run'
import { answersOf, type ClogAnswers, type Learnt } from './study'
import { intakeId } from './waterways'

/** A layer of a forecast, as it is named. */
interface ForecastLayer {
  readonly id: string
  readonly label: string
  readonly chamberId: string | null
  readonly counts: boolean
}

/** A forecast without its machinery, as it travels between threads. */
export interface ForecastReport {
  readonly layers: readonly ForecastLayer[]
  readonly days: readonly ClogDay[]
  readonly answers: ClogAnswers
  readonly ledger: Ledger
}

export const reportOf = (run: ClogRun, dueAt?: number): ForecastReport => ({
  layers: run.waterways.layers.map(({ id, label, chamberId, counts }) => ({ id, label, chamberId, counts })),
  days: run.days,
  answers: answersOf(run, dueAt),
  ledger: run.ledger,
})

const SOURCE = 'Iwasaki 1937; Yao et al. 1971; Carman 1937; constants as listed'

export const inDays = (id: string, label: string, day: number, more: Partial<Figure>): Figure => ({
  id,
  label,
  value: day * DAY,
  dimension: 'time',
  unit: 'd',
  provenance: 'computed',
  source: SOURCE,
  ...more,
})

/** Why a filter is due, as a reader takes it; null where it is not. */
export function whyDue({ due, dueAt }: Pick<ClogAnswers, 'due' | 'dueAt'>): string | null {
  if (!due) return null
  return due.why === 'flow'
    ? `flow is down by ${showPercent(1 - dueAt)}`
    : 'it catches only half as much fine dirt'
}

/** Days until a filter is due at the middle, with the ends of its 95 % interval; null: not within the forecast. */
export interface DueFigures {
  readonly middle: Figure | null
  readonly soonest: Figure | null
  readonly latest: Figure | null
}

export function dueFigures(l: Pick<Learnt, 'due' | 'posterior' | 'seen'>, answers: ClogAnswers): DueFigures {
  const visits = l.seen.length === 1 ? 'one check-up' : `${l.seen.length} check-ups`
  const at = (id: keyof DueFigures, label: string, day: number | null, pace: number): Figure | null =>
    day === null
      ? null
      : inDays(`clog-due-${id}`, label, day, {
          conditions: [
            whyDue(answers) ?? 'due or not',
            l.seen.length ? `with ${visits}` : 'before any check-up',
          ],
          formula: 'first day with Q < a Q₀, or half of the capture lost',
          working: [
            put('a', 'flow at which clean (our choice)', answers.dueAt, 'ratio', 'rule'),
            put('θ', 'how fast it clogs, compared with the assumptions', Math.exp(pace), 'ratio', 'computed'),
          ],
        })
  return {
    middle: at('middle', 'Clean after', l.due.middle, l.posterior.mean),
    soonest: at('soonest', 'Clean after, at the earliest (95 %)', l.due.soonest, l.posterior.high),
    latest: at('latest', 'Clean after, at the latest (95 %)', l.due.latest, l.posterior.low),
  }
}

export const share = (id: string, label: string, value: number, more: Partial<Figure>): Figure => ({
  id,
  label,
  value,
  dimension: 'ratio',
  unit: '%',
  provenance: 'computed',
  source: SOURCE,
  ...more,
})

/** Share of the dirt caught that comes to rest in biological media. */
export const toMediaFigure = ({ answers, ledger }: ForecastReport): Figure =>
  share('clog-to-media', 'Dirt that reaches the bio media', answers.toMedia, {
    formula: 'caught in bio media ÷ caught in all',
    working: [put('made', 'solids made in the days of the forecast', ledger.made, 'mass', 'computed')],
  })

/** Share of the first flow that is left on a day. */
export const leftFigure = (run: ForecastReport, day: number): Figure => {
  const [first, then] = [run.days[0], run.days[Math.min(day, run.days.length - 1)]]
  return share(`clog-left-${day}`, `Flow left after ${day} days`, (then?.flow ?? 0) / (first?.flow || 1), {
    formula: 'Q(t) ÷ Q(0)',
    working: [
      put('Q(t)', `after ${day} days`, then?.flow ?? 0, 'flow', 'computed'),
      put('Q(0)', 'clean', first?.flow ?? 0, 'flow', 'computed'),
    ],
  })
}

/** Share of the water that goes round every straining layer. */
export const unstrainedFigure = (d: ClogDay): Figure =>
  share(`clog-past-${d.day}`, `Bypasses mechanical filtration after ${d.day} days`, d.unstrained, {
    formula: 'water through no mechanical layer ÷ all of it',
    working: [
      put('Q', 'flow of that day', d.flow, 'flow', 'computed'),
      put('c', 'caught of 100 to 250 µm in a pass', d.catches, 'ratio', 'computed'),
    ],
  })

/** Cloudiness: dirt finer than 100 µm in the water of the tank. */
export const hazeFigure = (d: ClogDay): Figure => ({
  id: `clog-haze-${d.day}`,
  label: 'Fine dirt in the water of the tank',
  value: d.haze,
  dimension: 'concentration',
  provenance: 'computed',
  conditions: [
    'finer than 100 µm; a milligram a litre is about one unit of turbidity (common practice, no source)',
  ],
  source: SOURCE,
})

/** Minutes of rinsing a pre-filter takes (common practice, no source: under three). */
const RINSE_MINUTES = 3
/** A pre-filter is rinsed each week (common practice, no source). */
const RINSE_DAYS = 7
/** Share of its dirt that a weekly rinse takes out (common practice, no source). */
const RINSED = 0.9
const YEAR = 365

/** Minutes of maintenance a year: so many openings, and a rinse a week where there is a pre-filter; null untimed. */
export function yearMinutes(a: ClogAnswers, minutesToOpen: number | null, prefilter: boolean): Figure | null {
  if (minutesToOpen === null) return null
  const openings = YEAR / Math.min(YEAR, a.due?.day ?? YEAR)
  const rinses = prefilter ? YEAR / RINSE_DAYS : 0
  const minutes = openings * minutesToOpen + rinses * RINSE_MINUTES
  return {
    id: 'clog-minutes',
    label: 'Minutes of maintenance a year',
    value: minutes,
    dimension: 'ratio',
    provenance: 'computed',
    formula: '365 ÷ days to cleaning · one opening + 52 · one rinse',
    working: [
      put('n', 'openings a year', openings, 'ratio', 'computed'),
      put('t', 'minutes of one opening, as timed', minutesToOpen, 'ratio', 'measured'),
      put('r', 'rinses a year', rinses, 'ratio', 'rule'),
      put('t_r', 'minutes of one', RINSE_MINUTES, 'ratio', 'rule'),
    ],
    source: 'rinses: common practice, no source',
  }
}

/** A school with a pre-filter and without: what becomes of the same media on the same tank. */
export interface SchoolSeason {
  readonly school: School
  readonly prefilter: boolean
  readonly run: ForecastReport
  readonly minutes: Figure | null
}

/**
 * The three schools with these media on this tank, each with a pre-filter that is rinsed weekly and without one. The
 * school that strains outside has no such choice.
 */
export function schoolSeasons(
  a: Arrangement,
  tank: Pick<ClogCase, 'tank' | 'days'>,
  minutesToOpen: number | null,
  dueAt?: number,
): readonly SchoolSeason[] {
  const each = (school: School, prefilter: boolean, arranged: Arrangement): SchoolSeason => {
    const rinsed = [
      ...arranged.intake.map((_, i) => intakeId(i)),
      ...arranged.path.fill.layers
        .filter((l) => arranged.path.chambers.find((c) => c.id === l.chamberId)?.role === 'pre-filter')
        .map((l) => l.id),
    ]
    const services = Array.from({ length: prefilter ? Math.floor(tank.days / RINSE_DAYS) : 0 }, (_, i) => ({
      day: RINSE_DAYS * (i + 1),
      layers: rinsed,
      share: RINSED,
    }))
    const run = reportOf(forecast({ ...tank, ...arranged, services }), dueAt)
    return { school, prefilter, run, minutes: yearMinutes(run.answers, minutesToOpen, prefilter) }
  }
  return [
    ...(['strain-first', 'polish-last'] as const).flatMap((school) => [
      each(school, false, bySchool(withoutPrefilter(a), school)),
      each(school, true, bySchool(withPrefilter(a), school)),
    ]),
    each('prefilter-low', true, bySchool(withoutPrefilter(a), 'prefilter-low')),
  ]
}

/** The films of a fill as they are on a day: less room where dirt lies, and the flows of that day. */
export function filmsOn(o: Outcome, run: ForecastReport, day: number): Films {
  const then = run.days[Math.min(day, run.days.length - 1)]
  const of = (id: string) => then?.layers[run.layers.findIndex((l) => l.id === id)]
  const dirty = {
    flow: then?.flow ?? o.flow,
    worth: o.worth,
    layers: o.layers.map((l) => {
      const at = of(l.placed.layer.id)
      const layer = { ...l.placed.layer, fouled: at?.full ?? l.placed.layer.fouled }
      return { counts: l.counts, placed: { ...l.placed, layer }, through: at?.through ?? l.through }
    }),
  }
  return filmsOf(dirty, true)
}

/** Usable surface of the media that is left on a day, against clean. */
export function surfaceLeft(o: Outcome, run: ForecastReport, day: number): Figure | null {
  if (!o.layers.some((l) => filmCounts(l.placed.medium))) return null
  const area = (f: Films): number => f.layers.reduce((sum, l) => sum + l.area, 0)
  const [now, clean] = [area(filmsOn(o, run, day)), area(filmsOn(o, run, 0))]
  return share(`clog-surface-${day}`, `Media surface left after ${day} days`, clean > 0 ? now / clean : 0, {
    formula: 'Σ a V (1 − σ/σ_max) ÷ clean',
    working: [
      put('A', `after ${day} days`, now, 'area', 'computed'),
      put('A₀', 'clean', clean, 'area', 'computed'),
    ],
  })
}

/** The constants of the forecast as a table: what is taken, within what factor, and why. */
export const constantsTable = Object.values(CONSTANTS)
