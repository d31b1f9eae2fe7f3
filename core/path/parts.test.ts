import { bedTransfer } from '../biology'
import { CoreError } from '../errors'
import type { HookupRecord } from '../trials'
import { piecesOf } from '../media'
import { HOUSE_RULES } from './audit'
import { filmCounts, filmsAt, filmsOf, filmsOfMass } from './films'
import { permeabilityFigure, surfaceFigure, usualBypass } from './mediumFigures'
import { outcomeOf } from './outcome'
import { outletOf } from './outlet'
import { outcomeWithout, studyOf } from './study'
import { caseWith, chamber, layer, medium, NORMAL } from './tests/support'

const FINE = medium('Fine pad')
const COARSE = medium('Coarse foam')
const SINTERED = medium('Sintered glass rings')
const STRAIN = HOUSE_RULES[0]

describe('a medium by itself', () => {
  test('permeability by Kozeny and Carman as Ergun has them: d² ε³ ÷ [150 (1 − ε)²]; doubled standard uncertainty', () => {
    // 5 mm grains, ε 0.4: 25e-6 · 0.064 ÷ (150 · 0.36) = 2.963e-8 m².
    const grains = { ...SINTERED, permeability: null, inertia: null, fibre: null, solidity: null, poresPerInch: null, calibration: null, grain: 0.005, voidage: 0.4 }
    const f = permeabilityFigure(grains as never)
    expect(f?.value).toBeCloseTo(29.63, 1)
    expect(f?.provenance).toBe('computed')
    expect(f?.uncertainty ?? 0).toBeGreaterThan(0)
    expect(f?.working?.map((w) => w.symbol)).toEqual(['d', 'ε', 'C'])
    expect(permeabilityFigure({ ...grains, grain: null, voidage: null } as never)).toBeNull()
  })
  test('what goes round a usual layer: the same pressure over gap and layer (by hand, from the figure’s own flows)', () => {
    const f = usualBypass(FINE, 0.002)
    const [through, past] = f?.working?.map((w) => w.value) ?? []
    expect((through ?? 0) + (past ?? 0)).toBeCloseTo(1000 / 3.6e6, 9)
    expect(f?.value).toBeCloseTo((past ?? NaN) / (1000 / 3.6e6), 9)
    // Water at 25 °C: 997.05 kg/m³, 0.8903 mPa s. The gap: 0.002 × 0.8 m².
    const v = (past ?? NaN) / (0.002 * 0.8)
    const thickness = FINE.sheetThickness ?? 0.05
    const gap = (12 * 0.8903e-3 * thickness * v) / 4e-6 + (1.5 * 997.05 * v * v) / 2
    const k = (permeabilityFigure(FINE)?.value ?? NaN) * 1e-9
    const c = permeabilityFigure(FINE)?.working?.find((w) => w.symbol === 'C')?.value ?? NaN
    const u = (through ?? NaN) / 0.04
    expect(gap / (thickness * ((0.8903e-3 * u) / k + 997.05 * c * u * u))).toBeCloseTo(1, 2)
    expect(usualBypass(FINE, 0.001)?.value).toBeLessThan(f?.value ?? 0)
    expect(f?.label).toBe('Bypass at 2 mm')
    expect(usualBypass({ ...FINE, permeability: null, fibre: null, solidity: null, grain: null, voidage: null, poresPerInch: null } as never, 0.002)).toBeNull()
  })
  test('surface of a litre by its size: 6 (1 − ε)/d; of fibres 4 s/d_f; as entered it is a rule', () => {
    // 6 · 0.6 ÷ 0.005 = 720 m²/m³; 4 · 0.04 ÷ 30e-6 = 5333 m²/m³.
    const bare = { ...SINTERED, geometricSurface: null, fibre: null, solidity: null, poresPerInch: null, grain: 0.005, voidage: 0.4 }
    expect(surfaceFigure(bare as never)).toMatchObject({ value: expect.closeTo(0.72, 6) as unknown, provenance: 'computed', formula: '6 (1 − ε)/d', source: 'geometry' })
    expect(surfaceFigure(bare as never)?.working?.map((w) => w.symbol)).toEqual(['d', 'ε'])
    const fibres = { ...FINE, geometricSurface: null, grain: null, voidage: null, fibre: 30e-6, solidity: 0.04 }
    expect(surfaceFigure(fibres as never)).toMatchObject({ value: expect.closeTo(5.333, 3) as unknown, formula: '4 s/d_f' })
    const entered = surfaceFigure({ ...SINTERED, geometricSurface: 800 })
    expect(entered).toMatchObject({ value: 0.8, provenance: 'rule', source: 'as entered' })
    expect(entered).not.toHaveProperty('formula')
    expect(surfaceFigure({ ...bare, grain: null, voidage: null } as never)).toBeNull()
  })
}) // prettier-ignore

