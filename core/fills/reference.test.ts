import {
  GENERIC_MEDIA,
  geometricSurface,
  modelResistance,
  packVolume,
  resistanceOf,
  type Medium,
} from '../media'
import { chamber, layer, medium } from '../path/tests/support'
import { FILTER_KINDS } from '../kinds'
import { templateChambers, usualBody } from '../kinds'
import {
  chamberWay,
  isBeside,
  isFillable,
  layerCounts,
  listCost,
  placeFill,
  shoppingList,
  wayOf,
  weighFill,
} from '.'

const SINTERED = medium('Sintered glass')
const PAD = medium('Fine pad')
const FOAM = medium('Coarse foam')
const place = (layers: ReturnType<typeof layer>[], chambers = [chamber('low'), chamber('high')]) =>
  placeFill('canister', chambers, { layers }, GENERIC_MEDIA)

describe('a chamber as the water meets it (plane mensuration, by hand)', () => {
  test('upwards: length to the rim, area and perimeter of its plan', () => {
    expect(chamberWay('canister', chamber('c'))).toMatchObject({
      way: 'up',
      length: 0.08,
      usable: expect.closeTo(0.0032, 12),
    })
    expect(chamberWay('canister', chamber('c')).area).toBeCloseTo(0.04, 12)
    expect(chamberWay('canister', chamber('c')).perimeter).toBeCloseTo(0.8, 12)
  })
  test('across, as in a hang-on-back: width along the flow, depth by filled height across it', () => {
    const w = chamberWay('hang-on-back', chamber('c', { solid: { shape: 'box', width: 0.03, depth: 0.1, height: 0.12 }, usableHeight: 0.1 }))
    expect(w).toMatchObject({ way: 'across', length: 0.03 })
    expect(w.area).toBeCloseTo(0.01, 12)
    expect(w.perimeter).toBeCloseTo(0.4, 12)
  }) // prettier-ignore
  test('inwards, as into a sponge: half its thickness, and no wall to leave a gap at', () => {
    const w = chamberWay('air-sponge', chamber('c', { role: 'pre-filter', solid: { shape: 'box', width: 0.06, depth: 0.08, height: 0.1 }, usableHeight: null }))
    expect(w).toMatchObject({ way: 'inward', length: 0.03, perimeter: 0 })
    expect(w.area * w.length).toBeCloseTo(0.00048, 12)
  }) // prettier-ignore
  test('round: the circle’s own circumference; displaced litres are not for filling', () => {
    const w = chamberWay('canister', chamber('c', { solid: { shape: 'cylinder', diameter: 0.2, height: 0.1 }, usableHeight: null, displaced: 0.0005 }))
    expect(w.perimeter).toBeCloseTo(Math.PI * 0.2, 10)
    expect(w.usable).toBeCloseTo((Math.PI / 4) * 0.04 * 0.1 - 0.0005, 12)
  }) // prettier-ignore
  test('a said way outranks the kind’s; a rim below the usable height limits it', () => {
    expect(wayOf('canister', chamber('c', { way: 'down' }))).toBe('down')
    expect(chamberWay('canister', chamber('c', { rim: 0.05 })).length).toBe(0.05)
    expect(
      isBeside('air-sponge', chamber('b', { role: 'pre-filter' }), chamber('a', { role: 'pre-filter' })),
    ).toBe(true)
    expect(isBeside('canister', chamber('b', { beside: true }), undefined)).toBe(true)
  })
  test.each(FILTER_KINDS)(
    'the usual interior of %s has chambers to fill, each with a length and an area',
    (kind) => {
      const [width, depth, height] = usualBody(kind)
      const fillable = templateChambers(kind, { width, depth, height }, (n) => n).filter(isFillable)
      expect(fillable.length).toBeGreaterThan(0)
      for (const c of fillable) {
        const w = chamberWay(kind, c)
        expect([c.name, w.length > 0, w.area > 0, w.usable > 0]).toEqual([c.name, true, true, true])
      }
    },
  )
})

describe('layers in their places', () => {
  test('the same layer by height, litres, kilograms and packs', () => {
    const amounts = [
      ['height', 0.05],
      ['volume', 0.002],
      ['mass', 0.96],
      ['packs', 2],
    ] as const
    for (const [measure, amount] of amounts) {
      const l = place([layer('x', 'low', SINTERED, 0, { measure, amount })]).chambers[0]?.layers[0]
      expect(l?.thickness).toBeCloseTo(0.05, 10)
      expect(l?.volume).toBeCloseTo(0.002, 10)
      expect(l?.mass).toBeCloseTo(0.96, 10)
      expect(l?.packs).toBeCloseTo(2, 10)
    }
  })
  test('pads come in sheets: two packs of a pad are two sheets thick', () => {
    const l = place([layer('x', 'low', PAD, 0, { measure: 'packs', amount: 2 })]).chambers[0]?.layers[0]
    expect(l?.thickness).toBeCloseTo(0.04, 12)
  })
  test('a gap all round takes its share of the area: 3 mm of 0.8 m perimeter is 24 cm²', () => {
    const l = place([layer('x', 'low', SINTERED, 50, { gap: 0.003 })]).chambers[0]?.layers[0]
    expect(l?.area).toBeCloseTo(0.04 - 0.0024, 12)
    expect(l?.volume).toBeCloseTo(0.0376 * 0.05, 12)
  })
  test('they stand on each other; what is past the rim is told of each', () => {
    const [low] = place([
      layer('a', 'low', FOAM, 30),
      layer('b', 'low', PAD, 20),
      layer('c', 'low', FOAM, 40),
    ]).chambers
    expect(low?.layers.map((l) => l.from)).toEqual([0, expect.closeTo(0.03, 9), expect.closeTo(0.05, 9)])
    expect(low?.layers.map((l) => Math.round(l.over * 1000))).toEqual([0, 0, 10])
    expect(low?.free).toBeCloseTo(-0.01, 9)
  })
  test('an uncrossed gap reaches the layer after it, a crossed one does not, and never the next chamber', () => {
    const gaps = (crossed: boolean) =>
      place([
        layer('a', 'low', SINTERED, 30, { gap: 0.004, crossed }),
        layer('b', 'low', PAD, 20, { gap: 0.001 }),
        layer('c', 'high', PAD, 20),
      ]).chambers.flatMap((c) => c.layers.map((l) => l.gap))
    expect(gaps(false)).toEqual([0.004, 0.004, 0])
    expect(gaps(true)).toEqual([0.004, 0.001, 0])
  })
  test('packs of a medium whose pack is not known are refused by name', () => {
    const wheel = medium('Turning contactor')
    expect(() => place([layer('x', 'low', wheel, 0, { measure: 'packs', amount: 1 })])).toThrow(
      expect.objectContaining({ field: 'layers[x].measure' }),
    )
  })
})

