import { part, pumpParts } from '../parts/partKind'
import type { FilterTraits } from './traits'

export const sump: FilterTraits = {
  name: 'Sump',
  drivenBy: 'pump',
  stands: 'beneath',
  hoses: true,
  circuit: 'open',
  cups: false,
  boxed: true,
  way: 'up',
  intake: false,
  largestFlow: null,
  byGravity: true,
  usualHead: [1.5, 3.5],
  openedEvery: 14,
  usualOn: ['large'],
  secondHand: ['Seams of the sump dry when filled for a day'],
  body: [0.7, 0.35, 0.38],
  chambers: [
    { name: 'Sock', role: 'pre-filter', at: [0.02, 0.3], size: [0.16, 0.6] },
    { name: 'Media chamber', role: 'compartment', at: [0.2, 0.06], size: [0.42, 0.62], usable: 0.9 },
    { name: 'Baffles', role: 'side-channel', at: [0.63, 0.06], size: [0.06, 0.62] },
    { name: 'Return chamber', role: 'pump-well', at: [0.71, 0.06], size: [0.27, 0.62] },
  ],
  parts: [
    part('Sock', 'catches the coarse', 'pad', 'fibre', 'none', 'pre-filter'),
    part('Media rack', 'holds media', 'general', 'hard plastic', 'none', 'media'),
    part('Baffles', 'hold the levels', 'general', 'glass', 'none'),
    part('Union', 'parts the return', 'hose-joint', 'hard plastic', 'thread'),
    part('Return pump', 'lifts the water', 'general', 'hard plastic', 'none'),
    ...pumpParts('Union', 'Return pump'),
  ],
  hookup: {
    name: 'Under the stand',
    outletAboveWater: 0.02,
    sourceBelowWater: 0.9,
    bodyBelowWater: 1.1,
    pieces: [
      { hose: 'Return hose', bore: 0.025, length: 1.6 },
      { fitting: 'bend-90', bore: 0.025, count: 3 },
      { fitting: 'exit-open', bore: 0.025 },
    ],
  },
}
