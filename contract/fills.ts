import { FILL_BASES, MEASURES } from '@ypsometer/core/fills'
import { MEDIUM_FORMS, MEDIUM_JOBS } from '@ypsometer/core/media'
import { CHEMICAL_PLACES, SCHOOLS } from '@ypsometer/core/path/rules'
import { z } from 'zod'
import { Id, name, rowBase, text, Typed, within } from './common'

const currency = z
  .string()
  .regex(/^[A-Z]{3}$/, 'a three-letter currency code such as EUR')
  .nullable()

const mediumFields = {
  name: name('The medium’s name'),
  form: z.enum(MEDIUM_FORMS),
  job: z.enum(MEDIUM_JOBS),
  poresPerInch: within(5, 60, 'pores per inch').nullable(),
  grain: within(1e-5, 0.1, 'm').nullable(),
  fibre: within(1e-6, 0.005, 'm').nullable(),
  solidity: within(0.005, 0.4, '(share)').nullable(),
  voidage: within(0.2, 0.95, '(share)').nullable(),
  bulkDensity: within(1, 5000, 'kg/m³'),
  wetDensity: within(1, 6000, 'kg/m³').nullable(),
  permeability: within(1e-14, 1e-3, 'm²').nullable(),
  permeabilityLow: within(0, 1e-3, 'm²').nullable(),
  permeabilityHigh: within(0, 1, 'm²').nullable(),
  inertia: within(0, 1e7, '1/m').nullable(),
  geometricSurface: within(0, 1e8, 'm²/m³').nullable(),
  effectiveSurface: within(0, 1e8, 'm²/m³').nullable(),
  claimedSurface: within(0, 1e9, 'm²/m³').nullable(),
  packVolume: within(1e-6, 1, 'm³').nullable(),
  packMass: within(0.001, 200, 'kg').nullable(),
  sheetThickness: within(0.001, 0.3, 'm').nullable(),
  priceMinor: z.int().min(0).max(1e9).nullable(),
  currency,
  pricedOn: z.iso.date('a date such as 2026-04-18').nullable(),
  lifeDays: within(1, 20000, 'days').nullable(),
  source: text(400),
  note: text(2000),
  typed: Typed,
}
/** A medium of the library; `generic` ones ship with the app. */
export const Medium = z.object({ ...rowBase, generic: z.boolean(), ...mediumFields })
export const MediumCreate = z.object({
  id: Id,
  name: mediumFields.name,
  form: mediumFields.form.default('sintered'),
  job: mediumFields.job.default('biological'),
  poresPerInch: mediumFields.poresPerInch.default(null),
  grain: mediumFields.grain.default(null),
  fibre: mediumFields.fibre.default(null),
  solidity: mediumFields.solidity.default(null),
  voidage: mediumFields.voidage.default(null),
  bulkDensity: mediumFields.bulkDensity.default(500),
  wetDensity: mediumFields.wetDensity.default(null),
  permeability: mediumFields.permeability.default(null),
  permeabilityLow: mediumFields.permeabilityLow.default(null),
  permeabilityHigh: mediumFields.permeabilityHigh.default(null),
  inertia: mediumFields.inertia.default(null),
  geometricSurface: mediumFields.geometricSurface.default(null),
  effectiveSurface: mediumFields.effectiveSurface.default(null),
  claimedSurface: mediumFields.claimedSurface.default(null),
  packVolume: mediumFields.packVolume.default(null),
  packMass: mediumFields.packMass.default(null),
  sheetThickness: mediumFields.sheetThickness.default(null),
  priceMinor: mediumFields.priceMinor.default(null),
  currency: currency.default(null),
  pricedOn: mediumFields.pricedOn.default(null),
  lifeDays: mediumFields.lifeDays.default(null),
  source: mediumFields.source.default(''),
  note: mediumFields.note.default(''),
  typed: Typed.default({}),
})
export const MediumPatch = z.object(mediumFields).partial()
export const MediumList = z.object({ items: z.array(Medium) })

/** A layer of a fill; see `FillLayer` in the core. Amounts in m, m³, kg or packs. */
export const Layer = z.object({
  id: name('An id', 40),
  chamberId: Id,
  mediumId: Id,
  measure: z.enum(MEASURES),
  amount: within(1e-6, 1000, '(in the unit of its measure)'),
  bagged: z.boolean(),
  gap: within(0, 0.5, 'm'),
  crossed: z.boolean(),
  sealed: z.boolean(),
  fouled: within(0, 0.999, '(share)'),
})
export const Layers = z
  .array(Layer)
  .max(200, 'at most 200 layers')
  .refine((list) => new Set(list.map((l) => l.id)).size === list.length, 'each layer with an id of its own')

const fillFields = {
  name: name('A name for the fill'),
  basis: z.enum(FILL_BASES),
  note: text(2000),
  layers: Layers,
}
export const Fill = z.object({ ...rowBase, modelId: Id, ...fillFields })
export const FillCreate = z.object({
  id: Id,
  modelId: Id,
  name: fillFields.name,
  basis: fillFields.basis.default('variant'),
  note: fillFields.note.default(''),
  layers: Layers.default([]),
})
export const FillPatch = z.object(fillFields).partial()

const ruleFields = {
  name: name('A name for the house rule'),
  school: z.enum(SCHOOLS),
  reasoning: text(2000),
  chemical: z.enum(CHEMICAL_PLACES),
  /** What differs from the school, by the rule’s id. */
  rules: z.record(
    z.string().max(40),
    z.object({ on: z.boolean(), weight: within(0, 10, '(weight)') }).partial(),
  ),
  /** The one that holds where a dossier does not choose its own. */
  chosen: z.boolean(),
}
export const HouseRule = z.object({ ...rowBase, shipped: z.boolean(), ...ruleFields })
export const HouseRuleCreate = z.object({
  id: Id,
  name: ruleFields.name,
  school: ruleFields.school.default('strain-first'),
  reasoning: ruleFields.reasoning.default(''),
  chemical: ruleFields.chemical.default('none'),
  rules: ruleFields.rules.default({}),
  chosen: z.boolean().default(false),
})
export const HouseRulePatch = z.object(ruleFields).partial()
export const HouseRuleList = z.object({ items: z.array(HouseRule) })

/** What may be fitted on a hose run: another filter, a UV-C lamp, an inline heater. */
export const Fitted = z
  .object({
    second: z.object({
      label: name('The other filter’s name'),
      arrangement: z.enum(['series', 'beside']),
      running: z.boolean(),
      shutOffHead: within(0.01, 100, 'm'),
      maxFlow: within(1e-7, 1, 'm³/s'),
      exponent: within(0.5, 10, '(no unit)'),
      lossCoefficient: within(0, 1e6, 'velocity heads'),
    }),
    lamp: z.object({
      output: within(0.01, 500, 'W'),
      lampLength: within(0.01, 2, 'm'),
      sleeveRadius: within(0.001, 0.2, 'm'),
      chamberRadius: within(0.002, 0.5, 'm'),
      ageing: within(0.01, 1, '(share)'),
      sleeve: within(0.01, 1, '(share)'),
      transmittance: within(0.01, 1, '(share per cm)'),
    }),
    heater: z.object({ watts: within(1, 5000, 'W') }),
  })
  .partial()
  .strict()

export type Medium = z.infer<typeof Medium>
export type Layer = z.infer<typeof Layer>
export type Fill = z.infer<typeof Fill>
export type HouseRule = z.infer<typeof HouseRule>
export type Fitted = z.infer<typeof Fitted>
