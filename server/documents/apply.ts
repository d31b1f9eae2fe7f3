import {
  RESOURCE_NAMES,
  documentFields,
  momentsOf,
  RESOURCES,
  type ResourceName,
  type ImportReport,
  type YpsoDocument,
} from '@ypsometer/contract'
import { CoreError } from '@ypsometer/core/errors/errors'
import type { Snapshot } from '@ypsometer/contract/review'
import { inArray, notInArray, sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { calledOf, canonical, remember, type Deed } from '../db/remember'
import { rowsOf } from '../rows'
import { ProblemError } from '../http/problems'
import { at, checkReferences, referencesOf } from '../http/references'
import { reviewProblem } from '../reviews/document'
import { writePhoto } from './archive'
import { plainRows, tableOf } from './export'
import type { Refused } from './read'
import type { Plain, Undo } from '../db/undo'

/** Result of an import: what was done to the rows, and what takes it back. */
export interface Applied {
  readonly report: Omit<ImportReport, 'undo'>
  readonly undo: Undo
}
type LineOf = (path: readonly (string | number)[]) => number | null

const CHUNK = 400
const chunks = <T>(list: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(list.length / CHUNK) }, (_, i) => list.slice(i * CHUNK, (i + 1) * CHUNK))

/** Writes a document within a transaction, row by row of its order; what cannot be taken is named and not written. */
export async function apply(
  tx: Tx,
  d: YpsoDocument,
  lineOf: LineOf,
  photos: ReadonlyMap<string, Uint8Array> = new Map(),
): Promise<Applied> {
  const rows: ImportReport['rows'] = []
  const deeds: Deed[] = []
  const refused: Refused[] = []
  const undo: { made: Undo['made'][number][]; changed: Undo['changed'][number][] } = { made: [], changed: [] }
  for (const name of RESOURCE_NAMES) {
    const read = (d.rows[name] ?? []) as unknown as readonly Plain[]
    if (!read.length) continue
    const refuse = (i: number, field: string, message: string): void =>
      void refused.push({
        line: lineOf(['rows', name, i, field.split('.')[0] ?? '']),
        field: `${name}.${i}.${field}`,
        message,
      })
    if (!isOnce(read, refuse)) continue
    const there = await stored(tx, name, read)
    const given =
      d.subject === 'bench' ? read : read.map((r) => ({ ...r, ...ofHouse(name, r, there.get(r.id)) }))
    const checked = given.flatMap((row, i) => {
      const before = there.get(row.id)
      // What was deleted here comes back.
      const state = !before || before.deleted ? 'new' : stateOf(name, before.row, row)
      const fields = before && state === 'changed' ? changesOf(name, before.row, row) : []
      rows.push({ collection: name, id: row.id, name: calledOf(row), state, fields })
      return state === 'same' ? [] : [{ row, i, before }]
    })
    const sound = checked.filter(({ row, i, before }) => {
      const wrong = name === 'reviews' ? reviewProblem(row, before?.row) : null
      if (wrong) refuse(i, wrong.field, wrong.message)
      return !wrong && passes(name, row, (field, m) => refuse(i, field, m))
    })
    if (!(await referred(tx, name, sound, refuse))) continue
    const fresh = sound.filter((s) => !s.before)
    if (name === 'house-rules' && d.subject === 'bench') await onlyInForce(tx, given)
    if (name === 'photos')
      for (const { row, i } of fresh) {
        const at = row.createdAt ? new Date(row.createdAt) : null
        const wrong = await tx.transaction((inner) => writePhoto(inner, row, photos.get(row.id), at))
        if (wrong) refuse(i, 'id', wrong)
      }
    else await inserted(tx, name, fresh.map(withoutKin), refuse)
    if (name === 'models') await kinSet(tx, fresh)
    undo.made.push(...fresh.map(({ row }) => ({ collection: name, id: row.id, version: 1 })))
    deeds.push(...fresh.map(({ row }): Deed => ({ action: 'made', resource: name, row })))
    for (const { row, i, before } of sound) {
      if (!before) continue
      const version = before.version + 1
      if (!(await updated(tx, name, row, version, (field, m) => refuse(i, field, m)))) continue
      const touched = { collection: name, id: row.id, version }
      if (before.deleted) undo.made.push(touched)
      else undo.changed.push({ ...touched, before: before.row })
      deeds.push(deedOf(name, before, row))
    }
  }
  if (!refused.length) await remember(tx, deeds)
  const count = (state: 'new' | 'same' | 'changed'): number => rows.filter((r) => r.state === state).length
  return {
    report: {
      subject: d.subject,
      counts: { new: count('new'), same: count('same'), changed: count('changed') },
      rows,
      refused,
    },
    undo,
  }
}

