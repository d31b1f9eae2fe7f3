import type { ResourceName, RowOf } from '@ypsometer/contract'
import { makeStore } from '../settings/store'
import { api, ApiProblem, isNotIn, Unreachable } from './client'
import {
  addressOf,
  afterFailure,
  afterRefusal,
  isChange,
  onTopOf,
  saveStateOf,
  withWrite,
  type Entry,
  type SaveState,
  type Write,
  type Writer,
} from './outboxPolicy'
import { makeStorage } from './outboxStorage'

/** Who hears of what the outbox does. */
export interface Reports {
  /** The server has answered a write with the row as it now is. */
  readonly acknowledged: (collection: ResourceName, row: RowOf<ResourceName>, entry: Entry) => void
  /** A change was made again on top of somebody else's. */
  readonly merged: (entry: Entry) => void
}

/** Pause before writes that got no answer are sent again. */
const RETRY_MS = 2000

/** Content of an outbox, as its page sees it. */
interface Held {
  /** Those of the writer, which are laid over what the server says. */
  readonly mine: readonly Entry[]
  /** Those of somebody else on this device: they wait for them. */
  readonly others: readonly Entry[]
  readonly state: SaveState
  /** Who writes; null while nobody is signed in, when nothing is sent; undefined where nobody is asked. */
  readonly writer: Writer | null | undefined
}

/** What a sender needs of its outbox. */
interface Box {
  readonly entries: () => readonly Entry[]
  /** The next write to send. */
  readonly waits: () => Entry | undefined
  readonly reports: () => Reports
  readonly replace: (old: Entry, next: Entry) => void
  readonly drop: (entry: Entry) => Promise<void>
  /** The server knows the writer no more. */
  readonly signOut: () => void
}

/** Sends what waits in an outbox, one at a time, in one window only, and tries again later where nobody answers. */
function makeSender(name: string, box: Box) {
  let inFlight: Entry | null = null

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
      for (const e of onTopOf(box.entries(), entry, row.version))
        box.replace(e, { ...e, version: row.version })
      box.reports().acknowledged(entry.collection, row, entry)
      await box.drop(entry)
      return true
    } catch (error) {
      if (!(error instanceof Unreachable) && !(error instanceof ApiProblem)) throw error
      const problem = error instanceof ApiProblem ? error.problem : null
      // Whoever wrote it is not signed in any more: it waits until they are.
      if (problem && isNotIn(problem)) {
        box.signOut()
        return false
      }
      if (problem && problem.status < 500) {
        const { next, merged } = afterRefusal(entry, problem)
        if (merged || next.state === 'conflict')
          box.reports().acknowledged(entry.collection, problem.current as RowOf<ResourceName>, entry)
        box.replace(entry, next)
        if (merged) box.reports().merged(entry)
        return true
      }
      const next = afterFailure(entry, problem)
      box.replace(entry, next)
      return next.state === 'refused'
    }
  }

  let flushing = false
  let retry: ReturnType<typeof setTimeout> | undefined
  /** Sends what waits, in order, one at a time and in one window only; stops at the first that gets no answer. */
  async function flush(): Promise<void> {
    if (flushing) return
    flushing = true
    let stalled = false
    clearTimeout(retry)
    const work = async (): Promise<void> => {
      for (let next = box.waits(); next && !stalled; next = box.waits()) {
        inFlight = next
        stalled = !(await send(next))
      }
    }
    try {
      await ('locks' in navigator ? navigator.locks.request(`${name}.outbox`, work) : work())
    } finally {
      inFlight = null
      flushing = false
    }
    if (stalled) retry = setTimeout(() => void flush(), RETRY_MS)
    else if (box.waits()) void flush()
  }
  return { flush, inFlight: () => inFlight }
}

/**
 * An outbox: every write is an entry kept on this device until the server has answered it, sent in order, one at a
 * time, in one window only. `name` is its database on this device.
 */
