import { DOCUMENT_VERSION, RESOURCES, type ResourceName, type CsvIn } from '@ypsometer/contract'
import { readCell, unguarded } from '@ypsometer/contract/csv'
import { inArray } from 'drizzle-orm'
import { randomUUID } from 'node:crypto'
import type { Db } from '../db/client'
import { plainRows, tableOf } from '../documents/export'
import { checkedDocument, type ReadDocument, type Refused } from '../documents/read'
import type { Plain } from '../db/undo'
import { COLLECTION_OF, columnsOf, intoColumn, type Column } from './columns'
import { modelsByName, type FindModel } from './models'
import { pricesOf } from './prices'
import { sheetOf, tooMuchTable, type Refuse, type Sheet } from './sheet'

/** Most lines that are named. */
const MOST_NAMED = 50

/** Value of a cell; undefined where it says nothing and nothing may not be. */
function valueOf(column: Column, into: (n: number) => number, text: string, decimal: '.' | ','): unknown {
  const bare = text.trim()
  if (column.holds === 'text') return bare === '' && column.nullable ? null : unguarded(text)
  if (bare === '') return column.nullable ? null : undefined
  if (column.holds === 'number') {
    const n = readCell(bare, decimal)
    if (Number.isNaN(n)) throw new Error('a number')
    return into(n)
  }
  if (column.holds === 'boolean') {
    if (/^(true|yes|1)$/i.test(bare)) return true
    if (/^(false|no|0)$/i.test(bare)) return false
    throw new Error('true or false')
  }
  try {
    return JSON.parse(bare)
  } catch {
    throw new Error('a list as JSON, as it went out')
  }
}

/** The rows of a sheet by their fields; a row that is here already keeps what the sheet does not say. */
async function rowsOf(
  db: Db,
  name: ResourceName,
  sheet: Sheet,
  find: FindModel,
  refuse: Refuse,
): Promise<readonly { readonly line: number; readonly row: Plain }[]> {
  const columns = columnsOf(name)
  const known = new Map(columns.map((c) => [c.field.toLowerCase(), c]))
  const named = name !== 'tanks'
  const context = named ? ['maker', 'model'] : []
  let sound = true
  const places = sheet.header.map(({ name: header, unit }, i) => {
    if (context.includes(header.toLowerCase())) return null
    const column = known.get(header.toLowerCase())
    const into = column && intoColumn(column, unit)
    if (column && into) return { column, into }
    sound = false
    refuse(
      sheet.line,
      header || `column ${i + 1}`,
      column
        ? `a unit that is known for it, such as [${column.unit ?? 'none'}]`
        : `one of ${columns.map((c) => c.field).join(', ')}`,
    )
    return null
  })
  if (!sound) return []
  const given = sheet.lines.map(({ line, cells }) => {
    const row: Record<string, unknown> = {}
    places.forEach((p, i) => {
      if (!p) return
      try {
        const value = valueOf(p.column, p.into, cells[i] ?? '', sheet.decimal)
        if (value !== undefined && !(p.column.field === 'id' && value === '')) row[p.column.field] = value
      } catch (error) {
        refuse(line, p.column.field, error instanceof Error ? error.message : 'something else')
      }
    })
    const ofModel = 'modelId' in RESOURCES[name].Create.shape
    const modelId = ofModel && (row.modelId || find(sheet, cells))
    if (ofModel && !modelId && !row.id) refuse(line, 'model', 'a maker and one of your filters')
    return { line, row: { ...row, ...(modelId && { modelId }) } as Record<string, unknown> }
  })
  const ids = given.flatMap(({ row }) => (typeof row.id === 'string' && UUID.test(row.id) ? [row.id] : []))
  const table = tableOf(name)
  const there = new Map<string, Plain>()
  for (let i = 0; i < ids.length; i += CHUNK)
    for (const r of await plainRows(db, name, inArray(table.id, ids.slice(i, i + CHUNK)))) there.set(r.id, r)
  return given.map(({ line, row }) => ({
    line,
    row: { id: randomUUID(), ...there.get(String(row.id)), ...row } as unknown as Plain,
  }))
}

const CHUNK = 400
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i

/**
 * Reads a table as a document, so that it is looked at, taken and taken back as one. A line without an id is a new row;
 * a model may be given by maker and model instead of its id.
 */
export async function readCsv(db: Db, table: CsvIn, text: string): Promise<ReadDocument> {
  const tooMuch = tooMuchTable(text)
  if (tooMuch) return { refused: [{ line: null, field: 'text', message: tooMuch }] }
  const sheet = sheetOf(text)
  if (!sheet?.lines.length)
    return { refused: [{ line: 1, field: 'text', message: 'a first line with the names of columns, and a line each' }] } // prettier-ignore
  const refused: Refused[] = []
  const refuse: Refuse = (line, field, message) => {
    if (refused.length < MOST_NAMED) refused.push({ line, field, message })
  }
  const find = await modelsByName(db)
  const parts =
    table === 'prices'
      ? await pricesOf(db, sheet, find, refuse)
      : { [COLLECTION_OF[table]]: await rowsOf(db, COLLECTION_OF[table], sheet, find, refuse) }
  if (refused.length) return { refused }
  const rows = Object.fromEntries(Object.entries(parts).map(([name, list]) => [name, list.map((r) => r.row)]))
  const lineOf = (path: readonly (string | number)[]): number | null => {
    const [, name, i] = path
    return parts[String(name)]?.[Number(i)]?.line ?? 1
  }
  const read = checkedDocument(
    { format: 'ypsometer', version: DOCUMENT_VERSION, subject: 'bench', rows },
    lineOf,
  )
  // The line says which row; the column is left.
  return 'refused' in read
    ? {
        refused: read.refused.map((r) => ({ ...r, field: r.field.split('.').slice(3).join('.') || r.field })),
      }
    : read
}
