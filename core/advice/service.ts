import { put, putFigure, type Figure } from '../figures'
import type { FilterKind } from '../kinds'
import type { Candidate } from './candidate'

/**
 * Days between openings. Common practice, no source: a canister three to six weeks behind a pre-filter, a hang-on-back
 * monthly, what has no body every two or three weeks.
 */
export const SERVICE_DAYS: Readonly<Record<FilterKind, number>> = {
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
export const SERVICE_BAND = 0.4
const MONTH_DAYS = 30.44

/**
 * What an air pump for one such filter takes, where nobody has measured it and no label says: 2 to 5 W (common
 * practice, no source).
 */
export const AIR_PUMP_POWER: Figure = {
  id: 'air-pump-power',
  label: 'Power of an air pump',
  value: 3,
  uncertainty: 1.5,
  dimension: 'power',
  provenance: 'rule',
  conditions: ['an air pump for one filter'],
  source: 'common practice, no source',
}

/** Minutes of work a month: seconds of one service, as timed, by how often such filters are opened; null untimed. */
export function serviceMinutes(c: Pick<Candidate, 'kind' | 'service'>): Figure | null {
  if (!c.service) return null
  const days = SERVICE_DAYS[c.kind]
  const minutes = (c.service.value / 60) * (MONTH_DAYS / days)
  return {
    id: 'service-minutes',
    label: 'Minutes of work a month',
    value: minutes,
    uncertainty: minutes * SERVICE_BAND,
    dimension: 'ratio',
    provenance: 'rule',
    formula: 'time of one service · 30.44 ÷ days between',
    working: [putFigure('t', c.service), put('days', 'between openings, ± 40 %', days, 'ratio', 'rule')],
    source: 'common practice, no source',
  }
}
