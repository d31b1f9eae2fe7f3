import { airlift } from '../hydraulics'
import {
  airliftAgainst,
  compareWithLabel,
  correctedNoise,
  flowFromRuns,
  hydraulicPower,
  kaplanMeier,
  logSummary,
  looksMixed,
  MAX_LOG,
  meterFactor,
  mixedResponse,
  powerFromSummary,
  runsNeeded,
  thinned,
  tracerFigures,
} from '.'

const near = (v: number, digits = 6): number => expect.closeTo(v, digits) as number

describe('timed runs, in litres and minutes so that every part shows', () => {
  // 12 L in 2, 3 and 4 s: 6, 4 and 3 L/s; mean 13/3, deviation √(7/3) = 1.527525; ∂Q/∂t mean (3 + 4/3 + 3/4)/3 = 1.694444.
  const runs = [2, 3, 4].map((seconds) => ({ volume: 12, seconds }))
  test('each part of the uncertainty by hand, at scales where none hides behind another', () => {
    const r = flowFromRuns(runs, { vessel: 0.1, resolution: 0.6, reaction: 0.25 })
    expect(r.mean).toBeCloseTo(13 / 3, 9)
    expect(r.typeA).toBeCloseTo(1.527525 / Math.sqrt(3), 5)
    expect(r.typeB.vessel).toBeCloseTo(0.433333, 6)
    expect(r.typeB.timing).toBeCloseTo((1.694444 * 0.6) / Math.sqrt(36), 5)
    expect(r.typeB.reaction).toBeCloseTo(1.694444 * Math.SQRT2 * 0.25, 5)
    // u² = 0.777778 + 0.187778 + 0.028712 + 0.358897 = 1.353165; ν = 2 · 1.353165²/0.777778² = 6.05372.
    expect(r.standardUncertainty ** 2).toBeCloseTo(1.353165, 4)
    expect(r.effectiveDegreesOfFreedom).toBeCloseTo(6.0537, 2)
    expect(r.interval[1] - r.mean).toBeCloseTo(r.coverageFactor * r.standardUncertainty, 9)
    expect(r.mean - r.interval[0]).toBeCloseTo(r.expandedUncertainty, 9)
  })
  test('the shortest run is taken, a shorter one and one over a day are named', () => {
    const run = (seconds: number) => flowFromRuns([{ volume: 1, seconds }])
    expect(run(0.5).mean).toBe(2)
    expect(run(86400).n).toBe(1)
    for (const seconds of [0.499, 86401, Infinity, NaN]) expect(() => run(seconds)).toThrow('runs[0].seconds')
    expect(() => flowFromRuns([{ volume: -1, seconds: 3 }])).toThrow('runs[0].volume')
  })
  test('the run that stands apart is named whatever side it is on; equal runs and pairs name none', () => {
    const of = (...flows: number[]) =>
      flowFromRuns(
        flows.map((volume) => ({ volume, seconds: 1 })),
        { vessel: 0, resolution: 0, reaction: 0 },
      ).suspect
    expect(of(10, 10.1, 9.9, 10.05, 4)?.index).toBe(4)
    expect(of(16, 10.1, 9.9, 10.05, 10)?.index).toBe(0)
    expect(of(10, 10, 10, 10)).toBeNull()
    expect(of(10, 20)).toBeNull()
    // Three that differ are tested: G = 1.1547 is as far as one of three can be, and 1.1543 the critical value.
    expect(of(10, 10.0001, 30)?.index).toBe(2)
    expect(of(10, 11, 12)).toBeNull()
  })
  test('runs needed: what vessel and hand leave as a floor, and the least number under a target (worked by hand)', () => {
    // 10 L in 10 s with a scatter of 4 %: at a vessel of 1 % the floor is 1.96 %.
    const four = [0.96, 1.04, 0.96, 1.04].map((v) => ({ volume: 10 * v, seconds: 10 }))
    const method = { vessel: 0.01, resolution: 0, reaction: 0 }
    expect(runsNeeded(four, 0.0195, method)).toEqual({ possible: false, floor: near(0.0196, 4) })
    // The floor is a share, so half the flow has the same.
    const slow = four.map((r) => ({ ...r, seconds: 20 }))
    expect(runsNeeded(slow, 0.0195, method)).toEqual({ possible: false, floor: near(0.0196, 4) })
    // s = 0.046188: at n = 12 U = t(ν) √(0.01² + s²/12) = 3.44 %, at n = 11 3.59 %, at 13 3.30 % (t from its table).
    const enough = runsNeeded(four, 0.035, method)
    expect(enough).toEqual({ possible: true, total: 12, more: 8 })
    expect(runsNeeded(four, 0.5, method)).toMatchObject({ possible: true, more: 0 })
    // The clock's resolution is averaged as the runs are: u = 0.6/√12 of 10 s a run.
    const clock = { vessel: 0, resolution: 6, reaction: 0 }
    const even = [10, 10].map((volume) => ({ volume, seconds: 10 }))
    // No scatter: 1.96 · (6/10)/√12/√n ≤ 0.1 from n = 12 on.
    expect(runsNeeded(even, 0.1, clock)).toMatchObject({ possible: true, total: 12 })
  })
})

