import { GAP_IDS } from '@ypsometer/core/judging/gaps'
import { SEGMENT_LIMITS } from '@ypsometer/core/hydraulics/segments'
import { MAX_LOG } from '@ypsometer/core/bench/logs'
import { LONGEST_WATCH, type SetupField } from '@ypsometer/core/bench/shape'
import { SETUP_FIELDS, TRIAL_KINDS, type TrialSetup as CoreSetup } from '@ypsometer/core/trials/readings'
import { FITTING_IDS } from '@ypsometer/core/hydraulics/tables'
import { CLAIM_QUANTITIES, FILL_STATES, MASS_SOURCES } from '@ypsometer/core/trials/records'
import { FILTER_KINDS } from '@ypsometer/core/kinds/filters'
import { FLOW_BASES } from '@ypsometer/core/judging/basis'
import { PRIMINGS } from '@ypsometer/core/parts/vocabulary'
import { NOT_RECORDED, OBTAINED } from '@ypsometer/core/review/disclosure'
import { z } from 'zod'
import { belongsTo, currency, Day, minor, moment, name, refersTo, text, Typed, within } from './common'
import { resource } from './resource'
import { Figure } from './figures'
import { Fitted } from './fills'
import { KINSHIPS, OFFER_KINDS } from './lists'

export const FilterKind = z.enum(FILTER_KINDS)
export const Mains = z.union([z.literal(50), z.literal(60)], { error: '50 or 60 Hz' })

const Offers = z
  .array(
    z.object({
      kind: z.enum(OFFER_KINDS),
      minor,
      currency,
      on: Day.nullable(),
    }),
  )
  .max(10, 'at most 10 offers')
  .readonly()

/** A figure or part found wrong later: dated and kept; what was published from it is provisional. */
const Errata = z
  .array(z.object({ id: name('An id', 40), on: Day, about: text(120), text: text(2000) }))
  .max(60, 'at most 60 corrections')
  .readonly()

export const models = resource({
  path: 'models',
  singular: 'model',
  servedIn: 'shelf',
  immutable: {},
  fields: {
    maker: name('The maker'),
    name: name('The model’s name'),
    kind: FilterKind,
    mainsFrequency: Mains.default(50),
    /** How it is primed; null while nobody has said. */
    primedBy: z.enum(PRIMINGS).nullable().default(null),
    /** The house rule this review holds to; null: the chosen one. */
    houseRuleId: refersTo('house-rules').nullable().default(null),
    /** The model it is a sibling of (same body, other motor or trays), or a later generation of. */
    kinId: refersTo('models').nullable().default(null),
    kinship: z.enum(KINSHIPS).default('sibling'),
    /** Offers besides its list price. */
    offers: Offers.default([]),
    errata: Errata.default([]),
    note: text(4000).default(''),
  },
})

/** Printed figures: numbers in SI, money in minor units, or words. */
export const CLAIM_WORDS = ['contents', 'guarantee'] as const
export const CLAIM_KINDS = [...CLAIM_QUANTITIES, ...CLAIM_WORDS, 'price'] as const
export const ClaimQuantity = z.enum(CLAIM_KINDS)
export type ClaimQuantityName = z.infer<typeof ClaimQuantity>

export const claims = resource({
  path: 'claims',
  singular: 'claim',
  servedIn: 'dossier',
  immutable: { modelId: belongsTo('models'), quantity: ClaimQuantity },
  fields: {
    value: within(0, 1e6, 'in SI').nullable().default(null),
    words: text(2000).nullable().default(null),
    amountMinor: minor.nullable().default(null),
    currency: currency.nullable().default(null),
    /** The day a price was noted on. */
    pricedOn: Day.nullable().default(null),
    qualifier: text(80).default(''),
    mainsFrequency: Mains.nullable().default(null),
    printedOn: text(80).default(''),
    typed: Typed.default({}),
  },
})

export const SPECIMEN_STATES = ['new', 'used'] as const
export { OBTAINED }
const answered = z.boolean().nullable()
/** Questions a reader may ask; null: not recorded. */
export const Disclosing = z.object({
  paid: answered,
  signed: answered,
  affiliate: answered,
  free: answered,
  representative: answered,
  previewed: answered,
})
export const specimens = resource({
  path: 'specimens',
  singular: 'unit',
  servedIn: 'dossier',
  immutable: { modelId: belongsTo('models') },
  fields: {
    label: text(80).default(''),
    /** How the unit came; null while nobody has said. */
    obtained: z.enum(OBTAINED).nullable().default(null),
    obtainedOn: Day.nullable().default(null),
    state: z.enum(SPECIMEN_STATES).default('new'),
    monthsInUse: within(0, 600, 'months').nullable().default(null),
    serial: text(80).default(''),
    condition: text(400).default(''),
    checks: z.record(z.string().max(40), z.boolean()).default({}),
    mediaMass: within(0, 200, 'kg').nullable().default(null),
    /** Source of this weight: weighed, or taken from somewhere. Only a weighed one is a measurement. */
    mediaMassBy: z.enum(MASS_SOURCES).default('estimate'),
    disclosure: Disclosing.default(NOT_RECORDED),
    note: text(4000).default(''),
    typed: Typed.default({}),
  },
})

