import { oxygenSaturation } from '../water'
import {
  ASKED_OF_FILM,
  balance,
  CONDITIONER_LEAVES,
  bedTransfer,
  behindFilm,
  keptAtPH,
  keptByAlkalinity,
  mostHere,
  carbonDioxideLost,
  carbonDioxideOf,
  carries,
  DAY,
  filmsCarry,
  FILM_FLOOR,
  filmRate,
  gasExchange,
  hoursOfOxygen,
  oxygenAllows,
  keepingOf,
  KIT_ZERO,
  leverage,
  loadOf,
  metFlow,
  mostOf,
  ownArea,
  oxygenLeft,
  servedArea,
  takenByTank,
  reachedSurface,
  RIPENESS,
  settledFilm,
  takenBy,
  takenTogether,
  simulate,
  usualTank,
  type Films,
  type Keeping,
  type KeepingPerVolume,
} from '.'
import { integrate } from './integrate'

/** Milligrams a day in kg/s, milligrams per litre in kg/m³, litres an hour in m³/s. */
const perDay = (mg: number): number => (mg * 1e-6) / DAY
const mgL = (v: number): number => v * 1e-3
const lph = (v: number): number => v / 3.6e6

const KEPT: Keeping = {
  volume: 0.1,
  surface: 0.27,
  stirred: 0.06,
  feed: 1.5e-3 / DAY,
  protein: 0.4,
  oxygenOfFeed: 0.4,
  temperature: 27,
  salinity: 0,
  pH: 7.5,
  // Ample: films keep nearly all of their rate.
  alkalinity: 2,
  tapNitrate: 0,
  plantShare: 0,
  changeShare: 0.25,
  changeDays: 7,
}
/**
 * Share of their rate that KEPT’s films keep, by hand: 7.14 · (55.2 − 0.25) − 3.57 · 55.2 = 195.3 mg a day into 25 L a
 * week leave 2000 − 54.7 = 1945.3 mg/L: 1945.3/1970.3.
 */
const KEEPS = 0.98731
const oneFilm = (area: number, flow: number): Films => ({ flow, layers: [{ area, flow }] })
/** So much water that one pass takes next to nothing: the film sees the tank’s own concentration. */
const WIDE = 10

describe('what animals make', () => {
  test('100 kg of feed a day at 35 % protein make 3.22 kg of ammonia nitrogen (Timmons and Ebeling, worked case)', () => {
    const load = loadOf({ feed: 100 / DAY, protein: 0.35, oxygenOfFeed: 0.4 })
    expect(load.ammonia * DAY).toBeCloseTo(3.22, 10)
    expect(load.oxygen * DAY).toBeCloseTo(40, 10)
    // 44.010/31.998 by IUPAC’s masses, a quarter of the feed as solids.
    expect(load.carbonDioxide * DAY).toBeCloseTo(55.016, 3)
    expect(load.solids * DAY).toBeCloseTo(25, 10)
  })
  test.each([
    ['feed', { feed: -1, protein: 0.4, oxygenOfFeed: 0.4 }],
    ['protein', { feed: 1, protein: 1.2, oxygenOfFeed: 0.4 }],
    ['oxygenOfFeed', { feed: 1, protein: 0.4, oxygenOfFeed: 6 }],
  ] as const)('%s out of range is refused by its name', (field, f) => {
    expect(() => loadOf(f)).toThrow(field)
  })
})

