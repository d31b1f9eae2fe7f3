import { METER_SETUP } from '../common'
import { LONGEST_RUN, SHORTEST_RUN, type TrialShape } from '../../bench/shape'

export const reading = {
  value: { min: 1, max: 1e9, unit: 'pulses' },
  seconds: { min: SHORTEST_RUN, max: LONGEST_RUN },
  flow: true,
  byHand: true,
  enough: 3,
  setup: METER_SETUP,
} as const satisfies TrialShape
