import { RELATIVE } from '../common'
import type { TrialShape } from '../../bench/shape'

export const reading = {
  value: { min: 0, max: 5000, unit: 'W' },
  setup: {
    ...RELATIVE,
    pricePerKwhMinor: { is: 'number', min: 0, max: 1e6, unit: 'in the currency’s small unit' },
  },
} as const satisfies TrialShape
