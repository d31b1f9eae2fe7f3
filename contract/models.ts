import { MAX_LOG, TRIAL_KINDS } from '@ypsometer/core/bench'
import { CLAIM_QUANTITIES, FILL_STATES, FILTER_KINDS } from '@ypsometer/core/judging'
import { z } from 'zod'
import { Body, Chamber, ContentItem, Part, Photo } from './teardown'
import { Id, name, rowBase, text, Typed, within } from './common'
import { Figure } from './figures'
import { Fill, Fitted } from './fills'

export const FilterKind = z.enum(FILTER_KINDS)
export const Mains = z.union([z.literal(50), z.literal(60)], { error: '50 or 60 Hz' })

const modelFields = {
  maker: name('The maker'),
  name: name('The model’s name'),
  kind: FilterKind,
  mainsFrequency: Mains,
  /** The house rule this review holds to; null: the chosen one. */
  houseRuleId: Id.nullable(),
  note: text(4000),
}
export const Model = z.object({ ...rowBase, ...modelFields })
export const ModelCreate = z.object({
  id: Id,
  maker: modelFields.maker,
  name: modelFields.name,
  kind: modelFields.kind,
  mainsFrequency: Mains.default(50),
  houseRuleId: modelFields.houseRuleId.default(null),
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
  fitted: Fitted,
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
  fitted: Fitted.default({}),
  typed: Typed.default({}),
})
export const HookupPatch = z.object(hookupFields).partial()

/** What a trial of some kind is set up with, SI; see `TrialSetup` in the core. */
export const TrialSetup = z
  .object({
    scale: within(0, 10, 'kg'),
    kFactor: within(1, 1e12, 'pulses per m³'),
    kUncertainty: within(0, 0.5, '(share)'),
    relative: within(0, 0.5, '(share)'),
    levelUncertainty: within(0, 20, 'dB'),
    pricePerKwhMinor: within(0, 1e6, 'in the currency’s small unit'),
    currency: z.string().regex(/^[A-Z]{3}$/, 'a three-letter currency code such as EUR'),
    distance: within(0.01, 100, 'm'),
    position: text(120),
    points: z.array(name('A point’s name', 40)).max(12, 'at most 12 points'),
    unit: text(20),
    volume: within(1e-4, 100, 'm³'),
    riserDiameter: within(0.002, 0.2, 'm'),
    submergence: within(0.005, 5, 'm'),
    stone: text(80),
    load: text(120),
    /** One air pump over many outlets; heads as metres of water, flow in m³/s. */
    airLine: z.object({
      shutOffHead: within(0.05, 20, 'm of water'),
      maxFlow: within(1e-7, 0.01, 'm³/s'),
      outlets: z
        .array(
          z.object({
            label: name('A name', 40),
            depth: within(0, 5, 'm'),
            stoneHead: within(0, 5, 'm of water at 1 L/min'),
            open: within(0, 1, '(share)'),
          }),
        )
        .max(24, 'at most 24 outlets'),
    }),
  })
  .partial()
  .strict()

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
  daysInUse: within(0, 20000, 'days').nullable(),
  valve: within(0, 1, '(share open)'),
  outlet: text(80),
  mainsVoltage: within(1, 500, 'V').nullable(),
  setup: TrialSetup,
  /** The fill that was in the body; null: as its state says. */
  fillId: Id.nullable(),
  outReason: name('A reason', 200).nullable(),
  note: text(4000),
  typed: Typed,
}
export const TrialKindName = z.enum(TRIAL_KINDS)
export const Trial = z.object({ ...rowBase, modelId: Id, kind: TrialKindName, ...trialFields })
export const TrialCreate = z.object({
  id: Id,
  modelId: Id,
  kind: TrialKindName.default('vessel'),
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
  daysInUse: trialFields.daysInUse.default(null),
  valve: trialFields.valve.default(1),
  outlet: trialFields.outlet.default(''),
  mainsVoltage: trialFields.mainsVoltage.default(null),
  setup: TrialSetup.default({}),
  fillId: trialFields.fillId.default(null),
  outReason: trialFields.outReason.default(null),
  note: trialFields.note.default(''),
  typed: Typed.default({}),
})
export const TrialPatch = z.object(trialFields).partial()

