import { saidBy } from '../frame/said'
import { pathRecord, type Dossier, type HouseRule, type Medium } from '@ypsometer/contract'
import type { Fill } from '@ypsometer/core/fills'
import type { Assessment } from '@ypsometer/core/judging'
import type { StockClass } from '@ypsometer/core/tanks'
import { reaches } from '@ypsometer/core/teardown/reach'
import type { Remote } from 'comlink'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { start } from './pathRemote'
import type { PathAnswer, PathQuestion, PathWork } from './pathWork'

let shared: ReturnType<typeof start> | null = null

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
  const busy = useRef(false)
  const waiting = useRef<{ record: typeof record; question: PathQuestion } | null>(null)
  const given = useRef<typeof record>(null)
  const alive = useRef(true)
  const run = useCallback(async () => {
    if (busy.current) return
    busy.current = true
    const { remote } = (shared ??= start())
    while (waiting.current && alive.current) {
      const { record: r, question: q } = waiting.current
      waiting.current = null
      if (!r) continue
      try {
        if (given.current !== r) {
          await remote.prepare(r)
          given.current = r
        }
        const next = await remote.solve(q)
        if (alive.current) setAnswer(next)
      } catch (error) {
        // A fault of ours: said, and the next question is still asked.
        const message = saidBy(error)
        if (alive.current) setAnswer({ kind: 'wrong', at: null, field: '', message, outcome: null })
      }
    }
    busy.current = false
  }, [])
  useEffect(() => {
    alive.current = true
    if (!record || !question) return
    waiting.current = { record, question }
    void run()
  }, [record, question, run])
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
      const { worker, remote } = start()
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
      const { remote } = (shared ??= start())
      if (given.current !== record) {
        await remote.prepare(record)
        given.current = record
      }
      return work(remote)
    },
    [record],
  )
  return { answer, question, ask, long, cancel }
}
