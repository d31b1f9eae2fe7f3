import { saidBy } from '../frame/said'
import { modelRecord, type Dossier, type Medium } from '@ypsometer/contract'
import type { Assessment, JudgedBy } from '@ypsometer/core/judging'
import { useEffect, useState } from 'react'
import { assessRemote } from './assessRemote'

export interface AssessmentState {
  readonly assessment: Assessment | null
  readonly failure: string | null
}
const NOTHING: AssessmentState = { assessment: null, failure: null }

/**
 * The dossier worked through in a worker, by the library, rules and bias given; null while those are on their way. An
 * answer to an older question is dropped; while one dossier is worked through again its last answer stays, but it
 * never stands beside another dossier.
 */
export function useAssessment(
  dossier: Dossier | undefined,
  by: (JudgedBy & { readonly media?: readonly Medium[] | undefined }) | null,
): AssessmentState {
  const id = dossier?.model.id
  const ready = by !== null
  const { media, stockClasses, bias } = by ?? {}
  const [state, setState] = useState<AssessmentState & { readonly id: string | undefined }>({
    ...NOTHING,
    id,
  })
  useEffect(() => {
    if (!dossier || !ready) return
    let superseded = false
    assessRemote()
      .assess(modelRecord(dossier, media), { stockClasses, bias })
      .then(
        (assessment) => !superseded && setState({ assessment, failure: null, id }),
        (error: unknown) =>
          !superseded &&
          setState((s) => ({
            assessment: s.id === id ? s.assessment : null,
            failure: saidBy(error),
            id,
          })),
      )
    return () => {
      superseded = true
    }
  }, [dossier, ready, media, stockClasses, bias, id])
  return state.id === id ? state : NOTHING
}
