import type { CreateOf, PatchOf, Problem, ResourceName, RowOf } from '@ypsometer/contract'
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { api, ApiProblem, isNotIn, Unreachable } from './client'
import { noRoom } from './room'

interface Waiting<N extends ResourceName> {
  /** Idempotency key: however often it is sent, it is done once. */
  readonly key: string
  readonly order: number
  readonly collection: N
  readonly rowId: string
  /** Version the change was made on. */
  readonly version: number
  readonly state: 'waiting' | 'conflict' | 'refused'
  readonly problem?: Problem
  readonly tries: number
  /** Times the server failed at it, as against being out of reach. */
  readonly faults?: number
  /** Who wrote it: only they send it. */
  readonly by?: string
  readonly byName?: string
}
interface Making<N extends ResourceName> {
  readonly method: 'POST'
  readonly body: CreateOf<N>
  /** The row it will be, complete. */
  readonly row: RowOf<N>
  /** A file to send instead of JSON: a photo, as the camera gave it. */
  readonly blob?: Blob
}
interface Changing<N extends ResourceName> {
  readonly method: 'PATCH'
  readonly body: PatchOf<N>
  /** The values its fields had at that version. */
  readonly base: Partial<RowOf<N>>
}
interface Removing {
  /** RESTORE undoes a deletion. */
  readonly method: 'DELETE' | 'RESTORE'
}
/** A write to a collection. */
type WriteTo<N extends ResourceName> = Making<N> | Changing<N> | Removing

/** One write waiting to be acknowledged by the server. It lives in IndexedDB until then. */
export type Entry<N extends ResourceName = ResourceName> = Waiting<N> & WriteTo<N>
/** What is put into the outbox. */
export type Write<N extends ResourceName = ResourceName> = Pick<
  Waiting<N>,
  'collection' | 'rowId' | 'version'
> &
  WriteTo<N>

interface Schema extends DBSchema {
  outbox: { key: string; value: Entry }
}

export type SaveState = 'saved' | 'saving' | 'kept' | 'needs-you' | 'no-room'

/** Who writes here. */
export interface Writer {
  readonly id: string
  readonly name: string
  /** Whoever sits at this machine, without an account: what they wrote is anybody’s to send. */
  readonly visitor: boolean
  /** A reader changes nothing. */
  readonly reads: boolean
}

/** What the outbox reports. */
export interface Reports {
  /** The server has answered a write with the row as it now is. */
  readonly acknowledged: (collection: ResourceName, row: RowOf<ResourceName>, entry: Entry) => void
  /** A change was made again on top of somebody else's. */
  readonly merged: (entry: Entry) => void
}

/** A write that the server has failed at this often is set aside, so that the rest can go on. */
const MAX_FAULTS = 3
/** Statuses that say there is nobody at home, not that this write is at fault. */
const AWAY: readonly number[] = [502, 503, 504]

/** Storage that has not answered in so long (ms) is taken for one that refuses. */
const PATIENCE_MS = 1500
/** Pause before writes that got no answer are sent again. */
const RETRY_MS = 2000

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a ?? null) === JSON.stringify(b ?? null)
const isChange = (e: Entry): e is Waiting<ResourceName> & Changing<ResourceName> => e.method === 'PATCH'
const isOf = <N extends ResourceName>(e: Entry, collection: N): e is Entry<N> => e.collection === collection
/** The fields a write would set, by name; none for a deletion. */
export const fieldsOf = (e: Entry): Readonly<Record<string, unknown>> =>
  e.method === 'POST' || e.method === 'PATCH' ? { ...e.body } : {}
/** A field of any row, by its name. */
const valueOf = (row: object, field: string): unknown => Object.entries(row).find(([k]) => k === field)?.[1]

