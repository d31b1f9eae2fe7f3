import { OutOfRange, requirePositive, requireRange } from '../errors'
import { summary } from '../statistics'
import { flowFromRuns, type FlowResult, type TimingMethod } from './flowRuns'

/** One weighed run: what the scale gained (kg, as read) in t (s). */
export interface WeighedRun {
  readonly mass: number
  readonly seconds: number
}

/** Density of the weights a scale is adjusted with (kg/m³), and of indoor air. Conventional value, OIML D 28. */
const WEIGHTS = 8000
const AIR = 1.2

/**
 * Factor that turns a scale's reading of water into its mass: 1 + ρ_air (1/ρ − 1/ρ_weights); 1.00105 at 20 °C.
 * Source: ISO 4185:1980, buoyancy correction. Density ρ in kg/m³.
 */
export const buoyancyFactor = (density: number): number =>
  1 + AIR * (1 / requirePositive('density', density, 'kg/m³') - 1 / WEIGHTS)

/** Instruments of a weighed run: standard uncertainty of the scale (kg, the same sign in every run) and the clock. */
export interface WeighingMethod extends Omit<TimingMethod, 'vessel'> {
  readonly scale: number
}

/**
 * Flow (m³/s) from scale-and-stopwatch runs in the manner of ISO 4185: Q = m B / (ρ t). Combined as timed vessel runs
 * are (GUM); the scale's share is its uncertainty over the mean mass.
 * @throws OutOfRange naming `runs[i].mass`, `runs[i].seconds` or `density`.
 */
export function flowFromWeighedRuns(
  runs: readonly WeighedRun[],
  density: number,
  method: WeighingMethod,
): FlowResult {
  const perKilogram = buoyancyFactor(density) / density
  runs.forEach((r, i) => requirePositive(`runs[${i}].mass`, r.mass, 'kg'))
  const { mean } = summary(runs.map((r) => r.mass))
  return flowFromRuns(
    runs.map((r) => ({ volume: r.mass * perKilogram, seconds: r.seconds })),
    { ...method, vessel: mean > 0 ? method.scale / mean : 0 },
  )
}

/** A pulse meter held against known volumes: pulses counted while `volume` (m³) passed. */
export interface MeterCheck {
  readonly pulses: number
  readonly volume: number
}

/** Pulses per cubic metre with its standard uncertainty, and how far the checks lie from it (share). */
export interface MeterFactor {
  readonly factor: number
  readonly standardUncertainty: number
  readonly deviations: readonly number[]
}

/**
 * K-factor (pulses/m³) of a meter from vessel runs: least squares through the origin of pulses on volume.
 * @throws OutOfRange with fewer than two checks, or naming the check at fault.
 */
export function meterFactor(checks: readonly MeterCheck[]): MeterFactor {
  if (checks.length < 2)
    throw new OutOfRange('checks', checks.length, { words: 'at least two: one shows no scatter' })
  checks.forEach((c, i) => {
    requirePositive(`checks[${i}].volume`, c.volume, 'm³')
    requireRange(`checks[${i}].pulses`, c.pulses, { min: 1 })
  })
  const vv = checks.reduce((s, c) => s + c.volume ** 2, 0)
  const factor = checks.reduce((s, c) => s + c.volume * c.pulses, 0) / vv
  const residual = checks.reduce((s, c) => s + (c.pulses - factor * c.volume) ** 2, 0)
  return {
    factor,
    standardUncertainty: Math.sqrt(residual / (checks.length - 1) / vv),
    deviations: checks.map((c) => c.pulses / c.volume / factor - 1),
  }
}
