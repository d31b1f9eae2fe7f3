import { put, type Figure } from '../figures'
import type { LoggedPart, ReachResult } from './reach'

/** Parts, moves and seconds to a target, each with the parts it adds up. */
export interface ReachFigures {
  readonly parts: Figure
  readonly moves: Figure
  readonly seconds: Figure
}

/** The numbers of one reach with the log lines they are the sum of. */
export function reachFigures(r: ReachResult, log: readonly LoggedPart[]): ReachFigures {
  const upTo = log.slice(0, r.parts)
  const make = (
    what: 'parts' | 'moves' | 'seconds',
    label: string,
    dimension: Figure['dimension'],
    of: (p: LoggedPart) => number,
  ): Figure => ({
    id: `reach-${r.reach}-${what}`,
    label,
    value: r[what],
    dimension,
    provenance: 'computed',
    conditions: [`from the closed filter up to and with ${r.part}`],
    formula: 'Σ over the log',
    working: upTo.map((p, i) => put(String(i + 1), p.name, of(p), dimension, 'measured')),
  })
  return {
    parts: make('parts', 'Parts off', 'ratio', () => 1),
    moves: make('moves', 'Moves of the hand', 'ratio', (p) => p.moves),
    seconds: make('seconds', 'Seconds', 'time', (p) => p.seconds),
  }
}
