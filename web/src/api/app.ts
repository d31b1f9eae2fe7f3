import { PAGE_COOKIES } from '@ypsometer/contract/page'
import { makeOutbox } from './outbox'
import type { Entry, SaveState, Writer } from './outboxPolicy'

/** The outbox of this page. */
export const outbox = makeOutbox()

/** Keeps the server from drawing pages of its own while changes wait here: they would show what was before those. */
export function tellOfWaiting(): void {
  let told: boolean | undefined
  outbox.held.subscribe(() => {
    const waits = outbox.held.get().mine.length > 0
    if (waits === told) return
    told = waits
    document.cookie = `${PAGE_COOKIES.waiting}=1; path=/; samesite=lax; max-age=${waits ? 31_536_000 : 0}`
  })
}

/** Entries that wait now, and the state they amount to. */
export const useEntries = (): readonly Entry[] => outbox.held.use((h) => h.mine)
export const useSaveState = (): SaveState => outbox.held.use((h) => h.state)
export const useOthersEntries = (): readonly Entry[] => outbox.held.use((h) => h.others)

/** Who writes here, as far as is known. */
export const useWriter = (): Writer | null | undefined => outbox.held.use((h) => h.writer)
/** May whoever is here change anything? */
export const useMayWrite = (): boolean => useWriter()?.reads !== true