test('a label of 1000 and 930 ± 20 measured: 7 % short, ± 2 % of the label', () => {
  expect(compareWithLabel(1000, 930, 20)).toMatchObject({ difference: near(-0.07), uncertainty: near(0.02), outsideUncertainty: true, certain: false }) // prettier-ignore
  expect(compareWithLabel(1024, 960, 64).outsideUncertainty).toBe(false)
  expect(compareWithLabel(1024, 1024 * 0.875, 0)).toMatchObject({ grade: null, certain: true })
  expect(() => compareWithLabel(0, 1, 0)).toThrow('label')
  expect(() => compareWithLabel(1, 0, 0)).toThrow('measured')
})

test('watts: 10, 12, 14 through a meter of 5 %: u² = 4/3 + 0.36, ν = 2 · (1.6933/1.3333)² = 3.226; one reading rests on the meter', () => {
  const three = powerFromSummary({ n: 3, mean: 12, deviation: 2 }, 0.05)
  expect(three.standardUncertainty ** 2).toBeCloseTo(1.693333, 6)
  // t(0.975, 3.226) = 3.06 (between 3.182 and 2.776).
  expect(three.expandedUncertainty / three.standardUncertainty).toBeCloseTo(3.06, 1)
  const one = powerFromSummary({ n: 1, mean: 12, deviation: 0 }, 0.05)
  expect(one.expandedUncertainty).toBeCloseTo(1.959964 * 0.6, 5)
  expect(one.yearlyEnergy).toBeCloseTo(12 * 8.76582, 3)
  // ρ g Q H = 1000 · 9.80665 · 0.002 · 3 = 58.84 W.
  expect(hydraulicPower(1000, 0.002, 3)).toBeCloseTo(58.8399, 4)
})

test('a meter of 2 pulses a litre, found 2, 4.2 and 5.8 over 1, 2 and 3 L: K = 27.8/14, off by +0.7, +5.8 and −2.6 %', () => {
  const r = meterFactor([2, 4.2, 5.8].map((pulses, i) => ({ pulses, volume: i + 1 })))
  expect(r.factor).toBeCloseTo(27.8 / 14, 9)
  // Residuals 0.0142857, 0.2285714, −0.1571429: Σ² 0.0771429; s = √(0.0771429/2/14).
  expect(r.standardUncertainty).toBeCloseTo(Math.sqrt(0.0771429 / 28), 6)
  expect(r.deviations).toEqual([near(0.0071942), near(0.057554), near(-0.0263789)])
  expect(() => meterFactor([{ pulses: 2, volume: 1 }])).toThrow('at least two')
  expect(() =>
    meterFactor([
      { pulses: 2, volume: 1 },
      { pulses: 0, volume: 1 },
    ]),
  ).toThrow('checks[1].pulses')
  expect(() =>
    meterFactor([
      { pulses: 2, volume: 0 },
      { pulses: 1, volume: 1 },
    ]),
  ).toThrow('checks[0].volume')
})

test('measured airlift points beside the model’s, and their overall ratio', () => {
  const riser = { diameter: 0.018, submergence: 0.3, lift: 0.02 }
  const model = [1.5e-5, 3e-5].map((air) => airlift(riser, air).flow)
  const r = airliftAgainst(
    riser,
    [1.5e-5, 3e-5].map((air, i) => ({ air, water: (model[i] ?? 0) * (i ? 0.7 : 0.9) })),
  )
  expect(r.points.map((p) => p.model)).toEqual(model)
  expect(r.ratio).toBeCloseTo(
    (0.9 * (model[0] ?? 0) + 0.7 * (model[1] ?? 0)) / ((model[0] ?? 0) + (model[1] ?? 0)),
    12,
  )
  expect(airliftAgainst(riser, [{ air: 1e-9, water: 1e-5 }]).ratio).toBeNaN()
})

