import { FIXINGS, MATERIALS, REACHES } from '@ypsometer/core/parts/vocabulary'
import { FOUND } from '@ypsometer/core/teardown/reach'
import { CHAMBER_ROLES, LITRE_NAMES, WAYS } from '@ypsometer/core/volumes/interior'
import { SOLID_SHAPES } from '@ypsometer/core/volumes/solids'
import { z } from 'zod'
import { belongsTo, currency, Day, Id, minor, name, text, Typed, within } from './common'
import { resource } from './resource'

export const contents = resource({
  path: 'contents',
  singular: 'item in the box',
  servedIn: 'dossier',
  immutable: { modelId: belongsTo('models') },
  fields: {
    position: z.number('a place in the order').default(0),
    name: name('The item'),
    found: z.enum(FOUND).default('present'),
    note: text(400).default(''),
  },
})

export const parts = resource({
  path: 'parts',
  singular: 'part',
  servedIn: 'dossier',
  immutable: { modelId: belongsTo('models') },
  fields: {
    position: z.number('a place in the order'),
    name: name('The part’s name'),
    job: text(200).default(''),
    material: z.enum(MATERIALS).default('hard plastic'),
    fixing: z.enum(FIXINGS).default('none'),
    moves: z.int('a whole number of moves').min(0, 'at least 0').max(1000, 'at most 1000').default(1),
    seconds: within(0, 86400, 's').default(0),
    /** Parts that must come off before it; null: everything above it in the list. */
    after: z.array(Id).max(60, 'at most 60 parts').nullable().default(null),
    /** Seconds clean, and refit (s). */
    cleaning: within(0, 86400, 's').nullable().default(null),
    back: within(0, 86400, 's').nullable().default(null),
    reach: z.enum(REACHES).nullable().default(null),
    checklist: z.string().max(40).default('general'),
    findings: z.array(z.string().max(40)).max(12, 'at most 12 findings').default([]),
    sparePriceMinor: minor.nullable().default(null),
    spareCurrency: currency.nullable().default(null),
    sparePricedOn: Day.nullable().default(null),
    wetMass: within(0, 200, 'kg').nullable().default(null),
    note: text(2000).default(''),
    /** Correct position, the mark that says so, whether it can go in wrong (null: not tried), and what follows. */
    goesIn: text(200).default(''),
    mark: text(120).default(''),
    canGoWrong: z.boolean().nullable().default(null),
    follows: text(200).default(''),
    typed: Typed.default({}),
  },
})

/** A photo's record; the picture itself is at `/photos/{id}/full` and `/photos/{id}/thumb`. */
export const photos = resource({
  path: 'photos',
  singular: 'photo',
  servedIn: 'dossier',
  immutable: {
    partId: belongsTo('parts').nullable().default(null),
    trialId: belongsTo('trials').nullable().default(null),
    visitId: belongsTo('visits').nullable().default(null),
  },
  fields: { caption: text(200).default('') },
  serverOnly: { width: z.int().default(0), height: z.int().default(0), bytes: z.int().default(0) },
})

const size = within(0.001, 5, 'm')
export const bodies = resource({
  path: 'bodies',
  singular: 'body',
  servedIn: 'dossier',
  immutable: { modelId: belongsTo('models') },
  fields: {
    outerWidth: size,
    outerDepth: size,
    outerHeight: size,
    overhang: within(0, 2, 'm').nullable().default(null),
    heightWithHoses: size.nullable().default(null),
    hookOpening: within(0.001, 0.5, 'm').nullable().default(null),
    intakeReach: within(0.01, 5, 'm').nullable().default(null),
    waterFill: within(1e-5, 2, 'm³').nullable().default(null),
    emptyMass: within(0, 500, 'kg').nullable().default(null),
    fullMass: within(0, 1000, 'kg').nullable().default(null),
    typed: Typed.default({}),
  },
})

/** Nothing that holds water is thinner than a millimetre. */
const length = within(0.001, 5, 'm')
const distance = within(0, 5, 'm')
export const chambers = resource({
  path: 'chambers',
  singular: 'chamber',
  servedIn: 'dossier',
  immutable: { modelId: belongsTo('models') },
  fields: {
    position: z.number('a place in the order'),
    name: name('The chamber’s name'),
    role: z.enum(CHAMBER_ROLES).default('tray'),
    shape: z.enum(SOLID_SHAPES).default('box'),
    width: length.default(0.1),
    depth: length.default(0.1),
    height: length.default(0.1),
    diameter: length.default(0.1),
    innerDiameter: length.default(0.05),
    topWidth: length.default(0.1),
    topDepth: length.default(0.1),
    topDiameter: length.default(0.1),
    lowHeight: distance.default(0.05),
    volume: within(1e-6, 2, 'm³').default(0.001),
    x: within(-5, 5, 'm').default(0),
    y: within(-5, 5, 'm').default(0),
    usableHeight: length.nullable().default(null),
    rim: distance.nullable().default(null),
    perforated: within(0, 1, '(share of the floor)').nullable().default(null),
    displaced: within(0, 2, 'm³').nullable().default(null),
    use: z.enum(LITRE_NAMES).default('biological'),
    way: z.enum(WAYS).nullable().default(null),
    beside: z.boolean().nullable().default(null),
    overflowSill: within(0.0005, 1, 'm').nullable().default(null),
    wallGap: within(0.0001, 0.1, 'm').nullable().default(null),
    measured: z.boolean().default(false),
    typed: Typed.default({}),
  },
})

export type ContentItem = z.infer<typeof contents.Row>
export type Part = z.infer<typeof parts.Row>
export type Photo = z.infer<typeof photos.Row>
export type Body = z.infer<typeof bodies.Row>
export type Chamber = z.infer<typeof chambers.Row>
