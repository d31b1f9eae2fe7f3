import {
  balance,
  FILM_FLOOR,
  hoursOfOxygen,
  mostHere,
  settledFilm,
  simulate,
  takenBy,
  takenByTank,
  type Films,
  type Happening,
  type Keeping,
  type Scenario,
  type TimedFilter,
} from '.'
import { gasExchange } from './oxygen'
import { oxygenSaturation } from '../water'
import { KEPT } from './keeping.fixture'

/**
 * A tank in time, worked again by the plainest of means: Runge and Kutta’s fourth order in equal steps of five minutes,
 * one object for each filter. Growth 0.9 and 1 a day at 20 °C, halves at 0.5 and 0.2 mg/L (Metcalf and Eddy, from
 * memory), 1.07 for each kelvin; decay as much as the floor of 0.07 mg/L feeds; a fifth of what a running film loses
 * takes hold beside it; without oxygen it decays at 0.4 of that.
 */
const DAY = 86400
const STEPS = 288
const GROWS = [
  [0.9, 0.5e-3],
  [1, 0.2e-3],
] as const

interface Body {
  readonly films: Films
  /** Share of each of the two films, and oxygen of the water it shuts in. */
  readonly x: readonly [number, number]
  readonly oxygen: number
}
interface State {
  readonly n: readonly [ammonia: number, nitrite: number, nitrate: number]
  readonly oxygen: number
  readonly alkalinity: number
  readonly own: readonly [number, number]
  readonly bodies: readonly Body[]
}

