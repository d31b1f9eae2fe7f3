import { assess, type ModelRecord, type TrialRecord } from '../judging'
import type { Figure } from '../figures'
import {
  caseOfTrial,
  fillAt,
  flowFigure,
  flowOfCase,
  loadedTrials,
  outcomeOf,
  pathBase,
  type PathRecord,
} from '.'
import { caseWith, layer, medium, NORMAL } from './tests/support'

const FINE = medium('Fine pad')
const RINGS = medium('Sintered glass rings')
const shipped = { id: 'shipped', name: 'As shipped', basis: 'as-shipped', layers: [layer('r', 'high', RINGS, 60)] } as const // prettier-ignore
const proposed = { id: 'better', name: 'Better', basis: 'proposed', layers: [layer('p', 'low', FINE, 20), layer('r', 'high', RINGS, 60)] } as const // prettier-ignore
const c = caseWith([])
const hookup = c.hookup as NonNullable<typeof c.hookup>

const METHOD = { vessel: 0, resolution: 0.01, reaction: 0.01 }
const timed = (id: string, flow: number, more: Partial<TrialRecord> = {}): TrialRecord => ({
  id,
  state: 'as-shipped',
  hookupId: 'h',
  lift: 0,
  waterTemperature: 22,
  mainsFrequency: 50,
  method: METHOD,
  runs: [0, 0.002, -0.002].map((e) => ({ volume: 0.01, seconds: (0.01 / flow) * (1 + e) })),
  ...more,
})
const label: ModelRecord = {
  kind: 'canister',
  mainsFrequency: 50,
  claims: [
    { quantity: 'rated-flow', value: 1000 / 3.6e6, mainsFrequency: 50 },
    { quantity: 'max-head', value: 1.7, mainsFrequency: 50 },
  ],
  hookups: [hookup],
  trials: [],
  mediaMass: null,
}
const record = (model: ModelRecord, more: Partial<PathRecord> = {}): PathRecord => ({
  model,
  assessment: assess(model),
  body: c.body,
  chambers: c.chambers,
  media: c.media,
  fills: [shipped, proposed],
  hookupId: null,
  fillOfTrial: {},
  ...more,
})
const ready = (r: PathRecord) => {
  const base = pathBase(r)
  if (base.kind !== 'ready') throw new Error(base.what)
  return base
}

test('from the label alone: its pump, nothing known of the body, a usual temperature', () => {
  const { base, restTrialId } = ready(record(label))
  expect(base.drive).toMatchObject({ from: 'label', pump: { shutOffHead: 1.7 } })
  // 1000 L/h leave a bore of 16 mm with 0.0973 m of velocity head: Q0 = 1000/(1 − 0.0973/1.7)^(1/1.75) (by hand).
  expect(base.drive.pump.maxFlow * 3.6e6).toBeCloseTo(1034.26, 1)
  expect(base.drive.knowledge).toEqual({ kind: 'label' })
  expect([base.rest, restTrialId, base.temperature]).toEqual([0, null, 25])
})

test('without a pump, or without air, it says what to do', () => {
  expect(pathBase(record({ ...label, claims: [] }))).toMatchObject({ kind: 'missing', what: expect.stringMatching(/copy the rated flow/) as unknown }) // prettier-ignore
  expect(pathBase(record({ ...label, kind: 'air-sponge', claims: [] }))).toMatchObject({ kind: 'missing', what: expect.stringMatching(/with its air on/) as unknown }) // prettier-ignore
})

