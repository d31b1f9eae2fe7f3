import { summary } from '../statistics'
import { ACCEPTANCE_GRADES, compareWithLabel, flowFromRuns, logRank, runsNeeded, type Holding } from '.'

const NO_TYPE_B = { vessel: 0, resolution: 0, reaction: 0 }
const bucket = (seconds: number[], litres = 5) => seconds.map((s) => ({ volume: litres / 1000, seconds: s }))

test('mean and deviation of the NIST StRD sets NumAcc1, 2 and 3 (certified values, from memory)', () => {
  const about = (middle: number, pairs: number): number[] => [
    middle,
    ...Array.from({ length: 2 * pairs }, (_, i) => middle + (i % 2 ? 0.1 : -0.1)),
  ]
  const first = summary([10000001, 10000003, 10000002])
  expect(first.mean).toBe(10000002)
  expect(first.deviation).toBeCloseTo(1, 12)
  const second = summary(about(1.2, 500))
  expect(second.mean).toBeCloseTo(1.2, 14)
  expect(second.deviation).toBeCloseTo(0.1, 14)
  const third = summary(about(1000000.2, 500))
  expect(third.mean).toBeCloseTo(1000000.2, 8)
  expect(third.deviation).toBeCloseTo(0.1, 8)
})

test('flow of runs is the mean of V/t and not V over the mean time (worked by hand: 5 L in 25 s and in 50 s)', () => {
  const r = flowFromRuns(bucket([25, 50]), NO_TYPE_B)
  expect(r.mean).toBeCloseTo((0.2e-3 + 0.1e-3) / 2, 15)
  expect(r.deviation).toBeCloseTo(0.1e-3 / Math.SQRT2, 15)
})

test('type A alone: interval is mean ± t(0.975, 4) s/√5 with t = 2.776 (Student table; from memory)', () => {
  const r = flowFromRuns(bucket([28, 29, 30, 31, 32]), NO_TYPE_B)
  expect(r.coverageFactor).toBeCloseTo(2.776, 3)
  expect(r.expandedUncertainty).toBeCloseTo((2.776445 * r.deviation) / Math.sqrt(5), 12)
})

test('GUM H.1-style combination: effective freedom by Welch–Satterthwaite (JCGM 100 G.4; worked by hand)', () => {
  // 5 L in about 30 s; vessel 1 %, reaction 0.05 s at both ends.
  const r = flowFromRuns(bucket([29.5, 30.2, 30.4, 29.8, 30.1]), {
    vessel: 0.01,
    resolution: 0.01,
    reaction: 0.05,
  })
  const byHand = Math.sqrt(r.typeA ** 2 + (0.01 * r.mean) ** 2 + r.typeB.timing ** 2 + r.typeB.reaction ** 2)
  expect(r.standardUncertainty).toBeCloseTo(byHand, 15)
  expect(r.effectiveDegreesOfFreedom).toBeCloseTo(byHand ** 4 / (r.typeA ** 4 / 4), 6)
  // Reaction: u(Q)/Q ≈ √2 · 0.05 / 30 = 0.2357 %.
  expect(r.typeB.reaction / r.mean).toBeCloseTo((Math.SQRT2 * 0.05) / 30, 5)
})

test('Grubbs flags the run that stands apart and keeps it in the mean', () => {
  const r = flowFromRuns(bucket([30, 30.1, 29.9, 30.05, 38]), NO_TYPE_B)
  expect(r.suspect?.index).toBe(4)
  expect(r.suspect?.critical).toBeCloseTo(1.715, 3)
  expect(r.n).toBe(5)
  expect(flowFromRuns(bucket([30, 30.4, 29.8, 30.2, 29.6])).suspect).toBeNull()
})

test('runs needed: the answer is enough and one fewer is not', () => {
  const runs = bucket([28, 30, 31, 29.5, 32])
  const answer = runsNeeded(runs, 0.03)
  if (!answer.possible) throw new Error('should be possible')
  const { deviation, mean: q } = flowFromRuns(runs)
  // With that many runs of the same scatter the interval must be inside ±3 %: rebuilt here without the function.
  const shared = Math.hypot(0.01 * q, flowFromRuns(runs).typeB.reaction)
  expect((1.96 * Math.hypot(deviation / Math.sqrt(answer.total), shared)) / q).toBeLessThan(0.03)
  expect(answer.more).toBe(answer.total - 5)
  expect(runsNeeded(runs, 0.01)).toMatchObject({ possible: false })
})

