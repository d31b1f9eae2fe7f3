import { LENGTHS } from '@ypsometer/core/review/blocks'
import { DISCLOSED } from '@ypsometer/core/review/disclosure'
import { FILTER_KINDS } from '@ypsometer/core/kinds/filters'
import { z } from 'zod'
import { Day, plainKey } from './common'
import { Figure, InlineNumber } from './figures'
import { EditionHead, REVIEW_STATES } from './reviews'
import { bodies, chambers } from './teardown'

const words = z.string().max(20_000)
const from = z.enum(LENGTHS)
const Sentence = z.array(z.union([z.string(), InlineNumber]))
const Block = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('text'),
    from,
    tone: z.enum(['for', 'against', 'caution', 'note']),
    sentence: Sentence,
  }),
  z.strictObject({ kind: z.literal('numbers'), from, figures: z.array(Figure) }),
  z.strictObject({
    kind: z.literal('table'),
    from,
    head: z.array(words),
    rows: z.array(z.array(z.union([z.string(), Figure, z.null()]))),
    both: z.literal(true).optional(),
  }),
  z.strictObject({ kind: z.literal('drawing'), from }),
  z.strictObject({
    kind: z.literal('photos'),
    from,
    photos: z.array(
      z.strictObject({ id: z.uuid(), caption: words, width: z.int().min(1), height: z.int().min(1) }),
    ),
  }),
])

/** A review's numbers as a document has them: what is drawn is held to its shape, what it was made from goes along. */
const SnapshotShape = z.strictObject({
  format: z.literal('ypsometer-review'),
  version: z.literal(1),
  on: Day,
  core: z.string().max(80),
  inputs: z.record(z.string(), z.json()),
  sheet: z.strictObject({
    version: z.literal(1),
    on: Day,
    maker: words,
    name: words,
    kind: words,
    house: words,
    disclosure: words,
    open: z.array(z.enum([...DISCLOSED, 'obtained'])).optional(),
    beholden: z.boolean(),
    sections: z.array(z.strictObject({ id: plainKey(60), title: words, blocks: z.array(Block) })).max(60),
  }),
  drawing: z
    .object({
      bodies: z.array(bodies.Row),
      chambers: z.array(chambers.Row),
      kind: z.enum(FILTER_KINDS),
      name: words,
      litres: z.record(plainKey(60), z.number()),
    })
    .nullable(),
})

/** A value of a shape, kept as it is: what a newer program added to it is not dropped. */
const kept = <T extends z.ZodType>(shape: T) =>
  z.json().superRefine((value, ctx) => {
    for (const issue of shape.safeParse(value).error?.issues.slice(0, 5) ?? [])
      ctx.addIssue({ code: 'custom', message: issue.message, path: issue.path })
  })

/** Content of a review in a document besides its words: the numbers of its draft, and every edition as it was. */
export const reviewDocumentFields = {
  state: z.enum(REVIEW_STATES),
  publishedOn: Day.nullable(),
  withdrawnOn: Day.nullable(),
  withdrawnWhy: z.string().max(2000),
  takenOn: Day,
  draft: kept(SnapshotShape),
  published: z.array(kept(EditionHead.extend({ snapshot: SnapshotShape }))).max(200, 'at most 200 editions'),
} as const
