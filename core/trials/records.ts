import type { PlacedPart } from '../teardown/placing'
import type { LogSummary, TimingMethod } from '../bench'
import type { BenchReading, Limits } from '../bench/shape'
import type { TrialKind, TrialSetup } from './readings'
import type { Outlet, Segment } from '../hydraulics'
import type { Fill } from '../fills'
import type { FilterKind } from '../kinds'
import type { Medium } from '../media'
import type { BodyRecord, Chamber } from '../volumes'

export { FILTER_KINDS, hasPump, type FilterKind } from '../kinds'

/** Quantities a label may print. All SI. */
export const CLAIM_QUANTITIES = [
  'rated-flow',
  'max-head',
  'power',
  'tank-min',
  'tank-max',
  'media-volume',
  'noise',
] as const
export type ClaimQuantity = (typeof CLAIM_QUANTITIES)[number]

/** Range of a printed figure (SI): far beyond what is made, and within what can be computed with. */
export const CLAIM_LIMITS: Readonly<Record<ClaimQuantity, Limits>> = {
  'rated-flow': { min: 1e-8, max: 1, unit: 'm³/s' },
  'max-head': { min: 0.001, max: 100, unit: 'm' },
  power: { min: 0.001, max: 1e5, unit: 'W' },
  'tank-min': { min: 1e-6, max: 1000, unit: 'm³' },
  'tank-max': { min: 1e-6, max: 1000, unit: 'm³' },
  'media-volume': { min: 1e-6, max: 10, unit: 'm³' },
  noise: { min: 0, max: 200, unit: 'dB' },
}

/** A printed figure. `mainsFrequency` (Hz) where the label gives one for it. */
export interface ClaimRecord {
  readonly quantity: ClaimQuantity
  readonly value: number
  readonly mainsFrequency?: number | null
  readonly where?: string | null
  /** The words beside it: up to, at no head, with media, pump only. */
  readonly qualifier?: string | null
}

/** How the mass of a unit's biological media is known. */
export const MASS_SOURCES = ['scale', 'estimate'] as const

/** Fill states of a body during a trial. */
export const FILL_STATES = ['empty', 'as-shipped', 'proposed', 'dirty'] as const
export type FillState = (typeof FILL_STATES)[number]

/** A hookup: the hose run and what is on it, and the heights that decide whether lift counts. */
export interface HookupRecord {
  readonly id: string
  readonly name: string
  readonly outletAboveWater: number
  readonly sourceBelowWater: number
  readonly bodyBelowWater: number
  readonly segments: readonly Segment[]
  /** Ways for the water to come back that come in the box, the one in use first. */
  readonly outlets?: readonly NamedOutlet[] | undefined
  /** Open area of the inlet (m²), and whether a sponge guards it. */
  readonly inlet?: { readonly openArea: number; readonly sponge: boolean } | undefined
}

/** An outlet with its name. */
export interface NamedOutlet extends Outlet {
  readonly id: string
  readonly name: string
}

/** A long series of a trial, summed up. */
export interface LogRecord extends LogSummary {
  readonly id: string
  readonly series: string
}

/** A trial: its conditions and readings. `hookupId` null: the bare body, nothing attached. */
export interface TrialRecord {
  readonly id: string
  /** Kind of trial; timed vessel runs when absent. */
  readonly kind?: TrialKind
  readonly setup?: TrialSetup
  readonly state: FillState
  readonly hookupId: string | null
  readonly lift: number
  readonly waterTemperature: number
  /** Practical salinity; fresh when absent. */
  readonly salinity?: number
  /** Share a tap in the run was left open; absent for fully. */
  readonly valve?: number
  readonly mainsFrequency: number
  readonly method: TimingMethod
  readonly runs: readonly BenchReading[]
  readonly logs?: readonly LogRecord[]
  /** Why its point was taken out of the pump's curve; null or absent when it is in. */
  readonly outReason?: string | null
  readonly daysInUse?: number | null
  readonly note?: string
  readonly when?: string
}

/** Everything known of one model, as the verdict reads it. */
export interface ModelRecord {
  readonly kind: FilterKind
  readonly mainsFrequency: number
  readonly claims: readonly ClaimRecord[]
  readonly hookups: readonly HookupRecord[]
  readonly trials: readonly TrialRecord[]
  /** Biological media of the unit as it came (kg), and whether a scale says so; null when nobody has noted it. */
  readonly mediaMass: { readonly mass: number; readonly weighed: boolean } | null
  /** The interior; null or absent while no body is on record. */
  readonly inside?: Inside | null
  /** Its parts as they go back; absent where nobody asks whom it suits. */
  readonly parts?: readonly PlacedPart[]
}

/** A body with its chambers, what may be filled in, and which fill was in it at which trial. */
export interface Inside {
  readonly body: BodyRecord
  readonly chambers: readonly Chamber[]
  readonly media: readonly Medium[]
  readonly fills: readonly Fill[]
  /** The fill noted for a trial, by the trial’s id. */
  readonly fillOfTrial: Readonly<Record<string, string | null>>
}
