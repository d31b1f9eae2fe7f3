import { freshWaterDensity } from '@ypsometer/core/water/properties'
import { seeded } from '@ypsometer/core/statistics/random'
import { airTruth, trueAirlift, trueDuty, usualAir, type OnTheBench } from '@ypsometer/demo/physics'
import { TRUTHS, type Truth } from '@ypsometer/demo/truth'

/** The sensors of the simulated bench. */
export const SENSORS = ['FLOW', 'MASS', 'POWER', 'SOUND', 'PRES1', 'PRES2', 'TEMP', 'AIR'] as const
export type Sensor = (typeof SENSORS)[number]
export const FAULTS = ['OK', 'STUCK', 'DISC', 'DROP'] as const
export type Fault = (typeof FAULTS)[number]

/** Answer to a query: a number, `missing` for a sensor that is not there, `silent` for an answer that never comes. */
export type Answer = { readonly value: number } | 'missing' | 'silent'

/** Pulses per m³ of the simulated meter: 4500 per litre. */
const TRUE_K = 4.5e6
const ROOM = 31
const STEP = 0.25

/**
 * The bench as it truly is: a hidden filter, and sensors that see it with noise, drift and faults. Time moves only by
 * {@link Bench.advance}, so that a seed gives the same bench every time. SI throughout.
 */
export class Bench {
  truth: Truth
  on: { -readonly [K in keyof OnTheBench]: OnTheBench[K] }
  running = true
  /** Air supplied (m³/s) to an air-driven filter. */
  airSupply = 1.5e-3 / 60
  noise = 1
  /** Relative drift of flow and watts per hour. */
  drift = 0
  /** Error of the meter: 1.04 counts four per cent too many. */
  meterFactor = 1
  private time = 0
  private pulses = 0
  private collected = 0
  private flowNow = 0
  private headNow = 0
  private wobble = 0
  private uniform: () => number
  private readonly faults = new Map<Sensor, Fault>()
  private readonly stuckAt = new Map<Sensor, number>()

  constructor(seed = 1, model = 'Torrent 1400') {
    this.uniform = seeded(seed)
    this.truth = find(model) ?? (TRUTHS[0] as Truth)
    this.on = { attached: false, state: 'empty', lift: 0, valve: 1, temperature: 21.5 }
    this.settle()
  }

  reseed(seed: number): void {
    this.uniform = seeded(seed)
  }

  /** Puts another filter on the bench. False when there is none of this name. */
  put(model: string): boolean {
    const found = find(model)
    if (!found) return false
    this.truth = found
    this.airSupply = usualAir(found)
    this.settle()
    return true
  }

  /** Works the true flow out again after anything was changed. */
  settle(): void {
    const air = airTruth(this.truth)
    const duty = air ? { flow: trueAirlift(air, this.airSupply), head: 0 } : trueDuty(this.truth, this.on)
    this.flowNow = this.running ? duty.flow : 0
    this.headNow = this.running ? duty.head : 0
  }

  /** The true flow (m³/s): hidden from the instruments' readers, for tests of what they conclude. */
  get trueFlow(): number {
    return this.flowNow
  }

  private normal(): number {
    return Math.sqrt(-2 * Math.log(1 - this.uniform())) * Math.cos(2 * Math.PI * this.uniform())
  }

  /** Lets time pass (s): water runs, pulses and kilograms add up, the flow wobbles as it does. */
  advance(seconds: number): void {
    let left = Math.min(seconds, 3600)
    while (left > 1e-9) {
      const dt = Math.min(STEP, left)
      left -= dt
      this.time += dt
      // A slow wobble of about half a per cent with a time constant of two seconds.
      const keep = Math.exp(-dt / 2)
      this.wobble = this.wobble * keep + 0.005 * this.noise * Math.sqrt(1 - keep * keep) * this.normal()
      const flow = this.flowNow * (1 + this.wobble) * (1 + (this.drift * this.time) / 3600)
      this.pulses += flow * dt * TRUE_K * this.meterFactor
      this.collected += flow * dt * freshWaterDensity(this.on.temperature)
    }
  }

  tare(): void {
    this.collected = 0
  }

  fault(sensor: Sensor, fault: Fault): void {
    this.faults.set(sensor, fault)
    this.stuckAt.delete(sensor)
  }

  faultOf = (sensor: Sensor): Fault => this.faults.get(sensor) ?? 'OK'

  /** One reading of a sensor as an instrument would give it. */
  read(sensor: Sensor): Answer {
    const fault = this.faultOf(sensor)
    if (fault === 'DISC') return 'missing'
    if (fault === 'DROP' && this.uniform() < 0.3) return 'silent'
    const value = this.sense(sensor)
    if (fault !== 'STUCK') return { value }
    const stuck = this.stuckAt.get(sensor) ?? value
    this.stuckAt.set(sensor, stuck)
    return { value: stuck }
  }

  private sense(sensor: Sensor): number {
    const jitter = (size: number): number => size * this.noise * this.normal()
    const on = this.running ? 1 : 0
    const label = this.truth.label
    switch (sensor) {
      case 'FLOW':
        return Math.floor(this.pulses)
      case 'MASS':
        return Math.max(0, this.collected + jitter(0.001))
      case 'POWER': {
        const full = (label.power ?? 2) * 1.06
        const share = this.truth.pump ? this.flowNow / this.truth.pump.maxFlow : 1
        const watts = full * (0.72 + 0.28 * share) * (1 + (this.drift * this.time) / 3600)
        return Math.max(0, on * watts * (1 + jitter(0.006)) + jitter(0.01))
      }
      case 'SOUND': {
        const own = (label.noise ?? 33) + 4
        return 10 * Math.log10(10 ** (ROOM / 10) + on * 10 ** (own / 10)) + jitter(0.4)
      }
      case 'PRES1':
        return -0.12 * this.headNow * 9780 + jitter(12)
      case 'PRES2':
        return 0.88 * this.headNow * 9780 + jitter(12)
      case 'TEMP':
        return this.on.temperature + jitter(0.02)
      case 'AIR':
        return airTruth(this.truth) ? Math.max(0, on * this.airSupply * (1 + jitter(0.012))) : 0
    }
  }
}

const find = (name: string): Truth | undefined =>
  TRUTHS.find((t) => t.name.toLowerCase() === name.trim().toLowerCase())

/** Names of the filters that can be put on the bench. */
export const MODELS: readonly string[] = TRUTHS.map((t) => t.name)
