import { ownWords } from './ownWords'
import { atLength, type Block } from '@ypsometer/core/review/blocks'

import type { ReviewDoc } from './document'
import { cellText, figureText, sentenceIn, type Reader } from './text'

/** Shot of a section while it is told. */
const SHOTS: Readonly<Record<string, string>> = {
  verdict: 'You, with the filter in front of you',
  tanks: 'A tank of the size it really supports',
  claims: 'The box, finger on the figure',
  flow: 'The vessel filling, clock in the picture',
  inside: 'The body empty, from above; then the section drawing',
  fills: 'Both media setups side by side',
  path: 'Water with dye, from intake to return',
  strip: 'Parts on the towel, in the order they came off',
  living: 'The meter, then a minute of nothing but its sound',
  cost: 'The price tag',
  upkeep: 'The pre-filter rinsed, once, without a cut',
  cautions: 'The plug in your hand, out of the socket',
  visits: 'The media as they were found',
}

/** The order of shots and the numbers to say, for whoever films. The disclosure is said first. */
export function narrationOf({ sheet, words }: ReviewDoc, reader: Reader): string {
  const sections = atLength(sheet.sections, 'page')
  const shots = sections.map((s, i) =>
    [
      `${i + 2}. ${s.title}`,
      `   Show: ${SHOTS[s.id] ?? 'the filter'}`,
      ...s.blocks.flatMap((b) => linesOf(b, reader)).map((l) => `   Say: ${l}`),
      ...note(ownWords(words.words, s.id)),
    ].join('\n'),
  )
  const end = words.buy
    ? [
        `${sections.length + 2}. The end\n   Show: you\n   Say: ${END[words.buy]}${words.buyWhy.trim() ? ` ${oneLine(words.buyWhy)}` : ''}`,
      ]
    : []
  return `${[`${oneLine(words.title || sheet.name)}: shots and numbers`, `1. Before anything else\n   Show: you\n   Say: ${sheet.disclosure}`, ...shots, ...end].join('\n\n')}\n`
}

const END = {
  yes: 'I would buy it.',
  no: 'I would not buy it.',
  if: 'I would buy it, with a change.',
} as const
const oneLine = (s: string): string => s.replace(/\s+/g, ' ').trim()
const note = (s: string | undefined): string[] => (s?.trim() ? [`   Your words: ${oneLine(s)}`] : [])

function linesOf(b: Block, reader: Reader): readonly string[] {
  switch (b.kind) {
    case 'text':
      return [sentenceIn(b.sentence, reader)]
    case 'numbers':
      return b.figures.map((f) => `${f.label}: ${figureText(f, reader)}`)
    case 'table':
      return b.rows.map((r) =>
        r
          .map((c, i) => `${i > 0 && b.head[i] ? `${b.head[i]} ` : ''}${cellText(c, reader, b.both)}`)
          .filter((x) => x.trim())
          .join(', '),
      )
    default:
      return []
  }
}
