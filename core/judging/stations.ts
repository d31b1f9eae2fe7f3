import { reaches, type LoggedPart } from '../teardown/reach'
import type { Assessment } from './assess'

/** The stations of the work, in its order. */
export const STATIONS = [
  'claims',
  'strip',
  'inside',
  'bench',
  'fill',
  'path',
  'tanks',
  'verdict',
  'visits',
] as const
export type Station = (typeof STATIONS)[number]

/** What of a dossier says how far its stations are. */
export interface StationRecord {
  readonly parts: readonly LoggedPart[]
  readonly chambers: readonly { readonly measured: boolean }[]
  readonly fills: readonly { readonly basis: string; readonly layers: readonly unknown[] }[]
  readonly visits: readonly { readonly stage: string }[]
}

const share = (part: number, whole: number): number => (whole > 0 ? part / whole : 0)

/** What a verdict needs to be done, whatever it already says. */
const NEEDED: readonly string[] = ['rated-flow', 'tank-max', 'installed-flow']

/** Tanks are judged half where only a flow is known, and whole where something is known of the media. */
function tanksDone({ ranges, level }: Pick<Assessment['verdict'], 'ranges' | 'level'>): number {
  if (!ranges.length) return 0
  return level === 'open' ? 0.5 : 1
}

/**
 * How far each station is, 0 to 1; null for those that the assessment tells of, while it is on its way: that is not the
 * same as nothing done.
 */
export function stationsDone(
  record: StationRecord,
  assessment: Pick<Assessment, 'progress' | 'pump' | 'verdict'> | null,
): Readonly<Record<Station, number | null>> {
  const { parts, chambers, fills, visits } = record
  const filled = fills.filter((f) => f.layers.length > 0)
  const { progress, pump, verdict } = assessment ?? {}
  const firm = verdict?.basis === 'measured' || verdict?.basis === 'carried'
  const judged = firm && !verdict.missing.some((m) => NEEDED.includes(m.id)) ? 1 : 0.5
  return {
    claims: progress?.claims ?? null,
    strip: parts.length ? (reaches(parts).length ? 1 : 0.5) : 0,
    inside: share(chambers.filter((c) => c.measured).length, chambers.length),
    bench: progress?.bench ?? null,
    fill: ['as-shipped', 'proposed'].filter((b) => filled.some((f) => f.basis === b)).length / 2,
    path: progress ? (filled.length > 0 && (pump || progress.bench) ? 1 : 0) : null,
    tanks: verdict ? tanksDone(verdict) : null,
    verdict: verdict ? (verdict.level === 'open' ? 0 : judged) : null,
    // Set up, and come back to at least once.
    visits: Math.min(1, visits.length / 2),
  }
}
