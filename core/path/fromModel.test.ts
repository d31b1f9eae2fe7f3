import { assess } from '../judging'
import type { ModelRecord, TrialRecord } from '../trials'
import type { Figure } from '../figures'
import { airlift, airliftCurve } from '../hydraulics'
import {
  atLift,
  caseOfTrial,
  fillAt,
  pathFlowFigure,
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
  // Pumps give 75 to 100 % of their label bare (rule of thumb): the curve reaches 87.5 % as far, ± a seventh.
  expect(base.drive.pump.maxFlow * 3.6e6).toBeCloseTo(1034.26 * 0.875, 1)
  expect(base.drive.knowledge).toEqual({ kind: 'label', reach: expect.closeTo(1 / 7, 9) as unknown })
  expect([base.rest, restTrialId, base.temperature]).toEqual([0, null, 25])
})

test('without a pump, or without air, it says what to do', () => {
  expect(pathBase(record({ ...label, claims: [] }))).toMatchObject({ kind: 'missing', what: expect.stringMatching(/a pump: add rated flow and maximum head, or time the flow at three heights/) as unknown }) // prettier-ignore
  expect(pathBase(record({ ...label, kind: 'air-sponge', claims: [] }))).toMatchObject({ kind: 'missing', what: expect.stringMatching(/a flow: time some runs with the air on/) as unknown }) // prettier-ignore
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
  expect(said(pathFlowFigure(o))).toEqual([expect.stringMatching(/As shipped,no plumbing,airlift flow falls in a straight line to zero at half its depth \(rule of thumb\),Q0 set by the test with media,[\d.,\s]+ °C/) as unknown, 'rule', 'computed', 'rule']) // prettier-ignore
  // With riser and air on record it is the airlift's own curve, and neither printed nor straight.
  const own = timed('own', flow, { kind: 'air', setup: { submergence: 0.3, riserDiameter: 0.018 }, hookupId: null, lift: 0.02, runs: [0, 1, 2].map(() => ({ series: 'water', value: 1.5e-5, volume: 0.01, seconds: 0.01 / flow })) as never }) // prettier-ignore
  const known = ready(record({ ...sponge, trials: [timed('t', flow, { hookupId: null }), own] })).base
  expect(known.drive.from).toBe('airlift')
  expect(known.drive.pump.exponent).not.toBe(1)
  const told = pathFlowFigure(outcomeOf({ ...known, fill: shipped }, NORMAL, true))
  expect(said(told)).toEqual([expect.stringMatching(/own curve, from riser, depth and air/) as unknown, 'computed', 'computed', 'computed']) // prettier-ignore
  expect(said(pathFlowFigure(outcomeOf({ ...ready(record(label)).base, fill: shipped }, NORMAL, true))).slice(1)).toEqual(['printed', 'rule', 'rule']) // prettier-ignore
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

describe('an airlift by what is on record of it', () => {
  const flow = 200 / 3.6e6
  const water = [0, 1, 2].map(() => ({ series: 'water', value: 1.5e-5, volume: 0.01, seconds: 0.01 / flow })) // prettier-ignore
  const air = (setup: object, more: Partial<TrialRecord> = {}) => timed('air', flow, { kind: 'air', setup, hookupId: null, runs: water as never, ...more }) // prettier-ignore
  const clean = timed('clean', flow, { hookupId: null })
  const drive = (...trials: TrialRecord[]) =>
    ready(record({ ...label, kind: 'air-sponge', claims: [], hookups: [], trials })).base.drive
  const RISER = { riserDiameter: 0.018, submergence: 0.3 }
  test('its own curve takes riser, depth and air; with less of it, a line', () => {
    expect(drive(air(RISER), clean).from).toBe('airlift')
    const short = (x: ReturnType<typeof drive>) => [x.from, +x.pump.shutOffHead.toFixed(9)]
    expect(short(drive(clean))).toEqual(['straight', 0.05])
    expect(short(drive(clean, air({ riserDiameter: 0.018 })))).toEqual(['straight', 0.05])
    expect(short(drive(air({ submergence: 0.4 }), clean))).toEqual(['straight', 0.2])
    expect(short(drive(clean, air(RISER, { runs: [] })))).toEqual(['straight', 0.15])
    // More air than the balance was made for has no curve.
    const much = water.map((r) => ({ ...r, value: 1 })) as never
    expect(short(drive(clean, air(RISER, { runs: much })))).toEqual(['straight', 0.15])
  })
  test('its lift is taken once: by the run, not by the curve as well', () => {
    const r = record({ ...label, kind: 'air-sponge', claims: [], hookups: [], trials: [clean, air(RISER, { lift: 0.04 })] }) // prettier-ignore
    const { base } = ready(r)
    expect(base.drive.pump.shutOffHead).toBe(drive(clean, air(RISER)).pump.shutOffHead)
    const free = { ...base, drive: { ...base.drive, pump: airliftCurve({ diameter: 0.018, submergence: 0.3, lift: 0 }, 1.5e-5) } } // prettier-ignore
    const lifted = (lift: number) => flowOfCase(atLift({ ...free, fill: { ...shipped, layers: [] } }, lift))
    for (const lift of [0.02, 0.04, 0.06])
      // The curve has three numbers: within a tenth of the balance of forces, up to half of its shut-off head.
      expect(Math.abs(lifted(lift) / airlift({ diameter: 0.018, submergence: 0.3, lift }, 1.5e-5).flow - 1)).toBeLessThan(0.1) // prettier-ignore
  })
  test('what it lifts dirty is not what it lifts', () => {
    const dirty = timed('dirty', flow / 2, { hookupId: null, state: 'dirty' })
    expect(drive(clean, dirty).pump.maxFlow).toBe(drive(clean).pump.maxFlow)
  })
})

describe('which trial tells of a fill', () => {
  const told = (
    model: Partial<ModelRecord>,
    more: Partial<PathRecord> = {},
    fillId: string | null = null,
  ) => {
    const base = pathBase(record({ ...label, ...model }, more), fillId)
    return base.kind === 'ready' ? base.restTrialId : base.what
  }
  const at = (id: string, more: Partial<TrialRecord> = {}) => timed(id, 450 / 3.6e6, more)
  test('one of the fill itself before one as shipped', () => {
    const trials = [at('own', { state: 'proposed' }), at('shipped')]
    expect([told({ trials }, {}, 'better'), told({ trials }), told({ trials }, {}, 'third')]).toEqual(['own', 'shipped', 'shipped']) // prettier-ignore
  })
  test('as shipped is what it is called and what was in it', () => {
    expect(told({ trials: [at('t')] }, { fillOfTrial: { t: 'better' } })).toBeNull()
    expect(told({ trials: [at('t', { state: 'proposed' })] }, { fillOfTrial: { t: 'shipped' } })).toBeNull()
  })
  test('nearest to how the filter stands; a trial below the water is one at none', () => {
    const high = { ...hookup, outletAboveWater: 0.3 }
    expect(told({ hookups: [high], trials: [at('low'), at('high', { lift: 0.4 })] })).toBe('high')
    expect(told({ trials: [at('below', { lift: -0.5 }), at('high', { lift: 0.2 })] })).toBe('below')
    // No nearer by less than nothing: the newer of two alike.
    expect(told({ trials: [at('old', { lift: 0.1 }), at('new', { lift: 0.1 + 1e-12 })] })).toBe('new')
  })
  test('on hoses only with a hookup; a filter without any hangs as it hangs', () => {
    const trials = [at('t', { hookupId: null })]
    expect(told({ trials })).toBeNull()
    expect(told({ kind: 'hang-on-back', hookups: [], trials })).toBe('t')
  })
})

test('the base has the hookup asked for, what was weighed as shipped, and a second filter where there is one', () => {
  const other = { ...hookup, id: 'other', name: 'Longer' }
  const model: ModelRecord = { ...label, hookups: [hookup, other], mediaMass: { mass: 1.3, weighed: true } } // prettier-ignore
  const base = (more: Partial<PathRecord>, m: Partial<ModelRecord> = {}) => ready(record({ ...model, ...m }, more)).base // prettier-ignore
  expect([base({}).hookup?.id, base({ hookupId: 'other' }).hookup?.id, base({ hookupId: 'gone' }).hookup?.id]).toEqual(['h', 'other', 'h']) // prettier-ignore
  // Nobody has described a run: the usual one of its kind, held to the label less 40 to 50 %.
  const usual = base({}, { hookups: [] })
  expect([usual.hookup?.name, usual.supposed?.within]).toEqual(['usual plumbing (assumed)', { label: 1000 / 3.6e6, low: expect.closeTo(500 / 3.6e6, 12) as unknown, high: expect.closeTo(600 / 3.6e6, 12) as unknown }]) // prettier-ignore
  expect([base({}).supposed, new Set(usual.hookup?.segments.map((s) => s.id)).size]).toEqual([undefined, usual.hookup?.segments.length]) // prettier-ignore
  expect(base({}).weighed).toEqual({ fillId: 'shipped', mass: 1.3 })
  expect([base({}, { mediaMass: { mass: 1.3, weighed: false } }).weighed, base({}, { mediaMass: null }).weighed, base({ fills: [proposed] }).weighed]).toEqual([null, null, null]) // prettier-ignore
  expect(base({}).second).toBeNull()
  const second = { label: 'x', arrangement: 'series', running: true, shutOffHead: 1, maxFlow: 1e-4, exponent: 2, lossCoefficient: 1 } as const // prettier-ignore
  expect(base({ second }).second).toBe(second)
})

test('a trial as a case of its own: its hookup, its lift, its mains and its water; without a fill there is none', () => {
  const other = { ...hookup, id: 'other', name: 'Longer' }
  const model = { ...label, hookups: [hookup, other], trials: [timed('t', 450 / 3.6e6, { hookupId: 'other', lift: 0.2, mainsFrequency: 60, salinity: 35 }), timed('e', 1e-4, { state: 'empty' }), timed('b', 1e-4, { lift: -0.1 })] } // prettier-ignore
  const r = record(model)
  const { base } = ready(r)
  const [t, e, below] = r.assessment.trials
  const c = t && caseOfTrial({ ...base, second: {} as never }, r, t)
  expect(c).toMatchObject({ temperature: 22, salinity: 35, second: null, fill: { id: 'shipped' }, hookup: { id: 'other', outletAboveWater: 0.2, sourceBelowWater: 0 } }) // prettier-ignore
  // Affinity: 60 for 50 Hz is 1.2 times the flow and 1.44 times the head.
  expect((c?.drive.pump.shutOffHead ?? 0) / base.drive.pump.shutOffHead).toBeCloseTo(1.44, 9)
  expect((c?.drive.pump.maxFlow ?? 0) / base.drive.pump.maxFlow).toBeCloseTo(1.2, 9)
  expect(below && caseOfTrial(base, r, below).hookup?.outletAboveWater).toBe(0)
  expect(() => e && caseOfTrial(base, r, e)).toThrow('no media setup recorded')
})

test('more flow than hose and media allow tells how far the curve reaches, less what the body takes', () => {
  const base = (flow: number) => ready(record({ ...label, trials: [timed('t', flow / 3.6e6)] })).base
  expect([base(450).told?.knob, base(450).drive.reach]).toEqual(['rest', undefined])
  const far = base(1100)
  expect([far.told?.knob, far.rest]).toEqual(['reach', 0])
  expect(far.drive.reach).toBeGreaterThan(1)
  expect(far.drive.pump.maxFlow / base(450).drive.pump.maxFlow).toBeCloseTo(far.drive.reach ?? 0, 9)
})
