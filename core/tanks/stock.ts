import { DAY } from '../biology/load'
import type { CapacityRule } from './rule'

/** Numbers of a stock class that stand with a band and a source of their own. */
export const STOCK_NUMBERS = [
  'feedPerVolume',
  'litresPerKilogram',
  'oversizing',
  'minTurnover',
  'maxTurnover',
  'strongestCurrent',
  'plantShare',
] as const
export type StockNumber = (typeof STOCK_NUMBERS)[number]

/** Relative half-width within which a number is believed (95 %), and where it comes from. */
export interface Mark {
  readonly band: number
  readonly source: string
}

/** Stocking, what they are fed, and what is asked of a filter for them. */
export interface StockClass {
  readonly id: string
  /** Code of a class that ships: light, normal, heavy …; null for a house’s own. */
  readonly code: string | null
  readonly label: string
  /** Feed for each m³ of tank (kg/m³/s), its share of protein, oxygen from the water for it (kg/kg). */
  readonly feedPerVolume: number
  readonly protein: number
  readonly oxygenOfFeed: number
  /** Share of the ammonia that plants take. */
  readonly plantShare: number
  readonly temperature: number
  readonly salinity: number
  readonly pH: number
  /** Nitrate nitrogen (kg/m³) that changes should keep the tank under. */
  readonly nitrateLimit: number
  /** Fastest current they bear along the tank (m/s). */
  readonly strongestCurrent: number
  /** May an inlet be open, without a sponge over it? */
  readonly openInlet: boolean
  /** Turnovers per hour some ask for at least. */
  readonly minTurnover: number
  /** Turnovers per hour beyond which the flow is too strong for them. */
  readonly maxTurnover: number
  /** Tank litres that 1 kg of good biological media carries. */
  readonly litresPerKilogram: number
  /** The tank is held to the label's maximum divided by this. */
  readonly oversizing: number
  readonly marks: Readonly<Record<StockNumber, Mark>>
  readonly source: string
  /** The house’s order of the schools of capacity; the shipped one when absent. */
  readonly rule?: CapacityRule
}

/** Key of a class in figures, addresses and tables. */
export const stockKey = (s: Pick<StockClass, 'id' | 'code'>): string => s.code ?? s.id

const TRADE = 'common practice, no source'
/** Shops and houses differ by so much on each number (common practice, no source). */
const USUAL_MARKS: Readonly<Record<StockNumber, Mark>> = {
  feedPerVolume: { band: 0.4, source: TRADE },
  litresPerKilogram: { band: 0.2, source: TRADE },
  oversizing: { band: 0.2, source: TRADE },
  minTurnover: { band: 0.15, source: TRADE },
  maxTurnover: { band: 0.15, source: TRADE },
  strongestCurrent: { band: 0.4, source: TRADE },
  plantShare: { band: 0.5, source: TRADE },
}

/**
 * Nitrate nitrogen (kg/m³). Source: Camargo, Alonso and Salamanca 2005 for sensitive fresh-water animals and for the
 * sea (from memory); 100 mg/L of nitrate for what is usually kept and twice that for what bears more: common practice,
 * no source.
 */
const NITRATE = { usual: 22.6e-3, hardy: 45.2e-3, sensitive: 10e-3, sea: 20e-3 } as const

const id = (n: number): string => `00000000-0000-4000-8000-0000000002${String(n).padStart(2, '0')}`

interface Numbers {
  /** Grams a day for 100 L. */
  readonly feed: number
  readonly plants?: number
  readonly current: number
  readonly turnover: readonly [min: number, max: number]
  readonly litres: number
  readonly oversizing: number
  readonly more?: Partial<StockClass>
}

const make = (n: number, code: string, label: string, x: Numbers): StockClass => ({
  id: id(n),
  code,
  label,
  feedPerVolume: (x.feed * 1e-2) / DAY,
  protein: 0.4,
  oxygenOfFeed: 0.4,
  plantShare: x.plants ?? 0,
  temperature: 25,
  salinity: 0,
  pH: 7.5,
  nitrateLimit: NITRATE.usual,
  strongestCurrent: x.current,
  openInlet: true,
  minTurnover: x.turnover[0],
  maxTurnover: x.turnover[1],
  litresPerKilogram: x.litres,
  oversizing: x.oversizing,
  marks: USUAL_MARKS,
  source: TRADE,
  ...x.more,
})

/** Turtles breathe air and foul the water as few fish do. */
const TURTLES = { oxygenOfFeed: 0, temperature: 26, nitrateLimit: NITRATE.hardy } as const

/**
 * The classes that ship with the app; a house can change them and add its own. Feed follows from the rule of mass:
 * 1.5 g a day for 100 L is what a kilogram of good media carries normally stocked. Common practice, no source.
 */
export const STOCK_CLASSES: readonly StockClass[] = [
  make(1, 'light', 'Light, planted', {
    feed: 1,
    plants: 0.3,
    current: 0.15,
    turnover: [2.5, 8],
    litres: 150,
    oversizing: 1,
  }),
  make(2, 'normal', 'Normal', { feed: 1.5, current: 0.25, turnover: [4, 12], litres: 100, oversizing: 1.5 }),
  make(3, 'heavy', 'Heavy (large, messy, crowded)', {
    feed: 3,
    current: 0.3,
    turnover: [6, 15],
    litres: 50,
    oversizing: 2,
    more: { nitrateLimit: NITRATE.hardy },
  }),
  make(4, 'marine', 'Marine', {
    feed: 1.5,
    current: 0.5,
    turnover: [8, 30],
    litres: 50,
    oversizing: 2,
    more: { salinity: 35, pH: 8.2, nitrateLimit: NITRATE.sea },
  }),
  make(5, 'turtle', 'Turtles, still water', {
    feed: 5,
    current: 0.15,
    turnover: [6, 20],
    litres: 30,
    oversizing: 3.5,
    more: TURTLES,
  }),
  make(6, 'turtle-current', 'Turtles that love a current', {
    feed: 5,
    current: 0.5,
    turnover: [6, 30],
    litres: 30,
    oversizing: 3.5,
    more: TURTLES,
  }),
  make(7, 'turtle-hatchling', 'Turtle hatchlings', {
    feed: 2.5,
    current: 0.05,
    turnover: [3, 8],
    litres: 60,
    oversizing: 3,
    more: { ...TURTLES, openInlet: false },
  }),
  make(8, 'delicate', 'Delicate (shrimp, fry, long fins)', {
    feed: 0.5,
    current: 0.06,
    turnover: [2, 6],
    litres: 200,
    oversizing: 1,
    more: { openInlet: false, nitrateLimit: NITRATE.sensitive },
  }),
]