function again({ keeping: k, filters, happenings, days, pace = 1 }: Scenario) {
  const warm = 1.07 ** (k.temperature - 20)
  const decays = GROWS.map(([most, half]) => (most * warm * 0.07e-3) / (half + 0.07e-3))
  const [own, food] = [k.ownArea ?? 0, k.food ?? 1]
  const saturation = oxygenSaturation(k.temperature, k.salinity)
  const ripe = filters.filter((f) => f.ripe > 1e-6)
  const settled = settledFilm(k, (ripe.length ? ripe : filters).map((f) => f.films)) // prettier-ignore
  const begin = (share: number): readonly [number, number] => {
    const x = Math.min(1, Math.max(1e-6, share * settled))
    return [x, x]
  }
  let s: State = {
    n: [0, 0, k.tapNitrate],
    oxygen: saturation,
    alkalinity: k.alkalinity,
    own: begin(Math.max(0, ...filters.filter((f) => !f.from).map((f) => f.ripe))),
    bodies: filters.map((f) => ({ films: f.films, x: begin(f.ripe), oxygen: saturation })),
  }
  let [feed, off, made, changed] = [1, false, 0, 0]
  const there = filters.map(() => true)
  let breathing = filters.map(() => 0)
  const surfaces = filters.map((f) => f.films.layers.reduce((a, l) => a + (l.flow > 0 ? l.area : 0), 0))

  const rate = (t: number, v: State): State => {
    const [a, b] = [Math.max(0, v.n[0]), Math.max(0, v.n[1])]
    const most = (mostHere(k) * v.alkalinity) / (25e-3 + v.alkalinity)
    const runs = filters.map((f, i) => !!there[i] && !off && t >= (f.from ?? 0) - 1e-9)
    const n = k.feed * feed * k.protein * 0.092
    const given = n * (1 - k.plantShare)
    const grows = (j: 0 | 1, x: number, works: number): number => {
      const [g, half] = GROWS[j]
      const c = food * (j ? b : a)
      return x * ((works * g * warm * c * (1 - x ** 12)) / (half + c) - (decays[j] ?? 0))
    }
    const eats = [0, 0]
    const bodies = v.bodies.map((body, i): Body => {
      const f = filters[i] as TimedFilter
      const d = { films: body.films }
      if (runs[i]) {
        const q = Math.min(f.films.flow, Math.max(...f.films.layers.map((l) => (l.area > 0 ? l.flow : 0))))
        const allowed = (q * Math.max(0, v.oxygen - 2e-3)) / 4.57
        const x = body.x.map((share, j) => {
          eats[j]! += Math.min(allowed, takenBy(food * (j ? b : a), f.films, share * most))
          const beside = v.bodies.reduce((sum, o, m) => sum + (m !== i && runs[m] ? (o.x[j] ?? 0) * (surfaces[m] ?? 0) : 0), 0) // prettier-ignore
          const hold = surfaces[i]
            ? (0.2 * (decays[j] ?? 0) * (1 - Math.min(1, share) ** 12) * beside) / surfaces[i]
            : 0
          return pace * (grows(j as 0 | 1, share, 1) + hold)
        })
        return { ...d, x: [x[0] ?? 0, x[1] ?? 0], oxygen: 0 }
      }
      if (!off || !there[i] || t < (f.from ?? 0) - 1e-9) return { ...d, x: [0, 0], oxygen: 0 }
      const breathes = Math.min(1, Math.max(0, body.oxygen) / 0.5e-3)
      const loses = pace * (0.4 + 0.6 * breathes)
      const shut = f.body !== undefined && f.body < Infinity
      return {
        ...d,
        x: [-loses * (decays[0] ?? 0) * body.x[0], -loses * (decays[1] ?? 0) * body.x[1]],
        oxygen: shut ? (-breathes * (breathing[i] ?? 0) * 4.57 * DAY) / (f.body ?? 1) : 0,
      }
    })
    const air = Math.min(1, Math.max(0, v.oxygen) / 2e-3)
    eats[0]! += air * takenByTank(food * a, own, v.own[0] * most)
    eats[1]! += air * takenByTank(food * b, own, v.own[1] * most)
    const [x1 = 0, x2 = 0] = eats
    const exchange = gasExchange({
      speed: off ? 0 : k.stirred,
      depth: k.volume / k.surface,
      temperature: k.temperature,
    })
    const uses = k.feed * feed * (k.oxygenOfFeed + 0.2) + (n * k.plantShare + x1) * 4.57
    const breathed = uses * Math.min(1, Math.max(0, v.oxygen) / 0.5e-3)
    const per = DAY / k.volume
    return {
      n: [(given - x1) * per, (x1 - x2) * per, x2 * per],
      oxygen: (exchange * k.surface * (saturation - v.oxygen) - breathed) * per,
      alkalinity: -(7.14 * x1 - 3.57 * given) * per,
      own: own ? [pace * grows(0, v.own[0], air), pace * grows(1, v.own[1], air)] : [0, 0],
      bodies,
    }
  }
  const plus = (p: State, d: State, h: number): State => ({
    n: [p.n[0] + h * d.n[0], p.n[1] + h * d.n[1], p.n[2] + h * d.n[2]],
    oxygen: p.oxygen + h * d.oxygen,
    alkalinity: p.alkalinity + h * d.alkalinity,
    own: [p.own[0] + h * d.own[0], p.own[1] + h * d.own[1]],
    bodies: p.bodies.map((q, i) => ({
      films: q.films,
      x: [q.x[0] + h * d.bodies[i]!.x[0], q.x[1] + h * d.bodies[i]!.x[1]],
      oxygen: q.oxygen + h * d.bodies[i]!.oxygen,
    })),
  })
  const scaled = (id: string, by: number): void => {
    const bodies = s.bodies.map((q, i) => {
      const keep = (x: number): number => Math.max(1e-6, x * by)
      return filters[i]?.id === id ? { ...q, x: [keep(q.x[0]), keep(q.x[1])] as const } : q
    })
    s = { ...s, bodies }
  }
  const happens = (h: Happening): void => {
    if (h.what === 'take-out') there[filters.findIndex((f) => f.id === h.filter)] = false
    if (h.what === 'replace') scaled(h.filter, 1 - h.share)
    if (h.what === 'rinse') scaled(h.filter, h.keeps)
    if (h.what === 'feed') feed *= h.times
    if (h.what === 'off') {
      const most = (mostHere(k) * s.alkalinity) / (25e-3 + s.alkalinity)
      breathing = filters.map((f, i) =>
        there[i] ? takenBy(food * s.n[0], f.films, s.bodies[i]!.x[0] * most) : 0,
      )
      s = {
        ...s,
        bodies: s.bodies.map((q, i) => ({ ...q, oxygen: filters[i]?.body === undefined ? 0 : s.oxygen })),
      }
      off = true
    }
  }
  const by: State[] = [s]
  const peaks = { ammonia: 0, nitrite: 0 }
  for (let step = 0; step < days * STEPS; step++) {
    const at = (day: number): boolean => Math.round(day * STEPS) === step
    for (const h of happenings) {
      if (at(h.day)) happens(h)
      if (h.what === 'off' && at(h.day + h.hours / 24)) off = false
    }
    const t = step / STEPS
    if (k.changeShare > 0 && step > 0 && step % (k.changeDays * STEPS) === 0) {
      const left = 1 - k.changeShare
      changed += k.changeShare * k.volume * (s.n[0] + s.n[1] + s.n[2] - k.tapNitrate)
      s = {
        ...s,
        n: [s.n[0] * left, s.n[1] * left, s.n[2] * left + k.changeShare * k.tapNitrate],
        alkalinity: s.alkalinity * left + k.changeShare * k.alkalinity,
      }
    }
    made += (k.feed * feed * k.protein * 0.092 * DAY) / STEPS
    const h = 1 / STEPS
    const [a, b] = [rate(t, s), (d: State) => plus(s, d, h / 2)]
    const c = rate(t + h / 2, b(a))
    const d = rate(t + h / 2, b(c))
    const e = rate(t + h, plus(s, d, h))
    s = plus(plus(plus(plus(s, a, h / 6), c, h / 3), d, h / 3), e, h / 6)
    const held = (x: number): number => Math.min(1, Math.max(0, x))
    s = {
      ...s,
      oxygen: Math.max(0, s.oxygen),
      alkalinity: Math.max(0, s.alkalinity),
      own: [held(s.own[0]), held(s.own[1])],
    }
    peaks.ammonia = Math.max(peaks.ammonia, s.n[0])
    peaks.nitrite = Math.max(peaks.nitrite, s.n[1])
    if ((step + 1) % STEPS === 0) by.push(s)
  }
  return { by, peaks, made, changed, stored: (s.n[0] + s.n[1] + s.n[2] - k.tapNitrate) * k.volume }
}

