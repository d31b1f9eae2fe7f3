import { put, type Figure } from '../figures'
import { GRAVEL_POROSITY, type TankFill, type TankVolume } from './volume'

/** A tank's volumes as numbers with their working; the signs are those of the sum. */
export interface TankFigures {
  readonly water: Figure
  readonly gross: Figure
  readonly toLevel: Figure
  readonly substrate: Figure
  readonly decor: Figure
}

/** The water in a tank and the parts of the sum (m³), each with its formula. Source: plane mensuration. */
export function tankFigures(v: TankVolume, height: number, fill: TankFill): TankFigures {
  const area = put('A', 'floor area, m²', v.floorArea, 'ratio', 'computed')
  const level = put('level', 'water level', fill.waterLevel ?? height, 'length', 'measured')
  const depth = put('depth', 'substrate depth', fill.substrateDepth ?? 0, 'length', 'measured')
  const porosity = fill.substratePorosity ?? GRAVEL_POROSITY
  const common = { dimension: 'volume', provenance: 'computed', source: 'plane mensuration' } as const
  return {
    water: {
      ...common,
      id: 'tank-water',
      label: 'Water in the tank',
      value: v.water,
      formula: 'V = A · level − A · depth · (1 − porosity) − décor',
      working: [
        area,
        level,
        depth,
        put('porosity', 'water between the grains', porosity, 'ratio', 'rule'),
        put('décor', 'pushed aside', v.decor, 'volume', 'measured'),
      ],
    },
    gross: {
      ...common,
      id: 'tank-gross',
      label: 'Tank to the rim',
      value: v.gross,
      formula: 'V = A · height',
      working: [area, put('height', 'inside height', height, 'length', 'measured')],
    },
    toLevel: {
      ...common,
      id: 'tank-level',
      label: 'To the water level',
      value: v.toLevel,
      formula: 'V = A · level',
      working: [area, level],
    },
    substrate: {
      ...common,
      id: 'tank-substrate',
      label: 'Solid part of the substrate',
      value: -v.substrate,
      formula: 'V = −A · depth · (1 − porosity)',
      working: [area, depth, put('porosity', 'water between the grains', porosity, 'ratio', 'rule')],
    },
    decor: {
      ...common,
      id: 'tank-decor',
      label: 'Rock and wood',
      value: -v.decor,
      provenance: 'measured',
      formula: 'water it pushes aside, taken off',
      working: [],
    },
  }
}
