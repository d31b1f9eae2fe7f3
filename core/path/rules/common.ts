import { fittingKind } from '../../hydraulics/tables'
import type { Segment } from '../../hydraulics/segments'
import { nameOf, upperFirst, inline, type Figure, type Sentence } from '../../figures'
import { isStraining } from '../../media'
import { bypassFigure } from '../figures'
import type { LayerFlow, Outcome } from '../outcome'
import { SCHOOLS, type Hit, type School } from './types'

/** A share of the water above which going round a layer is a finding (common practice, no source). */
export const BYPASS_LIMIT = 0.1
export const FINE_BYPASS_LIMIT = 0.05
/** Share of the fillable litres above which straining foam takes the place of media (common practice, no source). */
export const FOAM_LIMIT = 0.45

/** A number this near to the line a rule draws, as a share of it, is borderline (common practice, no source). */
export const NEAR = 0.2
/** Note of a finding whose number is near the line: where the rule draws it. */
export const aboutTheLine = (value: number, limit: number): string =>
  Math.abs(value - limit) <= NEAR * limit ? ` Borderline (limit ${Math.round(limit * 100)} %).` : ''

export const ALL: readonly School[] = SCHOOLS
export const said = (f: Figure): Sentence[number] => inline(f, 2)
export const low = (l: LayerFlow): string => nameOf(l.placed.medium.name)
/** A layer at the head of a sentence: “Coarse foam (10 ppi)”. */
export const title = (l: LayerFlow): string => upperFirst(low(l))
export const at = (l: LayerFlow): { readonly layerId: string; readonly chamberId: string } => ({
  layerId: l.placed.layer.id,
  chamberId: l.chamber.chamber.id,
})
export const biological = (l: LayerFlow): boolean => l.placed.medium.job === 'biological'
export const strains = (l: LayerFlow): boolean => isStraining(l.placed.medium)
export const FINENESS = { coarse: 0, medium: 1, fine: 2 } as const
export const fineness = (l: LayerFlow): number =>
  strains(l) ? FINENESS[l.placed.medium.job as keyof typeof FINENESS] : -1
/** Share of the water that goes through a layer, not round it. */
export const meetsFirst = (l: LayerFlow): Figure => ({
  ...bypassFigure(l),
  id: `first-${l.placed.layer.id}`,
  label: `Goes through ${low(l)}`,
  value: 1 - l.bypassFraction,
})
/** Straining by a piece of the run, by what it is and not by what it is called. */
export const strainsAt = (s: Segment): 'grit' | 'dirt' | null =>
  s.kind === 'fitting' ? (fittingKind(s)?.strains ?? null) : null
/** A sponge on the intake strains ahead of everything in the body. */
export const hasSponge = (o: Outcome): boolean =>
  o.case.hookup?.segments.some((s) => strainsAt(s) === 'dirt') ?? false
export const lengthFigure = (id: string, label: string, value: number): Figure => ({
  id,
  label,
  value,
  dimension: 'length',
  unit: 'mm',
  provenance: 'measured',
})

/** The gap the water finds beside a layer: its own, or the one round its chamber; 0 when only a weir lets it by. */
export const gapOf = (l: LayerFlow): number =>
  l.placed.gap || (l.placed.layer.sealed ? 0 : (l.chamber.chamber.wallGap ?? 0))

/** Water that goes round a layer, past the share a rule bears. */
export function roundIt(l: LayerFlow, limit: number): Hit {
  return {
    ...at(l),
    sentence: [
      said(bypassFigure(l)),
      ` of the water bypasses the ${low(l)} through a `,
      said(lengthFigure(`gap-${l.placed.layer.id}`, 'Gap', gapOf(l))),
      ` gap.${aboutTheLine(l.bypassFraction, limit)}`,
    ],
    cure: [`Cut the ${low(l)} to fit, or seal its edge.`],
  }
}
