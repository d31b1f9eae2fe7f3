import type {
  ChangeOver,
  Dossier,
  FaultSearch,
  HouseRule,
  Medium,
  SetUp,
  StockClassRow,
  Tank,
  Tick,
} from '@ypsometer/contract'
import { outbox } from '../src/api/app'
import { fieldsOf, type Entry, type Write } from '../src/api/outboxPolicy'
import { queryClient } from '../src/api/cache'
import { forgetAnswers } from '../src/workers/useWork'

/** What a test does not look into field by field. */
type Fields = Record<string, unknown>
export type Written = [what: 'create' | 'change' | 'delete' | 'restore', collection: string, fields: Fields]

const WHAT = { POST: 'create', PATCH: 'change', DELETE: 'delete', RESTORE: 'restore' } as const
/** Everything a view wrote, in order, as it went into the outbox of the page. */
export const writes: Written[] = []
/** The ids of the rows written, in the same order. */
export const writtenIds: string[] = []

/** The rows that were made, complete, as the page shows them before the server has answered. */
export const rowsMade: Fields[] = []

const wrap = outbox.enqueue
outbox.enqueue = (write: Write): void => {
  const { id: _id, ...fields } = fieldsOf({
    ...write,
    key: '',
    order: 0,
    state: 'waiting',
    tries: 0,
  } as Entry)
  writes.push([WHAT[write.method], write.collection, fields])
  writtenIds.push(write.rowId)
  if (write.method === 'POST') rowsMade.push({ ...write.row })
  wrap(write)
}
/** What was written of one kind, without the rest. */
export const written = (what: Written[0]): Fields[] => writes.filter((w) => w[0] === what).map((w) => w[2])

/** A device whose server does not answer: what is written stays in the outbox and shows all the same. */
export function noServer(): void {
  writes.length = 0
  writtenIds.length = 0
  rowsMade.length = 0
  globalThis.fetch = jest.fn(async () => {
    throw new TypeError('network')
  })
}

/** Lets go of everything the outbox still holds. */
export function emptyOutbox(): void {
  for (const e of outbox.held.get().mine) outbox.resolve(e.key, 'theirs')
}

/** Puts a dossier where views read it, as if the server had just given it. */
export function haveDossier(d: Dossier): void {
  queryClient.setQueryData(['dossier', d.model.id], d)
}

interface Lists {
  readonly tanks: Tank[]
  readonly media: Medium[]
  readonly 'house-rules': HouseRule[]
  readonly ticks: Tick[]
  readonly 'stock-classes': StockClassRow[]
  readonly 'set-ups': SetUp[]
  readonly 'change-overs': ChangeOver[]
  readonly 'fault-searches': FaultSearch[]
}
/** Puts whole lists where views read them, as if the server had just given them; null for one not read yet. */
export function haveLists(lists: { readonly [N in keyof Lists]?: Lists[N] | null }): void {
  for (const [name, items] of Object.entries(lists))
    if (items) queryClient.setQueryData([name], { items })
    else queryClient.removeQueries({ queryKey: [name] })
}

/**
 * A server that answers what is read, by path below the API's root: a body, or a promise that fails where it does not
 * answer. What is written finds nobody.
 */
export function serverReads(answer: (path: string) => unknown): void {
  queryClient.clear()
  forgetAnswers()
  globalThis.fetch = jest.fn(async (input: RequestInfo | URL, init?: RequestInit) => {
    if ((init?.method ?? 'GET') !== 'GET') throw new TypeError('network')
    const body = await answer(String(input).replace('/api/v1', ''))
    return { ok: true, status: 200, statusText: '', json: async () => body } as Response
  })
}

// Nothing is left to be thrown away by a clock once the tests of a file are over.
afterAll(forgetAnswers)
