/** Does something once the page has nothing else to do, at the latest after `most` (ms); returns what calls it off. */
export function whenIdle(work: () => void, most = 2000): () => void {
  if (typeof requestIdleCallback === 'function') {
    const handle = requestIdleCallback(work, { timeout: most })
    return () => cancelIdleCallback(handle)
  }
  const timer = setTimeout(work, 50)
  return () => clearTimeout(timer)
}

/** Does something once what is there now has been painted; returns what calls it off. */
export function afterPaint(work: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined
  const frame = requestAnimationFrame(() => (timer = setTimeout(work)))
  return () => {
    cancelAnimationFrame(frame)
    clearTimeout(timer)
  }
}
