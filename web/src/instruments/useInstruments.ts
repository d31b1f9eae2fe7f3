import type { Instrument, InstrumentFrame } from '@ypsometer/contract'
import { makeStore } from '../settings/store'

/** State of the instruments on this page: the newest looks, and whether the server still relays them. */
export interface Live {
  readonly frames: readonly InstrumentFrame[]
  readonly relay: 'connecting' | 'open' | 'lost'
}

/** Looks kept: ten seconds of them. */
const KEPT = 20

const NOTHING: Live = { frames: [], relay: 'connecting' }
let source: EventSource | null = null
/** The instruments, live for as long as somebody looks. */
const live = makeStore<Live>(NOTHING, (somebody) => (somebody ? open() : close()))

function open(): void {
  if (source || typeof EventSource === 'undefined') return
  const events = new EventSource('/api/v1/instruments/stream')
  source = events
  events.onmessage = (e: MessageEvent<string>) => {
    const frame = JSON.parse(e.data) as InstrumentFrame
    live.set({ relay: 'open', frames: [...live.get().frames, frame].slice(-KEPT) })
  }
  // The browser tries again by itself; meanwhile no value is shown as if it were fresh.
  events.onerror = () => live.set({ relay: 'lost', frames: [] })
}

function close(): void {
  source?.close()
  source = null
  live.set(NOTHING)
}

/** The instruments, live for as long as something shows them. */
export const useInstruments = (): Live => live.use()

/** The newest look, for an event that happens now. */
export const latestFrame = (): InstrumentFrame | undefined => live.get().frames.at(-1)

/** Hears every look from now on. */
export function onFrame(heard: (frame: InstrumentFrame | undefined) => void): () => void {
  let last = latestFrame()
  return live.subscribe(() => {
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
