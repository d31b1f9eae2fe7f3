import { levenbergMarquardt } from 'ml-levenberg-marquardt'
import { Matrix, pseudoInverse } from 'ml-matrix'
import { TooFew } from '../errors'

/** A least-squares problem: y ≈ model(parameters)(x), weighted by w = 1/u². */
export interface FitProblem {
  readonly x: readonly number[]
  readonly y: readonly number[]
  readonly weights?: readonly number[]
  readonly model: (parameters: readonly number[]) => (x: number) => number
  readonly initial: readonly number[]
  readonly min?: readonly number[]
  readonly max?: readonly number[]
  /**
   * The weights are 1/u² of standard uncertainties that are known: residuals larger than those widen the covariance by
   * their variance (Birge, Phys. Rev. 40 (1932) 207), smaller ones never narrow it. Else the residuals alone say how
   * large it is.
   */
  readonly absolute?: boolean
}

/** Fitted parameters with covariance; `scaled`: the covariance was scaled by the residual variance. */
export interface Fit {
  readonly parameters: readonly number[]
  readonly standardErrors: readonly number[]
  readonly covariance: readonly (readonly number[])[]
  readonly residualSumOfSquares: number
  readonly residualDeviation: number
  readonly degreesOfFreedom: number
}

/**
 * Weighted nonlinear least squares by the kept library `ml-levenberg-marquardt`, with parameters scaled to one and
 * restarted until they settle, and the covariance s² (JᵀWJ)⁻¹ from a central-difference Jacobian.
 *
 * Checked against NIST StRD in `reference.test.ts`.
 * @throws TooFew when there are fewer points than parameters.
 */
export function fitNonlinear(problem: FitProblem): Fit {
  const { x, initial } = problem
  const weights = problem.weights ?? x.map(() => 1)
  const p = initial.length
  if (x.length < p) throw new TooFew('points', x.length, p, `${p} parameters need at least ${p} points.`)
  const parameters = best(problem, weights)
  return { parameters, ...spread(problem, parameters, weights, scaleOf(initial)) }
}

const scaleOf = (initial: readonly number[]): readonly number[] =>
  initial.map((v) => (v === 0 ? 1 : Math.abs(v)))

/**
 * The parameters of least squares. The library stops where its step runs into a bound: what ends at one is held there,
 * and the others are fitted anew.
 */
function best(problem: FitProblem, weights: readonly number[]): readonly number[] {
  const found = settled(problem, weights)
  const { model, min, max } = problem
  const at = (v: number, bound: number | undefined): boolean =>
    bound !== undefined && Math.abs(v - bound) <= 1e-9 * Math.abs(bound)
  const free = found.map((v, i) => !at(v, min?.[i]) && !at(v, max?.[i]))
  if (free.every(Boolean) || !free.some(Boolean)) return found
  const ofFree = <T>(list: readonly T[]): readonly T[] => list.filter((_, i) => free[i])
  const whole = (part: readonly number[]): readonly number[] => {
    const next = [...part]
    return found.map((v, i) => (free[i] ? (next.shift() ?? v) : v))
  }
  const rest = best(
    {
      ...problem,
      model: (q) => model(whole(q)),
      initial: ofFree(found),
      ...(min && { min: ofFree(min) }),
      ...(max && { max: ofFree(max) }),
    },
    weights,
  )
  return whole(rest)
}

function settled(problem: FitProblem, weights: readonly number[]): readonly number[] {
  const { x, y, model } = problem
  const scale = scaleOf(problem.initial)
  const unscale = (q: readonly number[]): number[] => q.map((v, i) => v * (scale[i] ?? 1))
  const bound = (b: readonly number[] | undefined): number[] | undefined =>
    b?.map((v, i) => v / (scale[i] ?? 1))
  const lower = bound(problem.min)
  const upper = bound(problem.max)
  let q = problem.initial.map((v, i) => v / (scale[i] ?? 1))
  // The weights go into the data (y and model times √w, brought to one size), because the library's damping is absolute
  // and its error sum weighs the other way round than its steps. It also keeps a poor step, so it is run in short
  // rounds, each from the best parameters so far with little damping.
  const size = 100 / Math.sqrt(x.reduce((sum, _, i) => sum + (weights[i] ?? 1) * (y[i] ?? 0) ** 2, 0) || 1)
  const root = weights.map((w) => Math.sqrt(w) * size)
  const data = { x: x.map((_, i) => i), y: y.map((v, i) => v * (root[i] ?? 1)) }
  const whitened = (values: number[]) => {
    const predict = model(unscale(values))
    return (i: number): number => predict(x[i] ?? 0) * (root[i] ?? 1)
  }
  const dampings = [1, 1e-2]
  for (let round = 0; round < 40; round++) {
    const result = levenbergMarquardt(data, whitened, {
      initialValues: q,
      damping: dampings[round] ?? 1e-7,
      gradientDifference: 1e-6,
      centralDifference: true,
      maxIterations: 6,
      errorTolerance: 0,
      ...(lower && { minValues: lower }),
      ...(upper && { maxValues: upper }),
    })
    const moved = Math.max(
      ...result.parameterValues.map((v, i) => Math.abs(v - (q[i] ?? 0)) / (Math.abs(v) || 1)),
    )
    q = [...result.parameterValues]
    if (round >= dampings.length && moved < 1e-11) break
  }
  return unscale(q)
}

function spread(
  { x, y, model, absolute }: FitProblem,
  parameters: readonly number[],
  weights: readonly number[],
  scale: readonly number[],
): Omit<Fit, 'parameters'> {
  const predict = model(parameters)
  const rss = x.reduce((sum, xi, i) => sum + (weights[i] ?? 1) * ((y[i] ?? 0) - predict(xi)) ** 2, 0)
  const dof = x.length - parameters.length
  const residual = dof > 0 ? rss / dof : 0
  const variance = absolute ? Math.max(1, residual) : residual
  // Scaled columns keep the normal matrix well conditioned; the scaling is undone in the covariance.
  const jacobian = new Matrix(x.length, parameters.length)
  parameters.forEach((value, j) => {
    const s = scale[j] ?? 1
    const h = 1e-5 * (Math.abs(value) || s)
    const up = model(parameters.map((v, k) => (k === j ? v + h : v)))
    const down = model(parameters.map((v, k) => (k === j ? v - h : v)))
    x.forEach((xi, i) => jacobian.set(i, j, ((up(xi) - down(xi)) / (2 * h)) * s * Math.sqrt(weights[i] ?? 1)))
  })
  const inverse = pseudoInverse(jacobian.transpose().mmul(jacobian))
  const covariance = inverse
    .to2DArray()
    .map((row, i) => row.map((v, j) => v * variance * (scale[i] ?? 1) * (scale[j] ?? 1)))
  return {
    covariance,
    standardErrors: covariance.map((row, i) => Math.sqrt(Math.max(0, row[i] ?? 0))),
    residualSumOfSquares: rss,
    residualDeviation: Math.sqrt(residual),
    degreesOfFreedom: dof,
  }
}
