import type { Figure, Sentence } from '../figures'
import { trialConditions, type TrialResult } from './flows'
import type { HookupResult } from './modelPump'
import type { ModelRecord, TrialRecord } from './records'

/** What one trial comes to: its figures, and sentences to read. */
export interface Finding {
  readonly figures: readonly Figure[]
  readonly sentences: readonly Sentence[]
}

/** What findings lean on besides their own trial. */
export interface FindingContext {
  readonly model: ModelRecord
  readonly flows: readonly TrialResult[]
  readonly main: HookupResult | null
}

/** What a trial of a kind comes to. */
export type Finder = (trial: TrialRecord, c: FindingContext) => Finding

/** What every figure of a trial begins with: its id, conditions and time. */
export const base = (trial: TrialRecord, c: FindingContext, id: string) => ({
  id: `${id}-${trial.id}`,
  conditions: trialConditions(trial, c.model),
  ...(trial.when && { when: trial.when }),
})

/** A sentence begins with a capital. */
export const cap = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1)