describe('a pulse, by hand', () => {
  test('a triangle 0 1 0 over 0, 2, 4 s: mean 2, variance 0.5 by the trapezium rule; half has passed at 2 s', () => {
    // ∫tC = (0 + 2)/2 · 2 + (2 + 0)/2 · 2 = 4, ∫C = 2, ∫t²C = 8: variance 4 − 4 = 0; so with more points: 0 1 2 1 0.
    const r = tracerFigures(
      [0, 1, 2, 1, 0].map((concentration, i) => ({ time: i, concentration })),
      4.2,
    )
    // ∫C = 4, ∫tC = 8, ∫t²C = 18: mean 2, variance 0.5, N = 8; passed 0, 0.5, 2, 3.5, 4.
    expect(r).toMatchObject({ meanResidence: near(2), variance: near(0.5), tanksInSeries: near(8), t50: near(2), tail: 0, extrapolated: 0 }) // prettier-ignore
    // 0.4 of 4 has passed at 0.8 s; 3.6 at 3.2 s.
    expect([r.t10, r.t90, r.morrill]).toEqual([near(0.8), near(3.2), near(4)])
    expect(r.deadShare).toBeCloseTo(1 - 2 / 4.2, 9)
    // t10/τ = 0.19 lies between 0.1 and 0.3, nearer to the first of them.
    expect(r.baffling).toMatchObject({ factor: 0.1, t10Share: near(0.8 / 4.2) })
    expect(
      tracerFigures(
        [0, 1, 2, 1, 0].map((concentration, i) => ({ time: i + 3, concentration })),
        6,
      ).baffling?.factor,
    ).toBe(0.7)
    expect(
      tracerFigures([1, 0, 0].map((concentration, i) => ({ time: i, concentration }))).deadShare,
    ).toBeNull()
  })
  test('an exponential cut at a fifth is carried on: mean, variance and t90 are the whole curve’s (τ, τ², τ ln 10)', () => {
    const tau = 50
    const end = tau * Math.log(5)
    const cut = Array.from({ length: 200 }, (_, i) => ({
      time: (end * i) / 199,
      concentration: 3 * Math.exp(-((end * i) / 199) / tau),
    }))
    const r = tracerFigures(cut)
    expect(r.tail).toBeCloseTo(0.2, 6)
    expect(r.meanResidence / tau).toBeCloseTo(1, 3)
    expect(r.variance / tau ** 2).toBeCloseTo(1, 2)
    expect(r.t90 / (tau * Math.LN10)).toBeCloseTo(1, 3)
    expect(r.t50 / (tau * Math.LN2)).toBeCloseTo(1, 3)
    expect(r.extrapolated).toBeCloseTo(0.2, 3)
  })
  test('a curve that falls fast, then slowly, is carried on at the rate it ends with, not at the mean of both', () => {
    // Peak 10 at 1 s; 9 and 8 stand above the limb (0.7 of the peak); then six points down to 1, then six at e^(−t/10).
    const fast = [0, 10, 9, 8, 6.5, 5, 4, 3, 2, 1]
    const slow = [1, 2, 3, 4, 5, 6].map((t) => Math.exp(-t / 10))
    const c = [...fast, ...slow]
    const r = tracerFigures(c.map((concentration, time) => ({ time, concentration })))
    // By hand: seen = Σ trapezia = 48.5 − 0 − 0.5 + slow; after = e^(−0.6) · 10 s.
    const seen = c.slice(1).reduce((sum, v, i) => sum + (v + (c[i] ?? 0)) / 2, 0)
    const after = Math.exp(-0.6) * 10
    expect(r.extrapolated).toBeCloseTo(after / (seen + after), 6)
  })
  test('a curve that ends while it still rises has no tail to carry on; one that never rose is refused', () => {
    const rising = tracerFigures([0, 1, 2, 3].map((concentration, i) => ({ time: i, concentration })))
    expect([rising.tail, rising.extrapolated]).toEqual([1, 0])
    expect(() => tracerFigures([0, 0, 0].map((concentration, i) => ({ time: i, concentration })))).toThrow(
      'some dye',
    )
    expect(() => tracerFigures([{ time: 0, concentration: 1 }, { time: 0, concentration: 1 }, { time: 1, concentration: 0 }])).toThrow('points[1].time') // prettier-ignore
    expect(() => tracerFigures([{ time: 0, concentration: 1 }, { time: 1, concentration: -1 }, { time: 2, concentration: 0 }])).toThrow('points[1].concentration') // prettier-ignore
    expect(() =>
      tracerFigures([
        { time: 0, concentration: 1 },
        { time: 1, concentration: 0 },
      ]),
    ).toThrow('three points')
  })
})

