import { mean, sampleStandardDeviation } from 'simple-statistics'

/** Number, mean and sample standard deviation of some values, in their unit; zeros where there are too few. */
export const summary = (
  v: readonly number[],
): { readonly n: number; readonly mean: number; readonly deviation: number } => ({
  n: v.length,
  mean: v.length ? mean([...v]) : 0,
  deviation: v.length > 1 ? sampleStandardDeviation([...v]) : 0,
})
