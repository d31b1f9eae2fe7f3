import { requireRange } from '../errors'
import { put, putFigure, type Figure } from '../figures'
import type { StockClass } from './stock'

/**
 * Relative half-widths within which the trade's rules of thumb are believed: one shop's kilogram carries a fifth more
 * or less than another's. Common practice, no source.
 */
export const RULE_BAND = { litresPerKilogram: 0.2, turnover: 0.15, oversizing: 0.2 } as const

/** A value with its expanded uncertainty (95 %), in one unit. */
export interface Known {
  readonly value: number
  readonly uncertainty?: number
}
export type Interval = readonly [low: number, high: number]

/**
 * What a fill brings to a tank: flow (m³/s), the share of it that meets the media, good sintered media it is worth
 * (kg).
 */
export interface CapacityInput {
  readonly flow: Known
  readonly meets: number
  /** Null while neither fill nor mass is on record. */
  readonly mass: Known | null
}

/** Tank litres (m³) a fill carries for a stock class, within what is doubted of flow, mass and rule; and what binds. */
export interface Capacity {
  readonly volume: number
  readonly interval: Interval
  readonly byMass: number | null
  readonly byTurnover: number
  readonly binding: 'media-mass' | 'turnover'
}

/**
 * Half-width of a rule's result, in its unit: the relative doubt of what goes in and of the rule, taken as independent.
 * Null: what goes in is printed, and nothing of it is doubted.
 */
export const ruleHalf = (result: number, from: Known | null, rule: number): number =>
  result * Math.hypot(from && from.value > 0 ? (from.uncertainty ?? 0) / from.value : 0, rule)

/** The interval of a rule's result; see {@link ruleHalf}. */
export function ruleInterval(result: number, from: Known, rule: number): Interval {
  const half = ruleHalf(result, from, rule)
  return [Math.max(0, result - half), result + half]
}

/**
 * The tank a fill carries: the smaller of media mass × litres per kilogram and the flow that meets the media ÷
 * turnovers asked for. Both are rules of thumb; the interval carries flow, mass and the rule's own band. Every screen
 * and endpoint asks here. Common practice, no source.
 * @throws OutOfRange naming `flow` or `mass`.
 */
export function capacityOf({ flow, meets, mass }: CapacityInput, stock: StockClass): Capacity {
  requireRange('flow', flow.value, { min: 0, unit: 'm³/s' })
  const byTurnover = (flow.value * meets * 3600) / stock.minTurnover
  const flowInterval = ruleInterval(byTurnover, flow, RULE_BAND.turnover)
  if (!mass)
    return { volume: byTurnover, interval: flowInterval, byMass: null, byTurnover, binding: 'turnover' }
  requireRange('mass', mass.value, { min: 0, max: 1000, unit: 'kg' })
  const byMass = (mass.value * stock.litresPerKilogram) / 1000
  const massInterval = ruleInterval(byMass, mass, RULE_BAND.litresPerKilogram)
  return {
    volume: Math.min(byMass, byTurnover),
    interval: [Math.min(massInterval[0], flowInterval[0]), Math.min(massInterval[1], flowInterval[1])],
    byMass,
    byTurnover,
    binding: byMass < byTurnover ? 'media-mass' : 'turnover',
  }
}

/** The numbers a capacity is shown with. */
export interface CapacityFigures {
  /** Which fill, or what is known instead of one. */
  readonly fill: { readonly id: string; readonly name: string }
  readonly flow: Figure
  readonly meets: Figure
  readonly mass: Figure | null
}

/** What the sums need of those numbers. */
export const capacityInput = ({ flow, meets, mass }: Omit<CapacityFigures, 'fill'>): CapacityInput => ({
  flow,
  meets: meets.value,
  mass,
})

/** Tank litres a fill carries for a stock class, with the numbers that went in. */
export function capacityFigure(of: CapacityFigures, stock: StockClass): Figure {
  const { volume, interval, binding } = capacityOf(capacityInput(of), stock)
  return {
    id: `carries-${stock.id}-${of.fill.id}`,
    label: `Carries, ${stock.label.toLowerCase()}`,
    value: volume,
    // The wider side, where flow and mass bind nearly alike: never surer than the interval it is judged by.
    uncertainty: Math.max(volume - interval[0], interval[1] - volume),
    dimension: 'volume',
    provenance: 'rule',
    conditions: [
      of.fill.name,
      binding === 'media-mass' ? 'the mass of media binds' : 'turnover binds',
      'tank litres',
    ],
    formula: 'min(m · litres per kg, Q · share that meets the media · 3600 ÷ turnover)',
    working: [
      ...(of.mass ? [putFigure('m', of.mass)] : []),
      put('L/kg', 'tank litres carried by 1 kg, ± 20 %', stock.litresPerKilogram, 'ratio', 'rule'),
      putFigure('Q', of.flow),
      putFigure('share', of.meets),
      put('1/h', 'turnovers asked for, ± 15 %', stock.minTurnover, 'ratio', 'rule'),
    ],
    source: 'common practice, no source',
  }
}
