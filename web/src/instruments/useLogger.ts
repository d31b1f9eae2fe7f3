import { keepText, keptText } from '../api/room'
import type { Instrument } from '@ypsometer/contract'
import { useCallback, useEffect, useRef, useState } from 'react'
import { createRow } from '../api/rows'
import { latestFrame, onFrame } from './useInstruments'

/** A log in the making; kept on the device look by look, so that a closed page keeps what it had. */
interface Draft {
  readonly trialId: string
  readonly series: string
  readonly startedAt: string
  readonly source: string
  times: number[]
  values: number[]
  gaps: number
}

const keyOf = (trialId: string): string => `ypsometer.log.${trialId}`
const keep = (d: Draft | null, trialId: string): void => keepText(keyOf(trialId), d && JSON.stringify(d))

/** Writes a log to the record. False when there is nothing in it. */
function finish(d: Draft, why = ''): boolean {
  keep(null, d.trialId)
  if (!d.times.length) return false
  const note = [why, d.gaps ? `${d.gaps} looks without a value` : ''].filter(Boolean).join('; ')
  const { gaps: _gaps, ...row } = d
  createRow('logs', { ...row, note })
  return true
}

/** Logs one instrument for some seconds into a trial. `left` counts down while it runs. */
export function useLogger(trialId: string, instrument: Instrument, scale = 1) {
  const [left, setLeft] = useState<number | null>(null)
  const [said, setSaid] = useState('')
  const stop = useRef<(why?: string) => void>(() => undefined)
  useEffect(() => {
    try {
      const found = JSON.parse(keptText(keyOf(trialId)) ?? 'null') as Draft | null
      if (found && finish(found, 'cut off when the page closed'))
        setSaid('A log was going when the page closed; what it had is kept.')
    } catch {
      keep(null, trialId)
    }
    return () => stop.current('cut off when the page closed')
  }, [trialId])
  const start = useCallback(
    (seconds: number, series: string): void => {
      const from = Date.now()
      const draft: Draft = {
        trialId,
        series,
        startedAt: new Date(from).toISOString(),
        source: latestFrame()?.identity ?? '',
        times: [],
        values: [],
        gaps: 0,
      }
      const end = (why = ''): void => {
        unhear()
        clearInterval(clock)
        stop.current = () => undefined
        setLeft(null)
        setSaid(
          finish(draft, why)
            ? `${draft.times.length} points kept${draft.gaps ? `, ${draft.gaps} looks had no value` : ''}.`
            : 'Nothing was logged: the instrument gave no value.',
        )
      }
      const unhear = onFrame((frame) => {
        const r = frame?.sensors[instrument]
        const t = frame ? (Date.parse(frame.at) - from) / 1000 : NaN
        if (r?.state === 'live' && r.value !== null && t > (draft.times.at(-1) ?? -1)) {
          draft.times.push(Math.round(t * 1000) / 1000)
          draft.values.push(r.value * scale)
          keep(draft, trialId)
        } else draft.gaps++
      })
      const clock = setInterval(() => {
        const rest = seconds - (Date.now() - from) / 1000
        setLeft(Math.max(0, rest))
        if (rest <= 0) end()
      }, 200)
      stop.current = end
      setSaid('')
      setLeft(seconds)
    },
    [trialId, instrument, scale],
  )
  return { left, said, start, cancel: () => stop.current('ended early') }
}
