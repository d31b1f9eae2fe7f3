import type { Figure } from '../figures'
import type { Limit, StockClass } from '../tanks'

/** What a limit was worked out from: the flow the verdict rests on, weighed media, the label's top. */
export interface LimitInputs {
  readonly flow: Figure
  readonly mediaMass: number | null
  readonly claimedMax: number | null
}

/** One limit of a tank range with its working: the rule of thumb and the numbers put into it. */
export function limitFigure(limit: Limit, stock: StockClass, inputs: LimitInputs): Figure {
  const common = {
    id: `limit-${stock.id}-${limit.constraint}`,
    value: limit.volume,
    dimension: 'volume',
    provenance: 'rule',
    source: stock.source,
  } as const
  const rule = (symbol: string, label: string, value: number) =>
    ({ symbol, label, value, dimension: 'ratio', provenance: 'rule' }) as const
  switch (limit.constraint) {
    case 'turnover':
      return {
        ...common,
        label: `Largest tank by turnover, ${stock.label.toLowerCase()}`,
        ...(inputs.flow.uncertainty !== undefined && {
          uncertainty: (inputs.flow.uncertainty * 3600) / stock.minTurnover,
        }),
        formula: 'V = Q ÷ turnovers per hour',
        working: [
          {
            symbol: 'Q',
            label: inputs.flow.label,
            value: inputs.flow.value,
            dimension: 'flow',
            provenance: inputs.flow.provenance,
          },
          rule('n', 'turnovers per hour asked for', stock.minTurnover),
        ],
      }
    case 'media-mass':
      return {
        ...common,
        label: `Largest tank by media mass, ${stock.label.toLowerCase()}`,
        formula: 'V = m × litres per kilogram',
        working: [
          {
            symbol: 'm',
            label: 'biological media',
            value: inputs.mediaMass ?? 0,
            dimension: 'mass',
            provenance: 'measured',
          },
          rule('L/kg', 'litres one kilogram carries', stock.litresPerKilogram),
        ],
      }
    case 'oversizing':
      return {
        ...common,
        label: `Largest tank by oversizing, ${stock.label.toLowerCase()}`,
        formula: 'V = claimed largest tank ÷ factor',
        working: [
          {
            symbol: 'claim',
            label: 'largest tank claimed',
            value: inputs.claimedMax ?? 0,
            dimension: 'volume',
            provenance: 'printed',
          },
          rule('factor', 'times the tank a filter should be rated for', stock.oversizing),
        ],
      }
  }
}

/** Claimed largest tank ÷ supported largest tank, normally stocked. */
export const overclaimFigure = (claimed: number, supported: number): Figure => ({
  id: 'overclaim',
  label: 'Claimed ÷ supported',
  value: claimed / supported,
  dimension: 'ratio',
  provenance: 'computed',
  formula: 'claimed largest tank ÷ supported largest tank, normally stocked',
  working: [
    { symbol: 'claimed', label: 'on the label', value: claimed, dimension: 'volume', provenance: 'printed' },
    {
      symbol: 'supported',
      label: 'the smaller of turnover and media mass',
      value: supported,
      dimension: 'volume',
      provenance: 'computed',
    },
  ],
})
