import fc from 'fast-check'
import type { Figure } from '../figures'
import {
  CAPACITY_SCHOOLS,
  capacityFigure,
  capacityInput,
  capacityOf,
  carriedBy,
  floorArea,
  keepingOfClass,
  volumeBySchool,
  SCHOOLS,
  schoolFigure,
  segmentArea,
  STOCK_CLASSES,
  stockKey,
  supportedRange,
  tankFigures,
  tankVolume,
  turnover,
  type SchoolSays,
  type StockClass,
} from '.'

test('a 100 × 40 × 50 cm box is 200 L; 45 cm of water over 5 cm of gravel leaves 168 L (by hand)', () => {
  const box = { shape: 'box', length: 1, width: 0.4, height: 0.5 } as const
  expect(tankVolume(box).gross).toBeCloseTo(0.2, 12)
  // 0.4 m² × 0.45 = 180 L; gravel 0.4 × 0.05 × 0.6 = 12 L.
  expect(tankVolume(box, { waterLevel: 0.45, substrateDepth: 0.05 }).water * 1000).toBeCloseTo(168, 9)
  expect(
    tankVolume(box, { waterLevel: 0.45, substrateDepth: 0.05, decorVolume: 0.008 }).water * 1000,
  ).toBeCloseTo(160, 9)
})

test('shapes against plane mensuration (handbook formulas, exact)', () => {
  expect(floorArea({ shape: 'cylinder', diameter: 0.5, height: 1 })).toBeCloseTo(Math.PI / 16, 12)
  // A segment with rise = chord/2 is a half disc.
  expect(segmentArea(1, 0.5)).toBeCloseTo(Math.PI / 8, 12)
  // Chord 80, rise 10 cm: R = 85 cm, θ = 2 asin(40/85) = 0.97991 rad; area (0.85²)(θ − sin θ)/2 = 0.053999 m².
  expect(segmentArea(0.8, 0.1)).toBeCloseTo(0.054, 4)
  expect(floorArea({ shape: 'corner', side: 0.6, endPanel: 0, front: 'curved', height: 1 })).toBeCloseTo(
    Math.PI * 0.09,
    12,
  )
  expect(floorArea({ shape: 'corner', side: 0.6, endPanel: 0, front: 'flat', height: 1 })).toBeCloseTo(
    0.18,
    12,
  )
  expect(floorArea({ shape: 'corner', side: 0.6, endPanel: 0.6, front: 'flat', height: 1 })).toBeCloseTo(
    0.36,
    12,
  )
})

test('a bow never holds less than its box, whatever its size', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.2, max: 2, noNaN: true }),
      fc.double({ min: 0, max: 0.5, noNaN: true }),
      (length, bow) => {
        const area = floorArea({
          shape: 'bow-front',
          length,
          width: 0.3,
          bowWidth: 0.3 + bow * length,
          height: 0.5,
        })
        expect(area).toBeGreaterThanOrEqual(length * 0.3)
        expect(area).toBeLessThanOrEqual(length * (0.3 + bow * length) + 1e-12)
      },
    ),
  )
})

test.each([
  ['substrateDepth', { waterLevel: 0.05, substrateDepth: 0.08 }],
  ['waterLevel', { waterLevel: 0.6 }],
  ['decorVolume', { decorVolume: 0.5 }],
])('a tank smaller than its %s is refused by name', (field, fill) => {
  expect(() => tankVolume({ shape: 'box', length: 1, width: 0.4, height: 0.5 }, fill)).toThrow(field)
})

/** A class by its code, and the same in a house that lets the least turnover bind. */
const classOf = (code: string): StockClass => {
  const found = STOCK_CLASSES.find((s) => s.code === code)
  if (!found) throw new Error(code)
  return found
}
const [light, normal] = [classOf('light'), classOf('normal')]
const withMinima = (s: StockClass): StockClass => ({
  ...s,
  rule: { order: ['media-mass', 'minima', 'oversizing'], bind: ['minima'], turnoverFloor: 1 },
})
const lph = (q: number): number => q / 3.6e6
const litres = (v: number | null | undefined): number => (v ?? NaN) * 1000

