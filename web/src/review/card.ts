import { dayText } from '@ypsometer/core/days/text'
import { atLength, type Block } from '@ypsometer/core/review/blocks'
import type { ReviewDoc } from './document'
import { escaped } from './html'
import { figureText, sentenceIn, type Reader } from './text'

/** Size of a card (px): as wide as a video or the preview of a page. */
export const CARD = { width: 1200, height: 675 } as const
const MARGIN = 64
/** Letters that fit a line at a size (px), with a little to spare. */
const lettersAt = (size: number, width = CARD.width - 2 * MARGIN): number => Math.floor(width / (size * 0.47))

/** A text in lines of so many letters, at most so many lines; what is more is cut with an ellipsis. */
export function wrapped(text: string, letters: number, most: number): readonly string[] {
  const lines: string[] = []
  for (const word of text
    .split(/\s+/)
    .filter(Boolean)
    .flatMap((w) => chopped(w, letters))) {
    const last = lines.at(-1)
    if (last !== undefined && last.length + word.length + 1 <= letters)
      lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  if (lines.length <= most) return lines
  const kept = lines.slice(0, most)
  kept[most - 1] = `${(kept[most - 1] ?? '').slice(0, letters - 1)}…`
  return kept
}
const chopped = (word: string, letters: number): string[] =>
  Array.from({ length: Math.ceil(word.length / letters) }, (_, i) =>
    word.slice(i * letters, (i + 1) * letters),
  )

const textsOf = (blocks: readonly Block[], reader: Reader): readonly string[] =>
  blocks.flatMap((b) => (b.kind === 'text' ? [sentenceIn(b.sentence, reader)] : []))

/** A review as a picture: verdict, two numbers, whether to buy it, and the disclosure, which is never left out. */
export function cardOf({ sheet, words, edition }: ReviewDoc, reader: Reader, font = ''): string {
  const [verdict] = atLength(sheet.sections, 'card')
  const [first] = (verdict?.blocks ?? []).filter((b) => b.kind === 'text')
  const [said = ''] = textsOf(first ? [first] : [], reader)
  const ink = first?.kind === 'text' && first.tone === 'against' ? '#9a3a18' : '#1f2420'
  const figures = (verdict?.blocks ?? []).flatMap((b) => (b.kind === 'numbers' ? b.figures : [])).slice(0, 2)
  const buy = words.buy
    ? { yes: 'Would buy it.', no: 'Would not buy it.', if: 'Would buy it, with a change.' }[words.buy]
    : ''
  const out: string[] = []
  const line = (text: string, y: number, size: number, more = ''): void =>
    void out.push(
      `<text x="${MARGIN}" y="${y}" font-size="${size}" unicode-bidi="plaintext"${more}>${escaped(text)}</text>`,
    )
  line(`${sheet.maker} · ${sheet.name}`.slice(0, lettersAt(26)), 84, 26, ' fill="#5a645d"')
  let y = 140
  for (const l of wrapped(words.title.trim() || sheet.name, lettersAt(50), 2)) {
    line(l, y, 50, ' font-weight="700"')
    y += 56
  }
  for (const l of wrapped(said, lettersAt(36), 2)) {
    line(l, y + 12, 36, ` fill="${ink}" font-weight="700"`)
    y += 44
  }
  figures.forEach((f, i) => {
    const x = MARGIN + i * 540
    out.push(
      `<text x="${x}" y="${y + 60}" font-size="24" fill="#5a645d">${escaped(f.label.slice(0, 44))}</text>`,
    )
    out.push(
      `<text x="${x}" y="${y + 112}" font-size="50" font-weight="700" fill="#0b5e66">${escaped(figureText(f, reader))}</text>`,
    )
  })
  if (buy) line(buy, y + 172, 32, ' font-weight="700"')
  const told = wrapped(`Disclosure. ${sheet.disclosure}`, lettersAt(22), 3)
  told.forEach((l, i) => line(l, CARD.height - 84 + (i - told.length + 1) * 28, 22))
  line(
    edition
      ? `Published ${dayText(edition.publishedOn)}${edition.number > 1 ? `, edition ${edition.number}` : ''}`
      : 'A draft',
    CARD.height - 40,
    22,
    ' fill="#5a645d"',
  )
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${CARD.width}" height="${CARD.height}" viewBox="0 0 ${CARD.width} ${CARD.height}" font-family="'Alegreya Sans', Candara, sans-serif" fill="#1f2420">${font ? `<style>${font}</style>` : ''}<rect width="100%" height="100%" fill="#f8f3ea"/><path d="M${MARGIN} 44H${CARD.width - MARGIN}M${MARGIN} ${CARD.height - 92 - told.length * 28 + 28 - 24}H${CARD.width - MARGIN}" stroke="#1f2420"/>${out.join('')}</svg>`
}