describe('a film', () => {
  const water = { temperature: 27, salinity: 0 }
  test('takes 1859 S/(1.93 + S) mg/m² a day at 27 °C (Zhu and Chen 1999, from memory)', () => {
    // By hand: 1859 · 0.12/2.05 = 108.82; 1859 · 1.93/3.86 = 929.5.
    expect(filmRate(mgL(0.12), water) / perDay(108.82)).toBeCloseTo(1, 4)
    expect(filmRate(mgL(1.93), water) / perDay(929.5)).toBeCloseTo(1, 6)
  })
  test('is a third slower in the sea, and slower in the cold', () => {
    expect(mostOf({ temperature: 27, salinity: 35 }) / mostOf(water)).toBeCloseTo(2 / 3, 10)
    expect(mostOf({ temperature: 27, salinity: 40 }) / mostOf(water)).toBeCloseTo(2 / 3, 10)
    expect(mostOf({ temperature: 27, salinity: 17.5 }) / mostOf(water)).toBeCloseTo(5 / 6, 10)
    // Ten kelvin at 1.05: 0.6139.
    expect(mostOf({ temperature: 17, salinity: 0 }) / mostOf(water)).toBeCloseTo(0.6139, 4)
    expect(() => mostOf({ temperature: 45, salinity: 0 })).toThrow('temperature')
    expect(() => mostOf({ temperature: 25, salinity: 50 })).toThrow('salinity')
  })
  test('that water passes once takes 1 − exp(−kA/q) of little, k its slope at nothing', () => {
    // k = 1859/1.93 = 963.2 mm a day; 2.29 m² at 400 L/h (9.6 m³ a day): kA/q = 0.22977, and 20.53 % is taken.
    const b = behindFilm(1e-9, { area: 2.29, flow: lph(400) }, mostOf(water))
    expect(1 - b / 1e-9).toBeCloseTo(0.2053, 4)
  })
  test('that much water passes follows K ln(a/b) + a − b = r A/q (Levenspiel, Michaelis–Menten in plug flow)', () => {
    const [area, flow, a] = [5, lph(100), mgL(2)]
    const b = behindFilm(a, { area, flow }, mostOf(water))
    // Integrated apart: dS/dA = −r(S)/q in a hundred thousand steps of the midpoint rule.
    let s = a
    const h = area / 1e5
    for (let i = 0; i < 1e5; i++) {
      const half = s - (h / 2) * (filmRate(s, water) / flow)
      s -= h * (filmRate(half, water) / flow)
    }
    expect(b / s).toBeCloseTo(1, 6)
    expect(behindFilm(a, { area: 0, flow }, 1)).toBe(a)
    expect(behindFilm(a, { area, flow: 0 }, 1)).toBe(a)
    expect(behindFilm(0, { area, flow }, 1)).toBe(0)
  })
  test('in a slow bed it takes no more than passes: resistances in series, integrated apart', () => {
    const [area, flow, a, slow] = [3, lph(100), mgL(0.5), 6e-6]
    // 1859/1.93 mm a day is 1.1148e-5 m/s, and passed in the laboratory: 1/(1/6e-6 − 1/1.1148e-5) is in the way besides.
    const k = 1 / (1 / slow - 1 / 1.11483e-5)
    const most = mostOf(water)
    const behind = behindFilm(a, { area, flow, transfer: slow }, most)
    // dS/dA = −k (S − s)/q, s from k (S − s) = r(s) by halving, in twenty thousand steps of the midpoint rule.
    const flux = (S: number): number => {
      let [low, high] = [0, S]
      for (let i = 0; i < 60; i++) {
        const s = (low + high) / 2
        if (k * (S - s) > filmRate(s, water)) low = s
        else high = s
      }
      return k * (S - low)
    }
    let s = a
    const h = area / 2e4
    for (let i = 0; i < 2e4; i++) s -= (h * flux(s - (h / 2) * (flux(s) / flow))) / flow
    expect(behind / s).toBeCloseTo(1, 6)
    // Of little, as much as passes: e^(−k A/q).
    const little = behindFilm(1e-9, { area, flow, transfer: slow }, most)
    expect(little / 1e-9).toBeCloseTo(Math.exp((-slow * area) / flow), 5)
    for (const fast of [1.2e-5, 1, Infinity])
      expect(behindFilm(a, { area, flow, transfer: fast }, most)).toBe(behindFilm(a, { area, flow }, most))
    expect(behindFilm(a, { area, flow, transfer: 0 }, most)).toBe(a)
  })
  test('what passes the standing water in a bed: Wilson and Geankoplis, by hand', () => {
    // 15 mm at 1 mm/s: Re = 16.797, Sc = 455.6; 1.09/0.45 · 1e-3 · 16.797^(−2/3) · 455.6^(−2/3) = 6.237e-6.
    const pieces = { d: 0.015, voidage: 0.45 }
    expect(bedTransfer(1e-3, pieces) / 6.237e-6).toBeCloseTo(1, 3)
    expect(bedTransfer(8e-4, pieces) / bedTransfer(1e-4, pieces)).toBeCloseTo(2, 9)
    // 10 mm/s: Re = 167.97, beyond 55: 0.25/0.45 · 1e-2 · 167.97^(−0.31) · 455.6^(−2/3) = 1.916e-5.
    expect(bedTransfer(1e-2, pieces) / 1.916e-5).toBeCloseTo(1, 3)
    expect(bedTransfer(0, pieces)).toBe(0)
  })
  test('halving 400 L/h costs about a tenth of what 2.29 m² take', () => {
    const at = (q: number): number => takenBy(mgL(1e-4), oneFilm(2.29, lph(q)), mostOf(water))
    // By hand: 200 (1 − e^(−0.45954))/(400 (1 − e^(−0.22977))) = 0.8975.
    expect(at(200) / at(400)).toBeCloseTo(0.8975, 3)
  })
  test('that half of the water goes round meets only the other half, and layers stand one behind another', () => {
    const most = mostOf(water)
    const half = { flow: lph(400), layers: [{ area: 2.29, flow: lph(200) }] }
    expect(takenBy(1e-9, half, most)).toBeCloseTo(takenBy(1e-9, oneFilm(2.29, lph(200)), most), 20)
    const two = { flow: lph(400), layers: [1, 1.29].map((area) => ({ area, flow: lph(400) })) }
    expect(takenBy(1e-4, two, most) / takenBy(1e-4, oneFilm(2.29, lph(400)), most)).toBeCloseTo(1, 9)
    expect(takenBy(1e-4, { flow: 0, layers: [{ area: 1, flow: 0 }] }, most)).toBe(0)
    const films = { flow: 2, layers: [{ area: 3, flow: 1 }, { area: 4, flow: 0 }, { area: 0, flow: 2 }] } // prettier-ignore
    expect([reachedSurface(films), metFlow(films)]).toEqual([3, 1])
  })
})

describe('several filters on one tank', () => {
  const most = mostOf({ temperature: 27, salinity: 0 })
  const rich = { without: 8e-3, exchanged: 1 }
  test('two alike take what one of twice the surface and twice the water takes, and half of it is one alone', () => {
    const one = oneFilm(2.29, lph(400))
    const double = takenBy(1e-4, oneFilm(4.58, lph(800)), most)
    expect(takenTogether(1e-4, [one, one], most, rich) / double).toBeCloseTo(1, 12)
    expect(balance(KEPT, one, one).ammonia).toBeCloseTo(balance(KEPT, oneFilm(4.58, lph(800))).ammonia, 12)
    expect(balance(KEPT, one, one).reserve).toBeCloseTo(2 * balance(KEPT, one).reserve, 9)
    expect(takenTogether(1e-4, [], most, rich)).toBe(0)
  })
  test.each([
    ['a trickle beside a stream, in rich water', lph(2), lph(600), 7e-3, 1e-5],
    ['both short of oxygen', lph(2), lph(3), 4e-3, 1e-5],
    ['the trickle is short, the stream is not, as both draw on the tank', lph(4), lph(900), 6e-3, 2e-6],
    ['no oxygen to spare', lph(2), lph(600), 1.5e-3, 1e-5],
  ])(
    '%s: each takes what its own oxygen allows (fixed point by bisection)',
    (_, q1, q2, without, exchanged) => {
      const filters = [oneFilm(40, q1), oneFilm(0.8, q2)]
      const s = 3e-3
      // Apart: x = Σ min(wants, q (DO − 2 mg/L)/4.57) with DO = without − 4.57 x/K falls in x, so halving finds it.
      const right = (x: number): number =>
        filters.reduce(
          (sum, f) =>
            sum +
            Math.min(
              takenBy(s, f, most),
              (f.flow * Math.max(0, without - (4.57 * x) / exchanged - 2e-3)) / 4.57,
            ),
          0,
        )
      let [low, high] = [0, 1e-3]
      for (let i = 0; i < 200; i++) {
        const x = (low + high) / 2
        if (right(x) > x) low = x
        else high = x
      }
      const got = takenTogether(s, filters, most, { without, exchanged })
      expect(got).toBeCloseTo(low, 18)
      if (without > 2e-3) expect(got / low).toBeCloseTo(1, 9)
    },
  )
  test('one alone is the lesser of its films and its oxygen', () => {
    const f = oneFilm(40, lph(3))
    expect(takenTogether(3e-3, [f], most, { without: 4e-3, exchanged: 1e-5 })).toBeCloseTo(
      Math.min(takenBy(3e-3, f, most), oxygenAllows(f, 4e-3, 1e-5)),
      18,
    )
  })
})

