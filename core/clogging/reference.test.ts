import { DAY } from '../biology'
import { resistanceOf } from '../media'
import { outcomeOf } from '../path'
import { layer, NORMAL } from '../path/tests/support'
import { bySchool, hasPrefilter, withoutPrefilter, withPrefilter } from './arrange'
import {
  cakePermeability,
  collectorOf,
  filterCoefficient,
  touching,
  type Collector,
  type Suspension,
} from './capture'
import {
  canister,
  classOf,
  clog,
  COARSE,
  FINE_FOAM,
  hangOnBack,
  MEDIUM,
  PAD,
  SINTERED,
  sponge,
  STRAIN_FIRST,
  tankOf,
  without,
} from './cases.fixture'
import { CONSTANTS, VALUES } from './constants'
import { learn, answersOf, dueMiddle, leftOn, priorOfPace } from './study'
import { quickTank } from '../advice'
import { posterior } from './learn'
import { balanceOn, testedLines } from './living'
import { filmsOn, surfaceLeft, reportOf, yearMinutes } from './report'
import { dirtyTank, feedDoubt } from './tank'
import { TANK } from '../judging/tests/tank'
import { PARTICLE_CLASSES, classShareAbove, sharesOf } from './particles'
import { forecast, type ClogCase, type ClogRun } from './run'
import { intakeId } from './waterways'

const WATER: Suspension = { viscosity: 8.9e-4, temperature: 298.15, heavier: 50, sticks: 1 }
const GRAINS: Collector = { kind: 'grains', diameter: 5e-4, solidity: 0.6, opening: 7.7e-5 }
const FIBRES: Collector = { kind: 'fibres', diameter: 3e-5, solidity: 0.1, opening: 5.4e-5 }

describe('what is caught', () => {
  test('grains: η of Yao, Habibian and O’Melia (1971), each part worked by hand', () => {
    // 10 µm flocs, 50 kg/m³ heavier, past 0.5 mm grains at 1.36 mm/s: 1.5·(1/50)² = 6.0e-4; Stokes 3.06 µm/s ÷ v =
    // 2.25e-3; 0.9·(4.116e-21/6.052e-15)^⅔ = 6.96e-5.
    expect(touching(GRAINS, 1e-5, 1.36e-3, WATER)).toBeCloseTo(6.0e-4 + 2.25e-3 + 6.96e-5, 5)
    // λ = 3/2 · 0.6 · 0.1 · 2.92e-3 / 5e-4.
    expect(filterCoefficient(GRAINS, 1e-5, 1.36e-3, { ...WATER, sticks: 0.1 })).toBeCloseTo(0.526, 2)
  })
  test('fibres: interception after Hinds, ch. 9, by hand; never more than all', () => {
    // c = 0.1: Ku = 1.1513 − 0.75 + 0.1 − 0.0025 = 0.4988; R = ⅓: 0.9/9/(0.4988·1.3333) = 0.1504; sinking 3.06e-6/0.01.
    expect(touching(FIBRES, 1e-5, 0.01, WATER)).toBeCloseTo(0.1504 + 3.06e-4, 3)
    // λ = 4·0.1·0.1507/(π·3e-5·0.9).
    expect(filterCoefficient(FIBRES, 1e-5, 0.01, WATER)).toBeCloseTo(711, -1)
    expect(touching(FIBRES, 2e-3, 0.01, WATER)).toBe(1)
    expect(() => touching(FIBRES, 1e-5, 0, WATER)).toThrow(/velocity/)
    expect(() => filterCoefficient(FIBRES, 1e-5, 0.01, { ...WATER, sticks: 2 })).toThrow(/sticks/)
  })
  test('openings by geometry: between fibres of a tenth solid 1.8 diameters, between balls 0.155 to 0.414', () => {
    // √(π/0.4) − 1 = 1.8025.
    expect((collectorOf(PAD)?.opening ?? 0) / 3e-5).toBeCloseTo(1.8025, 3)
    const grain = SINTERED.grain ?? NaN
    expect((collectorOf(SINTERED)?.opening ?? 0) / grain).toBeCloseTo(0.4142, 4)
    const packed = collectorOf({ ...SINTERED, voidage: 0.2595 })
    expect((packed?.opening ?? 0) / grain).toBeCloseTo(0.1547, 3)
    // A foam of 10 pores an inch: cells of 2.54 mm, windows of 1.14; struts 4·0.03/500 thick.
    expect(collectorOf(COARSE)).toMatchObject({
      opening: expect.closeTo(1.143e-3, 6) as unknown,
      diameter: expect.closeTo(2.4e-4, 6) as unknown,
    })
    expect(collectorOf({ ...PAD, form: 'moving' })).toBeNull()
  })
  test('Carman’s cake: voids of 0.4 between grains of 1 mm have 9.88e-10 m²', () => {
    expect(cakePermeability(1e-3, 0.4)).toBeCloseTo(9.877e-10, 13)
  })
  test('classes: half of the logarithm of a class lies above its middle; shares make a whole', () => {
    const [, coarse] = PARTICLE_CLASSES
    expect([
      classShareAbove(coarse, 5e-4),
      classShareAbove(coarse, 1e-4),
      classShareAbove(coarse, 2e-3),
    ]).toEqual([0.5, 1, 0])
    for (const code of ['light', 'normal', 'heavy', 'turtle', 'delicate', null])
      expect(sharesOf({ code }).reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12)
  })
})

