import { sayFigure, type Figure, type Sentence } from '../figures'
import { capacityInput, supportedRange, type StockClass } from '../tanks'
import type { JudgedFill } from './fills'
import { limitFigure, turnoverFigure } from './rangeFigures'

/** How a model suits one given tank by the rules of this version: turnover at both ends and media mass. */
export interface TankFit {
  readonly level: 'suits' | 'weak' | 'strong' | 'borderline' | 'unknown'
  readonly turnover: Figure | null
  readonly sentence: Sentence
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
  const { meets } = fill
  const met: Sentence = meets.value < 0.995 ? [', of which ', sayFigure(meets), ' meet the media,'] : []
  const top = range.limits.find((l) => l.binding)
  const most = top && sayFigure(limitFigure(top, stock, { ...fill, claimedMax: null }))
  const tooLittle: Sentence =
    range.binding === 'media-mass' && most
      ? ['its media carry ', most, ' of such stock, and the tank holds ', sayFigure(tank.water), '.']
      : [per, ' turnovers an hour', ...met, ` where ${stock.minTurnover} are asked for.`]
  const is = (level: TankFit['level'], ...sentence: Sentence): TankFit => ({
    level,
    turnover: rate,
    sentence,
  })
  if (water > high)
    return is('weak', range.binding === 'media-mass' ? 'Too little media: ' : 'Too weak: ', ...tooLittle)
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
    per,
    ` turnovers an hour, between ${stock.minTurnover} and ${stock.maxTurnover}.`,
  )
}
