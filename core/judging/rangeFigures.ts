import { put, putFigure, type Figure } from '../figures'
import { turnover, type Limit, type StockClass } from '../tanks'
import type { ClaimQuantity, ClaimRecord } from './records'

const CLAIM_LABELS: Readonly<
  Record<ClaimQuantity, { readonly label: string; readonly dimension: Figure['dimension'] }>
> = {
  'rated-flow': { label: 'Rated flow', dimension: 'flow' },
  'max-head': { label: 'Maximum head', dimension: 'head' },
  power: { label: 'Power on the label', dimension: 'power' },
  'tank-min': { label: 'Smallest tank claimed', dimension: 'volume' },
  'tank-max': { label: 'Largest tank claimed', dimension: 'volume' },
  'media-volume': { label: 'Media volume claimed', dimension: 'volume' },
  noise: { label: 'Noise on the label', dimension: 'sound' },
}

/** A printed claim as a number that says where it is printed. */
export const printedFigure = (claim: ClaimRecord): Figure => ({
  id: `printed-${claim.quantity}`,
  ...CLAIM_LABELS[claim.quantity],
  value: claim.value,
  provenance: 'printed',
  conditions: [
    claim.where ? `printed on the ${claim.where}` : 'where it is printed was not noted',
    ...(claim.mainsFrequency ? [`for ${claim.mainsFrequency} Hz`] : []),
  ],
})

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
          putFigure('Q', inputs.flow),
          put('n', 'turnovers per hour asked for', stock.minTurnover, 'ratio', 'rule'),
        ],
      }
    case 'media-mass':
      return {
        ...common,
        label: `Largest tank by media mass, ${stock.label.toLowerCase()}`,
        formula: 'V = m × litres per kilogram',
        working: [
          put('m', 'biological media', inputs.mediaMass ?? 0, 'mass', 'measured'),
          put('L/kg', 'litres one kilogram carries', stock.litresPerKilogram, 'ratio', 'rule'),
        ],
      }
    case 'oversizing':
      return {
        ...common,
        label: `Largest tank by oversizing, ${stock.label.toLowerCase()}`,
        formula: 'V = claimed largest tank ÷ factor',
        working: [
          put('claim', 'largest tank claimed', inputs.claimedMax ?? 0, 'volume', 'printed'),
          put('factor', 'times the tank a filter should be rated for', stock.oversizing, 'ratio', 'rule'),
        ],
      }
  }
}

/** The smallest tank in which the current is not too strong for a stock class. */
export const smallestFigure = (stock: StockClass, flow: Figure): Figure => ({
  id: `smallest-${stock.id}`,
  label: `Smallest tank, ${stock.label.toLowerCase()}`,
  value: (flow.value * 3600) / stock.maxTurnover,
  dimension: 'volume',
  provenance: 'rule',
  formula: 'V = Q ÷ most turnovers per hour',
  working: [
    putFigure('Q', flow),
    put('n', 'turnovers per hour it bears at most', stock.maxTurnover, 'ratio', 'rule'),
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

/** Claimed largest tank ÷ supported largest tank, normally stocked. */
export const overclaimFigure = (claimed: number, supported: number): Figure => ({
  id: 'overclaim',
  label: 'Claimed ÷ supported',
  value: claimed / supported,
  dimension: 'ratio',
  provenance: 'computed',
  formula: 'claimed largest tank ÷ supported largest tank, normally stocked',
  working: [
    put('claimed', 'on the label', claimed, 'volume', 'printed'),
    put('supported', 'the smaller of turnover and media mass', supported, 'volume', 'computed'),
  ],
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
