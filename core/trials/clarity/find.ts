import { put, inline, type Figure, type Sentence } from '../../figures'
import { base, cap, type Finder } from '../finding'
import { wholeReadings, type Reading } from '../readings'

type Moment = Reading<'clarity'>['series']
const WHEN: Readonly<Record<Moment, string>> = {
  before: 'before',
  minutes: 'minutes after',
  morning: 'the next morning',
  later: 'later',
}
const MOMENTS: readonly Moment[] = ['before', 'minutes', 'morning', 'later']

/** A rating by eye is good to a step either way. Common practice, no source. */
const EYE = 1

/** How clear the water was, from the same spot: ratings side by side, and what changed since before. */
export const clarity: Finder = (trial, c) => {
  const runs = wholeReadings('clarity', trial.runs)
  const rated = MOMENTS.flatMap((moment) => {
    const value = runs.findLast((r) => r.series === moment && r.outcome === 'rated')?.value ?? null
    return value === null ? [] : [{ moment, value }]
  })
  const figures = rated.map(({ moment, value }): Figure => ({
    ...base(trial, c, `clarity-${moment}`),
    label: `Clarity ${WHEN[moment]}, of 10`,
    value,
    dimension: 'ratio',
    provenance: 'measured',
    uncertainty: EYE,
    formula: 'by eye, 0 to 10, from the same spot;  U = one step',
    working: [put('U', 'of a rating by eye', EYE, 'ratio', 'rule')],
  }))
  const sentences: Sentence[] = []
  if (figures.length)
    sentences.push([
      'Clarity of 10: ',
      ...figures.flatMap((f, i): Sentence => [
        i ? ', ' : '',
        inline(f),
        ` ${WHEN[rated[i]?.moment ?? 'before']}`,
      ]),
      '.',
    ])
  const before = rated.find((r) => r.moment === 'before')
  const last = rated.at(-1)
  if (before && last && last !== before) {
    const change = last.value - before.value
    sentences.push([
      Math.abs(change) <= Math.hypot(EYE, EYE)
        ? `${cap(WHEN[last.moment])}: no visible difference.`
        : `${cap(WHEN[last.moment])}: ${Math.abs(change)} steps ${change > 0 ? 'clearer' : 'cloudier'} than before.`,
    ])
  } else if (rated.length && !before) sentences.push(['No rating from before to compare with.'])
  const pictured = MOMENTS.filter((m) => runs.some((r) => r.series === m && r.outcome === 'photo'))
  if (pictured.length)
    sentences.push([
      `Photos ${pictured.map((m) => WHEN[m]).join(', ')}: compare them side by side in the same light.`,
    ])
  return { figures, sentences }
}
