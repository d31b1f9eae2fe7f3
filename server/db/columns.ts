import {
  bareSchema,
  completed,
  LINKS,
  mayBeIncomplete,
  type ResourceName,
  type Shape,
} from '@ypsometer/contract'
import { sql, type ColumnBuilderBase, type HasDefault, type NotNull } from 'drizzle-orm'
import {
  boolean,
  customType,
  date,
  doublePrecision,
  integer,
  jsonb,
  text,
  timestamp,
  uuid,
  type AnyPgColumn,
  type PgColumnBuilderBase,
} from 'drizzle-orm/pg-core'
import { z } from 'zod'

/** A moment, to the millisecond, as JavaScript has it. */
export const stamp = (name: string) => timestamp(name, { withTimezone: true, mode: 'date', precision: 3 })

/** Names as a list in SQL. */
export const quoted = (names: readonly string[]): string => `(${names.map((n) => `'${n}'`).join(', ')})`

type Within<S> = S extends z.ZodDefault<infer I> | z.ZodNullable<infer I> | z.ZodReadonly<infer I>
  ? Within<I>
  : S
/** Value of a field’s column: a moment as a `Date`, everything else as it travels. */
type Held<S extends z.ZodType> = Within<S> extends z.ZodISODateTime ? Date : NonNullable<z.output<S>>
type Built<T> = PgColumnBuilderBase<{
  name: string
  dataType: 'custom'
  columnType: 'PgCustomColumn'
  data: T
  driverParam: unknown
  enumValues: undefined
}>
type Required<B extends ColumnBuilderBase, S extends z.ZodType> = null extends z.output<S> ? B : NotNull<B>
type Usual<B extends ColumnBuilderBase, S extends z.ZodType> = S extends z.ZodDefault ? HasDefault<B> : B
/** The column of a field. */
type ColumnOf<S extends z.ZodType> = Usual<Required<Built<Held<S>>, S>, S>
type ColumnsOf<F> = { [K in keyof F]: F[K] extends z.ZodType ? ColumnOf<F[K]> : never }

/** Columns of every row that people write. `version` grows by one with each change; deletion is soft. */
const editable = {
  id: uuid('id').primaryKey(),
  version: integer('version').notNull().default(1),
  createdAt: stamp('created_at').notNull().defaultNow(),
  updatedAt: stamp('updated_at').notNull().defaultNow(),
  deletedAt: stamp('deleted_at'),
}

/** `heightWithHoses` is height_with_hoses, `pH` is ph. */
export const columnName = (field: string): string => field.replace(/(?<=..)(?=[A-Z])/g, '_').toLowerCase()

/** Options of every kind of column; each returns itself. */
interface Builder {
  readonly notNull: () => Builder
  readonly default: (value: unknown) => Builder
  readonly references: (to: () => AnyPgColumn, how: { readonly onDelete: string }) => Builder
}

/** JSON that is completed as it is read by what its schema has got since. */
function json(name: string, given: z.ZodType): unknown {
  if (!mayBeIncomplete(given)) return jsonb(name)
  const usual: unknown = given instanceof z.ZodDefault ? given.parse(undefined) : undefined
  return customType<{ data: unknown }>({
    dataType: () => 'jsonb',
    toDriver: (v) => JSON.stringify(v),
    fromDriver: (v) => completed(given, v, usual),
  })(name)
}

/** The column for what a field takes. */
function columnOf(name: string, given: z.ZodType): unknown {
  const { schema } = bareSchema(given)
  if (schema instanceof z.ZodUUID) return uuid(name)
  if (schema instanceof z.ZodISODate) return date(name, { mode: 'string' })
  if (schema instanceof z.ZodISODateTime) return stamp(name)
  if (schema instanceof z.ZodString || schema instanceof z.ZodEnum) return text(name)
  if (schema instanceof z.ZodBoolean) return boolean(name)
  if (schema instanceof z.ZodNumber) return schema.isInt ? integer(name) : doublePrecision(name)
  if (schema instanceof z.ZodUnion) return integer(name)
  return json(name, given)
}

/**
 * Default of a field in the database. Of what holds more than a word or number it takes nothing:
 * what is missing there is completed as it is read, so that something new in it needs no migration.
 */
function usualOf(given: z.ZodType): unknown {
  if (!(given instanceof z.ZodDefault)) return undefined
  const value: unknown = given.parse(undefined)
  if (value === null || typeof value !== 'object') return value ?? undefined
  return Array.isArray(value) ? sql`'[]'::jsonb` : sql`'{}'::jsonb`
}

/**
 * The columns of a kind of row, as its fields were declared: their kinds, whether they may be null, their defaults, and
 * which rows they name. A row goes with its owner; a field that may be null is emptied when the row it names goes.
 */
export function columnsFor<F>(
  declared: F & object,
  idOf: (name: ResourceName) => AnyPgColumn,
): typeof editable & ColumnsOf<F> {
  const columns = Object.entries(declared as Shape).map(([field, given]) => {
    const { schema, nullable } = bareSchema(given)
    let column = columnOf(columnName(field), given) as Builder
    const link = LINKS.get(schema)
    if (link)
      column = column.references(() => idOf(link.to as ResourceName), {
        onDelete: link.owner ? 'cascade' : nullable ? 'set null' : 'no action',
      })
    const usual = usualOf(given)
    if (usual !== undefined) column = column.default(usual)
    return [field, nullable ? column : column.notNull()]
  })
  return { ...editable, ...(Object.fromEntries(columns) as ColumnsOf<F>) }
}
