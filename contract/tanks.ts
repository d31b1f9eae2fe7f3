import { z } from 'zod'
import { name, text, Typed, within } from './common'
import { resource } from './resource'

export const TANK_FRONTS = ['flat', 'curved'] as const
export const TANK_SHAPES = ['box', 'cylinder', 'bow-front', 'corner'] as const
const size = within(0.01, 20, 'm')

export const tanks = resource({
  path: 'tanks',
  one: 'tank',
  given: {},
  fields: {
    name: name('A name for the tank'),
    place: text(120).default(''),
    shape: z.enum(TANK_SHAPES).default('box'),
    length: size.default(0.8),
    width: size.default(0.35),
    bowWidth: size.default(0.45),
    diameter: size.default(0.5),
    side: size.default(0.6),
    endPanel: within(0, 20, 'm').default(0.2),
    front: z.enum(TANK_FRONTS).default('flat'),
    height: size.default(0.4),
    waterLevel: size.default(0.37),
    substrateDepth: within(0, 5, 'm').default(0),
    substratePorosity: within(0, 0.95, '(share)').default(0.4),
    decorVolume: within(0, 50, 'm³').default(0),
    stockClassId: z.string().max(40).default('normal'),
    note: text(4000).default(''),
    typed: Typed.default({}),
  },
})
export type Tank = z.infer<typeof tanks.Row>
export const TankPage = z.object({ items: z.array(tanks.Row), next: z.string().nullable() })

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
