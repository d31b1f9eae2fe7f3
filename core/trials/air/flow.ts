import { flowFromRuns } from '../../bench/flowRuns'
import { summary } from '../../statistics/summary'
import type { FlowOf } from '../flowOf'
import { wholeReadings, type Reading } from '../readings'
import type { BenchReading } from '../../bench/shape'

/** Runs of water lifted into a vessel, each with its air (m³/s), volume (m³) and seconds. */
export const waterRuns = (
  runs: readonly BenchReading[],
): readonly { readonly air: number; readonly volume: number; readonly seconds: number }[] =>
  wholeReadings('air', runs).flatMap((r: Reading<'air'> & BenchReading) =>
    r.series === 'water' && r.volume && r.seconds
      ? [{ air: r.value, volume: r.volume, seconds: r.seconds }]
      : [],
  )

/**
 * Air that goes up the riser (m³/s): as measured there, else what is supplied, else the mean of the air that water was
 * timed with; null while none was noted.
 */
export function airUpTheRiser(runs: readonly BenchReading[]): number | null {
  const all = wholeReadings('air', runs)
  for (const series of ['riser', 'supplied', 'water'] as const) {
    const { n, mean } = summary(all.filter((r) => r.series === series).map((r) => r.value))
    if (n) return mean
  }
  return null
}

/** Water that air lifts, timed into a vessel. */
export const flow: FlowOf = {
  source: 'vessel',
  systematic: 'vessel',
  formula: 'V/t',
  from: (t) => flowFromRuns(waterRuns(t.runs), t.method),
}
