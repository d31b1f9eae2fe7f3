import { bareSchema, RESOURCES, unitOf, type ResourceName, type CsvIn } from '@ypsometer/contract'
import { findUnit, fromSI, toSI, UNITS, type Dimension } from '@ypsometer/core/units/dimensions'
import type { z } from 'zod'

/** The rows that a table is of, one to a line. */
export const COLLECTION_OF: Readonly<Record<Exclude<CsvIn, 'prices'>, ResourceName>> = {
  claims: 'claims',
  runs: 'readings',
  parts: 'parts',
  tanks: 'tanks',
  visits: 'visits',
}

/** Value of a field, as a cell of a table has it. */
export interface Column {
  readonly field: string
  /** With its unit in brackets: `volume [m³]`. */
  readonly header: string
  readonly holds: 'number' | 'boolean' | 'text' | 'list'
  readonly nullable: boolean
  /** The unit of a number, in SI; none where it has no unit of its own. */
  readonly unit?: string
}

const HOLDS: Readonly<Record<string, Column['holds']>> = {
  number: 'number',
  int: 'number',
  boolean: 'boolean',
  string: 'text',
  enum: 'text',
}

function columnOf(field: string, given: z.ZodType): Column {
  const { schema, nullable } = bareSchema(given)
  const { type } = schema.def
  // One of a few numbers, such as 50 or 60.
  const numbers =
    type === 'union' &&
    (schema as z.ZodUnion<z.ZodLiteral[]>).options.every((o) => typeof o.value === 'number')
  const holds = numbers ? 'number' : (HOLDS[type] ?? 'list')
  const said = unitOf(given)
  const unit = said?.startsWith('(') || said?.includes(' ') ? undefined : said
  return {
    field,
    header: unit === undefined ? field : `${field} [${unit}]`,
    holds,
    nullable,
    ...(unit !== undefined && { unit }),
  }
}

/** The columns of a table, from the contract: every field but the texts as typed, which belong to their fields. */
export const columnsOf = (name: ResourceName): readonly Column[] =>
  Object.entries(RESOURCES[name].Create.shape as Readonly<Record<string, z.ZodType>>)
    .filter(([field]) => field !== 'typed')
    .map(([field, schema]) => columnOf(field, schema))

/** Turns a number in the unit of a header into the column’s own; null where there is no such unit. */
export function intoColumn({ unit }: Column, symbol: string | undefined): ((n: number) => number) | null {
  if (symbol === undefined || symbol === unit) return (n) => n
  for (const dimension of Object.keys(UNITS) as Dimension[]) {
    const own = UNITS[dimension].find((u) => u.symbol === unit)
    const found = own && findUnit(symbol, dimension, 'metric')
    if (found) return (n) => fromSI(toSI(n, found), own)
  }
  return null
}
