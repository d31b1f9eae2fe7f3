import type { Dossier, Trial } from '@ypsometer/contract'
import { modelRecord } from '@ypsometer/contract/records'
import { trialResults } from '@ypsometer/core/trials/flows'
import { trialFindings, type TrialFinding } from '@ypsometer/core/trials/findings'
import { useMemo } from 'react'

/** Finding of one trial by itself, worked out as its readings come. The desk's own findings also know the curve. */
export function useFinding(dossier: Dossier, trial: Trial): TrialFinding | null {
  return useMemo(() => {
    const model = modelRecord(dossier)
    const own = { ...model, trials: model.trials.filter((t) => t.id === trial.id) }
    return trialFindings({ model: own, flows: trialResults(model), main: null })[0] ?? null
  }, [dossier, trial.id])
}
