import type { Figure } from '../figures'
import type { FlowResult, TimingMethod } from '../bench/flowRuns'
import type { TrialKind, TrialSetup } from './readings'
import type { BenchReading } from '../bench/shape'

/** A flow trial's readings with what they were taken with. */
export interface FlowReadings {
  readonly kind?: TrialKind
  readonly method: TimingMethod
  readonly setup?: TrialSetup
  readonly waterTemperature: number
  readonly salinity?: number
  readonly runs: readonly BenchReading[]
}

/** Uncertainty of clock and hand, whatever the water is caught in. */
export const timing = ({
  resolution,
  reaction,
  repeatability,
  freedom,
}: TimingMethod): Omit<TimingMethod, 'vessel'> => ({
  resolution,
  reaction,
  ...(repeatability !== undefined && { repeatability }),
  ...(freedom !== undefined && { freedom }),
})

/** How a kind of trial comes to a flow (m³/s), and how that is said. */
export interface FlowOf {
  /** Instruments of a measurement, in a sentence. */
  readonly source: string
  /** Source of the systematic part of its uncertainty. */
  readonly systematic: string
  /** Flow of one run, in symbols; null where it is read. */
  readonly formula: string | null
  /** Symbol of a run's value in that formula. */
  readonly reads?: {
    readonly symbol: string
    readonly label: string
    readonly dimension: Figure['dimension']
  }
  /** The standard it follows besides the GUM. */
  readonly standard?: string
  /** @throws OutOfRange naming the reading at fault. */
  readonly from: (t: FlowReadings) => FlowResult
}
