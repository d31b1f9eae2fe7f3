import {
  RESOURCES,
  type ResourceName,
  BUYS,
  KINSHIPS,
  OBTAINED,
  RANKING_STATES,
  REVIEW_STATES,
  TANK_SHAPES,
  TICK_STATES,
  type Edition,
  type RankedTank,
  type ShelfRow,
} from '@ypsometer/contract'
import { type Candidate } from '@ypsometer/core/advice/candidate'
import { READING_SHAPES, TRIAL_KINDS } from '@ypsometer/core/trials/readings'
import { CHANGE_WAYS, SYMPTOMS } from '@ypsometer/core/hands/vocabulary'
import type { Snapshot } from '@ypsometer/contract/review'
import type { Undo } from './undo'
import { columnsFor, quoted, stamp } from './columns'
import { FILL_BASES, MEASURES } from '@ypsometer/core/fills/place'
import { FITTING_IDS } from '@ypsometer/core/hydraulics/tables'
import { FILL_STATES, MASS_SOURCES } from '@ypsometer/core/trials/records'
import { FILTER_KINDS } from '@ypsometer/core/kinds/filters'
import { MEDIUM_FORMS, MEDIUM_JOBS } from '@ypsometer/core/media/medium'
import { CHEMICAL_PLACES, SCHOOLS } from '@ypsometer/core/path/rules/types'
import { TASKS } from '@ypsometer/core/upkeep/rule'
import { CLARITIES, HOLDS, HOSE_INSIDES, VISIT_STAGES } from '@ypsometer/core/visits/record'
import { FOUND } from '@ypsometer/core/teardown/reach'
import { PRIMINGS, REACHES } from '@ypsometer/core/parts/vocabulary'
import { WAYS } from '@ypsometer/core/volumes/interior'
import { sql, type SQL } from 'drizzle-orm'
import {
  boolean,
  check,
  customType,
  date,
  doublePrecision,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  unique,
  uniqueIndex,
  uuid,
  type AnyPgColumn,
  type PgTable,
} from 'drizzle-orm/pg-core'

export * from './people'

/** Parts of a ranking: models worked out, then a tank each. */
const RANKING_PARTS = ['models', 'tank'] as const

/**
 * The columns of a kind of row, as the contract declares its fields; `apart` is one that stands in a table of its own.
 */
function columnsOf<N extends ResourceName, A extends keyof Declared<N> = never>(name: N, apart?: A) {
  const own = Object.fromEntries(
    Object.entries(RESOURCES[name].declared).filter(([field]) => field !== apart),
  )
  return columnsFor(own as Omit<Declared<N>, A>, (to): AnyPgColumn => TABLES[to].id)
}
type Declared<N extends ResourceName> = (typeof RESOURCES)[N]['declared']

export const model = pgTable('model', columnsOf('models'), (t) => [
  uniqueIndex('model_maker_name')
    .on(sql`lower(${t.maker})`, sql`lower(${t.name})`)
    .where(sql`${t.deletedAt} is null`),
  index('model_by_name').on(sql`lower(${t.name})`, t.id),
  index('model_by_updated').on(t.updatedAt, t.id),
  check('model_kind', sql`${t.kind} in ${sql.raw(quoted(FILTER_KINDS))}`),
  check('model_priming', sql`${t.primedBy} in ${sql.raw(quoted(PRIMINGS))}`),
  check('model_kinship', sql`${t.kinship} in ${sql.raw(quoted(KINSHIPS))}`),
  check('model_mains', sql`${t.mainsFrequency} in (50, 60)`),
  check('model_named', sql`length(trim(${t.name})) > 0 and length(trim(${t.maker})) > 0`),
])

export const claim = pgTable('claim', columnsOf('claims'), (t) => [
  uniqueIndex('claim_once')
    .on(
      t.modelId,
      t.quantity,
      sql`coalesce(${t.mainsFrequency}, 0)`,
      sql`lower(${t.printedOn})`,
      sql`lower(${t.qualifier})`,
    )
    .where(sql`${t.deletedAt} is null`),
  check('claim_value', sql`${t.value} >= 0`),
  check('claim_money', sql`(${t.amountMinor} is null) = (${t.currency} is null)`),
])

export const specimen = pgTable('specimen', columnsOf('specimens'), (t) => [
  index('specimen_of_model').on(t.modelId),
  check('specimen_obtained', sql`${t.obtained} in ${sql.raw(quoted(OBTAINED))}`),
  check('specimen_mass_by', sql`${t.mediaMassBy} in ${sql.raw(quoted(MASS_SOURCES))}`),
  check('specimen_media', sql`${t.mediaMass} >= 0`),
])

