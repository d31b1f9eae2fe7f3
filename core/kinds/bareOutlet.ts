import { FILTERS, type FilterKind } from './filters'
import { STANDARD_GRAVITY, velocity, type Segment } from '../hydraulics/segments'
import { fittingKind } from '../hydraulics/tables'

/** Where the body stands in a hose run: after the first hose where there are two, else where suction ends. */
export function bodyPosition(kind: FilterKind, segments: readonly Segment[]): number {
  const hoses = segments.flatMap((s, i) => (s.kind === 'hose' ? [i] : []))
  if (hoses.length > 1) return (hoses[0] ?? 0) + 1
  if (FILTERS[kind].tubeAhead) return Math.max(0, segments.length - 1)
  const first = segments.findIndex((s) => s.kind !== 'fitting' || fittingKind(s)?.at !== 'intake')
  return first < 0 ? segments.length : first
}

/** Bore of the outlet a bare body pours from (m), and whether a hookup on record shows it or it is the kind's usual. */
export interface BareOutlet {
  readonly bore: number
  readonly known: boolean
}

/**
 * The outlet of a bare body: the first bore after it on a hookup, else the last before it, else what its kind usually
 * has.
 */
export function bareOutlet(kind: FilterKind, segments: readonly Segment[] | undefined): BareOutlet {
  const pieces = segments ?? []
  const at = bodyPosition(kind, pieces)
  const bores = [...pieces.slice(at), ...pieces.slice(0, at).reverse()].flatMap((s) =>
    s.kind === 'spray-bar' ? [] : [s.diameter],
  )
  if (bores[0] !== undefined) return { bore: bores[0], known: true }
  const usual = FILTERS[kind].hookup.pieces
  return { bore: usual.at(-1)?.bore ?? 0.016, known: false }
}

/**
 * Velocity head v²/2g (m) of flow Q (m³/s) in a bore D (m). A pump gives it to the water beyond the lift, and where the
 * water leaves it is lost: as the exit of a run, or at a bare outlet.
 * Source: steady-flow energy equation (Bernoulli with the exit loss of a sudden expansion, K = 1).
 */
export const velocityHead = (flow: number, bore: number): number =>
  velocity(flow, bore) ** 2 / (2 * STANDARD_GRAVITY)
