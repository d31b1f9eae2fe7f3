import { put, putFigure, type Figure } from '../figures'
import { openEvery, USUAL_BAND, type IntervalRule } from '../upkeep'
import type { Candidate } from './candidate'

const MONTH_DAYS = 30.44

/**
 * Power of an air pump for one such filter, where nobody has measured it and no label says: 2 to 5 W (common
 * practice, no source).
 */
export const AIR_PUMP_POWER: Figure = {
  id: 'air-pump-power',
  label: 'Power of an air pump',
  value: 3.5,
  uncertainty: 1.5,
  dimension: 'power',
  provenance: 'rule',
  conditions: ['an air pump for one filter'],
  source: 'common practice, no source',
}

/** Minutes of work a month: seconds of one service, as timed, by how often it is opened; null untimed. */
export function serviceMinutes(c: Pick<Candidate, 'kind' | 'service'>, opens?: IntervalRule): Figure | null {
  if (!c.service) return null
  // A forecast takes a tank and a filling: before one is chosen it goes by the rule.
  const { days } = openEvery(c.kind, null, opens)
  const minutes = (c.service.value / 60) * (MONTH_DAYS / days)
  return {
    id: 'service-minutes',
    label: 'Minutes of work a month',
    value: minutes,
    uncertainty: minutes * USUAL_BAND,
    dimension: 'ratio',
    provenance: 'rule',
    formula: 'time of one service · 30.44 ÷ days between',
    working: [putFigure('t', c.service), put('days', 'between openings, ± 40 %', days, 'ratio', 'rule')],
    source: 'common practice, no source',
  }
}