describe('a rise to the mixed strength', () => {
  const rise = (t: number): number => (t > 20 ? 8 * (1 - Math.exp(-(t - 20) / 40)) : 0)
  const points = Array.from({ length: 61 }, (_, i) => ({ time: 5 * i, concentration: rise(5 * i) }))
  test('final strength, delay and time constant come back; colour at a tenth, mixed at 95 % for good (by hand)', () => {
    const r = mixedResponse(points)
    expect(r.final).toBeCloseTo(8, 2)
    expect(r.delay).toBeCloseTo(20, 1)
    expect(r.timeConstant).toBeCloseTo(40, 1)
    // 1 − e^(−x/40) = 0.1 at 4.214 s, 0.95 at 119.83 s after the delay; read along the line between two points.
    expect(r.coloured).toBeCloseTo(24.2, 0)
    expect(r.mixed).toBeCloseTo(139.8, 0)
  })
  test('read between points as on a ruler; there at the first look, or never', () => {
    const step = [0, 0, 10, 10, 10, 10, 10, 10, 10].map((concentration, i) => ({
      time: 10 * i,
      concentration,
    }))
    const r = mixedResponse(step)
    expect(r.coloured).toBeCloseTo(10 + r.final / 10, 1)
    expect(r.mixed).toBeCloseTo(10 + 0.95 * r.final, 1)
    const over = mixedResponse(
      [0, 20, 20, ...Array<number>(60).fill(10)].map((concentration, i) => ({ time: 10 * i, concentration })),
    )
    expect(over.mixed).toBeGreaterThan(20)
    expect(over.mixed).toBeLessThanOrEqual(30)
    expect(
      mixedResponse([9.9, 10, 10, 10, 10, 10].map((concentration, i) => ({ time: 4 + i, concentration })))
        .mixed,
    ).toBe(4)
    expect(
      mixedResponse([0, 1, 2, 3, 4, 5, 6].map((concentration, i) => ({ time: i, concentration }))).mixed,
    ).toBeNull()
    expect(() => mixedResponse(points.slice(0, 4))).toThrow('five points')
    expect(() => mixedResponse(points.slice(0, 5))).toThrow('some dye')
  })
  test('colour is read on the line between the points before and after it, whatever the first of them holds', () => {
    // From 0.04 to 0.24 in 10 s, to a final 1: a tenth is there after 3 s of them.
    const c = [0.04, 0.04, 0.24, ...Array<number>(40).fill(1)]
    const r = mixedResponse(c.map((concentration, i) => ({ time: 10 * i, concentration })))
    expect(r.final).toBeCloseTo(1, 2)
    expect(r.coloured).toBeCloseTo(13, 1)
  })
  test('what ends above half of its highest came to stay; a pulse went by', () => {
    const of = (...c: number[]): boolean =>
      looksMixed(c.map((concentration, time) => ({ time, concentration })))
    expect([of(0, 5, 8, 8), of(0, 8, 4.1), of(0, 8, 4), of(0, 8, 1), of(0, 0, 0)]).toEqual([
      true,
      true,
      false,
      false,
      false,
    ])
  })
})