/**
 * Fields of a row that the house keeps unless a whole bench comes: its rule in force; kin and tank where none is given.
 */
function ofHouse(name: ResourceName, row: Plain, there: Stored | undefined): Record<string, unknown> {
  if (name === 'house-rules') return { chosen: there?.row.chosen ?? false }
  const kept = ['kinId', 'tankId'].filter((f) => row[f] === null && there?.row[f])
  return Object.fromEntries(kept.map((f) => [f, there?.row[f]]))
}
/** With a whole bench comes its choice: any other rule is let go of, so that one is in force. */
async function onlyInForce(tx: Tx, given: readonly Plain[]): Promise<void> {
  const chosen = given.find((r) => r.chosen === true)
  if (!chosen) return
  const table = tableOf('house-rules')
  await tx
    .update(table)
    .set({ chosen: false } as never)
    .where(notInArray(table.id, [chosen.id]))
}

/** Models may be kin of one another: they are written without, and told of it when all are there. */
const withoutKin = (s: Sound): Sound => ('kinId' in s.row ? { ...s, row: { ...s.row, kinId: null } } : s)
async function kinSet(tx: Tx, fresh: readonly Sound[]): Promise<void> {
  const table = tableOf('models')
  for (const { row } of fresh)
    if (row.kinId)
      await tx
        .update(table)
        .set({ kinId: row.kinId } as never)
        .where(inArray(table.id, [row.id]))
}

/** Each id stands in a collection once. */
function isOnce(
  given: readonly Plain[],
  refuse: (i: number, field: string, message: string) => void,
): boolean {
  const seen = new Set<string>()
  let once = true
  given.forEach((r, i) => {
    if (seen.has(r.id)) {
      refuse(i, 'id', 'an id that stands in the document once')
      once = false
    }
    seen.add(r.id)
  })
  return once
}

interface Stored {
  readonly row: Plain
  readonly version: number
  readonly deleted: boolean
}

/** Rows of the bench that have the ids of a document’s. */
async function stored(
  tx: Tx,
  name: ResourceName,
  given: readonly Plain[],
): Promise<ReadonlyMap<string, Stored>> {
  const table = tableOf(name)
  const out = new Map<string, Stored>()
  for (const part of chunks(given)) {
    const where = inArray(
      table.id,
      part.map((r) => r.id),
    )
    const plain = await plainRows(tx, name, where)
    const heads = await tx
      .select({
        id: table.id,
        version: sql<number>`${sql.identifier('version')}`,
        deletedAt: table.deletedAt,
      })
      .from(table)
      .where(where)
    for (const row of plain) {
      const head = heads.find((h) => h.id === row.id)
      out.set(row.id, { row, version: Number(head?.version ?? 1), deleted: Boolean(head?.deletedAt) })
    }
    for (const h of heads)
      if (h.deletedAt) out.set(String(h.id), { ...(out.get(String(h.id)) as Stored), deleted: true })
  }
  return out
}

/** Fields a document gives for a row of a collection. */
const fieldsOf = documentFields
/** A moment is the same however it is written. */
const valueOf = (name: ResourceName, field: string, v: unknown): unknown =>
  momentsOf(name).includes(field) && typeof v === 'string' ? new Date(v).toISOString() : v

/** A whole sheet of numbers is told by its day, and editions by how many they are. */
const told = (field: string, v: unknown): unknown =>
  field === 'draft'
    ? `numbers of ${(v as Snapshot).on}`
    : field === 'published'
      ? `${(v as readonly unknown[]).length} editions`
      : (v ?? null)

const changesOf = (name: ResourceName, before: Plain, row: Plain) =>
  fieldsOf(name).flatMap((field) => {
    const [then, now] = [valueOf(name, field, before[field]), valueOf(name, field, row[field])]
    return canonical(then) === canonical(now)
      ? []
      : [{ field, then: told(field, then) as never, now: told(field, now) as never }]
  })
const deedOf = (name: ResourceName, { row: was, deleted }: Stored, row: Plain): Deed => {
  const changes = changesOf(name, was, row)
  return {
    action: deleted ? 'restored' : 'changed',
    resource: name,
    row,
    before: Object.fromEntries(changes.map((c) => [c.field, c.then])),
    after: Object.fromEntries(changes.map((c) => [c.field, c.now])),
  }
}
const stateOf = (name: ResourceName, before: Plain, row: Plain): 'same' | 'changed' =>
  changesOf(name, before, row).length ? 'changed' : 'same'

