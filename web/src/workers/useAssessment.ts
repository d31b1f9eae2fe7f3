import { modelRecord, type Dossier, type StockClassRow } from '@ypsometer/contract'
import type { Assessment } from '@ypsometer/core/judging'
import { wrap, type Remote } from 'comlink'
import { useEffect, useState } from 'react'
import type { AssessWork } from './assess.worker'

let worker: Remote<AssessWork> | null = null
const remote = (): Remote<AssessWork> =>
  (worker ??= wrap<AssessWork>(
    new Worker(new URL('./assess.worker.ts', import.meta.url), { type: 'module' }),
  ))

export interface AssessmentState {
  readonly assessment: Assessment | null
  readonly failure: string | null
}

/** The dossier worked through in a worker; an answer to an older question is dropped. */
export function useAssessment(
  dossier: Dossier | undefined,
  stock: readonly StockClassRow[] | undefined,
): AssessmentState {
  const [state, setState] = useState<AssessmentState>({ assessment: null, failure: null })
  useEffect(() => {
    if (!dossier) return
    let superseded = false
    remote()
      .assess(modelRecord(dossier), stock)
      .then(
        (assessment) => !superseded && setState({ assessment, failure: null }),
        (error: unknown) =>
          !superseded &&
          setState((s) => ({ ...s, failure: error instanceof Error ? error.message : String(error) })),
      )
    return () => {
      superseded = true
    }
  }, [dossier, stock])
  return state
}
