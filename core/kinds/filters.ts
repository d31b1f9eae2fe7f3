import { airBox } from './air-box'
import { airSponge } from './air-sponge'
import { canister } from './canister'
import { fluidised } from './fluidised'
import { hangOnBack } from './hang-on-back'
import { internal } from './internal'
import { motorSponge } from './motor-sponge'
import { sump } from './sump'
import type { FilterTraits } from './traits'

export type { FilterTraits } from './traits'

/** The kinds of filter on the bench. A new one is a file beside these and a line here. */
const KINDS = {
  canister,
  'hang-on-back': hangOnBack,
  internal,
  'motor-sponge': motorSponge,
  'air-sponge': airSponge,
  'air-box': airBox,
  fluidised,
  sump,
} as const

export type FilterKind = keyof typeof KINDS
export const FILTERS: Readonly<Record<FilterKind, FilterTraits>> = KINDS
export const FILTER_KINDS = Object.keys(KINDS) as [FilterKind, ...FilterKind[]]

/** Kinds that move water by air have no pump curve. */
export const hasPump = (kind: FilterKind): boolean => FILTERS[kind].drivenBy === 'pump'
