import { requirePositive, requireRange } from '../errors'

/** A pump curve H(Q) = H0 (1 − (Q/Q0)^n): shut-off head H0 (m), largest flow Q0 (m³/s), exponent n. */
export interface Pump {
  readonly shutOffHead: number
  readonly maxFlow: number
  readonly exponent: number
}

/** Exponent assumed when only a label is known, with the band it is believed to lie in (common practice, no source). */
export const LABEL_EXPONENT = { value: 1.75, low: 1.5, high: 2.2 } as const

/** Pump head H (m) at flow Q (m³/s). Falls monotonically, never negative: zero from Q0 on, H0 at no flow. */
export function pumpHead(flow: number, pump: Pump): number {
  if (flow <= 0) return pump.shutOffHead
  return Math.max(0, pump.shutOffHead * (1 - (flow / pump.maxFlow) ** pump.exponent))
}

/** Flow Q (m³/s) the pump gives against head H (m); 0 at or above the shut-off head, Q0 at or below zero head. */
export function pumpFlow(head: number, pump: Pump): number {
  if (head <= 0) return pump.maxFlow
  return head >= pump.shutOffHead ? 0 : pump.maxFlow * (1 - head / pump.shutOffHead) ** (1 / pump.exponent)
}

/** A label's outlet takes this share of its maximum head at most; a narrower bore than that is not the label's. */
const MOST_AT_OUTLET = 0.5

/**
 * The curve a label implies, n = 1.75 as a stated assumption: maximum head at zero flow, and the rated flow poured from
 * a bare outlet at no lift. Such a flow still costs the pump the velocity head h_v (m) it leaves with, so
 * H(Q_rated) = h_v, Q0 = Q_rated ÷ (1 − h_v/H0)^(1/n).
 * @throws OutOfRange for `ratedFlow` or `maxHead` not above zero.
 */
export function pumpFromLabel(label: {
  readonly ratedFlow: number
  readonly maxHead: number
  /** Velocity head (m) of the rated flow in its bare outlet; none where it is left out. */
  readonly outletHead?: number
}): Pump {
  const shutOffHead = requirePositive('maxHead', label.maxHead, 'm')
  const ratedFlow = requirePositive('ratedFlow', label.ratedFlow, 'm³/s')
  const left = 1 - Math.min(MOST_AT_OUTLET, (label.outletHead ?? 0) / shutOffHead)
  return {
    shutOffHead,
    maxFlow: ratedFlow / left ** (1 / LABEL_EXPONENT.value),
    exponent: LABEL_EXPONENT.value,
  }
}

/**
 * The same pump at another speed ratio r: Q ∝ r, H ∝ r², P ∝ r³ (affinity laws). A synchronous motor follows the
 * mains, so 50 Hz to 60 Hz is r = 1.2.
 * @throws OutOfRange for a ratio outside 0.2 to 5.
 */
export function affinity(pump: Pump, ratio: number): Pump {
  requireRange('ratio', ratio, { min: 0.2, max: 5 })
  return { ...pump, maxFlow: pump.maxFlow * ratio, shutOffHead: pump.shutOffHead * ratio ** 2 }
}

/** Power P (W) at another speed ratio: P ∝ r³. */
export const affinityPower = (power: number, ratio: number): number => power * ratio ** 3
