import { useSyncExternalStore } from 'react'
import { makeOutbox, type Entry, type SaveState } from './outbox'

/** The outbox of this page. */
export const outbox = makeOutbox()

/** What waits now, and the state it amounts to. */
export const useEntries = (): readonly Entry[] => useSyncExternalStore(outbox.subscribe, outbox.entries)
export const useSaveState = (): SaveState => useSyncExternalStore(outbox.subscribe, outbox.state)
