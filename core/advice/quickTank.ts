import { usualTank } from '../biology'
import { put } from '../figures'
import type { TankRecord } from '../tanks'
import { floorArea, tankExtent, tankVolume, type StockClass, type TankShape } from '../tanks'
import { USUAL_ALKALINITY, USUAL_CHANGES } from '../tanks/usual'

/** How many live there for its size. */
export const MANY = ['few', 'usual', 'many'] as const
export type Many = (typeof MANY)[number]
/** Feed of few and of many, as multiples of what a class is usually fed; a kilogram of media carries the inverse. */
export const MANY_TIMES: Readonly<Record<Many, number>> = { few: 0.6, usual: 1, many: 1.5 }
/** Plants take at least so much where a tank is planted (common practice, no source). */
const PLANTED = 0.3
/** Fastest current for weak swimmers (m/s; common practice, no source). */
const WEAK = 0.08

/** Traits of those who live in a tank, over and above their class. */
export interface StockAnswers {
  readonly many: Many
  /** Null: as its class. */
  readonly planted: boolean | null
  readonly weak: boolean
}
export const AS_ITS_CLASS: StockAnswers = { many: 'usual', planted: null, weak: false }

/** A class as it lives in one tank: more or fewer of them, among plants or not, weak swimmers with them. */
export function stockAsAnswered(stock: StockClass, { many, planted, weak }: StockAnswers): StockClass {
  const times = MANY_TIMES[many]
  const plants = planted ? Math.max(PLANTED, stock.plantShare) : 0
  return {
    ...stock,
    feedPerVolume: stock.feedPerVolume * times,
    litresPerKilogram: stock.litresPerKilogram / times,
    plantShare: planted === null ? stock.plantShare : plants,
    strongestCurrent: weak ? Math.min(WEAK, stock.strongestCurrent) : stock.strongestCurrent,
  }
}

/** Lowest water a tank is filled to under its rim (m), and nothing known of what stands round it. */
const UNDER_RIM = 0.03
const ROOM = {
  cabinetWidth: null,
  cabinetDepth: null,
  cabinetHeight: null,
  doorWidth: null,
  bottomHeight: null,
  wallGap: null,
  rimThickness: null,
  covered: false,
} as const

/** Shapes with the names of their sizes, and what those are where nobody has told them yet (m). */
export const TOLD_SHAPES = {
  box: { shape: 'box', length: 0.8, width: 0.35, height: 0.4 },
  'bow-front': { shape: 'bow-front', length: 0.8, width: 0.35, bowWidth: 0.45, height: 0.4 },
  cylinder: { shape: 'cylinder', diameter: 0.5, height: 0.5 },
  corner: { shape: 'corner', side: 0.6, endPanel: 0.2, front: 'curved', height: 0.45 },
} as const satisfies Readonly<Record<TankShape['shape'], TankShape>>
const SHAPE_WORDS: Readonly<Record<TankShape['shape'], string>> = {
  box: 'a box',
  'bow-front': 'a bow front',
  cylinder: 'a cylinder',
  corner: 'a corner tank with a round front',
}

/**
 * A tank as it is told: by its shape and inside sizes, their `height` that of the water; or by its water alone (m³), a
 * box twice as long as wide and high.
 * @throws OutOfRange naming the size that does not fit the others.
 */
export function quickTank(told: number | TankShape, stock: StockClass): TankRecord {
  const byWater = typeof told === 'number'
  const usual = byWater ? usualTank(told) : null
  const shape: TankShape = usual
    ? { shape: 'box', length: usual.length, width: usual.height, height: usual.height }
    : (told as TankShape)
  const { length, width } = tankExtent(shape)
  const { height } = shape
  const surface = floorArea(shape)
  const water = byWater ? told : tankVolume(shape).water
  return {
    ...ROOM,
    name: 'Your tank',
    water: {
      id: 'tank-water',
      label: 'Water in the tank',
      value: water,
      dimension: 'volume',
      provenance: 'printed',
      conditions: ['as entered', ...(byWater ? [] : [SHAPE_WORDS[shape.shape]])],
      ...(!byWater && {
        formula: 'V = floor · height of the water',
        working: [
          put('A', 'floor, by shape and sizes as entered', surface, 'area'),
          put('h', 'water height, as entered', height, 'length'),
        ],
      }),
    },
    stock,
    surface,
    length,
    width,
    height: height + UNDER_RIM,
    waterLevel: height,
    substrateDepth: 0,
    ...(byWater && { sizesAssumed: 'a tank twice as long as wide and high' }),
    temperature: stock.temperature,
    salinity: stock.salinity,
    pH: stock.pH,
    alkalinity: USUAL_ALKALINITY,
    tapNitrate: 0,
    feed: null,
    plantShare: null,
    ...USUAL_CHANGES,
    roomTemperature: null,
  }
}
