import { z } from 'zod'
import { moment } from './common'
import { RESOURCE_NAMES, RESOURCES, type CreatedOf, type ResourceName } from './resources'
import { reviewDocumentFields } from './reviewDocument'

/** The version of the open document that is written; older ones are read. */
export const DOCUMENT_VERSION = 1

/** Subject of a document: one thing with all it stands on, or the whole bench. */
export const SUBJECTS = ['model', 'tank', 'medium', 'house-rule', 'review', 'bench'] as const
export type Subject = (typeof SUBJECTS)[number]

/** Most rows of one kind. */
export const MOST_ROWS = 50_000

/** A row as a document has it: all that a person can give, and when it was made. */
const rowShape = <N extends ResourceName>(name: N) =>
  z.strictObject({
    ...RESOURCES[name].Create.shape,
    ...(name === 'reviews' && reviewDocumentFields),
    createdAt: moment.optional(),
  })
/** Fields of a row of a document, in their order. */
export const documentFields = (name: ResourceName): readonly string[] =>
  Object.keys(rowShape(name).shape).filter((f) => f !== 'createdAt')
export type DocumentRow<N extends ResourceName> = CreatedOf<N> & { readonly createdAt?: string | undefined }

const rows = Object.fromEntries(
  RESOURCE_NAMES.map((name) => [
    name,
    z.array(rowShape(name)).max(MOST_ROWS, `at most ${MOST_ROWS} rows`).optional(),
  ]),
) as { [N in ResourceName]: z.ZodOptional<z.ZodArray<ReturnType<typeof rowShape<N>>>> }

/** The open document, `.ypso.json`. */
export const YpsoDocument = z.strictObject({
  format: z.literal('ypsometer', { error: 'the word “ypsometer”: this is no document of this program' }),
  version: z.literal(DOCUMENT_VERSION, {
    error: `version ${DOCUMENT_VERSION}: one written by a newer program is read by a newer program`,
  }),
  subject: z.enum(SUBJECTS),
  rows: z.strictObject(rows),
})
export type YpsoDocument = {
  readonly format: 'ypsometer'
  readonly version: typeof DOCUMENT_VERSION
  readonly subject: Subject
  readonly rows: { readonly [N in ResourceName]?: readonly DocumentRow<N>[] | undefined }
}

/** A value with its keys in one order, whatever kept it. */
const sorted = (v: unknown): unknown => {
  if (Array.isArray(v)) return v.map(sorted)
  if (!v || typeof v !== 'object') return v
  return Object.fromEntries(
    Object.entries(v)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([k, x]) => [k, sorted(x)]),
  )
}

/** A document as text: fields in the order they are declared, so that the same rows give the same bytes. */
export function documentText(d: YpsoDocument): string {
  const inOrder = (name: ResourceName, row: object): object =>
    Object.fromEntries(
      [...documentFields(name), 'createdAt'].flatMap((k) =>
        k in row ? [[k, sorted(row[k as keyof typeof row])]] : [],
      ),
    )
  const ordered = Object.fromEntries(
    RESOURCE_NAMES.flatMap((name) => {
      const list = d.rows[name] as readonly object[] | undefined
      return list?.length ? [[name, list.map((r) => inOrder(name, r))]] : []
    }),
  )
  const { format, version, subject } = d
  return `${JSON.stringify({ format, version, subject, rows: ordered }, null, 1)}\n`
}

/** `POST /documents/preview` and `/documents`: the text of a document as it is. */
export const DocumentText = z.object({
  text: z.string().min(2, 'the text of a document').max(30_000_000, 'at most 30 MB'),
})

export const ROW_STATES = ['new', 'same', 'changed'] as const
const Value = z.unknown()
/** Report of an import, done or looked at: what becomes of the rows, and what is refused, with its line. */
export const ImportReport = z.object({
  subject: z.enum(SUBJECTS),
  counts: z.object({ new: z.int(), same: z.int(), changed: z.int() }),
  rows: z.array(
    z.object({
      collection: z.enum(RESOURCE_NAMES),
      id: z.string(),
      name: z.string(),
      state: z.enum(ROW_STATES),
      fields: z.array(z.object({ field: z.string(), then: Value, now: Value })),
    }),
  ),
  refused: z.array(z.object({ line: z.int().nullable(), field: z.string(), message: z.string() })),
  /** The way to take it back; null for a preview, or where nothing was written. */
  undo: z.string().nullable(),
})
export type ImportReport = z.infer<typeof ImportReport>
