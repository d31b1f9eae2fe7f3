import { HEAVY } from '../volumes/interior'
import { FILTERS, type FilterKind } from '../kinds'

/** A caution that applies to the work at hand. It informs; local codes and licensed practice come first. */
export interface Caution {
  readonly id: 'mains' | 'quartz' | 'weight' | 'sharp' | 'siphon'
  readonly text: string
}

/** Cautions for taking a filter apart: by its kind, its parts and its weight (kg, full). */
export function stripCautions(
  kind: FilterKind,
  partNames: readonly string[],
  mass: number | null,
): readonly Caution[] {
  const { drivenBy, hoses } = FILTERS[kind]
  const has = (word: RegExp): boolean => partNames.some((n) => word.test(n))
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
  if (has(/quartz|uv|lamp/i))
    out.push({
      id: 'quartz',
      text: 'Never look at a lit UV-C lamp. A cracked quartz sleeve is mains beside water: do not power it.',
    })
  if (has(/glass|baffle|clip|chip/i))
    out.push({ id: 'sharp', text: 'Broken plastic and glass edges are sharp: gloves.' })
  if (mass !== null && mass >= HEAVY)
    out.push({
      id: 'weight',
      text: `Full it weighs about ${mass.toFixed(0)} kg: empty it first, or lift it as two.`,
    })
  return out
}