describe('weights and shopping', () => {
  const body = {
    outerWidth: 0.22,
    outerDepth: 0.22,
    outerHeight: 0.4,
    waterFill: 0.008,
    emptyMass: 3,
    fullMass: null,
  }
  const placed = place([
    layer('a', 'low', FOAM, 40),
    layer('b', 'low', PAD, 20),
    layer('c', 'high', SINTERED, 80),
  ])
  test('foam counts only where the foam is the filter; a turning wheel never', () => {
    expect(layerCounts('canister', FOAM)).toBe(false)
    expect(layerCounts('air-sponge', FOAM)).toBe(true)
    expect(layerCounts('air-sponge', medium('Turning contactor'))).toBe(false)
    expect(layerCounts('canister', SINTERED)).toBe(true)
  })
  test('the weight ready to run is not known while the empty body was not weighed', () => {
    expect(weighFill('canister', placed.chambers, { ...body, emptyMass: null }, 0.008).fullWeight).toBeNull()
    expect(weighFill('canister', placed.chambers, body, 0.02).fullWeight).toBeGreaterThan(10)
  })
  test('whole packs, what is left over, and the sum; other currencies and missing prices are named', () => {
    const list = shoppingList(placed.chambers)
    expect(list.find((l) => l.medium.id === SINTERED.id)).toMatchObject({
      packs: 4,
      leftOver: expect.closeTo(0.0008, 9),
    })
    expect(listCost(list)).toEqual({ costMinor: 2 * 390 + 490 + 4 * 1290, currency: 'EUR', unpriced: [] })
    const mixed = list.map((l, i) => (i === 0 ? { ...l, currency: 'USD' } : l))
    expect(listCost(mixed).unpriced.length).toBe(2)
    expect(listCost([]).currency).toBeNull()
  })
  test('a pack’s litres follow from its mass where only that is printed', () => {
    expect(packVolume({ ...SINTERED, packVolume: null, packMass: 0.48 })).toBeCloseTo(0.001, 12)
    expect(packVolume({ ...SINTERED, packVolume: null })).toBeNull()
  })
})

describe('the library as it ships', () => {
  const each = GENERIC_MEDIA.map((m) => [m.name, m] as const)
  test('ids and names are their own', () => {
    expect(new Set(GENERIC_MEDIA.map((m) => m.id)).size).toBe(GENERIC_MEDIA.length)
    expect(new Set(GENERIC_MEDIA.map((m) => m.name.toLowerCase())).size).toBe(GENERIC_MEDIA.length)
  })
  test.each(each)('%s: a resistance of a believable size, a source, a weight', (_, m) => {
    const r = resistanceOf(m)
    expect(r.permeability).toBeGreaterThan(1e-11)
    expect(r.permeability).toBeLessThanOrEqual(1e-4)
    expect(m.source.length).toBeGreaterThan(5)
    expect(m.bulkDensity).toBeLessThan(1500)
    if (m.wetDensity !== null) expect(m.wetDensity).toBeGreaterThan(m.bulkDensity)
    if (m.claimedSurface !== null && m.effectiveSurface !== null)
      expect(m.claimedSurface).toBeGreaterThanOrEqual(m.effectiveSurface)
  })
  test('the finer, the tighter: coarse foam, fine foam, floss, pad', () => {
    const k = ['Coarse foam', 'Medium foam', 'Fine foam', 'Floss, loose', 'Fine pad'].map(
      (n) => resistanceOf(medium(n)).permeability,
    )
    expect([...k].sort((a, b) => b - a)).toEqual(k)
  })
  test('geometric surface by hand: 6 (1 − 0.42)/15 mm = 232 m²/m³; fibres 4 · 0.1/30 µm = 13 333', () => {
    expect(geometricSurface(medium('Sintered spheres'))).toBeCloseTo(232, 6)
    expect(geometricSurface(PAD)).toBeCloseTo(13333.33, 1)
    expect(geometricSurface({ ...PAD, fibre: null })).toBeNull()
  })
  test('a calibrated medium is taken as measured, its model kept beside it', () => {
    const k: Medium = { ...PAD, permeability: 5e-10, permeabilityLow: 4e-10, permeabilityHigh: 6e-10 }
    expect(resistanceOf(k)).toMatchObject({
      from: 'calibrated',
      permeability: 5e-10,
      relative: expect.closeTo(0.1, 9),
    })
    expect(modelResistance(k)?.from).toBe('fibres')
  })
})
