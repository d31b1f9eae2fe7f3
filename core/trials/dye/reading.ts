import { LONGEST_RUN, type TrialShape } from '../../bench/shape'

export const reading = {
  seconds: { min: 0, max: LONGEST_RUN * 100 },
  value: { min: 0, max: 1e9, unit: 'of dye' },
  setup: {
    /** Points watched, the unit of strength, and the water it spreads in (m³). */
    points: { is: 'texts', each: 40, most: 12 },
    unit: { is: 'text', max: 20 },
    volume: { is: 'number', min: 1e-4, max: 100, unit: 'm³' },
  },
} as const satisfies TrialShape
