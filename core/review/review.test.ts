import { sentenceText, type Figure } from '../figures'
import {
  atLength,
  DISCLOSED,
  disclosureWords,
  figuresOf,
  isBeholden,
  movedSince,
  NOT_RECORDED,
  type Section,
} from '.'
import { verdictSection } from './findings'

const figure = (id: string, value: number, uncertainty?: number): Figure => ({
  id,
  label: id,
  value,
  dimension: 'mass',
  provenance: 'measured',
  ...(uncertainty !== undefined && { uncertainty }),
})
const section = (...figures: Figure[]): Section => ({
  id: 's',
  title: 'S',
  blocks: [
    { from: 'card', kind: 'numbers', figures: figures.slice(0, 1) },
    { from: 'whole', kind: 'table', head: ['', 'x'], rows: figures.slice(1).map((f) => ['row', f]) },
  ],
})

test('a disclosure says every yes and every no, and what was not asked is said to be not recorded', () => {
  expect(disclosureWords({ obtained: 'given', disclosure: NOT_RECORDED })).toBe(
    'The unit was given. Not disclosed yet: payment, contract, gifts, preview.',
  )
  expect(disclosureWords({ obtained: null, disclosure: { ...NOT_RECORDED, paid: true } })).toMatch(
    /How we got the unit is not disclosed yet\. Paid for by somebody with an interest\./,
  )
  const no = Object.fromEntries(DISCLOSED.map((d) => [d, false])) as typeof NOT_RECORDED
  expect(disclosureWords({ obtained: 'bought', disclosure: no })).not.toMatch(/Not recorded/)
  expect(isBeholden({ obtained: 'bought', disclosure: no })).toBe(false)
  expect(isBeholden({ obtained: 'loaned', disclosure: no })).toBe(true)
  for (const d of DISCLOSED)
    expect(isBeholden({ obtained: 'bought', disclosure: { ...no, [d]: true } })).toBe(true)
})

test('a length holds what is read at it, and no section that is empty there', () => {
  const s = section(figure('a', 1), figure('b', 2))
  expect(atLength([s], 'card')[0]?.blocks).toHaveLength(1)
  expect(atLength([s], 'whole')[0]?.blocks).toHaveLength(2)
  expect(atLength([{ ...s, blocks: s.blocks.slice(1) }], 'page')).toEqual([])
  expect([...figuresOf([s]).keys()]).toEqual(['a', 'b'])
})

test('a chance that no draw speaks against is not said outright: over 99 %, under 1 %, of one rule and of all', () => {
  const verdict = { words: 'x', level: 'open', basis: 'none', overclaim: null, supported: null, flow: null, ranges: [], reasons: [], missing: [] } // prettier-ignore
  const schools = [{ school: 'media-mass', weight: 0.5 }, { school: 'balance', weight: 0.5 }] // prettier-ignore
  const said = (tooHigh: number, over: number) => {
    const chances = { tooHigh, leading: 'media-mass', draws: 1e4, overSchools: { tooHigh: over }, schools }
    const { blocks } = verdictSection({ assessment: { verdict }, chances, errata: [] } as never)
    return blocks.flatMap((b) => ('sentence' in b ? [sentenceText(b.sentence as never, 'metric')] : [])).find((t) => t.includes('that the label claims too much')) // prettier-ignore
  }
  expect(said(1, 1)).toMatch(
    /Over 99\s?% sure that the label claims too much \(normal stocking\), if media weight is right; over 99\s?% over all sizing rules\./,
  )
  expect(said(0, 0)).toMatch(/^Under 1(\.0)?.% .*; under 1(\.0)?.% over/)
  expect(said(0.6, 0.4)).toMatch(/^60(\.0)?.% .*; 40(\.0)?.% over/)
})

test('what would read otherwise has moved; what would not has not; what came or went is named', () => {
  const then = { sections: [section(figure('a', 1, 0.1), figure('b', 2), figure('gone', 3))] }
  const now = { sections: [section(figure('a', 1.0001, 0.1), figure('b', 2.5), figure('new', 4))] }
  const moved = movedSince(then, now)
  // 1.00 ± 0.10 kg reads the same; 2 kg and 2.5 kg do not.
  expect(moved.map((m) => [m.id, m.then?.value ?? null, m.now?.value ?? null])).toEqual([
    ['b', 2, 2.5],
    ['gone', 3, null],
    ['new', null, 4],
  ])
  expect(movedSince(then, then)).toEqual([])
})
