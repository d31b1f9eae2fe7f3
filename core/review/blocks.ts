import type { Figure, Sentence } from '../figures'
import type { Reason } from '../figures/reason'

/** How much of a review is read: a card, one page, or the whole; each holds what the shorter one does. */
export const LENGTHS = ['card', 'page', 'whole'] as const
export type Length = (typeof LENGTHS)[number]

/** One entry of a table: words, or a number that can answer for itself; null where nobody knows. */
export type SheetCell = string | Figure | null

/** Blocks of a section. They say what is to be read, not how it looks; every number in it is a figure. */
export type Block = { readonly from: Length } & (
  | { readonly kind: 'text'; readonly tone: Reason['tone']; readonly sentence: Sentence }
  | { readonly kind: 'numbers'; readonly figures: readonly Figure[] }
  | {
      readonly kind: 'table'
      readonly head: readonly string[]
      readonly rows: readonly (readonly SheetCell[])[]
      /** Numbers are shown in metric and in US units, whatever the reader’s. */
      readonly both?: true
    }
  | { readonly kind: 'drawing' }
  | { readonly kind: 'photos'; readonly photos: readonly ReviewPhoto[] }
)

export interface ReviewPhoto {
  readonly id: string
  readonly caption: string
  readonly width: number
  readonly height: number
}

/** A part of the sheet; sections stand in the reader’s order. */
export interface Section {
  readonly id: string
  readonly title: string
  readonly blocks: readonly Block[]
}

/** A block is read at this length. */
export const isIn = (block: Pick<Block, 'from'>, length: Length): boolean =>
  LENGTHS.indexOf(block.from) <= LENGTHS.indexOf(length)

/** The sections of a length, without those that have nothing in it. */
export const atLength = (sections: readonly Section[], length: Length): readonly Section[] =>
  sections
    .map((s) => ({ ...s, blocks: s.blocks.filter((b) => isIn(b, length)) }))
    .filter((s) => s.blocks.length > 0)

/** Every figure of some sections, once each, with the section it stands in; by its id. */
export function figuresOf(
  sections: readonly Section[],
): ReadonlyMap<string, { readonly section: string; readonly figure: Figure }> {
  const out = new Map<string, { readonly section: string; readonly figure: Figure }>()
  for (const s of sections)
    for (const f of s.blocks.flatMap(figuresIn))
      if (!out.has(f.id)) out.set(f.id, { section: s.title, figure: f })
  return out
}

const figuresIn = (b: Block): readonly Figure[] => {
  switch (b.kind) {
    case 'text':
      return b.sentence.flatMap((p) => (typeof p !== 'string' && p.figure ? [p.figure] : []))
    case 'numbers':
      return b.figures
    case 'table':
      return b.rows.flat().filter((c): c is Figure => c !== null && typeof c !== 'string')
    default:
      return []
  }
}