/** Dirt that is not accounted for, as a share of what was made. */
const astray = ({ ledger: l }: ClogRun): number =>
  Math.abs(l.made - l.lying - l.inWater - l.held - l.changed - l.rotted - l.serviced) / l.made
const dueOf = (c: ClogCase): number => answersOf(forecast(c)).due?.day ?? Infinity
const every = (days: number, layers: readonly string[] | null, until: number, share = 0.9) =>
  Array.from({ length: Math.floor(until / days) }, (_, i) => ({ day: days * (i + 1), layers, share }))

describe('a bed that fills', () => {
  /** One foam before a sea of even dirt too fine for its openings, and nothing rots: what Bohart and Adams solved. */
  const only = (days: number): ClogCase =>
    clog(
      canister([STRAIN_FIRST[0] as (typeof STRAIN_FIRST)[0]]),
      { water: 900, feed: 1e-3, shares: [0, 0, 0, 0, 1], changeShare: 0.999, changeDays: 0.5 },
      { days, values: { ...VALUES, rots: 0, lies: 0, clears: 0, sticks: 1, floc: 20 } },
    )
  test('in closed form: σ/σ_max = (e^T − 1)/(e^X + e^T − 1) (Bohart and Adams, J. Am. Chem. Soc. 42 (1920) 523)', () => {
    const run = forecast(only(90))
    const [first] = run.days
    const [bed] = run.waterways.layers
    if (!first || !bed?.collector) throw new Error('no bed')
    const velocity = first.flow / bed.area
    const { density, kinematic } = { density: 997.05, kinematic: 8.93e-7 }
    const lambda = filterCoefficient(bed.collector, Math.sqrt(2e-6 * 2e-5), velocity, { ...WATER, viscosity: density * kinematic }) // prettier-ignore
    // All that is made stays until it is changed out: 13.8 changes of water a day.
    const concentration = (1e-3 * 0.25) / ((-Math.log(0.001) / (0.5 * DAY)) * 900)
    const depth = lambda * bed.thickness
    for (const day of [30, 60, 90]) {
      const time = (lambda * velocity * concentration * day * DAY) / (0.97 * 20)
      // Its mean over the depth: ∫ a/(e^X + a) dX = X − ln((e^X + a)/(1 + a)), a = e^T − 1.
      const a = Math.expm1(time)
      const full = (depth - Math.log((Math.exp(depth) + a) / (1 + a))) / depth
      expect((run.days[day]?.layers[0]?.full ?? 0) / full).toBeCloseTo(1, 2)
      expect(full).toBeGreaterThan(0.05)
    }
  })
  test('pieces alone lie on a pad as a cake, and its loss is Carman’s: thickness by hand from the mass', () => {
    const pad = STRAIN_FIRST.filter((l) => l.id === 'pad')
    const tank = { ...tankOf(200, 'normal'), shares: [1, 0, 0, 0, 0], changeShare: 0 }
    const run = forecast(
      clog(canister(pad), tank, { days: 20, values: { ...VALUES, rots: 0, lies: 0, compresses: 0 } }),
    )
    const at = run.days[20]?.layers[0]
    // A quarter of 3 g a day for 20 days: 15 g, less what is still on its way.
    expect(at?.cake).toBeCloseTo(0.015, 3)
    // 45 g dry in a litre of flocs with 0.6 of water between them: 18 g/L of cake on 270 cm²; pieces of 2 mm.
    const thickness = (at?.cake ?? NaN) / (0.027 * 45 * 0.4)
    const cake = (0.6 ** 3 * 2e-3 ** 2) / (180 * 0.4 ** 2)
    const { permeability } = resistanceOf(PAD)
    expect(at?.keeps).toBeCloseTo(1 / (1 + (thickness * permeability) / (cake * 0.02)), 6)
    expect(at?.keeps).toBeLessThan(0.999)
  })
  test('what was in it before makes it as dense as the path says: (1 − σ/σ_max)³', () => {
    const layers = STRAIN_FIRST.map((l) => ({ ...l, fouled: l.id === 'pad' ? 0.6 : 0.2 }))
    const path = canister(layers)
    const run = forecast(clog(path, { ...tankOf(200, 'normal'), feed: 0 }, { days: 1 }))
    expect(run.days[0]?.flow).toBeCloseTo(outcomeOf(path, NORMAL, true).flow, 10)
    expect(run.days[0]?.layers[2]?.keeps).toBeCloseTo(0.064, 6)
  })
  test('without feed nothing gathers, and what is there rots at its rate', () => {
    const path = canister(STRAIN_FIRST.map((l) => ({ ...l, fouled: l.id === 'pad' ? 0.5 : 0 })))
    const run = forecast(clog(path, { ...tankOf(200, 'normal'), feed: 0 }, { days: 100 }))
    const held = (day: number): number => run.days[day]?.layers[2]?.held ?? 0
    expect(held(100) / held(0)).toBeCloseTo(Math.exp(-CONSTANTS.rots.value * 100), 6)
  })
  test.each([
    ['canister, normal', clog(canister(STRAIN_FIRST), tankOf(200, 'normal'), { days: 90 })],
    [
      'crowded, with services',
      clog(canister(STRAIN_FIRST), tankOf(300, 'heavy'), { days: 60, services: every(30, null, 60, 0.8) }),
    ],
    [
      'a intake sponge',
      clog(canister(STRAIN_FIRST), tankOf(200, 'light'), {
        days: 60,
        intake: [sponge(FINE_FOAM, 0.01, 0.012)],
      }),
    ],
    ['over a weir', clog(hangOnBack(), tankOf(60, 'normal'), { days: 60 })],
  ] as const)('the books close and a hundred times finer step changes nothing: %s', (_, c) => {
    const run = forecast(c)
    expect(astray(run)).toBeLessThan(1e-3)
    expect(astray(run)).toBeLessThan(1e-9)
    const fine = forecast({ ...c, step: 0.01 })
    run.days.forEach((d, i) => {
      expect(Math.abs(d.flow / (fine.days[i]?.flow ?? NaN) - 1)).toBeLessThan(0.005)
      d.layers.forEach((l, j) => {
        const held = fine.days[i]?.layers[j]?.held ?? NaN
        expect(Math.abs(l.held - held)).toBeLessThan(0.005 * held + 1e-6)
      })
    })
  })
  test('a service takes out its share of its layers, and no more', () => {
    const c = clog(canister(STRAIN_FIRST), tankOf(200, 'normal'), { days: 61, services: [{ day: 60, layers: ['pad'], share: 0.9 }] }) // prettier-ignore
    const run = forecast(c)
    const [before, after] = [run.found.get(60), run.days[60]]
    expect((after?.layers[2]?.held ?? 0) / (before?.layers[2]?.held ?? 0)).toBeCloseTo(0.1, 9)
    expect(after?.layers[1]?.held).toBe(before?.layers[1]?.held)
    expect(after?.flow).toBeGreaterThan(before?.flow ?? Infinity)
    expect(leftOn(run, 60)).toBeCloseTo((before?.flow ?? 0) / (run.days[0]?.flow ?? 1), 12)
    expect(() => forecast({ ...c, services: [{ day: 3, layers: ['gone'], share: 1 }] })).toThrow(
      /services\[0\]\.layers/,
    )
    expect(() => forecast({ ...c, days: 0 })).toThrow(/days/)
    expect(() => forecast({ ...c, tank: { ...c.tank, feed: -1 } })).toThrow(/tank\.feed/)
  })
  test('water beside a layer is not strained: with a gap of 3 mm the pad keeps flowing and the media get the dirt', () => {
    // Without foams ahead of it, on which a cake would lie in both.
    const padded = without('coarse', 'medium')
    const gapped = padded.map((l) => (l.id === 'pad' ? { ...l, gap: 0.003 } : l))
    const [tight, loose] = [padded, gapped].map((l) => forecast(clog(canister(l), tankOf(300, 'heavy'))))
    expect(tight?.days[28]?.flow).toBeLessThan(0.6 * (tight?.days[0]?.flow ?? 0))
    expect(loose?.days[28]?.flow).toBeGreaterThan(0.75 * (loose?.days[0]?.flow ?? 0))
    const toMedia = [tight, loose].map((r) => (r ? answersOf(r).toMedia : NaN))
    expect(toMedia[1]).toBeGreaterThan(5 * (toMedia[0] ?? 0))
  })
  test('a blinding cartridge spills over: the flow stays, and what is strained falls to half', () => {
    const run = forecast(clog(hangOnBack(), tankOf(60, 'normal')))
    const a = answersOf(run)
    expect(run.days[180]?.flow).toBeGreaterThan(0.95 * (run.days[0]?.flow ?? 0))
    expect([a.toFall, a.due?.why]).toEqual([null, 'past'])
    expect(run.days[180]?.unstrained).toBeGreaterThan(0.8)
    expect(run.days[180]?.haze).toBeGreaterThan(5 * (run.days[0]?.haze ?? 0))
  })
  test('the line that is drawn meets its mark on the day that is named, at whichever of the two is first', () => {
    const cases = [hangOnBack(), canister(STRAIN_FIRST), canister(without('pad', 'medium'))].map((c) => clog(c, tankOf(100, 'heavy'), { days: 365 })) // prettier-ignore
    const whys = cases.map((c) => {
      const { days, ...ran } = forecast(c)
      const { due, dueAt, catchesAt } = answersOf({ days, ...ran })
      if (!due) return null
      const [low, t] = [Math.floor(due.day), due.day % 1]
      const share = (of: 'flow' | 'catches') => ((1 - t) * (days[low]?.[of] ?? 0) + t * (days[low + 1]?.[of] ?? 0)) / (days[0]?.[of] ?? 1) // prettier-ignore
      expect(due.why === 'flow' ? share('flow') / dueAt : share('catches') / catchesAt).toBeCloseTo(1, 9)
      // Nothing was past its mark a day before.
      expect([(days[low]?.flow ?? 0) >= dueAt * (days[0]?.flow ?? 1), (days[low]?.catches ?? 0) >= catchesAt * (days[0]?.catches ?? 1)]).toEqual([true, true]) // prettier-ignore
      return due.why
    })
    expect(whys.filter(Boolean).length).toBeGreaterThan(1)
  })
})

