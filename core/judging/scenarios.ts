import { RIPENESS, type Films, type Keeping, type Scenario } from '../biology'

/** Things that happen to a tank and its filter, as people ask about them. */
export const SCENARIO_KINDS = [
  'nothing',
  'starter',
  'ripe-media',
  'beside',
  'half',
  'tap',
  'double',
  'off',
] as const
export type ScenarioKind = (typeof SCENARIO_KINDS)[number]

/** Numbers of a scenario besides its kind: weeks beside each other, share of ripe media, hours without power. */
export interface ScenarioAsks {
  readonly weeks: number
  readonly share: number
  readonly hours: number
}
export const USUAL_ASKS: ScenarioAsks = { weeks: 4, share: 0.3, hours: 12 }

/** A settled tank is watched so long before something happens to it, and altogether (days). */
const BEFORE = 5
const RIPENING = 60
/** Day on which the power goes. */
export const OFF_FROM = 1
const AFTER = 40

/**
 * A story of one filter on a tank, told from its start with full stock. `body`: water its body shuts in when it stops
 * (m³); Infinity where its films lie open in the tank, null where nobody knows.
 */
export function scenarioOf(
  kind: ScenarioKind,
  keeping: Keeping,
  films: Films,
  asks: ScenarioAsks = USUAL_ASKS,
  body: number | null = null,
): Scenario {
  const from = (ripe: number): Scenario => ({
    keeping,
    filters: [{ id: 'filter', films, ripe, ...(body !== null && { body }) }],
    happenings: [],
    days: RIPENING,
  })
  const settled = (happening: Scenario['happenings'][number]): Scenario => ({
    ...from(1),
    happenings: [happening],
    days: AFTER,
  })
  switch (kind) {
    case 'nothing':
      return from(0)
    case 'starter':
      return from(RIPENESS.starter)
    case 'ripe-media':
      return from(asks.share)
    case 'beside':
      return {
        keeping,
        filters: [
          { id: 'old', films, ripe: 1 },
          { id: 'new', films, ripe: 0 },
        ],
        happenings: [{ day: asks.weeks * 7, what: 'take-out', filter: 'old' }],
        days: asks.weeks * 7 + AFTER,
      }
    case 'half':
      return settled({ day: BEFORE, what: 'replace', filter: 'filter', share: 0.5 })
    case 'tap':
      return settled({ day: BEFORE, what: 'rinse', filter: 'filter', keeps: RIPENESS.tapRinsed })
    case 'double':
      return settled({ day: BEFORE, what: 'feed', times: 2 })
    case 'off':
      return {
        ...settled({ day: OFF_FROM, what: 'off', hours: asks.hours }),
        days: 10 + 2 * Math.floor(asks.hours / 24),
      }
  }
}
