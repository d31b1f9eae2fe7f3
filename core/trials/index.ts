import { CoreError } from '../errors'
import type { Figure, Sentence } from '../figures'
import type { TrialRecord } from './records'
import { air } from './air'
import { clarity } from './clarity'
import { dye } from './dye'
import type { Finder, FindingContext } from './finding'
import { holding } from './holding'
import { meterCheck } from './meter-check'
import { noise } from './noise'
import { power } from './power'
import { prime } from './prime'
import type { TrialKind } from './readings'
import { shutOff } from './shut-off'
import { waterTest } from './water-test'

export * from './common'
export * from './flow'
export * from './readings'
export { dyeCurves, dyeFigures, dyePoint, dyeSentences, nominalOf, type DyePoint } from './dye'
export { stepOf } from './water-test'
export { calibration } from './meter-check'
export { holdingSurvival } from './holding'
export { disagreements } from './disagreements'
export type { FindingContext } from './finding'

/** What each kind of trial comes to, flows apart. A new kind is a folder beside this file and a line here. */
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

/** What one trial of any kind comes to: its figures, sentences to read, and what kept it from coming to anything. */
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
export * from './records'
export * from './flows'
export * from './modelPump'
export * from './lineFigures'
export * from './labels'
export * from './printed'
export * from './bias'
