import { sql } from 'drizzle-orm'
import {
  check,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'

const stamp = (name: string) => timestamp(name, { withTimezone: true, mode: 'date', precision: 3 })

/** Columns of every editable row. `version` grows by one with each change; deletion is soft. */
const editable = {
  id: uuid('id').primaryKey(),
  version: integer('version').notNull().default(1),
  createdAt: stamp('created_at').notNull().defaultNow(),
  updatedAt: stamp('updated_at').notNull().defaultNow(),
  deletedAt: stamp('deleted_at'),
}
const typed = () =>
  jsonb('typed')
    .$type<Record<string, string>>()
    .notNull()
    .default(sql`'{}'::jsonb`)

export const model = pgTable(
  'model',
  {
    ...editable,
    maker: text('maker').notNull(),
    name: text('name').notNull(),
    kind: text('kind').notNull(),
    mainsFrequency: integer('mains_frequency').notNull().default(50),
    note: text('note').notNull().default(''),
  },
  (t) => [
    uniqueIndex('model_maker_name')
      .on(sql`lower(${t.maker})`, sql`lower(${t.name})`)
      .where(sql`${t.deletedAt} is null`),
    index('model_by_name').on(sql`lower(${t.name})`, t.id),
    index('model_by_updated').on(t.updatedAt, t.id),
    check(
      'model_kind',
      sql`${t.kind} in ('canister','hang-on-back','internal','motor-sponge','air-sponge','air-box','fluidised','sump')`,
    ),
    check('model_mains', sql`${t.mainsFrequency} in (50, 60)`),
    check('model_named', sql`length(trim(${t.name})) > 0 and length(trim(${t.maker})) > 0`),
  ],
)

const modelId = () =>
  uuid('model_id')
    .notNull()
    .references(() => model.id, { onDelete: 'cascade' })

export const claim = pgTable(
  'claim',
  {
    ...editable,
    modelId: modelId(),
    quantity: text('quantity').notNull(),
    value: doublePrecision('value'),
    words: text('words'),
    amountMinor: integer('amount_minor'),
    currency: text('currency'),
    qualifier: text('qualifier').notNull().default(''),
    mainsFrequency: integer('mains_frequency'),
    printedOn: text('printed_on').notNull().default(''),
    typed: typed(),
  },
  (t) => [
    uniqueIndex('claim_once')
      .on(t.modelId, t.quantity, sql`coalesce(${t.mainsFrequency}, 0)`)
      .where(sql`${t.deletedAt} is null`),
    check('claim_value', sql`${t.value} >= 0`),
    check('claim_money', sql`(${t.amountMinor} is null) = (${t.currency} is null)`),
  ],
)

export const specimen = pgTable(
  'specimen',
  {
    ...editable,
    modelId: modelId(),
    label: text('label').notNull().default(''),
    obtained: text('obtained').notNull().default('bought'),
    obtainedOn: date('obtained_on', { mode: 'string' }),
    mediaMass: doublePrecision('media_mass'),
    note: text('note').notNull().default(''),
    typed: typed(),
  },
  (t) => [
    index('specimen_of_model').on(t.modelId),
    check('specimen_obtained', sql`${t.obtained} in ('bought','loaned','given','second-hand')`),
    check('specimen_media', sql`${t.mediaMass} >= 0`),
  ],
)

export const hookup = pgTable(
  'hookup',
  {
    ...editable,
    modelId: modelId(),
    name: text('name').notNull(),
    outletAboveWater: doublePrecision('outlet_above_water').notNull().default(-0.05),
    sourceBelowWater: doublePrecision('source_below_water').notNull().default(0),
    bodyBelowWater: doublePrecision('body_below_water').notNull().default(0),
    typed: typed(),
  },
  (t) => [index('hookup_of_model').on(t.modelId), check('hookup_source', sql`${t.sourceBelowWater} >= 0`)],
)

/** A piece of a hookup, in flow order. Which columns are filled follows `kind`. */
export const segment = pgTable(
  'segment',
  {
    hookupId: uuid('hookup_id')
      .notNull()
      .references(() => hookup.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    id: text('id').notNull(),
    kind: text('kind').notNull(),
    label: text('label').notNull(),
    length: doublePrecision('length'),
    diameter: doublePrecision('diameter'),
    roughness: doublePrecision('roughness'),
    lossCoefficient: doublePrecision('loss_coefficient'),
    count: integer('count'),
    holes: integer('holes'),
    holeDiameter: doublePrecision('hole_diameter'),
    dischargeCoefficient: doublePrecision('discharge_coefficient'),
  },
  (t) => [
    uniqueIndex('segment_place').on(t.hookupId, t.position),
    uniqueIndex('segment_id').on(t.hookupId, t.id),
    check(
      'segment_whole',
      sql`(${t.kind} = 'hose' and ${t.length} >= 0 and ${t.diameter} > 0 and ${t.roughness} >= 0)
       or (${t.kind} = 'fitting' and ${t.lossCoefficient} >= 0 and ${t.diameter} > 0 and ${t.count} >= 0)
       or (${t.kind} = 'spray-bar' and ${t.holes} > 0 and ${t.holeDiameter} > 0 and ${t.dischargeCoefficient} > 0)`,
    ),
  ],
)

export const trial = pgTable(
  'trial',
  {
    ...editable,
    modelId: modelId(),
    specimenId: uuid('specimen_id').references(() => specimen.id, { onDelete: 'set null' }),
    hookupId: uuid('hookup_id').references(() => hookup.id, { onDelete: 'set null' }),
    state: text('state').notNull(),
    lift: doublePrecision('lift').notNull(),
    waterTemperature: doublePrecision('water_temperature').notNull(),
    mainsFrequency: integer('mains_frequency').notNull(),
    vesselVolume: doublePrecision('vessel_volume').notNull(),
    vesselUncertainty: doublePrecision('vessel_uncertainty').notNull(),
    clockResolution: doublePrecision('clock_resolution').notNull(),
    reaction: doublePrecision('reaction').notNull(),
    note: text('note').notNull().default(''),
    typed: typed(),
  },
  (t) => [
    index('trial_of_model').on(t.modelId),
    check('trial_state', sql`${t.state} in ('empty','as-shipped','proposed','dirty')`),
    check('trial_mains', sql`${t.mainsFrequency} in (50, 60)`),
    check('trial_vessel', sql`${t.vesselVolume} > 0`),
  ],
)

export const reading = pgTable(
  'reading',
  {
    ...editable,
    trialId: uuid('trial_id')
      .notNull()
      .references(() => trial.id, { onDelete: 'cascade' }),
    takenAt: stamp('taken_at').notNull(),
    volume: doublePrecision('volume').notNull(),
    seconds: doublePrecision('seconds').notNull(),
  },
  (t) => [
    index('reading_of_trial').on(t.trialId, t.takenAt),
    check('reading_positive', sql`${t.volume} > 0 and ${t.seconds} >= 0.5`),
  ],
)

export const stockClass = pgTable('stock_class', {
  id: text('id').primaryKey(),
  position: integer('position').notNull(),
  label: text('label').notNull(),
  minTurnover: doublePrecision('min_turnover').notNull(),
  maxTurnover: doublePrecision('max_turnover').notNull(),
  litresPerKilogram: doublePrecision('litres_per_kilogram').notNull(),
  oversizing: doublePrecision('oversizing').notNull(),
  source: text('source').notNull(),
})

export const tank = pgTable(
  'tank',
  {
    ...editable,
    name: text('name').notNull(),
    place: text('place').notNull().default(''),
    shape: text('shape').notNull(),
    length: doublePrecision('length').notNull(),
    width: doublePrecision('width').notNull(),
    bowWidth: doublePrecision('bow_width').notNull(),
    diameter: doublePrecision('diameter').notNull(),
    side: doublePrecision('side').notNull(),
    endPanel: doublePrecision('end_panel').notNull(),
    front: text('front').notNull(),
    height: doublePrecision('height').notNull(),
    waterLevel: doublePrecision('water_level').notNull(),
    substrateDepth: doublePrecision('substrate_depth').notNull(),
    substratePorosity: doublePrecision('substrate_porosity').notNull(),
    decorVolume: doublePrecision('decor_volume').notNull(),
    stockClassId: text('stock_class_id')
      .notNull()
      .references(() => stockClass.id),
    note: text('note').notNull().default(''),
    typed: typed(),
  },
  (t) => [
    index('tank_by_name').on(sql`lower(${t.name})`, t.id),
    check('tank_shape', sql`${t.shape} in ('box','cylinder','bow-front','corner')`),
    check('tank_level', sql`${t.waterLevel} > 0 and ${t.waterLevel} <= ${t.height}`),
    check('tank_substrate', sql`${t.substrateDepth} >= 0 and ${t.substrateDepth} < ${t.waterLevel}`),
  ],
)

/** Answers to writes, by the key the client chose, so that a repeated write is answered and not done twice. */
export const idempotencyKey = pgTable('idempotency_key', {
  key: uuid('key').primaryKey(),
  route: text('route').notNull(),
  requestHash: text('request_hash').notNull(),
  status: integer('status').notNull(),
  answer: jsonb('answer').notNull(),
  createdAt: stamp('created_at').notNull().defaultNow(),
})
