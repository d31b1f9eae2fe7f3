import fc from 'fast-check'
import { randomUUID } from 'node:crypto'

/** As much of a JSON schema as the contract's bodies are made of. */
export interface Schema {
  readonly type?: string
  readonly const?: unknown
  readonly enum?: readonly unknown[]
  readonly anyOf?: readonly Schema[]
  readonly oneOf?: readonly Schema[]
  readonly minimum?: number
  readonly maximum?: number
  readonly minLength?: number
  readonly items?: Schema
  readonly properties?: Readonly<Record<string, Schema>>
  readonly required?: readonly string[]
  readonly format?: string
}

/** Numbers a person may type that a schema accepts: both ends of the range, zero, and what lies between by decades. */
function numbers({ type, minimum: min = -1e6, maximum: max = 1e6 }: Schema): fc.Arbitrary<number> {
  const between = [0, 1e-9, 1e-6, 1e-4, 2e-4, 1e-3, 0.01, 0.05, 0.5, 1, 3, 20, 250, 1e4, 86400].filter(
    (v) => v >= min && v <= max && (type !== 'integer' || Number.isInteger(v)),
  )
  return fc.constantFrom(min, max, ...between, ...between)
}
/** Values of a schema; a field that may be left out often is. */
export function valuesOf(s: Schema): fc.Arbitrary<unknown> {
  if ('const' in s) return fc.constant(s.const)
  if (s.enum) return fc.constantFrom(...s.enum)
  const either = s.anyOf ?? s.oneOf
  if (either) return fc.oneof(...either.map(valuesOf))
  switch (s.type) {
    case 'number':
    case 'integer':
      return numbers(s)
    case 'boolean':
      return fc.boolean()
    case 'null':
      return fc.constant(null)
    case 'array':
      return fc.array(valuesOf(s.items ?? {}), { maxLength: 4 })
    case 'object':
      return fc.record(
        Object.fromEntries(Object.entries(s.properties ?? {}).map(([k, v]) => [k, valuesOf(v)])),
        { requiredKeys: [...(s.required ?? [])] },
      )
    default:
      return fc.constantFrom(
        ...(s.format === 'uuid' ? [randomUUID()] : ['a', 'Mains', '2026-11-25T10:00:00Z', 'GBP']),
      )
  }
}
