import { LABEL_EXPONENT, pumpHead, type Pump } from './pump'

/** A fitted curve's parameters with their covariance (of H0, Q0, n) and coverage factor. */
export interface FittedPump {
  readonly pump: Pump
  readonly covariance: readonly (readonly number[])[]
  readonly coverage: number
}

/** Half-width (m) of the 95 % band of the fitted curve at flow Q: coverage × √(gᵀ C g), g the parameter gradient. */
export function pumpBand(flow: number, fit: FittedPump): number {
  const { shutOffHead, maxFlow, exponent } = fit.pump
  const r = Math.max(flow, 1e-12) / maxFlow
  const gradient = [
    1 - r ** exponent,
    (shutOffHead * exponent * r ** exponent) / maxFlow,
    -shutOffHead * r ** exponent * Math.log(r),
  ]
  let variance = 0
  gradient.forEach((gi, i) =>
    gradient.forEach((gj, j) => (variance += gi * gj * (fit.covariance[i]?.[j] ?? 0))),
  )
  return fit.coverage * Math.sqrt(Math.max(0, variance))
}

/** Pump head (m) at `flow` with the label's exponent at either end of its stated band. */
export function labelBand(flow: number, pump: Pump): { readonly low: number; readonly high: number } {
  return {
    low: pumpHead(flow, { ...pump, exponent: LABEL_EXPONENT.low }),
    high: pumpHead(flow, { ...pump, exponent: LABEL_EXPONENT.high }),
  }
}
