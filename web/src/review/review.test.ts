import '../../tests/setup'
import type { Snapshot } from '@ypsometer/contract/review'
import type { EditedWords } from '@ypsometer/contract'
import { inline, type Figure } from '@ypsometer/core/figures/figure'
import { LENGTHS, type Block } from '@ypsometer/core/review/blocks'
import type { Sheet } from '@ypsometer/core/review/sheet'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { cardOf, CARD, wrapped } from './card'
import { piecesOf, type ReviewDoc } from './document'
import { escaped, htmlOf } from './html'
import { markdownOf } from './markdown'
import { narrationOf } from './narration'
import { bothText, fileName, figureText } from './text'

const METRIC = { system: 'metric', decimal: '.' } as const
const kept = (name: string): string => readFileSync(join(__dirname, '../../tests/kept', name), 'utf8')
const old = JSON.parse(kept('review-2026-06-10.json')) as {
  words: EditedWords
  edition: ReviewDoc['edition']
  snapshot: Omit<Snapshot, 'inputs'>
}
const oldDoc: ReviewDoc = {
  words: old.words,
  sheet: old.snapshot.sheet,
  edition: old.edition,
  core: old.snapshot.core,
}
const NO_PICTURES = { drawing: null, photo: () => null }

test('a snapshot of June reads today as it did then, number by number', () => {
  expect(markdownOf(oldDoc, 'whole', METRIC, NO_PICTURES)).toBe(kept('review-2026-06-10.md'))
})

const figure = (more: Partial<Figure> = {}): Figure => ({
  id: 'f',
  label: 'Flow',
  value: 491.25 / 3.6e6,
  uncertainty: 12 / 3.6e6,
  dimension: 'flow',
  provenance: 'measured',
  ...more,
})
const sheetWith = (blocks: readonly Block[], more: Partial<Sheet> = {}): Sheet => ({
  version: 1,
  on: '2026-11-26',
  maker: 'Quillon',
  name: 'Torrent 1400',
  kind: 'canister',
  house: 'Strain first',
  disclosure: 'The unit was given.',
  beholden: true,
  sections: [{ id: 'verdict', title: 'Verdict', blocks }],
  ...more,
})
const WORDS: EditedWords = { title: 'A title', intro: '', words: {}, buy: null, buyWhy: '' }
const docOf = (sheet: Sheet, words: Partial<EditedWords> = {}): ReviewDoc => ({
  words: { ...WORDS, ...words },
  sheet,
  edition: { number: 1, publishedOn: '2026-11-26', erratum: null },
  core: '0.1.0',
})
const outsOf = (doc: ReviewDoc): readonly string[] => [
  ...LENGTHS.flatMap((l) => [htmlOf(doc, l, METRIC, NO_PICTURES), markdownOf(doc, l, METRIC, NO_PICTURES)]),
  cardOf(doc, METRIC),
  narrationOf(doc, METRIC),
]

