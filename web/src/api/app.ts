import { useSyncExternalStore } from 'react'
import { makeOutbox, type Entry, type SaveState, type Writer } from './outbox'

/** The outbox of this page. */
export const outbox = makeOutbox()

/** What waits now, and the state it amounts to. */
export const useEntries = (): readonly Entry[] => useSyncExternalStore(outbox.subscribe, outbox.entries)
export const useSaveState = (): SaveState => useSyncExternalStore(outbox.subscribe, outbox.state)
export const useOthersEntries = (): readonly Entry[] => useSyncExternalStore(outbox.subscribe, outbox.others)

/** Who writes here, as far as is known. */
export const useWriter = (): Writer | null | undefined =>
  useSyncExternalStore(outbox.subscribe, outbox.writer)
/** May whoever is here change anything? */
export const useMayWrite = (): boolean => useWriter()?.reads !== true
