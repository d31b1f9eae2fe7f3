import { simulate, type Scenario } from '@ypsometer/core/biology/inTime'
import { claimChances } from '@ypsometer/core/judging/chances'
import { faultEvidence } from '@ypsometer/contract/faults'
import { planChange } from '@ypsometer/core/hands/changeOver'
import { daysUntilDue, type DueQuestion } from '@ypsometer/contract/clog'
import { expose } from 'comlink'

const work = {
  tell: (history: Scenario) => simulate(history),
  plan: (...asked: Parameters<typeof planChange>) => planChange(...asked),
  evidence: (...asked: Parameters<typeof faultEvidence>) => faultEvidence(...asked),
  due: (asked: readonly DueQuestion[]) => asked.map(daysUntilDue),
  chances: (...asked: Parameters<typeof claimChances>) => claimChances(...asked),
}
export type LivingWork = typeof work
expose(work)
