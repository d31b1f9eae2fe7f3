import { LRUCache } from 'lru-cache'

/** Answers kept of each kind of question. */
const MOST = 12

export interface Recent<T> {
  readonly get: (question: string | null) => T | undefined
  readonly put: (question: string | null, answer: T) => void
}

/**
 * The last answers of a worker, by the whole of what was asked: a station that is opened again shows at once what it
 * showed before.
 */
export function recent<T>(): Recent<T> {
  const kept = new LRUCache<string, { readonly answer: T }>({ max: MOST })
  return {
    get: (question) => (question === null ? undefined : kept.get(question)?.answer),
    put: (question, answer) => void (question !== null && kept.set(question, { answer })),
  }
}