describe('the balance at rest', () => {
  test('100 L, 1.5 g a day at 40 %: 55 mg N a day; 0.025 mg/L by the kinetics, so the floor of 0.07 shows', () => {
    const b = balance(KEPT, oneFilm(2.29, WIDE))
    expect(b.load.ammonia).toBeCloseTo(perDay(55.2), 15)
    expect(b.kept).toBeCloseTo(KEEPS, 5)
    // By hand: (55.2 − 0.09)/2.29 = 24.065 mg/m² a day; S = 24.065 · 1.93/(1859 · 0.98731 − 24.065) = 0.025642 mg/L.
    expect(b.kinetic).toBeCloseTo(mgL(0.025642), 8)
    expect([b.ammonia, b.atFloor]).toEqual([FILM_FLOOR, true])
    // Up to 0.12 mg/L the same kilogram takes 249.2 mg in ample alkalinity.
    expect(b.reserve).toBeCloseTo((KEEPS * 249.2) / 55.2, 2)
    expect(b.limits.map((l) => [l.id, l.met])).toEqual([
      ['ammonia', true],
      ['unionised', true],
      ['nitrite', true],
      ['oxygen', true],
      ['alkalinity', true],
    ])
  })
  test('is Levenspiel’s mixed reactor with a surface that reacts: S from the quadratic, dilution and all', () => {
    // P = D V S + A r S/(K + S): (DV) S² + (DV K + A r − P) S − P K = 0, solved apart.
    const k = { ...KEPT, feed: 6e-3 / DAY, oxygenOfFeed: 0, changeShare: 0.5, changeDays: 2 }
    const [p, dv] = [6 * 0.4 * 0.092 * 1e-3, 0.25 * 0.1]
    const K = 1.93e-3
    let [s, kept] = [0, 1]
    for (let i = 0; i < 50; i++) {
      const ar = 2.29 * 1.859e-3 * kept
      const q = dv * K + ar - p
      s = (-q + Math.sqrt(q * q + 4 * dv * p * K)) / (2 * dv)
      // Two days’ loss into half of 100 L.
      const left = 2 - ((7.14 * (p - dv * s) - 3.57 * p) * 2) / 0.05
      kept = left / (left + 0.025)
    }
    expect(balance(k, oneFilm(2.29, WIDE)).ammonia / s).toBeCloseTo(1, 5)
  })
  test('nitrogen in is nitrogen out, and oxygen closes to 0.1 %', () => {
    const k = { ...KEPT, plantShare: 0.3, changeShare: 0.3, feed: 3e-3 / DAY }
    const b = balance(k, oneFilm(2.29, lph(400)))
    const { made, plants, changes, oxidised } = b.nitrogen
    expect((plants + changes + oxidised) / made).toBeCloseTo(1, 9)
    expect(plants / made).toBeCloseTo(0.3, 12)
    const exchange = gasExchange({ speed: 0.06, depth: 0.1 / 0.27, temperature: 27 })
    const into = exchange * 0.27 * (b.saturation - b.oxygen)
    const used = b.oxygenUse.animals + b.oxygenUse.film + b.oxygenUse.plants + b.oxygenUse.rotting
    expect(into / used).toBeCloseTo(1, 6)
    expect(b.oxygenUse.film / oxidised).toBeCloseTo(4.57, 9)
    expect(b.oxygenUse.animals * DAY).toBeCloseTo(1.2e-3, 12)
    // A quarter of 3 g rots, 0.8 g of oxygen for each gram of it (Timmons and Ebeling: 0.6 to 1).
    expect(b.oxygenUse.rotting * DAY).toBeCloseTo(0.6e-3, 12)
    // All breathing at a quotient of 1, and 5.85 for each of the nitrogen, leave over √(1.92/2.10) of oxygen’s exchange.
    const gas = (44.01 / 31.998) * (used - b.oxygenUse.film) + 5.85 * oxidised
    expect((b.carbonDioxide - 0.6e-3) * exchange * 0.27 * Math.sqrt(1.92 / 2.1)).toBeCloseTo(gas, 14)
  })
  test('nitrate before a change is what is made in an interval over the share changed', () => {
    const b = balance({ ...KEPT, changeShare: 0.25, tapNitrate: mgL(2) }, oneFilm(2.29, WIDE))
    // 55.2 mg a day for 7 days into 25 L: 15.456 mg/L and what the tap brings, less what leaves as ammonia and nitrite.
    const lost = 2 * 0.25 * 0.1 * 0.07
    expect(b.nitrate * 1e3).toBeCloseTo(2 + (55.2 * 7) / 25 - lost / 0.25 / 0.1, 2)
    expect(balance({ ...KEPT, changeShare: 0 }, oneFilm(2.29, WIDE)).nitrate).toBe(Infinity)
  })
  test('alkalinity: films take 7.14 of what they oxidise, animals give 3.57 back of what they let out', () => {
    const hard = balance({ ...KEPT, alkalinity: mgL(220) }, oneFilm(2.29, WIDE))
    // Oxidised: 55.2 less 0.25 a day that leaves with the water (0.07 · 25/7 = 0.25): 7.14 · 54.95 − 3.57 · 55.2 = 195.3.
    expect(hard.alkalinity * 1e3).toBeCloseTo(220 - 54.68, 1)
    expect(hard.pHFall).toBeCloseTo(Math.log10(220 / 165.32), 3)
    expect(hard.alkalinityDays).toBeCloseTo((220 * 100) / 195.3, 1)
    expect(hard.kept).toBeCloseTo(165.32 / 190.32, 4)
  })
  test('soft water: films oxidise what alkalinity allows and no more; it never ends below nothing', () => {
    const soft = balance({ ...KEPT, alkalinity: mgL(40) }, oneFilm(2.29, WIDE))
    const ox = soft.nitrogen.oxidised * DAY * 1e6
    expect(soft.alkalinity).toBeGreaterThan(0)
    expect(soft.alkalinity * 1e3).toBeCloseTo(40 + (3.57 * 55.2 - 7.14 * ox) * 0.28, 3)
    const [a, s] = [soft.alkalinity * 1e3, soft.ammonia * 1e3]
    expect(ox / ((2.29 * 1859 * a * s) / (25 + a) / (1.93 + s))).toBeCloseTo(1, 3)
    expect(s).toBeGreaterThan(1)
    expect(soft.limits.find((l) => l.id === 'alkalinity')?.met).toBe(false)
    // No cliff: a little harder is a little better, all the way.
    const steps = Array.from(
      { length: 61 },
      (_, i) => balance({ ...KEPT, alkalinity: mgL(20 + i) }, oneFilm(2.29, WIDE)).ammonia,
    )
    steps.slice(1).forEach((x, i) => expect((steps[i] as number) - x).toBeGreaterThanOrEqual(-1e-12))
    steps.slice(1).forEach((x, i) => expect((steps[i] as number) - x).toBeLessThan(mgL(0.6)))
    // Nothing changed: used up in the end, however much there was; then half is oxidised on what the other half gives back.
    const never = balance({ ...KEPT, changeShare: 0 }, oneFilm(2.29, WIDE))
    expect(never.alkalinity).toBeLessThan(mgL(1))
    expect(never.nitrogen.oxidised / never.nitrogen.made).toBeCloseTo(0.5, 6)
    expect(never.ammonia).toBe(Infinity)
  })
  test('what holds films back: pH by EPA’s 1 − 0.833 (7.2 − pH), organic carbon by its share, nitrate by its class', () => {
    // By hand: 1 − 0.833 · 0.6 = 0.5002.
    expect([keptAtPH(7.2), keptAtPH(8), keptAtPH(5.5)]).toEqual([1, 1, 0])
    expect(keptAtPH(6.6)).toBeCloseTo(0.5002, 10)
    expect([keptByAlkalinity(0), keptByAlkalinity(25e-3), keptByAlkalinity(-1)]).toEqual([0, 0.5, 0])
    expect(mostHere({ temperature: 27, salinity: 0, pH: 6.6, organic: 0.5 }) * DAY * 1e6).toBeCloseTo(
      1859 * 0.5 * 0.5002,
      6,
    )
    const met = (nitrateLimit?: number) =>
      balance({ ...KEPT, ...(nitrateLimit && { nitrateLimit }) }, oneFilm(2.29, WIDE)).limits.find(
        (l) => l.id === 'nitrate',
      )?.met
    // 55.2 mg a day for a week into 25 L: 15.4 mg/L.
    expect([met(), met(mgL(15)), met(mgL(16))]).toEqual([undefined, false, true])
  })
  test('un-ionised ammonia by Emerson: 5.37 % of it at 25 °C and pH 8, by its own mass', () => {
    const b = balance({ ...KEPT, temperature: 25, pH: 8 }, oneFilm(2.29, WIDE))
    expect(b.unionised / FILM_FLOOR).toBeCloseTo(0.0537 * (17.031 / 14.007), 4)
  })
  test('no animals, no filter, little oxygen: each says what it is', () => {
    const none = balance({ ...KEPT, feed: 0 }, oneFilm(2.29, WIDE))
    expect(none).toMatchObject({ ammonia: 0, nitrite: 0, nitrate: 0, atFloor: false, reserve: Infinity })
    expect(none).toMatchObject({ alkalinity: KEPT.alkalinity, pHFall: 0, alkalinityDays: Infinity })
    const bare = balance({ ...KEPT, changeShare: 0 }, { flow: lph(400), layers: [] })
    expect([bare.ammonia, bare.nitrogen.oxidised, bare.nitrite]).toEqual([Infinity, 0, 0])
    // Water changes alone: 55.2 mg a day into 25 L a week.
    const changed = balance({ ...KEPT, changeShare: 0.25 }, { flow: 0, layers: [] })
    expect(changed.ammonia * 1e3).toBeCloseTo(55.2 / (25 / 7), 6)
    expect(changed.atFloor).toBe(false)
    // What breathes air asks nothing of the water’s oxygen.
    const turtle = balance({ ...KEPT, oxygenOfFeed: 0 }, oneFilm(2.29, WIDE))
    expect(turtle.limits.map((l) => l.id)).toEqual(['ammonia', 'unionised', 'nitrite', 'alkalinity'])
    // A trickle brings oxygen for q (DO − 2)/4.57 only, DO what it leaves in the tank itself.
    const trickle = balance({ ...KEPT, changeShare: 0.5 }, oneFilm(50, lph(1)))
    expect(trickle.nitrogen.oxidised).toBeCloseTo((lph(1) * (trickle.oxygen - 2e-3)) / 4.57, 14)
  })
  test.each([
    ['volume', { volume: 0 }],
    ['surface', { surface: -1 }],
    ['pH', { pH: 14 }],
    ['plantShare', { plantShare: 2 }],
    ['changeShare', { changeShare: -0.1 }],
    ['changeDays', { changeDays: 0 }],
    ['stirred', { stirred: -1 }],
    ['alkalinity', { alkalinity: 5 }],
  ] as const)('%s out of range is refused by its name', (field, wrong) => {
    expect(() => balance({ ...KEPT, ...wrong }, oneFilm(1, 1))).toThrow(field)
  })
})

