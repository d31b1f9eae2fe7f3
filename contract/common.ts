import { z } from 'zod'

const ID = 'an id (UUID) made by the client'
export const Id = z.uuid(ID)

/** Link of a field to the row it names. */
export interface Link {
  /** The kind of row, by its path. */
  readonly to: string
  /** The row belongs to it: it goes with it, and nothing is written under one that was deleted. */
  readonly owner: boolean
}
/** The links that fields declare with `belongsTo` and `refersTo`. */
export const LINKS = z.registry<Link>()
/** The id of the row that this one belongs to. */
export const belongsTo = (to: string) => z.uuid(ID).register(LINKS, { to, owner: true })
/** The id of another row; where it may be null, that row may go. */
export const refersTo = (to: string) => z.uuid(ID).register(LINKS, { to, owner: false })

/** Most fields of a row whose texts are kept. */
const MOST_TYPED = 60
/** Text a person typed for a field, kept beside its SI value: { lift: "3 ft 2" }. */
export const Typed = z
  .record(z.string().max(40), z.string().max(80))
  .refine((t) => Object.keys(t).length <= MOST_TYPED, `at most ${MOST_TYPED} texts`)

/** Columns every editable row has. */
export const rowBase = {
  id: Id,
  version: z.int(),
  createdAt: z.string(),
  updatedAt: z.string(),
  deletedAt: z.string().nullable(),
}

/** A day of the calendar, as the records keep it. */
export const Day = z.iso.date('a date such as 2026-04-18')

/** A number in SI within bounds; the message says what is accepted, and the schema which unit it is in. */
export const within = (min: number, max: number, unit: string) =>
  z
    .number({ error: `a number of ${unit}` })
    .min(min, `at least ${min} ${unit}`)
    .max(max, `at most ${max} ${unit}`)
    .meta({ unit })

/** A name of something within a record: a letter or digit first, and none that every object has already. */
export const plainKey = (most: number) =>
  z
    .string()
    .max(most)
    .regex(/^[\p{L}\p{N}]/u, 'a name that begins with a letter or digit')
    .refine((k) => !(k in Object.prototype), 'a name of its own')

/** Money: whole minor units of a currency, and the currency's code. */
export const minor = z.int('a whole number of minor units').min(0, 'at least 0').max(1e9, 'at most 1e9')
export const currency = z.string().regex(/^[A-Z]{3}$/, 'a three-letter currency code such as EUR')

export const text = (max: number) => z.string().max(max, `at most ${max} characters`)
/** A name: at least one character that can be seen. */
export const name = (what: string, max = 80) =>
  z
    .string()
    .trim()
    .min(1, { error: `${what}, at least one character`, abort: true })
    .max(max, `at most ${max} characters`)
    .regex(/[^\p{C}\p{Z}\p{M}]/u, `${what}, with at least one character that can be seen`)

/** A moment in ISO 8601, within the lifetime of people who keep records of it. */
export const moment = z.iso
  .datetime({ error: 'a time such as 2026-11-25T10:00:00Z', abort: true })
  .refine((t) => t >= '1970' && t < '2200', 'a time from 1970 to 2199')

/** An RFC 9457 problem. `field` is the path of the field at fault, `accepted` what would be taken. */
export const Problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string().optional(),
  code: z.string().optional(),
  errors: z.array(z.object({ field: z.string(), message: z.string() })).optional(),
  current: z.unknown().optional(),
})
export type Problem = z.infer<typeof Problem>
