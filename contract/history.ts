import { z } from 'zod'
import { Id } from './common'

export const CHANGE_ACTIONS = ['made', 'changed', 'deleted', 'restored'] as const

/** A change of a row: by whom, when, and what the fields were and became. */
export const Change = z.object({
  id: z.int(),
  at: z.string(),
  /** Nobody where the program itself did it. */
  who: z.object({ id: Id, name: z.string() }).nullable(),
  action: z.enum(CHANGE_ACTIONS),
  resource: z.string(),
  rowId: Id,
  name: z.string(),
  before: z.record(z.string(), z.unknown()),
  after: z.record(z.string(), z.unknown()),
  /** The change that this one takes back. */
  undoes: z.int().nullable(),
  /** The change that took this one back. */
  undoneBy: z.int().nullable(),
  /** Can it be taken back at all? */
  undoable: z.boolean(),
})
export type Change = z.infer<typeof Change>
export const HistoryQuery = z.object({
  /** All of a model's dossier. */
  model: Id.optional(),
  /** One row. */
  row: Id.optional(),
  before: z.coerce.number().int().positive().optional(),
  limit: z.coerce.number().int().min(1).max(200).default(50),
})
export const HistoryPage = z.object({ items: z.array(Change), next: z.int().nullable() })
export type HistoryPage = z.infer<typeof HistoryPage>
