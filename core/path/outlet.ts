import { bareOutlet } from '../kinds/bareOutlet'
import type { Outlet } from '../hydraulics/jets'
import type { HookupRecord } from '../trials/records'
import { FILTERS, type FilterKind } from '../kinds'

/** Holes of a spray bar stand so far apart, a riser is so wide (m). Common practice, no source. */
const HOLE_SPACING = 0.02
const RISER = 0.02
/** Share of a hang-on-back’s width that its lip takes (common practice, no source). */
const LIP_SHARE = 0.8

/**
 * How the water of a filter comes back: the first outlet noted on its hookup, else what its kind and the end of its run
 * make of it.
 */
export function outletOf(kind: FilterKind, hookup: HookupRecord | null): Outlet {
  const noted = hookup?.outlets?.[0]
  if (noted) return noted
  const traits = FILTERS[kind]
  const last = hookup?.segments.at(-1)
  const depth = hookup ? Math.max(0, -hookup.outletAboveWater) : 0
  const usual: Outlet = {
    kind: 'nozzle',
    aim: 'along',
    depth,
    diameter: bareOutlet(kind, hookup?.segments).bore,
    holes: 1,
    spacing: HOLE_SPACING,
    width: traits.body[0] * LIP_SHARE,
  }
  if (traits.drivenBy === 'air') return { ...usual, kind: 'airlift', depth: 0, diameter: RISER }
  if (last?.kind === 'spray-bar')
    return { ...usual, kind: 'spray-bar', holes: last.holes, diameter: last.holeDiameter }
  return traits.stands === 'rim' ? { ...usual, kind: 'lip', depth: 0 } : usual
}
