import type { IntervalRule } from '../upkeep'
import type { Criterion } from './criteria'

/** How a house advises: what counts how much, when it demands two filters, and what money and minutes are worth. */
export interface AdviceRule {
  /** Weight of each criterion; only their proportions count. */
  readonly weights: Readonly<Record<Criterion, number>>
  /** Tanks from which two filters are demanded (m³); null: never for their size. */
  readonly twoFrom: number | null
  /** Two filters are demanded on crowded tanks: classes that a kilogram carries few litres of. */
  readonly twoWhenCrowded: boolean
  /** Years a filter is owned for. */
  readonly years: number
  /** Currency of tariff and minutes; and what a kilowatt-hour and a minute cost in it, in minor units. */
  readonly currency: string
  readonly tariffMinor: number | null
  /** The day the tariff is of; absent or null where nobody said. */
  readonly tariffOn?: string | null | undefined
  readonly minuteMinor: number | null
  /** Dear amounts: a price and a year’s cost that are worth nothing any more, in minor units of that currency. */
  readonly dearPriceMinor: number
  readonly dearYearMinor: number
  /** A sponge may be put over an intake that has none; else an open inlet is a hard no with shrimp and fry. */
  readonly addsSponge: boolean
  /** Of a cartridge the frame is kept, and floss is cut for it. */
  readonly cutFloss: boolean
  /** Prices of things needed besides, in minor units of that currency; what is absent has no price. */
  readonly extras?: Partial<Readonly<Record<Extra, number>>> | undefined
  /** Exchange rates of other currencies into that of the house, each with its day. */
  readonly rates?: Readonly<Record<string, { readonly rate: number; readonly on: string }>> | undefined
  /** How often filters are opened in this house; absent: as is usual for their kind. */
  readonly opens?: IntervalRule | undefined
}

/** Things a filter may need besides to run on a tank. */
export const EXTRAS = ['air-pump', 'check-valve', 'intake-sponge', 'spray-bar', 'plumbing'] as const
export type Extra = (typeof EXTRAS)[number]
export const EXTRA_WORDS: Readonly<Record<Extra, string>> = {
  'air-pump': 'air pump',
  'check-valve': 'check valve',
  'intake-sponge': 'intake sponge',
  'spray-bar': 'spray bar',
  plumbing: 'pipes and hoses',
}

/**
 * As shipped. Two filters on tanks from 473 L (125 US gal) and on crowded ones: common practice, no source. Weights,
 * tariff and what is dear are a house’s own choice: these are a start.
 */
export const ADVICE_RULE: AdviceRule = {
  weights: {
    capacity: 30,
    gentleness: 15,
    service: 15,
    noise: 10,
    running: 8,
    price: 12,
    build: 5,
    evidence: 5,
  },
  twoFrom: 0.473,
  twoWhenCrowded: true,
  years: 5,
  currency: 'EUR',
  tariffMinor: 32,
  tariffOn: null,
  minuteMinor: null,
  dearPriceMinor: 35000,
  dearYearMinor: 9000,
  addsSponge: true,
  cutFloss: false,
}

/** A kilogram carries no more than this of crowded or messy stock (litres; common practice, no source). */
export const CROWDED = 50
