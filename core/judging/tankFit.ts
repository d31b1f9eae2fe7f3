import { sayFigure, type Figure, type Sentence } from '../figures'
import { carriedByMass, type StockClass } from '../tanks'
import { limitFigure, turnoverFigure } from './rangeFigures'

/** How a model suits one given tank by the rules of this version: turnover at both ends and media mass. */
export interface TankFit {
  readonly level: 'suits' | 'weak' | 'strong' | 'unknown'
  readonly turnover: Figure | null
  readonly sentence: Sentence
}

/** Judges one tank: water volume V (m³), its stock class, against installed flow and media mass. */
export function tankFit(
  tank: { readonly water: Figure; readonly stock: StockClass },
  model: { readonly flow: Figure | null; readonly mediaMass: number | null },
): TankFit {
  if (!model.flow || model.flow.value <= 0)
    return { level: 'unknown', turnover: null, sentence: ['No flow is known for this model yet.'] }
  const { stock } = tank
  const figure = turnoverFigure(model.flow, tank.water.value)
  const rate = figure.value
  const per = sayFigure(figure)
  const carried = model.mediaMass === null ? null : carriedByMass(model.mediaMass, stock)
  if (rate < stock.minTurnover)
    return {
      level: 'weak',
      turnover: figure,
      sentence: ['Too weak: ', per, ` turnovers an hour where ${stock.minTurnover} are asked for.`],
    }
  if (carried !== null && carried < tank.water.value)
    return {
      level: 'weak',
      turnover: figure,
      sentence: [
        'Too little media: it carries ',
        sayFigure(
          limitFigure({ constraint: 'media-mass', volume: carried, binding: true }, stock, {
            flow: model.flow,
            mediaMass: model.mediaMass,
            claimedMax: null,
          }),
        ),
        ' of such stock, and the tank holds ',
        sayFigure(tank.water),
        '.',
      ],
    }
  if (rate > stock.maxTurnover)
    return {
      level: 'strong',
      turnover: figure,
      sentence: ['Too strong: ', per, ` turnovers an hour where ${stock.maxTurnover} is the most they bear.`],
    }
  return {
    level: 'suits',
    turnover: figure,
    sentence: ['Suits: ', per, ` turnovers an hour, between ${stock.minTurnover} and ${stock.maxTurnover}.`],
  }
}