describe('the tanks a model carries', () => {
  const flow = { value: lph(600) }
  const of = (mass: number | null = null) => ({
    flow,
    mass: mass === null ? null : { value: mass },
  })

  test.each([
    ['normal', 5.2, 520],
    ['heavy', 5.2, 260],
    ['normal', 2.4, 240],
    ['heavy', 2.4, 120],
    ['light', 5.2, 780],
  ])('common practice, no source: by mass %s, %s kg carries about %s L', (code, mass, volume) => {
    expect(litres(capacityOf(of(mass), classOf(code)).volume)).toBeCloseTo(volume, 6)
  })
  test('a label of 1000 L at 2000 L/h is two turnovers an hour, and 84 × 33 × 25 in hold 300 US gal', () => {
    expect(turnover(lph(2000), 1)).toBeCloseTo(2, 12)
    const inch = 0.0254
    const { gross } = tankVolume({ shape: 'box', length: 84 * inch, width: 33 * inch, height: 25 * inch })
    expect(gross / 3.785411784e-3).toBeCloseTo(300, 0)
    // 100 US gal of turtles: a filter rated for 300 to 400.
    const rated = capacityOf({ ...of(), claimedMax: 0.35 }, classOf('turtle'))
    expect(litres(volumeBySchool(rated, 'oversizing'))).toBeCloseTo(100, 9)
  })
  test('mass leads, and the others stand beside it', () => {
    const c = capacityOf({ ...of(1.2), claimedMax: 0.3 }, normal)
    expect([litres(c.volume), c.leading, c.binding]).toEqual([
      expect.closeTo(120, 9),
      'media-mass',
      'media-mass',
    ])
    expect(c.schools.map((s) => [s.school, s.role])).toEqual([
      ['media-mass', 'leads'],
      ['balance', 'silent'],
      ['turnover', 'beside'],
      ['oversizing', 'beside'],
    ])
    expect(litres(volumeBySchool(c, 'oversizing'))).toBeCloseTo(200, 9)
    expect(litres(volumeBySchool(c, 'turnover'))).toBeCloseTo(600, 9)
    expect(volumeBySchool(c, 'minima')).toBeNull()
    expect(c.schools[1]?.why).toBe('no media setup recorded')
  })
  test('the balance carries its own doubt, and that of the surface: whichever limit comes first', () => {
    const films = { flow: lph(300), layers: [{ area: 1, flow: lph(300) }] }
    const rule = { order: ['balance'], bind: [], turnoverFloor: 1 } as const
    const at = (mass: { value: number; uncertainty?: number }) =>
      capacityOf({ flow: { value: lph(300) }, mass, films }, { ...normal, rule })
    const c = at({ value: 0.5 })
    // At 25 °C by hand (see biology): about 180 L for a square metre, less what one pass leaves; nothing stirs: oxygen.
    expect(c.volume).toBeCloseTo(
      carriedBy({ flow: { value: lph(300) }, mass: null, films }, normal)?.volume ?? NaN,
      12,
    )
    expect(c.schools[0]?.limit).toBe('oxygen')
    // Of what goes with (exchange ÷ use)³ under a still surface, 0.247 and 0.198 of its logarithm make about 0.95: from a
    // sixth to nearly seven times; drawn apart in the test of coverage.
    expect(c.interval[0] / c.volume).toBeLessThan(0.25)
    expect(c.interval[0]).toBeLessThan(c.volume)
    expect(c.interval[1]).toBeGreaterThan(c.volume)
    // What is known of the media worse widens it at the low end.
    const doubted = at({ value: 0.5, uncertainty: 0.4 })
    expect(doubted.interval[0]).toBeLessThan(c.interval[0])
  })
  test('turtles are rated against rated: oversizing leads for them, mass stands beside', () => {
    const c = capacityOf({ ...of(1), claimedMax: 0.35 }, classOf('turtle'))
    expect([c.leading, litres(c.volume)]).toEqual(['oversizing', expect.closeTo(100, 9)])
    expect(c.schools.find((s) => s.school === 'media-mass')?.role).toBe('beside')
    // Without a claim, or where the house has it silent, the house’s own order holds.
    expect(capacityOf(of(1), classOf('turtle')).leading).toBe('media-mass')
    const silent = { order: ['media-mass'], bind: [], turnoverFloor: 1 } as const
    expect(capacityOf({ ...of(1), claimedMax: 0.35 }, { ...classOf('turtle'), rule: silent }).leading).toBe('media-mass') // prettier-ignore
  })
  test('with neither media nor fill its turnover is all there is; without an order likewise', () => {
    const c = capacityOf({ flow: { value: lph(600) }, mass: null }, normal)
    expect([c.leading, litres(c.volume)]).toEqual(['turnover', expect.closeTo(600, 9)])
    const bare = { ...normal, rule: { order: ['media-mass'], bind: [], turnoverFloor: 2 } as const }
    const d = capacityOf(of(), bare)
    expect([d.leading, litres(d.volume), d.schools.map((s) => s.school)]).toEqual([
      'turnover',
      expect.closeTo(300, 9),
      ['media-mass', 'turnover'],
    ])
  })
  test('a school that a house lets bind holds the top down; left out of the order it never leads', () => {
    // 600 L/h at 4 an hour is 150 L; 2 kg at 100 L/kg are 200 L, 1.2 kg 120 L.
    const at = (mass: number) => capacityOf(of(mass), withMinima(normal))
    expect([litres(at(2).volume), at(2).binding, at(2).leading]).toEqual([
      expect.closeTo(150, 9),
      'minima',
      'media-mass',
    ])
    expect([litres(at(1.2).volume), at(1.2).binding]).toEqual([expect.closeTo(120, 9), 'media-mass'])
    const beside = { ...normal, rule: { order: ['media-mass'], bind: ['minima'], turnoverFloor: 1 } as const }
    expect(capacityOf(of(2), beside)).toMatchObject({ leading: 'media-mass', binding: 'minima' })
    expect(capacityOf(of(), beside).leading).toBe('turnover')
  })
  test('the low end is where half of the length is calm, by the gentlest outlet (by hand)', () => {
    // 600 L/h from 16 mm: u₀ = 0.8289 m/s. Calm at 0.15 m/s from x = 6 · 0.016 · 0.8289/0.15 = 0.5305 m on, so a tank
    // 1.061 m long: (1.061)³/4 = 0.2987 m³.
    const nozzle = { kind: 'nozzle', aim: 'along', depth: 0, diameter: 0.016, holes: 1, spacing: 0.02, width: 0.1 } as const // prettier-ignore
    const wide = { ...nozzle, diameter: 0.032 }
    const at = (more: object, mass = 2) => supportedRange({ ...of(mass), ...more }, light)
    expect(litres(at({ outlet: nozzle }).min)).toBeCloseTo(298.7, 0)
    // Twice the bore: half the distance, an eighth of the litres; it is the gentlest of the two that come with it.
    expect(litres(at({ outlet: nozzle, outlets: [nozzle, wide] }).min)).toBeCloseTo(298.7 / 8, 0)
    expect(at({}).min).toBe(0)
    expect([at({ outlet: nozzle }, 2).lowAboveTop, at({ outlet: nozzle }, 1).lowAboveTop]).toEqual([
      false,
      true,
    ])
    // Jet ± 30 %, current ± 40 %, flow ± 6 %: x ± 50.36 %; litres with its cube.
    const r = at({ outlet: nozzle, flow: { value: lph(600), uncertainty: lph(36) } })
    expect(r.minInterval.map((v) => v / r.min)).toEqual([
      expect.closeTo(0.4964 ** 3, 3),
      expect.closeTo(1.5036 ** 3, 2),
    ])
    expect(at({ outlet: nozzle, flow: { value: lph(600), uncertainty: lph(900) } }).minInterval[0]).toBe(0)
    expect(at({ outlet: nozzle, flow: { value: 0 } }).minInterval).toEqual([0, 0])
  })
  test('the interval carries what went in and the rule, in quadrature (by hand)', () => {
    // Flow ± 6 %, rule ± 15 %: ± 16.155 %; mass ± 10 %, rule ± 20 %: ± 22.361 %.
    const sure = capacityOf({ ...of(), flow: { ...flow, uncertainty: 0.06 * flow.value } }, { ...normal, rule: { order: ['minima'], bind: [], turnoverFloor: 1 } }) // prettier-ignore
    expect(sure.interval[1] / sure.volume).toBeCloseTo(1.16155, 4)
    const heavy = capacityOf({ ...of(), mass: { value: 1, uncertainty: 0.1 } }, normal)
    expect([heavy.binding, heavy.interval[0] / heavy.volume]).toEqual([
      'media-mass',
      expect.closeTo(0.77639, 4),
    ])
    expect(() => capacityOf({ ...of(), flow: { value: -1 } }, normal)).toThrow('flow')
    expect(() => capacityOf(of(-1), normal)).toThrow('mass')
    expect(capacityOf(of(5), { ...normal, marks: { ...normal.marks, litresPerKilogram: { band: 3, source: '' } } }).interval[0]).toBe(0) // prettier-ignore
  })
  test('what nothing comes through carries nothing, whatever is in it', () => {
    expect(capacityOf({ ...of(5), flow: { value: 0 } }, normal)).toMatchObject({
      volume: 0,
      interval: [0, 0],
      binding: 'turnover',
    })
  })
  test('classes say what they are called by', () => {
    expect(STOCK_CLASSES.map(stockKey)).toEqual(STOCK_CLASSES.map((s) => s.code))
    expect(stockKey({ id: 'x', code: null })).toBe('x')
    expect(new Set(STOCK_CLASSES.map((s) => s.id)).size).toBe(STOCK_CLASSES.length)
    // A kilogram under 100 L fed 1.5 g a day (common practice): 15 mg for each litre.
    expect(normal.feedPerVolume * 86400).toBeCloseTo(0.015, 12)
  })
  test('a class is kept at its own water, changed by 30 % a week, stirred by what the filter lets out', () => {
    const outlet = { kind: 'nozzle', aim: 'along', depth: 0, diameter: 0.013, holes: 1, spacing: 0.02, width: 0.1 } as const // prettier-ignore
    const marine = keepingOfClass(classOf('marine'), { flow, outlet })
    expect(marine).toMatchObject({ salinity: 35, pH: 8.2, changeShare: 0.3, changeDays: 7, alkalinity: 0.1 })
    // 128 L stand 40 cm high and wide: 2 √(Q u₀)/0.4 = 0.0723 m/s.
    expect(marine.stirred(0.128)).toBeCloseTo(0.0723, 4)
    expect(keepingOfClass(normal, { flow, outlet: null }).stirred(0.1)).toBe(0)
    expect(keepingOfClass(normal, { flow: { value: 0 }, outlet }).stirred(0.1)).toBe(0)
  })
})

