import { DAY } from '../biology'
import {
  flowFromRuns,
  kaplanMeier,
  pooledScatter,
  USUAL_FREEDOM,
  USUAL_REPEATABILITY,
  type FlowResult,
  type Survival,
} from '../bench'
import { studentQuantile } from '../statistics'
import type { Seen, Service } from '../clogging'
import { daysBetween, dayAfter, dayText, type Day } from '../days'
import { put, inline, type Figure, type Sentence } from '../figures'
import { EVERYTHING, type CleanedIn, type TimedRun, type VisitRecord } from './record'

/** Runs that can be timed; what is half entered is left out. */
const timed = (runs: readonly TimedRun[]): FlowResult | null => {
  const whole = runs.filter((r) => r.volume > 0 && r.seconds > 0)
  return whole.length ? flowFromRuns(whole) : null
}

/** Flow timed at a visit, as it was found or after it was cleaned. */
export function visitFlow(
  v: Pick<VisitRecord, 'id' | 'on' | 'runsBefore' | 'runsAfter'>,
  when: 'before' | 'after',
): Figure | null {
  const runs = when === 'before' ? v.runsBefore : v.runsAfter
  const r = timed(runs)
  if (!r) return null
  return {
    id: `visit-${v.id}-${when}`,
    label: when === 'before' ? 'Flow as it was found' : 'Flow after cleaning',
    value: r.mean,
    uncertainty: r.expandedUncertainty,
    dimension: 'flow',
    provenance: 'measured',
    conditions: [dayText(v.on)],
    formula: 'Q = mean of V/t',
    working: runs.map((x, i) =>
      put(`V_${i + 1}/t_${i + 1}`, 'run', x.volume / x.seconds, 'flow', 'measured'),
    ),
    source: 'GUM, JCGM 100:2008',
  }
}

/** Visits of one unit in one tank, the earliest first, with the flow they are held against. */
export interface UnitHistory {
  readonly visits: readonly VisitRecord[]
  /** The first flow, clean: at setting up, else after the first cleaning. */
  readonly first: { readonly on: Day; readonly flow: FlowResult } | null
}

/** Visits in their order; those dated before the unit came are left out and named. */
export function historyOf(
  visits: readonly VisitRecord[],
  came: Day | null,
): UnitHistory & { readonly tooEarly: readonly VisitRecord[] } {
  const sorted = [...visits].sort((a, b) => a.on.localeCompare(b.on) || a.id.localeCompare(b.id))
  const tooEarly = came === null ? [] : sorted.filter((v) => v.on < came)
  const own = sorted.filter((v) => !tooEarly.includes(v))
  for (const v of own) {
    const flow = timed(v.runsAfter) ?? (v.stage === 'set-up' ? timed(v.runsBefore) : null)
    if (flow) return { visits: own, first: { on: v.on, flow }, tooEarly }
  }
  return { visits: own, first: null, tooEarly }
}

/**
 * Relative scatter of one run of this story, pooled over all its visits and the usual one of a hand, with its freedom.
 * Source: GUM 4.2.4.
 */
function scatterOf({ visits }: Pick<UnitHistory, 'visits'>): {
  readonly one: number
  readonly freedom: number
} {
  const flows = visits.flatMap((v) => [timed(v.runsBefore), timed(v.runsAfter)]).filter((r) => r !== null)
  const { relative = USUAL_REPEATABILITY, degreesOfFreedom = USUAL_FREEDOM } =
    pooledScatter(flows, true) ?? {}
  return { one: relative, freedom: degreesOfFreedom }
}

/**
 * Flow left as a share of the first, r = Q/Q₀ with u(r)/r = s √(1/n + 1/n₀), s the scatter of one run pooled over the
 * visits. The same vessel and hand made both, so what they share falls out. Source: GUM 4.2.4, 5.1 and 5.2.
 */
export function flowLeft(story: UnitHistory, v: VisitRecord): Figure | null {
  const now = timed(v.runsBefore)
  const { first } = story
  if (!now || !first || daysBetween(first.on, v.on) <= 0) return null
  const share = now.mean / first.flow.mean
  const { one, freedom } = scatterOf(story)
  return {
    id: `flow-left-${v.id}`,
    label: `Flow left after ${daysBetween(first.on, v.on)} days`,
    value: share,
    uncertainty: studentQuantile(0.975, freedom) * share * one * Math.sqrt(1 / now.n + 1 / first.flow.n),
    dimension: 'ratio',
    unit: '%',
    provenance: 'measured',
    conditions: [`found on ${dayText(v.on)}, first timed on ${dayText(first.on)}`],
    formula: 'r = Q/Q₀',
    working: [
      put('Q', 'as it was found', now.mean, 'flow', 'measured'),
      put('Q₀', 'clean', first.flow.mean, 'flow', 'measured'),
      put('s', 'scatter of one run, pooled over the check-ups', one, 'ratio', 'measured'),
    ],
    source: 'GUM, JCGM 100:2008, 4.2.4 and 5.1; what vessel and hand share falls out',
  }
}

/** Share of its dirt that a way of cleaning takes out (common practice, no source). */
const TAKES: Readonly<Record<CleanedIn, number>> = {
  'tank-water': 0.85,
  dechlorinated: 0.9,
  tap: 0.9,
  wiped: 0.7,
  renewed: 1,
}

