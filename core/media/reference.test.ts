import fc from 'fast-check'
import {
  bypass,
  ergun,
  fibrePad,
  foam,
  FOAM_TABLE,
  layerPressure,
  UV_CLASSES,
  uvDose,
  type UvChamber,
} from '.'

const WATER = { density: 997, viscosity: 0.89e-3 }
const FLOW = 1000 / 3.6e6
const FINE = { thickness: 0.02, area: 0.04, permeability: 8e-10, inertia: 3000 }
const COARSE = { thickness: 0.05, area: 0.04, permeability: 3e-8, inertia: 200 }
const GRAINS = { thickness: 0.1, area: 0.04, ...ergun({ voidage: 0.5, diameter: 0.012 }) }

// Shares worked out apart from this code with the stated area 0.04 m², perimeter 0.8 m, ΣK 1.5, 1000 L/h (±0.1 point).
test.each([
  ['fine pad of 2 cm, 1 mm gap', FINE, 0.001, 0.556],
  ['fine pad of 2 cm, 2 mm gap', FINE, 0.002, 0.845],
  ['grains of 12 mm, 10 cm, 2 mm gap', GRAINS, 0.002, 0.075],
  ['grains of 12 mm, 10 cm, 3 mm gap', GRAINS, 0.003, 0.186],
  ['coarse foam of 5 cm, 2 mm gap', COARSE, 0.002, 0.267],
] as const)('%s: the share that slips past', (_, layer, gap, share) => {
  const r = bypass(FLOW, layer, { gap, perimeter: 0.8 }, WATER)
  expect(Math.abs(r.share - share)).toBeLessThan(0.001)
})

describe('bypass', () => {
  const gap = fc.double({ min: 1e-4, max: 8e-3, noNaN: true })
  test('water is kept, both ways have the same pressure, and a wider gap takes more', () => {
    fc.assert(
      fc.property(
        gap,
        fc.double({ min: 1e-5, max: 1e-3, noNaN: true }),
        fc.constantFrom(FINE, COARSE, GRAINS),
        (g, q, layer) => {
          const r = bypass(q, layer, { gap: g, perimeter: 0.8 }, WATER)
          expect(r.through + r.past).toBeCloseTo(q, 14)
          expect(layerPressure(r.through, layer, WATER) / r.pressure).toBeCloseTo(1, 6)
          const v = r.past / (g * 0.8)
          const slot = (12 * 0.89e-3 * layer.thickness * v) / g ** 2 + (1.5 * 997 * v * v) / 2
          expect(slot / r.pressure).toBeCloseTo(1, 6)
          expect(bypass(q, layer, { gap: g * 1.1, perimeter: 0.8 }, WATER).share).toBeGreaterThan(r.share)
        },
      ),
    )
  })
  test('no gap, no bypass; a gap that cannot be and a layer nothing passes are refused by name', () => {
    expect(bypass(FLOW, FINE, { gap: 0, perimeter: 0.8 }, WATER).share).toBe(0)
    expect(() => bypass(FLOW, FINE, { gap: -1, perimeter: 0.8 }, WATER)).toThrow('gap.gap')
    expect(() => bypass(FLOW, { ...FINE, permeability: 0 }, { gap: 0.001, perimeter: 0.8 }, WATER)).toThrow(
      'layer.permeability',
    )
    expect(() => bypass(0, FINE, { gap: 0.001, perimeter: 0.8 }, WATER)).toThrow('flow')
  })
})

