import { part } from '../parts/partKind'
import type { FilterTraits } from './traits'

export const airSponge: FilterTraits = {
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
  body: [0.16, 0.1, 0.2],
  chambers: [
    ['Left sponge', 'pre-filter', 0.02, 0.1, 0.36, 0.38, undefined, 'biological'],
    ['Right sponge', 'pre-filter', 0.62, 0.1, 0.36, 0.38, undefined, 'biological'],
    ['Riser', 'centre-pipe', 0.45, 0.14, 0.1, 0.84],
  ],
  parts: [
    part('Air line', 'brings the air', 'hose-joint', 'silicone', 'press'),
    part('Elbow', 'lets the air into the riser', 'hose-joint', 'hard plastic', 'press'),
    part('Sponge', 'strains and carries bacteria', 'pad', 'foam', 'press', 'media'),
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