describe('oxygen and gas exchange', () => {
  test('saturation as APHA 4500-O lists it (from memory): 20 °C 9.09, 25 °C 8.26, 30 °C 7.56 mg/L; sea water less', () => {
    expect(oxygenSaturation(20) * 1e3).toBeCloseTo(9.09, 2)
    expect(oxygenSaturation(25) * 1e3).toBeCloseTo(8.26, 2)
    expect(oxygenSaturation(30) * 1e3).toBeCloseTo(7.56, 2)
    // Benson and Krause at salinity 35 and 25 °C: 6.75 mg/L (from memory).
    expect(oxygenSaturation(25, 35) * 1e3).toBeCloseTo(6.75, 1)
    expect(() => oxygenSaturation(50)).toThrow('temperature')
  })
  test('O’Connor and Dobbins: k₂ = 3.93 U^0.5/H^1.5, 0.53 a day at 0.5 m/s over 3 m', () => {
    expect((gasExchange({ speed: 0.5, depth: 3, temperature: 20 }) * DAY) / 3).toBeCloseTo(0.535, 3)
    // Ten kelvin at 1.024: 1.2677.
    expect(
      gasExchange({ speed: 0.5, depth: 3, temperature: 30 }) /
        gasExchange({ speed: 0.5, depth: 3, temperature: 20 }),
    ).toBeCloseTo(1.2677, 4)
    expect(gasExchange({ speed: 0, depth: 3, temperature: 20 }) * DAY).toBeCloseTo(0.6, 12)
    expect(() => gasExchange({ speed: 0, depth: 0, temperature: 20 })).toThrow('depth')
    expect(oxygenLeft(8e-3, 2e-6, 1e-3, 1)).toBeCloseTo(6e-3, 15)
  })
  test('carbon dioxide: what is breathed out stands above the air’s, and leaves by the hour', () => {
    const exchange = 1 / DAY
    // √(1.92/2.10) = 0.95618 m a day over 1 m²: 1 g a day makes 1.0458 mg/L more than the air’s 0.6.
    expect(carbonDioxideOf(1e-3 / DAY, exchange, 1) * 1e3).toBeCloseTo(1.6458, 3)
    expect(carbonDioxideLost(exchange, 0.5)).toBeCloseTo(1 - Math.exp(-0.95618 / 0.5 / 24), 6)
  })
  test('the integrator against Streeter and Phelps: the sag of a river, in closed form', () => {
    const [kd, ka, l0, d0] = [0.35, 0.7, 15, 1]
    const sag = (t: number): number =>
      ((kd * l0) / (ka - kd)) * (Math.exp(-kd * t) - Math.exp(-ka * t)) + d0 * Math.exp(-ka * t)
    const { at, end } = integrate(
      (_t, [l = 0, d = 0]) => [-kd * l, kd * l - ka * d],
      [l0, d0],
      [0, 6],
      [0.5, 1, 1.786, 3],
    )
    expect(at.map((v) => v[1])).toEqual([0.5, 1, 1.786, 3].map((t) => expect.closeTo(sag(t), 5) as number))
    expect(end[1]).toBeCloseTo(sag(6), 5)
    // The lowest point is where its slope is nothing: t = ln[(ka/kd)(1 − D₀(ka − kd)/(kd L₀))]/(ka − kd) = 1.783 days.
    expect(Math.log((ka / kd) * (1 - (d0 * (ka - kd)) / (kd * l0))) / (ka - kd)).toBeCloseTo(1.783, 3)
    expect(integrate(() => [0], [1], [1, 1])).toEqual({ end: [1], at: [] })
  })
})

