import type { Figure, Sentence } from '../figures'
import { trialConditions, type TrialResult } from './flows'
import type { HookupResult } from './modelPump'
import type { ModelRecord, TrialRecord } from './records'

/** Finding of one trial: its figures, and sentences to read. */
export interface Finding {
  readonly figures: readonly Figure[]
  readonly sentences: readonly Sentence[]
}

/** Context of findings besides their own trial. */
export interface FindingContext {
  readonly model: ModelRecord
  readonly flows: readonly TrialResult[]
  readonly main: HookupResult | null
}

/** Finding of a trial of a kind. */
export type Finder = (trial: TrialRecord, c: FindingContext) => Finding

/** Common parts of a trial’s figures: id, conditions and time. */
export const base = (trial: TrialRecord, c: FindingContext, id: string) => ({
  id: `${id}-${trial.id}`,
  conditions: trialConditions(trial, c.model),
  ...(trial.when && { when: trial.when }),
})

/** A sentence begins with a capital. */
export const cap = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1)
