import { z } from 'zod'
import { Id, rowBase } from './common'

type Shape = Readonly<Record<string, z.ZodType>>

/** Fields without their defaults: what a stored row holds, and what a change may hold. */
type Bare<F extends Shape> = { -readonly [K in keyof F]: F[K] extends z.ZodDefault<infer S> ? S : F[K] }
/** The fields that have a default. */
type Defaults<F extends Shape> = {
  [K in keyof F as F[K] extends z.ZodDefault ? K : never]: z.output<F[K]>
}

type RowBase = typeof rowBase
type RowShape<G extends Shape, F extends Shape, A extends Shape> = RowBase & Bare<G> & Bare<F> & A
type CreateShape<G extends Shape, F extends Shape, S extends Shape> = { readonly id: typeof Id } & G & F & S
type PatchShape<F extends Shape> = { [K in keyof Bare<F>]: z.ZodOptional<Bare<F>[K]> }

interface Declaration<
  P extends string,
  G extends Shape,
  F extends Shape,
  A extends Shape = object & Shape,
  S extends Shape = object & Shape,
> {
  /** Where its rows are: `/api/v1/{path}`. */
  readonly path: P
  /** What one of them is called in a sentence. */
  readonly one: string
  /** Given when a row is made, and never changed. */
  readonly given: G
  /** What a person can change. A field with a default need not be given when a row is made. */
  readonly fields: F
  /** What the server adds: in rows only. */
  readonly added?: A
  /** What is sent when a row is made and does not travel with it afterwards. */
  readonly sent?: S
}

/**
 * One kind of row, declared once: its fields with their limits and defaults give the row as it travels, what makes one,
 * what changes one, and the values it starts from.
 */
export interface Resource<
  P extends string = string,
  G extends Shape = Shape,
  F extends Shape = Shape,
  A extends Shape = Shape,
  S extends Shape = Shape,
> {
  readonly path: P
  readonly one: string
  readonly Row: z.ZodObject<RowShape<G, F, A>>
  readonly Create: z.ZodObject<CreateShape<G, F, S>>
  readonly Patch: z.ZodObject<PatchShape<F>>
  readonly defaults: Defaults<G & F>
}

const bare = (s: z.ZodType): z.ZodType => (s instanceof z.ZodDefault ? (s.unwrap() as z.ZodType) : s)
const allBare = <F extends Shape>(fields: F): Bare<F> =>
  Object.fromEntries(Object.entries(fields).map(([k, s]) => [k, bare(s)])) as Bare<F>

/** Declares a resource; see {@link Resource}. */
export function resource<
  const P extends string,
  G extends Shape,
  F extends Shape,
  A extends Shape = Record<never, z.ZodType>,
  S extends Shape = Record<never, z.ZodType>,
>(d: Declaration<P, G, F, A, S>): Resource<P, G, F, A, S> {
  const usual = Object.entries({ ...d.given, ...d.fields }).filter(([, s]) => s instanceof z.ZodDefault)
  // Shapes put together from parts are of the types put together from theirs, which the compiler cannot follow.
  const row = { ...rowBase, ...allBare(d.given), ...allBare(d.fields), ...d.added } as RowShape<G, F, A>
  const create = { id: Id, ...d.given, ...d.fields, ...d.sent } as CreateShape<G, F, S>
  return {
    path: d.path,
    one: d.one,
    Row: z.object(row) as z.ZodObject<RowShape<G, F, A>>,
    Create: z.strictObject(create) as z.ZodObject<CreateShape<G, F, S>>,
    Patch: z.strictObject(allBare(d.fields)).partial() as z.ZodObject<PatchShape<F>>,
    defaults: Object.fromEntries(usual.map(([k, s]) => [k, s.parse(undefined)])) as Defaults<G & F>,
  }
}