const readingFields = {
  volume: within(1e-6, 10, 'm³').nullable(),
  seconds: within(0, 1e6, 's').nullable(),
  value: within(0, 1e9, '(in the unit of its kind)').nullable(),
  series: text(40),
  outcome: text(20),
  note: text(400),
  /** The instrument it was taken from, empty when by hand. */
  source: text(120),
}
export const Reading = z.object({
  ...rowBase,
  trialId: Id,
  kind: TrialKindName,
  takenAt: z.string(),
  ...readingFields,
})
export const ReadingCreate = z.object({
  id: Id,
  trialId: Id,
  kind: TrialKindName.default('vessel'),
  takenAt: z.iso.datetime(),
  volume: readingFields.volume.default(null),
  seconds: readingFields.seconds.default(null),
  value: readingFields.value.default(null),
  series: readingFields.series.default(''),
  outcome: readingFields.outcome.default(''),
  note: readingFields.note.default(''),
  source: readingFields.source.default(''),
})
export const ReadingPatch = z.object(readingFields).partial()

const points = (what: string) =>
  z
    .array(z.number({ error: `numbers of ${what}` }))
    .min(1, 'at least one point')
    .max(MAX_LOG, `at most ${MAX_LOG} points`)
const logFields = { series: text(40), note: text(400) }
/** A long series of a trial, summed up; its points are read apart. Times in s from the start. */
export const Log = z.object({
  ...rowBase,
  trialId: Id,
  startedAt: z.string(),
  source: text(120),
  ...logFields,
  n: z.int(),
  span: z.number(),
  mean: z.number(),
  deviation: z.number(),
  energyMean: z.number(),
  min: z.number(),
  max: z.number(),
})
export const LogCreate = z.object({
  id: Id,
  trialId: Id,
  startedAt: z.iso.datetime(),
  series: logFields.series.default(''),
  source: text(120).default(''),
  note: logFields.note.default(''),
  times: points('seconds'),
  values: points('the quantity'),
})
export const LogPatch = z.object(logFields).partial()
export const LogPoints = z.object({ times: z.array(z.number()), values: z.array(z.number()) })

/** `POST /imports`: trials, readings and logs at once, all or nothing. */
export const ImportRequest = z.object({
  trials: z.array(TrialCreate).max(200, 'at most 200 trials').default([]),
  readings: z.array(ReadingCreate).max(5000, 'at most 5000 readings').default([]),
  logs: z.array(LogCreate).max(40, 'at most 40 logs').default([]),
})
export const ImportAnswer = z.object({ trials: z.int(), readings: z.int(), logs: z.int() })

export type Model = z.infer<typeof Model>
export type Claim = z.infer<typeof Claim>
export type Specimen = z.infer<typeof Specimen>
export type Hookup = z.infer<typeof Hookup>
export type Trial = z.infer<typeof Trial>
export type Reading = z.infer<typeof Reading>
export type Log = z.infer<typeof Log>
export type LogPoints = z.infer<typeof LogPoints>
export type ImportRequest = z.input<typeof ImportRequest>
export type TrialSetup = z.infer<typeof TrialSetup>

/** Everything the dossier of a model stands on. */
export const Dossier = z.object({
  model: Model,
  claims: z.array(Claim),
  specimens: z.array(Specimen),
  hookups: z.array(Hookup),
  trials: z.array(Trial),
  readings: z.array(Reading),
  logs: z.array(Log),
  contents: z.array(ContentItem),
  parts: z.array(Part),
  photos: z.array(Photo),
  bodies: z.array(Body),
  chambers: z.array(Chamber),
  fills: z.array(Fill),
})
export type Dossier = z.infer<typeof Dossier>

/** One row of the shelf. */
export const ShelfRow = z.object({
  model: Model,
  ratedFlow: Figure.nullable(),
  flow: Figure.nullable(),
  basis: z.enum(['measured', 'measured-bare', 'computed-fit', 'computed-label', 'rule', 'none']),
  supportedMax: Figure.nullable(),
  claimedMax: Figure.nullable(),
  overclaim: Figure.nullable(),
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
