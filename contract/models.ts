import { CLAIM_QUANTITIES, FILL_STATES, FILTER_KINDS } from '@ypsometer/core/judging'
import { z } from 'zod'
import { Body, Chamber, ContentItem, Part, Photo } from './teardown'
import { Id, name, rowBase, text, Typed, within } from './common'

export const FilterKind = z.enum(FILTER_KINDS)
export const Mains = z.union([z.literal(50), z.literal(60)], { error: '50 or 60 Hz' })

const modelFields = {
  maker: name('The maker'),
  name: name('The model’s name'),
  kind: FilterKind,
  mainsFrequency: Mains,
  note: text(4000),
}
export const Model = z.object({ ...rowBase, ...modelFields })
export const ModelCreate = z.object({
  id: Id,
  maker: modelFields.maker,
  name: modelFields.name,
  kind: modelFields.kind,
  mainsFrequency: Mains.default(50),
  note: modelFields.note.default(''),
})
export const ModelPatch = z.object(modelFields).partial()

/** Printed figures: numbers in SI, money in minor units, or words. */
export const CLAIM_WORDS = ['contents', 'guarantee'] as const
export const ClaimQuantity = z.enum([...CLAIM_QUANTITIES, ...CLAIM_WORDS, 'price'])
export type ClaimQuantityName = z.infer<typeof ClaimQuantity>

const claimFields = {
  value: within(0, 1e6, 'in SI').nullable(),
  words: text(2000).nullable(),
  amountMinor: z.int().min(0).max(1e9).nullable(),
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/, 'a three-letter currency code such as EUR')
    .nullable(),
  qualifier: text(80),
  mainsFrequency: Mains.nullable(),
  printedOn: text(80),
  typed: Typed,
}
export const Claim = z.object({ ...rowBase, modelId: Id, quantity: ClaimQuantity, ...claimFields })
export const ClaimCreate = z.object({
  id: Id,
  modelId: Id,
  quantity: ClaimQuantity,
  value: claimFields.value.default(null),
  words: claimFields.words.default(null),
  amountMinor: claimFields.amountMinor.default(null),
  currency: claimFields.currency.default(null),
  qualifier: claimFields.qualifier.default(''),
  mainsFrequency: claimFields.mainsFrequency.default(null),
  printedOn: claimFields.printedOn.default(''),
  typed: Typed.default({}),
})
export const ClaimPatch = z.object(claimFields).partial()

export const SPECIMEN_STATES = ['new', 'used'] as const
export const OBTAINED = ['bought', 'loaned', 'given', 'second-hand'] as const
const specimenFields = {
  label: text(80),
  obtained: z.enum(OBTAINED),
  obtainedOn: z.iso.date('a date such as 2026-04-18').nullable(),
  state: z.enum(SPECIMEN_STATES),
  monthsInUse: within(0, 600, 'months').nullable(),
  serial: text(80),
  condition: text(400),
  checks: z.record(z.string().max(40), z.boolean()),
  mediaMass: within(0, 200, 'kg').nullable(),
  note: text(4000),
  typed: Typed,
}
export const Specimen = z.object({ ...rowBase, modelId: Id, ...specimenFields })
export const SpecimenCreate = z.object({
  id: Id,
  modelId: Id,
  label: specimenFields.label.default(''),
  obtained: specimenFields.obtained.default('bought'),
  obtainedOn: specimenFields.obtainedOn.default(null),
  state: specimenFields.state.default('new'),
  monthsInUse: specimenFields.monthsInUse.default(null),
  serial: specimenFields.serial.default(''),
  condition: specimenFields.condition.default(''),
  checks: specimenFields.checks.default({}),
  mediaMass: specimenFields.mediaMass.default(null),
  note: specimenFields.note.default(''),
  typed: Typed.default({}),
})
export const SpecimenPatch = z.object(specimenFields).partial()

const bore = within(0.002, 0.2, 'm')
/** A piece of the hose run, in flow order. Lengths in m. */
export const Segment = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('hose'),
    id: name('An id', 40),
    label: name('A name'),
    length: within(0, 100, 'm'),
    diameter: bore,
    roughness: within(0, 0.005, 'm'),
  }),
  z.object({
    kind: z.literal('fitting'),
    id: name('An id', 40),
    label: name('A name'),
    lossCoefficient: within(0, 1e6, 'velocity heads'),
    diameter: bore,
    count: z.int('a whole number').min(0, 'at least 0').max(100, 'at most 100'),
  }),
  z.object({
    kind: z.literal('spray-bar'),
    id: name('An id', 40),
    label: name('A name'),
    holes: z.int('a whole number of holes').min(1, 'at least 1 hole').max(500, 'at most 500 holes'),
    holeDiameter: within(0.0005, 0.05, 'm'),
    dischargeCoefficient: within(0.1, 1.2, '(no unit)'),
  }),
])
export const Segments = z
  .array(Segment)
  .max(60, 'at most 60 pieces')
  .refine((list) => new Set(list.map((s) => s.id)).size === list.length, 'each piece with an id of its own')