test('the disclosure stands on every length and every way out, whatever else is in it', () => {
  for (const doc of [docOf(sheetWith([])), docOf(sheetWith([], { sections: [] })), oldDoc])
    for (const out of outsOf(doc))
      expect(out.replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ')).toContain(doc.sheet.disclosure.slice(0, 18))
})

test('a longer length holds all of a shorter one', () => {
  const pieces = LENGTHS.map((l) => JSON.stringify(piecesOf(oldDoc, l)).length)
  expect([...pieces].sort((a, b) => a - b)).toEqual(pieces)
  const shown = (l: (typeof LENGTHS)[number]) => piecesOf(oldDoc, l).filter((p) => p.kind === 'block').map((p) => JSON.stringify(p)) // prettier-ignore
  expect(shown('page')).toEqual(expect.arrayContaining(shown('card')))
  expect(shown('whole')).toEqual(expect.arrayContaining(shown('page')))
})

describe('hostile names and words', () => {
  const NASTY =
    '<script>alert(1)</script><img src=x onerror=alert(2)> "quoted" \'and\' & [link](javascript:alert(3)) | `code` \u202Eevil'
  const blocks: Block[] = [
    { from: 'card', kind: 'text', tone: 'against', sentence: [NASTY, inline(figure({ label: NASTY }))] },
    { from: 'card', kind: 'numbers', figures: [figure({ label: NASTY })] },
    { from: 'card', kind: 'table', head: ['', NASTY], rows: [[NASTY, figure()]] },
    { from: 'card', kind: 'photos', photos: [{ id: NASTY, caption: NASTY, width: 4, height: 3 }] },
  ]
  const doc = docOf(sheetWith(blocks, { maker: NASTY, name: NASTY, house: NASTY, disclosure: NASTY }), {
    title: NASTY,
    intro: NASTY,
    words: { verdict: NASTY },
    buy: 'if',
    buyWhy: NASTY,
  })
  test('HTML and the card hold no tag that was typed: a parser finds none', () => {
    const parse = (text: string, type: DOMParserSupportedType): Document =>
      new DOMParser().parseFromString(text, type)
    for (const l of LENGTHS) {
      const found = parse(
        htmlOf(doc, l, METRIC, { drawing: null, photo: () => 'data:image/jpeg;base64,AA==' }),
        'text/html',
      )
      expect(found.querySelectorAll('script, iframe, object, embed, link')).toHaveLength(0)
      const attributes = [...found.querySelectorAll('*')].flatMap((e) => [...e.attributes].map((a) => [a.name, a.value] as const)) // prettier-ignore
      expect(attributes.filter(([name, value]) => name.startsWith('on') || (name !== 'alt' && /javascript:/i.test(value)))).toEqual([]) // prettier-ignore
      expect(found.querySelectorAll('img')).toHaveLength(1)
      expect(found.body.textContent).toContain('<script>alert(1)</script>')
      expect(found.querySelector('meta[http-equiv]')?.getAttribute('content')).toMatch(/default-src 'none'/)
    }
    const card = parse(cardOf(doc, METRIC), 'image/svg+xml')
    expect([...card.querySelectorAll('*')].map((e) => e.tagName).filter((t) => !['svg', 'rect', 'path', 'text'].includes(t))).toEqual([]) // prettier-ignore
  })
  test('in Markdown every sign that means something means itself; a table keeps its columns', () => {
    const md = markdownOf(doc, 'whole', METRIC, NO_PICTURES)
    expect(md).not.toMatch(/(^|[^\\])<script/)
    expect(md).not.toMatch(/[^\\]\]\(javascript/)
    const rows = md.split('\n').filter((l) => l.startsWith('| '))
    for (const r of rows) expect(r.match(/(?<!\\)\|/g)).toHaveLength(3)
  })
  test('a name of 200 letters is cut to the card’s width; nothing measured, no photo and forty photos are read all the same', () => {
    const long = 'W'.repeat(200)
    const svg = cardOf(docOf(sheetWith([], { name: long, maker: long }), { title: long }), METRIC)
    const lines = [...svg.matchAll(/font-size="(\d+)"[^>]*>([^<]*)</g)].map(
      ([, size, words]) => Number(size) * (words ?? '').length,
    )
    expect(Math.max(...lines)).toBeLessThan(CARD.width * 2.2)
    const photos = Array.from({ length: 40 }, (_, i) => ({ id: String(i), caption: '', width: 4, height: 3 }))
    const many = docOf(sheetWith([{ from: 'whole', kind: 'photos', photos }]))
    expect(
      htmlOf(many, 'whole', METRIC, { drawing: null, photo: (id) => `data:,${id}` }).match(/<img/g),
    ).toHaveLength(40)
    for (const out of outsOf(docOf(sheetWith([], { sections: [] })))) expect(out.length).toBeGreaterThan(50)
    expect(wrapped('one two three', 7, 9)).toEqual(['one two', 'three'])
    expect(wrapped('abcdefgh', 3, 2)).toEqual(['abc', 'de…'])
    expect(fileName('../../etc/passwd')).toBe('etc-passwd')
    expect(fileName('‮')).toBe('review')
  })
})

test('the reader’s units and decimal sign on all; both systems where both are wanted', () => {
  // 491.25 L/h are 129.8 US gallons an hour: 491.25 ÷ 3.785412.
  expect(figureText(figure(), { system: 'us', decimal: ',' })).toBe('130 ± 3 US gal/h')
  expect(bothText(figure(), { decimal: '.' })).toBe('491 ± 12 L/h (130 ± 3 US gal/h)')
  const doc = docOf(
    sheetWith([{ from: 'card', kind: 'numbers', figures: [figure({ uncertainty: 0.0000004 })] }]),
  )
  for (const out of [
    htmlOf(doc, 'card', { system: 'us', decimal: ',' }, NO_PICTURES),
    markdownOf(doc, 'card', { system: 'us', decimal: ',' }, NO_PICTURES),
    cardOf(doc, { system: 'us', decimal: ',' }),
    narrationOf(doc, { system: 'us', decimal: ',' }),
  ])
    // prettier-ignore
    expect(out).toMatch(/129,8/)
  expect(escaped('<a href="x">&\'')).toBe('&lt;a href=&quot;x&quot;&gt;&amp;&#39;')
})
