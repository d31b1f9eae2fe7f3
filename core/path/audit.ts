import type { ReachResult } from '../teardown/reach'
import type { CapacityRule } from '../tanks'
import type { Outcome } from './outcome'
import { RULES, type ChemicalPlace, type Hit, type Rule, type School } from './rules'

/** How one rule is held: on or off, and its weight. */
export interface RuleSetting {
  readonly on: boolean
  readonly weight: number
}

/** A house rule: a school with its reasoning, where chemical media belong, and what was changed of its rules. */
export interface HouseRule {
  readonly id: string
  readonly name: string
  readonly school: School
  readonly reasoning: string
  readonly chemical: ChemicalPlace
  /** How capacity is judged; as shipped when absent. */
  readonly capacity?: CapacityRule
  /** Only what differs from the school. */
  readonly rules: Readonly<
    Record<string, { readonly on?: boolean | undefined; readonly weight?: number | undefined }>
  >
}

/** The three schools as they ship. */
export const HOUSE_RULES: readonly HouseRule[] = [
  {
    id: '00000000-0000-4000-8000-000000000101',
    name: 'Mechanical first',
    school: 'strain-first',
    reasoning:
      'Coarse, medium, fine, then all bio media, and nothing fine after them. Protects the media wherever no water bypasses the pad.',
    chemical: 'none',
    rules: {},
  },
  {
    id: '00000000-0000-4000-8000-000000000102',
    name: 'Fine pad last',
    school: 'polish-last',
    reasoning:
      'Coarse and medium first, then bio media, and a fine pad last. The pad is easy to swap and sits behind protected media.',
    chemical: 'last',
    rules: {},
  },
  {
    id: '00000000-0000-4000-8000-000000000103',
    name: 'External pre-filter',
    school: 'prefilter-low',
    reasoning:
      'All mechanical filtration in an external pre-filter, rinsed weekly. Bio media from the bottom up. The filter is opened a few times a year.',
    chemical: 'after-straining',
    rules: {},
  },
]

/** How a house rule holds a rule: as its school does, unless it was changed. */
export function settingOf(house: HouseRule, rule: Rule): RuleSetting {
  const own = house.rules[rule.id]
  return { on: own?.on ?? rule.schools.includes(house.school), weight: own?.weight ?? rule.weight }
}

/** Pairs of rules that are both on and cannot both hold. */
export const contradictions = (house: HouseRule): readonly (readonly [Rule, Rule])[] =>
  RULES.filter((r) => settingOf(house, r).on).flatMap((r) =>
    (r.excludes ?? []).flatMap((id) => {
      const other = RULES.find((x) => x.id === id)
      return other && settingOf(house, other).on ? [[r, other] as const] : []
    }),
  )

/** A finding: the rule, where it is not kept, and what it weighs under the house rule. */
export interface OrderFinding extends Hit {
  readonly id: string
  readonly rule: Rule
  readonly weight: number
}

const ORDER = { fault: 0, caution: 1, note: 2 } as const

/** Holds an outcome against a house rule; the gravest first. */
export function auditOrder(
  outcome: Outcome,
  house: HouseRule,
  reaches: readonly ReachResult[] = [],
): readonly OrderFinding[] {
  return RULES.flatMap((rule) => {
    const { on, weight } = settingOf(house, rule)
    if (!on || weight <= 0) return []
    return rule
      .check({ outcome, chemical: house.chemical, reaches })
      .map((hit, i): OrderFinding => ({ ...hit, id: `${rule.id}-${i}`, rule, weight }))
  }).sort((a, b) => ORDER[a.rule.severity] - ORDER[b.rule.severity] || b.weight - a.weight)
}

/** Sum of the weights of all findings: lower is better. */
export const burden = (findings: readonly OrderFinding[]): number =>
  findings.reduce((sum, f) => sum + f.weight, 0)
