import fc from 'fast-check'
import {
  atDistance,
  BAFFLING,
  buoyancyFactor,
  correctedNoise,
  energyMean,
  flowFromRuns,
  flowFromWeighedRuns,
  hydraulicPower,
  kaplanMeier,
  meterFactor,
  mixedResponse,
  powerFromSummary,
  tracerFigures,
  wireToWater,
  yearlyCost,
} from '.'
import { summary } from '../statistics'

describe('weighed runs and meters', () => {
  test('buoyancy of water at 20 °C is 1.00105 (ISO 4185; from memory; ±0.00001)', () => {
    expect(buoyancyFactor(998.207)).toBeCloseTo(1.00105, 5)
  })
  test('5 kg in 30 s at 20 °C: Q = 5 · 1.00105 / 998.207 / 30 (by hand), and the combination is that of vessel runs', () => {
    const runs = [29.8, 30.1, 30.2, 29.9, 30].map((seconds) => ({ mass: 5, seconds }))
    const r = flowFromWeighedRuns(runs, 998.207, { scale: 0.005, resolution: 0.01, reaction: 0.05 })
    const mean = runs.reduce((s, x) => s + (5 * 1.0010522) / 998.207 / x.seconds, 0) / 5
    expect(r.mean).toBeCloseTo(mean, 10)
    expect(r.typeB.vessel / r.mean).toBeCloseTo(0.001, 10)
    const same = flowFromRuns(
      runs.map((x) => ({ volume: (5 * buoyancyFactor(998.207)) / 998.207, seconds: x.seconds })),
      { vessel: 0.001, resolution: 0.01, reaction: 0.05 },
    )
    expect(r.expandedUncertainty).toBeCloseTo(same.expandedUncertainty, 15)
    expect(() =>
      flowFromWeighedRuns([{ mass: 0, seconds: 30 }], 998, { scale: 0.005, resolution: 0.01, reaction: 0 }),
    ).toThrow('runs[0].mass')
  })
  test('a meter of 4500 pulses per litre is found from runs; a wrong K shows in the deviations', () => {
    const exact = meterFactor([1, 2, 5].map((l) => ({ volume: l / 1000, pulses: 4500 * l })))
    expect(exact.factor).toBeCloseTo(4.5e6, 3)
    expect(exact.standardUncertainty).toBeCloseTo(0, 6)
    const off = meterFactor([{ volume: 0.005, pulses: 22500 }, { volume: 0.005, pulses: 22950 }]) // prettier-ignore
    // Two checks 1 % to either side of their mean: K = 4.545e6, s/√Σv² = 318.2/(0.00707) by hand.
    expect(off.factor).toBeCloseTo(4.545e6, 0)
    expect(off.standardUncertainty).toBeCloseTo(318.198 / 0.00707107, 0)
    expect(off.deviations.map((d) => d.toFixed(4))).toEqual(['-0.0099', '0.0099'])
    expect(() => meterFactor([{ volume: 1, pulses: 3 }])).toThrow('one shows no scatter')
  })
})

describe('power', () => {
  test('14 W all year are 122.7 kWh; at 31 cents that is 38.04 (by hand: 14 · 8765.82 h)', () => {
    const p = powerFromSummary(summary([14, 14, 14]))
    expect(p.yearlyEnergy).toBeCloseTo(122.7215, 3)
    expect(yearlyCost(p.yearlyEnergy, 31)).toBe(3804)
    // Only the meter's 1 % is left, with the normal's 1.96.
    expect(p.expandedUncertainty).toBeCloseTo(1.96 * 0.14, 3)
  })
  test('600 L/h against 1 m is 1.63 W of water power; from 14 W that is 11.6 %', () => {
    const water = hydraulicPower(997, 600 / 3.6e6, 1)
    expect(water).toBeCloseTo(1.6295, 4)
    expect(wireToWater(water, 14)).toBeCloseTo(0.1164, 4)
    expect(() => wireToWater(water, 0)).toThrow('watts')
  })
  test('scatter adds to the meter in quadrature', () => {
    const p = powerFromSummary(summary([13, 15, 14, 14, 14]))
    const s = Math.sqrt(0.5 / 5)
    expect(p.standardUncertainty).toBeCloseTo(Math.hypot(s, 0.14), 10)
    expect(() => powerFromSummary(summary([]))).toThrow('no reading yet')
  })
})

