import { part, pumpParts } from '../parts/partKind'
import type { FilterTraits } from './traits'

export const motorSponge: FilterTraits = {
  name: 'Motor sponge',
  drivenBy: 'pump',
  stands: 'inside',
  hoses: false,
  circuit: 'closed',
  cups: true,
  boxed: false,
  way: 'inward',
  intake: false,
  largestFlow: 2500 / 3.6e6,
  foamIsMedia: true,
  usualHead: [0.4, 1.0],
  openedEvery: 14,
  secondHand: ['Suction cups not hard: they are renewed'],
  body: [0.08, 0.08, 0.2],
  chambers: [
    { name: 'Sponge', role: 'pre-filter', at: [0.05, 0.02], size: [0.9, 0.58] },
    { name: 'Pump', role: 'pump-well', at: [0.2, 0.63], size: [0.6, 0.34] },
  ],
  parts: [
    part('Suction cups', 'hold it to the glass', 'clip', 'rubber', 'suction cup'),
    part('Sponge', 'traps dirt and houses bacteria', 'pad', 'foam', 'press', 'pre-filter'),
    part('Outlet nozzle', 'aims the return', 'general', 'hard plastic', 'press'),
    ...pumpParts('Suction cups', 'Outlet nozzle'),
  ],
  hookup: {
    name: 'In the tank',
    outletAboveWater: -0.05,
    sourceBelowWater: 0,
    bodyBelowWater: 0,
    pieces: [{ fitting: 'nozzle', bore: 0.014 }],
  },
}