describe('the largest tank a filter carries', () => {
  const per: KeepingPerVolume = {
    ...KEPT,
    temperature: 25,
    feedPerVolume: 0.015 / DAY,
    changeShare: 0.3,
    stirred: () => 0.3,
  }
  test('a usual tank is twice as long as high and wide', () => {
    const t = usualTank(0.128)
    expect([t.length, t.height, t.surface]).toEqual(
      [0.8, 0.4, 0.32].map((v) => expect.closeTo(v, 12) as number),
    )
    expect(keepingOf(per, 0.128)).toMatchObject({ volume: 0.128, stirred: 0.3 })
    expect(keepingOf(per, 0.128).feed * DAY).toBeCloseTo(1.92e-3, 12)
  })
  test('ends where ammonia shows, at the volume that what the film takes at 0.12 mg/L is fed by', () => {
    const films = oneFilm(1, WIDE)
    const c = carries(per, films)
    expect(c.binding).toBe('ammonia')
    // By hand at 25 °C: 1859 · 1.05^−2 · 0.12/2.05 = 98.70 mg a day; each litre makes 0.015 · 0.4 · 92 = 0.552 mg and
    // changes 0.3/7 of itself at 0.12: 0.005143 mg. (7.14 · 0.5469 − 3.57 · 0.552) · 7/0.3 = 45.1 mg/L of alkalinity go,
    // and 1954.9/1979.9 = 0.98737 of the rate stays: 97.45/(0.552 − 0.005143) = 178.2 L.
    expect(c.volume * 1e3).toBeCloseTo(178.2, 0)
    expect(balance(keepingOf(per, c.volume), films).ammonia).toBeCloseTo(KIT_ZERO, 8)
  })
  test('no film carries nothing that is fed; nothing fed is carried by anything', () => {
    expect(carries(per, { flow: 1, layers: [] })).toEqual({
      volume: 0,
      binding: 'ammonia',
    })
    expect(carries({ ...per, feedPerVolume: 0 }, { flow: 1, layers: [] })).toMatchObject({
      volume: 100,
      binding: null,
    })
    expect(leverage({ ...per, pH: 10 }, oneFilm(1, 1))).toBeNull()
    expect(leverage({ ...per, feedPerVolume: 0 }, oneFilm(1, 1))).toBeNull()
    // By hand, as above.
    expect(filmsCarry(per, oneFilm(1, WIDE)) * 1e3).toBeCloseTo(178.2, 0)
    // At 60 mg/L and three grams a day for 100 L changes bring too little alkalinity for any filter.
    const thirsty = { ...per, alkalinity: mgL(60), feedPerVolume: 0.03 / DAY }
    expect(carries(thirsty, oneFilm(50, WIDE))).toEqual({ volume: 0, binding: 'alkalinity' })
  })
  test('twice the media carry nearly twice as much, twice the flow a few per cent more', () => {
    const films = oneFilm(2.29, lph(400))
    const more = leverage(per, films)
    // By hand: at 0.12 mg/L the slope is near k: doubling A from 0.2 kA/q takes (1 − e^−0.4)/(1 − e^−0.2) = 1.82 of it.
    expect(more?.media).toBeGreaterThan(0.75)
    expect(more?.media).toBeLessThan(0.95)
    expect(more?.flow).toBeGreaterThan(0.03)
    expect(more?.flow).toBeLessThan(0.12)
  })
})

