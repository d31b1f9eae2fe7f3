import { waterProperties } from '../water'
import { flowFromRuns, type FlowResult, type TimingMethod, type VesselRun } from './flowRuns'
import { USUAL_SETUP, type BenchReading, type TrialKind, type TrialSetup } from './kinds'
import { flowFromWeighedRuns } from './weighed'

/** A flow trial's readings with what they were taken with. */
export interface FlowReadings {
  readonly kind?: TrialKind
  readonly method: TimingMethod
  readonly setup?: TrialSetup
  readonly waterTemperature: number
  readonly runs: readonly BenchReading[]
}

const timed = (runs: readonly BenchReading[]): readonly VesselRun[] =>
  runs.map((r) => ({ volume: r.volume ?? 0, seconds: r.seconds ?? 0 }))

/**
 * Flow (m³/s) of a trial by its kind: timed vessel, weighed in the manner of ISO 4185, pulses over K, or read off.
 * A meter counts whole pulses, so one pulse either way (rectangular) is part of its uncertainty. Null without readings
 * or for a kind that gives no flow.
 * @throws OutOfRange naming the reading at fault.
 */
export function trialFlow(t: FlowReadings): FlowResult | null {
  if (!t.runs.length) return null
  const usual = (k: keyof typeof USUAL_SETUP): number => t.setup?.[k] ?? USUAL_SETUP[k]
  switch (t.kind ?? 'vessel') {
    case 'vessel':
      return flowFromRuns(timed(t.runs), t.method)
    case 'weighed':
      return flowFromWeighedRuns(
        t.runs.map((r) => ({ mass: r.value ?? 0, seconds: r.seconds ?? 0 })),
        waterProperties({ temperature: t.waterTemperature }).density,
        { scale: usual('scale'), resolution: t.method.resolution, reaction: t.method.reaction },
      )
    case 'meter': {
      const pulses = t.runs.reduce((s, r) => s + (r.value ?? 0), 0) / t.runs.length
      return flowFromRuns(
        t.runs.map((r) => ({ volume: (r.value ?? 0) / usual('kFactor'), seconds: r.seconds ?? 0 })),
        {
          vessel: Math.hypot(usual('kUncertainty'), pulses > 0 ? 1 / (Math.sqrt(3) * pulses) : 0),
          resolution: t.method.resolution,
          reaction: t.method.reaction,
        },
      )
    }
    case 'read':
      return flowFromRuns(
        t.runs.map((r) => ({ volume: r.value ?? 0, seconds: 1 })),
        { vessel: usual('relative'), resolution: 0, reaction: 0 },
      )
    default:
      return null
  }
}
