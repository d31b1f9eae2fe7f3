import type { Figure, Sentence } from '../figures'
import { turnover, type StockClass } from '../tanks'

/** How a model suits one given tank by the rules of this version: turnover at both ends and media mass. */
export interface TankFit {
  readonly level: 'suits' | 'weak' | 'strong' | 'unknown'
  readonly turnover: Figure | null
  readonly sentence: Sentence
}

/** Judges one tank: water volume V (m³), its stock class, against installed flow and media mass. */
export function tankFit(
  tank: { readonly water: number; readonly stock: StockClass },
  model: { readonly flow: Figure | null; readonly mediaMass: number | null },
): TankFit {
  if (!model.flow || model.flow.value <= 0)
    return { level: 'unknown', turnover: null, sentence: ['No flow is known for this model yet.'] }
  const { stock } = tank
  const rate = turnover(model.flow.value, tank.water)
  const figure: Figure = {
    id: 'turnover',
    label: 'Turnovers per hour',
    value: rate,
    dimension: 'ratio',
    provenance: model.flow.provenance === 'measured' ? 'computed' : model.flow.provenance,
    ...(model.flow.uncertainty !== undefined && {
      uncertainty: turnover(model.flow.uncertainty, tank.water),
    }),
    formula: 'flow ÷ water volume',
    working: [
      {
        symbol: 'Q',
        label: model.flow.label,
        value: model.flow.value,
        dimension: 'flow',
        provenance: model.flow.provenance,
      },
      {
        symbol: 'V',
        label: 'water in the tank',
        value: tank.water,
        dimension: 'volume',
        provenance: 'computed',
      },
    ],
  }
  const per = rate.toFixed(1)
  const carried = model.mediaMass === null ? null : (model.mediaMass * stock.litresPerKilogram) / 1000
  if (rate < stock.minTurnover)
    return {
      level: 'weak',
      turnover: figure,
      sentence: [`Too weak: ${per} turnovers an hour where ${stock.minTurnover} are asked for.`],
    }
  if (carried !== null && carried < tank.water)
    return {
      level: 'weak',
      turnover: figure,
      sentence: [
        'Too little media: it carries ',
        { si: carried, dimension: 'volume' },
        ' of such stock, and the tank holds ',
        { si: tank.water, dimension: 'volume' },
        '.',
      ],
    }
  if (rate > stock.maxTurnover)
    return {
      level: 'strong',
      turnover: figure,
      sentence: [`Too strong: ${per} turnovers an hour where ${stock.maxTurnover} is the most they bear.`],
    }
  return {
    level: 'suits',
    turnover: figure,
    sentence: [`Suits: ${per} turnovers an hour, between ${stock.minTurnover} and ${stock.maxTurnover}.`],
  }
}
