import { fitNonlinear, grubbsCritical, studentQuantile } from '.'

/* Certified values: NIST StRD nonlinear regression, Misra1a (lower difficulty); from memory. */
const MISRA = {
  y: [10.07, 14.73, 17.94, 23.93, 29.61, 35.18, 40.02, 44.82, 50.76, 55.05, 61.01, 66.4, 75.47, 81.78],
  x: [77.6, 114.9, 141.1, 190.8, 239.9, 289, 332.8, 378.4, 434.8, 477.3, 536.8, 593.1, 689.1, 760],
}

test.each([
  ['start 1', [500, 1e-4]],
  ['start 2', [250, 5e-4]],
])('NIST StRD Misra1a from %s: parameters to 8 digits, standard errors to 5 (from memory)', (_, initial) => {
  const fit = fitNonlinear({
    ...MISRA,
    initial,
    model:
      ([a = 0, b = 0]) =>
      (x) =>
        a * (1 - Math.exp(-b * x)),
  })
  expect(Math.abs((fit.parameters[0] ?? 0) / 238.94212918 - 1)).toBeLessThan(1e-8)
  expect(Math.abs((fit.parameters[1] ?? 0) / 5.5015643181e-4 - 1)).toBeLessThan(1e-8)
  expect(Math.abs((fit.standardErrors[0] ?? 0) / 2.7070075241 - 1)).toBeLessThan(1e-5)
  expect(Math.abs((fit.standardErrors[1] ?? 0) / 7.2668688436e-6 - 1)).toBeLessThan(1e-5)
  expect(Math.abs(fit.residualSumOfSquares / 0.12455138894 - 1)).toBeLessThan(1e-7)
})

/* NIST StRD Eckerle4 (higher difficulty): y = b1/b2 exp(−0.5((x−b3)/b2)²). */
const ECKERLE = [
  [1.575e-4, 400],
  [1.699e-4, 405],
  [2.35e-4, 410],
  [3.102e-4, 415],
  [4.917e-4, 420],
  [8.71e-4, 425],
  [1.7418e-3, 430],
  [4.64e-3, 435],
  [6.5895e-3, 436.5],
  [9.7302e-3, 438],
  [1.49002e-2, 439.5],
  [2.3731e-2, 441],
  [4.01683e-2, 442.5],
  [7.12559e-2, 444],
  [0.1264458, 445.5],
  [0.2073413, 447],
  [0.2902366, 448.5],
  [0.3445623, 450],
  [0.3698049, 451.5],
  [0.3668534, 453],
  [0.3106727, 454.5],
  [0.2078154, 456],
  [0.1164354, 457.5],
  [6.16764e-2, 459],
  [3.372e-2, 460.5],
  [1.94023e-2, 462],
  [1.17831e-2, 463.5],
  [7.4357e-3, 465],
  [2.2732e-3, 470],
  [8.8e-4, 475],
  [4.579e-4, 480],
  [2.345e-4, 485],
  [1.586e-4, 490],
  [1.143e-4, 495],
  [7.1e-5, 500],
] as const

test('NIST StRD Eckerle4, higher difficulty, start 2: b1 1.5543827178, b2 4.0888321754, b3 451.54121844 (from memory)', () => {
  const fit = fitNonlinear({
    y: ECKERLE.map((p) => p[0]),
    x: ECKERLE.map((p) => p[1]),
    initial: [1.5, 5, 450],
    model:
      ([a = 0, b = 1, c = 0]) =>
      (x) =>
        (a / b) * Math.exp(-0.5 * ((x - c) / b) ** 2),
  })
  expect(Math.abs((fit.parameters[0] ?? 0) / 1.5543827178 - 1)).toBeLessThan(1e-6)
  expect(Math.abs((fit.parameters[1] ?? 0) / 4.0888321754 - 1)).toBeLessThan(1e-6)
  expect(Math.abs((fit.parameters[2] ?? 0) / 451.54121844 - 1)).toBeLessThan(1e-8)
})

test.each([
  [0.975, 4, 2.776],
  [0.975, 9, 2.262],
  [0.975, 1, 12.706],
  [0.975, Infinity, 1.96],
])('Student t(%d, %d) = %d (printed tables; from memory; ±0.0006)', (p, v, t) => {
  expect(Math.abs(studentQuantile(p, v) - t)).toBeLessThan(6e-4)
})

test.each([
  [5, 1.715],
  [10, 2.29],
  [3, 1.155],
])('Grubbs critical value n = %d is %d (Grubbs 1969 table, two-sided α 0.05; from memory)', (n, g) => {
  expect(Math.abs(grubbsCritical(n) - g)).toBeLessThan(1e-3)
})