describe('noise', () => {
  test.each([
    [6, 1.26],
    [10, 0.46],
    // Below 6 dB it is held at its value there, as an upper bound: what is left is never too quiet.
    [5.9, 1.26],
    [3, 1.26],
    [0.5, 1.26],
  ])('K1 at ΔL %d dB is %d dB (ISO 3744; from memory; ±0.005)', (difference, k1) => {
    const n = correctedNoise([40 + difference], [40])
    expect(Math.abs(n.correction - k1)).toBeLessThan(0.005)
    expect(n.validity).toBe(difference < 6 ? 'upper bound' : 'valid')
  })
  test('what a doubt in either level weighs: at 6 dB 1.34 and 0.34, at 10 dB 1.11 and 0.11 (by differences, by hand)', () => {
    const at = (w: number, wo: number): number => 10 * Math.log10(10 ** (w / 10) - 10 ** (wo / 10))
    for (const difference of [6, 7, 10]) {
      const { weight } = correctedNoise([40 + difference], [40])
      expect(weight.with).toBeCloseTo((at(40 + difference + 1e-4, 40) - at(40 + difference, 40)) / 1e-4, 2)
      expect(weight.without).toBeCloseTo(-(at(40 + difference, 40.0001) - at(40 + difference, 40)) / 1e-4, 2)
    }
    expect(correctedNoise([60], [40]).weight).toEqual({ with: 1, without: 0 })
  })
  test('below 3 dB only an upper bound; above 15 dB nothing to correct; without a background it says so', () => {
    expect(correctedNoise([41], [40])).toMatchObject({ validity: 'upper bound' })
    expect(correctedNoise([60], [40])).toMatchObject({ correction: 0, level: 60, validity: 'valid' })
    expect(correctedNoise([44], [])).toMatchObject({ level: 44, validity: 'uncorrected' })
  })
  test('two equal sources are 3 dB more than one, as energies; the energy mean of 40 and 50 is 47.4 (by hand)', () => {
    expect(energyMean([40, 50])).toBeCloseTo(10 * Math.log10((1e4 + 1e5) / 2), 12)
    expect(energyMean([40, 50])).toBeCloseTo(47.404, 3)
    // Correcting a level made of source and background gives the source back.
    const sum = 10 * Math.log10(10 ** 3.6 + 10 ** 3.1)
    expect(correctedNoise([sum], [31]).level).toBeCloseTo(36, 10)
  })
  test('twice the distance is 6 dB less (free field)', () => {
    expect(atDistance(40, 0.5, 1)).toBeCloseTo(40 - 6.0206, 4)
  })
})

