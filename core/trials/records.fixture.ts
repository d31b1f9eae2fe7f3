import type { Figure } from '../figures'
import type { Segment } from '../hydraulics'
import type { BenchReading } from '../bench/shape'
import type { TrialKind } from './readings'
import type { ModelRecord, TrialRecord } from './records'

export const near = (v: number, digits = 9): number => expect.closeTo(v, digits) as number
export const put = (f: Figure): readonly (readonly [string, number])[] =>
  (f.working ?? []).map((w) => [w.symbol, w.value])
export const figure = (value: number, uncertainty?: number, more: Partial<Figure> = {}): Figure => ({ id: 'x', label: 'Some Flow', value, dimension: 'flow', provenance: 'measured', ...(uncertainty !== undefined && { uncertainty }), ...more }) // prettier-ignore
const METHOD = { vessel: 0.01, resolution: 0.01, reaction: 0.05 }
export const trial = (more: Partial<TrialRecord> = {}): TrialRecord => ({
  id: 't',
  state: 'empty',
  hookupId: null,
  lift: 0,
  waterTemperature: 22,
  mainsFrequency: 50,
  method: METHOD,
  runs: [20, 21, 22].map((seconds) => ({ volume: 0.005, seconds })),
  ...more,
})
export const model = (more: Partial<ModelRecord> = {}): ModelRecord => ({
  kind: 'canister',
  mainsFrequency: 50,
  claims: [],
  hookups: [],
  trials: [],
  mediaMass: null,
  ...more,
})
export const hookup = { id: 'h', name: 'Own hoses', outletAboveWater: 0.1, sourceBelowWater: 0.3, bodyBelowWater: 0.9, segments: [] as readonly Segment[] } // prettier-ignore
/** A trial of a kind by its readings, in water of 20 °C. */
export const trialOf = (
  kind: TrialKind,
  runs: readonly BenchReading[],
  more: Partial<TrialRecord> = {},
): TrialRecord => trial({ id: kind, kind, runs, waterTemperature: 20, ...more })