test('an air-driven body goes by its measured flow, and stops at half the depth its air enters at', () => {
  const flow = 200 / 3.6e6
  const air = timed('air', flow, { kind: 'air', setup: { submergence: 0.3 }, hookupId: null })
  const sponge: ModelRecord = { ...label, kind: 'air-sponge', claims: [], hookups: [], trials: [timed('t', flow, { hookupId: null }), air] } // prettier-ignore
  const { drive } = ready(record(sponge)).base
  expect(drive.from).toBe('straight')
  // The nozzle of its run takes a little, so the curve reaches a little further than the flow it was told.
  expect(drive.pump.maxFlow / flow).toBeCloseTo(1, 2)
  expect(drive.pump.shutOffHead).toBeCloseTo(0.15, 12)
  const o = outcomeOf({ ...ready(record(sponge)).base, fill: shipped }, NORMAL, true)
  const said = (f: Figure) => [
    f.conditions?.join(),
    ...(f.working ?? []).slice(0, 3).map((w) => w.provenance),
  ]
  expect(said(flowFigure(o))).toEqual([expect.stringMatching(/straight from the measured flow.*Q0 as far as the trial/) as unknown, 'rule', 'computed', 'rule']) // prettier-ignore
  // With riser and air on record it is the airlift's own curve, and neither printed nor straight.
  const own = timed('own', flow, { kind: 'air', setup: { submergence: 0.3, riserDiameter: 0.018 }, hookupId: null, lift: 0.02, runs: [0, 1, 2].map(() => ({ series: 'water', value: 1.5e-5, volume: 0.01, seconds: 0.01 / flow })) as never }) // prettier-ignore
  const known = ready(record({ ...sponge, trials: [timed('t', flow, { hookupId: null }), own] })).base
  expect(known.drive.from).toBe('airlift')
  expect(known.drive.pump.exponent).not.toBe(1)
  const told = flowFigure(outcomeOf({ ...known, fill: shipped }, NORMAL, true))
  expect(said(told)).toEqual([expect.stringMatching(/own curve, from riser, depth and air/) as unknown, 'computed', 'computed', 'computed']) // prettier-ignore
  expect(said(flowFigure(outcomeOf({ ...ready(record(label)).base, fill: shipped }, NORMAL, true))).slice(1)).toEqual(['printed', 'printed', 'rule']) // prettier-ignore
})

test('the loaded trial tells what trays and body take: worked through again, it gives its own flow', () => {
  const flow = 450 / 3.6e6
  const r = record({ ...label, trials: [timed('told', flow)] })
  const { base, restTrialId, restFill } = ready(r)
  expect([restTrialId, restFill, base.temperature]).toEqual(['told', 'As shipped', 22])
  expect(base.rest).toBeGreaterThan(0)
  const told = r.assessment.trials[0]
  expect(told && flowOfCase(caseOfTrial(base, r, told)) / flow).toBeCloseTo(1, 4)
})

test('of several, the one at the lift nearest to how the filter stands tells it, and the newest of those alike', () => {
  const at = (id: string, lift: number, flow = 450): TrialRecord => timed(id, flow / 3.6e6, { lift })
  const told = (...trials: TrialRecord[]): string | null => ready(record({ ...label, trials })).restTrialId
  expect(told(at('low', 0), at('high', 0.4))).toBe('low')
  expect(told(at('high', 0.4), at('low', 0))).toBe('low')
  expect(told(at('old', 0), at('new', 0))).toBe('new')
})

test('a trial of another fill, an empty one and a dirty one tell nothing of the body', () => {
  const trials = [
    timed('empty', 6e-5, { state: 'empty' }),
    timed('dirty', 6e-5, { state: 'dirty' }),
    timed('better', 6e-5, { state: 'proposed' }),
  ]
  const r = record({ ...label, trials })
  expect(ready(r).restTrialId).toBeNull()
  expect(loadedTrials(r).map((t) => t.trial.id)).toEqual(['better'])
})

test('a fill noted by hand goes before the trial’s state; one that is gone is none', () => {
  const r = record(label, { fillOfTrial: { t: 'better', gone: 'nowhere' } })
  expect(fillAt(r, { id: 't', state: 'as-shipped' })?.name).toBe('Better')
  expect(fillAt(r, { id: 'u', state: 'as-shipped' })?.name).toBe('As shipped')
  expect(fillAt(r, { id: 'gone', state: 'as-shipped' })).toBeNull()
  expect(fillAt(r, { id: 'u', state: 'empty' })).toBeNull()
})

test('a fill that cannot be worked out leaves the body unknown instead of failing', () => {
  const broken = { ...shipped, layers: [layer('r', 'high', RINGS, 60, { gap: 0.5 })] }
  const r = record({ ...label, trials: [timed('told', 450 / 3.6e6)] }, { fills: [broken] })
  expect(ready(r)).toMatchObject({ restTrialId: null, base: { rest: 0 } })
})
