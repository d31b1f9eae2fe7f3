import { put, putFigure, type Figure } from '../figures'
import {
  fastLength,
  outletsOf,
  smallestTank,
  stockKey,
  turnover,
  type CapacityInput,
  type StockClass,
} from '../tanks'

/** The smallest tank in which half of the length is no faster than a stock class bears. */
export function smallestFigure(stock: StockClass, of: CapacityInput, flow: Figure): Figure {
  const { volume, interval } = smallestTank(of.flow, outletsOf(of), stock)
  const found = fastLength(of.flow, outletsOf(of), stock)
  return {
    id: `smallest-${stockKey(stock)}`,
    label: `Smallest tank, ${stock.label.toLowerCase()}`,
    value: volume,
    ...(volume > 0 && { uncertainty: Math.max(volume - interval[0], interval[1] - volume), interval }),
    dimension: 'volume',
    provenance: 'rule',
    conditions: ['half of the tank calm, with the gentlest outlet supplied'],
    formula: 'V = (2 x)³ ÷ 4, x the distance from which the jet is gentle',
    working: [
      putFigure('Q', flow),
      put(
        'u',
        `strongest current they tolerate, ± ${Math.round(stock.marks.strongestCurrent.band * 100)} %`,
        stock.strongestCurrent,
        'velocity',
        'rule',
      ),
      put('x', 'gentle from', found && Number.isFinite(found.at) ? found.at : 20, 'length', 'computed'),
    ],
    source: 'Pope, Turbulent Flows; Rajaratnam 1976 (from memory); usual tank shapes (common practice)',
  }
}

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
  label: 'Label ÷ supported',
  value: claimed / supported.value,
  dimension: 'ratio',
  provenance: 'rule',
  ...(supported.uncertainty !== undefined && {
    uncertainty: (claimed / supported.value) * Math.min(1, supported.uncertainty / supported.value),
  }),
  formula: 'largest tank on the label ÷ largest tank supported (normal stocking)',
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
