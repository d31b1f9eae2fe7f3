import { HEAVY } from '../volumes/interior'
import { FILTERS, type FilterKind } from '../kinds'
import type { MATERIALS } from './vocabulary'

/** A caution that applies to the work at hand. It informs; local codes and licensed practice come first. */
export interface Caution {
  readonly id: 'mains' | 'quartz' | 'weight' | 'sharp' | 'siphon'
  readonly text: string
}

/** What of a part the cautions ask: what it is made of, which checks fit it, and what they found. */
export interface CautionedPart {
  readonly checklist: string
  readonly material: string
  readonly findings: readonly string[]
}

const GLASS: (typeof MATERIALS)[number] = 'glass'
/** Findings that leave an edge. */
const BROKEN: readonly string[] = ['cracked', 'chipped']

/** Cautions for taking a filter apart: by its kind, its parts and its weight (kg, full). */
export function stripCautions(
  kind: FilterKind,
  parts: readonly CautionedPart[],
  mass: number | null,
): readonly Caution[] {
  const { drivenBy, hoses } = FILTERS[kind]
  const out: Caution[] = [
    {
      id: 'mains',
      text:
        drivenBy === 'air'
          ? 'Unplug the air pump, and keep it above the water line or behind a check valve.'
          : 'Unplug filter and heater before hands go in. Drip loop, residual-current device, no socket below the water line; fixed wiring is for a licensed electrician.',
    },
  ]
  if (hoses)
    out.push({
      id: 'siphon',
      text: 'Close both taps before the hoses come off; the return may siphon back. Never start a siphon by mouth.',
    })
  if (parts.some((p) => p.checklist === 'quartz'))
    out.push({
      id: 'quartz',
      text: 'Never look at a lit UV-C lamp. A cracked quartz sleeve is mains beside water: do not power it.',
    })
  if (parts.some((p) => p.material === GLASS || p.findings.some((f) => BROKEN.includes(f))))
    out.push({ id: 'sharp', text: 'Broken plastic and glass edges are sharp: gloves.' })
  // What stands in its place is emptied there; only what is lifted full can hurt a back.
  if (mass !== null && mass >= HEAVY && FILTERS[kind].stands !== 'beneath')
    out.push({
      id: 'weight',
      text: `Full it weighs about ${mass.toFixed(0)} kg: empty it first, or lift it as two.`,
    })
  return out
}
