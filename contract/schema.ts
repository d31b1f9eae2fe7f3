import { z } from 'zod'
import { LINKS, type Link } from './common'

const ROUND: readonly string[] = ['nullable', 'optional', 'default', 'readonly']

/** A schema without what is round it: its default, and whether it may be nothing. */
export function bareSchema(given: z.ZodType): { readonly schema: z.ZodType; readonly nullable: boolean } {
  let [schema, nullable] = [given, false]
  while (ROUND.includes(schema.def.type)) {
    nullable ||= schema.def.type === 'nullable'
    schema = (schema as unknown as { unwrap: () => z.ZodType }).unwrap()
  }
  return { schema, nullable }
}

/** The unit that a number of a schema is in, as `within` was told; undefined where it was told none. */
export function unitOf(given: z.ZodType): string | undefined {
  const unit: unknown = bareSchema(given).schema.meta()?.unit
  return typeof unit === 'string' ? unit : undefined
}

/** A field that names another row. */
export interface FieldLink extends Link {
  /** Printed on: `tankId`, `next.modelId`, `layers[].chamberId`. */
  readonly path: readonly string[]
  /** May it name none? */
  readonly nullable: boolean
}
/** A step of a path into every element of a list. */
const EACH = '[]'

/** The fields of a shape, and within them, that were declared to name another row. */
export const linksOf = (shape: Readonly<Record<string, z.ZodType>>): readonly FieldLink[] =>
  Object.entries(shape).flatMap(([k, s]) => linksWithin(s, [k]))

function linksWithin(given: z.ZodType, path: readonly string[]): readonly FieldLink[] {
  const { schema, nullable } = bareSchema(given)
  const link = LINKS.get(schema)
  if (link) return [{ ...link, path, nullable }]
  if (schema instanceof z.ZodObject)
    return Object.entries(schema.shape as Readonly<Record<string, z.ZodType>>).flatMap(([k, s]) =>
      linksWithin(s, [...path, k]),
    )
  if (schema instanceof z.ZodArray) return linksWithin(schema.element as z.ZodType, [...path, EACH])
  return []
}

/** The ids that stand in a value at the path of a link, each with where it is: `layers.3.chamberId`. */
export function idsAt(
  value: unknown,
  [step, ...rest]: readonly string[],
  at = '',
): readonly { readonly field: string; readonly id: string }[] {
  if (value === null || value === undefined) return []
  if (step === undefined) return typeof value === 'string' ? [{ field: at, id: value }] : []
  const dot = at && `${at}.`
  if (step === EACH) return Array.isArray(value) ? value.flatMap((v, i) => idsAt(v, rest, `${dot}${i}`)) : []
  return idsAt((value as Readonly<Record<string, unknown>>)[step], rest, `${dot}${step}`)
}

type Plain = Readonly<Record<string, unknown>>
const isPlain = (v: unknown): v is Plain => v !== null && typeof v === 'object' && !Array.isArray(v)

/**
 * A stored value with what has been added to its schema since it was written: what a new one has there by its usual
 * value, or by a default of its own. What is there stays as it is.
 */
export function completed(given: z.ZodType, stored: unknown, usual?: unknown): unknown {
  const { schema } = bareSchema(given)
  if (schema instanceof z.ZodObject && isPlain(stored)) {
    const fields = Object.entries(schema.shape as Readonly<Record<string, z.ZodType>>).flatMap(([k, s]) => {
      const ordinary = isPlain(usual) && k in usual ? usual[k] : undefined
      if (k in stored) return [[k, completed(s, stored[k], ordinary)]]
      if (s instanceof z.ZodDefault) return [[k, s.parse(undefined)]]
      return ordinary === undefined || s instanceof z.ZodOptional ? [] : [[k, ordinary]]
    })
    return { ...stored, ...Object.fromEntries(fields) }
  }
  if (schema instanceof z.ZodArray && Array.isArray(stored))
    return stored.map((v) => completed(schema.element as z.ZodType, v))
  return stored
}

/** Can a stored value of a schema lack something that a new one has? */
export function mayBeIncomplete(given: z.ZodType, within = false): boolean {
  if (within && given instanceof z.ZodDefault) return true
  const { schema } = bareSchema(given)
  if (schema instanceof z.ZodArray) return mayBeIncomplete(schema.element as z.ZodType, true)
  if (!(schema instanceof z.ZodObject)) return false
  const usual = !within && given instanceof z.ZodDefault ? given.parse(undefined) : null
  if (isPlain(usual) && Object.keys(usual).length) return true
  return Object.values(schema.shape as Readonly<Record<string, z.ZodType>>).some((s) =>
    mayBeIncomplete(s, true),
  )
}

/** The fields of a shape that hold a moment; in a row they are text, in the database a time. */
export const momentsWithin = (shape: Readonly<Record<string, z.ZodType>>): readonly string[] =>
  Object.entries(shape).flatMap(([k, s]) => (bareSchema(s).schema instanceof z.ZodISODateTime ? [k] : []))
