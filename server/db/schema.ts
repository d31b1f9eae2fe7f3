import {
  BUYS,
  CLAIM_KINDS,
  KINSHIPS,
  OBTAINED,
  RANKING_STATES,
  REVIEW_STATES,
  SPECIMEN_STATES,
  TANK_FRONTS,
  TANK_SHAPES,
  TICK_STATES,
  type Edition,
  type Fitted,
  type HouseRule,
  type RankedTank,
  type RowOf,
  type ShelfRow,
  type Tank,
  type TrialSetup,
} from '@ypsometer/contract'
import { ADVICE_RULE, type Candidate } from '@ypsometer/core/advice'
import { READING_SHAPES, TRIAL_KINDS } from '@ypsometer/core/trials'
import { CHANGE_WAYS, SYMPTOMS } from '@ypsometer/core/file/hands/vocabulary'
import { NOT_RECORDED } from '@ypsometer/core/file/review/disclosure'
import type { Snapshot } from '@ypsometer/contract/review'
import type { Undo } from '../documents/undo'
import { quoted, stamp } from './columns'
import { FILL_BASES, MEASURES } from '@ypsometer/core/fills'
import { FITTING_IDS } from '@ypsometer/core/hydraulics/tables'
import { FILL_STATES, FILTER_KINDS, MASS_SOURCES } from '@ypsometer/core/judging'
import { MEDIUM_FORMS, MEDIUM_JOBS } from '@ypsometer/core/media'
import { CHEMICAL_PLACES, SCHOOLS } from '@ypsometer/core/path/rules'
import { CAPACITY_RULE, type StockClass } from '@ypsometer/core/tanks'
import { TASKS, UPKEEP_RULE } from '@ypsometer/core/upkeep'
import { CLARITIES, HOLDS, HOSE_INSIDES, VISIT_STAGES } from '@ypsometer/core/file/visits/record'
import { FIXINGS, FOUND, MATERIALS, PRIMINGS, REACHES } from '@ypsometer/core/teardown'
import { CHAMBER_ROLES, LITRE_NAMES, SOLID_SHAPES, WAYS } from '@ypsometer/core/volumes'
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
} from 'drizzle-orm/pg-core'

export * from './people'

/** Parts of a ranking: models worked out, then a tank each. */
const RANKING_PARTS = ['models', 'tank'] as const

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

/** Mains frequency (Hz). */
const mains = (name: string) => integer(name).$type<50 | 60>()

export const model = pgTable(
  'model',
  {
    ...editable,
    maker: text('maker').notNull(),
    name: text('name').notNull(),
    kind: text('kind', { enum: FILTER_KINDS }).notNull(),
    mainsFrequency: mains('mains_frequency').notNull().default(50),
    primedBy: text('primed_by', { enum: PRIMINGS }),
    houseRuleId: uuid('house_rule_id').references((): AnyPgColumn => houseRule.id, { onDelete: 'set null' }),
    kinId: uuid('kin_id').references((): AnyPgColumn => model.id, { onDelete: 'set null' }),
    kinship: text('kinship', { enum: KINSHIPS }).notNull().default('sibling'),
    offers: jsonb('offers').$type<RowOf<'models'>['offers']>().notNull().default([]),
    errata: jsonb('errata').$type<RowOf<'models'>['errata']>().notNull().default([]),
    note: text('note').notNull().default(''),
  },
  (t) => [
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
    quantity: text('quantity', { enum: CLAIM_KINDS }).notNull(),
    value: doublePrecision('value'),
    words: text('words'),
    amountMinor: integer('amount_minor'),
    currency: text('currency'),
    pricedOn: date('priced_on', { mode: 'string' }),
    qualifier: text('qualifier').notNull().default(''),
    mainsFrequency: mains('mains_frequency'),
    printedOn: text('printed_on').notNull().default(''),
    typed: typed(),
  },
  (t) => [
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
  ],
)

