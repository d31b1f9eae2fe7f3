import { z } from 'zod'
import { Id, name, rowBase, text, Typed, within } from './common'

export const TANK_SHAPES = ['box', 'cylinder', 'bow-front', 'corner'] as const
const size = within(0.01, 20, 'm')

const tankFields = {
  name: name('A name for the tank'),
  place: text(120),
  shape: z.enum(TANK_SHAPES),
  length: size,
  width: size,
  bowWidth: size,
  diameter: size,
  side: size,
  endPanel: within(0, 20, 'm'),
  front: z.enum(['flat', 'curved']),
  height: size,
  waterLevel: size,
  substrateDepth: within(0, 5, 'm'),
  substratePorosity: within(0, 0.95, '(share)'),
  decorVolume: within(0, 50, 'm³'),
  stockClassId: z.string().max(40),
  note: text(4000),
  typed: Typed,
}
export const Tank = z.object({ ...rowBase, ...tankFields })
export type Tank = z.infer<typeof Tank>
export const TankCreate = z.object({
  id: Id,
  name: tankFields.name,
  place: tankFields.place.default(''),
  shape: tankFields.shape.default('box'),
  length: size.default(0.8),
  width: size.default(0.35),
  bowWidth: size.default(0.45),
  diameter: size.default(0.5),
  side: size.default(0.6),
  endPanel: tankFields.endPanel.default(0.2),
  front: tankFields.front.default('flat'),
  height: size.default(0.4),
  waterLevel: size.default(0.37),
  substrateDepth: tankFields.substrateDepth.default(0),
  substratePorosity: tankFields.substratePorosity.default(0.4),
  decorVolume: tankFields.decorVolume.default(0),
  stockClassId: tankFields.stockClassId.default('normal'),
  note: tankFields.note.default(''),
  typed: Typed.default({}),
})
export const TankPatch = z.object(tankFields).partial()
export const TankPage = z.object({ items: z.array(Tank), next: z.string().nullable() })

export const StockClassRow = z.object({
  id: z.string(),
  label: z.string(),
  minTurnover: z.number(),
  maxTurnover: z.number(),
  litresPerKilogram: z.number(),
  oversizing: z.number(),
  source: z.string(),
})
export type StockClassRow = z.infer<typeof StockClassRow>
