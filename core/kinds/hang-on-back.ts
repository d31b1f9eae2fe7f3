import { part, pumpParts } from '../parts/partKind'
import type { FilterTraits } from './traits'

export const hangOnBack: FilterTraits = {
  name: 'Hang-on-back',
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
  openedEvery: 30,
  usualOn: ['community', 'crowded'],
  secondHand: ['Body without hairline cracks at the lift tube and the lip'],
  body: [0.2, 0.11, 0.2],
  chambers: [
    { name: 'Pump well', role: 'pump-well', at: [0.02, 0.08], size: [0.26, 0.72] },
    { name: 'Cartridge slot', role: 'cartridge-slot', at: [0.3, 0.08], size: [0.16, 0.7], usable: 0.95 },
    { name: 'Media basket', role: 'compartment', at: [0.48, 0.08], size: [0.3, 0.7], usable: 0.9 },
    { name: 'Lip', role: 'lip', at: [0.8, 0.66], size: [0.18, 0.14] },
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
      { fitting: 'entrance-strainer', bore: 0.018 },
      { hose: 'Lift tube', bore: 0.018, length: 0.3 },
      { fitting: 'bend-90', bore: 0.018 },
      { fitting: 'lip', bore: 0.03 },
    ],
  },
}
