import type { TrialShape } from '../shape'

export const reading = {
  seconds: { min: 0 },
  outcome: ['let-go', 'still'],
  setup: {
    /** What hangs on it. */
    load: { is: 'text', max: 120 },
  },
} as const satisfies TrialShape