describe('the first limit', () => {
  const per: KeepingPerVolume = { ...KEPT, temperature: 25, feedPerVolume: 0.015 / DAY, changeShare: 0.3, stirred: () => 0.3 } // prettier-ignore
  test.each([
    ['ammonia', {}, oneFilm(1, lph(400))],
    ['unionised', { pH: 8.6 }, oneFilm(1, lph(400))],
    ['oxygen', { stirred: (): number => 0 }, oneFilm(20, lph(900))],
    ['ammonia', {}, oneFilm(50, lph(3))],
    ['ammonia', { oxygenOfFeed: 0, stirred: (): number => 0 }, oneFilm(3, lph(300))],
  ] as const)('is %s, and the balance itself passes it there and not before', (id, more, films) => {
    const k = { ...per, ...(more as Partial<KeepingPerVolume>) }
    const { volume, binding } = carries(k, films)
    expect(binding).toBe(id)
    const met = (v: number): readonly string[] =>
      balance(keepingOf(k, v), films)
        .limits.filter((l) => !l.met)
        .map((l) => l.id)
    expect(met(volume * 0.985)).toEqual([])
    expect(met(volume * 1.015)).toContain(id)
  })
  test('at pH 10 even the film’s own floor is too much; without animals nothing is', () => {
    expect(carries({ ...per, pH: 10 }, oneFilm(5, 1))).toEqual({ volume: 0, binding: 'unionised' })
    // Changing most of the water each day keeps it below the limit without any film.
    expect(carries({ ...per, changeShare: 1, changeDays: 0.1 }, { flow: 1, layers: [] }).binding).not.toBe(
      'ammonia',
    )
  })
})

