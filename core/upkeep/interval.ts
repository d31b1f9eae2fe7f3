import type { FilterKind } from '../kinds'
import type { UpkeepRule } from './rule'

/**
 * Days between openings. Common practice, no source: a canister three to six weeks behind a pre-filter, a hang-on-back
 * monthly, what has no body every two or three weeks.
 */
const USUAL_DAYS: Readonly<Record<FilterKind, number>> = {
  canister: 32,
  'hang-on-back': 30,
  internal: 21,
  'motor-sponge': 14,
  'air-sponge': 21,
  'air-box': 14,
  fluidised: 60,
  sump: 14,
}
/** Relative half-width of those intervals (common practice, no source). */
export const USUAL_BAND = 0.4

/** Days between two openings of a filter, and where they come from. */
export interface OpeningInterval {
  readonly days: number
  readonly from: 'forecast' | 'house' | 'usual'
}

/** What of a house’s upkeep an interval hangs on. */
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
  return own === undefined ? { days: USUAL_DAYS[kind], from: 'usual' } : { days: own, from: 'house' }
}

/** The task by which dirt is taken out of a filter of a kind. */
export const bodyTask = (kind: FilterKind): 'open' | 'sponge' =>
  kind === 'motor-sponge' || kind === 'air-sponge' ? 'sponge' : 'open'
