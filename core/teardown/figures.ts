import { put, putFigure, type Figure } from '../figures'
import { reaches, type LoggedPart, type ReachResult } from './reach'

/** Parts, moves and seconds to a target, each with the parts it adds up; seconds back together where they are known. */
export interface ReachFigures {
  readonly parts: Figure
  readonly moves: Figure
  readonly seconds: Figure
  readonly back: Figure | null
  readonly cleaning: Figure | null
}

/** The numbers of one reach with the log lines they are the sum of. */
export function reachFigures(r: ReachResult): ReachFigures {
  const make = (
    what: string,
    label: string,
    value: number,
    dimension: Figure['dimension'],
    of: (p: LoggedPart) => number,
  ): Figure => ({
    id: `reach-${r.reach}-${what}`,
    label,
    value,
    dimension,
    provenance: 'computed',
    conditions: [`from the closed filter up to and with ${r.part}`],
    formula: 'Σ over what must come off',
    working: r.way.map((p, i) => put(String(i + 1), p.name, of(p), dimension, 'measured')),
  })
  return {
    parts: make('parts', 'Parts off', r.parts, 'ratio', () => 1),
    moves: make('moves', 'Hand movements', r.moves, 'ratio', (p) => p.moves),
    seconds: make('seconds', 'Seconds', r.seconds, 'time', (p) => p.seconds),
    back: r.back === null ? null : make('back', 'Back together', r.back, 'time', (p) => p.back ?? 0),
    cleaning:
      r.cleaning === null
        ? null
        : {
            id: `reach-${r.reach}-cleaning`,
            label: 'Cleaning',
            value: r.cleaning,
            dimension: 'time',
            provenance: 'measured',
            conditions: [r.part],
          },
  }
}

/** From the closed filter to its media, cleaned and back together; null where the way was not timed. */
export function serviceFigure(log: readonly LoggedPart[]): Figure | null {
  const media = reaches(log).find((r) => r.reach === 'media')
  if (!media) return null
  const { seconds, back, cleaning } = reachFigures(media)
  const steps = [seconds, cleaning, back].filter((f) => f !== null)
  return {
    id: 'service',
    label: 'Opened to its media, cleaned and closed',
    value: steps.reduce((sum, f) => sum + f.value, 0),
    dimension: 'time',
    provenance: 'computed',
    ...(steps.length < 3 && { conditions: ['not every step was timed: it takes longer than this'] }),
    formula: 'open + clean + back',
    working: steps.map((f, i) => putFigure(`t_${i + 1}`, f)),
  }
}
