import { OutOfRange, TooFew } from '../errors'
import type { FittedPump } from './bands'
import { expanded, fitNonlinear } from '../statistics'
import { LABEL_EXPONENT, type Pump } from './pump'

/** A measured point: flow Q (m³/s) against head H (m), with standard uncertainties where known. */
export interface HeadFlowPoint {
  readonly flow: number
  readonly head: number
  readonly flowUncertainty?: number
  readonly headUncertainty?: number
}

/** A fitted pump curve. `exponent` is assumed where the points say little more of it than was believed before. */
export interface PumpFit extends FittedPump {
  readonly exponent: 'fitted' | 'assumed'
  readonly residualDeviation: number
  /** Half-widths of the 95 % intervals of H0, Q0 and n, common parts of the uncertainty included. */
  readonly halfWidths: readonly number[]
  readonly points: readonly (HeadFlowPoint & { readonly residual: number })[]
}

/**
 * Standard uncertainties that all points share: of flow as a share (one vessel, one hand), of head in m (one datum).
 */
export interface CommonUncertainty {
  readonly flow: number
  readonly head: number
  /** Of the velocity head of the largest flow in the outlet, m: an assumed bore moves the far end of the curve. */
  readonly outletHead?: number
  /** Freedom with which the points' own scatter is known: that of all their runs together. */
  readonly degreesOfFreedom?: number
}

const DEFAULT_HEAD_U = 0.01
const DEFAULT_FLOW_U = 0.02

/**
 * Prior of an exponent: the label's, and wide enough that its interval holds
 * both ends of the label's band (common practice, no source). Points over little of the head say next to nothing of it.
 */
const EXPONENT = { value: LABEL_EXPONENT.value, uncertainty: 0.3 } as const
/** Stands for the exponent among the flows of the fit. */
const OF_EXPONENT = -1
/** An exponent surer than this share of what was believed of it was found by the points. */
const FOUND = 0.7

/**
 * Fits H0 (1 − (Q/Q0)^n) to measured points by weighted nonlinear least squares.
 *
 * Weights use the effective variance u_H² + (dH/dQ · u_Q)², re-evaluated once (Orear, Am. J. Phys. 50 (1982) 912). The
 * exponent goes in as one more observation, {@link EXPONENT} (Bayes with a normal prior), so that its doubt is in the
 * interval of the shut-off head however few the heads are. What all points share moves the whole curve: a share of flow
 * moves Q0, a shift of the datum H0, an assumed bore of the outlet the far end; it is added to their variances (GUM
 * 5.1), and each interval's k comes from its effective degrees of freedom (Welch–Satterthwaite, GUM G.4).
 * @throws TooFew below three points at distinct heads (one point fits no curve), OutOfRange for a series that rises.
 */
export function fitPumpCurve(
  points: readonly HeadFlowPoint[],
  common: CommonUncertainty = { flow: 0, head: 0 },
): PumpFit {
  const heads = new Set(points.map((p) => Math.round(p.head * 1000)))
  if (points.length < 3 || heads.size < 3)
    throw new TooFew(
      'points',
      Math.min(points.length, heads.size),
      3,
      `A curve needs the flow at three heights or more, and has ${heads.size}. Until then the label’s curve is used.`,
    )
  checkFalls(points)
  const topFlow = Math.max(...points.map((p) => p.flow))
  const topHead = Math.max(...points.map((p) => p.head))
  const toPump = (q: readonly number[]): Pump => ({
    shutOffHead: q[0] ?? topHead,
    maxFlow: q[1] ?? topFlow,
    exponent: q[2] ?? EXPONENT.value,
  })
  // Beyond Q0 the fitted curve continues below zero, so that a point there still pulls on it.
  const smooth = (q: readonly number[]) => (flow: number) => {
    const pump = toPump(q)
    if (flow === OF_EXPONENT) return pump.exponent
    return pump.shutOffHead * (1 - (Math.max(flow, 0) / pump.maxFlow) ** pump.exponent)
  }
  const solve = (start: readonly number[], weights: readonly number[]) =>
    fitNonlinear({
      x: [...points.map((p) => p.flow), OF_EXPONENT],
      y: [...points.map((p) => p.head), EXPONENT.value],
      weights: [...weights, EXPONENT.uncertainty ** -2],
      model: smooth,
      initial: start,
      min: [topHead * 0.5, topFlow * 0.5, 0.8],
      max: [topHead * 20, topFlow * 5, 6],
      absolute: true,
    })
  const weigh = (pump: Pump): number[] =>
    points.map((p) => {
      const slope =
        (pump.shutOffHead * pump.exponent * Math.max(p.flow, 1e-9) ** (pump.exponent - 1)) /
        pump.maxFlow ** pump.exponent
      const uq = p.flowUncertainty ?? DEFAULT_FLOW_U * topFlow
      return 1 / ((p.headUncertainty ?? DEFAULT_HEAD_U) ** 2 + (slope * uq) ** 2)
    })
  const initial = [topHead * 1.2, topFlow * 1.05, EXPONENT.value]
  const first = solve(initial, weigh(toPump(initial)))
  const fit = solve(first.parameters, weigh(toPump(first.parameters)))
  const pump = toPump(fit.parameters)
  const outlet = ((common.outletHead ?? 0) * pump.maxFlow) / (pump.exponent * pump.shutOffHead)
  const shared = [common.head ** 2, (common.flow * pump.maxFlow) ** 2 + outlet ** 2, 0]
  const covariance = fit.covariance.map((row, i) => row.map((v, j) => (i === j ? v + (shared[i] ?? 0) : v)))
  const fitted: FittedPump = {
    pump,
    covariance,
    scatter: fit.covariance,
    degreesOfFreedom: common.degreesOfFreedom ?? Infinity,
  }
  return {
    ...fitted,
    exponent: (fit.standardErrors[2] ?? 1) < FOUND * EXPONENT.uncertainty ? 'fitted' : 'assumed',
    halfWidths: covariance.map((row, i) => {
      const [all, own] = [row[i] ?? 0, fit.covariance[i]?.[i] ?? 0]
      return expanded(all, [{ variance: own, degreesOfFreedom: fitted.degreesOfFreedom }])
    }),
    residualDeviation: fit.residualDeviation,
    points: points.map((p) => ({ ...p, residual: p.head - smooth(fit.parameters)(p.flow) })),
  }
}

/** A head series must fall as flow grows; one that clearly rises is a mix-up of columns or of fills. */
function checkFalls(points: readonly HeadFlowPoint[]): void {
  points.forEach((p, i) => {
    if (p.flow < 0) throw new OutOfRange(`points[${i}].flow`, p.flow, { min: 0, unit: 'm³/s' })
    if (p.head < 0) throw new OutOfRange(`points[${i}].head`, p.head, { min: 0, unit: 'm' })
  })
  const byHead = [...points].sort((a, b) => a.head - b.head)
  const low = byHead[0]
  const high = byHead[byHead.length - 1]
  if (low && high && high.flow >= low.flow)
    throw new OutOfRange('points', high.flow, {
      words:
        'flow that falls as the head rises; this series rises, so a column or a media setup may be mixed up',
    })
}
