import { type Pump, type Segment } from '../../hydraulics'
import type { ModelRecord, TrialRecord } from '../../trials'

export const lph = (q: number): number => q / 3.6e6
const METHOD = { vessel: 0.01, resolution: 0.01, reaction: 0.05 }

/** Runs of 10 L whose flow scatters by ± 0.5 % around `flow` (L/h), the same way each time. */
const runsAt = (flow: number, n = 5) =>
  [0, 0.005, -0.005, 0.003, -0.003]
    .slice(0, n)
    .map((e) => ({ volume: 0.01, seconds: 0.01 / (lph(flow) * (1 + e)) }))

/** What a pump pours from a bare outlet at a lift (L/h): H(Q) = lift + v²/2g, by bisection, apart from the core. */
export function poured(lift: number, { shutOffHead, maxFlow, exponent }: Pump, bore = 0.016): number {
  const left = (q: number): number =>
    shutOffHead * (1 - (q / maxFlow) ** exponent) - lift - (q / ((Math.PI / 4) * bore ** 2)) ** 2 / 19.6133
  let [low, high] = [0, maxFlow]
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2
    if (left(mid) > 0) low = mid
    else high = mid
  }
  return low * 3.6e6
}

export const trial = (id: string, more: Partial<TrialRecord> & { flow: number }): TrialRecord => ({
  id,
  state: 'empty',
  hookupId: null,
  lift: 0,
  waterTemperature: 22,
  mainsFrequency: 50,
  method: METHOD,
  runs: runsAt(more.flow),
  ...more,
})
export const SEGMENTS: readonly Segment[] = [
  { kind: 'hose', id: 'h', label: 'Hose', length: 3, diameter: 0.016, roughness: 1.5e-6 },
  { kind: 'fitting', id: 'f', label: 'Fittings', lossCoefficient: 8, diameter: 0.016, count: 1 },
]
export const labelOnly: ModelRecord = {
  kind: 'canister',
  mainsFrequency: 50,
  claims: [
    { quantity: 'rated-flow', value: lph(1000), mainsFrequency: 50 },
    { quantity: 'max-head', value: 1.8, mainsFrequency: 50 },
    { quantity: 'tank-min', value: 0.06 },
    { quantity: 'tank-max', value: 0.3 },
  ],
  hookups: [],
  trials: [],
  mediaMass: null,
}
export const hookup = {
  id: 'h1',
  name: 'Cabinet',
  outletAboveWater: -0.04,
  sourceBelowWater: 0,
  bodyBelowWater: 0.9,
  segments: SEGMENTS,
}
