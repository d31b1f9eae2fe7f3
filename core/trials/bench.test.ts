import { sentenceText } from '../figures'
import { airNetwork, outletFlow, type AirOutlet } from '../hydraulics'
import { logSummary, mixedResponse, thinned } from '../bench'
import { readingProblem, TRIAL_KINDS, type TrialKind } from './readings'
import { trialFlow } from './flow'
import { type BenchReading } from '../bench/shape'
import { assess } from '../judging/assess'
import { disagreements } from './disagreements'
import { trialFindings } from '.'
import { trialResults } from './flows'
import { proposedLifts, proposedTrials } from '../judging/proposed'
import type { ModelRecord, TrialRecord } from './records'
import { trialOf } from './records.fixture'

const lph = (q: number): number => q / 3.6e6
const model = (trials: readonly TrialRecord[], more: Partial<ModelRecord> = {}): ModelRecord => ({
  kind: 'canister',
  mainsFrequency: 50,
  claims: [],
  hookups: [],
  mediaMass: null,
  trials,
  ...more,
})
const found = (t: TrialRecord, more: Partial<ModelRecord> = {}) => {
  const m = model([t], more)
  const f = trialFindings({ model: m, flows: trialResults(m), main: null })[0]
  if (!f) throw new Error('no finding')
  return { ...f, text: f.sentences.map((s) => sentenceText(s, 'metric')).join(' ') }
}

describe('flows by every method agree on the same water', () => {
  // 500 L/h by hand: 5 L in 36 s; 4.9858 kg by the scale at 20 °C (998.207 kg/m³ ÷ 1.00105); 22 500 pulses at 4500 a litre.
  const runs: Record<string, BenchReading> = {
    vessel: { volume: 0.005, seconds: 36 },
    weighed: { value: (0.005 * 998.207) / 1.0010522, seconds: 36 },
    meter: { value: 22500, seconds: 36 },
    read: { value: lph(500) },
  }
  test('sea water on the scale: S 35 at 25 °C is 1023.343 kg/m³ (UNESCO check value), so 5 kg are less water', () => {
    const weigh = (salinity: number) =>
      trialFlow(trialOf('weighed', [{ value: 5, seconds: 30 }, { value: 5, seconds: 30 }], { waterTemperature: 25, salinity })) // prettier-ignore
    // Q = m B/(ρ t), B = 1 + 1.2 (1/1023.343 − 1/8000) = 1.0010226 (by hand).
    expect(weigh(35)?.mean).toBeCloseTo((5 * 1.0010226) / 1023.343 / 30, 9)
    expect((weigh(0)?.mean ?? 0) / (weigh(35)?.mean ?? 1)).toBeCloseTo(1.0264, 3)
  })
  test.each(['vessel', 'weighed', 'meter', 'read'] as const)('%s: 500 L/h', (kind) => {
    const r = trialFlow(trialOf(kind, [runs[kind] ?? {}, runs[kind] ?? {}]))
    expect((r?.mean ?? 0) * 3.6e6).toBeCloseTo(500, 2)
    expect(r?.expandedUncertainty).toBeGreaterThan(0)
  })
  test('kinds that are no flow give none; a meter of few pulses is surer the longer it counts', () => {
    expect(trialFlow(trialOf('power', [{ value: 14 }]))).toBeNull()
    const u = (pulses: number, seconds: number): number =>
      (trialFlow(
        trialOf('meter', [{ value: pulses, seconds }], { setup: { kFactor: 1000, kUncertainty: 0.001 } }),
      )?.expandedUncertainty ?? 0) /
      (pulses / 1000 / seconds)
    expect(u(10, 10)).toBeGreaterThan(u(1000, 1000))
  })
})

