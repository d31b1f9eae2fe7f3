import { put, inline, type Figure, type Sentence } from '../figures'
import { printedFigure } from './printed'
import type { ClaimQuantity, ClaimRecord, ModelRecord } from './records'

/** How a figure goes with the speed of a pump that turns with the mains: Q ∝ n, H ∝ n², P ∝ n³ (affinity laws). */
const POWER_OF_SPEED: Partial<Readonly<Record<ClaimQuantity, number>>> = {
  'rated-flow': 1,
  'max-head': 2,
  power: 3,
}

type Labelled = Pick<ModelRecord, 'claims' | 'mainsFrequency'>

/** Every printed row of a quantity, in the order they were copied. */
export const claimsOf = (model: Labelled, quantity: ClaimQuantity): readonly ClaimRecord[] =>
  model.claims.filter((c) => c.quantity === quantity)

/**
 * The printed row of a quantity that holds at a mains frequency (Hz): the one printed for it, else one that names none,
 * else the first. Undefined when the label does not say.
 */
export function claimed(
  model: Labelled,
  quantity: ClaimQuantity,
  mains: number = model.mainsFrequency,
): ClaimRecord | undefined {
  const rows = claimsOf(model, quantity)
  return rows.find((c) => c.mainsFrequency === mains) ?? rows.find((c) => !c.mainsFrequency) ?? rows[0]
}

/** A printed figure at a mains frequency (Hz), and the ratio of speeds it was brought over by. */
export function atMains(
  claim: ClaimRecord,
  mains: number,
): { readonly value: number; readonly ratio: number } {
  const power = POWER_OF_SPEED[claim.quantity]
  const ratio = claim.mainsFrequency && power ? mains / claim.mainsFrequency : 1
  return { value: claim.value * ratio ** (power ?? 0), ratio }
}

const SYMBOL = { 1: 'f₂/f₁', 2: '(f₂/f₁)²', 3: '(f₂/f₁)³' } as Readonly<Record<number, string>>

/** A printed figure as it holds at a mains frequency: as printed, or brought over by the affinity laws. */
export function labelFigure(claim: ClaimRecord, mains: number): Figure {
  const printed = printedFigure(claim)
  const { value, ratio } = atMains(claim, mains)
  if (ratio === 1) return printed
  return {
    ...printed,
    id: `${printed.id}-at-${mains}`,
    label: `${printed.label} at ${mains} Hz`,
    value,
    provenance: 'computed',
    formula: `printed · ${SYMBOL[POWER_OF_SPEED[claim.quantity] ?? 1] ?? ''}`,
    working: [
      put('printed', printed.label.toLowerCase(), claim.value, printed.dimension, 'printed'),
      put('f₂/f₁', 'supply frequency here ÷ on the label', ratio),
    ],
    source: 'affinity laws of centrifugal pumps',
  }
}

/** A printed figure counts as another when they differ by more than this share. */
const SAME = 0.005
const INSIDE: ReadonlySet<string> = new Set(['manual', 'shop'])
const PLACE = (c: ClaimRecord): string =>
  c.where ? `${INSIDE.has(c.where) ? 'in' : 'on'} the ${c.where}` : 'in another place'
const WITH = (c: ClaimRecord): string => (c.qualifier ? `, ${c.qualifier}` : '')

/** Printed rows of one quantity that do not agree with each other: box against manual, at the same mains. */
export function labelDisagreements(
  model: Labelled,
): readonly { readonly id: string; readonly sentence: Sentence }[] {
  const out: { readonly id: string; readonly sentence: Sentence }[] = []
  const quantities = [...new Set(model.claims.map((c) => c.quantity))]
  for (const quantity of quantities) {
    const rows = claimsOf(model, quantity)
    const [first] = rows
    if (!first) continue
    const mains = first.mainsFrequency ?? model.mainsFrequency
    for (const other of rows.slice(1)) {
      // A row for other conditions is another figure, not a contradiction.
      if ((other.qualifier ?? '') !== (first.qualifier ?? '')) continue
      const [a, b] = [atMains(first, mains).value, atMains(other, mains).value]
      if (Math.abs(a - b) <= SAME * Math.max(a, b)) continue
      out.push({
        id: `label-${quantity}-${out.length}`,
        sentence: [
          `Two figures for the ${printedFigure(first).label.toLowerCase()}: `,
          inline(printedFigure(first)),
          ` ${PLACE(first)}${WITH(first)}, `,
          inline(printedFigure(other)),
          ` ${PLACE(other)}${WITH(other)}. We use the first.`,
        ],
      })
    }
  }
  return out
}
