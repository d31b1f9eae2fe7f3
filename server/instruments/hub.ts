import {
  INSTRUMENTS,
  type Instrument,
  type InstrumentAddress,
  type InstrumentFrame,
  type SensorReading,
} from '@ypsometer/contract'
import { NoAnswer, ScpiClient } from './client'

/** Query of each instrument, and whether its answer is expected to move from look to look. */
const QUESTIONS: Readonly<Record<Instrument, { readonly scpi: string; readonly moves: boolean }>> = {
  pulses: { scpi: 'MEAS:FLOW:PULS?', moves: true },
  mass: { scpi: 'MEAS:MASS?', moves: false },
  power: { scpi: 'MEAS:POW?', moves: true },
  sound: { scpi: 'MEAS:SOUN?', moves: true },
  pressure1: { scpi: 'MEAS:PRES1?', moves: true },
  pressure2: { scpi: 'MEAS:PRES2?', moves: true },
  temperature: { scpi: 'MEAS:TEMP?', moves: true },
  air: { scpi: 'MEAS:AIR?', moves: true },
}

/** Looks at the same value in a row before a sensor counts as stuck. */
const STUCK_AFTER = 6
const EVERY = 500
/** Longest pause between tries to reach an instrument that is away (ms). */
const LONGEST_PAUSE = 5000

type Listener = (frame: InstrumentFrame) => void

const nothing = (): InstrumentFrame['sensors'] =>
  Object.fromEntries(
    INSTRUMENTS.map((i) => [i, { state: 'missing', value: null }]),
  ) as InstrumentFrame['sensors']

/**
 * Looks at all instruments twice a second for as long as somebody watches, and tells every watcher. It knows stuck,
 * missing and silent sensors apart, and a line that is down from a bench that has none.
 */
export class InstrumentHub {
  private readonly listeners = new Set<Listener>()
  private client: ScpiClient | null = null
  private timer: NodeJS.Timeout | null = null
  private pause = EVERY
  private identity = ''
  private readonly same = new Map<Instrument, { readonly value: number; readonly times: number }>()
  private looking = false
  frame: InstrumentFrame

  constructor(private address: InstrumentAddress) {
    this.frame = this.build('off', '', nothing())
  }

  get where(): InstrumentAddress {
    return this.address
  }

  /** Goes to another address at once. */
  move(address: InstrumentAddress): void {
    this.address = address
    this.client?.close()
    this.client = null
    this.identity = ''
    this.same.clear()
    this.pause = EVERY
    this.schedule(0)
  }

  watch(listener: Listener): () => void {
    this.listeners.add(listener)
    listener(this.frame)
    this.schedule(0)
    return () => {
      this.listeners.delete(listener)
      if (!this.listeners.size) this.rest()
    }
  }

  /** Carries out a command; what the instrument objects to, or null. @throws NoAnswer. */
  async tell(command: string): Promise<string | null> {
    if (!this.address.host) throw new NoAnswer('no instrument is set')
    return this.reach().tell(command)
  }

  /** Who is at the address. @throws NoAnswer. */
  async identify(): Promise<string> {
    if (!this.identity) this.identity = await this.reach().ask('*IDN?')
    return this.identity
  }

  close(): void {
    this.listeners.clear()
    this.rest()
  }

  private reach(): ScpiClient {
    this.client ??= new ScpiClient(this.address)
    return this.client
  }

  private rest(): void {
    if (this.timer) clearTimeout(this.timer)
    this.timer = null
    this.client?.close()
    this.client = null
  }

  private schedule(ms: number): void {
    if (this.timer) clearTimeout(this.timer)
    this.timer = this.listeners.size ? setTimeout(() => void this.look(), ms) : null
  }

  private async look(): Promise<void> {
    if (this.looking) return this.schedule(EVERY)
    this.looking = true
    const { address } = this
    try {
      if (!address.host) this.publish(this.build('off', '', nothing()))
      else await this.lookAt(this.reach())
      this.pause = EVERY
    } catch (error) {
      if (address === this.address) {
        this.identity = ''
        this.same.clear()
        this.pause = Math.min(LONGEST_PAUSE, this.pause * 2)
        const why = error instanceof Error ? error.message : String(error)
        this.publish(
          this.build('down', `No instrument answers at ${address.host}:${address.port} (${why}).`, nothing()),
        )
      }
    } finally {
      this.looking = false
      this.schedule(this.pause)
    }
  }

  /** One round of questions. A sensor may be silent; when the instrument itself is, this throws. */
  private async lookAt(client: ScpiClient): Promise<void> {
    await this.identify()
    const sensors = nothing()
    let silent = 0
    for (const i of INSTRUMENTS) {
      sensors[i] = await this.one(client, i)
      if (sensors[i].state === 'silent' && ++silent > 2) throw new NoAnswer('several questions unanswered')
    }
    const errors = (await client.errors()).filter((e) => !e.startsWith('-241'))
    this.publish(
      this.build('up', errors.length ? `The instrument reports ${errors.join(', ')}.` : '', sensors),
    )
  }

  private async one(client: ScpiClient, i: Instrument): Promise<SensorReading> {
    try {
      const value = await client.measure(QUESTIONS[i].scpi)
      if (value === 'missing') return { state: 'missing', value: null }
      const before = this.same.get(i)
      const times = before?.value === value ? before.times + 1 : 0
      this.same.set(i, { value, times })
      // A pump that stands still turns no meter: zero flow, zero air are no fault.
      const stuck =
        QUESTIONS[i].moves && times >= STUCK_AFTER && value !== 0 && !(i === 'pulses' && this.stopped())
      return { state: stuck ? 'stuck' : 'live', value: stuck ? null : value }
    } catch (error) {
      if (error instanceof NoAnswer) return { state: 'silent', value: null }
      throw error
    }
  }

  /** No power and no head: then a meter that counts nothing is right. */
  private stopped(): boolean {
    return (this.same.get('power')?.value ?? 1) < 0.1
  }

  private build(
    link: InstrumentFrame['link'],
    trouble: string,
    sensors: InstrumentFrame['sensors'],
  ): InstrumentFrame {
    return { at: new Date().toISOString(), link, identity: this.identity, trouble, sensors }
  }

  private publish(frame: InstrumentFrame): void {
    this.frame = frame
    for (const l of this.listeners) l(frame)
  }
}
