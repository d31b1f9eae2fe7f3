import type { SetupField } from '../bench/shape'

/** Relative standard uncertainty of an instrument read off. */
export const RELATIVE = {
  relative: { is: 'number', min: 0, max: 0.5, unit: '(share)' },
} as const satisfies Record<string, SetupField>

/** Meter factor (pulses/m³) and its relative standard uncertainty. */
export const METER_SETUP = {
  kFactor: { is: 'number', min: 1, max: 1e12, unit: 'pulses per m³' },
  kUncertainty: { is: 'number', min: 0, max: 0.5, unit: '(share)' },
} as const satisfies Record<string, SetupField>

/** Usual set-up values. Common practice, no source. */
export const USUAL_SETUP = {
  scale: 0.005,
  kFactor: 4.5e6,
  kUncertainty: 0.01,
  relative: 0.02,
  levelUncertainty: 1,
} as const
