import { part, pumpParts } from '../parts/partKind'
import type { FilterTraits } from './traits'

export const hangOnBack: FilterTraits = {
  drivenBy: 'pump',
  stands: 'rim',
  hoses: false,
  circuit: 'open',
  cups: false,
  boxed: true,
  way: 'across',
  intake: true,
  largestFlow: 3000 / 3.6e6,
  tubeAhead: true,
  usualHead: [0.4, 0.9],
  body: [0.2, 0.11, 0.2],
  chambers: [
    ['Pump well', 'pump-well', 0.02, 0.08, 0.26, 0.72],
    ['Cartridge slot', 'cartridge-slot', 0.3, 0.08, 0.16, 0.7, 0.95],
    ['Media basket', 'compartment', 0.48, 0.08, 0.3, 0.7, 0.9],
    ['Lip', 'lip', 0.8, 0.66, 0.18, 0.14],
  ],
  parts: [
    part('Lid', 'keeps splash in', 'lid', 'hard plastic', 'none'),
    part('Cartridge', 'pad with carbon inside', 'pad', 'fibre', 'none', 'pad'),
    part('Media basket', 'holds media', 'general', 'hard plastic', 'none', 'media'),
    part('Lift tube', 'brings water up', 'hose-joint', 'hard plastic', 'press'),
    part('Intake strainer', 'keeps fish out', 'general', 'hard plastic', 'press', 'pre-filter'),
    ...pumpParts('Lid', 'Lift tube'),
  ],
  hookup: {
    name: 'On the rim',
    outletAboveWater: 0.03,
    sourceBelowWater: 0,
    bodyBelowWater: 0,
    pieces: [
      ['entrance-strainer', 0.018],
      ['hose', 0.018, 0.3, 'Lift tube'],
      ['bend-90', 0.018],
      ['lip', 0.03],
    ],
  },
}
