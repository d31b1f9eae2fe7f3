import {
  CLARITIES,
  CLEANED_IN,
  DIRT,
  HOLDS,
  HOSE_INSIDES,
  SEEPS,
  VISIT_STAGES,
} from '@ypsometer/core/visits/record'
import { FILTER_KINDS } from '@ypsometer/core/kinds/filters'
import { MEDIUM_FORMS, MEDIUM_JOBS } from '@ypsometer/core/media/medium'
import { RINSE_SCHOOLS, TASKS } from '@ypsometer/core/upkeep/rule'
import { SHORTEST_RUN } from '@ypsometer/core/bench/shape'
import { z } from 'zod'
import { belongsTo, Day, Id, refersTo, text, Typed, within } from './common'
import { resource } from './resource'

const TimedRuns = z
  .array(z.object({ volume: within(1e-5, 10, 'm³'), seconds: within(SHORTEST_RUN, 86400, 's') }))
  .max(20, 'at most 20 runs')
  .readonly()
const name40 = z.string().min(1, 'a name').max(60, 'at most 60 characters')

/** A visit to a unit in a tank; see `VisitRecord` in the core. Null for what was not looked at. */
export const visits = resource({
  path: 'visits',
  singular: 'check-up',
  servedIn: 'dossier',
  orderedBy: 'on',
  immutable: { modelId: belongsTo('models') },
  fields: {
    tankId: refersTo('tanks').nullable().default(null),
    specimenId: refersTo('specimens').nullable().default(null),
    /** The fill it runs with. */
    fillId: refersTo('fills').nullable().default(null),
    on: Day,
    stage: z.enum(VISIT_STAGES).default('visit'),
    seeping: z.array(z.enum(SEEPS)).max(SEEPS.length, 'each place once').readonly().nullable().default(null),
    runsBefore: TimedRuns.default([]),
    noise: within(0, 140, 'dB').nullable().default(null),
    watts: within(0, 5000, 'W').nullable().default(null),
    holding: z.enum(HOLDS).nullable().default(null),
    /** How dirty each layer was, by the layer’s id. */
    dirt: z.record(z.string().max(60), z.enum(DIRT)).default({}),
    /** Findings on parts, by the part’s id. */
    parts: z
      .record(z.string().max(60), z.array(z.string().max(40)).max(12, 'at most 12 findings'))
      .default({}),
    hoses: z.enum(HOSE_INSIDES).nullable().default(null),
    ammonia: within(0, 0.1, 'kg/m³').nullable().default(null),
    nitrite: within(0, 0.1, 'kg/m³').nullable().default(null),
    nitrate: within(0, 1, 'kg/m³').nullable().default(null),
    /** A conditioner that binds ammonia was used before the test. */
    binder: z.boolean().default(false),
    clarity: z.enum(CLARITIES).nullable().default(null),
    cleaned: z
      .array(z.object({ what: name40, how: z.enum(CLEANED_IN) }))
      .max(30, 'at most 30 things')
      .readonly()
      .default([]),
    failed: z
      .array(z.object({ part: name40, how: text(200) }))
      .max(12, 'at most 12 failures')
      .readonly()
      .default([]),
    minutes: within(0, 1440, 'min').nullable().default(null),
    runsAfter: TimedRuns.default([]),
    note: text(4000).default(''),
    typed: Typed.default({}),
  },
})
export type Visit = z.infer<typeof visits.Row>

/** `GET /water-tests`: what visits found in the water of tanks, page after page; see `WaterTest` in the core. */
export const WaterTestPage = z.object({
  items: z.array(
    z.object({
      tankId: Id,
      on: Day,
      ammonia: z.number().nullable(),
      nitrite: z.number().nullable(),
      binder: z.boolean(),
    }),
  ),
  next: Id.nullable(),
})
export type WaterTestPage = z.infer<typeof WaterTestPage>

export const TICK_STATES = ['done', 'skipped', 'moved'] as const
/** One due day of a piece of upkeep that was done, skipped or moved. */
export const ticks = resource({
  path: 'ticks',
  singular: 'maintenance task',
  servedIn: 'list',
  immutable: { tankId: belongsTo('tanks'), filterId: name40, task: z.enum(TASKS), due: Day },
  fields: {
    state: z.enum(TICK_STATES).default('done'),
    /** The day it was done on, or moved to. */
    on: Day,
    minutes: within(0, 1440, 'min').nullable().default(null),
    note: text(400).default(''),
    typed: Typed.default({}),
  },
})
export type Tick = z.infer<typeof ticks.Row>

/** How a house keeps its filters; see `UpkeepRule` in the core. */
export const Upkeep = z.object({
  by: z.enum(['date', 'flow']),
  fall: within(0.05, 0.9, '(share)'),
  rinse: z.enum(RINSE_SCHOOLS),
  visits: z
    .array(within(1, 3650, 'days'))
    .max(20, 'at most 20 check-ups')
    .readonly(),
  every: z.partialRecord(z.enum(TASKS), within(1, 3650, 'days')),
})

/** `GET /upkeep/filters`: every filter of every tank as its upkeep asks for it; see `KeptFilter` in the core. */
export const KeptFilterList = z.object({
  items: z.array(
    z.object({
      id: z.string(),
      tankId: Id,
      label: z.string(),
      kind: z.enum(FILTER_KINDS),
      since: Day.nullable(),
      media: z.array(z.object({ form: z.enum(MEDIUM_FORMS), job: z.enum(MEDIUM_JOBS) })).readonly(),
      prefilter: z.boolean(),
      lamp: z.boolean(),
      forecast: z.number().nullable(),
    }),
  ),
})
