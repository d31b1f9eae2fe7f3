import { part, pumpParts } from '../parts/partKind'
import type { FilterTraits } from './traits'

export const sump: FilterTraits = {
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
  body: [0.7, 0.35, 0.38],
  chambers: [
    ['Sock', 'pre-filter', 0.02, 0.3, 0.16, 0.6],
    ['Media chamber', 'compartment', 0.2, 0.06, 0.42, 0.62, 0.9],
    ['Baffles', 'side-channel', 0.63, 0.06, 0.06, 0.62],
    ['Return chamber', 'pump-well', 0.71, 0.06, 0.27, 0.62],
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
      ['hose', 0.025, 1.6, 'Return hose'],
      ['bend-90', 0.025, 3],
      ['exit-open', 0.025],
    ],
  },
}