describe('the balance in time', () => {
  const keeping: Keeping = { ...KEPT, temperature: 25, changeShare: 0.3 }
  const films = oneFilm(2.29, lph(400))
  const story = (ripe: number, more: Partial<Parameters<typeof simulate>[0]> = {}) =>
    simulate({ keeping, filters: [{ id: 'a', films, ripe }], happenings: [], days: 60, ...more })

  test('ripening from nothing: ammonia, then nitrite, then neither, four to six weeks at most (common practice)', () => {
    const t = story(0)
    expect(t.peakAmmonia.day).toBeLessThan(t.peakNitrite.day)
    expect(t.peakAmmonia.value).toBeGreaterThan(mgL(2))
    expect(t.safeFrom).toBeGreaterThan(21)
    expect(t.safeFrom).toBeLessThan(42)
  })
  test('nitrogen in is nitrogen out to 0.1 %', () => {
    const t = story(0, { keeping: { ...keeping, plantShare: 0.2, tapNitrate: mgL(1) } })
    const { made, plants, changes, stored } = t.nitrogen
    expect(made).toBeCloseTo(1.5e-3 * 0.4 * 0.092 * 60, 9)
    expect((plants + changes + stored) / made).toBeCloseTo(1, 4)
  })
  test('comes to rest where the balance at rest stands', () => {
    const t = story(1)
    const last = t.points.at(-1)
    expect(last?.ammonia).toBeCloseTo(balance(keeping, films).ammonia, 5)
    expect(last?.oxygen).toBeCloseTo(balance(keeping, films).oxygen, 4)
    expect(t.safeFrom).toBe(0)
    expect(settledFilm(keeping, [films])).toBeCloseTo(last?.films[0] ?? 0, 2)
  })
  test('plants breathe at night and take their share, in time as at rest; the reserve is of what is left for films', () => {
    const planted = { ...keeping, plantShare: 0.5 }
    const t = story(1, { keeping: planted })
    expect(t.points.at(-1)?.oxygen).toBeCloseTo(balance(planted, films).oxygen, 4)
    // Half of 55.2 mg would have cost the films 126 mg of oxygen; plants breathe as much: the tank has no more for it.
    const [without, half] = [balance(keeping, films), balance(planted, films)]
    expect(half.oxygenUse.plants * DAY * 1e6).toBeCloseTo((55.2 / 2) * 4.57, 3)
    expect(half.reserve / without.reserve).toBeGreaterThan(1.99)
  })
  test('a trickle through much film comes to rest where the balance does: its oxygen holds it', () => {
    const k = { ...keeping, changeShare: 0.5 }
    const trickle = oneFilm(50, lph(1))
    const t = simulate({
      keeping: k,
      filters: [{ id: 'a', films: trickle, ripe: 1 }],
      happenings: [],
      days: 200,
    })
    // Changes come in steps: about the mean of them stands the balance, at some milligrams that films alone would take.
    const rest = balance(k, trickle).ammonia
    expect(rest).toBeGreaterThan(mgL(1))
    const late = t.points.filter((p) => p.day > 150).map((p) => p.ammonia)
    expect(late.reduce((a, b) => a + b, 0) / late.length / rest).toBeCloseTo(1, 0)
    expect(Math.min(...late)).toBeGreaterThan(mgL(0.5))
  })
  test('without a film ammonia rises by what is fed, in a straight line', () => {
    const t = simulate({ keeping: { ...KEPT, changeShare: 0 }, filters: [], happenings: [], days: 10 })
    // 55.2 mg a day into 100 L: 0.552 mg/L a day.
    expect(t.points.at(-1)?.ammonia).toBeCloseTo(mgL(5.52), 8)
    expect(t.points).toHaveLength(41)
    expect(t.safeFrom).toBeNull()
  })
  test('the oxygen of still water comes back as K_L/H says, by an exponential', () => {
    const still = { ...KEPT, stirred: 0, feed: 0 }
    const t = simulate({ keeping: { ...still, feed: 2e-3 / DAY }, filters: [], happenings: [{ day: 0, what: 'feed', times: 1 }], days: 5 }) // prettier-ignore
    const exchange = gasExchange({ speed: 0, depth: 0.1 / 0.27, temperature: 27 })
    const rate = (exchange * 0.27 * DAY) / 0.1
    // Two grams fed: the fish breathe 0.8 g, and half a gram of solids rots away 0.4 g.
    const least = 1.2e-3 / DAY / (exchange * 0.27)
    expect(oxygenSaturation(27) - (t.points[4]?.oxygen ?? 0)).toBeCloseTo(least * (1 - Math.exp(-rate)), 7)
  })
  test('ripe media, a starter and an old filter beside the new shorten it', () => {
    const [nothing, starter, third] = [story(0), story(RIPENESS.starter), story(1 / 3)]
    expect(starter.safeFrom).toBeLessThan(nothing.safeFrom ?? 0)
    expect(third.peakAmmonia.value).toBeLessThan(starter.peakAmmonia.value)
    const beside = (weeks: number) =>
      simulate({
        keeping,
        filters: [
          { id: 'old', films, ripe: 1 },
          { id: 'new', films, ripe: 0 },
        ],
        happenings: [{ day: weeks * 7, what: 'take-out', filter: 'old' }],
        days: 90,
      })
    expect(beside(6).peakAmmonia.value).toBeLessThan(beside(1).peakAmmonia.value)
  })
  test('half the media replaced shows little, a tap more, twice the fish less than a new filter', () => {
    const half = story(1, { happenings: [{ day: 10, what: 'replace', filter: 'a', share: 0.5 }] })
    const tap = story(1, { happenings: [{ day: 10, what: 'rinse', filter: 'a', keeps: RIPENESS.tapRinsed }] })
    const fish = story(1, { happenings: [{ day: 10, what: 'feed', times: 2 }] })
    expect(half.peakAmmonia.value).toBeLessThan(tap.peakAmmonia.value)
    expect(fish.peakAmmonia.day).toBeGreaterThan(10)
    expect(fish.peakAmmonia.value).toBeLessThan(story(0).peakAmmonia.value)
  })
  test('with the power out the tank’s oxygen falls, and the closed body’s is gone in about two hours', () => {
    const out = story(1, { happenings: [{ day: 5, what: 'off', hours: 12 }] })
    expect(out.leastOxygen.day).toBeCloseTo(5.5, 1)
    expect(out.leastOxygen.value).toBeLessThan(story(1).leastOxygen.value)
    expect(out.peakAmmonia.value).toBeGreaterThan(story(1).peakAmmonia.value)
    // 3 L of 8 mg/L hold 24 mg; 55 mg N a day take 10.47 mg an hour: 2.29 h.
    expect(hoursOfOxygen(3e-3, mgL(8), perDay(55))).toBeCloseTo(2.29, 2)
    expect(hoursOfOxygen(3e-3, mgL(8), 0)).toBe(Infinity)
  })
  test('a stopped film decays: 240 hours without oxygen cost it half, and the kit shows it for days', () => {
    const off = (body?: number) =>
      story(1, {
        filters: [{ id: 'a', films, ripe: 1, ...(body !== undefined && { body }) }],
        happenings: [{ day: 5, what: 'off', hours: 240 }],
      })
    const out = off(3e-3)
    const at = (day: number): number => out.points.findLast((p) => p.day <= day)?.films[0] ?? 0
    // By hand: a film loses 0.9 · 1.07^5 · 0.07/0.57 = 0.15502 a day where it neither grows nor starves, 0.4 of it without
    // oxygen: e^(−0.4 · 0.15502 · 10) = 0.538; the first hours, with oxygen, cost a little more.
    expect(at(15) / at(5)).toBeLessThan(0.538)
    expect(at(15) / at(5)).toBeGreaterThan(0.52)
    expect(out.foulFrom).toBeGreaterThan(5)
    expect(out.foulFrom).toBeLessThan(6)
    const after = out.points.filter((p) => p.day > 15)
    expect(Math.max(...after.map((p) => p.nitrite))).toBeGreaterThan(KIT_ZERO)
    expect(out.safeFrom).toBeGreaterThan(16)
    // Nobody knows its body: it is taken to have none from the start. Open in the tank it keeps what breathes.
    expect(off().foulFrom).toBeCloseTo(5.25, 9)
    expect(off(Infinity).foulFrom).toBeNull()
    expect(story(1).foulFrom).toBeNull()
  })
  test('in soft water it stalls as it does at rest; its alkalinity never falls below nothing', () => {
    const soft = { ...keeping, alkalinity: mgL(30) }
    const t = simulate({ keeping: soft, filters: [{ id: 'a', films, ripe: 1 }], happenings: [], days: 200 })
    const late = t.points.filter((p) => p.day > 160).map((p) => p.ammonia)
    const rest = balance(soft, films).ammonia
    expect(rest).toBeGreaterThan(mgL(1))
    // Changes come in steps, the balance has them even: about the mean of them it stands.
    expect(late.reduce((a, b) => a + b, 0) / late.length / rest).toBeGreaterThan(0.6)
    expect(late.reduce((a, b) => a + b, 0) / late.length / rest).toBeLessThan(1.4)
  })
  test('a filter put on later begins then, and days are bounded', () => {
    const late = simulate({
      keeping,
      filters: [{ id: 'a', films, ripe: 0, from: 14 }],
      happenings: [],
      days: 60,
    })
    expect(late.points.find((p) => p.day === 7)?.films[0]).toBe(RIPENESS.nothing)
    expect(late.safeFrom).toBeGreaterThan((story(0).safeFrom ?? 0) + 5)
    expect(() => story(1, { days: 1000 })).toThrow('days')
  })
})

