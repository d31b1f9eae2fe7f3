import { forecast } from '@ypsometer/core/clogging/run'
import { learn, leftOn } from '@ypsometer/core/clogging/study'
import { schoolSeasons } from '@ypsometer/core/clogging/report'
import {
  canister,
  classOf,
  clog,
  COARSE,
  FINE_FOAM,
  MEDIUM,
  PAD,
  SINTERED,
  tankOf,
} from '../../core/clogging/cases.fixture'
import { layer } from '../../core/path/tests/support'

const median = (times: number[]): number => times.sort((a, b) => a - b)[times.length >> 1] ?? NaN
const timed = (n: number, work: () => unknown): number =>
  median(
    Array.from({ length: n }, () => {
      const from = performance.now()
      work()
      return performance.now() - from
    }),
  )

/** Half a year of eight layers and five classes; a year with what visits taught; the schools beside each other. */
export function seasons(): void {
  const eight = [
    layer('1', 'a', COARSE, 25),
    layer('2', 'a', MEDIUM, 25),
    layer('3', 'a', FINE_FOAM, 25),
    layer('4', 'b', PAD, 20),
    layer('5', 'b', SINTERED, 30),
    layer('6', 'b', SINTERED, 25),
    layer('7', 'c', SINTERED, 75),
    layer('8', 'd', SINTERED, 50),
  ]
  const c = clog(canister(eight), tankOf(200, 'normal'))
  const year = { ...c, days: 365 }
  const run = forecast(year)
  const seen = [30, 90, 150].map((day) => ({ day, left: leftOn(run, day), uncertainty: 0.02 }))
  const feed = classOf('normal').marks.feedPerVolume
  timed(5, () => forecast(c))
  const half = timed(9, () => forecast(c))
  const learnt = timed(3, () => learn(year, feed, seen))
  const schools = timed(3, () => schoolSeasons({ path: c.path, intake: [] }, year, 8))
  console.log(
    `dirt over half a year        8 layers, 5 classes: ${half.toFixed(0)} ms · target under 100 · a year learnt from three visits ${learnt.toFixed(0)} ms, the schools ${schools.toFixed(0)} ms`,
  )
}
