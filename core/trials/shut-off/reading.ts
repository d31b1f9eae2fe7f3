import type { TrialShape } from '../../bench/shape'

export const reading = { value: { min: 1e-3, max: 100, unit: 'm' } } as const satisfies TrialShape