describe('dye', () => {
  const pulse = (c: readonly number[], step: number) =>
    c.map((concentration, i) => ({ time: i * step, concentration }))
  const LEVENSPIEL = pulse([0, 3, 5, 5, 4, 2, 1, 0], 5)

  test('Levenspiel’s pulse: mean 15 min, variance 47.5 min² (Chemical Reaction Engineering, ch. 11; from memory)', () => {
    const r = tracerFigures(LEVENSPIEL)
    expect(r.meanResidence).toBeCloseTo(15, 10)
    expect(r.variance).toBeCloseTo(47.5, 10)
    expect(r.tanksInSeries).toBeCloseTo(225 / 47.5, 10)
    expect(r.tail).toBe(0)
  })
  test('one mixed tank: mean τ, one tank in series, Morrill index ln 10/ln(10/9) = 21.85, t10 = 0.105 τ (theory)', () => {
    const tau = 100
    const r = tracerFigures(
      Array.from({ length: 8001 }, (_, i) => ({ time: i * 0.2, concentration: Math.exp((-i * 0.2) / tau) })),
      tau,
    )
    expect(r.meanResidence).toBeCloseTo(tau, 1)
    expect(r.tanksInSeries).toBeCloseTo(1, 2)
    expect(r.morrill).toBeCloseTo(Math.log(10) / Math.log(10 / 9), 1)
    expect(r.baffling).toMatchObject({ factor: 0.1, label: 'unbaffled' })
    expect(r.deadShare).toBeLessThan(0.001)
  })
  test('N tanks in series are found from their own response (theory: variance τ²/N)', () => {
    for (const n of [2, 4, 9]) {
      const e = (t: number): number => t ** (n - 1) * Math.exp((-n * t) / 60)
      const r = tracerFigures(
        Array.from({ length: 4001 }, (_, i) => ({ time: i * 0.1, concentration: e(i * 0.1) })),
      )
      expect(r.tanksInSeries).toBeCloseTo(n, 1)
      expect(r.meanResidence).toBeCloseTo(60, 1)
    }
  })
  test('a quarter of the tank that does not take part shows as a quarter dead', () => {
    const r = tracerFigures(LEVENSPIEL, 20)
    expect(r.deadShare).toBeCloseTo(0.25, 10)
  })
  test('time and strength may be in any unit: shapes stay, times scale', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 60, noNaN: true }),
        fc.double({ min: 0.01, max: 1000, noNaN: true }),
        (k, c) => {
          const a = tracerFigures(LEVENSPIEL)
          const b = tracerFigures(
            LEVENSPIEL.map((p) => ({ time: p.time * k, concentration: p.concentration * c })),
          )
          expect(b.meanResidence / k).toBeCloseTo(a.meanResidence, 8)
          expect(b.morrill).toBeCloseTo(a.morrill, 8)
          expect(b.t10).toBeLessThan(b.t50)
          expect(b.t50).toBeLessThan(b.t90)
        },
      ),
    )
  })
  test('gaps of uneven length do no harm; time that turns back, negative dye and no dye at all are refused by name', () => {
    const gaps = tracerFigures(LEVENSPIEL.filter((_, i) => i !== 3))
    expect(Math.abs(gaps.meanResidence / 15 - 1)).toBeLessThan(0.05)
    expect(() => tracerFigures([...LEVENSPIEL, { time: 3, concentration: 1 }])).toThrow('points[8].time')
    expect(() => tracerFigures(pulse([0, -1, 2], 1))).toThrow('points[1].concentration')
    expect(() => tracerFigures(pulse([0, 0, 0], 1))).toThrow('some dye')
    expect(() => tracerFigures(pulse([1, 2], 1))).toThrow('three points')
    expect(BAFFLING.map((b) => b.factor)).toEqual([0.1, 0.3, 0.5, 0.7, 1])
  })
})

describe('dye that was not waited for, or was there before', () => {
  // A perfect mixer, C = e^(−t/τ): mean τ, nothing dead; cut at a tenth, the points seen alone give 0.744 τ.
  const tau = 120
  const mixer = (until: number, background = 0) =>
    Array.from({ length: 60 }, (_, i) => ({
      time: (until * i) / 59,
      concentration: Math.exp(-((until * i) / 59) / tau) + background,
    }))
  test('a perfect mixer cut at a tenth is carried on: its mean is τ and no volume is dead', () => {
    const r = tracerFigures(mixer(tau * Math.log(10)), tau)
    expect(r.tail).toBeCloseTo(0.1, 6)
    expect(r.meanResidence / tau).toBeCloseTo(1, 2)
    expect(r.deadShare).toBeLessThan(0.01)
    expect(r.extrapolated).toBeCloseTo(0.1, 2)
    expect(r.t90 / (tau * Math.log(10))).toBeCloseTo(1, 2)
    // e^−8 of it is still to come; it is carried on too, so that nothing jumps where the watching ends.
    expect(tracerFigures(mixer(8 * tau), tau).extrapolated).toBeCloseTo(Math.exp(-8), 5)
  })
  test('what was read before the dye came is taken off', () => {
    const pulse = [0, 3, 5, 5, 4, 2, 1, 0].map((c, i) => ({ time: 300 * i, concentration: c }))
    const dirty = pulse.map((p) => ({ ...p, concentration: p.concentration + 0.7 }))
    expect(tracerFigures(dirty).meanResidence).toBeCloseTo(tracerFigures(pulse).meanResidence, 6)
  })
  test('mixed is the last time it leaves the band, not the first time it enters it', () => {
    // Rises to 1, swings over to 1.2 at 100 s and comes back: within 5 % for good from 200 s on.
    const swing = [0, 0.5, 1, 1.2, 1.1, 1, 1, 1, 1, 1, 1].map((concentration, i) => ({
      time: 40 * i,
      concentration,
    }))
    const r = mixedResponse(swing)
    expect(r.final).toBeGreaterThan(0.95)
    expect(r.mixed).toBeGreaterThan(150)
    expect(r.mixed).toBeLessThanOrEqual(200)
  })
})

