import fc from 'fast-check'
import {
  effectiveFreedom,
  expanded,
  fitNonlinear,
  grubbsCritical,
  seeded,
  seededNormal,
  studentQuantile,
  summary,
} from '.'

test('GUM G.4.1: 0.25 % with 9, 0.57 % with 4 and 0.82 % with 14 degrees of freedom make 19 (JCGM 100; from memory)', () => {
  const parts = [
    [0.25, 9],
    [0.57, 4],
    [0.82, 14],
  ].map(([u = 0, degreesOfFreedom = 0]) => ({ variance: u * u, degreesOfFreedom }))
  const variance = 1.03 ** 2
  expect(effectiveFreedom(variance, parts)).toBeCloseTo(19, 0)
  // t(0.975, 19) = 2.093 (table): U = 2.156 %, the example's 2.15 %.
  expect(expanded(variance, parts)).toBeCloseTo(2.156, 2)
})

test('without a part from a sample k is the normal 1.960; nothing doubted is nothing wide; one degree is the least', () => {
  expect(effectiveFreedom(2, [])).toBe(Infinity)
  expect(expanded(4)).toBeCloseTo(2 * 1.959964, 5)
  expect(expanded(4, [{ variance: 0, degreesOfFreedom: 3 }])).toBeCloseTo(2 * 1.959964, 5)
  expect(expanded(0, [{ variance: 1, degreesOfFreedom: 3 }])).toBe(0)
  // t(0.975, 1) = 12.706 (table): a tenth of a degree counts as one.
  expect(expanded(1, [{ variance: 1, degreesOfFreedom: 0.1 }])).toBeCloseTo(12.706, 2)
})

test('mean and sample deviation of 2 4 4 4 5 5 7 9: 5 and 2.13809 (by hand); one value has no scatter, none no mean', () => {
  expect(summary([2, 4, 4, 4, 5, 5, 7, 9])).toEqual({
    n: 8,
    mean: 5,
    deviation: expect.closeTo(2.13809, 5) as number,
  })
  expect(summary([3])).toEqual({ n: 1, mean: 3, deviation: 0 })
  expect(summary([])).toEqual({ n: 0, mean: 0, deviation: 0 })
})

test('the seeded stream is mulberry32: its first numbers for seed 1 (from memory), and uniform by its moments', () => {
  const next = seeded(1)
  expect(next()).toBeCloseTo(0.6270739405881613, 12)
  expect(next()).toBeCloseTo(0.002735721180215478, 12)
  const draws = Array.from({ length: 20000 }, seeded(7))
  const { mean, deviation } = summary(draws)
  expect(mean).toBeCloseTo(0.5, 2)
  expect(deviation).toBeCloseTo(1 / Math.sqrt(12), 2)
  expect(Math.min(...draws)).toBeGreaterThanOrEqual(0)
  expect(Math.max(...draws)).toBeLessThan(1)
})

test('the normal stream has mean 0, deviation 1, no skew, and 95 % within 1.96', () => {
  const draws = Array.from({ length: 20000 }, seededNormal(11))
  const { mean, deviation } = summary(draws)
  expect(mean).toBeCloseTo(0, 1)
  expect(deviation).toBeCloseTo(1, 1)
  expect(Math.abs(summary(draws.map((z) => z ** 3)).mean)).toBeLessThan(0.1)
  expect(draws.filter((z) => Math.abs(z) < 1.96).length / draws.length).toBeCloseTo(0.95, 2)
})