/** Was a write refused for fields that another one sets, and for no others? */
function isCured({ state, problem }: Entry, by: object): boolean {
  const named = problem?.errors?.map((e) => e.field.split(/[.[]/)[0] ?? '') ?? []
  return state === 'refused' && named.length > 0 && named.every((f) => f in by)
}

/** Texts as typed, of two changes to one row. */
function mergedTyped(older: object, newer: object): { typed?: Record<string, string> } {
  const typed = {
    ...(valueOf(older, 'typed') as Record<string, string> | undefined),
    ...(valueOf(newer, 'typed') as Record<string, string> | undefined),
  }
  return Object.keys(typed).length ? { typed } : {}
}

/** The address a write goes to. */
function addressOf(e: Entry): string {
  const one = `/${e.collection}/${e.rowId}`
  if (e.method === 'RESTORE') return `${one}/restore`
  if (e.method !== 'POST') return one
  if (!isOf(e, 'photos')) return `/${e.collection}`
  const { trialId, partId, visitId, caption = '' } = e.body
  const owner = trialId ? `trials/${trialId}` : visitId ? `visits/${visitId}` : `parts/${partId}`
  return `/${owner}/photos?${new URLSearchParams({ id: e.rowId, caption })}`
}

export type Outbox = ReturnType<typeof makeOutbox>

/**
 * An outbox: every write is an entry kept on this device until the server has answered it, sent in order, one at a
 * time, in one window only. `name` is its database on this device.
 */
export function makeOutbox(name = 'ypsometer') {
  const listeners = new Set<() => void>()
  let entries: readonly Entry[] = []
  /** Those of the writer, which are laid over what the server says; and those of others, which wait for them. */
  let mine: readonly Entry[] = []
  let others: readonly Entry[] = []
  /** Who writes; null while nobody is signed in, when nothing is sent; undefined where nobody is asked. */
  let writer: Writer | null | undefined
  let state: SaveState = 'saved'
  let flushing = false
  let inFlight: Entry | null = null
  let reports: Reports = { acknowledged: () => undefined, merged: () => undefined }
  let retry: ReturnType<typeof setTimeout> | undefined
  let order = Date.now() * 1000
  let channel: BroadcastChannel | null = null
  let opened: Promise<IDBPDatabase<Schema> | null> | undefined
  /** Fields whose text is about to be written: saying "Saved" meanwhile would be untrue. */
  const typing = new Set<string>()
  /** Keys of what this page has in its memory alone: being stored, or refused by the device. */
  const inMemory = new Set<string>()
  /** Those of them that the device has refused. */
  const refused = new Set<string>()

  /** While nobody is signed in, what is kept belongs to who wrote last, whose screen it still is. */
  let lastWriter: Writer | null = null
  const isMine = (e: Entry): boolean => {
    const by = writer ?? lastWriter
    return !e.by || !by || e.by === by.id
  }

  const database = (): Promise<IDBPDatabase<Schema> | null> =>
    (opened ??= (async () =>
      openDB<Schema>(name, 1, {
        upgrade: (db) => void db.createObjectStore('outbox', { keyPath: 'key' }),
      }))().catch(() => null))

  function publish(next: readonly Entry[] = entries): void {
    entries = next
    mine = entries.filter(isMine)
    others = entries.filter((e) => !isMine(e))
    const waiting = mine.filter((e) => e.state === 'waiting')
    if (mine.length > waiting.length) state = 'needs-you'
    else if (waiting.some((e) => refused.has(e.key))) state = 'no-room'
    else if (!waiting.length) state = typing.size ? 'saving' : 'saved'
    else state = writer === null || waiting.some((e) => e.tries > 0) ? 'kept' : 'saving'
    listeners.forEach((l) => l())
  }

  /** Puts it on this device; what the device refuses stays in this page's memory, and is said. Never fails. */
  async function store(entry: Entry): Promise<void> {
    inMemory.add(entry.key)
    const put = async (): Promise<boolean> => {
      const db = await database()
      if (!db) return false
      await db.put('outbox', entry)
      return true
    }
    const kept = put().catch(() => false)
    const answered = await Promise.race([
      kept,
      new Promise<null>((r) => setTimeout(() => r(null), PATIENCE_MS)),
    ])
    if (answered) {
      settled(entry.key)
      noRoom.set(false)
      // There is room again: what was refused is kept as well.
      for (const e of entries) if (refused.has(e.key)) void store(e)
    } else {
      // Storage that answers late has kept it after all.
      if (answered === null) void kept.then((late) => late && settled(entry.key))
      if (entries.some((e) => e.key === entry.key)) {
        refused.add(entry.key)
        noRoom.set(true)
        publish()
      }
    }
    channel?.postMessage('changed')
  }
  function settled(key: string): void {
    inMemory.delete(key)
    if (refused.delete(key)) publish()
  }
  async function forget(entry: Entry): Promise<void> {
    settled(entry.key)
    // What cannot be let go of is sent once more under its key, which does nothing.
    await (await database())?.delete('outbox', entry.key).catch(() => undefined)
    channel?.postMessage('changed')
  }
  const replace = (old: Entry, next: Entry): void => {
    publish(entries.map((e) => (e.key === old.key ? next : e)))
    void store(next)
  }
  const drop = async (entry: Entry): Promise<void> => {
    publish(entries.filter((e) => e.key !== entry.key))
    await forget(entry)
  }

  /** Reads what this device still holds, from this page or an earlier one. */
  async function reload(): Promise<void> {
    const all = await (await database())?.getAll('outbox').catch(() => undefined)
    if (!all) return
    const there = new Set(all.map((e) => e.key))
    const own = entries.filter((e) => inMemory.has(e.key) && !there.has(e.key))
    publish([...all, ...own].sort((a, b) => a.order - b.order))
  }

  /** Picks up what was left, and sends again when the network comes back. */
  function start(to: Reports): void {
    reports = to
    channel = 'BroadcastChannel' in window ? new BroadcastChannel(`${name}.outbox`) : null
    void reload().then(() => flush())
    channel?.addEventListener('message', () => void reload())
    window.addEventListener('online', () => void flush())
    window.addEventListener('beforeunload', (event) => {
      if (entries.some((e) => refused.has(e.key))) event.preventDefault()
    })
  }

  /** A field typed again takes the place of its refused or conflicting predecessor. */
  function withoutParked(write: Pick<Write, 'rowId'> & Changing<ResourceName>): readonly Entry[] {
    return entries.flatMap((e): Entry[] => {
      if (e.rowId !== write.rowId || e.state === 'waiting' || !isChange(e) || !isMine(e)) return [e]
      const left = Object.entries(e.body).filter(([k]) => !(k in write.body) && k !== 'typed')
      void forget(e)
      if (!left.length) return []
      const { problem, ...kept } = e
      const rest: Entry = { ...kept, body: Object.fromEntries(left), key: crypto.randomUUID() }
      // Refused for nothing but what is now written anew: the rest goes on.
      const next: Entry = isCured(e, write.body)
        ? { ...rest, state: 'waiting', tries: 0, faults: 0 }
        : { ...rest, ...(problem && { problem }) }
      void store(next)
      return [next]
    })
  }

  const stamp = (): Pick<Entry, 'by' | 'byName'> => {
    const by = writer ?? lastWriter
    return by && !by.visitor ? { by: by.id, byName: by.name } : {}
  }

  /** Puts a write in the outbox: kept on this device at once, sent as soon as can be. */
  function enqueue(write: Write): void {
    let kept = entries
    if (write.method === 'PATCH') {
      kept = withoutParked(write)
      const last = kept.findLast((e) => e.rowId === write.rowId)
      if (
        last &&
        last.by === stamp().by &&
        isChange(last) &&
        last.state === 'waiting' &&
        last.tries === 0 &&
        last !== inFlight
      ) {
        const body = { ...last.body, ...write.body, ...mergedTyped(last.body, write.body) }
        const merged: Entry = { ...last, body, base: { ...write.base, ...last.base } }
        publish(kept.map((e) => (e === last ? merged : e)))
        void store(merged).then(() => flush())
        return
      }
    }
    const entry: Entry = {
      ...write,
      key: crypto.randomUUID(),
      order: ++order,
      state: 'waiting',
      tries: 0,
      faults: 0,
      ...stamp(),
    }
    publish([...kept, entry])
    void store(entry).then(() => flush())
  }

  /** Sends what waits, in order, one at a time and in one window only; stops at the first that gets no answer. */
  async function flush(): Promise<void> {
    if (flushing || writer === null) return
    flushing = true
    let stalled = false
    clearTimeout(retry)
    const work = async (): Promise<void> => {
      for (;;) {
        const next = mine.find((e) => e.state === 'waiting')
        if (!next || writer === null) return
        inFlight = next
        if (!(await send(next))) {
          stalled = true
          return
        }
      }
    }
    try {
      await ('locks' in navigator ? navigator.locks.request(`${name}.outbox`, work) : work())
    } finally {
      inFlight = null
      flushing = false
    }
    if (stalled) retry = setTimeout(() => void flush(), RETRY_MS)
    else if (writer !== null && mine.some((e) => e.state === 'waiting')) void flush()
  }

  /** Says who writes from now on. */
  function setWriter(next: Writer | null): void {
    if (writer !== undefined && JSON.stringify(next) === JSON.stringify(writer)) return
    if (next) lastWriter = next
    writer = next
    publish()
    void flush()
  }

  /** Sends one write. False when the server gave no answer, so that it is tried again later. */
  async function send(entry: Entry): Promise<boolean> {
    const body =
      entry.method === 'POST' ? (entry.blob ?? entry.body) : isChange(entry) ? entry.body : undefined
    try {
      const row = await api<RowOf<ResourceName>>(addressOf(entry), {
        method: entry.method === 'RESTORE' ? 'POST' : entry.method,
        key: entry.key,
        ...(entry.by && { writer: entry.by }),
        ...(entry.method !== 'POST' && { version: entry.version }),
        ...(body !== undefined && { body }),
      })
      // Our own later changes to this row were made on top of this one.
      for (const e of entries)
        if (
          e.rowId === entry.rowId &&
          e.key !== entry.key &&
          e.order > entry.order &&
          e.version < row.version
        )
          replace(e, { ...e, version: row.version })
      reports.acknowledged(entry.collection, row, entry)
      await drop(entry)
      return true
    } catch (error) {
      if (!(error instanceof Unreachable) && !(error instanceof ApiProblem)) throw error
      // Whoever wrote it is not signed in any more: it waits until they are.
      if (error instanceof ApiProblem && isNotIn(error.problem)) {
        setWriter(null)
        return false
      }
      if (error instanceof ApiProblem && error.problem.status < 500) {
        settle(entry, error.problem)
        return true
      }
      const failedAt = error instanceof ApiProblem && !AWAY.includes(error.problem.status)
      const faults = (entry.faults ?? 0) + Number(failedAt)
      const again: Entry = { ...entry, tries: entry.tries + 1, faults }
      const setAside = failedAt && faults >= MAX_FAULTS
      replace(entry, setAside ? { ...again, state: 'refused', problem: error.problem } : again)
      return setAside
    }
  }

  /** A refusal: a stale change to other fields is made again on the new version; anything else waits for the person. */
  function settle(entry: Entry, problem: Problem): void {
    const current = problem.current as RowOf<ResourceName> | undefined
    if (problem.code !== 'stale' || !current) return replace(entry, { ...entry, state: 'refused', problem })
    const [body, base] = isChange(entry) ? [entry.body, entry.base] : [{}, {}]
    const untouched = Object.entries(body).every(([k, mine]) => {
      const theirs = valueOf(current, k)
      return k === 'typed' || same(theirs, valueOf(base, k)) || same(theirs, mine)
    })
    reports.acknowledged(entry.collection, current, entry)
    if (untouched) {
      replace(entry, { ...entry, version: current.version })
      reports.merged(entry)
    } else replace(entry, { ...entry, state: 'conflict', problem, version: current.version })
  }

  return {
    start,
    enqueue,
    flush,
    setWriter,
    /** Who writes here, as far as is known. */
    writer: (): Writer | null | undefined => writer,
    /** Entries that somebody else wrote on this device: they wait for them. */
    others: (): readonly Entry[] => others,
    /** Lets an entry of somebody else go. */
    discard: (key: string): void => {
      const entry = entries.find((e) => e.key === key)
      if (entry) void drop(entry)
    },
    /** Settles a conflict or a refusal: send mine on top of theirs, or let mine go. */
    resolve: (key: string, choice: 'mine' | 'theirs'): void => {
      const entry = entries.find((e) => e.key === key)
      if (!entry) return
      // A new key: the refused attempt was answered under the old one.
      const again: Write = isChange(entry) ? { ...entry, base: {} } : entry
      void drop(entry).then(() => choice === 'mine' && enqueue(again))
    },
    setTyping: (field: string, on: boolean): void => {
      if (on === typing.has(field)) return
      if (on) typing.add(field)
      else typing.delete(field)
      publish()
    },
    entries: (): readonly Entry[] => mine,
    state: (): SaveState => state,
    subscribe: (l: () => void): (() => void) => {
      listeners.add(l)
      return () => listeners.delete(l)
    },
  }
}

/** Entries of one collection. */
export const entriesOf = <N extends ResourceName>(
  collection: N,
  entries: readonly Entry[],
): readonly Entry<N>[] => entries.filter((e) => isOf(e, collection)) as readonly Entry<N>[]

/** Rows as the person sees them: what the server said, with what still waits laid over it. */
export function overlay<N extends ResourceName>(
  rows: readonly RowOf<N>[],
  collection: N,
  waiting: readonly Entry[],
): RowOf<N>[] {
  let out = [...rows]
  for (const e of entriesOf(collection, waiting)) {
    const write: WriteTo<N> = e
    if (write.method === 'POST') {
      if (!out.some((r) => r.id === e.rowId)) out.push(write.row)
    } else if (write.method === 'DELETE') out = out.filter((r) => r.id !== e.rowId)
    else if (write.method === 'PATCH' && e.state !== 'refused')
      out = out.map((r) => (r.id === e.rowId ? { ...r, ...write.body, ...mergedTyped(r, write.body) } : r))
  }
  return out
}
