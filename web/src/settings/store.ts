import { useSyncExternalStore } from 'react'

/** A value outside of React, and those who hear when it changes. */
export interface Store<T> {
  readonly get: () => T
  readonly set: (next: T) => void
  readonly subscribe: (changed: () => void) => () => void
  /** The value in a component; the same where a page is drawn without a browser. */
  readonly use: <V = T>(of?: (value: T) => V) => V
}

/** Makes a store; `watched` hears when somebody listens at all, and no one any more. */
export function makeStore<T>(initial: T, watched?: (somebody: boolean) => void): Store<T> {
  let value = initial
  const listeners = new Set<() => void>()
  const get = (): T => value
  const subscribe = (changed: () => void): (() => void) => {
    listeners.add(changed)
    if (listeners.size === 1) watched?.(true)
    return () => {
      if (listeners.delete(changed) && !listeners.size) watched?.(false)
    }
  }
  return {
    get,
    set: (next) => {
      if (Object.is(next, value)) return
      value = next
      listeners.forEach((changed) => changed())
    },
    subscribe,
    use: <V>(of: (now: T) => V = (now) => now as unknown as V) => {
      const now = (): V => of(value)
      return useSyncExternalStore(subscribe, now, now)
    },
  }
}
