import fc from 'fast-check'
import {
  fullWeight,
  HEAVY,
  interiorProblems,
  sectionWidths,
  solidVolume,
  volumeAudit,
  volumeUncertainty,
  type BodyRecord,
  type Chamber,
  type Solid,
} from '.'
import { templateChambers, usualBody } from '../kinds'
import { FILTER_KINDS } from '../kinds'

const litres = (s: Solid): number => solidVolume(s) * 1000

/* Solid mensuration as in any handbook (Bronshtein, Machinery's): exact unless said. */
test.each<[string, Solid, number]>([
  ['box 20 × 10 × 15 cm', { shape: 'box', width: 0.2, depth: 0.1, height: 0.15 }, 3],
  ['cylinder Ø 20 × 10 cm', { shape: 'cylinder', diameter: 0.2, height: 0.1 }, Math.PI],
  [
    'annulus Ø 20/10 × 10 cm',
    { shape: 'annulus', diameter: 0.2, innerDiameter: 0.1, height: 0.1 },
    0.75 * Math.PI,
  ],
  // πh(R² + Rr + r²)/3 with R 10, r 5, h 12 cm: π·12·175/3 = 700π cm³.
  ['cone frustum', { shape: 'cone', diameter: 0.2, topDiameter: 0.1, height: 0.12 }, 0.7 * Math.PI],
  // Similar ends: h/3 (A + √(AA') + A') = 12/3 (400 + 200 + 100) = 2800 cm³.
  [
    'pyramid frustum, similar ends',
    { shape: 'pyramid', width: 0.2, depth: 0.2, topWidth: 0.1, topDepth: 0.1, height: 0.12 },
    2.8,
  ],
  [
    'wedge 20 × 10, 15 falling to 5 cm',
    { shape: 'wedge', width: 0.2, depth: 0.1, height: 0.15, lowHeight: 0.05 },
    2,
  ],
  ['by water', { shape: 'water-fill', width: 0.1, height: 0.1, volume: 0.00123 }, 1.23],
])('%s', (_, solid, expected) => {
  expect(litres(solid)).toBeCloseTo(expected, 10)
})

test('a frustum with equal ends is a prism, and a prismoid with unequal ratios obeys h/6 (A + 4M + B)', () => {
  expect(litres({ shape: 'cone', diameter: 0.1, topDiameter: 0.1, height: 0.1 })).toBeCloseTo(Math.PI / 4, 12)
  // Ends 20 × 10 and 10 × 20, middle 15 × 15: 12/6 (200 + 900 + 200) = 2600 cm³.
  const twisted: Solid = {
    shape: 'pyramid',
    width: 0.2,
    depth: 0.1,
    topWidth: 0.1,
    topDepth: 0.2,
    height: 0.12,
  }
  expect(litres(twisted)).toBeCloseTo(2.6, 12)
})

test('± 1 mm of tape on a 20 × 10 × 15 cm box: u = V √(Σ(u/L)²), u = 1/√3 mm (GUM, worked by hand)', () => {
  const box: Solid = { shape: 'box', width: 0.2, depth: 0.1, height: 0.15 }
  const rel = Math.sqrt((1 / 200) ** 2 + (1 / 100) ** 2 + (1 / 150) ** 2) / Math.sqrt(3)
  expect(volumeUncertainty(box)).toBeCloseTo(0.003 * rel, 9)
  expect(volumeUncertainty({ shape: 'water-fill', width: 0.1, height: 0.1, volume: 0.002 })).toBeCloseTo(
    6e-6,
    12,
  )
})

test.each<[string, Solid]>([
  ['innerDiameter', { shape: 'annulus', diameter: 0.1, innerDiameter: 0.1, height: 0.1 }],
  ['lowHeight', { shape: 'wedge', width: 0.1, depth: 0.1, height: 0.1, lowHeight: 0.2 }],
  ['depth', { shape: 'box', width: 0.1, depth: 0, height: 0.1 }],
  ['height', { shape: 'cylinder', diameter: 0.1, height: -1 }],
])('a solid that cannot be names its %s', (field, solid) => {
  expect(() => solidVolume(solid)).toThrow(field)
})

