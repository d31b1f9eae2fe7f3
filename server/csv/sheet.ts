import { MOST_ROWS } from '@ypsometer/contract'
import { decimalOf, readRows } from '@ypsometer/contract/csv'

/** A table as it was sent: its columns by name, and its lines. */
export interface Sheet {
  readonly header: readonly { readonly name: string; readonly unit: string | undefined }[]
  /** The line of the header. */
  readonly line: number
  readonly lines: readonly { readonly line: number; readonly cells: readonly string[] }[]
  readonly decimal: '.' | ','
}
export type Refuse = (line: number, column: string, message: string) => void

/** `volume [m³]` is the column volume, in m³. */
const HEADER = /^(.*?)\s*(?:\[(.*)\])?$/

/** Most cells of a table. */
const MOST_CELLS = 1_000_000

/** How often a character stands in a text, counted no further than asked. */
function count(text: string, character: string, most: number): number {
  let n = 0
  for (let i = text.indexOf(character); i >= 0 && n <= most; i = text.indexOf(character, i + 1)) n++
  return n
}

/** Excess of a table, told before anything is made of it; null where it may be read. */
export function tooMuchTable(text: string): string | null {
  if (count(text, '\n', MOST_ROWS) > MOST_ROWS) return `at most ${MOST_ROWS} lines`
  const cells = [',', ';', '\t'].reduce((n, c) => n + count(text, c, MOST_CELLS), 0)
  return cells > MOST_CELLS ? `at most ${MOST_CELLS} cells` : null
}

/** A text as a table; null where nothing is in it. */
export function sheetOf(text: string): Sheet | null {
  const { delimiter, rows } = readRows(text)
  const [first, ...lines] = rows
  if (!first) return null
  const header = first.cells.map((c) => {
    const [, name = '', unit] = HEADER.exec(c.trim()) ?? []
    return { name, unit: unit?.trim() }
  })
  const cells = lines.map((l) => l.cells)
  return { header, line: first.line, lines, decimal: decimalOf(cells, delimiter) }
}