describe('films that water can serve', () => {
  // 1.5 g a day of 40 % protein make 55.2 mg of nitrogen; a kilogram is 1100/480 m². At 0.12 mg/L that takes 460 L a day.
  const kilogram = 1100 / 480
  const lph = (q: number): number => q / 3.6e6
  test('by the rule of mass a kilogram asks for 19.2 L/h of water, and where there is more all of it counts', () => {
    expect(ASKED_OF_FILM * kilogram * 86400e6).toBeCloseTo(55.2, 6)
    const at = (q: number, kg: number) =>
      servedArea({ flow: lph(q), layers: [{ area: kg * kilogram, flow: lph(q) }] })
    expect(at(600, 5.2) / kilogram).toBeCloseTo(5.2, 9)
    expect(at(19.1666, 2) / kilogram).toBeCloseTo(1, 4)
    expect(at(0, 5)).toBe(0)
  })
  test('a layer that no water comes through has none; one behind another gets what is left', () => {
    const films = (...layers: (readonly [kg: number, q: number])[]) => ({
      flow: lph(600),
      layers: layers.map(([kg, q]) => ({ area: kg * kilogram, flow: lph(q) })),
    })
    expect(servedArea(films([1, 600], [3, 0])) / kilogram).toBeCloseTo(1, 9)
    // 600 L/h bring food for 31.3 kg, whatever lies first.
    expect(servedArea(films([20, 600], [20, 600])) / kilogram).toBeCloseTo(600 / 19.1667, 2)
    // A bed entered as two layers serves what it does as one.
    expect(servedArea(films([2, 600], [2, 600]))).toBeCloseTo(servedArea(films([4, 600])), 9)
  })
})

describe('what a tank takes by itself', () => {
  // Still water 0.75 mm thick, D 1.96e-9: k = 2.613e-6 m/s. Film at 25 °C: r = 1686.2 mg/m²/day, K 1.93 mg/L.
  const most = mostOf({ temperature: 25, salinity: 0 })
  test('at 0.12 mg/L a square metre takes 21.6 mg a day: what diffuses in is what is eaten (by hand)', () => {
    const taken = takenByTank(0.12e-3, 1, most) * 86400e6
    // k (S − s) = r s/(K + s): s = 0.0247 mg/L; 2.613e-6 · 0.0953e-3 · 86400e6 = 21.5.
    const s = 0.12e-3 - taken / 86400e6 / (1.96e-9 / 0.75e-3)
    expect((most * s) / (1.93e-3 + s) / (taken / 86400e6)).toBeCloseTo(1, 9)
    expect(taken).toBeGreaterThan(20.5)
    expect(taken).toBeLessThan(22.5)
    // Under a current the same film would take 98.7 mg: standing water costs it three quarters.
    expect(taken / 98.7).toBeLessThan(0.25)
    expect(takenByTank(0, 1, most)).toBe(0)
  })
  test('its area is glass, floor, gravel three times, and what stands in it, without a step as gravel gets deep', () => {
    const tank = { surface: 0.28, perimeter: 2.3, waterLevel: 0.37, substrateDepth: 0, decorVolume: 0 }
    expect(ownArea(tank)).toBeCloseTo(2.3 * 0.37 + 0.28, 12)
    expect(ownArea({ ...tank, substrateDepth: 0.04 })).toBeCloseTo(2.3 * 0.33 + 3 * 0.28, 12)
    expect(ownArea({ ...tank, substrateDepth: 1e-6 }) / ownArea(tank)).toBeCloseTo(1, 4)
    expect(ownArea({ ...tank, decorVolume: 0.001 }) - ownArea(tank)).toBeCloseTo(2 * 6 * 0.01, 12)
  })
  const keeping = {
    feed: 1.5e-3 / 86400, protein: 0.4, oxygenOfFeed: 0.4, temperature: 25, salinity: 0, volume: 0.1, surface: 0.28, stirred: 0.05,
    pH: 7.5, alkalinity: 0.1, tapNitrate: 0, plantShare: 0, changeShare: 0.3, changeDays: 7,
  } // prettier-ignore
  const films = { flow: 600 / 3.6e6, layers: [{ area: 2.29, flow: 600 / 3.6e6 }] }
  test('the worked balance is unchanged but for the tank’s own share', () => {
    const without = balance(keeping, films)
    const own = balance({ ...keeping, ownArea: 1.5 }, films)
    // 100 L, 1.5 g a day, 2.29 m²: at the film’s floor either way; the reserve grows by 1.5 · 21.6/55.2.
    expect([without.ammonia, own.ammonia]).toEqual([FILM_FLOOR, FILM_FLOOR])
    expect(without.nitrogen.own).toBe(0)
    expect(own.reserve - without.reserve).toBeCloseTo(
      (takenByTank(KIT_ZERO, 1.5, most * without.kept) * 86400e6) / 55.2,
      6,
    )
    expect(own.nitrogen.made).toBeCloseTo(
      own.nitrogen.plants + own.nitrogen.changes + own.nitrogen.oxidised,
      15,
    )
  })
  test('a tank of floss alone, thrown away each three weeks, runs clear by itself when lightly fed', () => {
    const tank = { ...keeping, feed: 0.5e-3 / 86400, ownArea: 1.5 }
    const none = { flow: films.flow, layers: [] }
    expect(balance(tank, none).limits.find((l) => l.id === 'ammonia')?.met).toBe(true)
    expect(balance({ ...tank, ownArea: 0 }, none).ammonia).toBeGreaterThan(1e-3)
  })
  test('a conditioner leaves films about half of their food: a kit shows more, and as little of it is gas', () => {
    const [free, bound] = [balance(keeping, films), balance({ ...keeping, food: CONDITIONER_LEAVES }, films)]
    expect(bound.ammonia / free.ammonia).toBeCloseTo(1 / 0.45, 9)
    expect(bound.unionised / free.unionised).toBeCloseTo(1, 9)
    expect(bound.reserve / free.reserve).toBeLessThan(0.5)
  })
})