const body: BodyRecord = {
  outerWidth: 0.22,
  outerDepth: 0.12,
  outerHeight: 0.32,
  waterFill: null,
  emptyMass: 2.4,
  fullMass: null,
}
const chamber = (id: string, more: Partial<Chamber>): Chamber => ({
  id,
  name: id,
  role: 'tray',
  solid: { shape: 'box', width: 0.2, depth: 0.1, height: 0.1 },
  x: 0.01,
  y: 0.01,
  usableHeight: null,
  use: 'biological',
  measured: true,
  ...more,
})
/*
 * A small body on paper: void 20 × 10 × 5 = 1.0 L; tray of 20 × 10 × 10 filled to 9 cm = 1.8 L biological and 0.2 L lost;
 * tray of 20 × 10 × 5 = 1.0 L mechanical; head space 20 × 10 × 2 = 0.4 L wasted; pump Ø 10 × 8 = 0.6283 L.
 * Gross 5.0283 L, wasted 0.6 L (11.9 %), usable 2.8 L; outside 22 × 12 × 32 = 8.448 L.
 */
const PAPER: readonly Chamber[] = [
  chamber('void', {
    role: 'settling-void',
    use: 'void',
    solid: { shape: 'box', width: 0.2, depth: 0.1, height: 0.05 },
  }),
  chamber('tray', { y: 0.06, usableHeight: 0.09 }),
  chamber('pads', {
    y: 0.16,
    use: 'mechanical',
    solid: { shape: 'box', width: 0.2, depth: 0.1, height: 0.05 },
  }),
  chamber('head', {
    y: 0.21,
    role: 'head-space',
    use: 'wasted',
    solid: { shape: 'box', width: 0.2, depth: 0.1, height: 0.02 },
  }),
  chamber('pump', {
    y: 0.23,
    x: 0.06,
    role: 'pump-well',
    use: 'machinery',
    solid: { shape: 'cylinder', diameter: 0.1, height: 0.08 },
  }),
]

test('the volume audit of one body, worked out on paper', () => {
  const audit = volumeAudit(PAPER, { ...body, waterFill: 0.00499 })
  expect(audit.gross * 1000).toBeCloseTo(5.0283, 4)
  expect(audit.byName.biological * 1000).toBeCloseTo(1.8, 10)
  expect(audit.byName.mechanical * 1000).toBeCloseTo(1, 10)
  expect(audit.byName.wasted * 1000).toBeCloseTo(0.6, 10)
  expect(audit.byName.machinery * 1000).toBeCloseTo(0.6283, 4)
  expect(audit.wastedShare).toBeCloseTo(0.1193, 4)
  expect(audit.usablePerBulk).toBeCloseTo(2.8 / 8.448, 6)
  // 5.0283 against 4.99 L of water: 0.77 % over, which closes.
  expect(audit.closure?.difference).toBeCloseTo(0.00768, 4)
  expect(audit.closure?.closes).toBe(true)
  // A box of 2 L with a motor of 0.5 L in it holds 1.5 L of water, and closes on it; filled to its rim it is no higher.
  const box = { id: 'b', name: 'Box', role: 'compartment', solid: { shape: 'box', width: 0.1, depth: 0.1, height: 0.2 }, x: 0, y: 0, usableHeight: null, use: 'biological', measured: true, displaced: 0.0005 } as const // prettier-ignore
  const motor = volumeAudit([box], { ...body, waterFill: 0.0015 })
  expect([motor.gross, motor.water, motor.closure?.difference].map((v) => Number(v?.toFixed(9)))).toEqual([
    0.002, 0.0015, 0,
  ])
  expect(volumeAudit([{ ...box, rim: 0.12 }], body).byName.biological).toBeCloseTo(0.0009, 12)
  expect(volumeAudit(PAPER, { ...body, waterFill: 0.0047 }).closure?.closes).toBe(false)
  expect(interiorProblems(PAPER, body)).toEqual([])
})

test('what stands in a chamber, by the water it displaced, is machinery; the rest is shared as before (by hand)', () => {
  // Tray 2.0 L with a 0.5 L motor in it: 1.5 L free, of which 90 % fill height: 1.35 biological, 0.15 wasted.
  const audit = volumeAudit([chamber('a', { usableHeight: 0.09, displaced: 0.0005 })], body)
  expect(audit.byName.biological * 1000).toBeCloseTo(1.35, 10)
  expect(audit.byName.wasted * 1000).toBeCloseTo(0.15, 10)
  expect(audit.byName.machinery * 1000).toBeCloseTo(0.5, 10)
  expect(audit.gross * 1000).toBeCloseTo(2, 10)
})

