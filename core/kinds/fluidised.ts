import { part } from '../parts/partKind'
import type { FilterTraits } from './traits'

export const fluidised: FilterTraits = {
  drivenBy: 'air',
  stands: 'inside',
  hoses: false,
  circuit: 'open',
  cups: true,
  boxed: true,
  way: 'up',
  intake: false,
  largestFlow: 600 / 3.6e6,
  mediaMove: true,
  body: [0.12, 0.1, 0.3],
  chambers: [
    ['Moving media', 'compartment', 0.08, 0.08, 0.84, 0.6],
    ['Room to turn', 'settling-void', 0.08, 0.69, 0.84, 0.24],
    ['Riser', 'centre-pipe', 0.44, 0.1, 0.12, 0.84],
  ],
  parts: [
    part('Air line', 'brings the air', 'hose-joint', 'silicone', 'press'),
    part('Lid', 'keeps the media in', 'lid', 'hard plastic', 'clip'),
    part('Moving media', 'surface for bacteria', 'general', 'soft plastic', 'none', 'media'),
    part('Stone', 'breaks up the air', 'general', 'ceramic', 'press'),
  ],
  hookup: {
    name: 'Riser in the tank',
    outletAboveWater: 0.02,
    sourceBelowWater: 0,
    bodyBelowWater: 0,
    pieces: [],
  },
}
