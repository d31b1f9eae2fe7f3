import { setTimeout as pause } from 'node:timers/promises'

/**
 * Work that several ask for at once is done once for all who asked before it began: nobody is given what was read
 * before they asked.
 */
export class Shared<T> {
  readonly #running = new Map<string, Promise<T>>()
  readonly #next = new Map<string, Promise<T>>()

  /** @param pace In a crowd it begins again no sooner than so long (ms) after it ended: others get their turn. */
  constructor(private readonly pace = 0) {}

  /** @param key What is asked for: the same key, the same work. */
  ask(key: string, work: () => Promise<T>): Promise<T> {
    // It has not begun: whoever comes while it waits for its turn is in time for it.
    const waiting = this.#next.get(key)
    if (waiting) return waiting
    const running = this.#running.get(key)
    if (!running) return this.#begin(key, work)
    const next = running
      .catch(() => undefined)
      .then(() => pause(this.pace))
      .then(() => {
        this.#next.delete(key)
        return this.#begin(key, work)
      })
    this.#next.set(key, next)
    return next
  }

  #begin(key: string, work: () => Promise<T>): Promise<T> {
    const mine = work().finally(() => {
      if (this.#running.get(key) === mine) this.#running.delete(key)
    })
    this.#running.set(key, mine)
    return mine
  }
}
