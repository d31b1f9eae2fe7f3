import {
  documentFields,
  momentsOf,
  RESOURCES,
  type CreatedOf,
  type PatchOf,
  type ResourceName,
  type RowOf,
} from '@ypsometer/contract'
import { and, eq, getTableColumns, sql, type SQL } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import type { Db, Tx } from '../db/client'
import { differences, remember, type Named } from '../db/remember'
import { fieldProblem, problem } from './problems'
import { TABLES } from '../db/schema'
import { checkReferences, referencesOf, type Reference } from './references'

/** Columns that hold a moment; they travel as ISO text. */
type Time = 'createdAt' | 'updatedAt' | 'deletedAt' | 'takenAt' | 'startedAt'
/** A row of a resource as its table holds it; fields named in F stand in rows of another table. */
export type StoredOf<N extends ResourceName, F extends PropertyKey = never> = {
  [K in Exclude<keyof RowOf<N>, F>]: K extends Time ? Date | Extract<RowOf<N>[K], null> : RowOf<N>[K]
}
/** A table that has a column for every field of a resource. */
type TableOf<N extends ResourceName, F extends PropertyKey> = PgTable & {
  readonly id: PgColumn
  readonly version: PgColumn
  readonly $inferSelect: StoredOf<N, F>
}

/** Row as it is checked before it is written: its body, with the defaults in. */
export type Written<N extends ResourceName> = Pick<CreatedOf<N>, keyof CreatedOf<N> & keyof RowOf<N>>

/** A field whose value stands in rows of another table and is replaced as a whole. */
export interface Parts<F extends PropertyKey, V> {
  readonly field: F
  readonly replace: (tx: Tx, id: string, value: V) => Promise<void>
  /** The values by the id of the row they belong to. */
  readonly read: (db: Db | Tx, ids: readonly string[]) => Promise<ReadonlyMap<string, V>>
}

/** Specials of kinds of rows. */
export type Specials = {
  // oxlint-disable-next-line typescript/no-explicit-any -- what stands elsewhere is of its resource's own type
  readonly [N in ResourceName]?: Omit<Editable<N, any>, 'name'>
}

// oxlint-disable-next-line typescript/no-explicit-any -- what stands elsewhere is of its resource's own type
export type AnyParts = Parts<any, any>

/** How a list is ordered, and what of it is left out. */
export interface Listing {
  /** Order of its rows, as text that sorts; else when they were made. */
  readonly by?: SQL<string>
  readonly newestFirst?: true
  readonly where?: SQL
}

/** One editable resource: what is special about it beyond what the contract declares. */
export interface Editable<N extends ResourceName, F extends keyof RowOf<N> = never> {
  readonly name: N
  /** Throws a problem naming the field when the row as it would become makes no sense. */
  readonly check?: (row: Written<N>) => void
  /** Column values that what makes a row does not hold as they are, such as counts of what it holds. */
  readonly columns?: (created: CreatedOf<N>) => Partial<StoredOf<N, F>>
  readonly parts?: Parts<F, RowOf<N>[F]>
  /** The same for what a row has in a document only. */
  readonly inDocuments?: AnyParts
  /** Brings other rows in line with one that was written. */
  readonly afterWrite?: (tx: Tx, row: RowOf<N>) => Promise<void>
  /**
   * An id says what a row is about, so two people who make it make the same one: the second is given what the first
   * wrote, and one that was taken back is made anew.
   */
  readonly deterministicId?: true
  /** Throws a problem when a row is not to be deleted. */
  readonly mayDelete?: (row: StoredOf<N>) => void
  /** Rows are made another way. */
  readonly madeElsewhere?: boolean
  /** How its list is ordered where it is one of its own. */
  readonly list?: Listing
}

/** Fields with those that hold a moment as `Date`s, as their columns take them. */
export function asMoments<T extends object>(
  name: ResourceName,
  fields: T,
): { [K in keyof T]: K extends Time ? Date : T[K] } {
  const moments = momentsOf(name).flatMap((f) => {
    const at = (fields as Readonly<Record<string, unknown>>)[f]
    return typeof at === 'string' ? [[f, new Date(at)]] : []
  })
  return { ...fields, ...Object.fromEntries(moments) } as { [K in keyof T]: K extends Time ? Date : T[K] }
}

type Travelling<T> = { [K in keyof T]: Date extends T[K] ? Exclude<T[K], Date> | string : T[K] }
/** Dates as ISO strings, everything else as it is: the form in which rows travel. */
export const travelling = <T extends object>(row: T): Travelling<T> =>
  Object.fromEntries(
    Object.entries(row).map(([k, v]: [string, unknown]) => [k, v instanceof Date ? v.toISOString() : v]),
  ) as Travelling<T>

