import { type Dossier, type Medium, type Tank, modelRecord, tankRecord } from '@ypsometer/contract'
import { candidateOf } from '@ypsometer/contract/candidate'
import { simulate } from '@ypsometer/core/biology/inTime'
import { daysBetween } from '@ypsometer/core/days/days'
import { changeStory, planChange } from '@ypsometer/core/hands/changeOver'
import type { ChangeSubject } from '@ypsometer/core/hands/changeWords'
import { assess } from '@ypsometer/core/judging/assess'
import { keepingOfTank } from '@ypsometer/core/tanks/tankRecord'
import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { demoBundle } from '.'
import { BENCH_MEDIA } from './fills'
import { MOVED, READ } from './hands'

/** The tank of the demo’s change-over that ripens at half of the pace. */
function movedSubject(): ChangeSubject {
  const tank = demoBundle.tanks.find((t) => t.name === MOVED.tank)
  const m = demoBundle.models.find((x) => x.model.name === MOVED.next)
  const stock = STOCK_CLASSES.find((c) => c.id === tank?.stockClassId)
  if (!tank || !m || !stock) throw new Error('the demo has no such change')
  const media = BENCH_MEDIA as unknown as Medium[]
  const d = { logs: [], photos: [], ...m } as unknown as Dossier
  const { shipped } = candidateOf(d, media, assess(modelRecord(d, media))) ?? {}
  if (!shipped?.films) throw new Error('no films')
  const back = { outlet: shipped.outlet, flow: shipped.flow.value }
  const record = tankRecord({ deletedAt: null, ...tank } as unknown as Tank, stock)
  return { way: 'moved', weeks: 6, share: MOVED.share, keeping: keepingOfTank(record, back), old: null, stay: [], next: shipped.films } // prettier-ignore
}

test('the demo’s tests are what a kit reads of a tank whose films grow at half of the pace, and the plan finds it', () => {
  const subject = movedSubject()
  const truth = simulate(changeStory(subject, 0, 0.5))
  const step = 0.05e-3
  const expected = READ.map(([day]) => {
    const p = truth.points.findLast((x) => x.day <= day)
    return [day, ...[p?.ammonia ?? 0, p?.nitrite ?? 0].map((v) => Math.round((Math.round(v / step) * step) * 1e6) / 1e3)] // prettier-ignore
  })
  expect(READ).toEqual(expected)
  const change = demoBundle.changeOvers.find((c) => c.way === 'moved')
  const plan = planChange(subject, MOVED.began, change?.tests ?? [])
  expect(Math.exp(plan.belief.low)).toBeLessThan(0.5)
  expect(Math.exp(plan.belief.high)).toBeGreaterThan(0.5)
  expect(plan.belief.mean).toBeLessThan(-0.15)
  expect(plan.moved).toBeGreaterThan(1)
  expect(daysBetween(MOVED.began, plan.safe.middle ?? MOVED.began)).toBeGreaterThan(7)
})
