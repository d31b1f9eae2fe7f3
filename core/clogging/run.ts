import { DAY } from '../biology'
import { OutOfRange, requireRange } from '../errors'
import type { PathCase } from '../path'
import { waterProperties } from '../water'
import type { Suspension } from './capture'
import { CLEARS, SINKS, VALUES, type Values } from './constants'
import { bedsOf, copyHeld, DEPTHS, PER_LAYER, SLICES as SLICE_COUNT, type Beds, type Held } from './dirt'
import { CLASSES as CLASS_COUNT, PARTICLE_CLASSES } from './particles'
import { routeOf } from './routing'
import { waterwaysOf, type IntakeLayer, type FlowState, type Waterways } from './waterways'

/** The tank that makes the dirt: its water (m³), feed (kg/s), the classes’ shares, water changed each so many days. */
export interface DirtyTank {
  readonly water: number
  readonly feed: number
  readonly shares: readonly number[]
  readonly changeShare: number
  readonly changeDays: number
}

/** On a day (from the start) a share of what some layers hold is taken out; `layers` null: of all of them. */
export interface Service {
  readonly day: number
  readonly layers: readonly string[] | null
  readonly share: number
}

/** Case of a forecast. */
export interface ClogCase {
  readonly path: PathCase
  readonly intake: readonly IntakeLayer[]
  readonly tank: DirtyTank
  readonly days: number
  readonly services?: readonly Service[]
  readonly values?: Values
  /** Longest step (days); shorter where the flow falls fast. */
  readonly step?: number
}

/** A layer on one day: dry dirt in it (kg), the share of its room that is full, permeability kept, head (m). */
export interface LayerDay {
  readonly held: number
  readonly full: number
  readonly keeps: number
  readonly head: number
  readonly through: number
  /** Share that is full, slice by slice as the water comes; and dry dirt in the cake before it (kg). */
  readonly slices: readonly number[]
  readonly cake: number
}

/** A filter and its tank on one day. */
export interface ClogDay {
  readonly day: number
  readonly flow: number
  /** Share of the water that comes back without having gone through a straining layer. */
  readonly unstrained: number
  /** Share of the dirt of 100 to 250 µm that one pass through the filter takes out. */
  readonly catches: number
  /** Dirt finer than 100 µm in the water of the tank (kg/m³). */
  readonly haze: number
  readonly layers: readonly LayerDay[]
}

/** Where all dirt went (kg dry). What was made is the sum of the others. */
export interface Ledger {
  readonly made: number
  readonly lying: number
  readonly inWater: number
  readonly held: number
  readonly changed: number
  readonly rotted: number
  readonly serviced: number
}

export interface ClogRun {
  readonly case: ClogCase
  readonly waterways: Waterways
  readonly days: readonly ClogDay[]
  /** As it was found on the days of a service, before it. */
  readonly found: ReadonlyMap<number, ClogDay>
  readonly ledger: Ledger
  /** Dirt caught by each layer in all (kg), whatever became of it. */
  readonly caught: readonly number[]
}

/** Counts as constants of this file: they bound its innermost loops. */
const CLASSES = CLASS_COUNT
const SLICES = SLICE_COUNT
const EACH = PER_LAYER

const LONGEST = 1
const SHORTEST = 1 / 512
/** A step in which the flow changes by more is made again, half as long; by less than the other, the next is longer. */
const TOO_MUCH = 0.03
const LITTLE = 0.008
const UNSTRAINED = CLASSES
/** The class by which straining is told: 100 to 250 µm. */
const TELLING = 2
const THINGS = CLASSES + 1
const ZERO_CELSIUS = 273.15

/** Flows through the filter at one state of its layers. */
interface Rates {
  readonly running: FlowState
  /** Share of each class, and of the water itself, that comes back (1: all). */
  readonly back: Float64Array
  readonly before: Float64Array
  readonly pass: Float64Array
  readonly coefficients: Float64Array
  /** Mean share of each slice that is free over the step. */
  readonly free: Float64Array
  /** Share of each class that is held before each layer. */
  readonly strained: Float64Array
}

