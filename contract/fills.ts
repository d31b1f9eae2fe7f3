import { FILL_BASES, MEASURES } from '@ypsometer/core/fills/place'
import { OUTLET_AIMS, OUTLET_KINDS } from '@ypsometer/core/hydraulics/jets'
import { MEDIUM_FORMS, MEDIUM_JOBS } from '@ypsometer/core/media/medium'
import { CHEMICAL_PLACES, SCHOOLS } from '@ypsometer/core/path/rules/types'
import { CAPACITY_RULE, CAPACITY_SCHOOLS } from '@ypsometer/core/tanks/rule'
import { CRITERIA, type Criterion } from '@ypsometer/core/advice/criteria'
import { ADVICE_RULE, EXTRAS } from '@ypsometer/core/advice/rule'
import { UPKEEP_RULE } from '@ypsometer/core/upkeep/rule'
import { z } from 'zod'
import { belongsTo, currency, Day, minor, name, refersTo, text, Typed, within } from './common'
import { resource } from './resource'
import { Upkeep } from './visits'

/** A medium of the library; `generic` ones ship with the app. */
export const media = resource({
  path: 'media',
  singular: 'medium',
  servedIn: 'list',
  immutable: {},
  fields: {
    name: name('The medium’s name'),
    form: z.enum(MEDIUM_FORMS).default('sintered'),
    job: z.enum(MEDIUM_JOBS).default('biological'),
    poresPerInch: within(5, 60, 'pores per inch').nullable().default(null),
    grain: within(1e-5, 0.1, 'm').nullable().default(null),
    fibre: within(1e-6, 0.005, 'm').nullable().default(null),
    solidity: within(0.005, 0.4, '(share)').nullable().default(null),
    voidage: within(0.2, 0.95, '(share)').nullable().default(null),
    bulkDensity: within(1, 5000, 'kg/m³').default(500),
    wetDensity: within(1, 6000, 'kg/m³').nullable().default(null),
    permeability: within(1e-14, 1e-3, 'm²').nullable().default(null),
    permeabilityLow: within(0, 1e-3, 'm²').nullable().default(null),
    permeabilityHigh: within(0, 1, 'm²').nullable().default(null),
    inertia: within(0, 1e7, '1/m').nullable().default(null),
    geometricSurface: within(0, 1e8, 'm²/m³').nullable().default(null),
    effectiveSurface: within(0, 1e8, 'm²/m³').nullable().default(null),
    claimedSurface: within(0, 1e9, 'm²/m³').nullable().default(null),
    /** Relative half-width (95 %) of the effective surface; null: as its form usually is known. */
    surfaceBand: within(0, 1, '(share)').nullable().default(null),
    /** Share of its surface that works between rinses, with its relative half-width; null: as its job usually is. */
    workingShare: within(0, 1, '(share)').nullable().default(null),
    workingBand: within(0, 1, '(share)').nullable().default(null),
    packVolume: within(1e-6, 1, 'm³').nullable().default(null),
    packMass: within(0.001, 200, 'kg').nullable().default(null),
    sheetThickness: within(0.001, 0.3, 'm').nullable().default(null),
    priceMinor: minor.nullable().default(null),
    currency: currency.nullable().default(null),
    pricedOn: Day.nullable().default(null),
    lifeDays: within(1, 20000, 'days').nullable().default(null),
    source: text(400).default(''),
    note: text(2000).default(''),
    typed: Typed.default({}),
  },
  serverOnly: { generic: z.boolean().default(false) },
})
export const MediumList = z.object({ items: z.array(media.Row) })

