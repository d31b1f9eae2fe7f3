import { part } from '../parts/partKind'
import type { FilterTraits } from './traits'

export const airBox: FilterTraits = {
  name: 'Air box',
  drivenBy: 'air',
  stands: 'inside',
  hoses: false,
  circuit: 'open',
  cups: true,
  boxed: true,
  way: 'down',
  intake: false,
  largestFlow: 600 / 3.6e6,
  openedEvery: 14,
  usualOn: ['still'],
  body: [0.11, 0.1, 0.12],
  chambers: [
    { name: 'Floss', role: 'compartment', at: [0.06, 0.44], size: [0.88, 0.28], use: 'mechanical' },
    { name: 'Gravel', role: 'compartment', at: [0.06, 0.06], size: [0.88, 0.36] },
    { name: 'Riser', role: 'centre-pipe', at: [0.42, 0.08], size: [0.16, 0.9] },
  ],
  parts: [
    part('Air line', 'brings the air', 'hose-joint', 'silicone', 'press'),
    part('Lid', 'keeps the floss in', 'lid', 'hard plastic', 'clip'),
    part('Floss', 'catches the fine', 'pad', 'fibre', 'none', 'pad'),
    part('Gravel', 'weight and surface', 'general', 'other', 'none', 'media'),
    part('Riser', 'lifts the water', 'general', 'hard plastic', 'press'),
  ],
  hookup: {
    name: 'Riser in the tank',
    outletAboveWater: 0.02,
    sourceBelowWater: 0,
    bodyBelowWater: 0,
    pieces: [],
  },
}