/**
 * Dirt from feed to filter, day by day: five classes of particles in a mixed tank; every layer catches by dC/dx = −λC
 * in slices that fill, and by its openings as a cake; what it holds lowers its permeability, and the network is solved
 * anew; water beside a layer is not strained. Deposits rot, water is changed, services take out. A midpoint rule, exact
 * for what is linear: the books close to rounding. With `until` it ends with the first day that is so.
 *
 * Source: Iwasaki, J. AWWA 29 (1937) 1591; deposit and permeability k = k₀ (1 − σ/σ_max)³ as in {@link fouledShare}.
 * @throws OutOfRange for `days`, `tank.water`, `tank.feed`, `services[i].layers`; and as `topologyOf` does.
 */
export function forecast(c: ClogCase, until?: (first: ClogDay, day: ClogDay) => boolean): ClogRun {
  requireRange('days', c.days, { min: 1, max: 3660, unit: 'days' })
  requireRange('tank.water', c.tank.water, { min: 1e-4, max: 1000, unit: 'm³' })
  requireRange('tank.feed', c.tank.feed, { min: 0, max: 0.01, unit: 'kg/s' })
  const machine = new ClogSolver(c)
  return machine.run(until)
}

class ClogSolver {
  readonly #w: Waterways
  readonly #v: Values
  readonly #beds: Beds
  readonly #route: ReturnType<typeof routeOf>
  readonly #made: readonly number[]
  readonly #lies: readonly number[]
  readonly #change: number
  readonly #rot: Float64Array
  /** Rate at which each class is lost in the tank itself (1/s). */
  readonly #clears: readonly number[]
  /** Heads that press the cakes (m), as they were last. */
  readonly #heads: Float64Array
  #held: Held
  /** Flows at this very state, where they were worked out already. */
  #now: Rates | null = null
  #tank = new Float64Array(CLASSES)
  readonly #caught: Float64Array
  #books = { made: 0, lying: 0, changed: 0, rotted: 0, serviced: 0 }

