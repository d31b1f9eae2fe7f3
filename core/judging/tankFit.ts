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
  if (!fill) return { level: 'unknown', turnover: null, sentence: ['No flow known for this filter yet.'] }
  const { stock } = tank
  const water = tank.water.value
  const rate = turnoverFigure(fill.flow, water)
  if (fill.flow.value === 0) return { level: 'weak', turnover: rate, sentence: ['No flow was measured.'] }
  const range = supportedRange(capacityInput(fill, claimedMax), stock)
  const [low, high] = range.maxInterval
  const most = inline(capacityFigure(fill, stock, claimedMax))
  const tooLittle: Sentence = ['supports ', most, ' at this stocking; the tank is ', inline(tank.water), '.']
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
    label: 'Too strong along',
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
      'Current too strong along ',
      inline(share(fast.at)),
      ' of the tank, whatever the outlet.',
    )
  if (range.atMost)
    return is('unknown', 'Not tested: its media are unknown. By flow alone it supports at most ', most, '.')
  if (water >= low) return is('borderline', 'Borderline, may be too small: ', ...tooLittle)
  if (fast && fast.most > CALM * length)
    return is(
      'borderline',
      'Borderline, may be too strong: current too strong along ',
      inline(share(fast.at)),
      ' of the tank, perhaps more than half.',
    )
  return is(
    'suits',
    'Fits: supports ',
    most,
    ' at this stocking; the tank is ',
    inline(tank.water),
    '. ',
    ...(!fast
      ? [inline(rate), ' turnovers an hour.']
      : share(fast.at).value < 0.0005
        ? ['The current is gentle everywhere.']
        : ['Current too strong along ', inline(share(fast.at)), ' of the tank.']),
  )
}