export const hookup = pgTable('hookup', columnsOf('hookups', 'segments'), (t) => [
  index('hookup_of_model').on(t.modelId),
  check('hookup_source', sql`${t.sourceBelowWater} >= 0`),
])

/** A piece of a hookup, in flow order. Which columns are filled follows `kind`. */
export const segment = pgTable(
  'segment',
  {
    hookupId: uuid('hookup_id')
      .notNull()
      .references(() => hookup.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    id: text('id').notNull(),
    kind: text('kind', { enum: ['hose', 'fitting', 'spray-bar'] }).notNull(),
    label: text('label').notNull(),
    length: doublePrecision('length'),
    diameter: doublePrecision('diameter'),
    roughness: doublePrecision('roughness'),
    clear: boolean('clear'),
    lossCoefficient: doublePrecision('loss_coefficient'),
    count: integer('count'),
    catalogue: text('catalogue', { enum: FITTING_IDS }),
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

export const trial = pgTable('trial', columnsOf('trials'), (t) => [
  index('trial_of_model').on(t.modelId),
  unique('trial_id_kind').on(t.id, t.kind),
  check('trial_kind', sql`${t.kind} in ${sql.raw(quoted(TRIAL_KINDS))}`),
  check('trial_salinity', sql`${t.salinity} between 0 and 42`),
  check('trial_valve', sql`${t.valve} between 0 and 1`),
  check('trial_state', sql`${t.state} in ${sql.raw(quoted(FILL_STATES))}`),
  check('trial_mains', sql`${t.mainsFrequency} in (50, 60)`),
  check('trial_vessel', sql`${t.vesselVolume} > 0`),
])

/** Checks of each kind's readings, by the core's own shapes. */
function wholeReading(
  t: Record<'kind' | 'volume' | 'seconds' | 'value' | 'series' | 'outcome', AnyPgColumn>,
): SQL {
  const cases = TRIAL_KINDS.map((kind) => {
    const { volume, seconds, value, valueOptional, series, outcome } = READING_SHAPES[kind]
    const parts = [
      ...(volume ? [sql`${t.volume} > 0`] : []),
      ...(seconds ? [sql`${t.seconds} >= ${sql.raw(String(seconds.min))}`] : []),
      ...(value && !valueOptional ? [sql`${t.value} >= ${sql.raw(String(value.min))}`] : []),
      ...(series ? [sql`${t.series} in ${sql.raw(quoted(series))}`] : []),
      ...(outcome ? [sql`${t.outcome} in ${sql.raw(quoted(outcome))}`] : []),
    ]
    return sql`when ${sql.raw(`'${kind}'`)} then ${sql.join(parts, sql` and `)}`
  })
  return sql`case ${t.kind} ${sql.join(cases, sql` `)} end is true`
}

/** One reading of a trial. Which columns are filled follows the kind, which is the trial's own. */
export const reading = pgTable('reading', columnsOf('readings'), (t) => [
  index('reading_of_trial').on(t.trialId, t.takenAt),
  foreignKey({
    name: 'reading_kind_of_trial',
    columns: [t.trialId, t.kind],
    foreignColumns: [trial.id, trial.kind],
  }).onDelete('cascade'),
  check('reading_whole', wholeReading(t)),
])

/** A long series of a trial: times (s from its start) and values, with what they come down to. */
export const log = pgTable(
  'log',
  {
    ...columnsOf('logs'),
    times: doublePrecision('times').array().notNull(),
    values: doublePrecision('values').array().notNull(),
  },
  (t) => [
    index('log_of_trial').on(t.trialId, t.startedAt),
    check(
      'log_whole',
      sql`${t.n} > 0 and cardinality(${t.times}) = ${t.n} and cardinality(${t.values}) = ${t.n}`,
    ),
  ],
)

/** Settings of this bench, by name. */
export const setting = pgTable('setting', {
  name: text('name').primaryKey(),
  value: jsonb('value').notNull(),
  updatedAt: stamp('updated_at').notNull().defaultNow(),
})

export const contentItem = pgTable('content_item', columnsOf('contents'), (t) => [
  index('content_of_model').on(t.modelId),
  check('content_found', sql`${t.found} in ${sql.raw(quoted(FOUND))}`),
])

export const part = pgTable('part', columnsOf('parts'), (t) => [
  index('part_of_model').on(t.modelId, t.position),
  check(
    'part_counts',
    sql`${t.moves} >= 0 and ${t.seconds} >= 0 and ${t.wetMass} >= 0 and ${t.cleaning} >= 0 and ${t.back} >= 0`,
  ),
  check('part_money', sql`(${t.sparePriceMinor} is null) = (${t.spareCurrency} is null)`),
  check('part_reach', sql`${t.reach} in ${sql.raw(quoted(REACHES))}`),
])

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' })

/** A re-encoded picture of a part, and its thumbnail. */
export const photo = pgTable(
  'photo',
  {
    ...columnsOf('photos'),
    full: bytea('full').notNull(),
    thumb: bytea('thumb').notNull(),
  },
  (t) => [
    index('photo_of_part').on(t.partId),
    index('photo_of_trial').on(t.trialId),
    index('photo_of_visit').on(t.visitId),
    check('photo_of_one', sql`num_nonnulls(${t.partId}, ${t.trialId}, ${t.visitId}) = 1`),
  ],
)

export const body = pgTable('body', columnsOf('bodies'), (t) => [
  uniqueIndex('body_of_model')
    .on(t.modelId)
    .where(sql`${t.deletedAt} is null`),
  check('body_sizes', sql`${t.outerWidth} > 0 and ${t.outerDepth} > 0 and ${t.outerHeight} > 0`),
  check('body_masses', sql`${t.emptyMass} <= ${t.fullMass}`),
])

export const chamber = pgTable('chamber', columnsOf('chambers'), (t) => [
  index('chamber_of_model').on(t.modelId, t.position),
  check('chamber_way', sql`${t.way} in ${sql.raw(quoted(WAYS))}`),
  check('chamber_gaps', sql`${t.overflowSill} > 0 and ${t.wallGap} > 0`),
])

export const medium = pgTable('medium', columnsOf('media'), (t) => [
  uniqueIndex('medium_name')
    .on(sql`lower(${t.name})`)
    .where(sql`${t.deletedAt} is null`),
  check('medium_form', sql`${t.form} in ${sql.raw(quoted(MEDIUM_FORMS))}`),
  check('medium_job', sql`${t.job} in ${sql.raw(quoted(MEDIUM_JOBS))}`),
  check('medium_permeability', sql`${t.permeability} > 0`),
  check('medium_price', sql`(${t.priceMinor} is null) = (${t.currency} is null)`),
])

export const fill = pgTable('fill', columnsOf('fills', 'layers'), (t) => [
  index('fill_of_model').on(t.modelId),
  check('fill_basis', sql`${t.basis} in ${sql.raw(quoted(FILL_BASES))}`),
])

/** A layer of a fill, in the order the water meets it. */
export const layer = pgTable(
  'layer',
  {
    fillId: uuid('fill_id')
      .notNull()
      .references(() => fill.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    id: text('id').notNull(),
    chamberId: uuid('chamber_id')
      .notNull()
      .references(() => chamber.id, { onDelete: 'cascade' }),
    mediumId: uuid('medium_id')
      .notNull()
      .references(() => medium.id),
    measure: text('measure', { enum: MEASURES }).notNull(),
    amount: doublePrecision('amount').notNull(),
    bagged: boolean('bagged').notNull(),
    gap: doublePrecision('gap').notNull(),
    crossed: boolean('crossed').notNull(),
    sealed: boolean('sealed').notNull(),
    fouled: doublePrecision('fouled').notNull(),
  },
  (t) => [
    uniqueIndex('layer_place').on(t.fillId, t.position),
    uniqueIndex('layer_id').on(t.fillId, t.id),
    check('layer_measure', sql`${t.measure} in ${sql.raw(quoted(MEASURES))}`),
    check('layer_amount', sql`${t.amount} > 0 and ${t.gap} >= 0 and ${t.fouled} >= 0 and ${t.fouled} < 1`),
  ],
)

export const houseRule = pgTable('house_rule', columnsOf('house-rules'), (t) => [
  check('house_rule_school', sql`${t.school} in ${sql.raw(quoted(SCHOOLS))}`),
  check('house_rule_chemical', sql`${t.chemical} in ${sql.raw(quoted(CHEMICAL_PLACES))}`),
])

export const stockClass = pgTable('stock_class', columnsOf('stock-classes'), (t) => [
  unique('stock_class_code_unique').on(t.code),
])

export const tank = pgTable('tank', columnsOf('tanks'), (t) => [
  index('tank_by_name').on(sql`lower(${t.name})`, t.id),
  check('tank_shape', sql`${t.shape} in ${sql.raw(quoted(TANK_SHAPES))}`),
  check('tank_level', sql`${t.waterLevel} > 0 and ${t.waterLevel} <= ${t.height}`),
  check('tank_substrate', sql`${t.substrateDepth} >= 0 and ${t.substrateDepth} < ${t.waterLevel}`),
])

/** A visit to a unit in a tank. */
export const visit = pgTable('visit', columnsOf('visits'), (t) => [
  index('visit_of_model').on(t.modelId, t.on),
  check('visit_stage', sql`${t.stage} in ${sql.raw(quoted(VISIT_STAGES))}`),
  check('visit_holding', sql`${t.holding} in ${sql.raw(quoted(HOLDS))}`),
  check('visit_hoses', sql`${t.hoses} in ${sql.raw(quoted(HOSE_INSIDES))}`),
  check('visit_clarity', sql`${t.clarity} in ${sql.raw(quoted(CLARITIES))}`),
])

/** One due day of a piece of upkeep, done, skipped or moved: at most one a day, whoever ticks it. */
export const tick = pgTable('tick', columnsOf('ticks'), (t) => [
  uniqueIndex('tick_once').on(t.tankId, t.filterId, t.task, t.due),
  check('tick_task', sql`${t.task} in ${sql.raw(quoted(TASKS))}`),
  check('tick_state', sql`${t.state} in ${sql.raw(quoted(TICK_STATES))}`),
])

/** A filter set up by its checklist. */
export const setUp = pgTable('set_up', columnsOf('set-ups'), (t) => [
  index('set_up_of_model').on(t.modelId, t.on),
])

/** One filter of a tank changed for another. */
export const changeOver = pgTable('change_over', columnsOf('change-overs'), (t) => [
  index('change_over_of_tank').on(t.tankId, t.on),
  check('change_over_way', sql`${t.way} in ${sql.raw(quoted(CHANGE_WAYS))}`),
])

/** A fault looked for, check by check. */
export const faultSearch = pgTable('fault_search', columnsOf('fault-searches'), (t) => [
  index('fault_search_of_model').on(t.modelId, t.on),
  check('fault_search_symptom', sql`${t.symptom} in ${sql.raw(quoted(SYMPTOMS))}`),
  check('fault_search_kind', sql`${t.kind} in ${sql.raw(quoted(FILTER_KINDS))}`),
])

/** An import, with what takes it back. */
export const importBatch = pgTable('import_batch', {
  id: uuid('id').primaryKey(),
  createdAt: stamp('created_at').notNull().defaultNow(),
  undoneAt: stamp('undone_at'),
  undo: jsonb('undo').$type<Undo>().notNull(),
})

/** A review in the making: words round numbers that the server took, and how far it is. */
export const review = pgTable(
  'review',
  {
    ...columnsOf('reviews'),
    /** The numbers of the draft, as they were taken. */
    draft: jsonb('draft').$type<Snapshot>().notNull(),
  },
  (t) => [
    index('review_of_model').on(t.modelId),
    check('review_state', sql`${t.state} in ${sql.raw(quoted(REVIEW_STATES))}`),
    check('review_buy', sql`${t.buy} in ${sql.raw(quoted(BUYS))}`),
  ],
)

/** Published editions: never changed after, which a trigger sees to. */
export const reviewEdition = pgTable(
  'review_edition',
  {
    reviewId: uuid('review_id')
      .notNull()
      .references(() => review.id, { onDelete: 'cascade' }),
    number: integer('number').notNull(),
    publishedOn: date('published_on', { mode: 'string' }).notNull(),
    erratum: jsonb('erratum').$type<Edition['erratum']>(),
    words: jsonb('words').$type<Edition['words']>().notNull(),
    snapshot: jsonb('snapshot').$type<Snapshot>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.reviewId, t.number] })],
)

/** Photos of what was published, as they were. */
export const reviewPhoto = pgTable(
  'review_photo',
  {
    reviewId: uuid('review_id')
      .notNull()
      .references(() => review.id, { onDelete: 'cascade' }),
    photoId: uuid('photo_id').notNull(),
    full: bytea('full').notNull(),
  },
  (t) => [primaryKey({ columns: [t.reviewId, t.photoId] })],
)

/** A link that reads one review; of its secret only a hash is kept. */
export const reviewShare = pgTable(
  'review_share',
  {
    id: uuid('id').primaryKey(),
    reviewId: uuid('review_id')
      .notNull()
      .references(() => review.id, { onDelete: 'cascade' }),
    label: text('label').notNull().default(''),
    secretHash: text('secret_hash').notNull().unique(),
    createdAt: stamp('created_at').notNull().defaultNow(),
    expiresOn: date('expires_on', { mode: 'string' }),
    revokedAt: stamp('revoked_at'),
    readings: integer('readings').notNull().default(0),
  },
  (t) => [index('review_share_of').on(t.reviewId)],
)

/**
 * Row of a model on the shelf, as it was last worked out, and from what. Triggers raise `revision` with every write
 * to the model's dossier and keep `ratedFlow`; see the migration that made this table.
 */
export const shelfEntry = pgTable(
  'shelf_entry',
  {
    modelId: uuid('model_id')
      .primaryKey()
      .references(() => model.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull().default(1),
    /** First rated flow of its claims (m³/s); 0 without one. */
    ratedFlow: doublePrecision('rated_flow').notNull().default(0),
    /** Do the schools of capacity disagree on its claim? Kept beside `shown` for searching and sorting. */
    split: boolean('split').notNull().default(false),
    /** Label ÷ supported by the leading school; 0 while the claim is not judged. */
    overclaim: doublePrecision('overclaim').notNull().default(0),
    /** The revision, the library and the program that `shown` was worked out from; null while it never was. */
    workedFrom: text('worked_from'),
    shown: jsonb('shown').$type<Omit<ShelfRow, 'model' | 'old'>>(),
    /** Its candidate, worked out with it; null where that is not possible. */
    candidate: jsonb('candidate').$type<Candidate>(),
  },
  (t) => [
    index('shelf_entry_by_flow').on(t.ratedFlow.desc(), t.modelId.desc()),
    index('shelf_entry_by_claim').on(t.overclaim.desc(), t.modelId.desc()),
    index('shelf_entry_split')
      .on(t.modelId)
      .where(sql`${t.split}`),
  ],
)

/** A ranking of the whole shelf for every tank, worked out part by part by whichever worker comes first. */
export const ranking = pgTable(
  'ranking',
  {
    id: uuid('id').primaryKey(),
    state: text('state', { enum: RANKING_STATES }).notNull().default('running'),
    /** Names what it is worked out from; another name now means that it is old. */
    basis: text('basis').notNull(),
    models: integer('models').notNull(),
    createdAt: stamp('created_at').notNull().defaultNow(),
    finishedAt: stamp('finished_at'),
  },
  (t) => [
    check('ranking_state', sql`${t.state} in ${sql.raw(quoted(RANKING_STATES))}`),
    uniqueIndex('ranking_running')
      .on(t.state)
      .where(sql`${t.state} = 'running'`),
  ],
)

/** A part of a ranking: models to be worked out first, then a tank each. Held by a lock while it is worked at. */
export const rankingPart = pgTable(
  'ranking_part',
  {
    rankingId: uuid('ranking_id')
      .notNull()
      .references(() => ranking.id, { onDelete: 'cascade' }),
    position: integer('position').notNull(),
    what: text('what', { enum: RANKING_PARTS }).notNull(),
    subjects: jsonb('subjects').$type<readonly string[]>().notNull(),
    doneAt: stamp('done_at'),
    worker: text('worker'),
    result: jsonb('result').$type<RankedTank>(),
  },
  (t) => [
    primaryKey({ columns: [t.rankingId, t.position] }),
    check('ranking_part_what', sql`${t.what} in ${sql.raw(quoted(RANKING_PARTS))}`),
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

/** The table of each kind of row that people write. */
export const TABLES = {
  models: model,
  claims: claim,
  specimens: specimen,
  hookups: hookup,
  trials: trial,
  readings: reading,
  logs: log,
  contents: contentItem,
  parts: part,
  photos: photo,
  bodies: body,
  chambers: chamber,
  fills: fill,
  visits: visit,
  ticks: tick,
  'set-ups': setUp,
  'change-overs': changeOver,
  'fault-searches': faultSearch,
  reviews: review,
  media: medium,
  'house-rules': houseRule,
  'stock-classes': stockClass,
  tanks: tank,
} as const satisfies Record<ResourceName, PgTable & { readonly id: AnyPgColumn }>
