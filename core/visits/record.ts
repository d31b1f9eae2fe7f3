/** How dirty a layer looks. */
export const DIRT = ['clean', 'light', 'half', 'blind'] as const
export type Dirt = (typeof DIRT)[number]

export const SEEPS = ['taps', 'head', 'hoses', 'lid', 'body'] as const
export const HOLDS = ['all', 'some', 'none'] as const
export const HOSE_INSIDES = ['clean', 'slime', 'half-closed'] as const
export const CLARITIES = ['clear', 'hazy', 'cloudy'] as const
/** In what something was cleaned, or that it was renewed. */
export const CLEANED_IN = ['tank-water', 'dechlorinated', 'tap', 'wiped', 'renewed'] as const
export type CleanedIn = (typeof CLEANED_IN)[number]
export const VISIT_STAGES = ['set-up', 'visit'] as const

/** Cleaning at a visit: a layer by its id, or a part of the filter by name; and how. */
export interface Cleaned {
  readonly what: string
  readonly how: CleanedIn
}
/** Cleaned as a whole: every layer of the fill. */
export const EVERYTHING = 'everything'

/** One timed run of a vessel: litres in it (m³), seconds. */
export interface TimedRun {
  readonly volume: number
  readonly seconds: number
}

/** A visit to a filter on a tank. SI; null for what was not looked at. */
export interface VisitRecord {
  readonly id: string
  readonly on: string
  readonly stage: (typeof VISIT_STAGES)[number]
  readonly specimenId: string | null
  readonly tankId: string | null
  readonly runsBefore: readonly TimedRun[]
  readonly runsAfter: readonly TimedRun[]
  readonly dirt: Readonly<Record<string, Dirt>>
  readonly parts: Readonly<Record<string, readonly string[]>>
  readonly cleaned: readonly Cleaned[]
  readonly failed: readonly { readonly part: string; readonly how: string }[]
  readonly ammonia: number | null
  readonly nitrite: number | null
  readonly nitrate: number | null
  readonly binder: boolean
}