/** Observations of the visits for a forecast: flows, and what was taken out when (days from the first flow). */
export function observationsOf(
  story: UnitHistory,
  layers: readonly { readonly id: string }[],
): { readonly seen: readonly Seen[]; readonly services: readonly Service[] } {
  const { first } = story
  if (!first) return { seen: [], services: [] }
  const known = layers.map((l) => l.id)
  const later = story.visits.filter((v) => daysBetween(first.on, v.on) > 0)
  return {
    seen: later.flatMap((v): Seen[] => {
      const left = flowLeft(story, v)
      return left
        ? [{ day: daysBetween(first.on, v.on), left: left.value, uncertainty: (left.uncertainty ?? 0) / 2 }]
        : []
    }),
    services: later.flatMap((v) =>
      v.cleaned.flatMap((c): Service[] => {
        const which = c.what === EVERYTHING ? null : known.filter((id) => id === c.what)
        return which === null || which.length
          ? [{ day: daysBetween(first.on, v.on), layers: which, share: TAKES[c.how] }]
          : []
      }),
    ),
  }
}

/** A visit within so much of its interval counts as that one. */
const NEAR = 0.35

/** A visit a house wants: its day, and whether it was made. */
export interface WantedVisit {
  readonly days: number
  readonly on: Day
  readonly state: 'made' | 'due' | 'ahead' | 'missed'
}

/** Which visits are made, due, still ahead, or missed because a later one has come. */
export function wantedVisits(
  days: readonly number[],
  started: Day,
  made: readonly Day[],
  today: Day,
): readonly WantedVisit[] {
  const sorted = [...days].sort((a, b) => a - b)
  const ages = made.map((on) => daysBetween(started, on))
  return sorted.map((d, i): WantedVisit => {
    const on = dayAfter(started, d)
    const room = Math.max(1, NEAR * (d - (sorted[i - 1] ?? 0)))
    if (ages.some((a) => Math.abs(a - d) <= room)) return { days: d, on, state: 'made' }
    const age = daysBetween(started, today)
    const next = sorted[i + 1]
    if (age < d) return { days: d, on, state: 'ahead' }
    return { days: d, on, state: next !== undefined && age >= next ? 'missed' : 'due' }
  })
}

/** Ageing of one part over the visits, the earliest first. */
export interface PartHistory {
  readonly part: string
  readonly seen: readonly { readonly on: Day; readonly findings: readonly string[] }[]
}

export const partHistories = (visits: readonly VisitRecord[]): readonly PartHistory[] => {
  const parts = [...new Set(visits.flatMap((v) => Object.keys(v.parts)))]
  return parts.map((part) => ({
    part,
    seen: visits.flatMap((v) => {
      const findings = v.parts[part]
      return findings ? [{ on: v.on, findings }] : []
    }),
  }))
}

/**
 * How long units of a model run before something fails: each from its first visit to its first failure, or to the last
 * time it was seen whole. Source: Kaplan and Meier 1958, as {@link kaplanMeier}. Null without a unit seen twice.
 */
export function unitSurvival(visits: readonly VisitRecord[]): (Survival & { readonly units: number }) | null {
  const units = new Map<string, VisitRecord[]>()
  for (const v of visits) {
    const unit = v.specimenId ?? 'unnamed'
    units.set(unit, [...(units.get(unit) ?? []), v])
  }
  const times = [...units.values()].flatMap((list) => {
    const own = [...list].sort((a, b) => a.on.localeCompare(b.on))
    const [first] = own
    const failed = own.find((v) => v.failed.length > 0)
    const end = failed ?? own.at(-1)
    if (!first || !end) return []
    const seconds = daysBetween(first.on, end.on) * DAY
    return seconds > 0 || failed ? [{ seconds, censored: !failed }] : []
  })
  return times.length ? { ...kaplanMeier(times), units: times.length } : null
}

/** A test of the water beside what the balance says: does it bear it out? */
export interface WaterProof {
  readonly what: 'ammonia' | 'nitrite' | 'nitrate'
  readonly found: Figure
  readonly expected: Figure | null
  readonly sentence: Sentence
}

/** Detection limit of a kit of drops (kg/m³), and its share of a reading (common practice, no source). */
const KIT = { ammonia: [1.2e-4, 0.25], nitrite: [1.2e-4, 0.25], nitrate: [5e-3, 0.3] } as const

/** Readings of a visit, as nitrogen for ammonia and nitrite, against the balance at rest. */
export function waterProofs(
  v: Pick<VisitRecord, 'id' | 'on' | 'ammonia' | 'nitrite' | 'nitrate' | 'binder'>,
  expected: Readonly<Partial<Record<WaterProof['what'], Figure>>>,
): readonly WaterProof[] {
  return (['ammonia', 'nitrite', 'nitrate'] as const).flatMap((what): WaterProof[] => {
    const value = v[what]
    if (value === null) return []
    const [step, share] = KIT[what]
    const bound = v.binder && what === 'ammonia'
    const found: Figure = {
      id: `water-${what}-${v.id}`,
      label: `${what[0]?.toUpperCase()}${what.slice(1)} by the kit`,
      value,
      uncertainty: Math.max(step, share * value),
      dimension: 'concentration',
      provenance: 'measured',
      conditions: [
        dayText(v.on),
        ...(bound ? ['a binding conditioner was used: kits then read bound ammonia too'] : []),
      ],
    }
    const said = expected[what] ?? null
    if (!said) return [{ what, found, expected: null, sentence: [`${found.label}: `, inline(found), '.'] }]
    const apart = Math.abs(value - said.value)
    const room = Math.hypot(found.uncertainty ?? 0, said.uncertainty ?? 0.5 * said.value)
    const verdict =
      apart <= room
        ? ': that is borne out.'
        : value > said.value
          ? ': there is more than the balance accounts for.'
          : ': there is less than the balance accounts for.'
    return [
      {
        what,
        found,
        expected: said,
        sentence: [
          `${found.label}: `,
          inline(found),
          '; the balance says ',
          inline(said),
          verdict,
          ...(bound ? [' A binding conditioner was used: the kit reads what is bound along.'] : []),
        ],
      },
    ]
  })
}