describe('what a reading of each kind must hold', () => {
  const good: Record<TrialKind, BenchReading> = {
    vessel: { volume: 0.005, seconds: 30 },
    weighed: { value: 5, seconds: 30 },
    meter: { value: 2000, seconds: 30 },
    read: { value: 1e-4 },
    'shut-off': { value: 1.4 },
    'meter-check': { value: 22000, volume: 0.005 },
    power: { value: 14 },
    noise: { value: 40, series: 'with' },
    dye: { seconds: 3, value: 0 },
    holding: { seconds: 20, outcome: 'still' },
    prime: { seconds: 0, series: 'leak', outcome: 'no' },
    air: { value: 2e-5, series: 'water', volume: 0.001, seconds: 30 },
    'water-test': { value: 0.25e-3, series: 'ammonia' },
    clarity: { value: 4, series: 'before', outcome: 'rated' },
  }
  test.each(TRIAL_KINDS)('%s: a whole one is taken, and each missing piece is named', (kind) => {
    expect(readingProblem(kind, good[kind])).toBeNull()
    for (const field of Object.keys(good[kind]) as (keyof BenchReading)[]) {
      const { [field]: _gone, ...rest } = good[kind]
      const wrong = readingProblem(kind, rest)
      if (wrong) expect(wrong.message).toBeTruthy()
      if (field === 'seconds' || field === 'value') expect([field, wrong === null]).toEqual([field, false])
    }
  })
})

test('power: five watts, the year, its cost, and where the label stands', () => {
  const f = found(
    trialOf(
      'power',
      [13, 15, 14, 14, 14].map((value) => ({ value })),
      {
        setup: { relative: 0.01, pricePerKwhMinor: 31, currency: 'EUR' },
      },
    ),
    { claims: [{ quantity: 'power', value: 10 }] },
  )
  const at = (label: RegExp): number => f.figures.find((x) => label.test(x.label))?.value ?? NaN
  expect(at(/Power/)).toBeCloseTo(14, 10)
  // 14 W · 8765.82 h = 122.72 kWh, at 0.31 EUR 38.04 (by hand).
  expect(at(/Energy/)).toBeCloseTo(122.7215, 3)
  expect(at(/Cost/)).toBeCloseTo(38.04, 2)
  expect(f.text).toContain('Power 14.0 ± 0.9 W, label 10 W: more than the label.')
})

test('a price in a currency without cents is taken as it is written', () => {
  const setup = { relative: 0.01, pricePerKwhMinor: 31, currency: 'JPY' }
  const f = found(trialOf('power', [{ value: 14 }], { setup }))
  // 122.72 kWh at 31 yen (by hand).
  expect(f.figures.find((x) => x.label === 'Cost of a year, JPY')?.value).toBeCloseTo(122.7215 * 31, 1)
})

test('power from a log of many points counts its scatter', () => {
  const summary = logSummary([0, 1, 2, 3], [13, 15, 13, 15])
  expect(summary).toMatchObject({ n: 4, span: 3, mean: 14, min: 13, max: 15 })
  const f = found(trialOf('power', [], { logs: [{ id: 'l', series: '', ...summary }] }))
  expect(f.figures[0]?.value).toBe(14)
})

test('efficiency at the duty point: 600 L/h against the pump’s head there, over the watts', () => {
  const runs = [30, 30, 30].map((seconds) => ({ volume: 0.005, seconds }))
  const m = model(
    [
      ...[0, 0.4, 0.8].map((lift, i) =>
        trialOf('vessel', [{ volume: 0.005, seconds: 18 / (1 - lift / 2) }], { id: `e${i}`, lift }),
      ),
      trialOf('vessel', runs, { id: 'loaded', state: 'as-shipped', hookupId: 'h' }),
      trialOf('power', [{ value: 14 }], { state: 'as-shipped', hookupId: 'h' }),
    ],
    {
      hookups: [
        {
          id: 'h',
          name: 'Hoses',
          outletAboveWater: 0,
          sourceBelowWater: 0,
          bodyBelowWater: 0.8,
          segments: [{ kind: 'hose', id: 'x', label: 'Hose', length: 3, diameter: 0.016, roughness: 1.5e-6 }],
        },
      ],
    },
  )
  const a = assess(m)
  const eta = a.findings[0]?.figures.find((x) => x.unit === '%')
  const head = a.main?.measured?.pumpHead ?? NaN
  // η = ρ g Q H / P, worked again by hand.
  expect(eta?.value).toBeCloseTo((998.2 * 9.80665 * lph(600) * head) / 14, 4)
})

