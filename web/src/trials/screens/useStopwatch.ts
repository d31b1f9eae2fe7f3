import { keepText, keptText } from '../../api/room'
import { useCallback, useEffect, useState } from 'react'

const keyOf = (id: string): string => `ypsometer.run.${id}`

function readStart(id: string): number | null {
  const kept = Number(keptText(keyOf(id)))
  return kept > 0 ? kept : null
}
const writeStart = (id: string, start: number | null): void =>
  keepText(keyOf(id), start === null ? null : String(start))

/** No page is busy for longer than this, s: an event that claims to be older is of another clock. */
const OLDEST_EVENT = 5

/**
 * When the key or the button now being answered was pressed, ms since the epoch. A busy page gets round to a press
 * late; how late is no part of a run. It counts on the clock of the day, which goes on while a phone sleeps.
 */
function pressedAt(): number {
  const pressed = window.event?.timeStamp ?? performance.now()
  const late = performance.now() - pressed
  return Date.now() - (late > 0 && late < OLDEST_EVENT * 1000 ? late : 0)
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
    const at = pressedAt()
    writeStart(id, at)
    setNow(at)
    setStart(at)
  }, [id])
  /** The seconds from the start to the press that is being answered; 0 while it stands still. */
  const read = useCallback(
    (): number => (start === null ? 0 : Math.max(0, pressedAt() - start) / 1000),
    [start],
  )
  /** Stops and gives the seconds since the start. */
  const end = useCallback((): number => {
    writeStart(id, null)
    setStart(null)
    return read()
  }, [id, read])
  return {
    running: start !== null,
    found,
    seconds: start === null ? 0 : Math.max(0, now - start) / 1000,
    begin,
    read,
    end,
  }
}
