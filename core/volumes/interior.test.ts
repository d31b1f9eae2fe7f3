import {
  closureFigure,
  grossFigure,
  interiorProblems,
  litreFigure,
  sectionWidths,
  shareFigure,
  solidFigure,
  solidVolume,
  usableFigure,
  volumeAudit,
  weightFigure,
  type BodyRecord,
  type Chamber,
  type Solid,
} from '.'
import { templateChambers } from '../kinds'
import { put } from '../figures'
import { FILTER_KINDS } from '../kinds'

const body: BodyRecord = {
  outerWidth: 0.3,
  outerDepth: 0.3,
  outerHeight: 0.4,
  waterFill: null,
  emptyMass: null,
  fullMass: null,
}
const chamber = (more: Partial<Chamber> = {}): Chamber => ({
  id: 'c', name: 'Tray', role: 'tray', solid: { shape: 'box', width: 0.2, depth: 0.2, height: 0.1 }, x: 0.05, y: 0.05,
  usableHeight: null, use: 'biological', measured: true, ...more,
}) // prettier-ignore
const fields = (...chambers: Chamber[]) => interiorProblems(chambers, body).map((p) => p.field)

describe('what cannot be inside a body of 30 × 30 × 40 cm; half a millimetre of tape is let pass', () => {
  test.each<[string, Partial<Chamber>, string[]]>([
    ['a tray that fits', {}, []],
    ['from the left wall to the right one', { x: 0, solid: { shape: 'box', width: 0.3, depth: 0.2, height: 0.1 } }, []],
    ['0.4 mm out on the left', { x: -0.0004 }, []],
    ['1 mm out on the left', { x: -0.001 }, ['width']],
    ['0.4 mm out on the right', { x: 0.1004 }, []],
    ['1 mm out on the right', { x: 0.101 }, ['width']],
    ['0.4 mm under the foot', { y: -0.0004 }, []],
    ['1 mm under the foot', { y: -0.001 }, ['height']],
    ['0.4 mm over the top', { y: 0.3004 }, []],
    ['1 mm over the top', { y: 0.301 }, ['height']],
    ['a rim at its own height', { rim: 0.1004 }, []],
    ['a rim 1 mm above it', { rim: 0.101 }, ['rim']],
    ['filled to its rim', { usableHeight: 0.1004 }, []],
    ['filled 1 mm above its rim', { usableHeight: 0.101 }, ['usableHeight']],
    ['filled above a lower rim', { rim: 0.08, usableHeight: 0.09 }, ['usableHeight']],
    ['as much displaced as it holds, 4 L', { displaced: 0.004 }, []],
    ['more displaced than it holds', { displaced: 0.0041 }, ['displaced']],
    ['a cone that is wider at its top', { x: 0.05, solid: { shape: 'cone', diameter: 0.1, topDiameter: 0.26, height: 0.1 } }, ['width']],
    ['a cone that is wider at its foot', { x: 0.05, solid: { shape: 'cone', diameter: 0.26, topDiameter: 0.1, height: 0.1 } }, ['width']],
    ['a solid that cannot be', { solid: { shape: 'box', width: 0, depth: 0.2, height: 0.1 } }, ['width']],
  ])('%s', (_what, more, said) => {
    expect(fields(chamber(more))).toEqual(said)
  }) // prettier-ignore
  test('it says from where to where it reaches, and how much it holds', () => {
    const [wide] = interiorProblems([chamber({ x: 0.2 })], body)
    expect(wide?.message).toBe('Tray reaches from 200 mm to 400 mm across, and the body is 300 mm wide.')
    const [high] = interiorProblems([chamber({ y: 0.35 })], body)
    expect(high?.message).toBe('Tray reaches from 350 mm to 450 mm up, and the body is 400 mm high.')
    const [full] = interiorProblems([chamber({ displaced: 0.005 })], body)
    expect(full?.message).toContain('(4.00 L)')
  })
  test('two chambers overlap by more than a millimetre both ways, or not at all; a pipe stands in one', () => {
    const on = (more: Partial<Chamber>) => fields(chamber(), chamber({ id: 'd', name: 'Upper', ...more }))
    expect(on({ y: 0.15 })).toEqual([])
    expect(on({ y: 0.1492 })).toEqual([])
    expect(on({ y: 0.148 })).toEqual(['y'])
    const narrow = { shape: 'box', width: 0.05, depth: 0.2, height: 0.1 } as const
    expect(on({ x: 0.2492, solid: narrow })).toEqual([])
    expect(on({ x: 0.248, solid: narrow })).toEqual(['y'])
    expect(on({ role: 'centre-pipe' })).toEqual([])
  })
})

