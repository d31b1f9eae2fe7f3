import { sayFigure, type Figure, type Sentence } from '../figures'
import {
  capacityFigure,
  capacityInput,
  SCHOOL_WORDS,
  supportedRange,
  type CapacitySchool,
  type StockClass,
} from '../tanks'
import type { JudgedFill } from './fills'
import { turnoverFigure } from './rangeFigures'

/** How a model suits one given tank by the rules of this version: turnover at both ends and media mass. */
export interface TankFit {
  readonly level: 'suits' | 'weak' | 'strong' | 'borderline' | 'unknown'
  readonly turnover: Figure | null
  readonly sentence: Sentence
}

/** What is too little, by the school that binds. */
const WEAK: Readonly<Record<CapacitySchool, string>> = {
  'media-mass': 'Too little media: ',
  balance: 'More than it takes up: ',
  turnover: 'Too weak: ',
  minima: 'Too weak: ',
  oversizing: 'Rated too small: ',
}

/**
 * Judges one tank, its water V (m³) and stock class, against what a fill brings. A tank inside the interval of a limit
 * is borderline: nothing surer can be said of it.
 */
export function tankFit(
  tank: { readonly water: Figure; readonly stock: StockClass },
  fill: JudgedFill | null,
): TankFit {
  if (!fill) return { level: 'unknown', turnover: null, sentence: ['No flow is known for this model yet.'] }
  if (fill.flow.value === 0)
    return {
      level: 'weak',
      turnover: turnoverFigure(fill.flow, tank.water.value),
      sentence: ['No water comes through it as it was measured.'],
    }
  const { stock } = tank
  const water = tank.water.value
  const range = supportedRange(capacityInput(fill), stock)
  const rate = turnoverFigure(fill.flow, water)
  const per = sayFigure(rate)
  const [low, high] = range.maxInterval
  const most = sayFigure(capacityFigure(fill, stock))
  const tooLittle: Sentence = [
    `by ${SCHOOL_WORDS[range.binding]} it carries `,
    most,
    ' of such stock, and the tank holds ',
    sayFigure(tank.water),
    '.',
  ]
  const is = (level: TankFit['level'], ...sentence: Sentence): TankFit => ({
    level,
    turnover: rate,
    sentence,
  })
  if (water > high) return is('weak', WEAK[range.binding], ...tooLittle)
  const [gentleFrom, gentleTo] = range.minInterval
  if (water < gentleFrom)
    return is(
      'strong',
      'Too strong: ',
      per,
      ` turnovers an hour where ${stock.maxTurnover} is the most they bear.`,
    )
  if (water >= low) return is('borderline', 'Borderline, it may be too little: ', ...tooLittle)
  if (water <= gentleTo)
    return is(
      'borderline',
      'Borderline, it may be too strong: ',
      per,
      ` turnovers an hour, about the ${stock.maxTurnover} they bear at most.`,
    )
  return is(
    'suits',
    'Suits: ',
    `by ${SCHOOL_WORDS[range.binding]} it carries `,
    most,
    ' of such stock; ',
    per,
    ` turnovers an hour, where ${stock.maxTurnover} is the most they bear.`,
  )
}
