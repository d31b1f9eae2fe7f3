import type { Figure, Sentence } from '../figures'
import type { Reason } from '../figures/reason'
import type { Verdict } from './verdictReasons'

/** What a reason is about, in the order they are told. */
export const SUBJECTS = ['media', 'flow', 'current', 'label', 'service'] as const
export type Subject = (typeof SUBJECTS)[number]

const SUBJECT_OF: Readonly<Record<string, Subject>> = {
  binding: 'media',
  takes: 'media',
  proposed: 'media',
  schools: 'media',
  leverage: 'media',
  'mass-apart': 'media',
  flow: 'flow',
  label: 'flow',
  lift: 'flow',
  air: 'flow',
  floor: 'flow',
  'low-end': 'current',
  'low-above-top': 'current',
  'low-end-turnover': 'current',
  hands: 'service',
}
/** The subject of a reason; what a label says of itself is about the label. */
export const subjectOf = (r: Pick<Reason, 'id'>): Subject => SUBJECT_OF[r.id] ?? 'label'

const figureIn = (sentence: Sentence, id: string): Figure | undefined =>
  sentence.flatMap((p) =>
    typeof p === 'object' && 'figure' in p && p.figure?.id === id ? [p.figure] : [],
  )[0]

const logOf = (a: number, b: number): number => (a > 0 && b > 0 ? Math.abs(Math.log(a / b)) : 0)

/**
 * How far a reason moves the verdict, as a logarithm of claimed ÷ supported or of flow: what a flow
 * is short by, how much of the smallest tank is too strong, what other media would bring. Ours.
 */
function effectOf(r: Reason, v: Verdict): number {
  const ratio = v.overclaim?.value ?? 1
  switch (r.id) {
    case 'takes':
      return Math.abs(Math.log(ratio))
    case 'label':
      return logOf(1, 1 - Math.min(0.99, figureIn(r.sentence, 'label-difference')?.value ?? 0))
    case 'flow':
      return logOf(1, 1 - Math.min(0.99, figureIn(r.sentence, 'off-rated')?.value ?? 0)) / 2
    case 'low-end':
    case 'low-above-top':
      return 1
    case 'proposed':
      return logOf(v.proposed?.supported.value ?? 0, v.supported?.value ?? 0)
    case 'mass-apart':
      return logOf(v.shipped?.calibration ?? 1, 1)
    case 'schools':
      return 0.2
    default:
      return 0.1
  }
}

const WEIGHT: Readonly<Record<Reason['tone'], number>> = { against: 1, caution: 0.7, note: 0.5, for: 0.5 }

/**
 * The three reasons that matter, by the size of their effect: the limit first, then what moves the verdict most. What
 * the headline says already, claimed and supported, is not among them.
 */
export function mainReasons(v: Verdict): readonly Reason[] {
  const rest = v.reasons.filter((r) => r.id !== 'overclaim' && r.id !== 'binding')
  const first = v.reasons.filter((r) => r.id === 'binding')
  const size = (r: Reason): number => WEIGHT[r.tone] * effectOf(r, v)
  const sorted = [...rest].sort((a, b) => size(b) - size(a))
  // One of each subject but media: what is said twice of a current says no more than once.
  const own = sorted.filter(
    (r, i) => subjectOf(r) === 'media' || sorted.findIndex((x) => subjectOf(x) === subjectOf(r)) === i,
  )
  return [...first, ...own].slice(0, 3)
}
