import type { TrialShape } from '../../bench/shape'

export const reading = {
  value: { min: 0, max: 10, unit: 'of 10' },
  valueOptional: true,
  series: ['before', 'minutes', 'morning', 'later'],
  outcome: ['rated', 'photo'],
  check: (r) =>
    r.outcome === 'rated' && (r.value ?? null) === null
      ? { field: 'value', message: 'a rating from 0 to 10, or a photo instead' }
      : null,
  setup: {
    /** The spot it is looked at from, the same each time. */
    spot: { is: 'text', max: 120 },
  },
} as const satisfies TrialShape
