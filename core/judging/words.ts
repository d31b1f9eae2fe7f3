import type { Constraint } from '../tanks'
import type { FilterKind } from './records'

/** What holds the top of a range down, in a word. */
export const CONSTRAINT_WORDS: Readonly<Record<Constraint, string>> = {
  turnover: 'turnover',
  'media-mass': 'media mass',
  oversizing: 'oversizing',
}

/** Kinds that move water by air have no pump curve. */
export const hasPump = (kind: FilterKind): boolean => !['air-sponge', 'air-box', 'fluidised'].includes(kind)