/** A number within the limits that the core computes with. */
const limited = (field: keyof typeof SEGMENT_LIMITS) => {
  const { min, max, unit } = SEGMENT_LIMITS[field]
  return within(min, max, unit)
}
const whole = (field: 'count' | 'holes') => limited(field).int('a whole number')
/** A piece of the hose run, in flow order. Lengths in m. */
export const Segment = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('hose'),
    id: name('An id', 40),
    label: name('A name'),
    length: limited('length'),
    diameter: limited('diameter'),
    roughness: within(0, 0.005, 'm'),
    clear: z.boolean().optional(),
  }),
  z.object({
    kind: z.literal('fitting'),
    id: name('An id', 40),
    label: name('A name'),
    lossCoefficient: limited('lossCoefficient'),
    diameter: limited('diameter'),
    count: whole('count'),
    /** Its id in the catalogue of fittings; null when nobody has said. */
    catalogue: z.enum(FITTING_IDS).nullable().optional(),
  }),
  z.object({
    kind: z.literal('spray-bar'),
    id: name('An id', 40),
    label: name('A name'),
    holes: whole('holes'),
    holeDiameter: limited('holeDiameter'),
    dischargeCoefficient: limited('dischargeCoefficient'),
  }),
])
export const Segments = z
  .array(Segment)
  .max(60, 'at most 60 pieces')
  .refine((list) => new Set(list.map((s) => s.id)).size === list.length, 'each piece with an id of its own')
  .readonly()

export const hookups = resource({
  path: 'hookups',
  singular: 'plumbing',
  servedIn: 'dossier',
  immutable: { modelId: belongsTo('models') },
  fields: {
    name: name('A name for the plumbing'),
    outletAboveWater: within(-5, 10, 'm').default(-0.05),
    sourceBelowWater: within(0, 10, 'm').default(0),
    bodyBelowWater: within(-5, 10, 'm').default(0),
    segments: Segments.default([]),
    fitted: Fitted.default({}),
    typed: Typed.default({}),
  },
})