const hookupFields = {
  name: name('A name for the hookup'),
  outletAboveWater: within(-5, 10, 'm'),
  sourceBelowWater: within(0, 10, 'm'),
  bodyBelowWater: within(-5, 10, 'm'),
  segments: Segments,
  typed: Typed,
}
export const Hookup = z.object({ ...rowBase, modelId: Id, ...hookupFields })
export const HookupCreate = z.object({
  id: Id,
  modelId: Id,
  name: hookupFields.name,
  outletAboveWater: hookupFields.outletAboveWater.default(-0.05),
  sourceBelowWater: hookupFields.sourceBelowWater.default(0),
  bodyBelowWater: hookupFields.bodyBelowWater.default(0),
  segments: Segments.default([]),
  typed: Typed.default({}),
})
export const HookupPatch = z.object(hookupFields).partial()

const trialFields = {
  specimenId: Id.nullable(),
  hookupId: Id.nullable(),
  state: z.enum(FILL_STATES),
  lift: within(0, 20, 'm'),
  waterTemperature: within(0, 40, '°C'),
  mainsFrequency: Mains,
  vesselVolume: within(0.0001, 1, 'm³'),
  vesselUncertainty: within(0, 0.2, '(share of the volume)'),
  clockResolution: within(0.0001, 1, 's'),
  reaction: within(0, 1, 's'),
  note: text(4000),
  typed: Typed,
}
export const Trial = z.object({ ...rowBase, modelId: Id, ...trialFields })
export const TrialCreate = z.object({
  id: Id,
  modelId: Id,
  specimenId: trialFields.specimenId.default(null),
  hookupId: trialFields.hookupId.default(null),
  state: trialFields.state.default('empty'),
  lift: trialFields.lift.default(0),
  waterTemperature: trialFields.waterTemperature.default(22),
  mainsFrequency: Mains.default(50),
  vesselVolume: trialFields.vesselVolume.default(0.005),
  vesselUncertainty: trialFields.vesselUncertainty.default(0.01),
  clockResolution: trialFields.clockResolution.default(0.01),
  reaction: trialFields.reaction.default(0.05),
  note: trialFields.note.default(''),
  typed: Typed.default({}),
})
export const TrialPatch = z.object(trialFields).partial()

const readingFields = {
  volume: within(0.0001, 1, 'm³'),
  seconds: within(0.5, 86400, 's'),
}
export const Reading = z.object({ ...rowBase, trialId: Id, takenAt: z.string(), ...readingFields })
export const ReadingCreate = z.object({ id: Id, trialId: Id, takenAt: z.iso.datetime(), ...readingFields })
export const ReadingPatch = z.object(readingFields).partial()

export type Model = z.infer<typeof Model>
export type Claim = z.infer<typeof Claim>
export type Specimen = z.infer<typeof Specimen>
export type Hookup = z.infer<typeof Hookup>
export type Trial = z.infer<typeof Trial>
export type Reading = z.infer<typeof Reading>

/** Everything the dossier of a model stands on. */
export const Dossier = z.object({
  model: Model,
  claims: z.array(Claim),
  specimens: z.array(Specimen),
  hookups: z.array(Hookup),
  trials: z.array(Trial),
  readings: z.array(Reading),
  contents: z.array(ContentItem),
  parts: z.array(Part),
  photos: z.array(Photo),
  bodies: z.array(Body),
  chambers: z.array(Chamber),
})
export type Dossier = z.infer<typeof Dossier>

/** One row of the shelf. */
export const ShelfRow = z.object({
  model: Model,
  ratedFlow: z.number().nullable(),
  flow: z.number().nullable(),
  flowUncertainty: z.number().nullable(),
  basis: z.enum(['measured', 'measured-bare', 'computed-fit', 'computed-label', 'rule', 'none']),
  supportedMax: z.number().nullable(),
  claimedMax: z.number().nullable(),
  overclaim: z.number().nullable(),
  level: z.enum(['open', 'holds', 'stretched', 'overclaimed', 'far-overclaimed']),
  claimsDone: z.number(),
  benchDone: z.number(),
  next: z.string(),
})
export type ShelfRow = z.infer<typeof ShelfRow>
export const SHELF_SORTS = ['name', 'updated', 'rated-flow'] as const
export const ShelfQuery = z.object({
  search: z.string().max(80).optional(),
  kind: FilterKind.optional(),
  sort: z.enum(SHELF_SORTS).default('name'),
  cursor: z.string().max(400).optional(),
  limit: z.coerce.number().int().min(1).max(100).default(50),
})
export const ShelfPage = z.object({ items: z.array(ShelfRow), next: z.string().nullable(), total: z.int() })
export type ShelfPage = z.infer<typeof ShelfPage>