describe('weighted fits', () => {
  const constant = (q: readonly number[]) => () => q[0] ?? 0
  test('a constant through known uncertainties: weighted mean Σwy/Σw, variance 1/Σw (by hand); scatter beyond them widens it', () => {
    const known = {
      x: [0, 1, 2],
      weights: [1, 4, 16],
      model: constant,
      initial: [1],
      absolute: true,
    } as const
    // Σw = 21; mean (10 + 4 · 10.1 + 16 · 9.98)/21 = 10.00381.
    const close = fitNonlinear({ ...known, y: [10, 10.1, 9.98] })
    expect(close.parameters[0]).toBeCloseTo(10.00381, 5)
    expect(close.standardErrors[0]).toBeCloseTo(1 / Math.sqrt(21), 6)
    // y = 10, 12, 9: mean 202/21 = 9.61905; χ² = 0.1451 + 22.676 + 6.131 = 28.952, two degrees: s² = 14.476.
    const apart = fitNonlinear({ ...known, y: [10, 12, 9] })
    expect(apart.residualSumOfSquares).toBeCloseTo(28.952, 2)
    expect(apart.standardErrors[0]).toBeCloseTo(Math.sqrt(14.476 / 21), 3)
    expect(fitNonlinear({ ...known, absolute: false, y: [10, 10.1, 9.98] }).standardErrors[0]).toBeLessThan(
      0.06,
    )
  })
  test('weights of one are no weights, bounds hold, and too few points are said', () => {
    const line = (q: readonly number[]) => (x: number) => (q[0] ?? 0) + (q[1] ?? 0) * x
    const data = { x: [0, 1, 2, 3], y: [1, 3.2, 4.9, 7], model: line, initial: [1, 1] } as const
    // Least squares by hand: slope (Σ(x − 1.5)(y − 4.025))/5 = 1.97, intercept 1.07.
    const free = fitNonlinear(data)
    expect(free.parameters[1]).toBeCloseTo(1.97, 6)
    expect(free.parameters[0]).toBeCloseTo(1.07, 6)
    expect(free.degreesOfFreedom).toBe(2)
    expect(fitNonlinear({ ...data, weights: [1, 1, 1, 1] }).parameters).toEqual(free.parameters)
    expect(fitNonlinear({ ...data, max: [5, 1.5] }).parameters[1]).toBeCloseTo(1.5, 6)
    expect(fitNonlinear({ ...data, min: [0, 2.5] }).parameters[1]).toBeCloseTo(2.5, 6)
    expect(() => fitNonlinear({ ...data, x: [0], y: [1] })).toThrow('2 parameters need at least 2 points')
    // As many points as parameters: nothing is left to scatter.
    expect(fitNonlinear({ ...data, x: [0, 1], y: [1, 3] })).toMatchObject({
      degreesOfFreedom: 0,
      residualDeviation: 0,
    })
    // A parameter that starts at nothing is found all the same.
    expect(fitNonlinear({ ...data, initial: [0, 0] }).parameters[1]).toBeCloseTo(1.97, 5)
  })
})

describe('fits to numbers as small or large as SI makes them', () => {
  // y = a + b·x² with a = 3, b = −0.5, in parts of `size`: by hand, least squares of exact data is the truth itself.
  const parabola = (q: readonly number[]) => (x: number) => (q[0] ?? 0) + (q[1] ?? 0) * x * x
  const x = [0, 1, 2, 3, 4]
  test.each([1e-9, 1e-4, 1e6])('at size %p, from a start ten times off', (size) => {
    const y = x.map((v) => size * (3 - 0.5 * v * v))
    const initial = [0.3 * size, -5 * size]
    const { parameters } = fitNonlinear({ x, y, model: parabola, initial })
    expect(parameters.map((v) => v / size)).toEqual([
      expect.closeTo(3, 8) as number,
      expect.closeTo(-0.5, 8) as number,
    ])
    // A bound stands in the parameter's own unit, whatever the size.
    const bounded = fitNonlinear({ x, y, model: parabola, initial, max: [2 * size, 0] })
    expect((bounded.parameters[0] ?? 0) / size).toBeCloseTo(2, 8)
    // With a held at 2: b = Σx²(y − 2)/Σx⁴ = (1·0.5 − 4·1 − 9·3.5 − 16·7)/354 = −147/354.
    expect((bounded.parameters[1] ?? 0) / size).toBeCloseTo(-147 / 354, 5)
  })
  test('a flow of a litre a minute with errors of a per cent: the error of its mean is known to be 1 % / √4', () => {
    const y = [1.6e-5, 1.61e-5, 1.59e-5, 1.6e-5]
    const mean = fitNonlinear({
      x: [0, 1, 2, 3],
      y,
      weights: y.map(() => 1 / 1.6e-7 ** 2),
      model: (q) => () => q[0] ?? 0,
      initial: [2e-5],
      absolute: true,
    })
    expect(mean.parameters[0]).toBeCloseTo(1.6e-5, 10)
    expect(mean.standardErrors[0]).toBeCloseTo(0.8e-7, 11)
  })
})

test('quantiles: odd about the middle, falling to the normal as freedom grows; Grubbs asks for three', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.6, max: 0.999, noNaN: true }),
      fc.integer({ min: 1, max: 200 }),
      (p, dof) => {
        expect(studentQuantile(p, dof)).toBeCloseTo(-studentQuantile(1 - p, dof), 6)
        expect(studentQuantile(p, dof)).toBeGreaterThan(studentQuantile(p, Infinity) - 1e-9)
      },
    ),
    { numRuns: 50 },
  )
  expect(() => studentQuantile(1, 5)).toThrow('p')
  expect(() => studentQuantile(0, 5)).toThrow('p')
  expect(() => grubbsCritical(2)).toThrow('at least 3')
  // n = 3, α 0.05 two-sided: 1.1543 (table, Grubbs 1969; from memory).
  expect(grubbsCritical(3)).toBeCloseTo(1.1543, 4)
})
