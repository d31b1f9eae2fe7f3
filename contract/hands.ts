import { FILTER_KINDS } from '@ypsometer/core/kinds/filters'
import { CHANGE_WAYS, OUTCOMES, STEP_STATES, SYMPTOMS } from '@ypsometer/core/hands/vocabulary'
import { z } from 'zod'
import { belongsTo, Day, Id, refersTo, text, Typed, within } from './common'
import { resource } from './resource'
import { TankFilter } from './tanks'

const MOST_STEPS = 200
const key = z.string().min(1).max(80)
const few = (t: object): boolean => Object.keys(t).length <= MOST_STEPS

/** A filter set up by its checklist: what was ticked, what was refused and why; see `SetUpState` in the core. */
export const setUps = resource({
  path: 'set-ups',
  singular: 'set-up checklist',
  servedIn: 'list',
  immutable: { modelId: belongsTo('models') },
  fields: {
    tankId: refersTo('tanks').nullable().default(null),
    specimenId: refersTo('specimens').nullable().default(null),
    on: Day,
    /** By the id of the step. */
    ticked: z
      .record(key, z.object({ state: z.enum(STEP_STATES), why: text(400) }))
      .refine(few, `at most ${MOST_STEPS} steps`)
      .default({}),
    minutes: within(0, 1440, 'min').nullable().default(null),
    note: text(4000).default(''),
    typed: Typed.default({}),
  },
})
export type SetUp = z.infer<typeof setUps.Row>

/** A test of the water while changing over (kg/m³, as N). */
export const ChangeTest = z.object({
  on: Day,
  ammonia: within(0, 0.1, 'kg/m³').nullable(),
  nitrite: within(0, 0.1, 'kg/m³').nullable(),
})

/** One filter of a tank changed for another; see `ChangePlan` in the core. */
export const changeOvers = resource({
  path: 'change-overs',
  singular: 'filter swap',
  servedIn: 'list',
  immutable: { tankId: belongsTo('tanks') },
  fields: {
    way: z.enum(CHANGE_WAYS).default('beside'),
    weeks: within(1, 26, 'weeks').default(6),
    /** Share of a ripe film that comes with the media moved. */
    share: within(0.01, 1, '(share)').default(0.3),
    /** The day it begins. */
    on: Day,
    /** The filter that goes, as it stood on the tank; null: there was none. */
    old: TankFilter.extend({ modelId: Id.nullable() }).nullable().default(null),
    next: TankFilter,
    tests: z
      .array(ChangeTest)
      .max(200, 'at most 200 tests')
      .refine((all) => new Set(all.map((t) => t.on)).size === all.length, 'one test a day')
      .readonly()
      .default([]),
    /** The day each step of the plan was done on, by its id. */
    done: z.record(key, Day).refine(few, `at most ${MOST_STEPS} steps`).default({}),
    ended: Day.nullable().default(null),
    note: text(4000).default(''),
  },
})
export type ChangeOver = z.infer<typeof changeOvers.Row>

/** A fault looked for: what became of each check, by its id; see `search` in the core. */
export const faultSearches = resource({
  path: 'fault-searches',
  singular: 'troubleshooting case',
  servedIn: 'list',
  immutable: { symptom: z.enum(SYMPTOMS), modelId: belongsTo('models').nullable().default(null) },
  fields: {
    /** A filter that is not on the shelf. */
    kind: z.enum(FILTER_KINDS).nullable().default(null),
    label: text(80).default(''),
    tankId: refersTo('tanks').nullable().default(null),
    on: Day,
    outcomes: z.record(key, z.enum(OUTCOMES)).refine(few, `at most ${MOST_STEPS} checks`).default({}),
    /** Observation at a check, in somebody’s words. */
    seen: z.record(key, text(400)).refine(few, `at most ${MOST_STEPS} checks`).default({}),
    ended: Day.nullable().default(null),
    note: text(4000).default(''),
  },
})
export type FaultSearch = z.infer<typeof faultSearches.Row>