/** Check values that are common practice without a published source: the constants were set so that they are met. */
describe('as is seen in the trade (common practice, no source)', () => {
  const weekly = every(7, [intakeId(0)], 365)
  const pre = [sponge(MEDIUM, 0.03, 0.02)]
  test.each([
    ['alone, normal', canister([layer('p', 'a', PAD, 20)]), 'normal'],
    ['behind two foams, crowded', canister(STRAIN_FIRST), 'heavy'],
  ] as const)('a fine pad lasts one to three months: %s', (_, path, code) => {
    const due = dueOf(clog(path, tankOf(200, code), { days: 365 }))
    expect(due).toBeGreaterThan(30)
    expect(due).toBeLessThan(92)
  })
  test('a pre-filter rinsed weekly pays: the body opens a few times a year', () => {
    const c = clog(canister(STRAIN_FIRST), tankOf(300, 'heavy'), { days: 365 })
    expect(365 / dueOf(c)).toBeGreaterThan(8)
    expect(365 / dueOf({ ...c, intake: pre, services: weekly })).toBeLessThan(4)
  })
  test('behind a coarse intake sponge, without a fine pad, 9 months and more; lightly stocked six months without either', () => {
    const foams = canister(without('pad'))
    const behind = clog(foams, tankOf(200, 'normal'), { days: 365, intake: [sponge(COARSE, 0.05, 0.03)] })
    expect(dueOf(behind)).toBeGreaterThan(270)
    expect(dueOf(clog(foams, tankOf(200, 'light'), { days: 365 }))).toBeGreaterThan(180)
  })
  test('a hang-on-back is due in a month, give or take half of it', () => {
    const due = dueOf(clog(hangOnBack(), tankOf(60, 'normal')))
    expect(due).toBeGreaterThan(15)
    expect(due).toBeLessThan(60)
  })
  test('a thin fine sponge blinds sooner than a thick coarse one', () => {
    const [thin, thick] = [sponge(FINE_FOAM, 0.01, 0.012), sponge(COARSE, 0.05, 0.03)].map((s) => forecast(clog(canister(without('pad')), tankOf(200, 'normal'), { intake: [s] }))) // prettier-ignore
    expect(thin?.days[180]?.layers[0]?.keeps).toBeLessThan(0.2 * (thick?.days[180]?.layers[0]?.keeps ?? 0))
  })
})

