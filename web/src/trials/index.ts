import { vessel } from './vessel'
import { weighed } from './weighed'
import { meter } from './meter'
import { read } from './read'
import { shutOff } from './shut-off'
import { meterCheck } from './meter-check'
import { power } from './power'
import { noise } from './noise'
import { dye } from './dye'
import { holding } from './holding'
import { prime } from './prime'
import { air } from './air'
import { waterTest } from './water-test'
import { clarity } from './clarity'
import type { Trial } from '@ypsometer/contract'
import { READING_SHAPES, type TrialKind } from '@ypsometer/core/trials/readings'
import type { NumberCell, TrialView } from './kind'

export type { NumberCell, TrialView } from './kind'

/** How each kind of trial looks and speaks. A new kind is a folder beside this file and a line here. */
export const KINDS: Readonly<Record<TrialKind, TrialView>> = {
  vessel,
  weighed,
  meter,
  read,
  'shut-off': shutOff,
  'meter-check': meterCheck,
  power,
  noise,
  dye,
  holding,
  prime,
  air,
  'water-test': waterTest,
  clarity,
}
export const KIND_ORDER = Object.keys(KINDS) as readonly TrialKind[]

/** Name of a series of a trial; itself where it has no words. */
export const seriesWords = (trial: Trial, series: string): string =>
  KINDS[trial.kind].series?.(trial).find(([v]) => v === series)?.[1] ?? series

/** Name of an outcome of a kind. */
export const outcomeWords = (kind: TrialKind, outcome: string): string =>
  KINDS[kind].outcomes?.find(([v]) => v === outcome)?.[1] ?? outcome

/** The numbers of a reading that can be typed: those its shape asks for, unless the kind says otherwise. */
export function cellsOf(kind: TrialKind, series: string): readonly NumberCell[] {
  const { cells, value } = KINDS[kind]
  if (cells) return cells(series)
  const shape = READING_SHAPES[kind]
  return [
    ...(shape.volume ? [{ field: 'volume', label: 'Volume', dimension: 'volume' } as const] : []),
    ...(shape.seconds ? [{ field: 'seconds', label: 'Seconds', dimension: 'time' } as const] : []),
    ...(shape.value && value ? [{ field: 'value', ...value } as const] : []),
  ]
}
