// What becomes of writes that wait: no storage, no network, no clock.
import type { CreateOf, PatchOf, Problem, ResourceName, RowOf } from '@ypsometer/contract'

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
/** A write as it is put into the outbox. */
export type Write<N extends ResourceName = ResourceName> = Pick<
  Waiting<N>,
  'collection' | 'rowId' | 'version'
> &
  WriteTo<N>

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

/** Statuses that say there is nobody at home, not that this write is at fault. */
const AWAY: readonly number[] = [502, 503, 504]

/** A write that the server has failed at this often is set aside, so that the rest can go on. */
const MAX_FAULTS = 3
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a ?? null) === JSON.stringify(b ?? null)
export const isChange = (e: Entry): e is Waiting<ResourceName> & Changing<ResourceName> =>
  e.method === 'PATCH'
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
export function addressOf(e: Entry): string {
  const one = `/${e.collection}/${e.rowId}`
  if (e.method === 'RESTORE') return `${one}/restore`
  if (e.method !== 'POST') return one
  if (!isOf(e, 'photos')) return `/${e.collection}`
  const { trialId, partId, visitId, caption = '' } = e.body
  const owner = trialId ? `trials/${trialId}` : visitId ? `visits/${visitId}` : `parts/${partId}`
  return `/${owner}/photos?${new URLSearchParams({ id: e.rowId, caption })}`
}

/** The state that the writes of this page amount to. */
export function saveStateOf(
  mine: readonly Entry[],
  now: { readonly refused: (key: string) => boolean; readonly typing: boolean; readonly signedOut: boolean },
): SaveState {
  const waiting = mine.filter((e) => e.state === 'waiting')
  if (mine.length > waiting.length) return 'needs-you'
  if (waiting.some((e) => now.refused(e.key))) return 'no-room'
  if (!waiting.length) return now.typing ? 'saving' : 'saved'
  return now.signedOut || waiting.some((e) => e.tries > 0) ? 'kept' : 'saving'
}

/** A list of entries after a write, and what of it has to be let go of and kept. */
export interface Revised {
  readonly entries: readonly Entry[]
  readonly gone: readonly Entry[]
  readonly stored: readonly Entry[]
}

/** A field typed again takes the place of its refused or conflicting predecessor. */
function withoutParked(
  entries: readonly Entry[],
  write: Pick<Write, 'rowId'> & Changing<ResourceName>,
  isMine: (e: Entry) => boolean,
): Revised {
  const gone: Entry[] = []
  const stored: Entry[] = []
  const left = entries.flatMap((e): Entry[] => {
    if (e.rowId !== write.rowId || e.state === 'waiting' || !isChange(e) || !isMine(e)) return [e]
    gone.push(e)
    const others = Object.entries(e.body).filter(([k]) => !(k in write.body) && k !== 'typed')
    if (!others.length) return []
    const { problem, ...kept } = e
    const rest: Entry = { ...kept, body: Object.fromEntries(others), key: crypto.randomUUID() }
    // Refused for nothing but what is now written anew: the rest goes on.
    const next: Entry = isCured(e, write.body)
      ? { ...rest, state: 'waiting', tries: 0, faults: 0 }
      : { ...rest, ...(problem && { problem }) }
    stored.push(next)
    return [next]
  })
  return { entries: left, gone, stored }
}

/** A change that waits and has not been sent takes a further one to its row along. */
const takesAlong = (last: Entry | undefined, by: string | undefined, inFlight: Entry | null): boolean =>
  last !== undefined &&
  last.by === by &&
  isChange(last) &&
  last.state === 'waiting' &&
  last.tries === 0 &&
  last !== inFlight

/** The entries once a write has been put among them. The last of `stored` is the one that it is now part of. */
export function withWrite(
  entries: readonly Entry[],
  write: Write,
  given: {
    readonly stamp: Pick<Entry, 'by' | 'byName'>
    readonly order: number
    readonly inFlight: Entry | null
    readonly isMine: (e: Entry) => boolean
  },
): Revised {
  const { stamp, order, inFlight, isMine } = given
  const kept: Revised =
    write.method === 'PATCH' ? withoutParked(entries, write, isMine) : { entries, gone: [], stored: [] }
  const last = kept.entries.findLast((e) => e.rowId === write.rowId)
  if (write.method === 'PATCH' && last && isChange(last) && takesAlong(last, stamp.by, inFlight)) {
    const body = { ...last.body, ...write.body, ...mergedTyped(last.body, write.body) }
    // Another page may have sent it already: a key stands for what was sent under it, and for nothing more.
    const merged: Entry = {
      ...last,
      key: crypto.randomUUID(),
      body,
      base: { ...write.base, ...last.base },
    }
    return {
      entries: kept.entries.map((e) => (e === last ? merged : e)),
      gone: [...kept.gone, last],
      stored: [...kept.stored, merged],
    }
  }
  const entry: Entry = {
    ...write,
    key: crypto.randomUUID(),
    order,
    state: 'waiting',
    tries: 0,
    faults: 0,
    ...stamp,
  }
  return { entries: [...kept.entries, entry], gone: kept.gone, stored: [...kept.stored, entry] }
}

/** Later changes to a row that has been written were made on top of it. */
export const onTopOf = (entries: readonly Entry[], done: Entry, version: number): readonly Entry[] =>
  entries.filter(
    (e) => e.rowId === done.rowId && e.key !== done.key && e.order > done.order && e.version < version,
  )

/**
 * An entry after a refusal: a stale change to other fields is made again on the new version (`merged`); anything else
 * waits for the person.
 */
export function afterRefusal(
  entry: Entry,
  problem: Problem,
): { readonly next: Entry; readonly merged: boolean } {
  const current = problem.current as RowOf<ResourceName> | undefined
  if (problem.code !== 'stale' || !current)
    return { next: { ...entry, state: 'refused', problem }, merged: false }
  const [body, base] = isChange(entry) ? [entry.body, entry.base] : [{}, {}]
  const merged = Object.entries(body).every(([k, mine]) => {
    const theirs = valueOf(current, k)
    return k === 'typed' || same(theirs, valueOf(base, k)) || same(theirs, mine)
  })
  const next: Entry = { ...entry, version: current.version }
  return { next: merged ? next : { ...next, state: 'conflict', problem }, merged }
}

/** An entry that got no row back: tried again, or set aside once the server itself has failed at it too often. */
export function afterFailure(entry: Entry, problem: Problem | null): Entry {
  const failedAt = problem !== null && !AWAY.includes(problem.status)
  const faults = (entry.faults ?? 0) + Number(failedAt)
  const again: Entry = { ...entry, tries: entry.tries + 1, faults }
  return failedAt && faults >= MAX_FAULTS ? { ...again, state: 'refused', problem } : again
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
