import { FILTERS, type FilterKind } from '../kinds/filters'
import type { UpkeepRule } from './rule'

/** Relative half-width of the usual intervals (common practice, no source). */
export const USUAL_BAND = 0.4

/** Days between two openings of a filter, and where they come from. */
export interface OpeningInterval {
  readonly days: number
  readonly from: 'forecast' | 'house' | 'usual'
}

/** Rules of a house that an interval hangs on. */
export type IntervalRule = Pick<UpkeepRule, 'by' | 'every'>

/**
 * How often a filter is opened, for everyone who says so: by its forecast where the house goes by flow and has
 * one; else as the house says; else as is usual for its kind. What has no body has its sponge squeezed instead.
 */
export function openEvery(
  kind: FilterKind,
  forecast: number | null,
  rule: IntervalRule = { by: 'date', every: {} },
): OpeningInterval {
  if (rule.by === 'flow' && forecast !== null)
    return { days: Math.max(1, Math.round(forecast)), from: 'forecast' }
  const own = rule.every[bodyTask(kind)]
  return own === undefined ? { days: FILTERS[kind].openedEvery, from: 'usual' } : { days: own, from: 'house' }
}

/** The task by which dirt is taken out of a filter of a kind. */
export const bodyTask = (kind: FilterKind): 'open' | 'sponge' =>
  FILTERS[kind].foamIsMedia ? 'sponge' : 'open'
