import { rankDraws, type Measures, type Ranked, type Weights } from '@ypsometer/core/advice/score'
import { expose } from 'comlink'

/** Between two looks at what was asked meanwhile (ms). */
const SLICE = 30
let latest = 0

const work = {
  /** Draws a ranking; null when another was asked for, or it was stopped, meanwhile. */
  async rank(
    options: readonly Measures[],
    weights: Weights,
    progress: (share: number) => void,
  ): Promise<Ranked | null> {
    const mine = ++latest
    const run = rankDraws(options, weights)
    let until = performance.now() + SLICE
    for (let step = run.next(); ; step = run.next()) {
      if (step.done) return step.value
      if (performance.now() < until) continue
      progress(step.value)
      await new Promise((r) => setTimeout(r))
      if (mine !== latest) return null
      until = performance.now() + SLICE
    }
  },
  stop: (): void => void latest++,
}
export type RankWork = typeof work
expose(work)
