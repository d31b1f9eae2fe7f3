import type { ResourceName } from '@ypsometer/contract'

/** A row of a document, by its fields. */
export type Plain = { readonly id: string; readonly createdAt?: string } & Record<string, unknown>

interface Touched {
  readonly collection: ResourceName
  readonly id: string
  /** Its version after the import; another one now means that somebody has changed it since. */
  readonly version: number
}
/** Undo of an import: rows that were made, and what changed ones were before. */
export interface Undo {
  readonly made: readonly Touched[]
  readonly changed: readonly (Touched & { readonly before: Plain })[]
}
