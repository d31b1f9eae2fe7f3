import type { Instrument, InstrumentFrame } from '@ypsometer/contract'
import { useStore } from '../settings/useStore'

/** What this page knows of the instruments: the newest looks, and whether the server still relays them. */
export interface Live {
  readonly frames: readonly InstrumentFrame[]
  readonly relay: 'connecting' | 'open' | 'lost'
}

/** Looks kept: ten seconds of them. */
const KEPT = 20

let live: Live = { frames: [], relay: 'connecting' }
let source: EventSource | null = null
const listeners = new Set<() => void>()
const publish = (next: Live): void => {
  live = next
  listeners.forEach((l) => l())
}

function open(): void {
  if (source || typeof EventSource === 'undefined') return
  const events = new EventSource('/api/v1/instruments/stream')
  source = events
  events.onmessage = (e: MessageEvent<string>) => {
    const frame = JSON.parse(e.data) as InstrumentFrame
    publish({ relay: 'open', frames: [...live.frames, frame].slice(-KEPT) })
  }
  // The browser tries again by itself; meanwhile no value is shown as if it were fresh.
  events.onerror = () => publish({ relay: 'lost', frames: [] })
}

function subscribe(l: () => void): () => void {
  listeners.add(l)
  open()
  return () => {
    listeners.delete(l)
    if (listeners.size) return
    source?.close()
    source = null
    live = { frames: [], relay: 'connecting' }
  }
}

/** The instruments, live for as long as something shows them. */
export const useInstruments = (): Live => useStore(subscribe, () => live)

/** The newest look, for an event that happens now. */
export const latestFrame = (): InstrumentFrame | undefined => live.frames.at(-1)

/** Hears every look from now on. */
export function onFrame(heard: (frame: InstrumentFrame | undefined) => void): () => void {
  let last = latestFrame()
  return subscribe(() => {
    const frame = latestFrame()
    if (frame !== last) heard((last = frame))
  })
}

/** Mean rise per second of a counter over the looks kept; null while it is not live or has not been watched for 2 s. */
export function rateOf(frames: readonly InstrumentFrame[], i: Instrument): number | null {
  const usable = frames.filter((f) => f.sensors[i]?.state === 'live' && f.sensors[i].value !== null)
  const [first, last] = [usable[0], usable.at(-1)]
  if (!first || !last || frames.at(-1)?.sensors[i]?.state !== 'live') return null
  const seconds = (Date.parse(last.at) - Date.parse(first.at)) / 1000
  const rise = (last.sensors[i]?.value ?? 0) - (first.sensors[i]?.value ?? 0)
  return seconds >= 2 && rise >= 0 ? rise / seconds : null
}
