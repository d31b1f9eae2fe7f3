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
  const kept = new Map<string, T>()
  return {
    get: (question) => (question === null ? undefined : kept.get(question)),
    put: (question, answer) => {
      if (question === null) return
      kept.delete(question)
      kept.set(question, answer)
      const [oldest] = kept.keys()
      if (kept.size > MOST && oldest !== undefined) kept.delete(oldest)
    },
  }
}
