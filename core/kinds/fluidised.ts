import { part } from '../parts/partKind'
import type { FilterTraits } from './traits'

export const fluidised: FilterTraits = {
  name: 'Fluidised box',
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
  openedEvery: 60,
  body: [0.12, 0.1, 0.3],
  chambers: [
    { name: 'Moving media', role: 'compartment', at: [0.08, 0.08], size: [0.84, 0.6] },
    { name: 'Room to turn', role: 'settling-void', at: [0.08, 0.69], size: [0.84, 0.24] },
    { name: 'Riser', role: 'centre-pipe', at: [0.44, 0.1], size: [0.12, 0.84] },
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
