import { errorMessage } from '../api/errorMessage'
import type { Dossier, Medium } from '@ypsometer/contract'
import { modelRecord } from '@ypsometer/contract/records'
import type { Assessment, JudgedBy } from '@ypsometer/core/judging/assess'
import { useEffect, useRef, useState } from 'react'
import { assessRemote } from './assessRemote'

export interface AssessmentState {
  readonly assessment: Assessment | null
  readonly failure: string | null
}
const NOTHING: AssessmentState = { assessment: null, failure: null }

/**
 * The dossier worked through in a worker, by the library, rules and bias given; null while those are on their way. An
 * answer to an older question is dropped; while one dossier is worked through again its last answer stays, but it
 * never stands beside another dossier. What the server `worked` out as it gave the dossier stands until anything of
 * either changes.
 */
export function useAssessment(
  dossier: Dossier | undefined,
  by: (JudgedBy & { readonly media?: readonly Medium[] | undefined }) | null,
  worked?: Assessment,
): AssessmentState {
  const id = dossier?.model.id
  const ready = by !== null
  const { media, stockClasses, bias } = by ?? {}
  const [state, setState] = useState<AssessmentState & { readonly id: string | undefined }>({
    ...NOTHING,
    id,
  })
  // Taken into the state as it comes, so that it stays while the first change is worked out.
  if (worked && (state.id !== id || !state.assessment)) setState({ assessment: worked, failure: null, id })
  const given = useRef<{ readonly worked: Assessment; readonly by: readonly unknown[] } | null>(null)
  useEffect(() => {
    if (!dossier || !ready) return
    const now = [media, stockClasses, bias]
    if (worked && given.current?.worked !== worked) given.current = { worked, by: now }
    if (worked && now.every((b, i) => b === given.current?.by[i])) {
      setState((s) => (s.assessment === worked ? s : { assessment: worked, failure: null, id }))
      return
    }
    let superseded = false
    assessRemote()
      .assess(modelRecord(dossier, media), { stockClasses, bias })
      .then(
        (assessment) => !superseded && setState({ assessment, failure: null, id }),
        (error: unknown) =>
          !superseded &&
          setState((s) => ({
            assessment: s.id === id ? s.assessment : null,
            failure: errorMessage(error),
            id,
          })),
      )
    return () => {
      superseded = true
    }
  }, [dossier, ready, media, stockClasses, bias, id, worked])
  return state.id === id ? state : NOTHING
}
