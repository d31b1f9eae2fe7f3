import { z } from 'zod'
import { DOSSIER_ROWS, RESOURCES, type DossierName } from './resources'

type Collections = { [N in DossierName]: z.ZodArray<(typeof RESOURCES)[N]['Row']> }

/** Everything the dossier of a model stands on. */
export const Dossier = z.object({
  model: RESOURCES.models.Row,
  ...(Object.fromEntries(DOSSIER_ROWS.map((n) => [n, z.array(RESOURCES[n].Row)])) as unknown as Collections),
  /** Rows that are kept and cannot be read: left out of everything, named so that they can be looked at or removed. */
  unreadable: z
    .array(
      z.object({
        collection: z.enum(DOSSIER_ROWS),
        one: z.string(),
        id: z.string(),
        version: z.int(),
        field: z.string(),
        message: z.string(),
      }),
    )
    .optional(),
})
export type Dossier = z.infer<typeof Dossier>
