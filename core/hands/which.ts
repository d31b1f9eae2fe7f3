import { FILTERS, type FilterKind, type FilterTraits } from '../kinds'

/** For which filters a step or a check is: in words, and how it is told from what a kind is like. */
const FILTERS_BY = {
  all: { words: 'every filter', test: () => true },
  pumped: { words: 'filters with a pump of their own', test: (t) => t.drivenBy === 'pump' },
  air: { words: 'air-driven filters', test: (t) => t.drivenBy === 'air' },
  hoses: { words: 'filters on hoses with a closed body', test: (t) => t.hoses && t.circuit === 'closed' },
  rim: { words: 'filters that hang on the rim', test: (t) => t.stands === 'rim' },
  inside: { words: 'filters inside the tank', test: (t) => t.stands === 'inside' },
  pumpInside: {
    words: 'filters with a pump inside the tank',
    test: (t) => t.stands === 'inside' && t.drivenBy === 'pump',
  },
  beneath: { words: 'sumps', test: (t) => t.byGravity === true },
  boxed: { words: 'filters with a body round their media', test: (t) => t.boxed },
  opened: { words: 'filters with a lid', test: (t) => t.boxed && t.stands !== 'beneath' },
  sponge: { words: 'sponge filters', test: (t) => t.foamIsMedia === true },
  moving: { words: 'filters whose media move', test: (t) => t.mediaMove === true },
  cups: { words: 'filters held by cups or clips', test: (t) => t.cups },
  intake: { words: 'filters with an intake', test: (t) => t.intake },
  primed: {
    words: 'filters whose pump cannot lift air',
    test: (t) => t.drivenBy === 'pump' && t.stands !== 'outside',
  },
} as const satisfies Record<string, { words: string; test: (t: FilterTraits) => boolean }>
export type Which = keyof typeof FILTERS_BY

/** Is it for this kind? One that nobody knows may be any. */
export const isFor = (which: Which, kind: FilterKind | null): boolean =>
  kind === null || FILTERS_BY[which].test(FILTERS[kind])

/** For which filters, in words. */
export const whichWords = (which: Which): string => FILTERS_BY[which].words