describe('schools, with a pre-filter and without', () => {
  const a = { path: canister(without('mid')), intake: [] }
  const order = (school: Parameters<typeof bySchool>[1]): string[] => {
    const { path, intake } = bySchool(a, school)
    return [...intake.map((i) => `ahead: ${i.medium.job}`), ...path.fill.layers.map((l) => path.media.find((m) => m.id === l.mediumId)?.job ?? '')] // prettier-ignore
  }
  test('the same media in each order, litre for litre', () => {
    expect(order('strain-first')).toEqual([
      'coarse',
      'medium',
      'fine',
      'biological',
      'biological',
      'biological',
    ])
    expect(order('polish-last').at(-1)).toBe('fine')
    expect(order('prefilter-low').slice(0, 4)).toEqual(['ahead: coarse', 'ahead: medium', 'ahead: fine', 'biological']) // prettier-ignore
    const litres = (school: Parameters<typeof bySchool>[1]): number => {
      const { path, intake } = bySchool(a, school)
      const inside = outcomeOf(path, NORMAL, true).layers.reduce((sum, l) => sum + l.placed.volume, 0)
      return inside + intake.reduce((sum, i) => sum + i.area * i.thickness, 0)
    }
    const [x, y, z] = (['strain-first', 'polish-last', 'prefilter-low'] as const).map(litres)
    expect([y, z]).toEqual([expect.closeTo(x ?? 0, 9), expect.closeTo(x ?? 0, 9)])
  })
  test('they differ by the dirt that comes to the media', () => {
    const to = (school: Parameters<typeof bySchool>[1]): number =>
      answersOf(forecast(clog(bySchool(a, school).path, tankOf(200, 'normal'), { intake: bySchool(a, school).intake }))).toMedia // prettier-ignore
    expect(to('polish-last')).toBeGreaterThan(20 * to('strain-first'))
    expect(to('polish-last')).toBeGreaterThan(0.005)
  })
  test('minutes a year by hand: opened each 73 days for 10 min, and 52 rinses of 3', () => {
    const told = {
      ...answersOf(forecast(clog(a.path, tankOf(100, 'light'), { days: 2 }))),
      due: { day: 73, why: 'flow' as const },
    }
    expect(yearMinutes(told, 10, true)?.value).toBeCloseTo(50 + (365 / 7) * 3, 6)
    expect(yearMinutes(told, 10, false)?.value).toBeCloseTo(50, 6)
    expect(yearMinutes({ ...told, due: null }, 10, false)?.value).toBe(10)
    // One that would go two years is opened once in each all the same.
    expect(yearMinutes({ ...told, due: { ...told.due, day: 730 } as never }, 10, false)?.value).toBe(10)
    expect(yearMinutes(told, null, true)).toBeNull()
  })
  test('with a intake sponge where there is none; without it again', () => {
    expect([hasPrefilter(a), hasPrefilter(withPrefilter(a))]).toEqual([false, true])
    expect(withPrefilter(a).intake[0]?.medium.name).toMatch(/Coarse foam/)
    expect(withoutPrefilter(withPrefilter(a)).intake).toEqual([])
  })
})

