import { simulate, type Scenario } from '@ypsometer/core/biology/inTime'
import { daysUntilDue, type DueQuestion } from '@ypsometer/contract/clog'
import { claimChances } from '@ypsometer/core/judging/chances'

/** What the worker does, in the test’s own thread and with few draws. */
export const livingRemote = () => ({
  tell: (story: Scenario) => Promise.resolve(simulate(story)),
  due: (asked: readonly DueQuestion[]) => Promise.resolve(asked.map(daysUntilDue)),
  chances: (...[of, stock, claim]: Parameters<typeof claimChances>) =>
    Promise.resolve(claimChances(of, stock, claim, 1, 300)),
})