type Refuse = (field: string, message: string) => void
/** Does the row make sense by itself? */
function passes(name: ResourceName, row: Plain, refuse: Refuse): boolean {
  try {
    rowsOf(name).e.check?.(row)
    return true
  } catch (error) {
    return named(error, refuse)
  }
}

/** Says what an error is about, where it is one of ours. */
function named(error: unknown, refuse: Refuse): false {
  if (error instanceof CoreError) refuse(error.field, error.message)
  else if (error instanceof ProblemError) {
    const [first] = error.problem.errors ?? []
    refuse(first?.field ?? 'id', first?.message ?? error.problem.detail ?? error.problem.title)
  } else throw error
  return false
}

interface Sound {
  readonly row: Plain
  readonly i: number
  readonly before: Stored | undefined
}

/** Are the rows that others name there? The first that is not is named. */
async function referred(
  tx: Tx,
  name: ResourceName,
  sound: readonly Sound[],
  refuse: (i: number, field: string, message: string) => void,
): Promise<boolean> {
  const coming = new Set(sound.filter((s) => !s.before).map((s) => s.row.id))
  const references = sound.flatMap(({ row, i }) =>
    at(
      String(i),
      // What comes with it in the same document is there in a moment.
      referencesOf(name, row).filter((r) => !(r.to === name && coming.has(r.id))),
    ),
  )
  try {
    await checkReferences(tx, references)
    return true
  } catch (error) {
    return named(error, (field, message) => {
      const [i = '0', ...rest] = field.split('.')
      refuse(Number(i), rest.join('.'), message)
    })
  }
}

async function inserted(
  tx: Tx,
  name: ResourceName,
  fresh: readonly Sound[],
  refuse: (i: number, field: string, message: string) => void,
): Promise<void> {
  const rows = rowsOf(name)
  const write = (list: readonly Sound[]): Promise<void> =>
    tx.transaction((inner) =>
      rows.take(
        inner,
        list.map((s) => s.row),
      ),
    )
  for (const part of chunks(fresh)) {
    try {
      await write(part)
    } catch {
      // One of them is refused by the database: which, is found by writing them one by one.
      for (const one of part)
        try {
          await write([one])
        } catch (error) {
          refuse(one.i, 'id', saidByDatabase(error))
        }
    }
  }
}

async function updated(
  tx: Tx,
  name: ResourceName,
  row: Plain,
  version: number,
  refuse: Refuse,
): Promise<boolean> {
  try {
    await tx.transaction((inner) => rowsOf(name).overwrite(inner, row, version))
    return true
  } catch (error) {
    refuse('id', saidByDatabase(error))
    return false
  }
}

/** Objection of the database to a row, in words. */
const saidByDatabase = (error: unknown): string => {
  const cause =
    (error as { cause?: { code?: string; detail?: string } }).cause ??
    (error as { code?: string; detail?: string })
  if (cause.code === '23505') return 'something of which there is one already: the same name or the same day'
  if (cause.code === '23503') return 'a row that names only what is there'
  return 'a row that the database can keep'
}

/** Takes an import back: what it made is deleted, the rest is as it was. What was changed since is named, else null. */
export async function takeBack(tx: Tx, { made, changed }: Undo): Promise<string | null> {
  for (const { collection, id, version } of [...made, ...changed].reverse()) {
    const table = tableOf(collection)
    const [row] = await tx
      .select({ version: sql<number>`${sql.identifier('version')}` })
      .from(table)
      .where(inArray(table.id, [id]))
    if (Number(row?.version) !== version) return `${RESOURCES[collection].singular} ${id}`
  }
  const deeds: Deed[] = []
  for (const { collection, id, version } of [...made].reverse()) {
    const table = tableOf(collection)
    const [row] = await plainRows(tx, collection, inArray(table.id, [id]))
    if (row) deeds.push({ action: 'deleted', resource: collection, row })
    await tx
      .update(table)
      .set({ deletedAt: new Date(), version: version + 1 } as never)
      .where(inArray(table.id, [id]))
  }
  for (const { collection, id, version, before } of changed) {
    const [row] = await plainRows(tx, collection, inArray(tableOf(collection).id, [id]))
    await updated(tx, collection, before, version + 1, () => undefined)
    if (row) deeds.push(deedOf(collection, { row, version, deleted: false }, before))
  }
  await remember(tx, deeds)
  return null
}