export const specimen = pgTable(
  'specimen',
  {
    ...editable,
    modelId: modelId(),
    label: text('label').notNull().default(''),
    obtained: text('obtained', { enum: OBTAINED }).notNull().default('bought'),
    obtainedOn: date('obtained_on', { mode: 'string' }),
    state: text('state', { enum: SPECIMEN_STATES }).notNull().default('new'),
    monthsInUse: doublePrecision('months_in_use'),
    serial: text('serial').notNull().default(''),
    condition: text('condition').notNull().default(''),
    checks: jsonb('checks')
      .$type<Record<string, boolean>>()
      .notNull()
      .default(sql`'{}'::jsonb`),
    mediaMass: doublePrecision('media_mass'),
    mediaMassBy: text('media_mass_by', { enum: MASS_SOURCES }).notNull().default('estimate'),
    disclosure: jsonb('disclosure').$type<RowOf<'specimens'>['disclosure']>().notNull().default(NOT_RECORDED),
    note: text('note').notNull().default(''),
    typed: typed(),
  },
  (t) => [
    index('specimen_of_model').on(t.modelId),
    check('specimen_obtained', sql`${t.obtained} in ${sql.raw(quoted(OBTAINED))}`),
    check('specimen_mass_by', sql`${t.mediaMassBy} in ${sql.raw(quoted(MASS_SOURCES))}`),
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
    fitted: jsonb('fitted')
      .$type<Fitted>()
      .notNull()
      .default(sql`'{}'::jsonb`),
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

export const trial = pgTable(
  'trial',
  {
    ...editable,
    modelId: modelId(),
    specimenId: uuid('specimen_id').references(() => specimen.id, { onDelete: 'set null' }),
    hookupId: uuid('hookup_id').references(() => hookup.id, { onDelete: 'set null' }),
    kind: text('kind', { enum: TRIAL_KINDS }).notNull().default('vessel'),
    state: text('state', { enum: FILL_STATES }).notNull(),
    lift: doublePrecision('lift').notNull(),
    waterTemperature: doublePrecision('water_temperature').notNull(),
    salinity: doublePrecision('salinity').notNull().default(0),
    mainsFrequency: mains('mains_frequency').notNull(),
    vesselVolume: doublePrecision('vessel_volume').notNull(),
    vesselUncertainty: doublePrecision('vessel_uncertainty').notNull(),
    clockResolution: doublePrecision('clock_resolution').notNull(),
    reaction: doublePrecision('reaction').notNull(),
    daysInUse: doublePrecision('days_in_use'),
    valve: doublePrecision('valve').notNull().default(1),
    outlet: text('outlet').notNull().default(''),
    mainsVoltage: doublePrecision('mains_voltage'),
    setup: jsonb('setup')
      .$type<TrialSetup>()
      .notNull()
      .default(sql`'{}'::jsonb`),
    fillId: uuid('fill_id').references((): AnyPgColumn => fill.id, { onDelete: 'set null' }),
    outReason: text('out_reason'),
    note: text('note').notNull().default(''),
    typed: typed(),
  },
  (t) => [
    index('trial_of_model').on(t.modelId),
    unique('trial_id_kind').on(t.id, t.kind),
    check('trial_kind', sql`${t.kind} in ${sql.raw(quoted(TRIAL_KINDS))}`),
    check('trial_salinity', sql`${t.salinity} between 0 and 42`),
    check('trial_valve', sql`${t.valve} between 0 and 1`),
    check('trial_state', sql`${t.state} in ${sql.raw(quoted(FILL_STATES))}`),
    check('trial_mains', sql`${t.mainsFrequency} in (50, 60)`),
    check('trial_vessel', sql`${t.vesselVolume} > 0`),
  ],
)

/** What each kind's readings must hold, as the core's own shapes say it. */
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
export const reading = pgTable(
  'reading',
  {
    ...editable,
    trialId: uuid('trial_id')
      .notNull()
      .references(() => trial.id, { onDelete: 'cascade' }),
    kind: text('kind', { enum: TRIAL_KINDS }).notNull().default('vessel'),
    takenAt: stamp('taken_at').notNull(),
    volume: doublePrecision('volume'),
    seconds: doublePrecision('seconds'),
    value: doublePrecision('value'),
    series: text('series').notNull().default(''),
    outcome: text('outcome').notNull().default(''),
    note: text('note').notNull().default(''),
    source: text('source').notNull().default(''),
  },
  (t) => [
    index('reading_of_trial').on(t.trialId, t.takenAt),
    foreignKey({
      name: 'reading_kind_of_trial',
      columns: [t.trialId, t.kind],
      foreignColumns: [trial.id, trial.kind],
    }).onDelete('cascade'),
    check('reading_whole', wholeReading(t)),
  ],
)

/** A long series of a trial: times (s from its start) and values, with what they come down to. */
export const log = pgTable(
  'log',
  {
    ...editable,
    trialId: uuid('trial_id')
      .notNull()
      .references(() => trial.id, { onDelete: 'cascade' }),
    startedAt: stamp('started_at').notNull(),
    series: text('series').notNull().default(''),
    source: text('source').notNull().default(''),
    note: text('note').notNull().default(''),
    times: doublePrecision('times').array().notNull(),
    values: doublePrecision('values').array().notNull(),
    n: integer('n').notNull(),
    span: doublePrecision('span').notNull(),
    mean: doublePrecision('mean').notNull(),
    deviation: doublePrecision('deviation').notNull(),
    energyMean: doublePrecision('energy_mean').notNull(),
    min: doublePrecision('min').notNull(),
    max: doublePrecision('max').notNull(),
  },
  (t) => [
    index('log_of_trial').on(t.trialId, t.startedAt),
    check(
      'log_whole',
      sql`${t.n} > 0 and cardinality(${t.times}) = ${t.n} and cardinality(${t.values}) = ${t.n}`,
    ),
  ],
)

/** What this bench is set to, by name. */
export const setting = pgTable('setting', {
  name: text('name').primaryKey(),
  value: jsonb('value').notNull(),
  updatedAt: stamp('updated_at').notNull().defaultNow(),
})

export const contentItem = pgTable(
  'content_item',
  {
    ...editable,
    modelId: modelId(),
    position: doublePrecision('position').notNull().default(0),
    name: text('name').notNull(),
    found: text('found', { enum: FOUND }).notNull().default('present'),
    note: text('note').notNull().default(''),
  },
  (t) => [
    index('content_of_model').on(t.modelId),
    check('content_found', sql`${t.found} in ${sql.raw(quoted(FOUND))}`),
  ],
)

export const part = pgTable(
  'part',
  {
    ...editable,
    modelId: modelId(),
    position: doublePrecision('position').notNull(),
    name: text('name').notNull(),
    job: text('job').notNull().default(''),
    material: text('material', { enum: MATERIALS }).notNull(),
    fixing: text('fixing', { enum: FIXINGS }).notNull(),
    moves: integer('moves').notNull().default(1),
    seconds: doublePrecision('seconds').notNull().default(0),
    after: jsonb('after').$type<string[]>(),
    cleaning: doublePrecision('cleaning'),
    back: doublePrecision('back'),
    reach: text('reach', { enum: REACHES }),
    checklist: text('checklist').notNull().default('general'),
    findings: jsonb('findings')
      .$type<string[]>()
      .notNull()
      .default(sql`'[]'::jsonb`),
    sparePriceMinor: integer('spare_price_minor'),
    spareCurrency: text('spare_currency'),
    sparePricedOn: date('spare_priced_on', { mode: 'string' }),
    wetMass: doublePrecision('wet_mass'),
    note: text('note').notNull().default(''),
    goesIn: text('goes_in').notNull().default(''),
    mark: text('mark').notNull().default(''),
    canGoWrong: boolean('can_go_wrong'),
    follows: text('follows').notNull().default(''),
    typed: typed(),
  },
  (t) => [
    index('part_of_model').on(t.modelId, t.position),
    check(
      'part_counts',
      sql`${t.moves} >= 0 and ${t.seconds} >= 0 and ${t.wetMass} >= 0 and ${t.cleaning} >= 0 and ${t.back} >= 0`,
    ),
    check('part_money', sql`(${t.sparePriceMinor} is null) = (${t.spareCurrency} is null)`),
    check('part_reach', sql`${t.reach} in ${sql.raw(quoted(REACHES))}`),
  ],
)

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' })

/** A re-encoded picture of a part, and its thumbnail. */
export const photo = pgTable(
  'photo',
  {
    ...editable,
    partId: uuid('part_id').references(() => part.id, { onDelete: 'cascade' }),
    trialId: uuid('trial_id').references(() => trial.id, { onDelete: 'cascade' }),
    visitId: uuid('visit_id').references((): AnyPgColumn => visit.id, { onDelete: 'cascade' }),
    caption: text('caption').notNull().default(''),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    bytes: integer('bytes').notNull(),
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

export const body = pgTable(
  'body',
  {
    ...editable,
    modelId: modelId(),
    outerWidth: doublePrecision('outer_width').notNull(),
    outerDepth: doublePrecision('outer_depth').notNull(),
    outerHeight: doublePrecision('outer_height').notNull(),
    overhang: doublePrecision('overhang'),
    heightWithHoses: doublePrecision('height_with_hoses'),
    hookOpening: doublePrecision('hook_opening'),
    intakeReach: doublePrecision('intake_reach'),
    waterFill: doublePrecision('water_fill'),
    emptyMass: doublePrecision('empty_mass'),
    fullMass: doublePrecision('full_mass'),
    typed: typed(),
  },
  (t) => [
    uniqueIndex('body_of_model')
      .on(t.modelId)
      .where(sql`${t.deletedAt} is null`),
    check('body_sizes', sql`${t.outerWidth} > 0 and ${t.outerDepth} > 0 and ${t.outerHeight} > 0`),
    check('body_masses', sql`${t.emptyMass} <= ${t.fullMass}`),
  ],
)

export const chamber = pgTable(
  'chamber',
  {
    ...editable,
    modelId: modelId(),
    position: doublePrecision('position').notNull(),
    name: text('name').notNull(),
    role: text('role', { enum: CHAMBER_ROLES }).notNull(),
    shape: text('shape', { enum: SOLID_SHAPES }).notNull(),
    width: doublePrecision('width').notNull(),
    depth: doublePrecision('depth').notNull(),
    height: doublePrecision('height').notNull(),
    diameter: doublePrecision('diameter').notNull(),
    innerDiameter: doublePrecision('inner_diameter').notNull(),
    topWidth: doublePrecision('top_width').notNull(),
    topDepth: doublePrecision('top_depth').notNull(),
    topDiameter: doublePrecision('top_diameter').notNull(),
    lowHeight: doublePrecision('low_height').notNull(),
    volume: doublePrecision('volume').notNull(),
    x: doublePrecision('x').notNull(),
    y: doublePrecision('y').notNull(),
    usableHeight: doublePrecision('usable_height'),
    rim: doublePrecision('rim'),
    perforated: doublePrecision('perforated'),
    displaced: doublePrecision('displaced'),
    use: text('use', { enum: LITRE_NAMES }).notNull(),
    way: text('way', { enum: WAYS }),
    beside: boolean('beside'),
    overflowSill: doublePrecision('overflow_sill'),
    wallGap: doublePrecision('wall_gap'),
    measured: boolean('measured').notNull().default(false),
    typed: typed(),
  },
  (t) => [
    index('chamber_of_model').on(t.modelId, t.position),
    check('chamber_way', sql`${t.way} in ${sql.raw(quoted(WAYS))}`),
    check('chamber_gaps', sql`${t.overflowSill} > 0 and ${t.wallGap} > 0`),
  ],
)

export const medium = pgTable(
  'medium',
  {
    ...editable,
    generic: boolean('generic').notNull().default(false),
    name: text('name').notNull(),
    form: text('form', { enum: MEDIUM_FORMS }).notNull(),
    job: text('job', { enum: MEDIUM_JOBS }).notNull(),
    poresPerInch: doublePrecision('pores_per_inch'),
    grain: doublePrecision('grain'),
    fibre: doublePrecision('fibre'),
    solidity: doublePrecision('solidity'),
    voidage: doublePrecision('voidage'),
    bulkDensity: doublePrecision('bulk_density').notNull(),
    wetDensity: doublePrecision('wet_density'),
    permeability: doublePrecision('permeability'),
    permeabilityLow: doublePrecision('permeability_low'),
    permeabilityHigh: doublePrecision('permeability_high'),
    inertia: doublePrecision('inertia'),
    geometricSurface: doublePrecision('geometric_surface'),
    effectiveSurface: doublePrecision('effective_surface'),
    claimedSurface: doublePrecision('claimed_surface'),
    surfaceBand: doublePrecision('surface_band'),
    workingShare: doublePrecision('working_share'),
    workingBand: doublePrecision('working_band'),
    packVolume: doublePrecision('pack_volume'),
    packMass: doublePrecision('pack_mass'),
    sheetThickness: doublePrecision('sheet_thickness'),
    priceMinor: integer('price_minor'),
    currency: text('currency'),
    pricedOn: date('priced_on', { mode: 'string' }),
    lifeDays: doublePrecision('life_days'),
    source: text('source').notNull().default(''),
    note: text('note').notNull().default(''),
    typed: typed(),
  },
  (t) => [
    uniqueIndex('medium_name')
      .on(sql`lower(${t.name})`)
      .where(sql`${t.deletedAt} is null`),
    check('medium_form', sql`${t.form} in ${sql.raw(quoted(MEDIUM_FORMS))}`),
    check('medium_job', sql`${t.job} in ${sql.raw(quoted(MEDIUM_JOBS))}`),
    check('medium_permeability', sql`${t.permeability} > 0`),
    check('medium_price', sql`(${t.priceMinor} is null) = (${t.currency} is null)`),
  ],
)

export const fill = pgTable(
  'fill',
  {
    ...editable,
    modelId: modelId(),
    name: text('name').notNull(),
    basis: text('basis', { enum: FILL_BASES }).notNull().default('variant'),
    note: text('note').notNull().default(''),
  },
  (t) => [
    index('fill_of_model').on(t.modelId),
    check('fill_basis', sql`${t.basis} in ${sql.raw(quoted(FILL_BASES))}`),
  ],
)

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

export const houseRule = pgTable(
  'house_rule',
  {
    ...editable,
    shipped: boolean('shipped').notNull().default(false),
    name: text('name').notNull(),
    school: text('school', { enum: SCHOOLS }).notNull(),
    reasoning: text('reasoning').notNull().default(''),
    chemical: text('chemical', { enum: CHEMICAL_PLACES }).notNull(),
    rules: jsonb('rules')
      .$type<HouseRule['rules']>()
      .notNull()
      .default(sql`'{}'::jsonb`),
    chosen: boolean('chosen').notNull().default(false),
    capacity: jsonb('capacity').$type<HouseRule['capacity']>().notNull().default(CAPACITY_RULE),
    advice: jsonb('advice').$type<HouseRule['advice']>().notNull().default(ADVICE_RULE),
    upkeep: jsonb('upkeep').$type<HouseRule['upkeep']>().notNull().default(UPKEEP_RULE),
  },
  (t) => [
    check('house_rule_school', sql`${t.school} in ${sql.raw(quoted(SCHOOLS))}`),
    check('house_rule_chemical', sql`${t.chemical} in ${sql.raw(quoted(CHEMICAL_PLACES))}`),
  ],
)

export const stockClass = pgTable('stock_class', {
  ...editable,
  /** What a class that ships is called by; null for a house’s own. */
  code: text('code').unique(),
  position: integer('position').notNull().default(100),
  label: text('label').notNull(),
  feedPerVolume: doublePrecision('feed_per_volume').notNull(),
  protein: doublePrecision('protein').notNull(),
  oxygenOfFeed: doublePrecision('oxygen_of_feed').notNull(),
  plantShare: doublePrecision('plant_share').notNull(),
  temperature: doublePrecision('temperature').notNull(),
  salinity: doublePrecision('salinity').notNull(),
  pH: doublePrecision('ph').notNull(),
  nitrateLimit: doublePrecision('nitrate_limit').notNull(),
  strongestCurrent: doublePrecision('strongest_current').notNull(),
  openInlet: boolean('open_inlet').notNull(),
  minTurnover: doublePrecision('min_turnover').notNull(),
  maxTurnover: doublePrecision('max_turnover').notNull(),
  litresPerKilogram: doublePrecision('litres_per_kilogram').notNull(),
  oversizing: doublePrecision('oversizing').notNull(),
  marks: jsonb('marks').$type<StockClass['marks']>().notNull(),
  source: text('source').notNull(),
  typed: typed(),
})

export const tank = pgTable(
  'tank',
  {
    ...editable,
    name: text('name').notNull(),
    place: text('place').notNull().default(''),
    shape: text('shape', { enum: TANK_SHAPES }).notNull(),
    length: doublePrecision('length').notNull(),
    width: doublePrecision('width').notNull(),
    bowWidth: doublePrecision('bow_width').notNull(),
    diameter: doublePrecision('diameter').notNull(),
    side: doublePrecision('side').notNull(),
    endPanel: doublePrecision('end_panel').notNull(),
    front: text('front', { enum: TANK_FRONTS }).notNull(),
    height: doublePrecision('height').notNull(),
    waterLevel: doublePrecision('water_level').notNull(),
    substrateDepth: doublePrecision('substrate_depth').notNull(),
    substratePorosity: doublePrecision('substrate_porosity').notNull(),
    decorVolume: doublePrecision('decor_volume').notNull(),
    stockClassId: uuid('stock_class_id')
      .notNull()
      .references(() => stockClass.id),
    waterTemperature: doublePrecision('water_temperature').notNull().default(25),
    salinity: doublePrecision('salinity').notNull().default(0),
    pH: doublePrecision('ph').notNull().default(7.5),
    alkalinity: doublePrecision('alkalinity').notNull().default(0.1),
    tapNitrate: doublePrecision('tap_nitrate').notNull().default(0),
    feed: doublePrecision('feed'),
    plantShare: doublePrecision('plant_share'),
    conditioner: boolean('conditioner').notNull().default(false),
    changeShare: doublePrecision('change_share').notNull().default(0.3),
    changeDays: doublePrecision('change_days').notNull().default(7),
    roomTemperature: doublePrecision('room_temperature'),
    cabinetWidth: doublePrecision('cabinet_width'),
    cabinetDepth: doublePrecision('cabinet_depth'),
    cabinetHeight: doublePrecision('cabinet_height'),
    doorWidth: doublePrecision('door_width'),
    bottomHeight: doublePrecision('bottom_height'),
    wallGap: doublePrecision('wall_gap'),
    rimThickness: doublePrecision('rim_thickness'),
    covered: boolean('covered').notNull().default(false),
    filters: jsonb('filters').$type<Tank['filters']>().notNull().default([]),
    visits: jsonb('visits').$type<Tank['visits']>().notNull().default([]),
    note: text('note').notNull().default(''),
    typed: typed(),
  },
  (t) => [
    index('tank_by_name').on(sql`lower(${t.name})`, t.id),
    check('tank_shape', sql`${t.shape} in ${sql.raw(quoted(TANK_SHAPES))}`),
    check('tank_level', sql`${t.waterLevel} > 0 and ${t.waterLevel} <= ${t.height}`),
    check('tank_substrate', sql`${t.substrateDepth} >= 0 and ${t.substrateDepth} < ${t.waterLevel}`),
  ],
)

type VisitRow = RowOf<'visits'>
/** A visit to a unit in a tank. */
export const visit = pgTable(
  'visit',
  {
    ...editable,
    modelId: modelId(),
    tankId: uuid('tank_id').references(() => tank.id, { onDelete: 'set null' }),
    specimenId: uuid('specimen_id').references(() => specimen.id, { onDelete: 'set null' }),
    fillId: uuid('fill_id').references(() => fill.id, { onDelete: 'set null' }),
    on: date('on', { mode: 'string' }).notNull(),
    stage: text('stage', { enum: VISIT_STAGES }).notNull().default('visit'),
    seeping: jsonb('seeping').$type<VisitRow['seeping']>(),
    runsBefore: jsonb('runs_before').$type<VisitRow['runsBefore']>().notNull().default([]),
    noise: doublePrecision('noise'),
    watts: doublePrecision('watts'),
    holding: text('holding', { enum: HOLDS }),
    dirt: jsonb('dirt').$type<VisitRow['dirt']>().notNull().default({}),
    parts: jsonb('parts').$type<VisitRow['parts']>().notNull().default({}),
    hoses: text('hoses', { enum: HOSE_INSIDES }),
    ammonia: doublePrecision('ammonia'),
    nitrite: doublePrecision('nitrite'),
    nitrate: doublePrecision('nitrate'),
    binder: boolean('binder').notNull().default(false),
    clarity: text('clarity', { enum: CLARITIES }),
    cleaned: jsonb('cleaned').$type<VisitRow['cleaned']>().notNull().default([]),
    failed: jsonb('failed').$type<VisitRow['failed']>().notNull().default([]),
    minutes: doublePrecision('minutes'),
    runsAfter: jsonb('runs_after').$type<VisitRow['runsAfter']>().notNull().default([]),
    note: text('note').notNull().default(''),
    typed: typed(),
  },
  (t) => [
    index('visit_of_model').on(t.modelId, t.on),
    check('visit_stage', sql`${t.stage} in ${sql.raw(quoted(VISIT_STAGES))}`),
    check('visit_holding', sql`${t.holding} in ${sql.raw(quoted(HOLDS))}`),
    check('visit_hoses', sql`${t.hoses} in ${sql.raw(quoted(HOSE_INSIDES))}`),
    check('visit_clarity', sql`${t.clarity} in ${sql.raw(quoted(CLARITIES))}`),
  ],
)

/** One due day of a piece of upkeep, done, skipped or moved: at most one a day, whoever ticks it. */
export const tick = pgTable(
  'tick',
  {
    ...editable,
    tankId: uuid('tank_id')
      .notNull()
      .references(() => tank.id, { onDelete: 'cascade' }),
    filterId: text('filter_id').notNull(),
    task: text('task', { enum: TASKS }).notNull(),
    due: date('due', { mode: 'string' }).notNull(),
    state: text('state', { enum: TICK_STATES }).notNull().default('done'),
    on: date('on', { mode: 'string' }).notNull(),
    minutes: doublePrecision('minutes'),
    note: text('note').notNull().default(''),
    typed: typed(),
  },
  (t) => [
    uniqueIndex('tick_once').on(t.tankId, t.filterId, t.task, t.due),
    check('tick_task', sql`${t.task} in ${sql.raw(quoted(TASKS))}`),
    check('tick_state', sql`${t.state} in ${sql.raw(quoted(TICK_STATES))}`),
  ],
)

type SetUpRow = RowOf<'set-ups'>
/** A filter set up by its checklist. */
export const setUp = pgTable(
  'set_up',
  {
    ...editable,
    modelId: modelId(),
    tankId: uuid('tank_id').references(() => tank.id, { onDelete: 'set null' }),
    specimenId: uuid('specimen_id').references(() => specimen.id, { onDelete: 'set null' }),
    on: date('on', { mode: 'string' }).notNull(),
    ticked: jsonb('ticked').$type<SetUpRow['ticked']>().notNull().default({}),
    minutes: doublePrecision('minutes'),
    note: text('note').notNull().default(''),
    typed: typed(),
  },
  (t) => [index('set_up_of_model').on(t.modelId, t.on)],
)

type ChangeOverRow = RowOf<'change-overs'>
/** One filter of a tank changed for another. */
export const changeOver = pgTable(
  'change_over',
  {
    ...editable,
    tankId: uuid('tank_id')
      .notNull()
      .references(() => tank.id, { onDelete: 'cascade' }),
    way: text('way', { enum: CHANGE_WAYS }).notNull(),
    weeks: doublePrecision('weeks').notNull(),
    share: doublePrecision('share').notNull(),
    on: date('on', { mode: 'string' }).notNull(),
    old: jsonb('old').$type<ChangeOverRow['old']>(),
    next: jsonb('next').$type<ChangeOverRow['next']>().notNull(),
    tests: jsonb('tests').$type<ChangeOverRow['tests']>().notNull().default([]),
    done: jsonb('done').$type<ChangeOverRow['done']>().notNull().default({}),
    ended: date('ended', { mode: 'string' }),
    note: text('note').notNull().default(''),
  },
  (t) => [
    index('change_over_of_tank').on(t.tankId, t.on),
    check('change_over_way', sql`${t.way} in ${sql.raw(quoted(CHANGE_WAYS))}`),
  ],
)

type FaultSearchRow = RowOf<'fault-searches'>
/** A fault looked for, check by check. */
export const faultSearch = pgTable(
  'fault_search',
  {
    ...editable,
    symptom: text('symptom', { enum: SYMPTOMS }).notNull(),
    modelId: uuid('model_id').references(() => model.id, { onDelete: 'cascade' }),
    kind: text('kind', { enum: FILTER_KINDS }),
    label: text('label').notNull().default(''),
    tankId: uuid('tank_id').references(() => tank.id, { onDelete: 'set null' }),
    on: date('on', { mode: 'string' }).notNull(),
    outcomes: jsonb('outcomes').$type<FaultSearchRow['outcomes']>().notNull().default({}),
    seen: jsonb('seen').$type<FaultSearchRow['seen']>().notNull().default({}),
    ended: date('ended', { mode: 'string' }),
    note: text('note').notNull().default(''),
  },
  (t) => [
    index('fault_search_of_model').on(t.modelId, t.on),
    check('fault_search_symptom', sql`${t.symptom} in ${sql.raw(quoted(SYMPTOMS))}`),
    check('fault_search_kind', sql`${t.kind} in ${sql.raw(quoted(FILTER_KINDS))}`),
  ],
)

/** An import, with what takes it back. */
export const importBatch = pgTable('import_batch', {
  id: uuid('id').primaryKey(),
  createdAt: stamp('created_at').notNull().defaultNow(),
  undoneAt: stamp('undone_at'),
  undo: jsonb('undo').$type<Undo>().notNull(),
})

type ReviewRow = RowOf<'reviews'>
/** A review in the making: words round numbers that the server took, and how far it is. */
export const review = pgTable(
  'review',
  {
    ...editable,
    modelId: modelId(),
    state: text('state', { enum: REVIEW_STATES }).notNull().default('draft'),
    title: text('title').notNull().default(''),
    intro: text('intro').notNull().default(''),
    words: jsonb('words').$type<ReviewRow['words']>().notNull().default({}),
    buy: text('buy', { enum: BUYS }),
    buyWhy: text('buy_why').notNull().default(''),
    /** Editions there are, when the last of them was published, and when and why it was taken back. */
    editions: integer('editions').notNull().default(0),
    publishedOn: date('published_on', { mode: 'string' }),
    withdrawnOn: date('withdrawn_on', { mode: 'string' }),
    withdrawnWhy: text('withdrawn_why').notNull().default(''),
    /** The day the numbers of the draft were taken. */
    takenOn: date('taken_on', { mode: 'string' }).notNull(),
    draft: jsonb('draft').$type<Snapshot>().notNull(),
  },
  (t) => [
    index('review_of_model').on(t.modelId),
    check('review_state', sql`${t.state} in ${sql.raw(quoted(REVIEW_STATES))}`),
    check('review_buy', sql`${t.buy} in ${sql.raw(quoted(BUYS))}`),
  ],
)

/** What was published: never changed after, which a trigger sees to. */
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
 * What the shelf shows of a model, as it was last worked out, and from what. Triggers raise `revision` with every write
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
    /** Claimed ÷ supported by the leading school; 0 while the claim is not judged. */
    overclaim: doublePrecision('overclaim').notNull().default(0),
    /** The revision, the library and the program that `shown` was worked out from; null while it never was. */
    workedFrom: text('worked_from'),
    shown: jsonb('shown').$type<Omit<ShelfRow, 'model' | 'old'>>(),
    /** What it brings to a tank, worked out with it; null where that is not possible. */
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
