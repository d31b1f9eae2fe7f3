import type { FillLayer } from '../../fills'
import { GENERIC_MEDIA, type Medium } from '../../media'
import { STOCK_CLASSES, type StockClass } from '../../tanks'
import type { Chamber, ChamberRole } from '../../volumes'
import type { PathCase } from '../case'

/** A canister of two trays, for tests: 0.2 × 0.2 m inside, trays of 80 mm. */
export const chamber = (id: string, more: Partial<Chamber> = {}): Chamber => ({
  id,
  name: id,
  role: 'tray' as ChamberRole,
  solid: { shape: 'box', width: 0.2, depth: 0.2, height: 0.09 },
  x: 0.01,
  y: 0.1,
  usableHeight: 0.08,
  use: 'biological',
  measured: true,
  ...more,
})

export const medium = (name: string, more: Partial<Medium> = {}): Medium => ({
  ...(GENERIC_MEDIA.find((m) => m.name.startsWith(name)) as Medium),
  ...more,
})

export const layer = (
  id: string,
  chamberId: string,
  m: Medium,
  mm: number,
  more: Partial<FillLayer> = {},
): FillLayer => ({
  id,
  chamberId,
  mediumId: m.id,
  measure: 'height',
  amount: mm / 1000,
  bagged: false,
  gap: 0,
  crossed: true,
  sealed: false,
  fouled: 0,
  ...more,
})

export const NORMAL = STOCK_CLASSES.find((s) => s.code === 'normal') as StockClass

export const caseWith = (layers: readonly FillLayer[], more: Partial<PathCase> = {}): PathCase => ({
  kind: 'canister',
  body: {
    outerWidth: 0.22,
    outerDepth: 0.22,
    outerHeight: 0.4,
    waterFill: null,
    emptyMass: 3,
    fullMass: null,
  },
  chambers: [chamber('low'), chamber('high', { y: 0.2 })],
  media: GENERIC_MEDIA,
  fill: { id: 'f', name: 'As tried', basis: 'variant', layers },
  hookup: {
    id: 'h',
    name: 'Own hoses',
    outletAboveWater: -0.05,
    sourceBelowWater: 0,
    bodyBelowWater: 0.8,
    segments: [
      {
        kind: 'fitting',
        id: 'intake',
        label: 'Intake strainer',
        catalogue: 'entrance-strainer',
        lossCoefficient: 1.5,
        diameter: 0.016,
        count: 1,
      },
      { kind: 'hose', id: 'suction', label: 'Suction hose', length: 1.3, diameter: 0.016, roughness: 1.5e-6 },
      { kind: 'hose', id: 'return', label: 'Return hose', length: 1.3, diameter: 0.016, roughness: 1.5e-6 },
      {
        kind: 'fitting',
        id: 'exit',
        label: 'Open end',
        catalogue: 'exit-open',
        lossCoefficient: 1,
        diameter: 0.016,
        count: 1,
      },
    ],
  },
  drive: {
    pump: { shutOffHead: 1.7, maxFlow: 1000 / 3.6e6, exponent: 1.75 },
    knowledge: { kind: 'label' },
    from: 'fit',
  },
  rest: 0,
  temperature: 25,
  ...more,
})
