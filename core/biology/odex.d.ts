type Derivative = (x: number, y: number[]) => number[]
type Observer = (
  from: number,
  to: number,
  y: number[],
  dense: (component: number, x: number) => number,
) => void

/** Of the package odex, what is used here. */
export class Solver {
  constructor(f: Derivative, n: number, options?: object)
  solve(x0: number, y0: number[], xEnd: number, observe?: Observer): { readonly y: number[] }
}