test('dirt takes surface from the films, and the balance says so: more ammonia the dirtier, as the surface left', () => {
  const path = canister(without('pad', 'coarse', 'medium'))
  const run = reportOf(forecast(clog(path, tankOf(200, 'normal'), { days: 180 })))
  const outcome = outcomeOf(path, NORMAL, true)
  const tank = quickTank(0.3, classOf('light'))
  const left = surfaceLeft(outcome, run, 180)?.value ?? NaN
  // Most of what is fine settles in the tank itself.
  expect(left).toBeGreaterThan(0.8)
  expect(left).toBeLessThan(0.98)
  const area = (day: number): number => filmsOn(outcome, run, day).layers.reduce((sum, l) => sum + l.area, 0)
  // Litres times usable surface, worked by hand for the clean fill: 175 mm of 270 cm².
  expect(area(0) / (0.175 * 0.18 * 0.15 * (SINTERED.effectiveSurface ?? NaN))).toBeCloseTo(1, 3)
  expect(area(180) / area(0)).toBeCloseTo(left, 12)
  const reserve = (day: number): number => balanceOn(tank, outcome, run, day)?.balance.reserve ?? NaN
  // Surface and current bring in turn what the films take: less is lost than both together.
  const current = (run.days[180]?.flow ?? NaN) / (run.days[0]?.flow ?? NaN)
  expect(reserve(180) / reserve(0)).toBeGreaterThan(left * current)
  expect(reserve(180) / reserve(0)).toBeLessThan(0.99)
  expect(Object.keys(testedLines(balanceOn(tank, outcome, run, 90)))).toEqual([
    'ammonia',
    'nitrite',
    'nitrate',
  ])
  expect(testedLines(null)).toEqual({})
})

