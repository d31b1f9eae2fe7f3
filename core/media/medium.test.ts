import {
  bypass,
  countsForCapacity,
  fibrePad,
  foam,
  FOAM_TABLE,
  GENERIC_MEDIA,
  geometricSurface,
  isStraining,
  layerPressure,
  modelResistance,
  packVolume,
  resistanceOf,
  uvDose,
  type Medium,
} from '.'

const BLANK: Medium = {
  ...(GENERIC_MEDIA[0] as Medium),
  form: 'gravel',
  job: 'biological',
  poresPerInch: null,
  grain: null,
  fibre: null,
  solidity: null,
  voidage: null,
  permeability: null,
  permeabilityLow: null,
  permeabilityHigh: null,
  inertia: null,
  geometricSurface: null,
  packVolume: null,
  packMass: null,
  bulkDensity: 500,
}
const of = (more: Partial<Medium>): Medium => ({ ...BLANK, ...more })

describe('what is known of a medium’s resistance', () => {
  test('the model of its form: foam by its pores, a mat by its fibres, grains by size and voidage; media that move none', () => {
    expect(modelResistance(of({ form: 'foam', poresPerInch: 20 }))).toMatchObject({ from: 'foam-table', permeability: 1e-7, inertia: 290, relative: 0.4 }) // prettier-ignore
    // Davies, by hand: (30e-6)²/(64 · 0.1^1.5 · 1.056) = 4.2112e-10.
    expect(modelResistance(of({ fibre: 3e-5, solidity: 0.1 }))).toMatchObject({ from: 'fibres', relative: 0.5, permeability: expect.closeTo(4.2112e-10, 13) as number }) // prettier-ignore
    // Ergun, by hand: 0.5³ · 0.01²/(150 · 0.25) = 3.3333e-7; 1.75 · 0.5/(0.125 · 0.01) = 700.
    const grains = modelResistance(of({ grain: 0.01, voidage: 0.5 }))
    expect([grains?.from, grains?.relative]).toEqual(['ergun', 0.3])
    expect(grains?.permeability).toBeCloseTo(3.3333e-7, 10)
    expect(grains?.inertia).toBeCloseTo(700, 6)
    expect(modelResistance(of({ form: 'moving', grain: 0.01, voidage: 0.8 }))?.from).toBe('open')
    expect(modelResistance(of({ form: 'contactor' }))).toMatchObject({
      from: 'open',
      inertia: 0,
      relative: 0,
    })
  })
  test('half of what a model asks for is nothing known', () => {
    for (const m of [
      { fibre: 3e-5 },
      { solidity: 0.1 },
      { grain: 0.01 },
      { voidage: 0.5 },
      { form: 'foam' },
      { poresPerInch: 20 },
    ] as const)
      expect(modelResistance(of(m))).toBeNull()
    expect(() => resistanceOf(of({}))).toThrow('permeability')
    // A mat's sizes go before a bed's.
    expect(modelResistance(of({ fibre: 3e-5, solidity: 0.1, grain: 0.01, voidage: 0.5 }))?.from).toBe(
      'fibres',
    )
  })
  test('calibrated goes before any model; its interval of 95 % is four standard uncertainties wide', () => {
    const calibrated = { permeability: 5e-9, permeabilityLow: 4e-9, permeabilityHigh: 6e-9, inertia: 900 }
    expect(resistanceOf(of({ ...calibrated, grain: 0.01, voidage: 0.5 }))).toEqual({ permeability: 5e-9, inertia: 900, from: 'calibrated', relative: expect.closeTo(0.1, 12) as number }) // prettier-ignore
    expect(resistanceOf(of({ ...calibrated, permeabilityLow: null })).relative).toBeCloseTo(0.1, 12)
    expect(
      resistanceOf(of({ ...calibrated, permeabilityHigh: null, permeabilityLow: 1e-9 })).relative,
    ).toBeCloseTo(0.1, 12)
    expect(resistanceOf(of({ ...calibrated, permeabilityHigh: 60e-9 })).relative).toBe(1)
    // Inertia not calibrated is the model's, and none where there is no model.
    expect(resistanceOf(of({ permeability: 5e-9, grain: 0.01, voidage: 0.5 })).inertia).toBeCloseTo(700, 6)
    expect(resistanceOf(of({ permeability: 5e-9 })).inertia).toBe(0)
    for (const permeability of [0, -1e-9])
      expect(() => resistanceOf(of({ permeability }))).toThrow('nothing flows through')
  })
})