describe('noise', () => {
  const levels = (series: string, ...v: number[]) => v.map((value) => ({ value, series }))
  test('ΔL 6 dB takes 1.26 dB off (ISO 3744; from memory)', () => {
    const f = found(trialOf('noise', [...levels('with', 40), ...levels('without', 34)]))
    expect(f.figures[0]?.value).toBeCloseTo(40 - 1.256, 2)
    expect(f.text).toContain('At an unknown distance: 39 ± 5 dB, background subtracted.')
  })
  test('less than 6 dB over the room is an upper bound; without a background it says so', () => {
    expect(found(trialOf('noise', [...levels('with', 33), ...levels('without', 32)])).text).toContain(
      'At an unknown distance: 32 ± 4 dB, the room was too loud for a sure value (less than 6 dB apart).',
    )
    expect(found(trialOf('noise', levels('with', 40))).text).toContain(
      'At an unknown distance: 40 ± 4 dB, room noise included (background not measured).',
    )
    expect(found(trialOf('noise', levels('without', 31))).text).toContain('Only the background was measured.')
  })
})

describe('dye', () => {
  const rise = (delay: number, tau: number) =>
    Array.from({ length: 30 }, (_, i) => ({
      time: i * 10,
      concentration: 8 * (1 - Math.exp(-Math.max(0, i * 10 - delay) / tau)),
    }))
  test('the mixed response finds the delay and time constant it was made from', () => {
    const r = mixedResponse(rise(25, 60))
    expect(r.final).toBeCloseTo(8, 2)
    expect(r.delay).toBeCloseTo(25, 1)
    expect(r.timeConstant).toBeCloseTo(60, 1)
    // 95 % of the final strength after delay + τ ln 20.
    expect(Math.abs((r.mixed ?? 0) - (25 + 60 * Math.log(20)))).toBeLessThan(2)
    expect(() => mixedResponse(rise(25, 60).slice(0, 3))).toThrow('five points')
  })
  test('by point: the far corner colours later; a pulse gives Levenspiel’s 15 min mean', () => {
    const tapped = [
      ...rise(5, 50).map((p) => ['near', p] as const),
      ...rise(40, 70).map((p) => ['far corner', p] as const),
    ]
    const f = found(
      trialOf(
        'dye',
        tapped.map(([series, p]) => ({ series, seconds: p.time, value: p.concentration })),
        {
          setup: { points: ['near', 'far corner'] },
        },
      ),
    )
    const coloured = (p: string): number =>
      f.figures.find((x) => x.id.includes(`-${p}-coloured`))?.value ?? NaN
    expect(coloured('far corner')).toBeGreaterThan(coloured('near') + 25)
    const pulse = found(
      trialOf(
        'dye',
        [0, 3, 5, 5, 4, 2, 1, 0].map((value, i) => ({ seconds: i * 300, value, series: 'outlet' })),
      ),
    )
    expect(pulse.figures.find((x) => x.id.endsWith('-mean'))?.value).toBeCloseTo(900, 8)
  })
  test('too few points are said, by point, and break nothing else', () => {
    expect(found(trialOf('dye', [{ seconds: 0, value: 1, series: 'near' }])).text).toContain('near: ')
  })
})

