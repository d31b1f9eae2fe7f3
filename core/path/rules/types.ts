import type { Sentence } from '../../figures'
import type { ReachResult } from '../../teardown/reach'
import type { Outcome } from '../outcome'

export const SCHOOLS = ['strain-first', 'polish-last', 'prefilter-low'] as const
export type School = (typeof SCHOOLS)[number]

export const SEVERITIES = ['note', 'caution', 'fault'] as const
export type Severity = (typeof SEVERITIES)[number]

/** Where chemical media belong. */
export const CHEMICAL_PLACES = ['none', 'last', 'after-straining', 'after-fine'] as const
export type ChemicalPlace = (typeof CHEMICAL_PLACES)[number]

/** Context of a rule besides the outcome. */
export interface AuditContext {
  readonly outcome: Outcome
  readonly chemical: ChemicalPlace
  readonly reaches: readonly ReachResult[]
}

/** One place where a rule is not kept: what is the matter, where, and the numbers behind it. */
export interface Hit {
  readonly sentence: Sentence
  readonly chamberId?: string
  readonly layerId?: string
  readonly cure?: Sentence
}

/** A rule of the order audit. `excludes` names rules that cannot hold at the same time. */
export interface Rule {
  readonly id: string
  readonly title: string
  readonly looksAt: string
  readonly why: string
  readonly schools: readonly School[]
  readonly severity: Severity
  readonly weight: number
  readonly excludes?: readonly string[]
  readonly check: (c: AuditContext) => readonly Hit[]
}
