import { QueryClient, skipToken, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { errorMessage } from '../api/errorMessage'

/** A question to a worker. */
export interface Asked<Q> {
  readonly question: Q
  /** All that it holds in one text: the same is not asked twice. */
  readonly text: string
  /** Of which dossier it is: the last answer of another never stands meanwhile. */
  readonly of?: string
  /** Something is in the hand: the answer is for now, and not kept. */
  readonly held?: boolean
}

/** An answer of the worker, what went wrong, and whether another is on its way. */
export interface Answered<T> {
  /** To the question, else to the last before it while that is worked out; none where it failed. */
  readonly answer: T | null
  /** The answer to the last question that had one. */
  readonly last: T | null
  readonly failure: string | null
  readonly busy: boolean
}

/** Answers are kept so long after nobody looks at them any more (ms). */
const KEPT = 10 * 60_000

/** Answers of the workers: never old, for the question holds all that the answer stands on. */
const answers = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: Infinity,
      gcTime: KEPT,
      retry: false,
      networkMode: 'always',
      // A question is long: it is its own hash.
      queryKeyHashFn: (key) => key.join('\n'),
      // Answers are large, and handed on as they are.
      structuralSharing: false,
    },
  },
})

const keyOf = (kind: string, { text, of = '' }: Omit<Asked<unknown>, 'question'>) => [kind, of, text] as const
const same = (a: Asked<unknown> | null, b: Asked<unknown> | null): boolean =>
  a === b || (a !== null && b !== null && a.text === b.text && a.of === b.of)

/**
 * Asks a worker what a view wants to know. One question of a view is under way at a time: of those that come meanwhile
 * only the newest is asked, and the last answer stands until it is there. What was asked not long ago, here or in
 * another view, is answered at once.
 * @param ask Takes `signal` where it can be given up; such a question is given up for the next.
 * @param known The answer, where the server has sent it already.
 */
export function useWork<Q, T>(
  kind: string,
  next: Asked<Q> | null,
  ask: (question: Q, given: { readonly signal: AbortSignal }) => Promise<T>,
  { known, givesUp = false }: { readonly known?: T | undefined; readonly givesUp?: boolean } = {},
): Answered<T> {
  const [asked, setAsked] = useState(next)
  const [last, setLast] = useState<{ readonly of: string | undefined; readonly answer: T } | null>(null)
  const query = useQuery<T>(
    {
      queryKey: keyOf(kind, asked ?? { text: '' }),
      queryFn: asked
        ? (given) =>
            ask(asked.question, given).catch((error: unknown) => {
              throw new Error(errorMessage(error), { cause: error })
            })
        : skipToken,
      ...(asked?.held && { gcTime: 0 }),
      ...(known !== undefined && same(asked, next) && { initialData: known as never }),
    },
    answers,
  )
  if (!same(asked, next)) {
    const atOnce =
      givesUp || next?.of !== asked?.of || (next && answers.getQueryData(keyOf(kind, next)) !== undefined)
    if (atOnce || query.fetchStatus === 'idle') setAsked(next)
  }
  if (query.data !== undefined && last?.answer !== query.data) setLast({ of: asked?.of, answer: query.data })
  const before = last !== null && next !== null && last.of === next.of ? last.answer : null
  return {
    answer: query.data ?? (query.error ? null : before),
    last: query.data ?? before,
    failure: same(asked, next) ? (query.error?.message ?? null) : null,
    busy: query.fetchStatus !== 'idle' || !same(asked, next),
  }
}

/** Forgets every answer, where what comes next is another reader’s, or another test’s. */
export const forgetAnswers = (): void => answers.clear()
