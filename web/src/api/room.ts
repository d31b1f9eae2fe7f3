import { makeStore } from '../settings/store'

/** Does this device keep nothing more: is it full, or the window a private one? Once it did not, that is said. */
export const noRoom = makeStore(false)

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
