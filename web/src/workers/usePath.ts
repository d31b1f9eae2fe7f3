import { errorMessage } from '../api/errorMessage'
import type { Dossier, HouseRule, Medium } from '@ypsometer/contract'
import { pathRecord } from '@ypsometer/contract/records'
import type { Fill } from '@ypsometer/core/fills/place'
import type { Assessment } from '@ypsometer/core/judging/assess'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import { reaches } from '@ypsometer/core/teardown/reach'
import type { Remote } from 'comlink'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { start } from './pathRemote'
import { recent } from './recent'
import type { PathAnswer, PathQuestion, PathWork } from './pathWork'

let shared: ReturnType<typeof start> | null = null
const solved = recent<PathAnswer>()
/** The worker that all stations share; the first to ask starts it. */
export const pathRemote = (): Remote<PathWork> => (shared ??= start()).remote

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
  /** Record and question in one text; null while something is in the hand. */
  readonly key: string | null
  /** Asks the shared worker something short. */
  readonly ask: <T>(work: (w: Remote<PathWork>) => Promise<T>) => Promise<T | null>
  /** Runs something long in a worker of its own; it is ended when superseded or no longer wanted. */
  readonly long: <T>(work: (w: Remote<PathWork>) => Promise<T>) => Promise<T | null>
  readonly cancel: () => void
}

/**
 * The path worked through in a worker. One question is under way at a time; those asked meanwhile are superseded by the
 * newest, and never computed.
 */
export function usePath(input: Input): PathState {
  const { dossier, assessment, media, house, stock, hookupId, fill, against, quick = false } = input
  const [answer, setAnswer] = useState<PathAnswer | null>(null)
  const record = useMemo(
    () => (media && assessment ? pathRecord(dossier, media, assessment, hookupId) : null),
    [dossier, media, assessment, hookupId],
  )
  const reached = useMemo(() => reaches(dossier.parts), [dossier.parts])
  const question = useMemo<PathQuestion | null>(
    () => (fill && house && stock ? { fill, against, house, stock, reaches: reached, quick } : null),
    [fill, against, house, stock, reached, quick],
  )
  const key = useMemo(
    () => (record && question && !quick ? JSON.stringify([record, question]) : null),
    [record, question, quick],
  )
  const busy = useRef(false)
  const waiting = useRef<{ record: typeof record; question: PathQuestion; key: string | null } | null>(null)
  const latest = useRef<PathQuestion | null>(null)
  const given = useRef<typeof record>(null)
  const alive = useRef(true)
  const run = useCallback(async () => {
    if (busy.current) return
    busy.current = true
    const remote = pathRemote()
    while (waiting.current && alive.current) {
      const { record: r, question: q, key: k } = waiting.current
      waiting.current = null
      if (!r) continue
      try {
        if (given.current !== r) {
          await remote.prepare(r)
          given.current = r
        }
        const next = await remote.solve(q)
        solved.put(k, next)
        // One that was answered at once meanwhile stands: this is older.
        if (alive.current && (waiting.current || latest.current === q)) setAnswer(next)
      } catch (error) {
        // A fault of ours: said, and the next question is still asked.
        const message = errorMessage(error)
        if (alive.current) setAnswer({ kind: 'wrong', at: null, field: '', message, outcome: null })
      }
    }
    busy.current = false
  }, [])
  useEffect(() => {
    alive.current = true
    if (!record || !question) return
    latest.current = question
    const kept = solved.get(key)
    if (kept) {
      waiting.current = null
      setAnswer(kept)
      return
    }
    waiting.current = { record, question, key }
    void run()
  }, [record, question, key, run])
  const spare = useRef<{ terminate(): void } | null>(null)
  const cancel = useCallback(() => {
    spare.current?.terminate()
    spare.current = null
  }, [])
  useEffect(
    () => () => {
      alive.current = false
      given.current = null
      cancel()
    },
    [cancel],
  )
  const long = useCallback(
    async <T>(work: (w: Remote<PathWork>) => Promise<T>): Promise<T | null> => {
      cancel()
      if (!record) return null
      const worker = start()
      const { remote } = worker
      spare.current = worker
      await remote.prepare(record)
      const result = await work(remote)
      if (spare.current !== worker) return null
      cancel()
      return result
    },
    [record, cancel],
  )
  const ask = useCallback(
    async <T>(work: (w: Remote<PathWork>) => Promise<T>): Promise<T | null> => {
      if (!record) return null
      const remote = pathRemote()
      if (given.current !== record) {
        await remote.prepare(record)
        given.current = record
      }
      return work(remote)
    },
    [record],
  )
  return { answer: answer ?? solved.get(key) ?? null, question, key, ask, long, cancel }
}
