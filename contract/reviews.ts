import type { Sheet } from '@ypsometer/core/review/sheet'
import { z } from 'zod'
import { belongsTo, Day, Id, plainKey, text } from './common'
import { BUYS } from './lists'
import { resource } from './resource'

export const REVIEW_STATES = ['draft', 'published', 'corrected', 'withdrawn'] as const

const WORDS = 8000
/** The editor’s words: under the sections of the sheet, by their ids. */
const Words = z
  .record(plainKey(40), text(WORDS))
  .refine((w) => Object.keys(w).length <= 40, 'at most 40 sections')

/** A review: words round numbers that only the server takes; see `Snapshot` for those. */
export const reviews = resource({
  path: 'reviews',
  singular: 'review',
  servedIn: 'list',
  immutable: { modelId: belongsTo('models') },
  fields: {
    title: text(200).default(''),
    intro: text(WORDS).default(''),
    words: Words.default({}),
    buy: z.enum(BUYS).nullable().default(null),
    buyWhy: text(2000).default(''),
  },
  serverOnly: {
    state: z.enum(REVIEW_STATES).default('draft'),
    editions: z.int().default(0),
    publishedOn: Day.nullable().default(null),
    withdrawnOn: Day.nullable().default(null),
    withdrawnWhy: z.string().default(''),
    takenOn: Day,
  },
})
export type Review = z.infer<typeof reviews.Row>

/** `POST /reviews`: the server takes the numbers. */
export const NewReview = z.strictObject({ id: Id, modelId: Id, title: text(200).default('') })
const needed = (what: string) => z.string().trim().min(1, what).max(2000, 'at most 2000 characters')
/** `POST /reviews/{id}/publish`: what was wrong and why, from the second edition on. */
export const Publishing = z.strictObject({
  what: needed('what was wrong').optional(),
  why: needed('why it was').optional(),
  /** Why it is published although the checklist is not met; printed with it. */
  anyway: needed('why it is published as it is').optional(),
})
/** `POST /reviews/{id}/withdraw`. */
export const Withdrawing = z.strictObject({ why: needed('why it is taken back') })

/** The editor’s words as they were published. */
export const EditedWords = z.object({
  title: z.string(),
  intro: z.string(),
  words: z.record(plainKey(40), z.string()),
  buy: z.enum(BUYS).nullable(),
  buyWhy: z.string(),
  /** Why it was published although something was lacking. */
  anyway: z.string().optional(),
})
export type EditedWords = z.infer<typeof EditedWords>

/** One published edition: its words, and its snapshot as `Snapshot` of `contract/review`. */
export interface Edition {
  readonly number: number
  readonly publishedOn: string
  /** The correction and its reason, from the second on. */
  readonly erratum: { readonly what: string; readonly why: string } | null
  readonly words: EditedWords
}
export const EditionHead = z.object({
  number: z.int(),
  publishedOn: Day,
  erratum: z.object({ what: z.string(), why: z.string() }).nullable(),
  words: EditedWords,
})

export const ReviewShare = z.object({
  id: Id,
  label: z.string(),
  createdAt: z.string(),
  expiresOn: Day.nullable(),
  revokedAt: z.string().nullable(),
  readings: z.int(),
})
export type ReviewShare = z.infer<typeof ReviewShare>
/** `POST /reviews/{id}/shares`; the secret is told once. */
export const NewShare = z.strictObject({
  label: text(80).default(''),
  expiresOn: Day.nullable().default(null),
})

/** `GET /shared/{secret}`: one review and nothing else. */
export interface SharedReview {
  readonly state: Review['state']
  readonly withdrawn: { readonly on: string; readonly why: string } | null
  readonly editions: readonly Omit<Edition, 'words'>[]
  /** Null once it was withdrawn. */
  readonly edition:
    | (Edition & { readonly sheet: Sheet; readonly drawing: unknown; readonly core: string })
    | null
}
