import { FILM_BAND, mostHere, ORGANIC_BAND, reachedSurface } from '../biology'
import { put, putFigure, type Figure, type WorkingLine } from '../figures'
import {
  capacityInput,
  capacityOf,
  keepingOfClass,
  type CapacityFigures,
  type Interval,
  type SchoolSays,
} from './capacity'
import { CAPACITY_RULE, FLOOR_BAND, type CapacitySchool } from './rule'
import { stockKey, type StockClass, type StockNumber } from './stock'

/** Schools of capacity in a word or two, as what holds the top of a range down. */
export const SCHOOL_WORDS: Readonly<Record<CapacitySchool, string>> = {
  'media-mass': 'media mass',
  balance: 'feed balance',
  turnover: 'floor of turnover',
  oversizing: 'oversizing',
  minima: 'least turnover',
}

/** Where a school comes from: who says it, what it rests on, and what they stand to gain. */
export interface SchoolOrigin {
  readonly who: string
  readonly rests: string
  readonly interest: string
}
/** Common practice, no source, but for the laboratory films. */
export const SCHOOL_ORIGINS: Readonly<Record<CapacitySchool, SchoolOrigin>> = {
  'media-mass': {
    who: 'makers of the medium and those who sell it, and reviewers who weigh',
    rests: 'tanks that ran well over media of known weight; no published trial',
    interest: 'whoever says it sells kilograms',
  },
  balance: {
    who: 'laboratory films and fish farms',
    rests: 'films measured in clean water with nothing else to eat (Zhu and Chen 1999, 2001)',
    interest: 'none in this trade; a film in a tank does less well than one in a laboratory',
  },
  turnover: {
    who: 'most keepers',
    rests: 'habit: corners that nothing moves collect dirt; nobody states a least for sure',
    interest: 'pumps are sold by their flow',
  },
  oversizing: {
    who: 'keepers of turtles and other messy animals',
    rests: 'tanks that stayed clear under filters rated for several times their size',
    interest: 'larger filters cost more',
  },
  minima: {
    who: 'tables in shops and handbooks',
    rests: 'turnovers per hour handed on from table to table; nobody states them for sure',
    interest: 'pumps are sold by their flow',
  },
}

const percent = (v: number): string => `± ${Math.round(v * 100)} %`
const rule = (symbol: string, words: string, stock: StockClass, n: StockNumber): WorkingLine =>
  put(symbol, `${words}, ${percent(stock.marks[n].band)}`, stock[n], 'ratio', 'rule')

interface Shown {
  readonly formula: string
  readonly working: readonly WorkingLine[]
  readonly source: string
}

/** How a school’s tank is worked out. */
function shown(
  school: CapacitySchool,
  of: Omit<CapacityFigures, 'fill'>,
  stock: StockClass,
  claimedMax: number | null,
): Shown {
  const { flow, mass, films } = of
  switch (school) {
    case 'media-mass':
      return {
        formula: 'V = m × litres per kilogram',
        working: [
          ...(mass ? [putFigure('m', mass)] : []),
          rule('L/kg', 'litres one kilogram carries', stock, 'litresPerKilogram'),
        ],
        source: stock.marks.litresPerKilogram.source,
      }
    case 'balance':
      return {
        formula:
          'V: feed · protein · 0.092 · (1 − plants) = changes + films at the first limit;  r = r_max · A/(25 + A) · S/(1.93 + S), A the alkalinity left',
        working: [
          put(
            'A',
            `effective area that water reaches; its film ${percent(FILM_BAND)}`,
            films ? reachedSurface(films) : 0,
            'area',
            'rule',
          ),
          put(
            'r_max',
            'most a film takes beside organic carbon, mg N/m² a day',
            films ? mostHere(keepingOfClass(stock, of)) * 86400e6 : 0,
            'ratio',
            'rule',
          ),
          {
            ...put(
              'feed',
              `feed, ${percent(stock.marks.feedPerVolume.band)}`,
              stock.feedPerVolume,
              'feeding',
              'rule',
            ),
          },
          put('protein', 'of the feed', stock.protein, 'ratio', 'rule'),
          put('plants', 'take of the ammonia', stock.plantShare, 'ratio', 'rule'),
          putFigure('Q', flow),
        ],
        source: 'Timmons and Ebeling; Zhu and Chen 1999, 2001; EIFAC 1970 (from memory)',
      }
    case 'turnover':
      return {
        formula: 'V = Q ÷ floor',
        working: [
          putFigure('Q', flow),
          put(
            'floor',
            `turnovers per hour, ${percent(FLOOR_BAND)}`,
            (stock.rule ?? CAPACITY_RULE).turnoverFloor,
            'ratio',
            'rule',
          ),
        ],
        source: 'common practice, no source',
      }
    case 'oversizing':
      return {
        formula: 'V = claimed largest tank ÷ factor',
        working: [
          put('claim', 'largest tank claimed', claimedMax ?? 0, 'volume', 'printed'),
          rule('factor', 'times the tank a filter should be rated for', stock, 'oversizing'),
        ],
        source: stock.marks.oversizing.source,
      }
    case 'minima':
      return {
        formula: 'V = Q ÷ turnovers per hour',
        working: [putFigure('Q', flow), rule('n', 'turnovers per hour asked for', stock, 'minTurnover')],
        source: stock.marks.minTurnover.source,
      }
  }
}

