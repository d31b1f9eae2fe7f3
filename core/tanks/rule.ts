/** The schools of capacity: by what each says which tank a filter carries. */
export const CAPACITY_SCHOOLS = ['media-mass', 'balance', 'turnover', 'oversizing', 'minima'] as const
export type CapacitySchool = (typeof CAPACITY_SCHOOLS)[number]

/** How a house judges capacity: the first school that applies leads; others bind too, or only stand beside. */
export interface CapacityRule {
  /** Most trusted first; a school left out does not speak. */
  readonly order: readonly CapacitySchool[]
  readonly bind: readonly CapacitySchool[]
  /** Turnovers per hour under which the corners of a tank are not reached. */
  readonly turnoverFloor: number
  /** Does a most of turnovers speak at the low end? Nobody states one for sure; the jet is what judges. */
  readonly mostTurnover?: boolean | undefined
  /** Weight of each school in how sure a verdict is; equal, the leading one double, where absent. */
  readonly weights?: Partial<Readonly<Record<CapacitySchool, number>>> | undefined
}

/**
 * As shipped: mass leads, the trade's own rule; the balance, a minimum circulation and oversizing stand beside it.
 * Nobody in the trade states a least turnover: the minima are a school of their own that a house may let bind. Common
 * practice, no source.
 */
export const CAPACITY_RULE: CapacityRule = {
  order: ['media-mass', 'balance', 'turnover', 'oversizing'],
  bind: [],
  turnoverFloor: 1,
}

/** Classes that a school of their own leads for: turtles are rated against rated (common practice, no source). */
export const LEADS_OF_CLASS: Readonly<Record<string, CapacitySchool | undefined>> = {
  turtle: 'oversizing',
  'turtle-current': 'oversizing',
  'turtle-hatchling': 'oversizing',
}

/** Relative half-width of the minimum circulation (common practice, no source). */
export const FLOOR_BAND = 0.3
