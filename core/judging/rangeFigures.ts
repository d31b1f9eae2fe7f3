import { put, putFigure, type Figure } from '../figures'
import { ruleHalf, smallestTank, stockKey, turnover, type StockClass } from '../tanks'

/** The smallest tank in which the current is not too strong for a stock class. */
export const smallestFigure = (stock: StockClass, flow: Figure): Figure => ({
  id: `smallest-${stockKey(stock)}`,
  label: `Smallest tank, ${stock.label.toLowerCase()}`,
  value: smallestTank(flow.value, stock),
  uncertainty: ruleHalf(smallestTank(flow.value, stock), flow, stock.marks.maxTurnover.band),
  dimension: 'volume',
  provenance: 'rule',
  formula: 'V = Q ÷ most turnovers per hour',
  working: [
    putFigure('Q', flow),
    put(
      'n',
      `turnovers per hour it bears at most, ± ${Math.round(stock.marks.maxTurnover.band * 100)} %`,
      stock.maxTurnover,
      'ratio',
      'rule',
    ),
  ],
  source: stock.marks.maxTurnover.source,
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