/** A layer of a fill; see `FillLayer` in the core. Amounts in m, m³, kg or packs. */
export const Layer = z.object({
  id: name('An id', 40),
  chamberId: refersTo('chambers'),
  mediumId: refersTo('media'),
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
  .readonly()

export const fills = resource({
  path: 'fills',
  singular: 'media setup',
  servedIn: 'dossier',
  immutable: { modelId: belongsTo('models') },
  fields: {
    name: name('A name for the media setup'),
    basis: z.enum(FILL_BASES).default('variant'),
    note: text(2000).default(''),
    layers: Layers.default([]),
  },
})

const Schools = z
  .array(z.enum(CAPACITY_SCHOOLS))
  .max(CAPACITY_SCHOOLS.length, `at most ${CAPACITY_SCHOOLS.length} sizing rules`)
  .refine((list) => new Set(list).size === list.length, 'each sizing rule once')
  .readonly()
const Capacity = z.object({
  order: Schools,
  bind: Schools,
  turnoverFloor: within(0.05, 50, 'an hour'),
  /** Does a most of turnovers speak at the low end? */
  mostTurnover: z.boolean().optional(),
  /** Weight of each school in how sure a verdict is. */
  weights: z.partialRecord(z.enum(CAPACITY_SCHOOLS), within(0, 100, '(weight)')).optional(),
})

const weight = within(0, 100, '(weight)')
/** How a house advises; see `AdviceRule` in the core. */
const Advice = z.object({
  weights: z.object(Object.fromEntries(CRITERIA.map((c) => [c, weight])) as Record<Criterion, typeof weight>),
  twoFrom: within(0.01, 20, 'm³').nullable(),
  twoWhenCrowded: z.boolean(),
  years: within(1, 30, 'years').int('whole years'),
  currency,
  tariffMinor: within(0, 1e6, 'in minor units').nullable(),
  tariffOn: Day.nullable().optional(),
  minuteMinor: within(0, 1e6, 'in minor units').nullable(),
  dearPriceMinor: within(1, 1e9, 'in minor units'),
  dearYearMinor: within(1, 1e9, 'in minor units'),
  addsSponge: z.boolean(),
  cutFloss: z.boolean(),
  /** Prices of what is needed besides (minor units of the currency), and what other currencies are worth in it. */
  extras: z.partialRecord(z.enum(EXTRAS), minor).optional(),
  rates: z.record(currency, z.object({ rate: within(1e-6, 1e6, '(rate)'), on: Day })).optional(),
})

export const houseRules = resource({
  path: 'house-rules',
  singular: 'house rule',
  servedIn: 'list',
  immutable: {},
  fields: {
    name: name('A name for the house rules'),
    school: z.enum(SCHOOLS).default('strain-first'),
    reasoning: text(2000).default(''),
    chemical: z.enum(CHEMICAL_PLACES).default('none'),
    /** Which school of capacity leads, which others bind, and the minimum circulation. */
    capacity: Capacity.default(CAPACITY_RULE),
    /** Weights of advice, and what things cost here. */
    advice: Advice.default(ADVICE_RULE),
    /** How filters are kept, and when they are looked at again. */
    upkeep: Upkeep.default(UPKEEP_RULE),
    /** Differences from the school, by the rule’s id. */
    rules: z
      .record(z.string().max(40), z.object({ on: z.boolean(), weight: within(0, 10, '(weight)') }).partial())
      .default({}),
    /** The one that holds where a dossier does not choose its own. */
    chosen: z.boolean().default(false),
  },
  serverOnly: { shipped: z.boolean().default(false) },
})
export const HouseRuleList = z.object({ items: z.array(houseRules.Row) })

/** Fittings on a hose run: another filter, a UV-C lamp, an inline heater. */
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
      /** Price of a new lamp. */
      price: z.object({ minor, currency, on: Day.nullable().optional() }).optional(),
    }),
    heater: z.object({ watts: within(1, 5000, 'W'), length: within(0.01, 2, 'm').optional() }),
    outlets: z
      .array(
        z.object({
          id: name('An id', 40),
          name: name('A name for the outlet'),
          kind: z.enum(OUTLET_KINDS),
          aim: z.enum(OUTLET_AIMS),
          depth: within(0, 3, 'm'),
          diameter: within(0.0005, 0.3, 'm'),
          holes: z.int('a whole number of holes').min(1, 'at least 1').max(500, 'at most 500'),
          spacing: within(0.001, 1, 'm'),
          width: within(0.005, 3, 'm'),
        }),
      )
      .max(12, 'at most 12 outlets'),
    inlet: z.object({ openArea: within(1e-6, 1, 'm²'), sponge: z.boolean() }),
  })
  .partial()
  .strict()

export type Medium = z.infer<typeof media.Row>
export type Layer = z.infer<typeof Layer>
export type Fill = z.infer<typeof fills.Row>
export type HouseRule = z.infer<typeof houseRules.Row>
export type Fitted = z.infer<typeof Fitted>
