import { LONGEST_RUN, type TrialShape } from '../../bench/shape'

export const reading = {
  seconds: { min: 0, max: LONGEST_RUN },
  /** Water caught (m³), where it leaks. */
  value: { min: 0, max: 1, unit: 'm³' },
  valueOptional: true,
  series: ['prime', 'restart', 'leak', 'air', 'rattle'],
  outcome: ['yes', 'no'],
} as const satisfies TrialShape
