import { useCallback, useState } from 'react'

/** Something begun and not yet finished, kept on the device under a name; null when there is nothing. */
export function usePending<T>(name: string): {
  readonly value: T | null
  readonly set: (v: T | null) => void
} {
  const key = `ypsometer.pending.${name}`
  const [value, setValue] = useState<T | null>(() => {
    try {
      return JSON.parse(localStorage.getItem(key) ?? 'null') as T | null
    } catch {
      return null
    }
  })
  const set = useCallback(
    (v: T | null) => {
      setValue(v)
      try {
        if (v === null) localStorage.removeItem(key)
        else localStorage.setItem(key, JSON.stringify(v))
      } catch {
        // Storage refused: it lives as long as the page.
      }
    },
    [key],
  )
  return { value, set }
}
