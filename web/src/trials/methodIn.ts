import type { Dossier, Trial } from '@ypsometer/contract'
import { modelRecord, timingMethod } from '@ypsometer/contract/records'
import type { TimingMethod } from '@ypsometer/core/bench/flowRuns'
import { methodBeside } from '@ypsometer/core/trials/flows'

/** How a trial of a dossier was timed, beside the scatter that its others have shown: as it is judged by. */
export function methodIn(dossier: Dossier, trial: Trial): TimingMethod {
  const { trials } = modelRecord(dossier)
  const own = trials.find((t) => t.id === trial.id)
  return own ? methodBeside(own, trials) : timingMethod(trial)
}
