import { RELATIVE } from '../common'
import type { TrialShape } from '../../bench/shape'

export const reading = {
  value: { min: 0, max: 1, unit: 'm³/s' },
  flow: true,
  setup: RELATIVE,
} as const satisfies TrialShape
