import { usualTank } from '../biology'
import { inline, type Figure, type Sentence } from '../figures'
import {
  CALM,
  capacityFigure,
  capacityInput,
  fastLength,
  outletsOf,
  SCHOOLS,
  supportedRange,
  type StockClass,
} from '../tanks'
import type { JudgedFill } from './fills'
import { turnoverFigure } from './rangeFigures'

/** How a model suits one given tank: what it carries there, and whether its jet leaves half of the length calm. */
export interface TankFit {
  readonly level: 'suits' | 'weak' | 'strong' | 'borderline' | 'unknown'
  readonly turnover: Figure | null
  readonly sentence: Sentence
}

/**
 * Judges one tank, its water V (m³), length (m; as tanks are made when absent) and stock class, against what a fill
 * brings. A tank inside the interval of a limit is borderline: nothing surer can be said of it. Where nothing is known
 * of the media it is never said to suit.
 */
export function tankFit(
  tank: { readonly water: Figure; readonly stock: StockClass; readonly length?: number },
  fill: JudgedFill | null,
  claimedMax: number | null = null,
): TankFit {
  if (!fill) return { level: 'unknown', turnover: null, sentence: ['No flow is known for this model yet.'] }
  const { stock } = tank
  const water = tank.water.value
  const rate = turnoverFigure(fill.flow, water)
  if (fill.flow.value === 0)
    return { level: 'weak', turnover: rate, sentence: ['No water comes through it as it was measured.'] }
  const range = supportedRange(capacityInput(fill, claimedMax), stock)
  const [low, high] = range.maxInterval
  const most = inline(capacityFigure(fill, stock, claimedMax))
  const by = SCHOOLS[range.binding].words
  const tooLittle: Sentence = [
    `by ${by} it carries `,
    most,
    ' of such stock, and the tank holds ',
    inline(tank.water),
    '.',
  ]
  const is = (level: TankFit['level'], ...sentence: Sentence): TankFit => ({
    level,
    turnover: rate,
    sentence,
  })
  if (water > high) return is('weak', SCHOOLS[range.binding].tooLittle, ...tooLittle)
  const length = tank.length ?? usualTank(water).length
  const fast = fastLength(fill.flow, outletsOf(capacityInput(fill)), stock)
  const share = (of: number): Figure => ({
    id: 'too-fast',
    label: 'Too fast over',
    value: Math.min(1, of / length),
    dimension: 'ratio',
    unit: '%',
    provenance: 'computed',
    formula: 'gentle from ÷ length',
    source: 'Pope, Turbulent Flows; Rajaratnam 1976 (from memory)',
  })
  if (fast && fast.least > CALM * length)
    return is(
      'strong',
      'Too strong: its gentlest outlet is too fast for them over ',
      inline(share(fast.at)),
      ' of the length.',
    )
  if (range.atMost)
    return is(
      'unknown',
      'Not known: what its media carry is not on record. ',
      `By ${by} no more than `,
      most,
      '.',
    )
  if (water >= low) return is('borderline', 'Borderline, it may be too little: ', ...tooLittle)
  if (fast && fast.most > CALM * length)
    return is(
      'borderline',
      'Borderline, it may be too strong: its gentlest outlet is too fast over ',
      inline(share(fast.at)),
      ' of the length, within its doubt over half.',
    )
  return is(
    'suits',
    'Suits: ',
    `by ${by} it carries `,
    most,
    ' of such stock; ',
    ...(fast ? ['its gentlest outlet is too fast over ', inline(share(fast.at)), ' of the length.'] : [inline(rate), ' turnovers an hour.']), // prettier-ignore
  )
}
