import type { Dossier, HouseRule, Medium } from '@ypsometer/contract'
import { pathRecord } from '@ypsometer/contract/records'
import type { Fill } from '@ypsometer/core/fills/place'
import type { PathRecord } from '@ypsometer/core/path/fromModel'
import type { Assessment } from '@ypsometer/core/judging/assess'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import { reaches } from '@ypsometer/core/teardown/reach'
import type { Remote } from 'comlink'
import { useCallback, useEffect, useMemo, useRef } from 'react'
import { start } from './pathRemote'
import type { PathAnswer, PathQuestion, PathWork } from './pathWork'
import { useWork, type Answered, type Asked } from './useWork'

let shared: ReturnType<typeof start> | null = null
/** The worker that all stations share; the first to ask starts it. */
export const pathRemote = (): Remote<PathWork> => (shared ??= start()).remote

/** The record that the shared worker has. */
let prepared: PathRecord | null = null
/** Asks the shared worker something short, with this record before it: messages come to it in their order. */
async function onShared<T>(record: PathRecord, work: (w: Remote<PathWork>) => Promise<T>): Promise<T> {
  const remote = pathRemote()
  const first = prepared === record ? undefined : remote.prepare(record)
  prepared = record
  try {
    const [, answer] = await Promise.all([first, work(remote)])
    return answer
  } catch (error) {
    // Whatever failed, the next question brings its record along again.
    prepared = null
    throw error
  }
}

/** Runs something long in a worker of its own, which ends with it or when it is given up; null then. */
async function onItsOwn<T>(
  record: PathRecord,
  work: (w: Remote<PathWork>) => Promise<T>,
  signal: AbortSignal,
): Promise<T | null> {
  if (signal.aborted) return null
  const { remote, terminate } = start()
  return new Promise((done, fail) => {
    const end = (): void => {
      terminate()
      done(null)
    }
    signal.addEventListener('abort', end)
    remote
      .prepare(record)
      .then(() => (signal.aborted ? null : work(remote)))
      .then(done, fail)
      .finally(() => {
        signal.removeEventListener('abort', end)
        if (!signal.aborted) terminate()
      })
  })
}

interface Input {
  readonly dossier: Dossier
  readonly assessment: Assessment | null
  readonly media: readonly Medium[] | undefined
  readonly house: HouseRule | undefined
  readonly stock: StockClass | undefined
  readonly hookupId: string | null
  readonly fill: Fill | null
  readonly against: Fill | null
  /** A layer is in the hand: leave out what need not be live. */
  readonly quick?: boolean
}

export interface PathState {
  readonly answer: PathAnswer | null
  readonly question: PathQuestion | null
  /** Record and question as they are asked; null while either is on its way. */
  readonly asked: Asked<OnPath> | null
  /** Asks the shared worker something short. */
  readonly ask: <T>(work: (w: Remote<PathWork>) => Promise<T>) => Promise<T | null>
  /** Runs something long in a worker of its own; it is ended when superseded or no longer wanted. */
  readonly long: <T>(work: (w: Remote<PathWork>) => Promise<T>) => Promise<T | null>
  readonly cancel: () => void
}

/** A question of the path with the record it stands on. */
export interface OnPath {
  readonly record: PathRecord
  readonly question: PathQuestion
}
/** The same with more that is asked of it: a text of its own for each. */
const further = <M>(
  { question, text, ...rest }: Asked<OnPath>,
  more: M,
): Asked<OnPath & { readonly more: M }> => ({
  ...rest,
  question: { ...question, more },
  text: `${text} ${JSON.stringify(more)}`,
})

/** Asks the shared worker something short of the path as it is asked about; `more` says what, beside the path. */
export const usePathWork = <M, T>(
  kind: string,
  asked: Asked<OnPath> | null,
  more: M,
  work: (w: Remote<PathWork>, question: PathQuestion, more: M) => Promise<T>,
): Answered<T> =>
  useWork(kind, asked && further(asked, more), ({ record, question, more: m }) =>
    onShared(record, (w) => work(w, question, m)),
  )

/** Asks something long, in a worker that ends when the next is asked. */
export const useLongPathWork = <M, T>(
  kind: string,
  asked: Asked<OnPath> | null,
  more: M,
  work: (w: Remote<PathWork>, more: M) => Promise<T>,
): Answered<T | null> =>
  useWork(
    kind,
    asked && further(asked, more),
    ({ record, more: m }, { signal }) => onItsOwn(record, (w) => work(w, m), signal),
    { givesUp: true },
  )

let inHand = 0
/**
 * The path worked through in a worker. One question is under way at a time; those asked meanwhile are superseded by the
 * newest, and never computed.
 */
export function usePath(input: Input): PathState {
  const { dossier, assessment, media, house, stock, hookupId, fill, against, quick = false } = input
  const record = useMemo(
    () => (media && assessment ? pathRecord(dossier, media, assessment, hookupId) : null),
    [dossier, media, assessment, hookupId],
  )
  const reached = useMemo(() => reaches(dossier.parts), [dossier.parts])
  const question = useMemo<PathQuestion | null>(
    () => (fill && house && stock ? { fill, against, house, stock, reaches: reached, quick } : null),
    [fill, against, house, stock, reached, quick],
  )
  const of = dossier.model.id
  const asked = useMemo<Asked<OnPath> | null>(() => {
    if (!record || !question) return null
    const both = { record, question }
    return { question: both, of, held: quick, text: quick ? `in hand ${++inHand}` : JSON.stringify(both) }
  }, [record, question, quick, of])
  const { answer, failure } = useWork<OnPath, PathAnswer>('path', asked, (q) =>
    onShared(q.record, async (w): Promise<PathAnswer> => w.solve(q.question)),
  )
  const running = useRef<AbortController | null>(null)
  const cancel = useCallback(() => running.current?.abort(), [])
  useEffect(() => cancel, [cancel])
  const long = useCallback(
    async <T>(work: (w: Remote<PathWork>) => Promise<T>): Promise<T | null> => {
      cancel()
      if (!record) return null
      running.current = new AbortController()
      return onItsOwn(record, work, running.current.signal)
    },
    [record, cancel],
  )
  const ask = useCallback(
    async <T>(work: (w: Remote<PathWork>) => Promise<T>): Promise<T | null> =>
      record && onShared(record, work),
    [record],
  )
  return {
    // A fault of ours: said, and the next question is still asked.
    answer: failure ? { kind: 'wrong', at: null, field: '', message: failure, outcome: null } : answer,
    question,
    asked,
    ask,
    long,
    cancel,
  }
}
