import { PAGE_COOKIES } from '@ypsometer/contract/page'
import { useStore } from '../settings/useStore'
import { makeOutbox, type Entry, type SaveState, type Writer } from './outbox'

/** The outbox of this page. */
export const outbox = makeOutbox()

/** Keeps the server from drawing pages of its own while changes wait here: they would show what was before those. */
export function tellOfWaiting(): void {
  let told: boolean | undefined
  outbox.subscribe(() => {
    const waits = outbox.entries().length > 0
    if (waits === told) return
    told = waits
    document.cookie = `${PAGE_COOKIES.waiting}=1; path=/; samesite=lax; max-age=${waits ? 31_536_000 : 0}`
  })
}

/** What waits now, and the state it amounts to. */
export const useEntries = (): readonly Entry[] => useStore(outbox.subscribe, outbox.entries)
export const useSaveState = (): SaveState => useStore(outbox.subscribe, outbox.state)
export const useOthersEntries = (): readonly Entry[] => useStore(outbox.subscribe, outbox.others)

/** Who writes here, as far as is known. */
export const useWriter = (): Writer | null | undefined => useStore(outbox.subscribe, outbox.writer)
/** May whoever is here change anything? */
export const useMayWrite = (): boolean => useWriter()?.reads !== true
