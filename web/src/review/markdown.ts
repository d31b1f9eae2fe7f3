import { PROVENANCE_WORDS } from '../figures/Provenance'
import type { Block, Length } from '@ypsometer/core/review/blocks'
import { piecesOf, type Piece, type ReviewDoc } from './document'
import { cellText, figureText, sentenceIn, type Reader } from './text'

/** Where the pictures of a Markdown file lie; null for one that is not there. */
export interface Pictures {
  readonly drawing: string | null
  readonly photo: (id: string) => string | null
}

/** Signs that mean something in Markdown or HTML, made to mean themselves; line breaks of a name are spaces. */
const plain = (s: string): string => s.replace(/\s+/g, ' ').replace(/[\\`*_{}[\]<>()#+!|~]/g, '\\$&')
/** Somebody’s words: paragraphs stay, everything else means itself. */
const words = (s: string): string =>
  s
    .split(/\n{2,}/)
    .map(plain)
    .join('\n\n')

/** A review as Markdown. */
export function markdownOf(doc: ReviewDoc, length: Length, reader: Reader, pictures: Pictures): string {
  const of = (p: Piece): string => {
    switch (p.kind) {
      case 'title':
        return `${plain(p.kicker)}\n\n# ${plain(p.title)}\n\n${plain(p.sub)}`
      case 'disclosure':
        return `> **Disclosure.** ${plain(p.text)}`
      case 'erratum':
        return `> **${plain(p.text)}**`
      case 'words':
        return words(p.text)
      case 'heading':
        return `## ${plain(p.text)}`
      case 'block':
        return blockOf(p.block, reader, pictures)
      case 'buy':
        return `## ${plain(p.answer)}${p.why ? `\n\n${words(p.why)}` : ''}`
      case 'foot':
        return `---\n\n${plain(p.text)}`
    }
  }
  return `${piecesOf(doc, length).map(of).filter(Boolean).join('\n\n')}\n`
}

function blockOf(b: Block, reader: Reader, { drawing, photo }: Pictures): string {
  switch (b.kind) {
    case 'text':
      return `${b.tone === 'note' ? '' : `**${b.tone}:** `}${plain(sentenceIn(b.sentence, reader))}`
    case 'numbers':
      return b.figures
        .map(
          (f) =>
            `- ${plain(f.label)}: **${plain(figureText(f, reader))}** (${PROVENANCE_WORDS[f.provenance]})`,
        )
        .join('\n')
    case 'table': {
      const row = (cells: readonly string[]): string => `| ${cells.join(' | ')} |`
      return [
        row(b.head.map(plain)),
        row(b.head.map(() => '---')),
        ...b.rows.map((r) => row(r.map((c) => plain(cellText(c, reader, b.both))))),
      ].join('\n')
    }
    case 'drawing':
      return drawing ? `![Section, to scale](${drawing})` : ''
    case 'photos':
      return b.photos
        .flatMap((p) => {
          const at = photo(p.id)
          return at ? [`![${plain(p.caption)}](${at})`] : []
        })
        .join('\n\n')
  }
}