/** A row as a document has it. */
type DocumentRow = Readonly<Record<string, unknown>> & { readonly id: string; readonly createdAt?: string }

/** A row of a resource as it is stored, with its version. */
type Stored<N extends ResourceName, F extends PropertyKey> = StoredOf<N, F> & { version: number }

/** On which version a change is made, and which change it takes back. */
interface Made {
  /** The version it was read at; null for whichever there is. */
  readonly version: number | null
  readonly undoes?: number
}

/** Reads and writes the rows of one resource. The one place where its fields meet Drizzle's own types of columns. */
export class Rows<N extends ResourceName, F extends keyof RowOf<N>> {
  readonly singular: string
  private readonly table: TableOf<N, F>
  /** Columns a row travels with; what is large, such as a picture, is left out. */
  private readonly selected

  constructor(readonly e: Editable<N, F>) {
    const { singular, Row } = RESOURCES[e.name]
    this.singular = singular
    this.table = TABLES[e.name] as unknown as TableOf<N, F>
    const columns = getTableColumns(this.table)
    this.selected = Object.fromEntries(Object.entries(columns).filter(([k]) => k in Row.shape))
  }

  /** @throws a problem (404) where there is no such row. */
  async find(db: Db | Tx, id: string, lock = false): Promise<Stored<N, F>> {
    const row = await this.made(db, id, lock)
    if (!row) throw problem(404, 'not-found', `There is no such ${this.singular}`)
    return row
  }

  /** A row as it travels, with the parts that stand elsewhere. */
  async whole(db: Db | Tx, row: StoredOf<N, F> & { id?: unknown }): Promise<RowOf<N>> {
    const { parts } = this.e
    const own = travelling(row)
    if (!parts) return own as RowOf<N>
    const id = String(row.id)
    return { ...own, [parts.field]: (await parts.read(db, [id])).get(id) } as RowOf<N>
  }

  /** Makes a row. */
  async create(tx: Tx, created: CreatedOf<N>): Promise<RowOf<N>> {
    const { e } = this
    e.check?.(created)
    await checkReferences(tx, referencesOf(e.name, created))
    const there = e.deterministicId && (await this.made(tx, created.id, true))
    if (there && this.isThere(there)) return this.settled(tx, await this.whole(tx, there))
    const row = there
      ? await this.update(tx, created.id, there.version, { ...this.own(created), deletedAt: null })
      : await this.insert(tx, created)
    await remember(tx, [{ action: there ? 'restored' : 'made', resource: e.name, row: row as Named }])
    return this.settled(tx, row)
  }

  /** Changes fields of a row. @throws a problem (409) with the row as it is when it is of another version. */
  async change(tx: Tx, id: string, patch: PatchOf<N>, how: Made): Promise<RowOf<N>> {
    const { e } = this
    const row = await this.locked(tx, id, how)
    const next = { ...row, ...patch } as Written<N>
    e.check?.(next)
    // A row may go on naming what was deleted since; what it is set to now must be there.
    const set = (r: Reference): boolean => r.owner || (r.field.split('.')[0] ?? '') in patch
    await checkReferences(tx, referencesOf(e.name, next).filter(set))
    const before = e.parts && e.parts.field in patch ? await this.whole(tx, row) : travelling(row)
    const columns = keepTyped(row, await this.split(tx, id, patch))
    const changed = await this.update(tx, id, row.version, columns)
    const fields = Object.fromEntries(Object.entries(changed).filter(([k]) => k in patch))
    const differ = differences(before, fields)
    if (Object.keys(differ.after).length)
      await remember(tx, [
        { action: 'changed', resource: e.name, row: changed as Named, ...differ, ...undoing(how) },
      ])
    return this.settled(tx, changed)
  }

  /** Deletes a row, or puts it back. */
  async setThere(tx: Tx, id: string, there: boolean, how: Made): Promise<RowOf<N>> {
    const row = await this.locked(tx, id, how)
    if (!there) this.e.mayDelete?.(row as StoredOf<N>)
    const changed = await this.update(tx, id, row.version, { deletedAt: there ? null : new Date() })
    if (this.isThere(row) !== there)
      await remember(tx, [
        {
          action: there ? 'restored' : 'deleted',
          resource: this.e.name,
          row: changed as Named,
          ...undoing(how),
        },
      ])
    return this.settled(tx, changed)
  }

  /** Parts of a row in rows of other tables, where a document carries them. */
  get apart(): AnyParts | undefined {
    return this.e.inDocuments ?? this.e.parts
  }

  /** Writes rows of a document that are not there yet, with the day they were made. */
  async take(tx: Tx, rows: readonly DocumentRow[]): Promise<void> {
    const { apart } = this
    await tx.insert(this.table).values(rows.map((r) => this.columnsOf(r)) as never)
    if (apart) for (const r of rows) await apart.replace(tx, r.id, r[String(apart.field)])
  }

