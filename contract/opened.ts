import type { Assessment } from '@ypsometer/core/judging/assess'
import { z } from 'zod'
import { HouseRuleList, MediumList } from './fills'
import { Dossier } from './dossier'
import { LabelBias } from './models'
import { StockClassList } from './stock'

/**
 * `GET /models/{id}/opened`: a dossier with all that it is worked out with, and what it comes to as `Assessment` of
 * `core/judging`; null where that is left to the reader (it cannot be worked out, or is too long to wait for).
 */
export const Opened = z.object({
  dossier: Dossier,
  media: MediumList,
  'house-rules': HouseRuleList,
  'stock-classes': StockClassList,
  'label-bias': LabelBias,
  assessment: z.looseObject({}).nullable(),
})
export type Opened = Omit<z.infer<typeof Opened>, 'assessment'> & { readonly assessment: Assessment | null }
