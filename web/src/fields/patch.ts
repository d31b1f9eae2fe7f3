import type { PatchOf, ResourceName, RowOf } from '@ypsometer/contract'

/** Columns of a resource that a person can change and that hold a V, or nothing. */
export type FieldOf<N extends ResourceName, V> = {
  [K in keyof RowOf<N> & keyof PatchOf<N>]: RowOf<N>[K] extends V | null ? K : never
}[keyof RowOf<N> & keyof PatchOf<N>] &
  string

/** A change of one column, and what changes along with it. */
export const patchOf = <N extends ResourceName>(
  field: keyof PatchOf<N> & string,
  value: unknown,
  along: PatchOf<N> | object = {},
): PatchOf<N> => ({ [field]: value, ...along }) as PatchOf<N>
