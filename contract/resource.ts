import { z } from 'zod'
import { Id, rowBase } from './common'
import { linksOf, type FieldLink } from './schema'

export type Shape = Readonly<Record<string, z.ZodType>>

/** Fields without their defaults: what a stored row holds, and what a change may hold. */
type Bare<F extends Shape> = {
  -readonly [K in keyof F]: F[K] extends z.ZodDefault<infer S extends z.ZodType> ? S : F[K]
}
/** The fields that have a default. */
type Defaults<F extends Shape> = {
  [K in keyof F as F[K] extends z.ZodDefault ? K : never]: z.output<F[K]>
}

type RowBase = typeof rowBase
type RowShape<G extends Shape, F extends Shape, A extends Shape> = RowBase & Bare<G> & Bare<F> & Bare<A>
type CreateShape<G extends Shape, F extends Shape, S extends Shape> = { readonly id: typeof Id } & G & F & S
type PatchShape<F extends Shape> = { [K in keyof Bare<F>]: z.ZodOptional<Bare<F>[K]> }

type Served = 'dossier' | 'list' | 'shelf'

interface Declaration<
  P extends string,
  W extends Served,
  G extends Shape,
  F extends Shape,
  A extends Shape = object & Shape,
  S extends Shape = object & Shape,
> {
  /** Where its rows are: `/api/v1/{path}`. */
  readonly path: P
  /** Name of one of them in a sentence. */
  readonly singular: string
  /** Where its rows travel: in the dossier of the model they belong to, in a list of their own, or on the shelf. */
  readonly servedIn: W
  /** The field that its rows are ordered by in their dossier; else when they were made. */
  readonly orderedBy?: string
  /** Given when a row is made, and never changed. */
  readonly immutable: G
  /** Fields a person can change. One with a default need not be given when a row is made. */
  readonly fields: F
  /** Fields the server adds: in rows only. One with a default has it until the server says otherwise. */
  readonly serverOnly?: A
  /** Fields sent when a row is made that do not travel with it afterwards. */
  readonly createOnly?: S
}

/**
 * One kind of row, declared once: its fields with their limits, defaults and links give the row as it travels, what
 * makes one, what changes one, the values it starts from, the columns of its table, and what it hangs on.
 */
export interface Resource<
  P extends string = string,
  W extends Served = Served,
  G extends Shape = Shape,
  F extends Shape = Shape,
  A extends Shape = Shape,
  S extends Shape = Shape,
> {
  readonly path: P
  readonly singular: string
  readonly servedIn: W
  readonly orderedBy: string | null
  readonly Row: z.ZodObject<RowShape<G, F, A>>
  readonly Create: z.ZodObject<CreateShape<G, F, S>>
  readonly Patch: z.ZodObject<PatchShape<F>>
  readonly defaults: Defaults<G & F & A>
  /** Every field of a row as it was declared, but for those that all rows have. */
  readonly declared: G & F & A
  /** The fields, of itself and within others, that name another row. */
  readonly links: readonly FieldLink[]
}

const bare = (s: z.ZodType): z.ZodType => (s instanceof z.ZodDefault ? (s.unwrap() as z.ZodType) : s)
const allBare = <F extends Shape>(fields: F | undefined): Bare<F> =>
  Object.fromEntries(Object.entries(fields ?? {}).map(([k, s]) => [k, bare(s)])) as Bare<F>

/** Declares a resource; see {@link Resource}. */
export function resource<
  const P extends string,
  const W extends Served,
  G extends Shape,
  F extends Shape,
  A extends Shape = Record<never, z.ZodType>,
  S extends Shape = Record<never, z.ZodType>,
>(d: Declaration<P, W, G, F, A, S>): Resource<P, W, G, F, A, S> {
  const declared = { ...d.immutable, ...d.fields, ...d.serverOnly } as G & F & A
  const usual = Object.entries(declared).filter(([, s]) => s instanceof z.ZodDefault)
  // Shapes put together from parts are of the types put together from theirs, which the compiler cannot follow.
  const row = { ...rowBase, ...allBare(declared) } as unknown as RowShape<G, F, A>
  const create = { id: Id, ...d.immutable, ...d.fields, ...d.createOnly } as CreateShape<G, F, S>
  return {
    path: d.path,
    singular: d.singular,
    servedIn: d.servedIn,
    orderedBy: d.orderedBy ?? null,
    Row: z.object(row) as z.ZodObject<RowShape<G, F, A>>,
    Create: z.strictObject(create) as z.ZodObject<CreateShape<G, F, S>>,
    Patch: z.strictObject(allBare(d.fields)).partial() as z.ZodObject<PatchShape<F>>,
    defaults: Object.fromEntries(usual.map(([k, s]) => [k, s.parse(undefined)])) as Defaults<G & F & A>,
    declared,
    links: linksOf(declared),
  }
}
