import type { Constraint } from '../tanks'

/** What holds the top of a range down, in a word. */
export const CONSTRAINT_WORDS: Readonly<Record<Constraint, string>> = {
  turnover: 'turnover',
  'media-mass': 'media mass',
  oversizing: 'oversizing',
}