describe('limits, their ends and their workings', () => {
  const figure = (id: string, value: number, uncertainty?: number): Figure => ({ id, label: id, value, dimension: 'ratio', provenance: 'computed', ...(uncertainty !== undefined && { uncertainty }) }) // prettier-ignore
  const shownOf = (mass: number | null, meets = 1) => ({
    fill: { id: 'f', name: 'As shipped' },
    flow: figure('flow', lph(600)),
    meets: figure('meets', meets),
    mass: mass === null ? null : figure('mass', mass),
    foam: 0,
    films: mass === null ? null : { flow: lph(600), layers: [{ area: 2.29 * mass, flow: lph(600) * meets }] },
    outlet: null,
  })
  test('where two bind nearly alike, the top’s interval is that of the smaller at either end', () => {
    // Mass 1.4 kg: 140 ± 28 L; turnover 150 ± 22.5 L: from 112 to 168 L.
    const c = capacityOf({ flow: { value: lph(600) }, mass: { value: 1.4 } }, withMinima(normal))
    expect(c.interval.map((v) => v * 1000)).toEqual([expect.closeTo(112, 6), expect.closeTo(168, 6)])
    const d = capacityOf({ flow: { value: lph(600) }, mass: { value: 1.5 } }, withMinima(normal))
    expect(d.interval[1] * 1000).toBeCloseTo(172.5, 6)
    expect(d.interval[0] * 1000).toBeCloseTo(120, 6)
    // What is shown beside 150 L is the wider side, 30 L down, not the mean of both sides.
    const shown = capacityFigure(shownOf(1.5), withMinima(normal))
    expect((shown.uncertainty ?? 0) * 1000).toBeCloseTo(30, 6)
    // Both halves are there for whoever shows them.
    expect(shown.interval?.map((v) => v * 1000)).toEqual([expect.closeTo(120, 6), expect.closeTo(172.5, 6)])
  })
  test('the working of a capacity, worked again, gives it back; without media on record it has none in it', () => {
    const f = capacityFigure(shownOf(1, 0.8), normal)
    expect(f).toMatchObject({
      id: 'carries-normal-f',
      label: 'Supports (normal stocking)',
      provenance: 'rule',
    })
    expect(f.value * 1000).toBeCloseTo(100, 9)
    expect((f.uncertainty ?? 0) * 1000).toBeCloseTo(20, 0)
    expect(f.conditions).toEqual(['As shipped', 'by media weight, first in the house rules', 'tank litres'])
    expect(f.working?.map((w) => [w.symbol, w.value])).toEqual([['m', 1], ['L/kg', 100]]) // prettier-ignore
    const byFlow = capacityFigure(shownOf(null, 0.8), normal)
    expect(byFlow.conditions?.[1]).toBe('by minimum circulation, first in the house rules')
    expect(byFlow.working?.map((w) => w.symbol)).toEqual(['Q', 'floor'])
    const bound = capacityFigure(shownOf(2), withMinima(normal))
    expect(bound.conditions?.[1]).toBe('limited by recommended turnover before media weight')
  })
  test('every school shows the working it came from', () => {
    const of = shownOf(1, 0.8)
    const rule = { order: CAPACITY_SCHOOLS, bind: [], turnoverFloor: 1.5 } as const
    const c = capacityOf(capacityInput(of, 0.3), { ...normal, rule })
    for (const says of c.schools) {
      const f = schoolFigure(says, of, { ...normal, rule }, 0.3)
      const put = (symbol: string): number => f?.working?.find((w) => w.symbol === symbol)?.value ?? NaN
      const again = {
        turnover: (put('Q') * 3600) / put('floor'),
        minima: (put('Q') * 3600) / put('n'),
        'media-mass': (put('m') * put('L/kg')) / 1000,
        oversizing: put('claim') / put('factor'),
        // Nothing stirs: oxygen binds, and is worked out apart in the biology's own tests.
        balance: says.volume ?? NaN,
      }[says.school]
      expect([says.school, f?.value]).toEqual([says.school, expect.closeTo(again, 9)])
      expect(f?.provenance).toBe(says.school === 'balance' ? 'computed' : 'rule')
      expect(f?.label).toBe(`Largest tank by ${SCHOOLS[says.school].words}, normal`)
    }
    expect(schoolFigure({ school: 'balance', volume: null, interval: null, role: 'silent', why: '' }, of, normal, null)).toBeNull() // prettier-ignore
    const balance = schoolFigure(c.schools[1] as SchoolSays, of, normal, null)
    expect(balance?.working?.find((w) => w.symbol === 'A')?.value).toBeCloseTo(2.29, 12)
    // 1859 · 1.05^−2 at 25 °C.
    expect(balance?.working?.find((w) => w.symbol === 'r_max')?.value).toBeCloseTo(0.65 * 1686.2, 1)
  })
  test('a tank’s volumes show the sum they are: signs, floor, level, substrate and what stands in it', () => {
    const box = { shape: 'box', length: 1, width: 0.4, height: 0.5 } as const
    const fill = { waterLevel: 0.45, substrateDepth: 0.05, decorVolume: 0.008, substratePorosity: 0.35 }
    const f = tankFigures(tankVolume(box, fill), 0.5, fill)
    const put = (x: Figure): (readonly [string, number])[] =>
      (x.working ?? []).map((w) => [w.symbol, w.value])
    expect(put(f.water)).toEqual([['A', 0.4], ['level', 0.45], ['depth', 0.05], ['porosity', 0.35], ['décor', 0.008]]) // prettier-ignore
    // 0.4 · 0.45 − 0.4 · 0.05 · 0.65 − 0.008 = 0.159 m³.
    expect(f.water.value).toBeCloseTo(0.159, 12)
    expect([f.gross.value, put(f.gross)]).toEqual([
      0.2,
      [
        ['A', 0.4],
        ['height', 0.5],
      ],
    ])
    expect([f.toLevel.value, put(f.toLevel)]).toEqual([
      expect.closeTo(0.18, 12),
      [
        ['A', 0.4],
        ['level', 0.45],
      ],
    ])
    expect([f.substrate.value, put(f.substrate)]).toEqual([expect.closeTo(-0.013, 12), [['A', 0.4], ['depth', 0.05], ['porosity', 0.35]]]) // prettier-ignore
    expect([f.decor.value, put(f.decor)]).toEqual([-0.008, []])
    const bare = tankFigures(tankVolume(box), 0.5, {})
    expect(put(bare.water)).toEqual([
      ['A', 0.4],
      ['level', 0.5],
      ['depth', 0],
      ['porosity', 0.4],
      ['décor', 0],
    ])
  })
  test('what cannot be is refused at its very edge, and the edge itself is taken', () => {
    const bow = (bowWidth: number) =>
      floorArea({ shape: 'bow-front', length: 1, width: 0.4, bowWidth, height: 0.5 })
    expect(bow(0.4)).toBeCloseTo(0.4, 12)
    expect(bow(0.9)).toBeCloseTo(0.4 + Math.PI / 8, 9)
    for (const width of [0.39, 0.91]) expect(() => bow(width)).toThrow('bowWidth')
    const box = { shape: 'box', length: 1, width: 0.4, height: 0.5 } as const
    expect(tankVolume(box, { waterLevel: 0.5 }).water).toBeCloseTo(0.2, 12)
    for (const fill of [{ waterLevel: 0 }, { waterLevel: -0.1 }, { waterLevel: 0.501 }])
      expect(() => tankVolume(box, fill)).toThrow('waterLevel')
    for (const substrateDepth of [-0.01, 0.5])
      expect(() => tankVolume(box, { substrateDepth })).toThrow('substrateDepth')
    // 0.2 m³ less 0.012 of gravel: décor of 0.188 leaves no water.
    for (const decorVolume of [-0.001, 0.188])
      expect(() => tankVolume(box, { substrateDepth: 0.05, decorVolume })).toThrow('decorVolume')
    expect(() => tankVolume(box, { substrateDepth: 0.05, decorVolume: 0.19 })).toThrow('188.0 L')
  })
})