describe('holding, priming, air, meter', () => {
  test('censored cups give no made-up median', () => {
    const still = { outcome: 'still', series: 'cups' }
    const f = found(
      trialOf('holding', [
        { seconds: 20, ...still },
        { seconds: 600, ...still },
      ]),
    )
    expect(f.figures).toEqual([])
    expect(f.text).toContain('2 of 2 still held')
    expect(f.text).toContain('Cups: 2 of 2 still held when the test ended, the longest at 600 s.')
    const half = found(
      trialOf('holding', [
        { seconds: 30, outcome: 'let-go', series: 'cups' },
        { seconds: 600, ...still },
      ]),
    )
    expect(half.figures[0]?.value).toBe(30)
  })
  test('priming at the second try, a leak with its place and amount, no rattle', () => {
    const f = found(
      trialOf('prime', [
        { series: 'prime', outcome: 'no', seconds: 60 },
        { series: 'prime', outcome: 'yes', seconds: 14.5 },
        { series: 'leak', outcome: 'yes', seconds: 0, value: 18e-6, note: 'left clip' },
        { series: 'rattle', outcome: 'no', seconds: 0 },
      ]),
    )
    expect(f.text).toContain('Primed at try 2, full flow after 14.5 s.')
    expect(f.text).toContain('Leaks: 18 mL (left clip).')
    expect(f.text).toContain('Does not rattle.')
  })
  test('a quarter of the air beside the riser is a leak; the rest is held against the airlift model', () => {
    const f = found(
      trialOf(
        'air',
        [
          { series: 'supplied', value: 2e-5 },
          { series: 'riser', value: 1.5e-5 },
          { series: 'water', value: 2e-5, volume: 0.001, seconds: 40 },
        ],
        { setup: { riserDiameter: 0.018, submergence: 0.3 }, lift: 0.02 },
      ),
      { kind: 'air-sponge' },
    )
    expect(f.figures.find((x) => x.id.startsWith('air-leak'))?.value).toBeCloseTo(0.25, 10)
    expect(f.text).toMatch(/25\s?% of the air is lost at the fitting and lifts no water\./)
    expect(f.figures.find((x) => x.id.startsWith('airlift-ratio'))?.value).toBeGreaterThan(0)
  })
  test('a meter set 4.8 % low is said with the factor to set; one that agrees is left alone', () => {
    const checks = [23600, 23650, 23625].map((value) => ({ value, volume: 0.005 }))
    const f = found(trialOf('meter-check', checks))
    expect(f.text).toContain(
      'Wrong meter factor: 4.8 % too low, so its flows read high. Set it to 4 725 ± 95.',
    )
    expect(f.text).toContain('too low, so its flows read high')
    expect(found(trialOf('meter-check', checks, { setup: { kFactor: 4.725e6 } })).text).toContain(
      'agrees with this check',
    )
    const one = found(trialOf('meter-check', checks.slice(0, 1)))
    expect(one.problem).toContain('one shows no scatter')
  })
  test('a meter and a vessel that disagree under the same conditions are set against each other; at other lifts not', () => {
    const vessel = trialOf(
      'vessel',
      [36, 36.1, 35.9].map((seconds) => ({ volume: 0.005, seconds })),
    )
    const meter = (lift: number) =>
      trialOf(
        'meter',
        [23600, 23610].map((value) => ({ value: value * 1.04, seconds: 36 })),
        { lift },
      )
    const said = (t: TrialRecord) => disagreements(trialResults(model([vessel, t]))).length
    expect(said(meter(0))).toBe(1)
    expect(said(meter(0.5))).toBe(0)
  })
})

test('points taken out of the fit are kept with their reason; shut-off heads are points of the curve', () => {
  const flow = (lift: number): number => lph(700) * (1 - lift / 1.5) ** (1 / 1.8)
  const at = (lift: number, more: Partial<TrialRecord> = {}) =>
    trialOf(
      'vessel',
      [0.999, 1, 1.001].map((k) => ({ volume: 0.005, seconds: (0.005 / flow(lift)) * k })),
      { id: `l${lift}`, lift, ...more },
    )
  const odd = trialOf('vessel', [{ volume: 0.005, seconds: 90 }], { id: 'odd', lift: 0.3 })
  const trials = [
    at(0),
    at(0.3, { id: 'third' }),
    at(0.6),
    at(0.9),
    at(1.2),
    trialOf('shut-off', [{ value: 1.5 }]),
  ]
  const clean = assess(model(trials)).pump
  expect(clean?.pump.shutOffHead).toBeCloseTo(1.5, 2)
  expect(clean?.curve.points.map((p) => p.flow)).toContain(0)
  const spoiled = assess(model([...trials, odd])).pump
  const mended = assess(model([...trials, { ...odd, outReason: 'hose kinked' }])).pump
  expect(Math.abs((spoiled?.pump.exponent ?? 0) - 1.8)).toBeGreaterThan(0.05)
  expect(mended?.pump.exponent).toBeCloseTo(clean?.pump.exponent ?? NaN, 8)
  expect(mended?.curve.out).toMatchObject([{ trialId: 'odd', reason: 'hose kinked' }])
})

describe('the usual set', () => {
  test('lifts are shares of the label’s head, three where it is small', () => {
    expect(proposedLifts(2)).toEqual([0.4, 0.8, 1.2, 1.6])
    expect(proposedLifts(0.6)).toEqual([0.15, 0.3, 0.45])
  })
  test('each kind is asked for what it can give, and what is done is ticked', () => {
    const of = (kind: ModelRecord['kind'], trials: TrialRecord[] = []) =>
      proposedTrials(model(trials, { kind, claims: [{ quantity: 'max-head', value: 2 }] }))
    expect(of('air-sponge').map((p) => p.kind)).toContain('air')
    expect(of('air-sponge').map((p) => p.kind)).not.toContain('shut-off')
    expect(of('internal').map((p) => p.kind)).toContain('holding')
    const runs = [30, 30, 30].map((seconds) => ({ volume: 0.005, seconds }))
    const some = of('canister', [
      trialOf('vessel', runs, { lift: 0.42 }),
      trialOf('vessel', runs.slice(0, 1), { id: 'bare' }),
    ])
    expect(some.find((p) => p.id === 'lift-0.4')?.done).toBe(true)
    // One run is begun, not done.
    expect(some.find((p) => p.id === 'bare')).toMatchObject({ done: false, trialId: 'bare' })
  })
})

