import fc from 'fast-check'
import type { Figure } from '../figures'
import {
  capacityFigure,
  capacityOf,
  floorArea,
  segmentArea,
  STOCK_CLASSES,
  supportedRange,
  tankFigures,
  tankVolume,
  turnover,
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

describe('the tanks a model carries', () => {
  const [light, normal] = STOCK_CLASSES
  if (!light || !normal) throw new Error('classes')
  const flow = { value: 600 / 3.6e6 }
  const of = (mass: number | null = null) => ({
    flow,
    meets: 1,
    mass: mass === null ? null : { value: mass },
  })

  test('common practice, no source: 1 kg media carries 100 L normal, 50 L heavy', () => {
    expect(normal.litresPerKilogram).toBe(100)
    expect(STOCK_CLASSES.find((s) => s.id === 'heavy')?.litresPerKilogram).toBe(50)
  })
  test('600 L/h at 4 turnovers is 150 L; 1.2 kg at 100 L/kg is 120 L and binds', () => {
    const byFlow = supportedRange(of(), normal)
    expect(byFlow.max * 1000).toBeCloseTo(150, 9)
    expect(byFlow.binding).toBe('turnover')
    const byMass = supportedRange({ ...of(1.2), claimedMax: 0.3 }, normal)
    expect(byMass.max * 1000).toBeCloseTo(120, 9)
    expect(byMass.binding).toBe('media-mass')
    const beside = byMass.limits.find((l) => l.constraint === 'oversizing')
    expect(beside?.volume).toBeCloseTo(0.2, 12)
    expect(beside?.beside).toBe(true)
  })
  test('the low end is where the current gets too strong: 600 L/h at 8 turnovers is 75 L', () => {
    expect(supportedRange(of(), light).min * 1000).toBeCloseTo(75, 9)
    expect(supportedRange(of(0.3), light).impossible).toBe(true)
  })
  test('a surer flow gives a tighter top', () => {
    const width = (u: number) => {
      const i = supportedRange({ ...of(), flow: { ...flow, uncertainty: u } }, normal).maxInterval
      return i[1] - i[0]
    }
    expect(width(1e-6)).toBeLessThan(width(1e-5))
  })
  test('only water that meets the media counts, and the interval carries flow, mass and rule (in quadrature, by hand)', () => {
    const half = capacityOf({ ...of(), meets: 0.5 }, normal)
    expect(half.volume * 1000).toBeCloseTo(75, 9)
    // Flow ± 6 %, rule ± 15 %: ± 16.155 %; mass ± 10 %, rule ± 20 %: ± 22.361 %.
    const sure = capacityOf({ ...of(), flow: { ...flow, uncertainty: 0.06 * flow.value } }, normal)
    expect(sure.interval[1] / sure.volume).toBeCloseTo(1.16155, 4)
    const heavy = capacityOf({ ...of(), mass: { value: 1, uncertainty: 0.1 } }, normal)
    expect([heavy.binding, heavy.interval[0] / heavy.volume]).toEqual([
      'media-mass',
      expect.closeTo(0.77639, 4),
    ])
    expect(() => capacityOf({ ...of(), flow: { value: -1 } }, normal)).toThrow('flow')
    expect(capacityOf({ ...of(0), flow: { value: 0 } }, normal)).toMatchObject({
      volume: 0,
      interval: [0, 0],
    })
  })
  test('turnover is flow over volume', () => expect(turnover(flow.value, 0.12)).toBeCloseTo(5, 9))
})

describe('limits, their ends and their workings', () => {
  const normal = STOCK_CLASSES.find((s) => s.id === 'normal')
  if (!normal) throw new Error('class')
  const lph = (q: number): number => q / 3.6e6
  const figure = (id: string, value: number, uncertainty?: number): Figure => ({ id, label: id, value, dimension: 'ratio', provenance: 'computed', ...(uncertainty !== undefined && { uncertainty }) }) // prettier-ignore
  test('each limit says whether it binds; oversizing only where a top is claimed', () => {
    const at = (mass: number | null, claimedMax?: number) =>
      supportedRange({ flow: { value: lph(600) }, meets: 1, mass: mass === null ? null : { value: mass }, ...(claimedMax && { claimedMax }) }, normal) // prettier-ignore
    expect(at(null).limits).toEqual([
      { constraint: 'turnover', volume: expect.closeTo(0.15, 9) as number, binding: true },
    ])
    expect(at(1.2, 0.3).limits).toEqual([
      { constraint: 'turnover', volume: expect.closeTo(0.15, 9) as number, binding: false },
      { constraint: 'media-mass', volume: expect.closeTo(0.12, 9) as number, binding: true },
      { constraint: 'oversizing', volume: expect.closeTo(0.2, 9) as number, binding: false, beside: true },
    ])
    expect(at(2).limits.map((l) => l.binding)).toEqual([true, false])
    // Equal: turnover is named, as the one that is measured.
    expect(at(1.5).binding).toBe('turnover')
    expect(at(2).impossible).toBe(false)
  })
  test('the low end has its interval too: 600 ± 36 L/h at 12 an hour ± 15 %: 50 ± 8.08 L (by hand)', () => {
    const r = supportedRange(
      { flow: { value: lph(600), uncertainty: lph(36) }, meets: 0.5, mass: null },
      normal,
    )
    expect(r.min * 1000).toBeCloseTo(50, 9)
    expect(r.minInterval.map((v) => v * 1000)).toEqual([expect.closeTo(41.92, 2), expect.closeTo(58.08, 2)])
    // So wide a doubt ends at nothing, not below it.
    expect(
      supportedRange({ flow: { value: lph(600), uncertainty: lph(900) }, meets: 1, mass: null }, normal)
        .minInterval[0],
    ).toBe(0)
    expect(supportedRange({ flow: { value: 0 }, meets: 1, mass: null }, normal).minInterval).toEqual([0, 0])
  })
  test('where both limits are near, the top’s interval is that of the smaller at either end', () => {
    // Mass 1.4 kg: 140 ± 28 L; turnover 150 ± 22.5 L: from 112 to 168 L.
    const c = capacityOf({ flow: { value: lph(600) }, meets: 1, mass: { value: 1.4 } }, normal)
    expect(c.interval.map((v) => v * 1000)).toEqual([expect.closeTo(112, 6), expect.closeTo(168, 6)])
    const d = capacityOf({ flow: { value: lph(600) }, meets: 1, mass: { value: 1.5 } }, normal)
    expect(d.interval[1] * 1000).toBeCloseTo(172.5, 6)
    expect(d.interval[0] * 1000).toBeCloseTo(120, 6)
    // What is shown beside 150 L is the wider side, 30 L down, not the mean of both sides.
    const shown = capacityFigure({ fill: { id: 'f', name: 'As shipped' }, flow: figure('flow', lph(600)), meets: figure('meets', 1), mass: figure('mass', 1.5) }, normal) // prettier-ignore
    expect((shown.uncertainty ?? 0) * 1000).toBeCloseTo(30, 6)
  })
  test('the working of a capacity, worked again, gives it back; without media on record it has none in it', () => {
    const of = { fill: { id: 'f', name: 'As shipped' }, flow: figure('flow', lph(600)), meets: figure('meets', 0.8), mass: figure('mass', 1) } // prettier-ignore
    const f = capacityFigure(of, normal)
    expect(f).toMatchObject({ id: 'carries-normal-f', label: 'Carries, normal', provenance: 'rule' })
    expect(f.value * 1000).toBeCloseTo(100, 9)
    expect((f.uncertainty ?? 0) * 1000).toBeCloseTo(20, 0)
    expect(f.conditions).toEqual(['As shipped', 'the mass of media binds', 'tank litres'])
    expect(f.working?.map((w) => [w.symbol, w.value])).toEqual([['m', 1], ['L/kg', 100], ['Q', lph(600)], ['share', 0.8], ['1/h', 4]]) // prettier-ignore
    const byFlow = capacityFigure({ ...of, mass: null }, normal)
    expect(byFlow.conditions?.[1]).toBe('turnover binds')
    expect(byFlow.working?.map((w) => w.symbol)).toEqual(['L/kg', 'Q', 'share', '1/h'])
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
