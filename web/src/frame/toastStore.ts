/** A short message that floats a while, with at most one action. */
export interface Toast {
  readonly id: number
  readonly text: string
  readonly action?: { readonly label: string; readonly run: () => void }
}

let toasts: readonly Toast[] = []
let next = 1
const listeners = new Set<() => void>()
const publish = (list: readonly Toast[]): void => {
  toasts = list
  listeners.forEach((l) => l())
}

export const dismiss = (id: number): void => publish(toasts.filter((t) => t.id !== id))

/** Shows a message for 6 s, or 12 s when there is something to do about it. At most four at once. */
export function toast(text: string, action?: Toast['action']): void {
  const id = next++
  publish([...toasts, { id, text, ...(action && { action }) }].slice(-4))
  setTimeout(() => dismiss(id), action ? 12000 : 6000)
}

export const toastStore = {
  subscribe: (l: () => void): (() => void) => {
    listeners.add(l)
    return () => listeners.delete(l)
  },
  get: (): readonly Toast[] => toasts,
}