const films = (lph: number, area: number): Films => ({
  flow: lph / 3.6e6,
  layers: [{ area, flow: lph / 3.6e6 }],
})
const canister = (ripe: number, more: Partial<TimedFilter> = {}): TimedFilter => ({ id: 'canister', films: films(600, 2.3), ripe, body: 8e-3, ...more }) // prettier-ignore
const sponge = (ripe: number, more: Partial<TimedFilter> = {}): TimedFilter => ({ id: 'sponge', films: films(120, 0.6), ripe, body: Infinity, ...more }) // prettier-ignore

test.each<[string, Partial<Keeping>, TimedFilter[], Happening[], Partial<Scenario>]>([
  ['a new canister', {}, [canister(1e-6)], [], { days: 24 }],
  ['a bottle, and the tank’s own films', { ownArea: 1.5 }, [canister(0.02)], [], { days: 12 }],
  [
    'one put on beside a ripe one, which is taken out',
    { ownArea: 1.5 },
    [sponge(1), canister(1e-6, { from: 3 })],
    [{ day: 9, what: 'take-out', filter: 'sponge' }],
    { days: 14 },
  ],
  [
    'half replaced, rinsed, and fed twice',
    {},
    [canister(1), sponge(1)],
    [
      { day: 2, what: 'replace', filter: 'canister', share: 0.5 },
      { day: 3, what: 'rinse', filter: 'sponge', keeps: 0.3 },
      { day: 5, what: 'feed', times: 2 },
    ],
    { days: 9 },
  ],
  [
    'a day without current: closed, open, and one of which nobody knows',
    { ownArea: 1.5 },
    [canister(1), sponge(1), { id: 'other', films: films(600, 2.3), ripe: 0.5 }],
    [{ day: 2, what: 'off', hours: 30 }],
    { days: 5 },
  ],
  [
    'off before one of them was there',
    {},
    [canister(1), sponge(1, { from: 3 })],
    [{ day: 1, what: 'off', hours: 12 }],
    { days: 5 },
  ],
  [
    'off after one was taken out',
    {},
    [canister(1), sponge(1)],
    [
      { day: 1, what: 'take-out', filter: 'canister' },
      { day: 2, what: 'off', hours: 12 },
    ],
    { days: 4 },
  ],
  ['twice the pace, a conditioner', { food: 0.45 }, [canister(0.1)], [], { days: 10, pace: 2 }],
  [
    'nothing changed, soft water',
    { changeShare: 0, alkalinity: 0.04, plantShare: 0 },
    [canister(1)],
    [],
    { days: 8 },
  ],
  [
    'a trickle and a still surface',
    { stirred: 0 },
    [{ id: 'trickle', films: films(8, 6), ripe: 1 }],
    [],
    { days: 6 },
  ],
])('worked again by Runge and Kutta: %s', (_, keeping, filters, happenings, more) => {
  const scenario: Scenario = { keeping: { ...KEPT, ...keeping }, filters, happenings, days: 10, ...more }
  const found = simulate(scenario)
  const expected = again(scenario)
  expected.by.forEach((s, day) => {
    // As it stands at the end of a day, before what happens on the next.
    const p = found.points.filter((x) => Math.abs(x.day - day) < 1e-6)[0]
    expect(p).toBeDefined()
    const is = [p!.ammonia, p!.nitrite, p!.nitrate, p!.oxygen].map((x) => x * 1e3)
    const was = [...s.n, s.oxygen].map((x) => x * 1e3)
    is.forEach((x, i) => expect([day, i, x]).toEqual([day, i, expect.closeTo(was[i] ?? NaN, 2)]))
    p!.films.forEach((x, i) => expect([day, i, x]).toEqual([day, i, expect.closeTo(s.bodies[i]!.x[0], 3)]))
  })
  expect(found.nitrogen.made / expected.made).toBeCloseTo(1, 6)
  expect(found.nitrogen.plants).toBeCloseTo(found.nitrogen.made * scenario.keeping.plantShare, 12)
  expect(found.nitrogen.changes * 1e6).toBeCloseTo(expected.changed * 1e6, 0)
  expect(found.nitrogen.stored * 1e6).toBeCloseTo(expected.stored * 1e6, 0)
  expect(found.peakAmmonia.value).toBeCloseTo(Math.max(...found.points.map((p) => p.ammonia)), 15)
  expect(found.peakAmmonia.value * 1e3).toBeCloseTo(expected.peaks.ammonia * 1e3, 1)
  expect(found.peakNitrite.value * 1e3).toBeCloseTo(expected.peaks.nitrite * 1e3, 1)
  expect(found.leastOxygen.value).toBe(Math.min(...found.points.map((p) => p.oxygen)))
})

