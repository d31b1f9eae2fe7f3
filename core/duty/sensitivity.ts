import { dutyPoint, type Circuit, type StaticHead } from './circuit'
import { fittingKind, HOSE_SIZES } from '../hydraulics/tables'
import type { Segment } from '../hydraulics/segments'

/** Effect of a change to the hookup: new flow (m³/s) and its difference from now. */
export interface SensitivityLine {
  readonly id: string
  readonly label: string
  readonly flow: number
  readonly change: number
}

const nextWider = (diameter: number): number | undefined =>
  HOSE_SIZES.map((h) => h.inner).find((inner) => inner > diameter * 1.001)

function shorterHose(segments: readonly Segment[], by: number): readonly Segment[] | undefined {
  const longest = segments.reduce<Segment | undefined>(
    (best, s) => (s.kind === 'hose' && (best?.kind !== 'hose' || s.length > best.length) ? s : best),
    undefined,
  )
  if (longest?.kind !== 'hose' || longest.length <= by) return undefined
  return segments.map((s) => (s === longest ? { ...longest, length: longest.length - by } : s))
}

function widerHose(segments: readonly Segment[]): readonly Segment[] | undefined {
  const bores = new Map<number, number>()
  for (const s of segments) {
    const wider = s.kind === 'hose' ? nextWider(s.diameter) : undefined
    if (s.kind === 'hose' && wider) bores.set(s.diameter, wider)
  }
  if (!bores.size) return undefined
  return segments.map((s) =>
    s.kind === 'spray-bar' ? s : { ...s, diameter: bores.get(s.diameter) ?? s.diameter },
  )
}

/** The fitting that costs most velocity heads per piece, taken out once. */
function withoutWorstFitting(
  segments: readonly Segment[],
): { label: string; segments: readonly Segment[] } | undefined {
  const cost = (s: Segment): number =>
    s.kind === 'fitting' && s.count > 0 ? s.lossCoefficient / s.diameter ** 4 : 0
  const worst = segments.reduce<Segment | undefined>(
    (best, s) => (cost(s) > (best ? cost(best) : 0) ? s : best),
    undefined,
  )
  if (worst?.kind !== 'fitting') return undefined
  return {
    label: worst.label,
    segments: segments.map((s) => (s === worst ? { ...worst, count: worst.count - 1 } : s)),
  }
}

/** Is a piece what the water leaves by, by what it is? */
const isOutlet = (s: Segment): boolean => s.kind === 'fitting' && fittingKind(s)?.at === 'outlet'

/** The outlet swapped: a spray bar for an open end, or an open end for a usual spray bar (20 holes of 4 mm). */
function otherOutlet(segments: readonly Segment[]): { label: string; segments: readonly Segment[] } {
  const bar = segments.find((s) => s.kind === 'spray-bar')
  const bore = segments.find((s) => s.kind !== 'spray-bar')
  if (bar) {
    const open: Segment = {
      kind: 'fitting',
      id: bar.id,
      label: 'Open end',
      lossCoefficient: 1,
      diameter: bore?.diameter ?? 0.016,
      count: 1,
    }
    return {
      label: 'Open end instead of the spray bar',
      segments: segments.map((s) => (s === bar ? open : s)),
    }
  }
  const added: Segment = {
    kind: 'spray-bar',
    id: 'spray-bar',
    label: 'Spray bar',
    holes: 20,
    holeDiameter: 0.004,
    dischargeCoefficient: 0.62,
  }
  return {
    label: 'Spray bar (20 holes of 4 mm) instead of the open end',
    segments: [...segments.filter((s) => !isOutlet(s)), added],
  }
}

/** One change to a hookup, to be worked through. */
export interface HookupChange {
  readonly id: string
  readonly label: string
  readonly segments: readonly Segment[]
  readonly staticHead: number
}

/** Changes worth trying on a hookup, one at a time; those that cannot be made are left out. */
export function hookupChanges(segments: readonly Segment[], lift: StaticHead): readonly HookupChange[] {
  const { head: staticHead, fromOutlet } = lift
  const out: HookupChange[] = []
  const tryOut = (id: string, label: string, changed: readonly Segment[] | undefined): void => {
    if (changed) out.push({ id, label, segments: changed, staticHead })
  }
  tryOut('shorter', 'One metre less hose', shorterHose(segments, 1))
  tryOut('wider', 'Hose one size wider', widerHose(segments))
  const fewer = withoutWorstFitting(segments)
  if (fewer) tryOut('fewer', `Without one ${fewer.label.toLowerCase()}`, fewer.segments)
  if (segments.some((s) => s.kind === 'hose')) {
    const other = otherOutlet(segments)
    tryOut('outlet', other.label, other.segments)
  }
  // The return let down to the water gives back its own height above it, and nothing of how deep the pump draws from.
  if (fromOutlet > 0)
    out.push({ id: 'lift', label: 'Return under water', segments, staticHead: staticHead - fromOutlet })
  return out
}

/** Sensitivity of the duty point to one change at a time; `lift` says what the static head is made of. */
export function sensitivity(circuit: Circuit, lift: StaticHead): readonly SensitivityLine[] {
  const now = dutyPoint(circuit).flow
  return hookupChanges(circuit.segments, lift).map(({ id, label, segments, staticHead }) => {
    const { flow } = dutyPoint({ ...circuit, segments, staticHead })
    return { id, label, flow, change: flow - now }
  })
}
