import { useCallback, useEffect, useState } from 'react'

const keyOf = (id: string): string => `ypsometer.run.${id}`

function readStart(id: string): number | null {
  try {
    const kept = Number(localStorage.getItem(keyOf(id)))
    return kept > 0 ? kept : null
  } catch {
    return null
  }
}
function writeStart(id: string, start: number | null): void {
  try {
    if (start === null) localStorage.removeItem(keyOf(id))
    else localStorage.setItem(keyOf(id), String(start))
  } catch {
    // Storage refused: the run lives as long as the page.
  }
}

/** A stopwatch whose running start is kept on the device: a reload in the middle of a run loses nothing. */
export function useStopwatch(id: string) {
  const [start, setStart] = useState<number | null>(() => readStart(id))
  const [found] = useState(() => readStart(id) !== null)
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    if (start === null) return
    let frame = 0
    const tick = (): void => {
      setNow(Date.now())
      frame = requestAnimationFrame(tick)
    }
    frame = requestAnimationFrame(tick)
    return () => cancelAnimationFrame(frame)
  }, [start])
  const begin = useCallback(() => {
    const at = Date.now()
    writeStart(id, at)
    setNow(at)
    setStart(at)
  }, [id])
  /** Stops and gives the seconds since the start. */
  const end = useCallback((): number => {
    const seconds = start === null ? 0 : (Date.now() - start) / 1000
    writeStart(id, null)
    setStart(null)
    return seconds
  }, [id, start])
  return {
    running: start !== null,
    found,
    seconds: start === null ? 0 : Math.max(0, now - start) / 1000,
    begin,
    end,
  }
}
