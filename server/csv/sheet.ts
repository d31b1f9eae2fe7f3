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
