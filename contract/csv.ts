import Papa from 'papaparse'

/** Text that a spreadsheet would take for a formula, or that was guarded against that; a number is none. */
const FORMULA = /^(?:['=@\t\r]|[+-](?!\d*\.?\d+(e[+-]?\d+)?$))/i
/** A table as text (RFC 4180, with a line feed at the end). Words that would be formulas get a ' before them. */
export const writeTable = (header: readonly string[], rows: readonly (readonly unknown[])[]): string =>
  `${Papa.unparse({ fields: [...header], data: rows.map((r) => [...r]) }, { escapeFormulae: new RegExp(`${FORMULA.source}[^]*$`, 'i'), newline: '\r\n' })}\r\n`
/** Words as they were before {@link writeTable}. */
export const unguarded = (text: string): string =>
  text.startsWith("'") && FORMULA.test(text.slice(1)) ? text.slice(1) : text

/** Rows of text as they are, each with the line it begins on; and what parts their cells. */
export function readRows(text: string): {
  readonly delimiter: string
  readonly rows: readonly { readonly line: number; readonly cells: readonly string[] }[]
} {
  const parsed = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), {
    delimitersToGuess: [',', ';', '\t', '|'],
  })
  const lines = lineNumbers(parsed.data)
  return {
    delimiter: parsed.meta.delimiter,
    rows: parsed.data
      .map((cells, i) => ({ line: lines[i] ?? i + 1, cells }))
      .filter((r) => r.cells.some((c) => c.trim() !== '')),
  }
}

/** A pasted or read table: cells as text, with the line each row stands on (1 is the first). */
export interface Table {
  readonly delimiter: string
  readonly decimal: '.' | ','
  readonly header: readonly string[] | null
  readonly rows: readonly { readonly line: number; readonly cells: readonly string[] }[]
}

const NUMBER_DOT = /^[+-]?(\d{1,3}(,\d{3})+|\d+)?(\.\d+)?(e[+-]?\d+)?$/i
const NUMBER_COMMA = /^[+-]?(\d{1,3}([. ]\d{3})+|\d+)?(,\d+)?(e[+-]?\d+)?$/i

/** A number written with a decimal point or comma, thousands parted or not; NaN when it is none. */
export function readCell(text: string, decimal: '.' | ','): number {
  const t = text.trim().replace(/[\u00a0\u202f]/g, ' ')
  if (!t) return NaN
  const plain = t.replace(/\u2212/g, '-')
  if (decimal === ',' ? !NUMBER_COMMA.test(plain) : !NUMBER_DOT.test(plain.replace(/(\d) (?=\d{3})/g, '$1')))
    return NaN
  const bare = decimal === ',' ? plain.replace(/[. ]/g, '').replace(',', '.') : plain.replace(/[, ]/g, '')
  return bare === '' || bare === '+' || bare === '-' ? NaN : Number(bare)
}

/** Decimal commas are taken for such when the delimiter is none and cells like "1,5" are there and "1.5" are not. */
export function decimalOf(rows: readonly (readonly string[])[], delimiter: string): '.' | ',' {
  if (delimiter === ',') return '.'
  const cells = rows.flat().map((c) => c.trim())
  const commas = cells.filter((c) => /^[+-]?[\d. ]*\d,\d+$/.test(c) && !/^\d{1,3}(,\d{3})+$/.test(c)).length
  const dots = cells.filter((c) => /^[+-]?\d*\.\d+$/.test(c)).length
  return commas > dots ? ',' : '.'
}

/**
 * Reads delimited text (RFC 4180; comma, semicolon, tab or bar), finds the decimal sign, and takes a first row with no
 * number in it as the header. Empty lines are passed over; lines keep their numbers.
 */
export function readTable(text: string): Table {
  const clean = text.replace(/^\ufeff/, '').trimEnd()
  const parsed = Papa.parse<string[]>(clean, {
    delimitersToGuess: [';', '\t', ',', '|'],
    skipEmptyLines: false,
  })
  const delimiter = parsed.meta.delimiter
  const lines = lineNumbers(parsed.data)
  const all = parsed.data
    .map((cells, i) => ({ line: lines[i] ?? i + 1, cells: cells.map((c) => c.trim()) }))
    .filter((r) => r.cells.some((c) => c !== ''))
  const decimal = decimalOf(
    all.map((r) => r.cells),
    delimiter,
  )
  const first = all[0]
  const header =
    first && first.cells.every((c) => Number.isNaN(readCell(c, decimal))) && all.length > 1
      ? first.cells
      : null
  return { delimiter, decimal, header, rows: header ? all.slice(1) : all }
}

/** The line each row begins on: a quoted cell may go over several. */
function lineNumbers(rows: readonly (readonly string[])[]): number[] {
  let line = 1
  return rows.map((cells) => {
    const at = line
    line += 1 + cells.reduce((n, c) => n + (c.match(/\n/g)?.length ?? 0), 0)
    return at
  })
}
