import type { Figure } from '../figures'
import { closureFigure, grossFigure, litreFigure, perBulkFigure, perPriceFigure, solidFigure, usableFigure, volumeAudit, weightFigure, type BodyRecord, type Chamber, type Solid } from '.' // prettier-ignore

const of = (f: Figure | null, symbol: string): number =>
  f?.working?.find((w) => w.symbol === symbol)?.value ?? NaN
const sum = (f: Figure): number => f.working?.reduce((s, w) => s + w.value, 0) ?? NaN

describe('a solid’s volume, worked again from the lengths its working shows', () => {
  test.each<[Solid, (f: Figure) => number]>([
    [{ shape: 'box', width: 0.2, depth: 0.15, height: 0.1 }, (f) => of(f, 'width') * of(f, 'depth') * of(f, 'height')],
    [{ shape: 'cylinder', diameter: 0.2, height: 0.3 }, (f) => (Math.PI / 4) * of(f, 'diameter') ** 2 * of(f, 'height')],
    [{ shape: 'annulus', diameter: 0.2, innerDiameter: 0.05, height: 0.3 }, (f) => (Math.PI / 4) * (of(f, 'diameter') ** 2 - of(f, 'inner diameter') ** 2) * of(f, 'height')],
    [{ shape: 'wedge', width: 0.2, depth: 0.1, height: 0.12, lowHeight: 0.08 }, (f) => (of(f, 'width') * of(f, 'depth') * (of(f, 'height') + of(f, 'low height'))) / 2],
    [{ shape: 'water-fill', width: 0.1, height: 0.2, volume: 0.0034 }, (f) => of(f, 'V')],
  ])('%j', (solid, again) => {
    const f = solidFigure('Tray', solid, true)
    expect(again(f)).toBeCloseTo(f.value, 12)
    expect(f.working?.every((w) => w.provenance === 'measured')).toBe(true)
    expect(f.uncertainty).toBeGreaterThan(0)
  }) // prettier-ignore

  test('the usual sizes of such a body are no measurement, and say so', () => {
    const f = solidFigure('Tray', { shape: 'box', width: 0.2, depth: 0.15, height: 0.1 }, false)
    expect(f.working?.map((w) => w.provenance)).toEqual(['rule', 'rule', 'rule'])
    // A tape that was never laid has no uncertainty.
    expect([f.assumed, f.uncertainty]).toEqual(['typical sizes of such a body', undefined])
  })
})

const chamber = (id: string, height: number, more: Partial<Chamber> = {}): Chamber => ({
  id,
  name: id,
  role: 'tray',
  solid: { shape: 'box', width: 0.2, depth: 0.2, height },
  x: 0,
  y: 0,
  usableHeight: null,
  use: 'biological',
  measured: true,
  ...more,
})
const body: BodyRecord = {
  outerWidth: 0.22,
  outerDepth: 0.22,
  outerHeight: 0.4,
  waterFill: 0.0112,
  emptyMass: 3,
  fullMass: null,
}
const audit = volumeAudit(
  [
    chamber('Upper tray', 0.1, { usableHeight: 0.08 }),
    chamber('Lower tray', 0.1, { use: 'mechanical' }),
    chamber('Pump well', 0.05, { use: 'machinery' }),
    chamber('Under the grid', 0.03, { use: 'wasted' }),
  ],
  body,
)

test('typical sizes are marked as assumed and doubt nothing of their own: only what was measured has a tape', () => {
  const mixed = volumeAudit(
    [chamber('Tray', 0.1), chamber('Well', 0.05, { use: 'machinery', measured: false })],
    body,
  )
  const typical = volumeAudit([chamber('Tray', 0.1, { measured: false })], body)
  expect(grossFigure(audit)).not.toHaveProperty('assumed')
  expect(grossFigure(mixed).assumed).toBe('typical sizes of 1 of 2 chambers')
  // The well’s tape was never laid: the tray’s alone would say too little of the sum. Measured, two trays of 4 L:
  // 2 · √2 · 1 mm/√3 · √(2 · 0.02² + 0.04²) m² = 80 mL.
  expect(grossFigure(mixed)).not.toHaveProperty('uncertainty')
  expect(grossFigure(volumeAudit([chamber('A', 0.1), chamber('B', 0.1)], body)).uncertainty).toBeCloseTo(
    8.0e-5,
    7,
  )
  expect(grossFigure(typical)).not.toHaveProperty('uncertainty')
  expect(usableFigure(mixed)).not.toHaveProperty('assumed')
  expect([usableFigure(typical).assumed, perBulkFigure(typical).assumed, perPriceFigure(typical, 50, 'EUR').assumed]).toEqual(Array(3).fill('typical sizes of 1 of 1 chambers')) // prettier-ignore
  expect([litreFigure(mixed, 'machinery', 'x').assumed, litreFigure(mixed, 'biological', 'x').assumed]).toEqual(['typical sizes of 1 of 1 chambers', undefined]) // prettier-ignore
})

describe('the litres of a body, added up from their parts by hand', () => {
  // Boxes of 0.04 m²: 4, 4, 2 and 1.2 L; of the upper tray 0.8 L lie above its rim.
  test('all of it, and each name', () => {
    expect(grossFigure(audit).value).toBeCloseTo(0.0112, 9)
    expect(sum(grossFigure(audit))).toBeCloseTo(0.0112, 9)
    for (const [name, litres] of [['biological', 3.2], ['mechanical', 4], ['machinery', 2], ['wasted', 2]] as const) {
      const f = litreFigure(audit, name, name)
      expect([name, f.value * 1000]).toEqual([name, expect.closeTo(litres, 6)])
      expect(sum(f)).toBeCloseTo(f.value, 9)
    }
  }) // prettier-ignore
  test('usable litres, for their bulk and for their price', () => {
    const usable = usableFigure(audit)
    expect(usable.value).toBeCloseTo(0.0072, 9)
    expect(sum(usable)).toBeCloseTo(usable.value, 12)
    const bulk = perBulkFigure(audit)
    expect(bulk.value).toBeCloseTo(0.0072 / (0.22 * 0.22 * 0.4), 9)
    expect(of(bulk, 'usable') / of(bulk, 'bulk')).toBeCloseTo(bulk.value, 9)
    const price = perPriceFigure(audit, 90, 'EUR')
    expect(price.value).toBeCloseTo(0.008, 9)
    expect((of(price, 'usable') / of(price, 'price')) * 100).toBeCloseTo(price.value, 12)
  })
  test('the sum of the chambers against the water it held; without a fill there is nothing to hold it against', () => {
    const closed = closureFigure(audit)
    expect(closed?.value).toBeCloseTo(0, 9)
    expect((of(closed, 'Σ') - of(closed, 'fill')) / of(closed, 'fill')).toBeCloseTo(closed?.value ?? NaN, 9)
    expect(closureFigure(volumeAudit([chamber('Tray', 0.1)], { ...body, waterFill: null }))).toBeNull()
  })
  test('ready to run: weighed as it is, else the empty body and its water at 998 kg/m³; never from nothing', () => {
    const computed = weightFigure(body, audit.gross)
    expect(computed?.provenance).toBe('computed')
    expect(of(computed, 'empty') + of(computed, 'water') * 998).toBeCloseTo(computed?.value ?? NaN, 9)
    expect(weightFigure({ ...body, fullMass: 14.6 }, audit.gross)).toMatchObject({
      value: 14.6,
      provenance: 'measured',
    })
    expect(weightFigure({ ...body, emptyMass: null }, audit.gross)).toBeNull()
  })
})
