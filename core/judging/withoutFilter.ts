import { EXCHANGE_BAND, gasExchange, OXYGEN_OF_NITROGEN } from '../biology'
import { type Figure, put } from '../figures'
import type { TankBalance } from './balanceWords'

/** Oxygen under which fish are at risk within hours (kg/m³). Common practice, no source. */
const RISK = 3e-3

/** Gas exchange of a surface that nothing stirs, in its band: half of it, what the sums give, half as much again. */
export const EXCHANGES = { low: 1 - EXCHANGE_BAND, given: 1, high: 1 + EXCHANGE_BAND } as const

/**
 * Gas exchange of the still surface (m/s), and how far below saturation it would hold the oxygen (kg/m³) with animals,
 * plants and bacteria breathing, and the tank’s own films taking what they take.
 */
function stillRest(
  { balance: b, keeping: k }: Pick<TankBalance, 'balance' | 'keeping'>,
  share: number,
): { readonly exchange: number; readonly drawn: number } {
  const exchange = share * gasExchange({ speed: 0, depth: k.volume / k.surface, temperature: k.temperature })
  return { exchange, drawn: usedWithout(b) / (exchange * k.surface) }
}

/** Oxygen used with every filter off (kg/s). */
const usedWithout = (b: TankBalance['balance']): number =>
  b.oxygenUse.animals + b.oxygenUse.plants + b.oxygenUse.rotting + b.nitrogen.own * OXYGEN_OF_NITROGEN

/**
 * How long the tank has with nothing running (hours): until its oxygen falls to 3 mg/L under a still surface that takes
 * in a share of what the sums give. Infinity where it never does.
 */
export function hoursWithout(study: Pick<TankBalance, 'balance' | 'keeping'>, share = 1): number {
  const { balance: b, keeping: k } = study
  const { exchange, drawn } = stillRest(study, share)
  const rest = b.saturation - drawn
  if (b.oxygen <= RISK) return 0
  if (rest >= RISK) return Infinity
  return (Math.log((b.oxygen - rest) / (RISK - rest)) * k.volume) / (exchange * k.surface) / 3600
}

/** Oxygen at which a still surface holds the tank (kg/m³), never below nothing. */
export const oxygenWithout = (study: Pick<TankBalance, 'balance' | 'keeping'>, share = 1): number =>
  Math.max(0, study.balance.saturation - stillRest(study, share).drawn)

/** Source of what a still surface takes in. */
const STILL = 'a still surface, 0.6 m a day (common practice), to a factor of two'

/** Working lines of oxygen with every filter off. */
const without = ({ balance: b, keeping: k }: TankBalance): Figure['working'] => [
  put('use', 'animals, plants, and the bacteria of the tank itself', usedWithout(b), 'feed', 'computed'),
  put('C*', 'saturation', b.saturation, 'concentration', 'computed'),
  put('A', 'water surface', k.surface, 'area', 'measured'),
]

/** Hours until oxygen is at the risk, as a figure. */
export const hoursFigure = (study: TankBalance, hours: number, which: 'low' | 'given'): Figure => {
  const { balance: b, keeping: k } = study
  const ends = [EXCHANGES.low, EXCHANGES.high].map((share) => hoursWithout(study, share) * 3600) as [
    number,
    number,
  ]
  const value = hours * 3600
  return {
    id: which === 'low' ? 'hours-without-low' : 'hours-without',
    label:
      which === 'low'
        ? 'Power cut: oxygen reaches 3 mg/L, at half the surface exchange'
        : 'Power cut: oxygen reaches 3 mg/L',
    value,
    ...(which === 'given' &&
      ends[1] < Infinity && { uncertainty: Math.max(value - ends[0], ends[1] - value), interval: ends }),
    dimension: 'time',
    unit: value < 3600 ? 'min' : 'h',
    provenance: 'computed',
    conditions: which === 'low' ? ['half of the surface exchange: the low end of its range'] : [],
    formula: 't = V/(K_L A) · ln[(D − C* + C₀)/(D − C* + 3 mg/L)],  D = use/(K_L A)',
    working: [
      put('C₀', 'as it stops', b.oxygen, 'concentration', 'computed'),
      put('K_L', 'gas exchange', stillRest(study, EXCHANGES[which]).exchange, 'velocity', 'rule'),
      put('V', 'water in the tank', k.volume, 'volume', 'computed'),
      ...(without(study) ?? []),
    ],
    source: STILL,
  }
}

/** Where a still surface holds the oxygen, by its low end. */
export const restFigure = (study: TankBalance): Figure => ({
  id: 'oxygen-without',
  label: 'Oxygen in a power cut',
  value: oxygenWithout(study),
  uncertainty: oxygenWithout(study) - oxygenWithout(study, EXCHANGES.low),
  dimension: 'concentration',
  provenance: 'computed',
  formula: 'C = C* − use/(K_L A), never below nothing',
  working: [
    put('K_L', 'gas exchange', stillRest(study, 1).exchange, 'velocity', 'rule'),
    ...(without(study) ?? []),
  ],
  source: STILL,
})