describe('logs', () => {
  test('count, span, mean, deviation, energy mean and extremes of 40, 50, 45 dB (by hand)', () => {
    // Energies 1e4, 1e5, 31622.8: mean 47207.6 → 46.740 dB.
    expect(logSummary([2, 4, 9], [40, 50, 45])).toEqual({ n: 3, span: 7, mean: 45, deviation: near(5), energyMean: near(46.74012, 4), min: 40, max: 50 }) // prettier-ignore
    expect(logSummary([0], [-3])).toMatchObject({
      n: 1,
      span: 0,
      mean: -3,
      min: -3,
      max: -3,
      energyMean: near(-3),
    })
    // Far beyond any level, where energies as such pass all bounds: half of the stronger, 3.0103 dB below it.
    expect(logSummary([0, 1], [1e6, 2e6]).energyMean).toBeCloseTo(2e6 - 3.0103, 4)
    expect(logSummary([0, 1], [-9000, -9000]).energyMean).toBe(-9000)
  })
  test('what is wrong with a log is named at its place', () => {
    expect(() => logSummary([], [])).toThrow('empty')
    expect(() => logSummary([0, 1], [5])).toThrow('times')
    expect(() => logSummary([0, 0], [5, 5])).toThrow('times[1]')
    expect(() => logSummary([0, NaN], [5, 5])).toThrow('times[1]')
    expect(() => logSummary([0, 1], [5, 2e9])).toThrow('values[1]')
    expect(() => logSummary([0], [-2e9])).toThrow('values[0]')
    const most = Array.from({ length: MAX_LOG }, (_, i) => i)
    expect(logSummary(most, most).n).toBe(MAX_LOG)
    expect(() => logSummary([...most, MAX_LOG], [...most, 1])).toThrow('at most')
  })
  test('thinned: the lowest and highest of each span in their order, ends kept; few points stay as they are', () => {
    const p = (...v: number[]) => v.map((value, time) => ({ time, value }))
    const few = p(1, 2, 3, 4)
    expect(thinned(few, 2)).toBe(few)
    // Two spans of four: 5 9 1 5 | 5 2 8 5.
    expect(thinned(p(5, 9, 1, 5, 5, 2, 8, 5), 2).map((x) => x.time)).toEqual([0, 1, 2, 5, 6, 7])
    expect(thinned(p(9, 1, 5, 5, 5, 8, 5, 2), 2).map((x) => x.time)).toEqual([0, 1, 5, 7])
    // A flat span is one point, not the same twice.
    expect(thinned(p(3, 3, 3, 3, 3, 3), 2).map((x) => x.time)).toEqual([0, 3, 5])
  })
})

test('censored times: 5 of 6, 4 of 5 and 3 of 4 make one half exactly, and that is the median; Greenwood by hand', () => {
  const times = [10, 20, 30]
    .map((seconds) => ({ seconds, censored: false }))
    .concat([40, 40, 40].map((seconds) => ({ seconds, censored: true })))
  const r = kaplanMeier(times)
  expect(r.median).toBe(30)
  expect(r.steps.map((s) => [s.time, s.atRisk, s.failed])).toEqual([[10, 6, 1], [20, 5, 1], [30, 4, 1]]) // prettier-ignore
  // Var = S² Σ d/(n (n − d)): 0.25 · (1/30 + 1/20 + 1/12) = 0.041667.
  expect(r.steps[2]?.standardError).toBeCloseTo(Math.sqrt(0.0416667), 5)
  expect(kaplanMeier([{ seconds: 5, censored: false }]).steps[0]).toMatchObject({
    survival: 0,
    standardError: 0,
  })
  expect(() => kaplanMeier([])).toThrow('no holding time')
  expect(() => kaplanMeier([{ seconds: -1, censored: false }])).toThrow('times[0].seconds')
  expect(kaplanMeier([{ seconds: 0, censored: true }]).median).toBeNull()
})

test('noise at the edges: 15 dB over is corrected by its 0.14, more by nothing; at 6 it is valid, below it is held', () => {
  expect(correctedNoise([55], [40]).correction).toBeCloseTo(0.1396, 3)
  expect(correctedNoise([55.1], [40])).toMatchObject({ correction: 0, weight: { with: 1, without: 0 } })
  expect(correctedNoise([46], [40]).validity).toBe('valid')
  // 10^−0.6 = 0.251189: 1/0.748811 = 1.33545 and 0.33545; −10 lg 0.748811 = 1.2563.
  expect(correctedNoise([46], [40]).weight).toEqual({ with: near(1.33545, 4), without: near(0.33545, 4) })
  expect(correctedNoise([42], [40])).toMatchObject({
    correction: near(1.2563, 3),
    weight: { with: 1, without: 0 },
  })
})
