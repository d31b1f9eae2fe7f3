import { kaplanMeier, type Survival } from '../../bench'
import { put, inline, type Figure, type Sentence } from '../../figures'
import { base, cap, type Finder } from '../finding'
import { wholeReadings } from '../readings'
import type { BenchReading } from '../../bench/shape'

export const holding: Finder = (trial, c) => {
  const runs = wholeReadings('holding', trial.runs)
  const series = [...new Set(runs.map((r) => r.series))]
  const figures: Figure[] = []
  const sentences: Sentence[] = []
  for (const s of series) {
    const own = runs.filter((r) => r.series === s)
    const r = holdingSurvival(own)
    const name = s || 'they'
    const still = own.filter((o) => o.outcome === 'still')
    const longest = Math.max(0, ...own.map((o) => o.seconds))
    if (r.median !== null) {
      const median: Figure = {
        ...base(trial, c, `holding-${s}`),
        label: `Half have let go, ${name}`,
        value: r.median,
        dimension: 'time',
        provenance: 'measured',
        formula: 'S(t) = Π (1 − d/n), first t with S ≤ ½',
        working: [
          put('n', 'tried', own.length),
          put('held', 'still holding when the watch stopped', still.length),
        ],
        source: 'Kaplan and Meier 1958',
      }
      figures.push(median)
      sentences.push([`${cap(name)}: half let go by `, inline(median), '.'])
    } else
      sentences.push([
        `${cap(name)}: ${still.length} of ${own.length} still held when the test ended, the longest at `,
        { si: longest, dimension: 'time' },
        '. Too few let go for a median.',
      ])
  }
  return { figures, sentences }
}

/** The survival curve of a series of holding times. */
export const holdingSurvival = (runs: readonly BenchReading[]): Survival =>
  kaplanMeier(
    wholeReadings('holding', runs).map((r) => ({ seconds: r.seconds, censored: r.outcome === 'still' })),
  )
