import { z } from 'zod'
import { Id, name } from './common'

/** Roles of people: an owner looks after people too, an editor writes, a reader reads. */
export const ROLES = ['owner', 'editor', 'reader'] as const
export const Role = z.enum(ROLES, { error: 'owner, editor or reader' })
export type Role = z.infer<typeof Role>

/** Purpose of a one-time link: to come in, or to come in again. */
export const PASS_PURPOSES = ['invitation', 'recovery'] as const

export const PersonName = name('a name', 60)
/** No rule of what it is made of; the server also refuses one that is soon guessed. */
export const Password = z
  .string()
  .min(12, 'at least 12 characters; a few words that do not belong together are good')
  .max(128, 'at most 128 characters')

const Person = z.object({ id: Id, name: z.string(), role: Role })
export type Person = z.infer<typeof Person>

/** `GET /me`: who asks, and how they come to be let in. */
export const Me = z.object({
  person: Person.nullable(),
  /** A visitor of this machine's own bench, or somebody who signed in. */
  by: z.enum(['visitor', 'session']).nullable(),
  /** Nobody owns this bench yet: whoever sits at this machine may. */
  unowned: z.boolean(),
})
export type Me = z.infer<typeof Me>

export const SignIn = z.strictObject({
  name: z.string().max(60, 'at most 60 characters'),
  password: z.string().max(128, 'at most 128 characters'),
})
export const FirstOwner = z.strictObject({ name: PersonName, password: Password })
export const NewPassword = z.strictObject({ password: z.string().max(128), next: Password })

export const PersonRow = Person.extend({
  createdAt: z.string(),
  /** Has a password, so can sign in. */
  joined: z.boolean(),
  /** When they were last here; told to owners. */
  seenAt: z.string().nullable(),
  sessions: z.int(),
})
export type PersonRow = z.infer<typeof PersonRow>
export const PeopleList = z.object({ items: z.array(PersonRow) })
export const NewPerson = z.strictObject({ name: PersonName, role: Role })
export const PersonPatch = z.strictObject({ name: PersonName, role: Role }).partial()
/** The secret of a one-time link, told this once, and when it ends. */
export const PassMade = z.object({ person: PersonRow, secret: z.string(), endsAt: z.string() })
export type PassMade = z.infer<typeof PassMade>

const secret = z.string().max(200)
export const PassLook = z.strictObject({ secret })
export const PassSeen = z.object({ name: z.string(), role: Role, purpose: z.enum(PASS_PURPOSES) })
export type PassSeen = z.infer<typeof PassSeen>
export const PassUse = z.strictObject({ secret, password: Password })

export const SessionRow = z.object({
  id: Id,
  createdAt: z.string(),
  seenAt: z.string(),
  endsAt: z.string(),
  address: z.string(),
  agent: z.string(),
  /** The one that asks. */
  here: z.boolean(),
})
export type SessionRow = z.infer<typeof SessionRow>
export const SessionList = z.object({ items: z.array(SessionRow) })

/** `POST /presence`: where a page is, so that others see it. */
export const Presence = z.strictObject({
  page: Id,
  /** The model or tank that is open; nowhere when it is left. */
  at: Id.nullable(),
  /** The row and field that the cursor is in. */
  row: Id.nullable(),
  field: z.string().max(60).nullable(),
  /** Just come: the others there say that they are. */
  hello: z.boolean(),
})
export type Presence = z.infer<typeof Presence>
/** Presence of a page, as every other is told. */
export interface Here extends Presence {
  readonly who: Pick<Person, 'id' | 'name'>
}