/** An interval as it is judged by: its wider half, and both where they differ. */
export const asUsed = (value: number, [low, high]: Interval): Pick<Figure, 'uncertainty' | 'interval'> => ({
  uncertainty: Math.max(value - low, high - value),
  ...(Math.abs(high - value - (value - low)) > 1e-3 * Math.max(value, high - low) && {
    interval: [low, high],
  }),
})

/** What a school says of a fill as a number with its working; null where it says nothing. */
export function schoolFigure(
  says: SchoolSays,
  of: Omit<CapacityFigures, 'fill'>,
  stock: StockClass,
  claimedMax: number | null,
): Figure | null {
  if (says.volume === null || says.interval === null) return null
  return {
    id: `limit-${stockKey(stock)}-${says.school}`,
    label: `Largest tank by ${SCHOOL_WORDS[says.school]}, ${stock.label.toLowerCase()}`,
    value: says.volume,
    ...asUsed(says.volume, says.interval),
    dimension: 'volume',
    provenance: says.school === 'balance' ? 'computed' : 'rule',
    ...shown(says.school, of, stock, claimedMax),
  }
}

/** Relative half-width (95 %) of the rule a school goes by: all that are judged by it are wrong by the same. */
function ruleBand(school: CapacitySchool, { marks }: StockClass): number {
  switch (school) {
    case 'media-mass':
      return marks.litresPerKilogram.band
    case 'balance':
      return Math.hypot(FILM_BAND, ORGANIC_BAND, marks.feedPerVolume.band)
    case 'turnover':
      return FLOOR_BAND
    case 'oversizing':
      return marks.oversizing.band
    case 'minima':
      return marks.minTurnover.band
  }
}

/** Tank litres a fill carries for a stock class, with the numbers that went in. */
export function capacityFigure(
  of: CapacityFigures,
  stock: StockClass,
  claimedMax: number | null = null,
): Figure {
  const { volume, interval, leading, binding } = capacityOf(capacityInput(of, claimedMax), stock)
  return {
    id: `carries-${stockKey(stock)}-${of.fill.id}`,
    label: `Carries, ${stock.label.toLowerCase()}`,
    value: volume,
    ...asUsed(volume, interval),
    shared: [{ what: `${SCHOOL_WORDS[binding]}, ${stockKey(stock)}`, relative: ruleBand(binding, stock) }],
    dimension: 'volume',
    provenance: binding === 'balance' ? 'computed' : 'rule',
    conditions: [
      of.fill.name,
      binding === leading
        ? `by ${SCHOOL_WORDS[leading]}, which leads in this house`
        : `${SCHOOL_WORDS[binding]} binds before ${SCHOOL_WORDS[leading]}`,
      'tank litres',
    ],
    ...shown(binding, of, stock, claimedMax),
  }
}
