import type { Scenario, Simulation } from '@ypsometer/core/biology/inTime'
import type { Chances } from '@ypsometer/core/judging/chances'
import type { CapacityFigures } from '@ypsometer/core/tanks/schools'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import type { DueQuestion } from '@ypsometer/contract/clog'
import type { FaultQuestion } from '@ypsometer/contract/faults'
import type { ChangePlan } from '@ypsometer/core/hands/changeWords'
import type { ChangeTest } from '@ypsometer/core/hands/changeWords'
import type { ChangeSubject } from '@ypsometer/core/hands/changeWords'
import type { Evidence } from '@ypsometer/core/hands/faults'
import { livingRemote } from './livingRemote'
import { useWork, type Answered } from './useWork'

/** Asks the worker of tanks; `question` is all that is asked. */
const useAnswer = <Q, T>(kind: string, question: Q | null, ask: (q: Q) => Promise<T>): Answered<T> =>
  useWork(kind, question && { question, text: JSON.stringify(question) }, ask)

/** A tank in time, simulated. */
export const useSimulation = (history: Scenario | null): Answered<Simulation> =>
  useAnswer('history', history, (q) => livingRemote().tell(q))

/** How sure the verdict of a class is. */
export const useChances = (
  of: CapacityFigures | null,
  stock: StockClass | undefined,
  claimedMax: number | null,
): Answered<Chances | null> =>
  useAnswer('chances', of && stock ? ([of, stock, claimedMax] as const) : null, (q) =>
    livingRemote().chances(...q),
  )

/** How long each of several filters will run until it is due. */
export const useDue = (asked: readonly DueQuestion[] | null): Answered<readonly (number | null)[]> =>
  useAnswer('due', asked, (q) => livingRemote().due(q))

/** The plan of a change-over, as its tests moved it. */
export const usePlan = (
  subject: ChangeSubject | null,
  began: string,
  tests: readonly ChangeTest[],
): Answered<ChangePlan> =>
  useAnswer('plan', subject && ([subject, began, tests] as const), (q) => livingRemote().plan(...q))

/** Evidence of a filter’s record for a fault; null: nothing is asked of it. */
export const useEvidence = (question: FaultQuestion | null): Answered<readonly Evidence[]> =>
  useAnswer('evidence', question, (q) => livingRemote().evidence(q))
