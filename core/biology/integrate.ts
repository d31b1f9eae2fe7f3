import odex from './odex.cjs'

/** Right-hand side of dy/dt = f(t, y); the integrator owns y. */
export type Slope = (t: number, y: readonly number[]) => number[]

/** Most steps the integrator takes for one stretch before it gives up. */
const MOST_STEPS = 100_000

/**
 * Integrates dy/dt = f(t, y) from t₀ to t₁, and gives y at every time asked for in between.
 *
 * Source: ODEX, extrapolation of the explicit midpoint rule (Hairer, Nørsett and Wanner, Solving ODEs I, II.9), by the
 * package odex.
 */
export function integrate(
  slope: Slope,
  y0: readonly number[],
  [from, to]: readonly [number, number],
  times: readonly number[] = [],
): { readonly end: readonly number[]; readonly at: readonly (readonly number[])[] } {
  if (to <= from) return { end: y0, at: [] }
  const at: number[][] = []
  let next = 0
  const solver = new odex.Solver((t, y) => slope(t, y), y0.length, {
    relativeTolerance: 1e-7,
    absoluteTolerance: 1e-12,
    initialStepSize: Math.min(1e-3, (to - from) / 10),
    maxSteps: MOST_STEPS,
    denseOutput: true,
  })
  const { y } = solver.solve(from, [...y0], to, (a, b, _y, dense) => {
    // The first call has nothing between its ends.
    for (let t = times[next]; t !== undefined && t <= b; t = times[++next])
      if (t >= a && b > a) at.push(y0.map((_, i) => dense(i, t as number)))
      else at.push([...y0])
  })
  return { end: y, at }
}