export function makeOutbox(name = 'ypsometer') {
  let entries: readonly Entry[] = []
  const held = makeStore<Held>({ mine: [], others: [], state: 'saved', writer: undefined })
  const storage = makeStorage(name, { entries: () => entries, changed: () => publish() })
  let reports: Reports = { acknowledged: () => undefined, merged: () => undefined }
  let order = Date.now() * 1000
  /** Fields whose text is about to be written: saying "Saved" meanwhile would be untrue. */
  const typing = new Set<string>()
  /** While nobody is signed in, what is kept belongs to who wrote last, whose screen it still is. */
  let lastWriter: Writer | null = null
  const author = (): Writer | null => held.get().writer ?? lastWriter
  const isMine = (e: Entry, by = author()): boolean => !e.by || !by || e.by === by.id

  function publish(next: readonly Entry[] = entries, writer = held.get().writer): void {
    entries = next
    if (writer) lastWriter = writer
    const by = writer ?? lastWriter
    const mine = entries.filter((e) => isMine(e, by))
    const state = saveStateOf(mine, {
      refused: storage.isRefused,
      typing: typing.size > 0,
      signedOut: writer === null,
    })
    held.set({ mine, others: entries.filter((e) => !isMine(e, by)), state, writer })
  }
  const replace = (old: Entry, next: Entry): void => {
    publish(entries.map((e) => (e.key === old.key ? next : e)))
    void storage.store(next)
  }
  const drop = async (entry: Entry): Promise<void> => {
    publish(entries.filter((e) => e.key !== entry.key))
    await storage.forget(entry)
  }

  /** Says who writes from now on. */
  function setWriter(next: Writer | null): void {
    const { writer } = held.get()
    if (writer !== undefined && JSON.stringify(next) === JSON.stringify(writer)) return
    publish(entries, next)
    void flush()
  }

  const sender = makeSender(name, {
    entries: () => entries,
    waits: () =>
      held.get().writer === null ? undefined : held.get().mine.find((e) => e.state === 'waiting'),
    reports: () => reports,
    replace,
    drop,
    signOut: () => setWriter(null),
  })
  const flush = (): Promise<void> => (held.get().writer === null ? Promise.resolve() : sender.flush())

  /** Puts a write in the outbox: kept on this device at once, sent as soon as can be. */
  function enqueue(write: Write): void {
    const by = author()
    const stamp = by && !by.visitor ? { by: by.id, byName: by.name } : {}
    const next = withWrite(entries, write, {
      stamp,
      order: ++order,
      inFlight: sender.inFlight(),
      isMine: (e) => isMine(e),
    })
    publish(next.entries)
    // What takes the place of another is kept before that is let go of.
    void Promise.all(next.stored.map(storage.store))
      .then(() => next.gone.forEach((e) => void storage.forget(e)))
      .then(() => flush())
  }

  const reload = async (): Promise<void> => {
    const all = await storage.read()
    if (all) publish(all)
  }
  return {
    held,
    enqueue,
    flush,
    setWriter,
    /** Picks up what was left, and sends again when the network comes back. */
    start(to: Reports): void {
      reports = to
      storage.watch(() => void reload())
      void reload().then(() => flush())
      window.addEventListener('online', () => void flush())
      window.addEventListener('beforeunload', (event) => {
        if (entries.some((e) => storage.isRefused(e.key))) event.preventDefault()
      })
    },
    /** Lets an entry of somebody else go. */
    discard(key: string): void {
      const entry = entries.find((e) => e.key === key)
      if (entry) void drop(entry)
    },
    /** Settles a conflict or a refusal: send mine on top of theirs, or let mine go. */
    resolve(key: string, choice: 'mine' | 'theirs'): void {
      const entry = entries.find((e) => e.key === key)
      if (!entry) return
      // A new key: the refused attempt was answered under the old one.
      const again: Write = isChange(entry) ? { ...entry, base: {} } : entry
      void drop(entry).then(() => choice === 'mine' && enqueue(again))
    },
    setTyping(field: string, on: boolean): void {
      if (on === typing.has(field)) return
      if (on) typing.add(field)
      else typing.delete(field)
      publish()
    },
  }
}
