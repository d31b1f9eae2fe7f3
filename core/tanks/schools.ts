import { FILM_BAND, mostOf, reachedSurface } from '../biology'
import { put, putFigure, type Figure, type WorkingLine } from '../figures'
import { capacityInput, capacityOf, type CapacityFigures, type SchoolSays } from './capacity'
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
  const { flow, meets, mass, films } = of
  const turns = [putFigure('Q', flow), putFigure('share', meets)]
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
          'V: feed · protein · 0.092 · (1 − plants) = changes + films at the first limit;  r = r_max S/(1.93 + S)',
        working: [
          put(
            'A',
            `usable surface that water reaches, m²; its film ${percent(FILM_BAND)}`,
            films ? reachedSurface(films) : 0,
            'ratio',
            'computed',
          ),
          put(
            'r_max',
            'most a film takes, mg N/m² a day',
            films ? mostOf(stock) * 86400e6 : 0,
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
        formula: 'V = Q · share that meets the media ÷ floor',
        working: [
          ...turns,
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
        formula: 'V = Q · share that meets the media ÷ turnovers per hour',
        working: [...turns, rule('n', 'turnovers per hour asked for', stock, 'minTurnover')],
        source: stock.marks.minTurnover.source,
      }
  }
}

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
    uncertainty: Math.max(says.volume - says.interval[0], says.interval[1] - says.volume),
    dimension: 'volume',
    provenance: says.school === 'balance' ? 'computed' : 'rule',
    ...shown(says.school, of, stock, claimedMax),
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
    // The wider side, where several bind nearly alike: never surer than the interval it is judged by.
    uncertainty: Math.max(volume - interval[0], interval[1] - volume),
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
