import { STOCK_CLASSES, STOCK_NUMBERS, type StockClass } from '@ypsometer/core/tanks/stock'
import { z } from 'zod'
import { name, text, Typed, within } from './common'
import { resource } from './resource'

const [, usual] = STOCK_CLASSES as readonly [StockClass, StockClass]

const Mark = z.object({ band: within(0, 2, '(share)'), source: text(200) })
const Marks = z.object(
  Object.fromEntries(STOCK_NUMBERS.map((n) => [n, Mark])) as Record<
    (typeof STOCK_NUMBERS)[number],
    typeof Mark
  >,
)

/** Who lives in a tank, as a house sees them; those with a code ship with the app. */
export const stockClasses = resource({
  path: 'stock-classes',
  singular: 'stocking',
  servedIn: 'list',
  immutable: {},
  fields: {
    label: name('A name for the class'),
    // A gram for each litre and day.
    feedPerVolume: within(0, 1 / 86400, 'kg/m³ a second').default(usual.feedPerVolume),
    protein: within(0, 0.95, '(share)').default(usual.protein),
    oxygenOfFeed: within(0, 2, 'kg per kg of feed').default(usual.oxygenOfFeed),
    plantShare: within(0, 0.95, '(share)').default(usual.plantShare),
    temperature: within(1, 39, '°C').default(usual.temperature),
    salinity: within(0, 42, '(practical salinity)').default(usual.salinity),
    pH: within(4, 10.5, '(pH)').default(usual.pH),
    nitrateLimit: within(0.0001, 1, 'kg/m³').default(usual.nitrateLimit),
    strongestCurrent: within(0.005, 3, 'm/s').default(usual.strongestCurrent),
    openInlet: z.boolean().default(usual.openInlet),
    minTurnover: within(0.05, 100, 'an hour').default(usual.minTurnover),
    maxTurnover: within(0.1, 200, 'an hour').default(usual.maxTurnover),
    litresPerKilogram: within(0.5, 5000, 'L per kg').default(usual.litresPerKilogram),
    oversizing: within(0.05, 50, 'times').default(usual.oversizing),
    marks: Marks.default(usual.marks),
    source: text(400).default(usual.source),
    typed: Typed.default({}),
  },
  serverOnly: { code: z.string().nullable().default(null), position: z.int().default(100) },
})
export const StockClassList = z.object({ items: z.array(stockClasses.Row) })
export type StockClassRow = z.infer<typeof stockClasses.Row>
