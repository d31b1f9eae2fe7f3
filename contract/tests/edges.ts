// Numbers of rows put to the ends of their ranges.

export type Json = Readonly<Record<string, unknown>>
/** As much of a JSON schema as rows are made of. */
export interface Schema {
  readonly type?: string
  readonly anyOf?: readonly Schema[]
  readonly oneOf?: readonly Schema[]
  readonly minimum?: number
  readonly maximum?: number
  readonly items?: Schema
  readonly properties?: Readonly<Record<string, Schema>>
}
/** Which number of a range. */
export type Pick = 'least' | 'just above' | 'most'
export const PICKS: readonly Pick[] = ['least', 'just above', 'most']

function numberOf({ type, minimum: min, maximum: max }: Schema, pick: Pick): number | null {
  if (min === undefined || max === undefined || Math.abs(max) > 1e15) return null
  if (pick === 'most') return max
  if (pick === 'least') return min
  if (type === 'integer') return Math.min(max, min + 1)
  return min === 0 ? Number.MIN_VALUE : min + Math.abs(min) * 1e-9
}

/** A value with its numbers put to one end of their ranges: all of them, or those of one path. */
export function put(value: unknown, schema: Schema, pick: Pick, only: string | null, at = ''): unknown {
  const either = schema.anyOf ?? schema.oneOf
  if (either) {
    const [first, ...rest] = either.filter((s) => s.type !== 'null')
    if (!first) return value
    if (!rest.length) return put(value, first, pick, only, at)
    const kind = (value as { kind?: unknown } | null)?.kind
    const mine = either.find((s) => (s.properties?.kind as { const?: unknown } | undefined)?.const === kind)
    return mine ? put(value, mine, pick, only, at) : value
  }
  if (schema.type === 'number' || schema.type === 'integer')
    return only === null || only === at ? (numberOf(schema, pick) ?? value) : value
  if (schema.type === 'array' && schema.items && Array.isArray(value))
    return value.map((v) => put(v, schema.items as Schema, pick, only, `${at}[]`))
  if (schema.type === 'object' && schema.properties && value && typeof value === 'object')
    return Object.fromEntries(
      Object.entries(value).map(([k, v]) => {
        const s = schema.properties?.[k]
        return [k, s ? put(v, s, pick, only, at ? `${at}.${k}` : k) : v]
      }),
    )
  return value
}
/** Paths of all numbers of a schema. */
export function numbersOf(schema: Schema, at = ''): string[] {
  const either = (schema.anyOf ?? schema.oneOf)?.flatMap((s) => numbersOf(s, at)) ?? []
  if (schema.type === 'number' || schema.type === 'integer')
    return numberOf(schema, 'most') === null ? [] : [at]
  if (schema.type === 'array' && schema.items) return numbersOf(schema.items, `${at}[]`)
  if (schema.properties)
    return Object.entries(schema.properties).flatMap(([k, s]) => numbersOf(s, at ? `${at}.${k}` : k))
  return [...new Set(either)]
}