/** The schema of a field that a kind of trial declares for its set-up. */
function setupField(f: SetupField) {
  switch (f.is) {
    case 'number':
      return within(f.min, f.max, f.unit)
    case 'text':
      return text(f.max)
    case 'texts':
      return z.array(name('A point’s name', f.each)).max(f.most, `at most ${f.most} points`)
    case 'choice':
      return z.enum(f.of)
  }
}
/** Declarations of the kinds of trial, as schemas of the types that the core reads. */
const declared = Object.fromEntries(
  Object.entries(SETUP_FIELDS).map(([k, f]) => [k, setupField(f)]),
) as unknown as {
  [K in keyof Omit<CoreSetup, 'airLine' | 'currency'>]-?: z.ZodType<NonNullable<CoreSetup[K]>>
}
/** Setup of a trial of some kind, SI; see `TrialSetup` in the core. */
export const TrialSetup = z
  .object({
    ...declared,
    currency,
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

export const TrialKindName = z.enum(TRIAL_KINDS)
export const trials = resource({
  path: 'trials',
  singular: 'test',
  servedIn: 'dossier',
  immutable: { modelId: belongsTo('models'), kind: TrialKindName.default('vessel') },
  fields: {
    specimenId: refersTo('specimens').nullable().default(null),
    hookupId: refersTo('hookups').nullable().default(null),
    state: z.enum(FILL_STATES).default('empty'),
    lift: within(0, 20, 'm').default(0),
    waterTemperature: within(0, 40, '°C').default(22),
    /** Practical salinity: 0 fresh, about 35 the sea. */
    salinity: within(0, 42, '(practical salinity)').default(0),
    mainsFrequency: Mains.default(50),
    vesselVolume: within(0.0001, 1, 'm³').default(0.005),
    vesselUncertainty: within(0, 0.2, '(share of the volume)').default(0.01),
    clockResolution: within(0.0001, 1, 's').default(0.01),
    reaction: within(0, 1, 's').default(0.05),
    daysInUse: within(0, 20000, 'days').nullable().default(null),
    valve: within(0, 1, '(share open)').default(1),
    outlet: text(80).default(''),
    mainsVoltage: within(1, 500, 'V').nullable().default(null),
    setup: TrialSetup.default({}),
    /** The fill that was in the body; null: as its state says. */
    fillId: refersTo('fills').nullable().default(null),
    outReason: name('A reason', 200).nullable().default(null),
    note: text(4000).default(''),
    typed: Typed.default({}),
  },
})

export const readings = resource({
  path: 'readings',
  singular: 'run',
  servedIn: 'dossier',
  orderedBy: 'takenAt',
  immutable: { trialId: belongsTo('trials'), kind: TrialKindName.default('vessel'), takenAt: moment },
  fields: {
    volume: within(1e-6, 10, 'm³').nullable().default(null),
    seconds: within(0, LONGEST_WATCH, 's').nullable().default(null),
    value: within(0, 1e9, '(in the unit of its kind)').nullable().default(null),
    series: text(40).default(''),
    outcome: text(20).default(''),
    note: text(400).default(''),
    /** The instrument it was taken from, empty when by hand. */
    source: text(120).default(''),
  },
})

const points = (what: string) =>
  z
    .array(z.number({ error: `numbers of ${what}` }))
    .min(1, 'at least one point')
    .max(MAX_LOG, `at most ${MAX_LOG} points`)
/** A long series of a trial, summed up; its points are read apart. Times in s from the start. */
export const logs = resource({
  path: 'logs',
  singular: 'log',
  servedIn: 'dossier',
  orderedBy: 'startedAt',
  immutable: { trialId: belongsTo('trials'), startedAt: moment, source: text(120).default('') },
  fields: { series: text(40).default(''), note: text(400).default('') },
  serverOnly: {
    n: z.int(),
    span: z.number(),
    mean: z.number(),
    deviation: z.number(),
    energyMean: z.number(),
    min: z.number(),
    max: z.number(),
  },
  createOnly: { times: points('seconds'), values: points('the quantity') },
})
/** `GET /logs/:id/points`: those between two times (s), at most so many with every peak kept; unless said, all. */
export const LogWindow = z.object({
  most: z.coerce.number().int().min(10).max(MAX_LOG).optional(),
  from: z.coerce.number().min(0).optional(),
  to: z.coerce.number().min(0).optional(),
})
export const LogPoints = z.object({ times: z.array(z.number()), values: z.array(z.number()) })

/** `POST /imports`: trials, readings and logs at once, all or nothing. */
export const ImportRequest = z.strictObject({
  trials: z.array(trials.Create).max(200, 'at most 200 tests').default([]),
  readings: z.array(readings.Create).max(5000, 'at most 5000 readings').default([]),
  logs: z.array(logs.Create).max(40, 'at most 40 logs').default([]),
})
export const ImportAnswer = z.object({ trials: z.int(), readings: z.int(), logs: z.int() })

export type Model = z.infer<typeof models.Row>
export type Claim = z.infer<typeof claims.Row>
export type Specimen = z.infer<typeof specimens.Row>
export type Hookup = z.infer<typeof hookups.Row>
export type Trial = z.infer<typeof trials.Row>
export type Reading = z.infer<typeof readings.Row>
export type Log = z.infer<typeof logs.Row>
export type LogPoints = z.infer<typeof LogPoints>
export type ImportRequest = z.input<typeof ImportRequest>
export type Segment = z.infer<typeof Segment>
export type TrialSetup = z.infer<typeof TrialSetup>

/** One row of the shelf. */
export const ShelfRow = z.object({
  model: models.Row,
  ratedFlow: Figure.nullable(),
  flow: Figure.nullable(),
  basis: z.enum(FLOW_BASES),
  supportedMax: Figure.nullable(),
  claimedMax: Figure.nullable(),
  overclaim: Figure.nullable(),
  level: z.enum(['open', 'holds', 'stretched', 'overclaimed', 'far-overclaimed']),
  borderline: z.boolean(),
  /** The schools of capacity disagree: what each says, the leading one first; null where they agree. */
  split: z.string().nullable(),
  claimsDone: z.number(),
  benchDone: z.number(),
  /** Why its numbers could not be worked out; null when they could. */
  problem: z.string().nullable(),
  /** The next gap; null when only the verdict is left to read. */
  next: z.string().nullable(),
  /** What is missing of its verdict, whatever would change it most first. */
  missing: z.array(z.enum(GAP_IDS)).default([]),
  /** Its grounds have moved since (rules, media, label bias): it is being worked out anew. */
  old: z.boolean(),
})
export type ShelfRow = z.infer<typeof ShelfRow>
/** `GET /label-bias`: what pumps give against their labels, as this bench's own models show it. */
export const LabelBias = z.object({
  median: z.number(),
  low: z.number(),
  high: z.number(),
  n: z.int(),
  words: z.string(),
})
export const SHELF_SORTS = ['name', 'updated', 'rated-flow', 'claim'] as const
export const SHELF_STANDS = ['split', 'agreed'] as const
export const ShelfQuery = z.object({
  search: z.string().max(80).optional(),
  kind: FilterKind.optional(),
  sort: z.enum(SHELF_SORTS).default('name'),
  /** Only those whose schools disagree on the claim, or only those whose schools agree. */
  stands: z.enum(SHELF_STANDS).optional(),
  /** Only those that lack this. */
  missing: z.enum(GAP_IDS).optional(),
  cursor: z.string().max(400).optional(),
  limit: z.coerce.number().int().min(1).max(100).default(50),
})
export const ShelfPage = z.object({ items: z.array(ShelfRow), next: z.string().nullable(), total: z.int() })
export type ShelfPage = z.infer<typeof ShelfPage>
