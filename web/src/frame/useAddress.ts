import { useEffect, useRef } from 'react'
import { useSearchParams } from 'react-router'

/** Changes to what stands in the address; null takes a name out. */
export type AddressChanges = Readonly<Record<string, string | null>>
/** Changes, or what makes them of what stands there by then. */
export type SetAddress = (changes: AddressChanges | ((now: URLSearchParams) => AddressChanges)) => void

/**
 * Query of the address, and its writer. A change made before the one before it
 * has come through is made on top of that one.
 */
export function useAddress(): { readonly text: string; readonly set: SetAddress } {
  const [params, setParams] = useSearchParams()
  const text = params.toString()
  const wanted = useRef(text)
  useEffect(() => {
    wanted.current = text
  }, [text])
  const set: SetAddress = (changes) => {
    const p = new URLSearchParams(wanted.current)
    for (const [k, v] of Object.entries(typeof changes === 'function' ? changes(p) : changes))
      if (v === null) p.delete(k)
      else p.set(k, v)
    wanted.current = p.toString()
    setParams(p, { replace: true, preventScrollReset: true })
  }
  return { text, set }
}
