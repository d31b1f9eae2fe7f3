import { LONGEST_WATCH, type TrialShape } from '../../bench/shape'

export const reading = {
  seconds: { min: 0, max: LONGEST_WATCH },
  outcome: ['let-go', 'still'],
  setup: {
    /** Load that hangs on it. */
    load: { is: 'text', max: 120 },
  },
} as const satisfies TrialShape
