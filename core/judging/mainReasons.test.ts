import { type Figure, type Sentence, inline } from '../figures'
import type { Reason } from '../figures/reason'
import { mainReasons, subjectOf, SUBJECTS } from './mainReasons'
import type { Verdict } from './verdictReasons'

const figure = (id: string, value: number): Figure => ({
  id,
  label: id,
  value,
  dimension: 'ratio',
  provenance: 'computed',
})
const reason = (id: string, tone: Reason['tone'] = 'note', ...sentence: Sentence): Reason => ({
  id,
  tone,
  sentence,
})
const verdict = (reasons: readonly Reason[], ratio = 2, more: object = {}): Verdict =>
  ({
    reasons,
    overclaim: figure('overclaim', ratio),
    supported: figure('s', 0.1),
    proposed: null,
    shipped: null,
    ...more,
  }) as unknown as Verdict
const ids = (v: Verdict): string[] => mainReasons(v).map((r) => r.id)

test('the limit first, never what the headline says, three at most', () => {
  const all = [
    reason('overclaim', 'against'),
    reason('flow'),
    reason('schools'),
    reason('leverage'),
    reason('binding'),
  ]
  expect(ids(verdict(all))).toHaveLength(3)
  expect(ids(verdict(all))[0]).toBe('binding')
  expect(ids(verdict(all))).not.toContain('overclaim')
  expect(ids(verdict([]))).toEqual([])
})

test('by the size of the effect: half of the flow missing counts more than a fiftieth, against more than a note', () => {
  const short = (share: number, tone: Reason['tone'] = 'against') =>
    reason('label', tone, inline(figure('label-difference', share)))
  const hands = reason('hands', 'caution')
  expect(ids(verdict([short(0.02), hands], 1.02))).toEqual(['hands', 'label'])
  expect(ids(verdict([short(0.5), hands], 1.02))).toEqual(['label', 'hands'])
  // A claim of ten times what is supported: what it would take comes before a flow that is a tenth short.
  expect(ids(verdict([short(0.1), reason('takes')], 10))).toEqual(['takes', 'label'])
  expect(ids(verdict([short(0.1), reason('takes')], 1.05))).toEqual(['label', 'takes'])
  const proposed = { proposed: { supported: figure('p', 0.4) } }
  expect(ids(verdict([reason('schools'), reason('proposed')], 2, proposed))).toEqual(['proposed', 'schools'])
})

test('of one subject one, but of media', () => {
  const low = [reason('low-end', 'caution'), reason('low-above-top', 'against'), reason('hands')]
  expect(ids(verdict(low))).toEqual(['low-above-top', 'hands'])
  const media = [reason('binding'), reason('takes'), reason('proposed'), reason('leverage')]
  expect(ids(verdict(media))).toHaveLength(3)
})

test('every reason has a subject; what a label says of itself is about the label', () => {
  expect(subjectOf({ id: 'label-max-head-0' })).toBe('label')
  for (const id of ['binding', 'flow', 'low-end', 'hands', 'overclaim'])
    expect(SUBJECTS).toContain(subjectOf({ id }))
})