describe('one air pump over many outlets', () => {
  const outlet = (id: string, depth: number, linear = 2e8): AirOutlet => ({
    id,
    label: id,
    depth,
    linear,
    quadratic: 0,
  })
  const pump = { shutOffPressure: 20000, maxFlow: 8e-5 }
  test('the outlets take what the pump gives, and each has its own water above it', () => {
    const r = airNetwork(pump, [outlet('a', 0.3), outlet('b', 0.5)])
    const given = pump.maxFlow * (1 - r.pressure / pump.shutOffPressure)
    expect(r.flow).toBeCloseTo(given, 12)
    expect(r.outlets[0]?.flow).toBeGreaterThan(r.outlets[1]?.flow ?? 0)
    expect(r.outlets.reduce((s, o) => s + o.share, 0)).toBeCloseTo(1, 12)
    // One linear outlet by hand: p = ρ g d + a q and p = p0 (1 − q/q0).
    const one = airNetwork(pump, [outlet('a', 0.3)])
    const q = (20000 - 997 * 9.80665 * 0.3) / (2e8 + 20000 / 8e-5)
    expect(one.flow).toBeCloseTo(q, 12)
  })
  test('a leak at the fitting is one more outlet, at no depth, and robs the others; a closed valve passes nothing', () => {
    const tight = airNetwork(pump, [outlet('a', 0.3)])
    const leaky = airNetwork(pump, [outlet('a', 0.3), outlet('leak', 0, 8e8)])
    expect(leaky.outlets[0]?.flow).toBeLessThan(tight.outlets[0]?.flow ?? 0)
    expect(outletFlow(15000, { ...outlet('a', 0.3), open: 0 })).toBe(0)
    expect(outletFlow(1000, outlet('deep', 0.5))).toBe(0)
    // A valve of 4 mm left open by a hundredth: b = 10 · 1.2/(2 (π/4 · 0.004² · 0.01)²) = 3.7995e14 Pa/(m³/s)², so
    // that 15 000 Pa over 30 cm of water and a stone of 2e8 pass the root of b q² + 2e8 q = 12 066.8 (by hand).
    const b = (10 * 1.2) / (2 * (1.2566371e-5 * 0.01) ** 2)
    const q = (-2e8 + Math.sqrt(4e16 + 4 * b * (15000 - 997 * 9.80665 * 0.3))) / (2 * b)
    expect(b / 3.7995e14).toBeCloseTo(1, 3)
    expect(outletFlow(15000, { ...outlet('a', 0.3), open: 0.01 }) / q).toBeCloseTo(1, 6)
    expect(outletFlow(15000, { ...outlet('a', 0.3), open: 1 })).toBeGreaterThan(
      5 * outletFlow(15000, { ...outlet('a', 0.3), open: 0.01 }),
    )
    expect(() => airNetwork(pump, [outlet('a', -1)])).toThrow('outlets[0].depth')
    expect(() => airNetwork({ ...pump, maxFlow: 0 }, [])).toThrow('pump.maxFlow')
  })
})

test('a long log is drawn from few points with its peaks kept; faults of a log are named', () => {
  const points = Array.from({ length: 10000 }, (_, i) => ({
    time: i,
    value: i === 4321 ? 99 : Math.sin(i / 40),
  }))
  const few = thinned(points, 300)
  expect(few.length).toBeLessThanOrEqual(602)
  expect(few.some((p) => p.value === 99)).toBe(true)
  expect(few[0]).toBe(points[0])
  expect(few.at(-1)).toBe(points.at(-1))
  few.forEach((p, i) => expect(p.time).toBeGreaterThan(few[i - 1]?.time ?? -1))
  expect(() => logSummary([0, 0], [1, 2])).toThrow('times[1]')
  expect(() => logSummary([0], [NaN])).toThrow('values[0]')
  expect(() => logSummary([], [])).toThrow('empty')
})
