import { HEAVY } from '../volumes/interior'
import { FILTERS, type FilterKind } from '../kinds'
import type { MATERIALS } from '../parts/vocabulary'

/** Where the work can hurt someone. They inform; local codes and licensed practice come first. */
export const CAUTIONS = {
  mains:
    'Unplug filter and heater before hands go in. Drip loop, residual-current device, no socket below the water line; fixed wiring is for a licensed electrician.',
  air: 'Unplug the air pump, and keep it above the water line or behind a check valve.',
  siphon:
    'Close both taps before the hoses come off; the return may siphon back. Never start a siphon by mouth.',
  quartz:
    'Never look at a lit UV-C lamp. A cracked quartz sleeve puts mains voltage beside water: do not power it.',
  sharp: 'Broken plastic and glass edges are sharp: gloves.',
  weight: 'A full body can pass 20 kg: empty it first, or lift it as two.',
  hot: 'Hot water scalds: gloves, about 88 °C and not boiling.',
  dry: 'Never run it dry.',
  heater: 'The heater goes on last: under water, and water moving past it.',
  stale: 'If it stood still for hours, its water has no oxygen: do not start it into the tank unrinsed.',
  electrician:
    'A damaged cable, a plug that got wet or a device that trips again is for a licensed electrician. Leave it unplugged; local codes come first.',
} as const
export type CautionId = keyof typeof CAUTIONS

/** A caution that applies to the work at hand. */
export interface Caution {
  readonly id: CautionId
  readonly text: string
}

/** A part as the cautions see it: its material, the checks that fit it, and what they found. */
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
  const caution = (id: CautionId): Caution => ({ id, text: CAUTIONS[id] })
  const out: Caution[] = [{ id: 'mains', text: CAUTIONS[drivenBy === 'air' ? 'air' : 'mains'] }]
  if (hoses) out.push(caution('siphon'))
  if (parts.some((p) => p.checklist === 'quartz')) out.push(caution('quartz'))
  if (parts.some((p) => p.material === GLASS || p.findings.some((f) => BROKEN.includes(f))))
    out.push(caution('sharp'))
  // What stands in its place is emptied there; only what is lifted full can hurt a back.
  if (mass !== null && mass >= HEAVY && FILTERS[kind].stands !== 'beneath')
    out.push({
      id: 'weight',
      text: `Full it weighs about ${mass.toFixed(0)} kg: empty it first, or lift it as two.`,
    })
  return out
}
