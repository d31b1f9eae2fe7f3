import { dayText } from '@ypsometer/core/days/text'
import { ownWords } from './ownWords'
import type { Edition, EditedWords } from '@ypsometer/contract'
import { atLength, type Block, type Length } from '@ypsometer/core/review/blocks'
import type { Sheet } from '@ypsometer/core/review/sheet'

/** A review as it is read: the editor’s words and the numbers they stand round. */
export interface ReviewDoc {
  readonly words: EditedWords
  readonly sheet: Sheet
  /** Null for a draft. */
  readonly edition: Pick<Edition, 'number' | 'publishedOn' | 'erratum'> | null
  readonly core: string
}

/** A piece of a review, in the order it is read; every way out is made from the same pieces. */
export type Piece =
  | { readonly kind: 'title'; readonly kicker: string; readonly title: string; readonly sub: string }
  | { readonly kind: 'disclosure'; readonly text: string; readonly beholden: boolean }
  | { readonly kind: 'erratum'; readonly text: string }
  | { readonly kind: 'words'; readonly text: string }
  | { readonly kind: 'heading'; readonly id: string; readonly text: string }
  | { readonly kind: 'block'; readonly block: Block }
  | { readonly kind: 'buy'; readonly answer: string; readonly why: string }
  | { readonly kind: 'foot'; readonly text: string }

const BUY_WORDS = { yes: 'Would buy it', no: 'Would not buy it', if: 'Would buy it, with a change' } as const

/** A review at a length, piece by piece. The disclosure is in all of them. */
export function piecesOf({ words, sheet, edition }: ReviewDoc, length: Length): readonly Piece[] {
  const { maker, name, on, house } = sheet
  const sub = edition
    ? edition.number > 1
      ? `Edition ${edition.number}, published ${dayText(edition.publishedOn)}`
      : `Published ${dayText(edition.publishedOn)}`
    : 'A draft, not published'
  return [
    { kind: 'title', kicker: `${maker} · ${name}`, title: words.title.trim() || name, sub },
    { kind: 'disclosure', text: sheet.disclosure, beholden: sheet.beholden },
    ...(edition?.erratum
      ? [{ kind: 'erratum', text: `Corrected: ${edition.erratum.what} Why: ${edition.erratum.why}` } as const]
      : []),
    ...(words.anyway
      ? [{ kind: 'words', text: `Published before it was complete: ${words.anyway}` } as const]
      : []),
    ...said(introAt(length, words.intro)),
    ...atLength(sheet.sections, length).flatMap((s): Piece[] => [
      { kind: 'heading', id: s.id, text: s.title },
      ...s.blocks.map((block): Piece => ({ kind: 'block', block })),
      ...said(length === 'whole' ? ownWords(words.words, s.id) : ''),
    ]),
    ...(words.buy ? [{ kind: 'buy', answer: BUY_WORDS[words.buy], why: words.buyWhy.trim() } as const] : []),
    {
      kind: 'foot',
      text: `Numbers of ${dayText(on)}, house rules “${house}”. They do not change.`,
    },
  ]
}

/** Of the words before the numbers, what one page has room for (letters). */
const INTRO = 420
function introAt(length: Length, intro: string): string {
  if (length === 'card') return ''
  if (length === 'whole' || intro.length <= INTRO) return intro
  return `${intro.slice(0, INTRO).replace(/\s+\S*$/, '')} …`
}

const said = (text: string): Piece[] => (text.trim() ? [{ kind: 'words', text: text.trim() }] : [])
