import type { Figure as CoreFigure, InlineNumber as CoreInlineNumber } from '@ypsometer/core/figures/figure'
import { UNITS, type Dimension } from '@ypsometer/core/units/dimensions'
import { z } from 'zod'

const Provenance = z.enum(['printed', 'measured', 'computed', 'rule'])
const Dim = z.enum(Object.keys(UNITS) as [Dimension, ...Dimension[]])

/** A number that can answer for itself, as the core gives it: SI, with its origin and working. */
export const Figure = z.object({
  id: z.string(),
  label: z.string(),
  value: z.number(),
  dimension: Dim,
  provenance: Provenance,
  uncertainty: z.number().optional(),
  interval: z.tuple([z.number(), z.number()]).optional(),
  shared: z
    .array(z.object({ what: z.string(), relative: z.number().optional(), half: z.number().optional() }))
    .optional(),
  conditions: z.array(z.string()).optional(),
  formula: z.string().optional(),
  unit: z.string().optional(),
  working: z
    .array(
      z.object({
        symbol: z.string(),
        label: z.string(),
        value: z.number(),
        dimension: Dim,
        unit: z.string().optional(),
        provenance: Provenance.optional(),
      }),
    )
    .optional(),
  source: z.string().optional(),
  when: z.string().optional(),
  assumed: z.string().optional(),
}) as unknown as z.ZodType<CoreFigure>

/** A number inside a sentence. */
export const InlineNumber = z.object({
  si: z.number(),
  dimension: Dim,
  uncertainty: z.number().optional(),
  interval: z.tuple([z.number(), z.number()]).optional(),
  digits: z.number().optional(),
  unit: z.string().optional(),
  figure: Figure.optional(),
}) as unknown as z.ZodType<CoreInlineNumber>
