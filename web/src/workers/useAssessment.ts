import type { Dossier, Medium } from '@ypsometer/contract'
import { modelRecord } from '@ypsometer/contract/records'
import type { Assessment, JudgedBy } from '@ypsometer/core/judging/assess'
import { useMemo, useState } from 'react'
import { assessRemote } from './assessRemote'
import { useWork } from './useWork'

export interface AssessmentState {
  readonly assessment: Assessment | null
  readonly failure: string | null
}

/**
 * The dossier worked through in a worker, by the library, rules and bias given; null while those are on their way.
 * While one dossier is worked through again its last answer stays, but it never stands beside another dossier. What the
 * server `worked` out as it gave the dossier stands until anything of either changes.
 */
export function useAssessment(
  dossier: Dossier | undefined,
  by: (JudgedBy & { readonly media?: readonly Medium[] | undefined }) | null,
  worked?: Assessment,
): AssessmentState {
  const of = dossier?.model.id
  const ready = by !== null
  const { media, stockClasses, bias } = by ?? {}
  const asked = useMemo(() => {
    if (!dossier || !ready) return null
    const question = { record: modelRecord(dossier, media), by: { stockClasses, bias } }
    return { question, text: JSON.stringify(question), of: dossier.model.id }
  }, [dossier, ready, media, stockClasses, bias])
  // What the server has worked out answers what is asked first beside it.
  const [given, setGiven] = useState(worked && asked ? { worked, text: asked.text } : null)
  if (worked && asked && given?.worked !== worked) setGiven({ worked, text: asked.text })
  const known = given && given.worked === worked && given.text === asked?.text ? worked : undefined
  const { last, failure } = useWork(
    'assess',
    asked,
    ({ record, by: judgedBy }) => assessRemote().assess(record, judgedBy),
    { known },
  )
  return { assessment: last ?? (of && !asked && worked ? worked : null), failure }
}