  constructor(readonly c: ClogCase) {
    const { path, intake, tank } = c
    this.#v = c.values ?? VALUES
    this.#w = waterwaysOf(path, intake)
    const water = waterProperties({ temperature: path.temperature, salinity: path.salinity ?? 0 })
    const suspension: Suspension = {
      viscosity: water.kinematicViscosity * water.density,
      temperature: path.temperature + ZERO_CELSIUS,
      heavier: this.#v.heavier,
      sticks: this.#v.sticks,
    }
    this.#beds = bedsOf(this.#w, this.#v, suspension)
    this.#route = routeOf(this.#w, THINGS)
    const solids = tank.feed * this.#v.solidsOfFeed
    this.#made = tank.shares.map((s) => s * solids)
    this.#lies = SINKS.map((s) => Math.min(0.95, s * this.#v.lies))
    this.#change =
      tank.changeShare > 0 ? -Math.log(1 - Math.min(0.999, tank.changeShare)) / (tank.changeDays * DAY) : 0
    this.#clears = CLEARS.map((x) => (x * this.#v.clears) / DAY)
    const n = this.#w.layers.length
    this.#heads = new Float64Array(n)
    this.#rot = Float64Array.from(
      this.#w.layers,
      (l) => (this.#v.rots + (l.inTank ? this.#v.grazed : 0)) / DAY,
    )
    this.#held = { inside: new Float64Array(n * EACH), cake: new Float64Array(n * CLASSES) }
    this.#caught = new Float64Array(n)
    this.#w.layers.forEach((l, i) => {
      // What was in it before is taken as fine dirt, spread evenly.
      for (let s = 0; s < SLICES; s++)
        this.#held.inside[i * EACH + s * CLASSES + 3] = l.fouled * (this.#beds.beds[i]?.rooms[s] ?? 0)
    })
    // The tank begins as it is with the filter as it stands.
    const { running, back } = this.#rates(this.#held, this.#tank, 0)
    for (let k = 0; k < CLASSES; k++) {
      const leaves = this.#leaves(k, running.flow, back[k] as number)
      this.#tank[k] = leaves > 0 ? this.#enters(k) / leaves : 0
    }
    this.#books.made += [...this.#held.inside, ...this.#tank].reduce((a, b) => a + b, 0)
  }

  run(until: (first: ClogDay, day: ClogDay) => boolean = () => false): ClogRun {
    const { days, services = [], step: longest = LONGEST } = this.c
    const at = servicesByDay(services, this.#w)
    const first = this.#look(0)
    const seen = [first]
    const found = new Map<number, ClogDay>()
    let h = Math.min(longest, 1 / 16)
    for (let day = 1; day <= days; day++) {
      for (let t = day - 1; t < day - 1e-9;) {
        const left = day - t
        // Steps end with the day, and none is a sliver.
        const now = left < 1.5 * h ? left : h
        const moved = this.#step(Math.min(now, longest) * DAY, now > SHORTEST)
        if (moved > TOO_MUCH && now > SHORTEST) h = now / 2
        else {
          t += Math.min(now, longest)
          if (moved < LITTLE) h = Math.min(longest, h * 2)
        }
      }
      const due = at.get(day) ?? []
      if (due.length) found.set(day, this.#look(day))
      for (const s of due) this.#serve(s)
      const now = this.#look(day)
      seen.push(now)
      if (until(first, now)) break
    }
    const sum = (a: Float64Array): number => a.reduce((x, y) => x + y, 0)
    return {
      case: this.c,
      waterways: this.#w,
      days: seen,
      found,
      caught: [...this.#caught],
      ledger: {
        ...this.#books,
        inWater: sum(this.#tank),
        held: sum(this.#held.inside) + sum(this.#held.cake),
      },
    }
  }

  /** Makes one step (s); how far the flow moved in it. Where that is too much and may be mended, nothing is kept. */
  #step(h: number, mayFail: boolean): number {
    const first = (this.#now ??= this.#rates(this.#held, this.#tank, 0))
    const half = { held: copyHeld(this.#held), tank: this.#tank.slice() }
    this.#advance(half.held, half.tank, first, h / 2, null)
    const middle = this.#rates(this.#held, this.#tank, h, half.held)
    const flow = Math.max(first.running.flow, 1e-12)
    const moved = (2 * Math.abs(middle.running.flow - first.running.flow)) / flow
    if (mayFail && moved > TOO_MUCH) return moved
    this.#advance(this.#held, this.#tank, middle, h, this.#caught)
    this.#now = null
    return moved
  }

  /**
   * Share each layer lets pass on the mean over a step that starts from this state, at the flows of another: that of
   * its middle, once it is known.
   */
  #rates(held: Held, tank: Float64Array, h: number, flowsOf = held): Rates {
    const { layers, at } = this.#w
    const n = layers.length
    const running = this.#pressed(flowsOf)
    const coefficients = new Float64Array(n * CLASSES)
    const free = new Float64Array(n * SLICES)
    const strained = new Float64Array(n * CLASSES)
    for (let i = 0; i < n; i++) {
      const q = Math.abs(running.flows[at[i] as number] as number)
      this.#beds.coefficients(i, q / (layers[i]?.area ?? 1), coefficients)
      for (let s = 0; s < SLICES; s++) free[i * SLICES + s] = 1 - this.#beds.fouled(held, i, s)
      this.#beds.strained(flowsOf, i, strained)
    }
    const pass = new Float64Array(n * THINGS)
    const passing = (): void => {
      for (let i = 0; i < n; i++) {
        pass[i * THINGS + UNSTRAINED] = layers[i]?.strains ? 0 : 1
        const depth = layers[i]?.thickness ?? 0
        let room = 0
        for (let s = 0; s < SLICES; s++) room += (free[i * SLICES + s] as number) * (DEPTHS[s] as number)
        for (let k = 0; k < CLASSES; k++)
          pass[i * THINGS + k] =
            (1 - (strained[i * CLASSES + k] as number)) *
            Math.exp(-(coefficients[i * CLASSES + k] as number) * depth * room)
      }
    }
    passing()
    let routed = this.#route(running.flows, pass)
    // Once more, with the slices as free as they are on the mean of the step.
    for (let i = 0; i < n; i++)
      this.#freeOver(i, held, tank, { running, routed, coefficients, free, strained }, h)
    passing()
    routed = this.#route(running.flows, pass)
    return {
      running,
      back: routed.out.slice(),
      before: routed.before.slice(),
      pass,
      coefficients,
      free,
      strained,
    }
  }

  /** The network with its cakes pressed by the heads they take: gone over again until they stand. */
  #pressed(held: Held): FlowState {
    const { at } = this.#w
    const loads = this.#beds.loads(held)
    const heads = this.#heads
    let running = this.#w.run(this.#beds.keeps(loads, heads))
    for (let again = 0; again < 8; again++) {
      let moved = false
      for (let i = 0; i < heads.length; i++) {
        const head = running.lossIn(at[i] as number)
        if (Math.abs(head - (heads[i] as number)) > 1e-3 * (head + 1e-3)) moved = true
        heads[i] = head
      }
      if (!moved) break
      running = this.#w.run(this.#beds.keeps(loads, heads))
    }
    return running
  }

  /** Share of each slice of a layer that is free, on the mean over a step: df/dt = g (1 − f) − d f, solved exactly. */
  #freeOver(
    i: number,
    held: Held,
    tank: Float64Array,
    r: {
      readonly running: FlowState
      readonly routed: { readonly before: Float64Array; readonly out: Float64Array }
      readonly coefficients: Float64Array
      readonly free: Float64Array
      readonly strained: Float64Array
    },
    h: number,
  ): void {
    const bed = this.#beds.beds[i]
    if (!bed) return
    const q = Math.abs(r.running.flows[this.#w.at[i] as number] as number)
    const rot = this.#rot[i] as number
    const coming = new Float64Array(CLASSES)
    for (let k = 0; k < CLASSES; k++)
      coming[k] =
        (this.#meanInTank(k, tank, r.running.flow, r.routed.out[k] as number, h) / this.c.tank.water) *
        q *
        (r.routed.before[i * THINGS + k] as number) *
        (1 - (r.strained[i * CLASSES + k] as number))
    for (let s = 0; s < SLICES; s++) {
      let g = 0
      const open = r.free[i * SLICES + s] as number
      const depth = bed.layer.thickness * (DEPTHS[s] as number)
      for (let k = 0; k < CLASSES; k++) {
        const catches = (r.coefficients[i * CLASSES + k] as number) * depth
        const caught = -Math.expm1(-catches * open)
        g += ((coming[k] as number) * (open > 1e-9 ? caught / open : catches)) / (bed.rooms[s] as number)
        coming[k] = (coming[k] as number) * (1 - caught)
      }
      const rate = g + rot
      const f0 = this.#beds.fouled(held, i, s)
      const rest = rate > 0 ? g / rate : 0
      const x = rate * h
      const mean = rest + (f0 - rest) * (x > 1e-9 ? -Math.expm1(-x) / x : 1)
      r.free[i * SLICES + s] = Math.min(1, Math.max(0, 1 - mean))
    }
  }

  /** Sinks of one class in the water of the tank (1/s), and its sources (kg/s). */
  #leaves = (k: number, flow: number, back: number): number =>
    (flow * (1 - back)) / this.c.tank.water + this.#change + (this.#clears[k] as number)
  #enters = (k: number): number => (this.#made[k] ?? 0) * (1 - (this.#lies[k] ?? 0))

  #meanInTank(k: number, tank: Float64Array, flow: number, back: number, h: number): number {
    const a = this.#leaves(k, flow, back)
    const p = this.#enters(k)
    const t = tank[k] as number
    const x = a * h
    return x > 1e-9 ? p / a + (t - p / a) * (-Math.expm1(-x) / x) : t + (p * h) / 2
  }

  /** One step of all books with rates held still. */
  #advance(held: Held, tank: Float64Array, r: Rates, h: number, caught: Float64Array | null): void {
    const { layers, at } = this.#w
    const keep = caught !== null
    for (let k = 0; k < CLASSES; k++) {
      const back = r.back[k] as number
      const mean = this.#meanInTank(k, tank, r.running.flow, back, h)
      const made = (this.#made[k] ?? 0) * h
      const enters = this.#enters(k) * h
      const leaves = this.#leaves(k, r.running.flow, back) * mean * h
      if (keep) {
        this.#books.made += made
        this.#books.lying += made - enters + (this.#clears[k] as number) * mean * h
        this.#books.changed += this.#change * mean * h
      }
      tank[k] = Math.max(0, (tank[k] as number) + enters - leaves)
      for (let i = 0; i < layers.length; i++) {
        const q = Math.abs(r.running.flows[at[i] as number] as number)
        const coming = ((q * mean) / this.c.tank.water) * (r.before[i * THINGS + k] as number) * h
        this.#catch(held, i, k, coming, r, h, caught)
      }
    }
  }

  /** Dirt of one class that comes at a layer in a step: strained before it, caught in its slices, rotting meanwhile. */
  #catch(
    held: Held,
    i: number,
    k: number,
    coming: number,
    r: Rates,
    h: number,
    caught: Float64Array | null,
  ): void {
    const bed = this.#beds.beds[i]
    if (!bed) return
    const x = (this.#rot[i] as number) * h
    const stays = Math.exp(-x)
    const staysNew = x > 1e-9 ? -Math.expm1(-x) / x : 1
    const strained = coming * (r.strained[i * CLASSES + k] as number)
    const rotted = settle(held.cake, i * CLASSES + k, strained, stays, staysNew)
    let inside = 0
    let left = coming - strained
    const each = (r.coefficients[i * CLASSES + k] as number) * bed.layer.thickness
    for (let s = 0; s < SLICES; s++) {
      const passed = left * Math.exp(-each * (DEPTHS[s] as number) * (r.free[i * SLICES + s] as number))
      inside += settle(held.inside, i * EACH + s * CLASSES + k, left - passed, stays, staysNew)
      left = passed
    }
    if (!caught) return
    this.#books.rotted += rotted + inside
    caught[i] = (caught[i] as number) + coming - left
  }

  #serve({ layers, share }: Service): void {
    this.#now = null
    const take = (a: Float64Array, from: number, count: number): void => {
      for (let j = from; j < from + count; j++) {
        this.#books.serviced += (a[j] as number) * share
        a[j] = (a[j] as number) * (1 - share)
      }
    }
    this.#w.layers.forEach((l, i) => {
      if (layers && !layers.includes(l.id)) return
      take(this.#held.inside, i * EACH, EACH)
      take(this.#held.cake, i * CLASSES, CLASSES)
    })
  }

  #look(day: number): ClogDay {
    const { running, back } = (this.#now ??= this.#rates(this.#held, this.#tank, 0))
    const keeps = this.#beds.keeps(this.#beds.loads(this.#held), this.#heads)
    const haze =
      PARTICLE_CLASSES.reduce((sum, p, k) => sum + (p.to <= 1e-4 ? (this.#tank[k] as number) : 0), 0) /
      this.c.tank.water
    return {
      day,
      flow: running.flow,
      unstrained: back[UNSTRAINED] as number,
      catches: 1 - (back[TELLING] as number),
      haze,
      layers: this.#w.layers.map((_, i) => ({
        held: heldIn(this.#held, i),
        full: this.#beds.full(this.#held, i),
        keeps: keeps[i] as number,
        head: running.lossIn(this.#w.at[i] as number),
        through: Math.max(0, running.flows[this.#w.at[i] as number] as number),
        slices: Array.from({ length: SLICES }, (_, s) => this.#beds.fouled(this.#held, i, s)),
        cake: cakeOn(this.#held, i),
      })),
    }
  }
}

/** Puts more dirt to what lies at a place; what of both rots meanwhile. */
function settle(into: Float64Array, place: number, more: number, stays: number, staysNew: number): number {
  const before = into[place] as number
  const after = before * stays + more * staysNew
  into[place] = after
  return before + more - after
}

const cakeOn = (h: Held, i: number): number => {
  let sum = 0
  for (let j = i * CLASSES; j < (i + 1) * CLASSES; j++) sum += h.cake[j] as number
  return sum
}

function heldIn(h: Held, i: number): number {
  let sum = cakeOn(h, i)
  for (let j = i * EACH; j < (i + 1) * EACH; j++) sum += h.inside[j] as number
  return sum
}

function servicesByDay(services: readonly Service[], w: Waterways): ReadonlyMap<number, readonly Service[]> {
  const by = new Map<number, Service[]>()
  services.forEach((s, i) => {
    requireRange(`services[${i}].share`, s.share, { min: 0, max: 1, unit: '(share)' })
    const gone = s.layers?.find((id) => !w.layers.some((l) => l.id === id))
    if (gone !== undefined)
      throw new OutOfRange(`services[${i}].layers`, NaN, {
        words: `layers of this media setup, not “${gone}”`,
      })
    const day = Math.round(s.day)
    by.set(day, [...(by.get(day) ?? []), s])
  })
  return by
}
