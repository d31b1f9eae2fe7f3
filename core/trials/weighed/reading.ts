import { LONGEST_RUN, SHORTEST_RUN, type TrialShape } from '../../bench/shape'

export const reading = {
  value: { min: 1e-4, max: 1000, unit: 'kg' },
  seconds: { min: SHORTEST_RUN, max: LONGEST_RUN },
  flow: true,
  byHand: true,
  enough: 3,
  setup: {
    /** Standard uncertainty of the scale (kg). */
    scale: { is: 'number', min: 0, max: 10, unit: 'kg' },
  },
} as const satisfies TrialShape