describe('litres and what they come from', () => {
  const working = (f: { working?: readonly { symbol: string; label: string; value: number }[] } | null) =>
    f?.working?.map((w) => [w.symbol, w.label, Math.round(w.value * 1e6) / 1000])
  // Boxes of 0.04 m² and 0.1 m: 4 L each; of the first 1 L is the motor’s and a quarter of the rest lies above its rim.
  const chambers = [
    chamber({ displaced: 0.001, rim: 0.075, usableHeight: 0.075 }),
    chamber({ id: 'w', name: 'Grid', use: 'wasted', y: 0.15 }),
    chamber({ id: 'm', name: 'Well', use: 'machinery', y: 0.25 }),
  ]
  const audit = volumeAudit(chambers, { ...body, waterFill: 0.0112 })
  test('each name, chamber by chamber, in litres: 2.25 usable, 0.75 and 4 wasted, 1 and 4 of machinery', () => {
    expect(working(litreFigure(audit, 'biological', 'x'))).toEqual([['1', 'Tray', 2.25]])
    expect(working(litreFigure(audit, 'wasted', 'x'))).toEqual([['1', 'Tray', 0.75], ['2', 'Grid', 4]]) // prettier-ignore
    expect(working(litreFigure(audit, 'machinery', 'x'))).toEqual([['1', 'Tray', 1], ['3', 'Well', 4]]) // prettier-ignore
    expect(new Set((['biological', 'wasted', 'machinery'] as const).map((n) => litreFigure(audit, n, 'x').formula)).size).toBe(3) // prettier-ignore
    expect(audit.wastedShare).toBeCloseTo(4.75 / 12, 9)
    expect(audit.usableMedia).toBeCloseTo(0.00225, 12)
    expect(working(usableFigure(audit))?.map(([s]) => s)).toEqual(['biol', 'mech', 'chem'])
  })
  test('the water fill: 12 L of chambers less 1 L that stands in them, against 11.2 L, is 1.8 % short', () => {
    const closed = closureFigure(audit)
    expect(closed?.value).toBeCloseTo(11 / 11.2 - 1, 9)
    expect(working(closed)).toEqual([
      ['Σ', 'all chambers', 12],
      ['stands in them', 'motor and the like, by the water it displaced', 1],
      ['fill', 'water it held', 11.2],
    ])
    expect(audit.closure?.closes).toBe(false)
    const plain = volumeAudit([chamber()], { ...body, waterFill: 0.00397 })
    expect(working(closureFigure(plain))?.map(([s]) => s)).toEqual(['Σ', 'fill'])
    expect(plain.closure?.closes).toBe(true)
  })
  test('a box read to ± 1 mm: u = (1 mm/√3) √(2 · (0.02 m²)² + (0.04 m²)²), twice that is said', () => {
    const u = (0.001 / Math.sqrt(3)) * Math.hypot(0.02, 0.02, 0.04)
    expect(solidFigure('Tray', chamber().solid, true).uncertainty).toBeCloseTo(2 * u, 9)
    expect(grossFigure(volumeAudit([chamber(), chamber()], body)).uncertainty).toBeCloseTo(
      2 * Math.SQRT2 * u,
      9,
    )
  })
  test('lengths are lengths and a volume is one, by their names', () => {
    const fill = solidFigure('Sump', { shape: 'water-fill', width: 0.1, height: 0.2, volume: 0.003 }, true)
    expect(fill.working?.map((w) => [w.symbol, w.label, w.dimension])).toEqual([
      ['width', 'width', 'length'],
      ['height', 'height', 'length'],
      ['V', 'water it held', 'volume'],
    ])
  })
  test('a share is a part over a whole, with both', () => {
    const share = shareFigure('s', 'Share', put('a', 'part', 3, 'volume', 'computed'), put('b', 'whole', 12, 'volume', 'computed')) // prettier-ignore
    expect([share.value, share.formula, share.working?.map((w) => w.value)]).toEqual([0.25, 'a ÷ b', [3, 12]])
  })
  test('nothing inside is a share of nothing; a body without size has no litre for its bulk', () => {
    const none = volumeAudit([], { ...body, outerWidth: 0 })
    expect([none.wastedShare, none.usablePerBulk, none.closure]).toEqual([0, 0, null])
  })
  test('ready to run: the water it held where that was measured, else what the chambers hold', () => {
    const empty = { ...body, emptyMass: 3 }
    expect(weightFigure({ ...empty, waterFill: 0.01 }, 0.012)?.working?.[1]).toMatchObject({ value: 0.01, provenance: 'measured' }) // prettier-ignore
    expect(weightFigure(empty, 0.012)?.working?.[1]).toMatchObject({ value: 0.012, provenance: 'computed' })
  })
})

