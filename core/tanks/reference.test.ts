import fc from 'fast-check'
import { capacityOf, floorArea, segmentArea, STOCK_CLASSES, supportedRange, tankVolume, turnover } from '.'

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