describe('surface, job and pack', () => {
  test('surface by geometry: 4 s/d of fibres, 6 (1 − ε)/d of grains, as entered before either (by hand)', () => {
    expect(geometricSurface(of({ fibre: 2e-5, solidity: 0.05 }))).toBeCloseTo(10000, 6)
    expect(geometricSurface(of({ grain: 0.012, voidage: 0.4 }))).toBeCloseTo(300, 9)
    expect(geometricSurface(of({ grain: 0.012, voidage: 0.4, geometricSurface: 77 }))).toBe(77)
    for (const m of [{}, { fibre: 2e-5 }, { solidity: 0.1 }, { grain: 0.01 }, { voidage: 0.4 }])
      expect(geometricSurface(of(m))).toBeNull()
  })
  test('three finenesses strain; biological media count, save wheels and foam', () => {
    expect((['coarse', 'medium', 'fine', 'biological', 'chemical'] as const).map((job) => isStraining({ job }))).toEqual([true, true, true, false, false]) // prettier-ignore
    expect(countsForCapacity({ job: 'biological', form: 'sintered' })).toBe(true)
    for (const form of ['contactor', 'foam'] as const)
      expect(countsForCapacity({ job: 'biological', form })).toBe(false)
    expect(countsForCapacity({ job: 'fine', form: 'sintered' })).toBe(false)
  })
  test('a pack is as printed, else its mass over bulk density, else unknown', () => {
    expect(packVolume(of({ packVolume: 0.002, packMass: 9 }))).toBe(0.002)
    expect(packVolume(of({ packMass: 0.75 }))).toBeCloseTo(0.0015, 12)
    expect(packVolume(of({}))).toBeNull()
  })
})

describe('layers and gaps', () => {
  const water = { density: 997, viscosity: 0.89e-3 }
  test('a pad’s inertia is Ergun’s with the grain of equal surface: 1.75 s/(ε³ 1.5 d) (by hand)', () => {
    expect(fibrePad({ solidity: 0.1, fibre: 3e-5 }).inertia).toBeCloseTo(0.175 / (0.729 * 4.5e-5), 6)
  })
  test('foam lies on its table, and between two rows on the line in logarithms', () => {
    for (const row of FOAM_TABLE) expect(foam(row.poresPerInch)).toEqual({ permeability: expect.closeTo(row.permeability, 12) as number, inertia: expect.closeTo(row.inertia, 6) as number }) // prettier-ignore
    // Half way in the logarithm between 10 and 20: √(1.5e-7 · 1e-7), √(245 · 290).
    const mid = foam(Math.sqrt(200))
    expect(mid.permeability).toBeCloseTo(Math.sqrt(1.5e-14), 11)
    expect(mid.inertia).toBeCloseTo(Math.sqrt(245 * 290), 6)
  })
  test('what goes through and past share one pressure, and add up; with no gap all of it goes through', () => {
    const layer = { thickness: 0.05, area: 0.04, permeability: 3e-8, inertia: 200 }
    const q = 1000 / 3.6e6
    const r = bypass(q, layer, { gap: 0.002, perimeter: 0.8 }, water)
    expect(r.through + r.past).toBeCloseTo(q, 15)
    expect(layerPressure(r.through, layer, water) / r.pressure).toBeCloseTo(1, 9)
    // The slot by hand: 12 μ L v/g² + 1.5 ρ v²/2 at v = past/(g W).
    const v = r.past / (0.002 * 0.8)
    expect((12 * 0.89e-3 * 0.05 * v) / 0.002 ** 2 + (1.5 * 997 * v * v) / 2).toBeCloseTo(r.pressure, 6)
    const tight = bypass(q, layer, { gap: 0, perimeter: 0.8 }, water)
    expect(tight).toMatchObject({ through: q, past: 0, share: 0 })
    expect(tight.pressure / layerPressure(q, layer, water)).toBeCloseTo(1, 12)
    expect(() => bypass(0, layer, { gap: 0.002, perimeter: 0.8 }, water)).toThrow('flow')
    expect(() => bypass(q, layer, { gap: -0.001, perimeter: 0.8 }, water)).toThrow('gap.gap')
  })
})

test('the lamp: dose goes with its light, is the mean over the ring in cloudy water, and a chamber must be wider than its sleeve', () => {
  const c = {
    output: 4,
    lampLength: 0.25,
    sleeveRadius: 0.012,
    chamberRadius: 0.032,
    ageing: 0.8,
    sleeve: 0.9,
    transmittance: 0.8,
  }
  const q = 1.5e-4
  // By hand, α = −ln 0.8/0.01 = 22.314 /m over 20 mm: path (1 − e^−0.44629)/22.314 = 0.016133 m; D = P a s path/Q.
  expect(uvDose(c, q).dose).toBeCloseTo((4 * 0.8 * 0.9 * 0.016133) / q, 1)
  expect(uvDose(c, q).least).toBeCloseTo(((4 * 0.8 * 0.9 * 0.8 ** 2) / (2 * Math.PI * 0.032 * 0.25)) * ((Math.PI * (0.032 ** 2 - 0.012 ** 2) * 0.25) / q), 6) // prettier-ignore
  expect(() => uvDose({ ...c, chamberRadius: 0.012 }, q)).toThrow('chamberRadius')
})
