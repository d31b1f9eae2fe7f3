import { useSyncExternalStore } from 'react'

/** What a store outside of React holds now; the same where a page is drawn without a browser. */
export const useStore = <T>(subscribe: (changed: () => void) => () => void, get: () => T): T =>
  useSyncExternalStore(subscribe, get, get)
