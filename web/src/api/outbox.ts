import type { Problem } from '@ypsometer/contract'
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { useSyncExternalStore } from 'react'
import { api, ApiProblem, Unreachable } from './client'

export type Collection =
  | 'models'
  | 'claims'
  | 'specimens'
  | 'hookups'
  | 'trials'
  | 'readings'
  | 'logs'
  | 'tanks'
  | 'contents'
  | 'parts'
  | 'photos'
  | 'bodies'
  | 'chambers'
  | 'fills'
  | 'media'
  | 'house-rules'
export type RowBody = Record<string, unknown>

/** One write waiting to be acknowledged by the server. It lives in IndexedDB until then. */
export interface Entry {
  /** Idempotency key: however often it is sent, it is done once. */
  readonly key: string
  readonly order: number
  readonly method: 'POST' | 'PATCH' | 'DELETE'
  readonly collection: Collection
  readonly rowId: string
  body: RowBody
  /** Version the change was made on, and the values its fields had there. */
  version: number
  readonly base: RowBody
  state: 'waiting' | 'conflict' | 'refused'
  problem?: Problem
  tries: number
  /** Undoes a deletion instead of changing fields. */
  readonly restore?: boolean
  /** A file to send instead of JSON: a photo, as the camera gave it. */
  readonly blob?: Blob
}

interface Schema extends DBSchema {
  outbox: { key: string; value: Entry }
}

export type SaveState = 'saved' | 'saving' | 'kept' | 'needs-you'

/** What to do when the server has answered a write with the row as it now is. */
type Acknowledged = (
  collection: Collection,
  row: RowBody & { id: string; version: number },
  entry: Entry,
) => void

/** Pause before writes that got no answer are sent again. */
const RETRY_MS = 2000

const listeners = new Set<() => void>()
let entries: readonly Entry[] = []
let state: SaveState = 'saved'
let flushing = false
let onAcknowledged: Acknowledged = () => undefined
let onMerged: (entry: Entry) => void = () => undefined
let retry: ReturnType<typeof setTimeout> | undefined
let order = Date.now() * 1000
const channel = 'BroadcastChannel' in window ? new BroadcastChannel('ypsometer.outbox') : null
const database: Promise<IDBPDatabase<Schema> | null> = openDB<Schema>('ypsometer', 1, {
  upgrade: (db) => void db.createObjectStore('outbox', { keyPath: 'key' }),
}).catch(() => null)

/** Fields whose text is about to be written: saying "Saved" meanwhile would be untrue. */
const typing = new Set<string>()
export function setTyping(field: string, on: boolean): void {
  if (on === typing.has(field)) return
  if (on) typing.add(field)
  else typing.delete(field)
  publish()
}

function publish(next: readonly Entry[] = entries): void {
  entries = next
  const waiting = entries.filter((e) => e.state === 'waiting')
  if (entries.length > waiting.length) state = 'needs-you'
  else if (!waiting.length) state = typing.size ? 'saving' : 'saved'
  else state = waiting.some((e) => e.tries > 0) ? 'kept' : 'saving'
  listeners.forEach((l) => l())
}

async function store(entry: Entry): Promise<void> {
  await (await database)?.put('outbox', entry)
  channel?.postMessage('changed')
}
async function forget(entry: Entry): Promise<void> {
  await (await database)?.delete('outbox', entry.key)
  channel?.postMessage('changed')
}

/** Reads what this device still holds, from this page or an earlier one. */
async function reload(): Promise<void> {
  const all = await (await database)?.getAll('outbox')
  if (all) publish(all.sort((a, b) => a.order - b.order))
}

/** Starts the outbox: picks up what was left, and sends again when the network comes back. */
export function startOutbox(acknowledged: Acknowledged, merged: (entry: Entry) => void): void {
  onAcknowledged = acknowledged
  onMerged = merged
  void reload().then(() => flush())
  channel?.addEventListener('message', () => void reload())
  window.addEventListener('online', () => void flush())
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a ?? null) === JSON.stringify(b ?? null)

/** Puts a write in the outbox: kept on this device at once, sent as soon as can be. */
export function enqueue(
  write: Pick<Entry, 'method' | 'collection' | 'rowId' | 'body' | 'version' | 'base' | 'restore' | 'blob'>,
): void {
  let kept = entries
  if (write.method === 'PATCH') {
    // A field typed again takes the place of its refused or conflicting predecessor.
    kept = kept.flatMap((e) => {
      if (e.rowId !== write.rowId || e.state === 'waiting' || e.method !== 'PATCH') return [e]
      const body = Object.fromEntries(
        Object.entries(e.body).filter(([k]) => !(k in write.body) && k !== 'typed'),
      )
      void forget(e)
      if (!Object.keys(body).length) return []
      const rest = { ...e, body, key: crypto.randomUUID() }
      void store(rest)
      return [rest]
    })
    const last = kept.findLast((e) => e.rowId === write.rowId)
    if (
      last &&
      last.method === 'PATCH' &&
      last.state === 'waiting' &&
      last.tries === 0 &&
      last !== inFlight
    ) {
      const typed = { ...(last.body.typed as object), ...(write.body.typed as object) }
      const merged: Entry = {
        ...last,
        body: { ...last.body, ...write.body, ...(Object.keys(typed).length && { typed }) },
        base: { ...write.base, ...last.base },
      }
      publish(kept.map((e) => (e === last ? merged : e)))
      void store(merged).then(() => flush())
      return
    }
  }
  const entry: Entry = { ...write, key: crypto.randomUUID(), order: ++order, state: 'waiting', tries: 0 }
  publish([...kept, entry])
  void store(entry).then(() => flush())
}