describe('what cannot be is said, at the chamber and field', () => {
  test.each<[string, Partial<Chamber>, string, string]>([
    [
      'a chamber wider than its body',
      { solid: { shape: 'box', width: 0.3, depth: 0.1, height: 0.1 } },
      'width',
      'the body is 220 mm wide',
    ],
    ['a chamber higher than its body', { y: 0.3 }, 'height', 'the body is 320 mm high'],
    ['a usable height above the rim', { usableHeight: 0.12 }, 'usableHeight', 'above its rim at 100 mm'],
    [
      'a usable height above a lower rim',
      { usableHeight: 0.09, rim: 0.08 },
      'usableHeight',
      'above its rim at 80 mm',
    ],
    ['a rim above its own chamber', { rim: 0.12 }, 'rim', 'above its own height of 100 mm'],
    [
      'a solid without depth',
      { solid: { shape: 'box', width: 0.1, depth: 0, height: 0.1 } },
      'depth',
      'greater than zero',
    ],
  ])('%s', (_, more, field, words) => {
    const [problem] = interiorProblems([chamber('a', more)], body)
    expect(problem).toMatchObject({ chamberId: 'a', field })
    expect(problem?.message).toContain(words)
  })
  test('trays that overlap; a pipe may pass through them', () => {
    expect(interiorProblems([chamber('a', {}), chamber('b', { y: 0.08 })], body)[0]).toMatchObject({
      chamberId: 'b',
      field: 'y',
      message: expect.stringContaining('overlaps a by 30 mm'),
    })
    expect(
      interiorProblems([chamber('a', {}), chamber('b', { y: 0.08, role: 'centre-pipe' })], body),
    ).toEqual([])
  })
})

const length = fc.double({ min: 0.01, max: 0.3, noNaN: true })
const solid: fc.Arbitrary<Solid> = fc.oneof(
  fc.record({ shape: fc.constant('box' as const), width: length, depth: length, height: length }),
  fc.record({ shape: fc.constant('cylinder' as const), diameter: length, height: length }),
  fc.record({ shape: fc.constant('cone' as const), diameter: length, topDiameter: length, height: length }),
  fc.record({
    shape: fc.constant('pyramid' as const),
    width: length,
    depth: length,
    topWidth: length,
    topDepth: length,
    height: length,
  }),
)

test('volumes are never negative, parts always sum to gross, better tools give less uncertainty', () => {
  const any = fc.record({
    solid,
    usable: fc.option(fc.double({ min: 0, max: 0.5, noNaN: true })),
    use: fc.constantFrom('biological' as const, 'void' as const, 'machinery' as const, 'wasted' as const),
  })
  fc.assert(
    fc.property(fc.array(any, { maxLength: 8 }), (list) => {
      const chambers = list.map((c, i) =>
        chamber(`c${i}`, { solid: c.solid, usableHeight: c.usable, use: c.use }),
      )
      const audit = volumeAudit(chambers, body)
      const parts = Object.values(audit.byName)
      expect(parts.every((v) => v >= 0)).toBe(true)
      expect(Math.abs(parts.reduce((a, b) => a + b, 0) - audit.gross)).toBeLessThan(1e-12)
      const fine = volumeAudit(chambers, body, { tape: 0.0002, waterFill: 0.001 })
      if (list.length) expect(fine.uncertainty).toBeLessThan(audit.uncertainty)
    }),
  )
})

test.each(FILTER_KINDS)(
  'the template of a %s fits its body, has a pump or riser, and none of it is called measured',
  (kind) => {
    const [width, depth, height] = usualBody(kind)
    const chambers = templateChambers(kind, { width, depth, height }, (n) => n)
    const outer: BodyRecord = { ...body, outerWidth: width, outerDepth: depth, outerHeight: height }
    expect(interiorProblems(chambers, outer)).toEqual([])
    expect(chambers.some((c) => c.role === 'pump-well' || c.role === 'centre-pipe')).toBe(true)
    expect(chambers.every((c) => !c.measured)).toBe(true)
    expect(volumeAudit(chambers, outer).gross).toBeLessThan(width * depth * height)
  },
)

test('full weight is as weighed, else empty plus its water; 20 kg gets a caution', () => {
  expect(fullWeight({ ...body, fullMass: 9 }, 0.005)).toEqual({ mass: 9, weighed: true })
  expect(fullWeight(body, 0.005)?.mass).toBeCloseTo(2.4 + 4.99, 6)
  expect(fullWeight({ ...body, emptyMass: null }, 0.005)).toBeNull()
  expect(HEAVY).toBe(20)
  expect(sectionWidths({ shape: 'cone', diameter: 0.2, topDiameter: 0.1, height: 0.1 })).toEqual({
    foot: 0.2,
    top: 0.1,
  })
})
