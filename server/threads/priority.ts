import { setPriority } from 'node:os'

/** On a busy machine whoever is answered at once goes first. */
const LESS_URGENT = 10

/** Makes the thread that calls it, and those it starts, less urgent than what answers at once. */
export function giveWay(): void {
  try {
    setPriority(LESS_URGENT)
  } catch {
    // Not allowed here: it goes on as it is.
  }
}
