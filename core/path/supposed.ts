import { installedHalf } from '../bench'
import { netStaticHead } from '../duty'
import type { ByLabel, PathCase } from './case'
import { reachFrom } from './rest'

/** How far a run that nobody described is believed where there is no label: relative half-width (common practice). */
const USUAL_RUN = 0.4

/**
 * A flow (m³/s) over a usual run, held between what the rule of thumb leaves of the label, with its half-width:
 * whatever is typed of body and media moves it within that, and its interval stays inside the rule’s. Continuous.
 */
export function heldFlow(
  flow: number,
  by: ByLabel | null,
): { readonly flow: number; readonly uncertainty: number } {
  if (!by) return { flow, uncertainty: flow * USUAL_RUN }
  const held = Math.min(by.high, Math.max(by.low, flow))
  return { flow: held, uncertainty: installedHalf(held, by.label) }
}

/** The case with its curve reaching so far that it gives a flow (m³/s). */
export function reachingTo(c: PathCase, flow: number): PathCase {
  const lift = c.hookup ? netStaticHead(c.hookup).head : 0
  const reach = reachFrom(c, { flow, uncertainty: 0, lift })
  const { pump } = c.drive
  return { ...c, drive: { ...c.drive, reach, pump: { ...pump, maxFlow: pump.maxFlow * reach } } }
}