test('one run has an interval from the tools and the usual scatter of a hand; no runs and zero seconds are refused by name', () => {
  expect(flowFromRuns(bucket([30]))).toMatchObject({
    n: 1,
    deviation: 0,
    // 2 % on four degrees of freedom beside 1 % and 0.24 % that are sure: ν = 4 · 5.056²/4² = 6.39.
    coverageFactor: expect.closeTo(2.411, 3) as number,
  })
  expect(() => flowFromRuns([])).toThrow('no runs yet')
  expect(() => flowFromRuns(bucket([30, 0]))).toThrow('runs[1].seconds')
  expect(() => runsNeeded(bucket([30]), 0.03)).toThrow('second run')
})

test.each([
  [0.96, 0.005, '1B', true, true],
  [0.93, 0.005, '2B', true, true],
  [0.905, 0.01, 'small', true, false],
  [0.78, 0.02, undefined, true, true],
  [1.04, 0.05, '1B', false, false],
])(
  'measured %d of the label ± %d: %s (ISO 9906:2012 tolerances 5, 8, 9, 10 %; from memory)',
  (share, u, grade, outside, certain) => {
    const f = compareWithLabel(1, share, u)
    expect(f.grade?.id).toBe(grade)
    expect(f.outsideUncertainty).toBe(outside)
    expect(f.certain).toBe(certain)
  },
)

test('tolerances are those of ISO 9906:2012 (from memory)', () => {
  expect(ACCEPTANCE_GRADES.map((g) => [g.flow, g.head])).toEqual([
    [0.05, 0.03],
    [0.08, 0.05],
    [0.09, 0.07],
    [0.1, 0.08],
  ])
})

describe('do clips hold alike (log-rank)', () => {
  const held = (fell: readonly number[], still: readonly number[] = []): Holding[] => [
    ...fell.map((seconds) => ({ seconds, censored: false })),
    ...still.map((seconds) => ({ seconds, censored: true })),
  ]
  // Freireich et al., Blood 21 (1963) 699, as in Cox 1972 and every textbook since (from memory): χ² = 16.79.
  const drug = held([6, 6, 6, 7, 10, 13, 16, 22, 23], [6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35])
  const placebo = held([1, 1, 2, 2, 3, 4, 4, 5, 5, 8, 8, 8, 8, 11, 11, 12, 12, 15, 17, 22, 23])
  test('the remission times that textbooks work out: χ² 16.79 on one degree of freedom', () => {
    const r = logRank([drug, placebo])
    expect(r?.chiSquare).toBeCloseTo(16.79, 2)
    expect([r?.degreesOfFreedom, r?.n]).toEqual([1, [21, 21]])
    // P(χ²₁ > 16.79) = 2 (1 − Φ(4.0976)) = 4.2e-5.
    expect(r?.p).toBeCloseTo(4.2e-5, 6)
    expect(logRank([placebo, drug])?.chiSquare).toBeCloseTo(r?.chiSquare ?? NaN, 9)
  })
  test('groups that are alike differ by nothing; a third one adds a degree of freedom; nothing let go says nothing', () => {
    expect(logRank([drug, drug])?.chiSquare).toBeCloseTo(0, 9)
    expect(logRank([drug, drug])?.p).toBeCloseTo(1, 9)
    const three = logRank([drug, placebo, placebo])
    expect(three?.degreesOfFreedom).toBe(2)
    // χ²₂ has the closed form p = exp(−χ²/2).
    expect(three?.p).toBeCloseTo(Math.exp(-(three?.chiSquare ?? NaN) / 2), 12)
    expect(logRank([held([], [5]), held([], [7])])).toBeNull()
    expect(logRank([drug])).toBeNull()
    expect(logRank([drug, []])).toBeNull()
  })
})