describe('what is learnt from visits', () => {
  test('posterior of a straight line with normal scatter: the conjugate closed form', () => {
    // Prior N(0, 0.4²); r = 0.8 − 0.3 x seen as 0.71 ± 0.05 and 0.65 ± 0.1. Precision 1/0.16 + 0.09/0.0025 + 0.09/0.01.
    const p = posterior({ mean: 0, sd: 0.4 }, (x) => [0.8 - 0.3 * x, 0.8 - 0.3 * x], [
      { value: 0.71, uncertainty: 0.05 },
      { value: 0.65, uncertainty: 0.1 },
    ]) // prettier-ignore
    const precision = 6.25 + 36 + 9
    expect(p.mean).toBeCloseTo((0.3 * 36 + 0.5 * 9) / precision, 4)
    expect(p.sd).toBeCloseTo(1 / Math.sqrt(precision), 4)
    expect(p.high - p.mean).toBeCloseTo(1.95996 / Math.sqrt(precision), 3)
    expect(p.mean - p.low).toBeCloseTo(1.95996 / Math.sqrt(precision), 3)
    expect(() => posterior({ mean: 0, sd: 1 }, () => [], [{ value: 1, uncertainty: 1 }])).toThrow(
      /needs a prediction/,
    )
  })
  test('a look after the days of the forecast teaches as it does in a longer one', () => {
    const c = clog(canister(STRAIN_FIRST), tankOf(200, 'normal'), { days: 40 })
    const feed = classOf('normal').marks.feedPerVolume
    const look = [{ day: 60, left: 0.7, uncertainty: 0.02 }]
    const [short, long] = [c, { ...c, days: 80 }].map((x) => learn(x, feed, look).posterior.mean)
    expect(short).toBeCloseTo(long ?? NaN, 9)
  })
  test('the same look four times over is no surer of the model than once', () => {
    const c = clog(canister(STRAIN_FIRST), tankOf(200, 'normal'), { days: 60 })
    const feed = classOf('normal').marks.feedPerVolume
    const look = { day: 45, left: 0.8, uncertainty: 1e-4 }
    const [once, often] = [[look], [look, look, look, look]].map((seen) => learn(c, feed, seen).posterior)
    expect((often?.sd ?? 0) / (once?.sd ?? 1)).toBeCloseTo(1, 2)
    expect(once?.sd).toBeLessThan(0.5 * priorOfPace(feed))
  })
  test('nothing seen: the prior’s own interval; a filter that fouls twice as fast is found out', () => {
    const c = clog(canister(STRAIN_FIRST), tankOf(200, 'normal'), { days: 200 })
    const feed = classOf('normal').marks.feedPerVolume
    const none = learn(c, feed, [])
    expect(none.posterior.mean).toBeCloseTo(0, 6)
    expect(none.posterior.sd / priorOfPace(feed)).toBeCloseTo(1, 2)
    const { soonest, middle, latest } = none.due
    expect((soonest ?? 0) < (middle ?? 0) && (latest ?? Infinity) > (middle ?? 0)).toBe(true)
    const twice = forecast({ ...c, values: { ...VALUES, solidsOfFeed: 2 * VALUES.solidsOfFeed } })
    const seen = [20, 35].map((day) => ({ day, left: leftOn(twice, day), uncertainty: 0.02 }))
    const learnt = learn(c, feed, seen)
    expect(learnt.posterior.mean).toBeGreaterThan(0.35)
    expect(learnt.posterior.sd).toBeLessThan(0.65 * none.posterior.sd)
    expect(learnt.due.middle ?? Infinity).toBeLessThan(0.75 * (middle ?? 0))
    expect(dueMiddle(c, feed, seen)).toBe(learnt.due.middle)
    // Due on the first day whose flow has fallen to its share, not the day before or after.
    const at = (day: number): number => leftOn(none.alone, day)
    const share = at(middle ?? 0)
    expect(at((middle ?? 0) - 1)).toBeGreaterThan(share)
    expect(none.alone.days.findIndex((d) => d.flow / (none.alone.days[0]?.flow ?? 1) <= share + 1e-12)).toBe(
      Math.ceil(middle ?? 0),
    )
    // A look that says nothing leaves the prior as it was: mean and standard deviation.
    const blind = learn(c, feed, [{ day: 30, left: 0.9, uncertainty: 1e3 }]).posterior
    expect(blind.mean).toBeCloseTo(0, 3)
    expect(blind.sd / priorOfPace(feed)).toBeCloseTo(1, 2)
    expect(dueMiddle(c, feed, [])).toBe(middle)
  })
})

test('a tank is dirtied by the feed that was noted, else by its class’s for its litres', () => {
  const fed = dirtyTank({ ...TANK, feed: 2e-8 })
  expect(fed.feed).toBe(2e-8)
  // 15 mg for each litre a day, 100 L.
  expect(dirtyTank(TANK).feed * 86400e6).toBeCloseTo(1500, 6)
  expect([feedDoubt({ ...TANK, feed: 2e-8 }).band, feedDoubt(TANK).band]).toEqual([0.15, 0.4])
})

test('a filter that nothing flows through to begin with has lost nothing, and teaches nothing', () => {
  const c = canister(STRAIN_FIRST)
  const blocked = { ...c, hookup: c.hookup && { ...c.hookup, outletAboveWater: 3 } }
  const run = forecast(clog(blocked, tankOf(200, 'normal'), { days: 5 }))
  expect(run.days.map((d) => d.flow)).toEqual([0, 0, 0, 0, 0, 0])
  expect([leftOn(run, 0), leftOn(run, 2.5), leftOn(run, 5)]).toEqual([1, 1, 1])
})
