import { netStaticHead } from '../duty'
import { resistanceOf } from '../media'
import { OutOfRange } from '../errors'
import type { PathCase } from './case'
import { flowOfCase, flowsOf } from './flow'

/** A flow (m³/s) and its standard uncertainty, measured on a case at a lift (m). */
export interface MeasuredFlow {
  readonly flow: number
  readonly uncertainty: number
  readonly lift: number
}

/** The case as it stood when the flow was measured: the same pieces at the trial’s lift. */
export const atLift = (c: PathCase, lift: number): PathCase => ({
  ...c,
  hookup: {
    ...(c.hookup ?? { id: 'bare', name: 'no plumbing', bodyBelowWater: 0, segments: [] }),
    outletAboveWater: lift,
    sourceBelowWater: 0,
  },
})

/**
 * Finds x between 10^low and 10^high at which a falling function of it meets the target, to 1e-7 of its logarithm.
 * Source: Chandrupatla, Adv. Eng. Softw. 28 (1997) 145: inverse quadratic steps where they may be trusted, else halves.
 */
function meet(f: (x: number) => number, target: number, low: number, high: number): number | null {
  const off = (x: number): number => f(10 ** x) - target
  let [a, b] = [high, low]
  let [fa, fb] = [off(a), off(b)]
  if (fb < 0 || fa > 0) return null
  let t = 0.5
  for (let i = 0; i < 60 && Math.abs(b - a) > 1e-7 && fa !== 0 && fb !== 0; i++) {
    const x = a + t * (b - a)
    const fx = off(x)
    const same = fx > 0 === fa > 0
    const [c, fc] = same ? [a, fa] : [b, fb]
    if (!same) [b, fb] = [a, fa]
    ;[a, fa] = [x, fx]
    const xi = (a - b) / (c - b)
    const phi = (fa - fb) / (fc - fb)
    const trusted = phi * phi < xi && (1 - phi) ** 2 < 1 - xi
    const quadratic =
      (fa / (fb - fa)) * (fc / (fb - fc)) + ((c - a) / (b - a)) * (fa / (fc - fa)) * (fb / (fc - fb))
    const least = 2e-8 / Math.abs(b - a)
    t = trusted ? Math.min(1 - least, Math.max(least, quadratic)) : 0.5
  }
  return 10 ** (Math.abs(fa) < Math.abs(fb) ? a : b)
}

/**
 * Loss coefficient of trays, grids and turns inside the body (m per (m³/s)²), by difference: the loss that brings the
 * computed flow down to the measured one. 0 when hose and media alone already explain it.
 */
export function restFrom(c: PathCase, measured: MeasuredFlow): number {
  const standing = atLift({ ...c, rest: 0 }, measured.lift)
  const { shutOffHead } = c.drive.pump
  if (netStaticHead(standing.hookup ?? { outletAboveWater: 0, sourceBelowWater: 0 }).head >= shutOffHead)
    return 0
  if (flowOfCase(standing) <= measured.flow) return 0
  const most = (4 * shutOffHead) / measured.flow ** 2
  const flowWith = flowsOf({ ...standing, rest: most })
  return meet((rest) => flowWith({ rest }), measured.flow, Math.log10(most) - 9, Math.log10(most)) ?? 0
}

/**
 * How far the drive's curve must reach, as a factor of its flows, to give the measured flow where hose and media alone
 * already take more than that, and for airlifts; 1 when no factor does.
 */
export function reachFrom(c: PathCase, measured: MeasuredFlow): number {
  const standing = atLift(c, measured.lift)
  const { pump } = c.drive
  const flowWith = flowsOf(standing)
  const short = (x: number): number => -flowWith({ pump: { ...pump, maxFlow: pump.maxFlow * x } })
  return meet(short, -measured.flow, -1.5, 1.5) ?? 1
}

/** A medium’s permeability (m²) as two flows give it: value, 95 % interval, and the model’s value beside it. */
export interface BenchCalibration {
  readonly mediumId: string
  readonly permeability: number
  readonly interval: readonly [number, number]
  readonly inertia: number
  readonly model: number | null
  /** Loss of the body by the flow without the medium. */
  readonly rest: number
}

/**
 * Solves a medium’s permeability from two flows: without it (which tells what the body takes) and with it. Gaps and
 * weirs count as the network has them. The interval carries both flows’ uncertainties: each is turned by its standard
 * uncertainty and the whole solved again; added in quadrature on ln k, k = 2.
 *
 * Source: GUM (JCGM 100) 5.1.3, numerical sensitivities.
 * @throws OutOfRange naming `with` when the medium shows no loss beyond the noise, or `mediumId` when it is not in the
 * fill.
 */
export function calibrateMedium(
  input: {
    readonly without: { readonly case: PathCase; readonly measured: MeasuredFlow }
    readonly with: { readonly case: PathCase; readonly measured: MeasuredFlow }
  },
  mediumId: string,
): BenchCalibration {
  const medium = input.with.case.media.find((m) => m.id === mediumId)
  if (!medium || !input.with.case.fill.layers.some((l) => l.mediumId === mediumId))
    throw new OutOfRange('mediumId', 0, { words: 'a medium of the setup that was measured with it' })
  const known = (() => {
    try {
      return resistanceOf({ ...medium, permeability: null })
    } catch {
      return null
    }
  })()
  const inertia = known?.inertia ?? medium.inertia ?? 0
  const solve = (without: number, withIt: number): { k: number; rest: number } | null => {
    const rest = restFrom(input.without.case, { ...input.without.measured, flow: without })
    const standing = atLift({ ...input.with.case, rest }, input.with.measured.lift)
    // Laid out at a permeability of one, so that what it is divided by is its inverse.
    const media = standing.media.map((m) => (m === medium ? { ...m, permeability: 1, inertia } : m))
    const flowWith = flowsOf({ ...standing, media })
    const inverse = meet((by) => flowWith({ denser: { mediumId, by } }), withIt, 5, 13)
    return inverse === null ? null : { k: 1 / inverse, rest }
  }
  const { without, with: withIt } = input
  const [a, b] = [without.measured, withIt.measured]
  const best = solve(a.flow, b.flow)
  if (!best)
    throw new OutOfRange('with', b.flow, {
      words: `clearly less than without ${medium.name}; these two flows do not show its head loss`,
    })
  const turn = (s: { k: number } | null): number => (s ? Math.log(s.k / best.k) : 2)
  const u = Math.hypot(
    turn(solve(a.flow + a.uncertainty, b.flow)),
    turn(solve(a.flow, b.flow + b.uncertainty)),
  )
  return {
    mediumId,
    permeability: best.k,
    interval: [best.k * Math.exp(-2 * u), best.k * Math.exp(2 * u)],
    inertia,
    model: known?.permeability ?? null,
    rest: best.rest,
  }
}