describe('films', () => {
  test('of what carries one: no wheel, nothing thrown away within four months, nothing without a surface', () => {
    const m = { ...SINTERED, lifeDays: null, effectiveSurface: 500 }
    expect([m, { ...m, lifeDays: 121 }, { ...m, form: 'foam' as const }, { ...m, lifeDays: 61 }].map(filmCounts)).toEqual([true, true, true, true])
    expect([{ ...m, lifeDays: 60 }, { ...m, form: 'contactor' as const }, { ...m, form: 'carbon' as const, job: 'chemical' as const, effectiveSurface: null }].map(filmCounts)).toEqual([false, false, false])
  })
  const at = (volume: number, fouled: number, through: number, counts: boolean, m = SINTERED) =>
    ({ placed: { medium: { ...m, effectiveSurface: 1000, lifeDays: null }, volume, area: 0.04, layer: { fouled } }, through, counts }) as never
  test('area is litres times usable surface, less what is fouled; weighed media count as weighed', () => {
    const layers = [at(0.002, 0, 1e-4, true), at(0.001, 0.25, 5e-5, false)]
    expect(filmsOf({ flow: 2e-4, layers, worth: { calibration: null } })).toEqual({ flow: 2e-4, layers: [{ area: 2, flow: 1e-4, transfer: bedTransfer(2.5e-3, piecesOf(SINTERED)) }, { area: 0.75, flow: 5e-5, transfer: bedTransfer(1.25e-3, piecesOf(SINTERED)) }] })
    expect(filmsOf({ flow: 2e-4, layers, worth: { calibration: 1.5 } }).layers.map((l) => l.area)).toEqual([3, 0.75])
  })
  test('of kilograms: 2.29 m² each (science), met by a share of the water; at another flow each keeps its share', () => {
    expect(filmsOfMass(2, 1e-4, 0.8)).toEqual({ flow: 1e-4, layers: [{ area: expect.closeTo(4.58, 1) as unknown, flow: expect.closeTo(8e-5, 12) as unknown, transfer: bedTransfer(4e-3, { d: 0.015, voidage: 0.45 }) }] })
    const films = { flow: 2e-4, layers: [{ area: 1, flow: 1e-4 }] }
    expect(filmsAt(films, 4e-4)).toEqual({ flow: 4e-4, layers: [{ area: 1, flow: 2e-4 }] })
    expect(filmsAt({ ...films, flow: 0 }, 4e-4).layers[0]?.flow).toBe(0)
  })
}) // prettier-ignore

