import { part } from '../parts/partKind'
import type { FilterTraits } from './traits'

export const airSponge: FilterTraits = {
  name: 'Air sponge',
  drivenBy: 'air',
  stands: 'inside',
  hoses: false,
  circuit: 'open',
  cups: false,
  boxed: false,
  way: 'inward',
  intake: false,
  largestFlow: 600 / 3.6e6,
  foamIsMedia: true,
  pairedSponges: true,
  openedEvery: 21,
  usualOn: ['still'],
  body: [0.16, 0.1, 0.2],
  chambers: [
    { name: 'Left sponge', role: 'pre-filter', at: [0.02, 0.1], size: [0.36, 0.38], use: 'biological' },
    { name: 'Right sponge', role: 'pre-filter', at: [0.62, 0.1], size: [0.36, 0.38], use: 'biological' },
    { name: 'Riser', role: 'centre-pipe', at: [0.45, 0.14], size: [0.1, 0.84] },
  ],
  parts: [
    part('Air line', 'brings the air', 'hose-joint', 'silicone', 'press'),
    part('Elbow', 'lets the air into the riser', 'hose-joint', 'hard plastic', 'press'),
    part('Sponge', 'traps dirt and houses bacteria', 'pad', 'foam', 'press', 'media'),
    part('Riser', 'lifts the water', 'general', 'hard plastic', 'press'),
    part('Weight', 'keeps it down', 'general', 'ceramic', 'none'),
  ],
  hookup: {
    name: 'Riser in the tank',
    outletAboveWater: 0.02,
    sourceBelowWater: 0,
    bodyBelowWater: 0,
    pieces: [],
  },
}