describe('one run, and three rounded ones', () => {
  test('a run alone carries the scatter of the bench, 2 % on four degrees of freedom where it has shown none', () => {
    const alone = flowFromRuns([{ volume: 0.005, seconds: 30 }], { vessel: 0, resolution: 0, reaction: 0 })
    expect(alone.expandedUncertainty / alone.mean).toBeCloseTo(2.7764451 * 0.02, 7)
    const known = flowFromRuns([{ volume: 0.005, seconds: 30 }], {
      vessel: 0,
      resolution: 0,
      reaction: 0,
      repeatability: 0.006,
    })
    expect(known.expandedUncertainty / known.mean).toBeCloseTo(1.959964 * 0.006, 7)
  })
  test('of three readings two of which are the same, Grubbs’ test says nothing: G is 1.1547 however near the third is', () => {
    const timed = (...seconds: number[]) => flowFromRuns(seconds.map((s) => ({ volume: 0.005, seconds: s })))
    expect(timed(30, 30, 30.1).suspect).toBeNull()
    expect(timed(30, 30.01, 29.99, 30, 36).suspect?.index).toBe(4)
  })
})

describe('holding', () => {
  const ended = (...s: number[]) => s.map((seconds) => ({ seconds, censored: false }))
  const still = (...s: number[]) => s.map((seconds) => ({ seconds, censored: true }))

  test('remission times under 6-MP: the survival curve of Freireich et al. 1963 (Blood 21, 699; from memory; ±0.001)', () => {
    const { steps, median } = kaplanMeier([
      ...ended(6, 6, 6, 7, 10, 13, 16, 22, 23),
      ...still(6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35),
    ])
    const printed = [[6, 0.857], [7, 0.807], [10, 0.753], [13, 0.69], [16, 0.627], [22, 0.538], [23, 0.448]] as const // prettier-ignore
    expect(steps).toHaveLength(printed.length)
    printed.forEach(([time, s], i) => {
      expect(steps[i]?.time).toBe(time)
      expect(Math.abs((steps[i]?.survival ?? 0) - s)).toBeLessThan(0.001)
    })
    // Greenwood’s standard error at 6 weeks is 0.0764.
    expect(steps[0]?.standardError).toBeCloseTo(0.0764, 3)
    expect(median).toBe(23)
  })
  test('“still holding at 20 s” is never averaged: with nothing ended there is no curve and no median', () => {
    expect(kaplanMeier(still(20, 20, 20))).toEqual({ steps: [], median: null })
    expect(kaplanMeier(ended(4, 8)).steps.map((s) => s.survival)).toEqual([0.5, 0])
    expect(() => kaplanMeier([])).toThrow('no holding time')
    expect(() => kaplanMeier(ended(3, -1))).toThrow('times[1].seconds')
  })
  test('the curve only falls, and watching longer without a failure never lowers it', () => {
    const time = fc.record({ seconds: fc.integer({ min: 0, max: 50 }), censored: fc.boolean() })
    fc.assert(
      fc.property(fc.array(time, { minLength: 1, maxLength: 20 }), (times) => {
        const { steps } = kaplanMeier(times)
        steps.forEach((s, i) => expect(s.survival).toBeLessThan(steps[i - 1]?.survival ?? 1.000001))
        const longer = kaplanMeier(times.map((t) => (t.censored ? { ...t, seconds: t.seconds + 100 } : t)))
        steps.forEach((s) =>
          expect(longer.steps.find((l) => l.time === s.time)?.survival).toBeGreaterThanOrEqual(
            s.survival - 1e-12,
          ),
        )
      }),
    )
  })
})
