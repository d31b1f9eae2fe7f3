import type { Segment } from '@ypsometer/core/hydraulics'
import { FITTING_KINDS, HOSE_WALLS } from '@ypsometer/core/hydraulics/tables'
import type { FilterKind } from '@ypsometer/core/judging'

const k = (id: string): number => FITTING_KINDS.find((f) => f.id === id)?.lossCoefficient ?? 1

export const newId = (prefix: string): string => `${prefix}-${crypto.randomUUID().slice(0, 8)}`

export const hosePiece = (label: string, length: number, diameter: number): Segment => ({
  kind: 'hose',
  id: newId('hose'),
  label,
  length,
  diameter,
  roughness: HOSE_WALLS[0]?.roughness ?? 0,
})

export const fittingPiece = (kindId: string, diameter: number, count = 1): Segment => {
  const kind = FITTING_KINDS.find((f) => f.id === kindId)
  return {
    kind: 'fitting',
    id: newId(kindId),
    label: kind?.label ?? 'Fitting',
    lossCoefficient: k(kindId),
    diameter,
    count,
  }
}

interface Starter {
  readonly name: string
  readonly heights: {
    readonly outletAboveWater: number
    readonly sourceBelowWater: number
    readonly bodyBelowWater: number
  }
  readonly segments: readonly Segment[]
}

/** A sensible run to start from for each kind; every piece can be changed or taken out. Common practice, no source. */
export function starterSegments(kind: FilterKind): Starter {
  const under = { outletAboveWater: -0.05, sourceBelowWater: 0, bodyBelowWater: 0 }
  switch (kind) {
    case 'canister':
      return {
        name: 'Cabinet, own hoses',
        heights: { ...under, bodyBelowWater: 0.9 },
        segments: [
          fittingPiece('entrance-strainer', 0.016),
          fittingPiece('bend-180', 0.016),
          hosePiece('Suction hose', 1.5, 0.016),
          fittingPiece('tap', 0.016, 2),
          fittingPiece('barb', 0.016, 4),
          hosePiece('Return hose', 1.5, 0.016),
          fittingPiece('bend-180', 0.016),
          fittingPiece('exit-open', 0.016),
        ],
      }
    case 'hang-on-back':
      return {
        name: 'On the rim',
        heights: { ...under, outletAboveWater: 0.03 },
        segments: [
          fittingPiece('entrance-strainer', 0.018),
          hosePiece('Lift tube', 0.3, 0.018),
          fittingPiece('bend-90', 0.018),
          fittingPiece('lip', 0.03),
        ],
      }
    case 'sump':
      return {
        name: 'Under the stand',
        heights: { outletAboveWater: 0.02, sourceBelowWater: 0.9, bodyBelowWater: 1.1 },
        segments: [
          hosePiece('Return hose', 1.6, 0.025),
          fittingPiece('bend-90', 0.025, 3),
          fittingPiece('exit-open', 0.025),
        ],
      }
    case 'internal':
    case 'motor-sponge':
      return { name: 'In the tank', heights: under, segments: [fittingPiece('nozzle', 0.014)] }
    default:
      return { name: 'Riser in the tank', heights: { ...under, outletAboveWater: 0.02 }, segments: [] }
  }
}
