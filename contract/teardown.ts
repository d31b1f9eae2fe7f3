import { FIXINGS, FOUND, MATERIALS, REACHES } from '@ypsometer/core/teardown'
import { CHAMBER_ROLES, LITRE_NAMES, SOLID_SHAPES, WAYS } from '@ypsometer/core/volumes'
import { z } from 'zod'
import { Id, name, rowBase, text, Typed, within } from './common'

const contentFields = { name: name('The item'), found: z.enum(FOUND), note: text(400) }
export const ContentItem = z.object({ ...rowBase, modelId: Id, position: z.number(), ...contentFields })
export const ContentItemCreate = z.object({
  id: Id,
  modelId: Id,
  position: z.number().default(0),
  name: contentFields.name,
  found: contentFields.found.default('present'),
  note: contentFields.note.default(''),
})
export const ContentItemPatch = z.object({ position: z.number(), ...contentFields }).partial()

const partFields = {
  position: z.number('a place in the order'),
  name: name('The part’s name'),
  job: text(200),
  material: z.enum(MATERIALS),
  fixing: z.enum(FIXINGS),
  moves: z.int('a whole number of moves').min(0, 'at least 0').max(1000, 'at most 1000'),
  seconds: within(0, 86400, 's'),
  reach: z.enum(REACHES).nullable(),
  checklist: z.string().max(40),
  findings: z.array(z.string().max(40)).max(12, 'at most 12 findings'),
  sparePriceMinor: z.int().min(0).max(1e9).nullable(),
  spareCurrency: z
    .string()
    .regex(/^[A-Z]{3}$/, 'a three-letter currency code such as EUR')
    .nullable(),
  wetMass: within(0, 200, 'kg').nullable(),
  note: text(2000),
  typed: Typed,
}
export const Part = z.object({ ...rowBase, modelId: Id, ...partFields })
export const PartCreate = z.object({
  id: Id,
  modelId: Id,
  position: partFields.position,
  name: partFields.name,
  job: partFields.job.default(''),
  material: partFields.material.default('hard plastic'),
  fixing: partFields.fixing.default('none'),
  moves: partFields.moves.default(1),
  seconds: partFields.seconds.default(0),
  reach: partFields.reach.default(null),
  checklist: partFields.checklist.default('general'),
  findings: partFields.findings.default([]),
  sparePriceMinor: partFields.sparePriceMinor.default(null),
  spareCurrency: partFields.spareCurrency.default(null),
  wetMass: partFields.wetMass.default(null),
  note: partFields.note.default(''),
  typed: Typed.default({}),
})
export const PartPatch = z.object(partFields).partial()

const photoFields = { caption: text(200) }
/** A photo's record; the picture itself is at `/photos/{id}/full` and `/photos/{id}/thumb`. */
export const Photo = z.object({
  ...rowBase,
  partId: Id.nullable(),
  trialId: Id.nullable(),
  width: z.int(),
  height: z.int(),
  bytes: z.int(),
  ...photoFields,
})
export const PhotoPatch = z.object(photoFields).partial()

const size = within(0.001, 5, 'm')
const bodyFields = {
  outerWidth: size,
  outerDepth: size,
  outerHeight: size,
  overhang: within(0, 2, 'm').nullable(),
  heightWithHoses: size.nullable(),
  waterFill: within(1e-5, 2, 'm³').nullable(),
  emptyMass: within(0, 500, 'kg').nullable(),
  fullMass: within(0, 1000, 'kg').nullable(),
  typed: Typed,
}
export const Body = z.object({ ...rowBase, modelId: Id, ...bodyFields })
export const BodyCreate = z.object({
  id: Id,
  modelId: Id,
  outerWidth: size,
  outerDepth: size,
  outerHeight: size,
  overhang: bodyFields.overhang.default(null),
  heightWithHoses: bodyFields.heightWithHoses.default(null),
  waterFill: bodyFields.waterFill.default(null),
  emptyMass: bodyFields.emptyMass.default(null),
  fullMass: bodyFields.fullMass.default(null),
  typed: Typed.default({}),
})
export const BodyPatch = z.object(bodyFields).partial()

const length = within(0, 5, 'm')
const chamberFields = {
  position: z.number('a place in the order'),
  name: name('The chamber’s name'),
  role: z.enum(CHAMBER_ROLES),
  shape: z.enum(SOLID_SHAPES),
  width: length,
  depth: length,
  height: length,
  diameter: length,
  innerDiameter: length,
  topWidth: length,
  topDepth: length,
  topDiameter: length,
  lowHeight: length,
  volume: within(0, 2, 'm³'),
  x: within(-5, 5, 'm'),
  y: within(-5, 5, 'm'),
  usableHeight: length.nullable(),
  rim: length.nullable(),
  perforated: within(0, 1, '(share of the floor)').nullable(),
  displaced: within(0, 2, 'm³').nullable(),
  use: z.enum(LITRE_NAMES),
  way: z.enum(WAYS).nullable(),
  beside: z.boolean().nullable(),
  overflowSill: within(0.0005, 1, 'm').nullable(),
  wallGap: within(0.0001, 0.1, 'm').nullable(),
  measured: z.boolean(),
  typed: Typed,
}
export const Chamber = z.object({ ...rowBase, modelId: Id, ...chamberFields })
export const ChamberCreate = z.object({
  id: Id,
  modelId: Id,
  position: chamberFields.position,
  name: chamberFields.name,
  role: chamberFields.role.default('tray'),
  shape: chamberFields.shape.default('box'),
  width: length.default(0.1),
  depth: length.default(0.1),
  height: length.default(0.1),
  diameter: length.default(0.1),
  innerDiameter: length.default(0.05),
  topWidth: length.default(0.1),
  topDepth: length.default(0.1),
  topDiameter: length.default(0.1),
  lowHeight: length.default(0.05),
  volume: chamberFields.volume.default(0.001),
  x: chamberFields.x.default(0),
  y: chamberFields.y.default(0),
  usableHeight: chamberFields.usableHeight.default(null),
  rim: chamberFields.rim.default(null),
  perforated: chamberFields.perforated.default(null),
  displaced: chamberFields.displaced.default(null),
  use: chamberFields.use.default('biological'),
  way: chamberFields.way.default(null),
  beside: chamberFields.beside.default(null),
  overflowSill: chamberFields.overflowSill.default(null),
  wallGap: chamberFields.wallGap.default(null),
  measured: z.boolean().default(false),
  typed: Typed.default({}),
})
export const ChamberPatch = z.object(chamberFields).partial()

export type ContentItem = z.infer<typeof ContentItem>
export type Part = z.infer<typeof Part>
export type Photo = z.infer<typeof Photo>
export type Body = z.infer<typeof Body>
export type Chamber = z.infer<typeof Chamber>