describe('what is read off a simulation', () => {
  const long = simulate({ keeping: KEPT, filters: [canister(1e-6)], happenings: [], days: 60 })

  test('safe from the point after the last at which a kit shows anything; never where it shows to the end', () => {
    const last = long.points.map((p) => p.ammonia > 0.12e-3 || p.nitrite > 0.12e-3).lastIndexOf(true)
    expect(long.safeFrom).toBe(long.points[last + 1]?.day)
    expect(
      simulate({ keeping: KEPT, filters: [canister(1e-6)], happenings: [], days: 5 }).safeFrom,
    ).toBeNull()
    const ripe = simulate({
      keeping: { ...KEPT, feed: 0.5e-3 / DAY },
      filters: [canister(1)],
      happenings: [],
      days: 5,
    })
    expect(ripe.safeFrom).toBe(0)
  })

  test('four points a day, the first at once, peaks on the day they are', () => {
    expect(long.points.filter((p) => p.day < 2).map((p) => p.day)).toEqual([
      0, 0.25, 0.5, 0.75, 1, 1.25, 1.5, 1.75,
    ])
    expect(long.points.find((p) => p.day === long.peakAmmonia.day)?.ammonia).toBe(long.peakAmmonia.value)
    expect(long.points.at(-1)?.day).toBe(60)
  })

  test('a stopped body is foul from the first point at which next to no oxygen is left in it', () => {
    const off = simulate({
      keeping: KEPT,
      filters: [canister(1)],
      happenings: [{ day: 2, what: 'off', hours: 48 }],
      days: 5,
    })
    const first = off.points.find((p) => (p.bodies[0] ?? 1) < 0.05e-3)
    expect(first).toBeDefined()
    expect(off.foulFrom).toBe(first?.day)
    expect(off.foulFrom).toBeGreaterThan(2)
    expect(off.foulFrom).toBeLessThan(2.6)
    expect(simulate({ keeping: KEPT, filters: [canister(1)], happenings: [], days: 5 }).foulFrom).toBeNull()
    const open = simulate({
      keeping: KEPT,
      filters: [sponge(1)],
      happenings: [{ day: 2, what: 'off', hours: 10 }],
      days: 4,
    })
    expect(open.foulFrom).toBeNull()
  })

  test('hours of oxygen: what is in the body over what its films breathe', () => {
    // 8 L at 8 mg/L, 64 mg; 100 mg N a day use 457 mg: 64/457 of a day, 3.361 h.
    expect(hoursOfOxygen(8e-3, 8e-3, 100e-6 / DAY)).toBeCloseTo(3.3611, 3)
    expect(hoursOfOxygen(8e-3, 8e-3, 0)).toBe(Infinity)
  })

  test.each([
    [{ days: 0.5 }, /days/u],
    [{ days: 401 }, /days/u],
    [{ pace: 0 }, /pace/u],
    [{ pace: 101 }, /pace/u],
  ])('%j is refused by its name', (more, name) => {
    expect(() =>
      simulate({ keeping: KEPT, filters: [canister(1)], happenings: [], days: 5, ...more }),
    ).toThrow(name)
  })
})

test('a settled film is the share that takes what is made at the ammonia it rests at; all of it where that is not enough', () => {
  const one = films(600, 2.3)
  const b = balance({ ...KEPT, ownArea: 1.5 }, one)
  const x = settledFilm({ ...KEPT, ownArea: 1.5 }, [one])
  const most = mostHere(KEPT) * b.kept
  expect(x).toBeGreaterThan(0.05)
  expect(x).toBeLessThan(1)
  const taken = takenBy(b.ammonia, one, x * most) + takenByTank(b.ammonia, 1.5, x * most)
  expect(taken / b.nitrogen.oxidised).toBeCloseTo(1, 6)
  expect(b.ammonia).toBeCloseTo(FILM_FLOOR, 9)
  expect(settledFilm({ ...KEPT, feed: 90e-3 / DAY, alkalinity: 2 }, [films(60, 0.2)])).toBe(1)
  expect(settledFilm({ ...KEPT, feed: 0 }, [one])).toBe(1)
  expect(settledFilm({ ...KEPT, feed: 0 }, [])).toBe(0)
})
