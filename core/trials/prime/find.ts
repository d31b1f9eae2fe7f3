import { sum } from 'simple-statistics'
import { put, inline, type Figure, type Sentence } from '../../figures'
import { base, type Finder } from '../finding'
import { wholeReadings } from '../readings'

const PRIME_WORDS = {
  prime: ['Primed', 'Did not prime'],
  restart: ['Restarted by itself after a power cut', 'Did not restart by itself after a power cut'],
  leak: ['Leaks', 'No leak'],
  air: ['Draws air', 'Draws no air'],
  rattle: ['Rattles', 'Does not rattle'],
} as const

export const prime: Finder = (trial, c) => {
  const runs = wholeReadings('prime', trial.runs)
  const figures: Figure[] = []
  const sentences: Sentence[] = []
  for (const [series, [yes, no]] of Object.entries(PRIME_WORDS)) {
    const own = runs.filter((r) => r.series === series)
    const last = own.at(-1)
    if (!last) continue
    const good = last.outcome === 'yes'
    const timed = own.filter((r) => r.outcome === 'yes' && r.seconds > 0)
    const seconds = timed.at(-1)?.seconds ?? null
    const note = own.flatMap((r) => (r.note ? [r.note] : [])).at(-1)
    const parts: (string | Sentence[number])[] = [good ? yes : no]
    if ((series === 'prime' || series === 'restart') && good) {
      const before = own.findIndex((r) => r.outcome === 'yes')
      if (series === 'prime') parts.push(before === 0 ? ' at the first try' : ` at try ${before + 1}`)
      if (seconds !== null) {
        const figure: Figure = {
          ...base(trial, c, `${series}-seconds`),
          label: series === 'prime' ? 'Seconds to full flow' : 'Seconds to full flow after a power cut',
          value: seconds,
          dimension: 'time',
          provenance: 'measured',
          formula: 'by stopwatch, from the switch to full flow',
          working: [put('n', 'tries', own.length)],
        }
        figures.push(figure)
        parts.push(', full flow after ', inline(figure))
      }
    }
    const caught = own.flatMap(({ value, note: at }) => (value ? [{ value, at }] : []))
    const leaked = sum(caught.map((r) => r.value))
    if (series === 'leak' && good && leaked > 0) {
      const figure: Figure = {
        ...base(trial, c, 'leaked'),
        label: 'Water lost',
        value: leaked,
        dimension: 'volume',
        unit: 'mL',
        provenance: 'measured',
        formula: 'Σ caught',
        working: caught.map((r, i) => put(String(i + 1), r.at || 'caught', r.value, 'volume', 'measured')),
      }
      figures.push(figure)
      parts.push(': ', inline(figure))
    }
    sentences.push([...parts, note ? ` (${note}).` : '.'])
  }
  return { figures, sentences }
}
