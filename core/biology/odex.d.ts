/** Of the package, what is used here; it ships no types of its own. */
declare module 'odex' {
  type Derivative = (x: number, y: number[]) => number[]
  type Observer = (
    from: number,
    to: number,
    y: number[],
    dense: (component: number, x: number) => number,
  ) => void
  export class Solver {
    constructor(f: Derivative, n: number, options?: object)
    solve(x0: number, y0: number[], xEnd: number, observe?: Observer): { readonly y: number[] }
  }
}
