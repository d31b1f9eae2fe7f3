import { put, putFigure, type Figure } from '../figures'
import {
  RULE_BAND,
  ruleHalf,
  smallestTank,
  turnover,
  type CapacityFigures,
  type Limit,
  type StockClass,
} from '../tanks'

/** What a limit was worked out from: what a fill brings, and the label's top. */
export interface LimitInputs extends Omit<CapacityFigures, 'fill'> {
  readonly claimedMax: number | null
}

/** One limit of a tank range with its working: the rule of thumb and the numbers put into it. */
export function limitFigure(limit: Limit, stock: StockClass, inputs: LimitInputs): Figure {
  const { flow, meets, mass } = inputs
  const common = {
    id: `limit-${stock.id}-${limit.constraint}`,
    value: limit.volume,
    dimension: 'volume',
    provenance: 'rule',
    source: stock.source,
  } as const
  switch (limit.constraint) {
    case 'turnover':
      return {
        ...common,
        label: `Largest tank by turnover, ${stock.label.toLowerCase()}`,
        uncertainty: ruleHalf(limit.volume, flow, RULE_BAND.turnover),
        formula: 'V = Q · share that meets the media ÷ turnovers per hour',
        working: [
          putFigure('Q', flow),
          putFigure('share', meets),
          put('n', 'turnovers per hour asked for, ± 15 %', stock.minTurnover, 'ratio', 'rule'),
        ],
      }
    case 'media-mass':
      return {
        ...common,
        label: `Largest tank by media mass, ${stock.label.toLowerCase()}`,
        uncertainty: ruleHalf(limit.volume, mass, RULE_BAND.litresPerKilogram),
        formula: 'V = m × litres per kilogram',
        working: [
          ...(mass ? [putFigure('m', mass)] : []),
          put('L/kg', 'litres one kilogram carries, ± 20 %', stock.litresPerKilogram, 'ratio', 'rule'),
        ],
      }
    case 'oversizing':
      return {
        ...common,
        label: `Largest tank by oversizing, ${stock.label.toLowerCase()}`,
        uncertainty: ruleHalf(limit.volume, null, RULE_BAND.oversizing),
        formula: 'V = claimed largest tank ÷ factor',
        working: [
          put('claim', 'largest tank claimed', inputs.claimedMax ?? 0, 'volume', 'printed'),
          put(
            'factor',
            'times the tank a filter should be rated for, ± 20 %',
            stock.oversizing,
            'ratio',
            'rule',
          ),
        ],
      }
  }
}

/** The smallest tank in which the current is not too strong for a stock class. */
export const smallestFigure = (stock: StockClass, flow: Figure): Figure => ({
  id: `smallest-${stock.id}`,
  label: `Smallest tank, ${stock.label.toLowerCase()}`,
  value: smallestTank(flow.value, stock),
  uncertainty: ruleHalf(smallestTank(flow.value, stock), flow, RULE_BAND.turnover),
  dimension: 'volume',
  provenance: 'rule',
  formula: 'V = Q ÷ most turnovers per hour',
  working: [
    putFigure('Q', flow),
    put('n', 'turnovers per hour it bears at most, ± 15 %', stock.maxTurnover, 'ratio', 'rule'),
  ],
  source: stock.source,
})

/** Turnovers per hour of a tank's water (m³) at a flow. */
export const turnoverFigure = (flow: Figure, water: number, whose = 'water in the tank'): Figure => ({
  id: 'turnover',
  label: 'Turnovers per hour',
  value: turnover(flow.value, water),
  dimension: 'ratio',
  provenance: flow.provenance === 'measured' ? 'computed' : flow.provenance,
  ...(flow.uncertainty !== undefined && { uncertainty: turnover(flow.uncertainty, water) }),
  formula: 'n = flow ÷ water volume',
  working: [putFigure('Q', flow), put('V', whose, water, 'volume', 'computed')],
})

/**
 * Claimed largest tank ÷ supported largest tank, normally stocked; marked as a rule, because what is supported is one.
 */
export const overclaimFigure = (claimed: number, supported: Figure): Figure => ({
  id: 'overclaim',
  label: 'Claimed ÷ supported',
  value: claimed / supported.value,
  dimension: 'ratio',
  provenance: 'rule',
  ...(supported.uncertainty !== undefined && {
    uncertainty: (claimed / supported.value) * Math.min(1, supported.uncertainty / supported.value),
  }),
  formula: 'claimed largest tank ÷ supported largest tank, normally stocked',
  working: [put('claimed', 'on the label', claimed, 'volume', 'printed'), putFigure('supported', supported)],
})

/**
 * How far one number is from another, as a share of the second and without its sign: what a sentence calls "12 %
 * short".
 */
export const shareApart = (id: string, label: string, from: Figure, of: Figure): Figure => ({
  id,
  label,
  value: Math.abs(from.value / of.value - 1),
  dimension: 'ratio',
  unit: '%',
  provenance: 'computed',
  formula: '|a ÷ b − 1|',
  working: [putFigure('a', from), putFigure('b', of)],
})
