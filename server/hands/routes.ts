import { ChangeOverList, FaultSearchList, SetUpList } from '@ypsometer/contract'
import { desc, isNull } from 'drizzle-orm'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import type { Db } from '../db/client'
import { changeOver, faultSearch, model, setUp, specimen, tank } from '../db/schema'
import { registerEditable } from '../http/editable'
import { travelling, type Written } from '../http/rows'
import { fieldProblem } from '../http/problems'

const MOST = 2000

/** A filter that comes is named by the shelf, or by its kind or rated flow. */
function checkChange({ next }: Written<'change-overs'>): void {
  if (next.modelId === null && next.kind === null)
    throw fieldProblem('next.kind', 'a model of the shelf, or the kind of filter that comes')
}

/** What hands do: set-ups ticked, change-overs, faults looked for; short lists, the newest first. */
export function registerHands(app: FastifyInstance, db: Db): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  const tags = ['hands']
  const list = async <T extends typeof setUp | typeof changeOver | typeof faultSearch>(table: T) => {
    const rows = await db
      .select()
      .from(table as typeof setUp)
      .where(isNull(table.deletedAt))
      .orderBy(desc(table.on), desc(table.createdAt))
      .limit(MOST)
    return rows as T['$inferSelect'][]
  }
  typed.get('/set-ups', { schema: { tags, response: { 200: SetUpList } } }, async () => ({
    items: (await list(setUp)).map(travelling),
  }))
  typed.get('/change-overs', { schema: { tags, response: { 200: ChangeOverList } } }, async () => ({
    items: (await list(changeOver)).map(travelling),
  }))
  typed.get('/fault-searches', { schema: { tags, response: { 200: FaultSearchList } } }, async () => ({
    items: (await list(faultSearch)).map(travelling),
  }))
  registerEditable(app, db, {
    name: 'set-ups',
    table: setUp,
    ties: (row) => [
      { field: 'modelId', to: model, what: 'model', id: row.modelId, owner: true },
      { field: 'specimenId', to: specimen, what: 'unit', id: row.specimenId, modelId: row.modelId },
      { field: 'tankId', to: tank, what: 'tank', id: row.tankId },
    ],
  })
  registerEditable(app, db, {
    name: 'change-overs',
    table: changeOver,
    check: checkChange,
    ties: (row) => [
      { field: 'tankId', to: tank, what: 'tank', id: row.tankId, owner: true },
      { field: 'next.modelId', to: model, what: 'model', id: row.next.modelId },
    ],
  })
  registerEditable(app, db, {
    name: 'fault-searches',
    table: faultSearch,
    ties: (row) => [
      { field: 'modelId', to: model, what: 'model', id: row.modelId },
      { field: 'tankId', to: tank, what: 'tank', id: row.tankId },
    ],
  })
}
