import { keepText, keptText } from '../../api/room'
import { useCallback, useState } from 'react'

/** Something begun and not yet finished, kept on the device under a name; null when there is nothing. */
export function usePending<T>(name: string): {
  readonly value: T | null
  readonly set: (v: T | null) => void
} {
  const key = `ypsometer.pending.${name}`
  const [value, setValue] = useState<T | null>(() => {
    try {
      return JSON.parse(keptText(key) ?? 'null') as T | null
    } catch {
      return null
    }
  })
  const set = useCallback(
    (v: T | null) => {
      setValue(v)
      keepText(key, v === null ? null : JSON.stringify(v))
    },
    [key],
  )
  return { value, set }
}
