import { part, pumpParts } from '../parts/partKind'
import type { FilterTraits } from './traits'

export const internal: FilterTraits = {
  drivenBy: 'pump',
  stands: 'inside',
  hoses: false,
  circuit: 'closed',
  cups: true,
  boxed: true,
  way: 'up',
  intake: true,
  largestFlow: 4000 / 3.6e6,
  usualHead: [0.5, 1.3],
  body: [0.09, 0.1, 0.32],
  chambers: [
    ['Coarse compartment', 'compartment', 0.06, 0.04, 0.88, 0.24, 0.96, 'mechanical'],
    ['Middle compartment', 'compartment', 0.06, 0.29, 0.88, 0.24, 0.96],
    ['Upper compartment', 'compartment', 0.06, 0.54, 0.88, 0.16, 0.96, 'chemical'],
    ['Pump', 'pump-well', 0.2, 0.72, 0.6, 0.24],
  ],
  parts: [
    part('Suction cups', 'hold it to the glass', 'clip', 'rubber', 'suction cup'),
    part('Outlet nozzle', 'aims the return', 'general', 'hard plastic', 'press'),
    part('Lower compartment', 'takes the coarse sponge', 'clip', 'hard plastic', 'clip'),
    part('Coarse sponge', 'catches the coarse', 'pad', 'foam', 'none', 'pre-filter'),
    part('Media compartment', 'holds media', 'clip', 'hard plastic', 'clip', 'media'),
    part('Carbon pad', 'takes up dyes', 'pad', 'fibre', 'none', 'pad'),
    ...pumpParts('Suction cups', 'Outlet nozzle'),
  ],
  hookup: {
    name: 'In the tank',
    outletAboveWater: -0.05,
    sourceBelowWater: 0,
    bodyBelowWater: 0,
    pieces: [['nozzle', 0.014]],
  },
}
