import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { USUAL_ALKALINITY, USUAL_CHANGES } from '@ypsometer/core/tanks/usual'
import { FILTER_KINDS } from '@ypsometer/core/kinds/filters'
import { z } from 'zod'
import { Day, name, refersTo, text, Typed, within } from './common'
import { resource } from './resource'

export const TANK_FRONTS = ['flat', 'curved'] as const
export const TANK_SHAPES = ['box', 'cylinder', 'bow-front', 'corner'] as const
const size = within(0.01, 20, 'm')

/** A filter that runs on a tank: a model of the shelf with one of its fills, else its kind and rated flow. */
export const TankFilter = z.object({
  id: name('An id', 40),
  modelId: refersTo('models').nullable(),
  fill: z.enum(['as-shipped', 'proposed']),
  /** Its name where the shelf does not have it. */
  label: text(80),
  kind: z.enum(FILTER_KINDS).nullable(),
  ratedFlow: within(0, 0.05, 'm³/s').nullable(),
  since: Day.nullable(),
})
export type TankFilter = z.infer<typeof TankFilter>
const TankFilters = z
  .array(TankFilter)
  .max(12, 'at most 12 filters')
  .refine((list) => new Set(list.map((f) => f.id)).size === list.length, 'each filter with an id of its own')
  .readonly()

const NORMAL = STOCK_CLASSES.find((c) => c.code === 'normal')?.id ?? ''

/** A conversation or a deed at a tank on a day. */
export const TankVisit = z.object({
  id: name('An id', 40),
  on: Day,
  what: z.enum(['advice', 'note']),
  text: text(8000),
})
export type TankVisit = z.infer<typeof TankVisit>

export const tanks = resource({
  path: 'tanks',
  singular: 'tank',
  servedIn: 'list',
  immutable: {},
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
    stockClassId: refersTo('stock-classes').default(NORMAL),
    waterTemperature: within(1, 39, '°C').default(25),
    salinity: within(0, 42, '(practical salinity)').default(0),
    pH: within(4, 10.5, '(pH)').default(7.5),
    alkalinity: within(0, 1, 'kg/m³').default(USUAL_ALKALINITY),
    tapNitrate: within(0, 0.1, 'kg/m³').default(0),
    /** Null: what its class is fed for each litre. */
    feed: within(0, 0.01, 'kg/s').nullable().default(null),
    plantShare: within(0, 0.95, '(share)').nullable().default(null),
    /** An ammonia-binding conditioner or sorbent is in use. */
    conditioner: z.boolean().default(false),
    changeShare: within(0, 1, '(share)').default(USUAL_CHANGES.changeShare),
    changeDays: within(0.5, 365, 'days').default(USUAL_CHANGES.changeDays),
    roomTemperature: within(-10, 45, '°C').nullable().default(null),
    /** Room for a filter; null where nobody has measured. */
    cabinetWidth: size.nullable().default(null),
    cabinetDepth: size.nullable().default(null),
    cabinetHeight: size.nullable().default(null),
    doorWidth: size.nullable().default(null),
    bottomHeight: within(-5, 10, 'm').nullable().default(null),
    wallGap: within(0, 5, 'm').nullable().default(null),
    rimThickness: within(0, 0.5, 'm').nullable().default(null),
    covered: z.boolean().default(false),
    /** Filters that run on it. */
    filters: TankFilters.default([]),
    visits: z.array(TankVisit).max(200, 'at most 200 notes').readonly().default([]),
    note: text(4000).default(''),
    typed: Typed.default({}),
  },
})
export type Tank = z.infer<typeof tanks.Row>
