import { makeStore } from '../settings/store'

/** A short message that floats a while, with at most one action. */
export interface Toast {
  readonly id: number
  readonly text: string
  readonly action?: { readonly label: string; readonly run: () => void }
}

/** The messages that float now, the oldest first. */
export const toasts = makeStore<readonly Toast[]>([])
let next = 1

export const dismiss = (id: number): void => toasts.set(toasts.get().filter((t) => t.id !== id))

/** Shows a message for 6 s, or 12 s when there is something to do about it. At most four at once. */
export function toast(text: string, action?: Toast['action']): void {
  const id = next++
  toasts.set([...toasts.get(), { id, text, ...(action && { action }) }].slice(-4))
  setTimeout(() => dismiss(id), action ? 12000 : 6000)
}
