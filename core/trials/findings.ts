import { CoreError } from '../errors'
import type { Figure, Sentence } from '../figures'
import type { TrialRecord } from './records'
import { air } from './air/find'
import { clarity } from './clarity/find'
import { dye } from './dye/find'
import type { Finder, FindingContext } from './finding'
import { holding } from './holding/find'
import { meterCheck } from './meter-check/find'
import { noise } from './noise/find'
import { power } from './power/find'
import { prime } from './prime/find'
import type { TrialKind } from './readings'
import { shutOff } from './shut-off/find'
import { waterTest } from './water-test/find'

/** Findings of each kind of trial, flows apart. A new kind is a folder beside this file and a line here. */
const FINDERS: Partial<Record<TrialKind, Finder>> = {
  power,
  noise,
  dye,
  holding,
  prime,
  air,
  'meter-check': meterCheck,
  'shut-off': shutOff,
  'water-test': waterTest,
  clarity,
}

/** Finding of a trial of any kind: its figures, sentences to read, and what kept it from coming to anything. */
export interface TrialFinding {
  readonly trial: TrialRecord
  readonly figures: readonly Figure[]
  readonly sentences: readonly Sentence[]
  readonly problem: string | null
}

/** Findings of every trial that is not a flow; an arithmetic that refuses says why. */
export const trialFindings = (c: FindingContext): readonly TrialFinding[] =>
  c.model.trials.flatMap((trial): TrialFinding[] => {
    const find = FINDERS[trial.kind ?? 'vessel']
    if (!find || (!trial.runs.length && !trial.logs?.length)) return []
    try {
      return [{ trial, problem: null, ...find(trial, c) }]
    } catch (error) {
      if (!(error instanceof CoreError)) throw error
      return [{ trial, figures: [], sentences: [], problem: error.message }]
    }
  })
