import { FILTERS, type FilterKind } from './filters'
import type { Segment } from '../hydraulics/segments'
import { FITTING_KINDS, HOSE_WALLS, type FittingId } from '../hydraulics/tables'

/** Gives a new piece its id, from what it is. */
export type IdOf = (what: string) => string

/** A smooth hose of length and bore in m. */
export const hosePiece = (id: string, label: string, length: number, diameter: number): Segment => ({
  kind: 'hose',
  id,
  label,
  length,
  diameter,
  roughness: HOSE_WALLS[0]?.roughness ?? 0,
})

/** A fitting as the catalogue has it, in a bore in m. */
export function fittingPiece(id: string, catalogue: FittingId, diameter: number, count = 1): Segment {
  const kind = FITTING_KINDS.find((f) => f.id === catalogue)
  return {
    kind: 'fitting',
    id,
    label: kind?.label ?? 'Fitting',
    lossCoefficient: kind?.lossCoefficient ?? 1,
    diameter,
    count,
    catalogue,
  }
}

/** A spray bar as they usually are. */
export const sprayBarPiece = (id: string): Segment => ({
  kind: 'spray-bar',
  id,
  label: 'Spray bar',
  holes: 20,
  holeDiameter: 0.004,
  dischargeCoefficient: 0.62,
})

/** A sensible run to start from for a kind; every piece can be changed or taken out. Common practice, no source. */
export function starterHookup(kind: FilterKind, idOf: IdOf) {
  const { pieces, ...heights } = FILTERS[kind].hookup
  const segments = pieces.map((p): Segment =>
    'hose' in p
      ? hosePiece(idOf('hose'), p.hose, p.length, p.bore)
      : fittingPiece(idOf(p.fitting), p.fitting, p.bore, p.count),
  )
  return { ...heights, segments }
}
