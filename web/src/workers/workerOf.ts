import { wrap, type Remote } from 'comlink'
import { retryWhenBack } from '../api/retryWhenBack'

/** The code of a worker did not come. */
class Unread extends Error {}

/** A worker as it is kept: its functions as promises, and its end. */
export interface KeptWorker<T> {
  readonly remote: Remote<T>
  terminate(): void
}

/**
 * Starts a worker. One whose code does not come, as with the server away, is started again when the server is there,
 * and asked again what it was asked; `make` makes it.
 */
export function workerOf<T>(make: () => Worker): KeptWorker<T> {
  const begin = () => {
    const worker = make()
    const waiting = new Set<(error: Error) => void>()
    const started = {
      worker,
      waiting,
      remote: wrap<T>(worker) as Record<string, (...a: unknown[]) => unknown>,
    }
    worker.onerror = (event) => {
      const thrown = 'message' in event && typeof event.message === 'string' ? event.message : ''
      if (!thrown && now === started) now = null
      waiting.forEach((fail) => fail(thrown ? new Error(thrown) : new Unread('A worker could not be read')))
      waiting.clear()
    }
    return started
  }
  let ended = false
  let now: ReturnType<typeof begin> | null = begin()
  const ask = (name: string, given: unknown[]): Promise<unknown> =>
    new Promise((done, fail) => {
      // Nobody waits for what was ended.
      if (ended) return
      const { remote, waiting } = (now ??= begin())
      waiting.add(fail)
      void Promise.resolve(remote[name]?.(...given))
        .then(done, fail)
        .finally(() => waiting.delete(fail))
    })
  const remote = new Proxy(
    {},
    {
      // It is no promise itself, whoever asks.
      get: (_, name) =>
        name === 'then'
          ? undefined
          : (...given: unknown[]) =>
              retryWhenBack(
                () => ask(String(name), given),
                (e) => e instanceof Unread,
              ),
    },
  )
  return {
    remote: remote as Remote<T>,
    terminate: () => {
      ended = true
      now?.worker.terminate()
    },
  }
}
