import { HistoryPage, HistoryQuery, RESOURCES, type Change, type ResourceName } from '@ypsometer/contract'
import { and, desc, eq, inArray, lt } from 'drizzle-orm'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { z } from 'zod'
import type { Db, Tx } from '../db/client'
import { rowChange } from '../db/schema'
import { idempotently } from '../http/idempotency'
import { fieldProblem, problem } from '../http/problems'
import { rowsOf } from '../rows'
import { canonical } from '../db/remember'

type Stored = typeof rowChange.$inferSelect

/** Texts as typed are bookkeeping of the fields they belong to. */
const fieldsOf = (c: Pick<Stored, 'before'>): string[] => Object.keys(c.before).filter((f) => f !== 'typed')
/** A change of the record itself. */
type OfRecord = Stored & { readonly resource: ResourceName }
const isResource = (name: string): name is ResourceName => name in RESOURCES

/** A change of fields that people can set, or a row made, deleted or put back. */
function isUndoable(c: Stored): c is OfRecord {
  if (!isResource(c.resource)) return false
  const settable = RESOURCES[c.resource].Patch.shape
  return c.action !== 'changed' || fieldsOf(c).every((f) => f in settable)
}

async function undoneBy(db: Db | Tx, ids: readonly number[]): Promise<ReadonlyMap<number, number>> {
  if (!ids.length) return new Map()
  const rows = await db
    .select({ id: rowChange.id, undoes: rowChange.undoes })
    .from(rowChange)
    .where(inArray(rowChange.undoes, [...ids]))
  return new Map(rows.flatMap((r) => (r.undoes === null ? [] : [[r.undoes, r.id]])))
}

const travelling = (c: Stored, undone: ReadonlyMap<number, number>): Change => ({
  id: c.id,
  at: c.at.toISOString(),
  who: c.who ? { id: c.who, name: c.whoName } : null,
  action: c.action,
  resource: c.resource,
  rowId: c.rowId,
  name: c.name,
  before: c.before,
  after: c.after,
  undoes: c.undoes,
  undoneBy: undone.get(c.id) ?? null,
  undoable: isUndoable(c) && !undone.has(c.id),
})

const since = (detail: string) =>
  problem(409, 'changed-since', 'It was changed again since', { detail: `${detail} Nothing was taken back.` })

/** Takes a change back, as a change of its own. @throws a problem where it was changed again since. */
async function takeBack(tx: Tx, c: OfRecord): Promise<void> {
  const rows = rowsOf(c.resource)
  const how = { version: null, undoes: c.id }
  if (c.action !== 'changed') return void (await rows.setThere(tx, c.rowId, c.action === 'deleted', how))
  const now = (await rows.whole(tx, await rows.find(tx, c.rowId, true))) as Readonly<Record<string, unknown>>
  if (now.deletedAt) throw since(`The ${rows.singular} was deleted: restore it first.`)
  const other = fieldsOf(c).find((f) => canonical(now[f]) !== canonical(c.after[f]))
  if (other) throw since(`The field ${other} holds something else by now.`)
  const { typed: before, ...fields } = c.before as { typed?: Record<string, string> }
  const after = (c.after.typed ?? {}) as Record<string, string>
  const typed = Object.fromEntries(
    [...new Set([...Object.keys(before ?? {}), ...Object.keys(after)])]
      .filter((k) => (before?.[k] ?? '') !== (after[k] ?? ''))
      .map((k) => [k, before?.[k] ?? '']),
  )
  const patch = { ...fields, ...(Object.keys(typed).length && { typed }) }
  const read = RESOURCES[c.resource].Patch.safeParse(patch)
  const wrong = read.error?.issues[0]
  if (wrong) throw fieldProblem(wrong.path.join('.') || 'body', wrong.message)
  await rows.change(tx, c.rowId, patch, how)
}

/** `GET /history`: who changed what and when, newest first; `POST /history/{id}/undo` takes a change back. */
export function registerHistory(app: FastifyInstance, db: Db): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  const tags = ['history']
  typed.get(
    '/history',
    { schema: { tags, querystring: HistoryQuery, response: { 200: HistoryPage } } },
    async ({ query: { model, row, before, limit } }) => {
      const rows = await db
        .select()
        .from(rowChange)
        .where(
          and(
            model === undefined ? undefined : eq(rowChange.modelId, model),
            row === undefined ? undefined : eq(rowChange.rowId, row),
            before === undefined ? undefined : lt(rowChange.id, before),
          ),
        )
        .orderBy(desc(rowChange.id))
        .limit(limit + 1)
      const items = rows.slice(0, limit)
      const undone = await undoneBy(
        db,
        items.map((c) => c.id),
      )
      return {
        items: items.map((c) => travelling(c, undone)),
        next: rows.length > limit ? (items.at(-1)?.id ?? null) : null,
      }
    },
  )
  typed.post(
    '/history/:id/undo',
    {
      schema: {
        tags,
        params: z.object({ id: z.coerce.number().int().positive().max(Number.MAX_SAFE_INTEGER) }),
        response: { 200: z.object({ undone: z.boolean() }) },
      },
    },
    async (request) => {
      const { body } = await idempotently(db, request, true, async (tx) => {
        const [found] = await tx.select().from(rowChange).where(eq(rowChange.id, request.params.id))
        if (!found) throw problem(404, 'not-found', 'There is no such change')
        if (!isUndoable(found))
          throw problem(409, 'not-undoable', 'That is not taken back so', {
            detail: 'What was published is corrected or withdrawn where it was published.',
          })
        // One at a time: the row is locked before it is asked whether somebody was quicker.
        await rowsOf(found.resource).find(tx, found.rowId, true)
        if ((await undoneBy(tx, [found.id])).size) throw since('Somebody took it back already.')
        await takeBack(tx, found)
        return { status: 200, body: { undone: true } }
      })
      return body
    },
  )
}