describe('edges of solids', () => {
  test('a hollow cylinder may be full, a wedge sharp or a box; neither may be less than nothing', () => {
    const annulus = (innerDiameter: number): Solid => ({
      shape: 'annulus',
      diameter: 0.2,
      innerDiameter,
      height: 0.1,
    })
    expect(solidVolume(annulus(0))).toBeCloseTo((Math.PI / 4) * 0.004, 12)
    expect(() => solidVolume(annulus(-0.01))).toThrow('innerDiameter')
    const wedge = (lowHeight: number): Solid => ({
      shape: 'wedge',
      width: 0.2,
      depth: 0.1,
      height: 0.1,
      lowHeight,
    })
    expect([solidVolume(wedge(0)), solidVolume(wedge(0.1))].map((v) => v * 1000)).toEqual([expect.closeTo(1, 9), expect.closeTo(2, 9)]) // prettier-ignore
    expect(() => solidVolume(wedge(-0.01))).toThrow('lowHeight')
    expect(() => solidVolume(wedge(0.11))).toThrow('lowHeight')
  })
  test('widths of a section: the same all the way up, but for what narrows', () => {
    expect(sectionWidths({ shape: 'annulus', diameter: 0.2, innerDiameter: 0.1, height: 1 })).toEqual({ foot: 0.2, top: 0.2 })
    expect(sectionWidths({ shape: 'pyramid', width: 0.2, depth: 0.2, topWidth: 0.1, topDepth: 0.1, height: 1 })).toEqual({ foot: 0.2, top: 0.1 })
    expect(sectionWidths({ shape: 'wedge', width: 0.3, depth: 0.2, height: 1, lowHeight: 0.5 })).toEqual({ foot: 0.3, top: 0.3 })
  }) // prettier-ignore
})

test('the interior to start from: 4 mm of wall all round; a pipe is round, a side channel half as deep', () => {
  const all = FILTER_KINDS.flatMap((kind) => templateChambers(kind, { width: 0.208, depth: 0.308, height: 0.408 }, (n) => n)) // prettier-ignore
  for (const c of all) {
    if (c.role === 'centre-pipe') expect(c.solid.shape).toBe('cylinder')
    else expect([c.name, c.solid.shape === 'box' && c.solid.depth]).toEqual([c.name, c.role === 'side-channel' ? 0.15 : 0.3]) // prettier-ignore
    expect(c.x).toBeGreaterThanOrEqual(0.004)
    expect(c.y).toBeGreaterThanOrEqual(0.004)
    if (c.usableHeight !== null) expect(c.usableHeight).toBeLessThanOrEqual(c.solid.height)
  }
  expect(new Set(all.map((c) => c.role)).has('centre-pipe')).toBe(true)
  expect(all.some((c) => c.usableHeight !== null) && all.some((c) => c.usableHeight === null)).toBe(true)
})
