import type { z } from 'zod'

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