let inFlight: Entry | null = null
const replace = (old: Entry, next: Entry): void => {
  publish(entries.map((e) => (e.key === old.key ? next : e)))
  void store(next)
}
const drop = async (entry: Entry): Promise<void> => {
  publish(entries.filter((e) => e.key !== entry.key))
  await forget(entry)
}

/** Sends what waits, in order, one at a time and in one window only; stops at the first that gets no answer. */
export async function flush(): Promise<void> {
  if (flushing) return
  flushing = true
  let stalled = false
  clearTimeout(retry)
  const work = async (): Promise<void> => {
    for (;;) {
      const next = entries.find((e) => e.state === 'waiting')
      if (!next) return
      inFlight = next
      if (!(await send(next))) {
        stalled = true
        return
      }
    }
  }
  try {
    await ('locks' in navigator ? navigator.locks.request('ypsometer.outbox', work) : work())
  } finally {
    inFlight = null
    flushing = false
  }
  if (stalled) retry = setTimeout(() => void flush(), RETRY_MS)
  else if (entries.some((e) => e.state === 'waiting')) void flush()
}

/** Sends one write. False when the server gave no answer, so that it is tried again later. */
async function send(entry: Entry): Promise<boolean> {
  const one = `/${entry.collection}/${entry.rowId}`
  const photo =
    entry.blob &&
    `/${entry.body.trialId ? 'trials' : 'parts'}/${String(entry.body.trialId ?? entry.body.partId)}/photos?${new URLSearchParams({ id: entry.rowId, caption: String(entry.body.caption) })}`
  const path = entry.restore
    ? `${one}/restore`
    : (photo ?? (entry.method === 'POST' ? `/${entry.collection}` : one))
  try {
    const row = await api<RowBody & { id: string; version: number }>(path, {
      method: entry.method,
      key: entry.key,
      ...(entry.method === 'POST' && !entry.restore ? {} : { version: entry.version }),
      ...(entry.method === 'DELETE' || entry.restore ? {} : { body: entry.blob ?? entry.body }),
    })
    // Our own later changes to this row were made on top of this one.
    for (const e of entries)
      if (e.rowId === entry.rowId && e.key !== entry.key && e.order > entry.order && e.version < row.version)
        replace(e, { ...e, version: row.version })
    onAcknowledged(entry.collection, row, entry)
    await drop(entry)
    return true
  } catch (error) {
    if (!(error instanceof ApiProblem) || error.problem.status >= 500) {
      if (!(error instanceof Unreachable) && !(error instanceof ApiProblem)) throw error
      replace(entry, { ...entry, tries: entry.tries + 1 })
      return false
    }
    await settle(entry, error.problem)
    return true
  }
}

/** A refusal: a stale change to other fields is made again on the new version; anything else waits for the person. */
async function settle(entry: Entry, problem: Problem): Promise<void> {
  const current = problem.current as (RowBody & { id: string; version: number }) | undefined
  if (problem.code === 'stale' && current) {
    const fields = Object.keys(entry.body).filter((k) => k !== 'typed')
    const untouched = fields.every((k) => same(current[k], entry.base[k]) || same(current[k], entry.body[k]))
    onAcknowledged(entry.collection, current, entry)
    if (untouched) {
      replace(entry, { ...entry, version: current.version })
      onMerged(entry)
      return
    }
    replace(entry, { ...entry, state: 'conflict', problem, version: current.version })
    return
  }
  replace(entry, { ...entry, state: 'refused', problem })
}

/** Settles a conflict: send mine on top of theirs, or let mine go. */
export function resolveConflict(key: string, choice: 'mine' | 'theirs'): void {
  const entry = entries.find((e) => e.key === key)
  if (!entry) return
  if (choice === 'theirs') void drop(entry)
  else {
    // A new key: the refused attempt was answered under the old one.
    void drop(entry).then(() => {
      const { method, collection, rowId, body, version } = entry
      enqueue({ method, collection, rowId, body, version, base: {} })
    })
  }
}

const subscribe = (l: () => void): (() => void) => {
  listeners.add(l)
  return () => listeners.delete(l)
}
/** What waits now, and the state it amounts to. */
export const waitingEntries = (): readonly Entry[] => entries
export const saveState = (): SaveState => state
export const useEntries = (): readonly Entry[] => useSyncExternalStore(subscribe, waitingEntries)
export const useSaveState = (): SaveState => useSyncExternalStore(subscribe, saveState)

/** Rows as the person sees them: what the server said, with what still waits laid over it. */
export function overlay<T extends { id: string }>(
  rows: readonly T[],
  collection: Collection,
  waiting: readonly Entry[],
): T[] {
  let out = [...rows]
  for (const e of waiting) {
    if (e.collection !== collection) continue
    if (e.restore) continue
    if (e.method === 'POST') {
      if (!out.some((r) => r.id === e.rowId))
        out.push({
          version: 0,
          deletedAt: null,
          createdAt: now(e),
          updatedAt: now(e),
          ...e.body,
        } as unknown as T)
    } else if (e.method === 'DELETE') out = out.filter((r) => r.id !== e.rowId)
    else if (e.state !== 'refused')
      out = out.map((r) => {
        if (r.id !== e.rowId) return r
        const typed = { ...(r as { typed?: object }).typed, ...(e.body.typed as object | undefined) }
        return { ...r, ...e.body, ...(Object.keys(typed).length && { typed }) }
      })
  }
  return out
}
const now = (e: Entry): string => new Date(e.order / 1000).toISOString()
