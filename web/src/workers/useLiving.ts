import type { Scenario, Simulation } from '@ypsometer/core/biology/inTime'
import type { Chances } from '@ypsometer/core/judging/chances'
import type { CapacityFigures } from '@ypsometer/core/tanks/schools'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import type { DueQuestion } from '@ypsometer/contract/clog'
import type { FaultQuestion } from '@ypsometer/contract/faults'
import type { ChangePlan, ChangeSubject, ChangeTest } from '@ypsometer/core/hands/changeOver'
import type { Evidence } from '@ypsometer/core/hands/faults'
import { useEffect, useState } from 'react'
import { livingRemote } from './livingRemote'
import { errorMessage } from '../api/errorMessage'
import { recent } from './recent'

/** An answer of the worker, what went wrong, and whether another is on its way. */
export interface Answered<T> {
  readonly answer: T | null
  readonly failure: string | null
  readonly busy: boolean
}
const NOTHING = { answer: null, failure: null, key: '' }
const answers = recent<unknown>()

/**
 * Asks the worker once for each question of a kind; an answer to an older one is dropped, the last stays meanwhile. One
 * that was asked not long ago is answered as it was then.
 */
function useAnswer<T>(kind: string, question: string | null, ask: () => Promise<T>): Answered<T> {
  const key = question === null ? null : `${kind} ${question}`
  const kept = answers.get(key) as T | undefined
  const [state, setState] = useState<{ answer: T | null; failure: string | null; key: string }>(NOTHING)
  useEffect(() => {
    if (key === null || answers.get(key) !== undefined) return
    let superseded = false
    ask().then(
      (answer) => {
        answers.put(key, answer)
        if (!superseded) setState({ answer, failure: null, key })
      },
      (error: unknown) => !superseded && setState({ answer: null, failure: errorMessage(error), key }),
    )
    return () => {
      superseded = true
    }
    // The key says all that the question holds.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [key])
  if (kept !== undefined) return { answer: kept, failure: null, busy: false }
  return { answer: state.answer, failure: state.failure, busy: key !== null && state.key !== key }
}

/** A story of a tank, told. */
export const useStory = (story: Scenario | null): Answered<Simulation> =>
  useAnswer('story', story && JSON.stringify(story), () => livingRemote().tell(story as Scenario))

/** How sure the verdict of a class is. */
export const useChances = (
  of: CapacityFigures | null,
  stock: StockClass | undefined,
  claimedMax: number | null,
): Answered<Chances | null> =>
  useAnswer('chances', of && stock ? JSON.stringify([of, stock, claimedMax]) : null, () =>
    livingRemote().chances(of as CapacityFigures, stock as StockClass, claimedMax),
  )

/** How long each of several filters will run until it is due. */
export const useDue = (asked: readonly DueQuestion[] | null): Answered<readonly (number | null)[]> =>
  useAnswer('due', asked && JSON.stringify(asked), () => livingRemote().due(asked as readonly DueQuestion[]))

/** The plan of a change-over, as its tests moved it. */
export const usePlan = (
  subject: ChangeSubject | null,
  began: string,
  tests: readonly ChangeTest[],
): Answered<ChangePlan> =>
  useAnswer('plan', subject && JSON.stringify([subject, began, tests]), () =>
    livingRemote().plan(subject as ChangeSubject, began, tests),
  )

/** What the record of a filter says of a fault; null: nothing is asked of it. */
export const useEvidence = (question: FaultQuestion | null): Answered<readonly Evidence[]> =>
  useAnswer('evidence', question && JSON.stringify(question), () =>
    livingRemote().evidence(question as FaultQuestion),
  )
