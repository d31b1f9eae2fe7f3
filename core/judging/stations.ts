import { reaches, type LoggedPart } from '../teardown/reach'
import type { Assessment } from './assess'

/** Parts of a dossier that say how far its stations are. */
export interface StationRecord {
  readonly parts: readonly LoggedPart[]
  readonly chambers: readonly { readonly measured: boolean }[]
  readonly fills: readonly { readonly basis: string; readonly layers: readonly unknown[] }[]
  readonly visits: readonly { readonly stage: string }[]
}

const filled = (fills: StationRecord['fills']) => fills.filter((f) => f.layers.length > 0)
const share = (part: number, whole: number): number => (whole > 0 ? part / whole : 0)

/** Gaps that keep a verdict from being done, whatever it already says. */
const NEEDED: readonly string[] = ['rated-flow', 'tank-max', 'installed-flow']

/** Tanks are judged half where only a flow is known, and whole where something is known of the media. */
function tanksDone({ ranges, level }: Pick<Assessment['verdict'], 'ranges' | 'level'>): number {
  if (!ranges.length) return 0
  return level === 'open' ? 0.5 : 1
}

/** A verdict is done where it is firm and lacks nothing that it needs, half done where it says something. */
function verdictDone({ basis, level, missing }: Assessment['verdict']): number {
  if (level === 'open') return 0
  const firm = basis === 'measured' || basis === 'carried'
  return firm && !missing.some((m) => NEEDED.includes(m.id)) ? 1 : 0.5
}

/** One station of the work. Its view is `web/src/stations/<id>.tsx`. */
interface StationOfWork {
  readonly name: string
  /** Looks at tanks too. */
  readonly onTanks?: boolean
  /** How far it is, 0 to 1; null where the assessment says so and has not come. */
  done(record: StationRecord, assessment: StationAssessment | null): number | null
}
type StationAssessment = Pick<Assessment, 'progress' | 'pump' | 'verdict'>

const TABLE = {
  claims: { name: 'Claims', done: (_, of) => of?.progress.claims ?? null },
  strip: { name: 'Teardown', done: ({ parts }) => (parts.length ? (reaches(parts).length ? 1 : 0.5) : 0) },
  inside: {
    name: 'Inside',
    done: ({ chambers }) => share(chambers.filter((c) => c.measured).length, chambers.length),
  },
  bench: { name: 'Bench', done: (_, of) => of?.progress.bench ?? null },
  fill: {
    name: 'Media',
    done: ({ fills }) =>
      ['as-shipped', 'proposed'].filter((b) => filled(fills).some((f) => f.basis === b)).length / 2,
  },
  path: {
    name: 'Flow path',
    done: ({ fills }, of) =>
      of ? (filled(fills).length > 0 && (of.pump || of.progress.bench) ? 1 : 0) : null,
  },
  tanks: { name: 'Tanks', onTanks: true, done: (_, of) => (of ? tanksDone(of.verdict) : null) },
  verdict: { name: 'Verdict', done: (_, of) => (of ? verdictDone(of.verdict) : null) },
  // Set up, and come back to at least once.
  visits: { name: 'Long-term', onTanks: true, done: ({ visits }) => Math.min(1, visits.length / 2) },
} as const satisfies Readonly<Record<string, StationOfWork>>

export type Station = keyof typeof TABLE
/** The stations of the work, in its order, by their place in an address. */
export const STATIONS = Object.keys(TABLE) as readonly Station[]
/** Each station by its name. */
export const STATION: Readonly<Record<Station, StationOfWork>> = TABLE

/** Is this a station that looks at tanks too? */
export const looksAtTanks = (station: string): boolean =>
  Object.hasOwn(STATION, station) && STATION[station as Station].onTanks === true

/**
 * How far each station is, 0 to 1; null for those that the assessment tells of, while it is on its way: that is not the
 * same as nothing done.
 */
export const stationsDone = (
  record: StationRecord,
  assessment: StationAssessment | null,
): Readonly<Record<Station, number | null>> =>
  Object.fromEntries(STATIONS.map((s) => [s, STATION[s].done(record, assessment)])) as Record<
    Station,
    number | null
  >
