import { requireRange } from '../errors'
import { CAPACITY_RULE, LEADS_OF_CLASS, type CapacityRule, type CapacitySchool } from './rule'
import {
  isBlind,
  SCHOOLS,
  type CapacityFigures,
  type CapacityInput,
  type Interval,
  type SchoolSays,
} from './schools'
import type { StockClass } from './stock'

/** Tank litres (m³) a fill carries for a stock class by the house’s leading school, within its interval. */
export interface Capacity {
  readonly volume: number
  readonly interval: Interval
  readonly leading: CapacitySchool
  readonly binding: CapacitySchool
  readonly schools: readonly SchoolSays[]
  /** Nobody noted its media, and a school that knows nothing of them speaks for want of better: at most so much. */
  readonly atMost: boolean
}

/**
 * A class’s rule: what its house says, but where a class has a school of its own (turtles are rated against rated) that
 * leads, unless the house has it silent.
 */
export function ruleOf({ rule = CAPACITY_RULE, code }: Pick<StockClass, 'rule' | 'code'>): CapacityRule {
  const own = code === null ? undefined : LEADS_OF_CLASS[code]
  return own && rule.order.includes(own)
    ? { ...rule, order: [own, ...rule.order.filter((s) => s !== own)] }
    : rule
}

/**
 * The tank a fill carries: what the first school of the house’s order that applies says of it, no more than those it
 * lets bind. Where none of its order applies the minimum circulation is all there is. A filter that nothing comes
 * through carries nothing, whatever is in it. Every screen and endpoint asks here.
 * @throws OutOfRange naming `flow` or `mass`.
 */
export function capacityOf(input: CapacityInput, stock: StockClass): Capacity {
  requireRange('flow', input.flow.value, { min: 0, unit: 'm³/s' })
  const { order, bind } = ruleOf(stock)
  const spoken = [...order, ...bind.filter((s) => !order.includes(s))].map((school) => ({
    school,
    ...SCHOOLS[school].says(input, stock),
  }))
  const first = spoken.find((s) => order.includes(s.school) && s.volume !== null)
  const leader = first ?? { school: 'turnover' as const, ...SCHOOLS.turnover.says(input, stock) }
  const all = first || spoken.some((s) => s.school === 'turnover') ? spoken : [...spoken, leader]
  const roleOf = (s: (typeof all)[number]): SchoolSays['role'] => {
    if (s.volume === null) return 'silent'
    if (s.school === leader.school) return 'leads'
    return bind.includes(s.school) ? 'binds' : 'beside'
  }
  const schools = all.map((s): SchoolSays => ({ ...s, role: roleOf(s) }))
  const counted = schools.filter((s) => s.role === 'leads' || s.role === 'binds')
  const least = counted.reduce((a, b) => ((b.volume ?? Infinity) < (a.volume ?? Infinity) ? b : a))
  if (input.flow.value === 0)
    return {
      volume: 0,
      interval: [0, 0],
      leading: leader.school,
      binding: 'turnover',
      schools,
      atMost: false,
    }
  const end = (i: 0 | 1): number => Math.min(...counted.map((s) => s.interval?.[i] ?? Infinity))
  // A school that knows nothing of the media, leading because nobody noted them, says at most how much.
  const ahead = schools.slice(
    0,
    schools.findIndex((s) => s.school === leader.school),
  )
  const atMost = isBlind(leader.school) && ahead.some((s) => !isBlind(s.school))
  return {
    volume: least.volume ?? 0,
    interval: [atMost ? 0 : end(0), end(1)],
    leading: leader.school,
    binding: least.school,
    schools,
    atMost,
  }
}

/** Tank by one school (m³); null where it says nothing. */
export const volumeBySchool = (c: Pick<Capacity, 'schools'>, school: CapacitySchool): number | null =>
  c.schools.find((s) => s.school === school)?.volume ?? null

/** Input of the sums from those numbers. */
export const capacityInput = (
  { flow, mass, films, outlet, outlets }: Omit<CapacityFigures, 'fill'>,
  claimedMax?: number | null,
): CapacityInput => ({
  flow,
  mass,
  films,
  outlet,
  ...(outlets && { outlets }),
  ...(claimedMax && { claimedMax }),
})
