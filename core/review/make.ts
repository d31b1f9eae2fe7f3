import { compareRows, sayPrice, type CompareRow } from '../advice'
import type { Figure, Sentence } from '../figures'
import type { Reason } from '../figures/reason'
import { showQuantity, trimZeros } from '../units'
import type { Block, SheetCell, Length } from './blocks'
import type { ReviewInput } from './input'

/** A sentence of a section; none where there is nothing to say. */
export const text = (from: Length, sentence: Sentence | null, tone: Reason['tone'] = 'note'): Block[] =>
  sentence ? [{ from, kind: 'text', tone, sentence }] : []

/** Numbers with their labels; none where none is known. */
export const numbers = (from: Length, ...figures: readonly (Figure | null | undefined)[]): Block[] => {
  const known = figures.filter((f) => f != null)
  return known.length ? [{ from, kind: 'numbers', figures: known }] : []
}

/** A table without the rows of which nothing is known. */
export function table(
  from: Length,
  head: readonly string[],
  rows: readonly (readonly SheetCell[])[],
  both = false,
): Block[] {
  const known = rows.filter((r) => r.slice(1).some((c) => c !== null && c !== ''))
  return known.length
    ? [{ from, kind: 'table', head, rows: known, ...(both && { both: true as const }) }]
    : []
}

/** Rows of the comparison that a review of one model takes, by their ids. */
export function rowsOf(input: ReviewInput): (id: string) => SheetCell {
  const normal = input.stock.find((s) => s.code === 'normal') ?? input.stock[0]
  if (!normal) return () => null
  const shown = (f: Figure): string => {
    const s = showQuantity(f.value, f.dimension, 'metric')
    return `${trimZeros(s.number)} ${s.unit}`
  }
  const rows = compareRows(
    [input.candidate],
    { stock: normal, rule: input.house.advice, refilled: false, shelf: new Map() },
    shown,
  )
  return (id) => cellOf(rows.find((r) => r.id === id))
}

function cellOf(row: CompareRow | undefined): SheetCell {
  const cell = row?.cells[0]
  if (!cell) return null
  return cell.figure ?? (cell.price ? sayPrice(cell.price) : cell.words)
}

/** Of a cell its figure, if it is one. */
export const figureIn = (cell: SheetCell): Figure | null =>
  cell !== null && typeof cell !== 'string' ? cell : null
