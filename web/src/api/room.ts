/** Does this device keep nothing more: is it full, or the window a private one? Once it did not, that is said. */
const listeners = new Set<() => void>()
let full = false

export const noRoom = {
  get: (): boolean => full,
  /** Says that something could not be kept, or that things can be kept again. */
  set: (next: boolean): void => {
    if (next === full) return
    full = next
    listeners.forEach((l) => l())
  },
  subscribe: (l: () => void): (() => void) => {
    listeners.add(l)
    return () => listeners.delete(l)
  },
}

/** Keeps a text under a name on this device, or lets it go. What cannot be kept stays in the page, and is said. */
export function keepText(key: string, text: string | null): void {
  try {
    if (text === null) localStorage.removeItem(key)
    else localStorage.setItem(key, text)
  } catch {
    if (text !== null) noRoom.set(true)
  }
}

/** A text kept under a name; null where there is none. */
export function keptText(key: string): string | null {
  try {
    return localStorage.getItem(key)
  } catch {
    return null
  }
}