describe('how the water comes back', () => {
  const own = caseWith([]).hookup as HookupRecord
  const bar = { kind: 'spray-bar', id: 'b', label: 'Bar', holes: 18, holeDiameter: 0.003, dischargeCoefficient: 0.6 } as const
  test('as noted, else by its kind and the end of its run', () => {
    const noted = { id: 'o', name: 'Mine', kind: 'lip', aim: 'glass', depth: 0, diameter: 0.02, holes: 1, spacing: 0.02, width: 0.2 } as const
    expect(outletOf('canister', { ...own, outlets: [noted] })).toBe(noted)
    expect(outletOf('canister', own)).toMatchObject({ kind: 'nozzle', aim: 'along', depth: 0.05, diameter: 0.016, holes: 1 })
    expect(outletOf('canister', { ...own, outletAboveWater: 0.1 }).depth).toBe(0)
    expect(outletOf('canister', { ...own, segments: [...own.segments, bar] })).toMatchObject({ kind: 'spray-bar', holes: 18, diameter: 0.003, depth: 0.05 })
    expect(outletOf('hang-on-back', null)).toMatchObject({ kind: 'lip', depth: 0 })
    expect(outletOf('hang-on-back', own).depth).toBe(0)
    expect(outletOf('air-sponge', own)).toMatchObject({ kind: 'airlift', depth: 0, diameter: 0.02 })
    expect(outletOf('canister', null).depth).toBe(0)
    expect(outletOf('hang-on-back', null).width).toBeGreaterThan(0.05)
  })
}) // prettier-ignore

describe('a study', () => {
  const fill = (id: string, ...layers: ReturnType<typeof layer>[]) => ({ id, name: id, basis: 'variant', layers }) as const
  const good = fill('good', layer('c', 'low', COARSE, 30), layer('f', 'low', FINE, 20), layer('m', 'high', SINTERED, 70))
  const bad = fill('bad', layer('m', 'low', SINTERED, 70))
  const { fill: _, ...base } = caseWith([])
  const asked: string[] = []
  const study = studyOf((f) => (asked.push(f.id), base))
  const q = { house: STRAIN as NonNullable<typeof STRAIN>, stock: NORMAL }
  test('what it comes to, what is wrong, what would help; held against another, which is worked out once', () => {
    const alone = study({ ...q, fill: good })
    expect([alone.differences, alone.contradictions]).toEqual([null, []])
    expect(alone.outcome.flow).toBeCloseTo(outcomeOf({ ...base, fill: good }, NORMAL).flow, 12)
    expect(alone.sensitivity.length).toBeGreaterThan(2)
    expect(study({ ...q, fill: bad }).findings.map((f) => f.rule.id)).toContain('strain-before-media')
    asked.length = 0
    const [first, second] = [study({ ...q, fill: bad, against: good }), study({ ...q, fill: bad, against: good })]
    expect(asked).toEqual(['bad', 'good', 'bad'])
    expect(second.differences).toEqual(first.differences)
    const flow = first.differences?.find((d) => d.label === 'Installed flow with this setup')
    expect(flow).toBeDefined()
    study({ ...q, fill: bad, against: fill('other', layer('m', 'high', SINTERED, 60)) })
    expect(asked).toEqual(['bad', 'good', 'bad', 'bad', 'other'])
  })
  test('while a layer is dragged there is no sensitivity', () => {
    expect(study({ ...q, fill: good, quick: true }).sensitivity).toEqual([])
  })
  test('what an error is about is left out, and the rest is worked out; where nothing helps, nothing', () => {
    const errorOf = (c: Parameters<typeof outcomeOf>[0]): CoreError => {
      try {
        outcomeOf(c, NORMAL, true)
      } catch (error) {
        if (error instanceof CoreError) return error
      }
      throw new Error('no error')
    }
    const broken = caseWith([layer('x', 'low', FINE, 20, { gap: 0.5 }), layer('y', 'low', COARSE, 20, { gap: 0.5 }), layer('m', 'high', SINTERED, 60)])
    const rest = outcomeWithout(broken, NORMAL, errorOf(broken))
    expect(rest?.layers.map((l) => l.placed.layer.id)).toEqual(['m'])
    const wide = caseWith([layer('m', 'low', SINTERED, 60, { sealed: false })], { chambers: [chamber('low', { wallGap: 0.5 }), chamber('high')] })
    expect(outcomeWithout(wide, NORMAL, errorOf(wide))?.layers.map((l) => l.placed.layer.id)).toEqual(['m'])
    expect(outcomeWithout(broken, NORMAL, new CoreError('nothing', 'nowhere', null, {}, 'nobody knows'))).toBeNull()
  })
}) // prettier-ignore
