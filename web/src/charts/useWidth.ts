import { useLayoutEffect, useState, type RefObject } from 'react'

/** Width of an element in px, followed as it changes; `initial` until it is known. */
export function useWidth(ref: RefObject<HTMLElement | null>, initial: number): number {
  const [width, setWidth] = useState(initial)
  useLayoutEffect(() => {
    const el = ref.current
    if (!el) return
    const read = (): void => setWidth((old) => Math.round(el.clientWidth) || old)
    read()
    const observer = new ResizeObserver(read)
    observer.observe(el)
    return () => observer.disconnect()
  }, [ref])
  return width
}
