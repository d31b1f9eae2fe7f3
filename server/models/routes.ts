import { Dossier, Id, LabelBias, Opened, ShelfPage, ShelfQuery } from '@ypsometer/contract'
import { CandidatePage, CandidateQuery } from '@ypsometer/contract/candidateList'
import type { FastifyInstance, FastifyReply } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import pLimit from 'p-limit'
import { z } from 'zod'
import type { Db } from '../db/client'
import { shelfBias } from './bias'
import { candidates } from './candidates'
import { opened } from './opened'
import { dossier } from './queries'
import { Packed } from '../http/packed'
import { Shared } from '../http/shared'
import { shelf } from './shelf'

/** Between two makings of one page that many ask for (ms). */
const PACE = 150
/** Pages of the shelf that are put together at once: connections are left for whoever writes. */
const PAGES_AT_ONCE = 2

/** The shelf, dossiers, and the editable rows under them. */
export function registerModels(app: FastifyInstance, db: Db): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  const pages = new Shared<Packed>(PACE)
  const some = pLimit(PAGES_AT_ONCE)
  typed.get(
    '/models',
    { schema: { tags: ['models'], querystring: ShelfQuery, response: { 200: ShelfPage } } },
    async (request, reply) => {
      const page = await pages.ask(JSON.stringify(request.query), () =>
        some(async () => new Packed(await shelf(db, request.query))),
      )
      return page.send(request, reply as FastifyReply) as never
    },
  )
  typed.get(
    '/models/:id/dossier',
    { schema: { tags: ['models'], params: z.object({ id: Id }), response: { 200: Dossier } } },
    (request) => dossier(db, request.params.id),
  )
  typed.get(
    '/models/:id/opened',
    { schema: { tags: ['models'], params: z.object({ id: Id }), response: { 200: Opened } } },
    // It is JSON already.
    async ({ params }, reply) => {
      const json: FastifyReply = reply.type('application/json') as FastifyReply
      return json.send(await opened(db, params.id))
    },
  )
  typed.get(
    '/candidates',
    { schema: { tags: ['models'], querystring: CandidateQuery, response: { 200: CandidatePage } } },
    (request) => candidates(db, request.query),
  )
  typed.get('/label-bias', { schema: { tags: ['models'], response: { 200: LabelBias } } }, () =>
    shelfBias(db),
  )
}