  /** Writes a row of a document over the one that is there, which comes back where it was deleted. */
  async overwrite(tx: Tx, row: DocumentRow, version: number): Promise<void> {
    const { apart } = this
    const { createdAt: _, ...set } = this.columnsOf(row)
    await tx
      .update(this.table)
      .set({ ...set, version, updatedAt: new Date(), deletedAt: null } as never)
      .where(eq(this.table.id, row.id))
    if (apart) await apart.replace(tx, row.id, row[String(apart.field)])
  }

  private columnsOf(row: DocumentRow): Record<string, unknown> {
    const fields = documentFields(this.e.name).filter((f) => f !== String(this.apart?.field))
    return {
      ...this.own(Object.fromEntries(fields.map((f) => [f, row[f]]))),
      ...this.e.columns?.(row as never),
      ...(row.createdAt && { createdAt: new Date(row.createdAt) }),
    }
  }

  private isThere(row: object): boolean {
    return !('deletedAt' in row) || row.deletedAt === null
  }

  private async locked(tx: Tx, id: string, { version }: Made): Promise<Stored<N, F>> {
    const row = await this.find(tx, id, true)
    if (version !== null && row.version !== version) throw stale(this.singular, await this.whole(tx, row))
    return row
  }

  /** A row as it stands after a write, looked at before the write is kept: what cannot be read is not written. */
  private async settled(tx: Tx, row: RowOf<N>): Promise<RowOf<N>> {
    const wrong = RESOURCES[this.e.name].Row.safeParse(row).error?.issues[0]
    // One that is taken away may have been unreadable all along.
    if (wrong && row.deletedAt === null) throw fieldProblem(wrong.path.join('.') || 'body', wrong.message)
    await this.e.afterWrite?.(tx, row)
    return row
  }

  /** The row of an id, if there is one. */
  private async made(db: Db | Tx, id: string, lock: boolean): Promise<Stored<N, F> | null> {
    const query = db.select(this.selected).from(this.table).where(eq(this.table.id, id))
    const [row] = await (lock ? query.for('update') : query)
    return (row as Stored<N, F> | undefined) ?? null
  }

  private async insert(tx: Tx, created: CreatedOf<N>): Promise<RowOf<N>> {
    const { columns, parts } = this.e
    const [row] = await tx
      .insert(this.table)
      .values({ ...this.own(created), ...columns?.(created) } as never)
      .returning(this.selected)
    if (!row) throw problem(500, 'fault', 'The row was not written')
    if (parts) await parts.replace(tx, created.id, created[parts.field as keyof CreatedOf<N>] as RowOf<N>[F])
    return this.whole(tx, row as StoredOf<N, F>)
  }

  /** Writes columns under the version they were read at. */
  private async update(tx: Tx, id: string, version: number, set: object): Promise<RowOf<N>> {
    const { table } = this
    const next = { ...set, version: sql`${table.version} + 1`, updatedAt: new Date() }
    const [row] = await tx
      .update(table)
      .set(next as never)
      .where(and(eq(table.id, id), eq(table.version, version)))
      .returning(this.selected)
    if (!row) throw problem(404, 'not-found', `There is no such ${this.singular}`)
    return this.whole(tx, row as StoredOf<N, F>)
  }

  /** Columns of a change; parts that stand elsewhere are written on the way. */
  private async split(tx: Tx, id: string, patch: PatchOf<N>): Promise<object> {
    const { parts } = this.e
    const value = parts && patch[parts.field as keyof PatchOf<N>]
    if (parts && value !== undefined) await parts.replace(tx, id, value as RowOf<N>[F])
    return this.own(patch)
  }

  private own(fields: object): object {
    const own = Object.fromEntries(Object.entries(fields).filter(([k]) => k in this.table))
    return asMoments(this.e.name, own)
  }
}

const undoing = ({ undoes }: Made): { undoes?: number } => (undoes === undefined ? {} : { undoes })

const stale = (one: string, current: object) =>
  problem(409, 'stale', `This ${one} was changed elsewhere since you read it`, {
    detail: 'Nothing was overwritten. `current` is the row as it is now.',
    current,
  })

/**
 * Typed texts are kept per field, so two people's fields do not overwrite each other's; a field that was emptied is
 * let go of.
 */
function keepTyped(row: object, set: object): object {
  if (!('typed' in set && 'typed' in row)) return set
  const all = Object.entries({ ...(row.typed as object), ...(set.typed as object) })
  return { ...set, typed: Object.fromEntries(all.filter(([, text]) => text !== '')) }
}

// oxlint-disable-next-line typescript/no-explicit-any -- what is special about a resource is of its own type
export type AnyEditable = Editable<any, any>
