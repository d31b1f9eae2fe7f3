/** The kinds of filter on the bench. */
export const FILTER_KINDS = [
  'canister',
  'hang-on-back',
  'internal',
  'motor-sponge',
  'air-sponge',
  'air-box',
  'fluidised',
  'sump',
] as const
export type FilterKind = (typeof FILTER_KINDS)[number]
