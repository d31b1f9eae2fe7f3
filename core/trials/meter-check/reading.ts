import { METER_SETUP } from '../common'
import type { TrialShape } from '../../bench/shape'

export const reading = {
  value: { min: 1, max: 1e9, unit: 'pulses' },
  volume: true,
  vessel: true,
  setup: METER_SETUP,
} as const satisfies TrialShape
