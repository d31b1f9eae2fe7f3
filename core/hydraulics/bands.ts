import { expanded } from '../statistics/uncertainty'
import { LABEL_EXPONENT, pumpHead, type Pump } from './pump'

/** A fitted curve's parameters with their covariance (of H0, Q0, n) and the part of it that comes from scatter. */
export interface FittedPump {
  readonly pump: Pump
  readonly covariance: readonly (readonly number[])[]
  readonly scatter: readonly (readonly number[])[]
  /** Freedom the scatter is known with. */
  readonly degreesOfFreedom: number
}

/** gᵀ C g: variance of what has the gradient g over parameters of covariance C. */
export function quadraticForm(g: readonly number[], c: readonly (readonly number[])[]): number {
  let sum = 0
  g.forEach((gi, i) => g.forEach((gj, j) => (sum += gi * gj * (c[i]?.[j] ?? 0))))
  return Math.max(0, sum)
}

/**
 * Half-width (m) of the 95 % band of the fitted curve at flow Q: k √(gᵀ C g), g the gradient by H0, Q0 and n, k from
 * the effective degrees of freedom there.
 */
export function pumpBand(flow: number, fit: FittedPump): number {
  const { shutOffHead, maxFlow, exponent } = fit.pump
  const r = Math.max(flow, 1e-12) / maxFlow
  const gradient = [
    1 - r ** exponent,
    (shutOffHead * exponent * r ** exponent) / maxFlow,
    -shutOffHead * r ** exponent * Math.log(r),
  ]
  return expanded(quadraticForm(gradient, fit.covariance), [
    { variance: quadraticForm(gradient, fit.scatter), degreesOfFreedom: fit.degreesOfFreedom },
  ])
}

/** Pump head (m) at `flow` with the label's exponent at either end of its stated band. */
export function labelBand(flow: number, pump: Pump): { readonly low: number; readonly high: number } {
  return {
    low: pumpHead(flow, { ...pump, exponent: LABEL_EXPONENT.low }),
    high: pumpHead(flow, { ...pump, exponent: LABEL_EXPONENT.high }),
  }
}
