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

/** What of a method belongs to clock and hand, whatever the water is caught in. */
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
  /** What it was measured with, in a sentence. */
  readonly source: string
  /** What the systematic part of its uncertainty comes from. */
  readonly systematic: string
  /** Flow of one run, in symbols; null where it is read. */
  readonly formula: string | null
  /** What a run's value stands for in that formula. */
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