describe('resistance of media', () => {
  test('Ergun by hand: ε 0.4, d 5 mm: k = 0.4³ · 25e-6 / (150 · 0.36), C = 1.75 · 0.6 / (0.064 · 0.005)', () => {
    const r = ergun({ voidage: 0.4, diameter: 0.005 })
    expect(r.permeability).toBeCloseTo((0.064 * 25e-6) / 54, 14)
    expect(r.inertia).toBeCloseTo(3281.25, 8)
  })
  test('Ergun’s own friction factor: f = 150/Re + 1.75 for Δp/L · ε³ d / (ρ v² (1−ε)) (definition)', () => {
    const [e, d, v] = [0.42, 0.004, 0.01]
    const r = ergun({ voidage: e, diameter: d })
    const gradient = (WATER.viscosity / r.permeability) * v + WATER.density * r.inertia * v * v
    const f = (gradient * e ** 3 * d) / (WATER.density * v * v * (1 - e))
    const re = (WATER.density * v * d) / (WATER.viscosity * (1 - e))
    expect(f).toBeCloseTo(150 / re + 1.75, 8)
  })
  test('foam meets its table and grows finer without a jump', () => {
    for (const row of FOAM_TABLE)
      expect(foam(row.poresPerInch).permeability).toBeCloseTo(row.permeability, 12)
    fc.assert(
      fc.property(fc.double({ min: 5, max: 59, noNaN: true }), (ppi) => {
        expect(foam(ppi * 1.01).permeability).toBeLessThan(foam(ppi).permeability)
        expect(foam(ppi * 1.01).inertia).toBeGreaterThan(foam(ppi).inertia)
      }),
    )
    expect(() => foam(80)).toThrow('poresPerInch')
  })
  test('a denser pad of finer fibre lets less through; scales with the fibre squared (Davies 1952; from memory)', () => {
    // By hand, d 30 µm, s 0.1: 9e-10 / (64 · 0.0316228 · 1.056) = 4.2112e-10 m²; d 25 µm, s 0.03: 1.8765e-9 m².
    expect(fibrePad({ solidity: 0.1, fibre: 30e-6 }).permeability / 4.2112e-10).toBeCloseTo(1, 4)
    expect(fibrePad({ solidity: 0.03, fibre: 25e-6 }).permeability / 1.8765e-9).toBeCloseTo(1, 3)
    const a = fibrePad({ solidity: 0.05, fibre: 40e-6 })
    expect(fibrePad({ solidity: 0.1, fibre: 40e-6 }).permeability).toBeLessThan(a.permeability)
    expect(fibrePad({ solidity: 0.05, fibre: 20e-6 }).permeability).toBeCloseTo(a.permeability / 4, 14)
    expect(() => fibrePad({ solidity: 0.6, fibre: 4e-5 })).toThrow('solidity')
    expect(() => ergun({ voidage: 0.1, diameter: 0.01 })).toThrow('voidage')
  })
})

describe('UV-C', () => {
  const chamber: UvChamber = {
    output: 3,
    lampLength: 0.2,
    sleeveRadius: 0.012,
    chamberRadius: 0.03,
    ageing: 1,
    sleeve: 1,
    transmittance: 1,
  }
  test('in clear water the dose is P ℓ-independent: D = P (b − a) / Q (by hand), so half the flow is twice the dose', () => {
    const r = uvDose(chamber, FLOW)
    expect(r.dose).toBeCloseTo((3 * 0.018) / FLOW, 6)
    expect(uvDose(chamber, FLOW / 2).dose).toBeCloseTo(2 * r.dose, 6)
    expect(r.exposure).toBeCloseTo((Math.PI * (0.03 ** 2 - 0.012 ** 2) * 0.2) / FLOW, 8)
  })
  test('cloudy water, an old lamp and a dirty sleeve each cost dose; classes of NSF/ANSI 55 are 16 and 40 mJ/cm²', () => {
    const clear = uvDose(chamber, FLOW).dose
    expect(uvDose({ ...chamber, transmittance: 0.7 }, FLOW).dose).toBeLessThan(clear)
    expect(uvDose({ ...chamber, ageing: 0.6, sleeve: 0.5 }, FLOW).dose).toBeCloseTo(0.3 * clear, 8)
    expect([UV_CLASSES.B, UV_CLASSES.A]).toEqual([160, 400])
    // Along the wall in clear water: D = P/(2π b ℓ) · π (b² − a²) ℓ/Q = P (b² − a²)/(2 b Q), by hand.
    expect(uvDose(chamber, FLOW).least).toBeCloseTo((3 * (0.03 ** 2 - 0.012 ** 2)) / (2 * 0.03 * FLOW), 6)
    expect(uvDose({ ...chamber, transmittance: 0.7 }, FLOW).least).toBeCloseTo(
      uvDose(chamber, FLOW).least * 0.7 ** 1.8,
      6,
    )
    expect(() => uvDose({ ...chamber, chamberRadius: 0.01 }, FLOW)).toThrow('chamberRadius')
  })
})
