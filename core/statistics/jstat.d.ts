declare module 'jstat' {
  interface Quantile {
    inv(p: number, ...parameters: number[]): number
    cdf(x: number, ...parameters: number[]): number
  }
  const jstat: { normal: Quantile; studentt: Quantile; chisquare: Quantile; beta: Quantile }
  export default jstat
}
