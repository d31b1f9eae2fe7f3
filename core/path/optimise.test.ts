import { GENERIC_MEDIA, type Medium } from '../media'
import type { CapacitySchool } from '../tanks'
import { HOUSE_RULES, type HouseRule, type OrderFinding } from './audit'
import {
  fitFill,
  isBetter,
  weighCandidate,
  worthDirty,
  type FillArrangement,
  type FitLimits,
} from './optimise'
import { caseWith, chamber, layer, medium, NORMAL } from './tests/support'
import type { Chamber } from '../volumes'

// Sheets of 30 and 20 mm; packs of 1 L, 25 mm in a tray of 0.04 m².
const COARSE = medium('Coarse foam')
const FINE = medium('Fine pad')
const SINTERED = medium('Sintered glass rings')
const [STRAIN, POLISH, LOW] = HOUSE_RULES as [HouseRule, HouseRule, HouseRule]
const MEDIA = [COARSE, FINE, SINTERED]
const LIMITS: FitLimits = { house: STRAIN, stock: NORMAL, minFlow: 0, maxCostMinor: null, media: MEDIA }

const tray = (id: string, mm: number, more: Partial<Chamber> = {}): Chamber =>
  chamber(id, {
    solid: { shape: 'box', width: 0.2, depth: 0.2, height: mm / 1000 + 0.01 },
    usableHeight: mm / 1000,
    ...more,
  })
const fit = (
  chambers: readonly Chamber[],
  more: Partial<FitLimits> = {},
  layers = [] as ReturnType<typeof layer>[],
) => fitFill(caseWith(layers, { chambers, media: GENERIC_MEDIA }), { ...LIMITS, ...more })
const laid = (c: FillArrangement): string[] => c.layers.map((l) => `${l.id} ${l.measure} ${+l.amount.toFixed(6)}`) // prettier-ignore

describe('which of two arrangements is better', () => {
  const of = (says: Partial<Record<CapacitySchool, number | null>>, more: { broken?: number; weights?: number[]; cost?: number; flow?: number; volume?: number } = {}) =>
    ({
      broken: more.broken ?? 0,
      layers: [],
      findings: (more.weights ?? []).map((weight) => ({ weight }) as OrderFinding),
      outcome: {
        flow: more.flow ?? 1e-4,
        cost: { costMinor: more.cost ?? 0 },
        capacity: { volume: more.volume ?? Object.values(says)[0] ?? 0.5, schools: Object.entries(says).map(([school, volume]) => ({ school, volume })) },
      },
    }) as unknown as FillArrangement // prettier-ignore
  const wins = (a: FillArrangement, b: FillArrangement) => [isBetter(a, b), isBetter(b, a)]
  test.each([
    ['fewer limits broken before all else', of({ 'media-mass': 0.1 }, { broken: 1 }), of({ 'media-mass': 0.9 }, { broken: 2 }), [true, false]],
    ['then more carried', of({ 'media-mass': 0.3 }, { weights: [9], cost: 9 }), of({ 'media-mass': 0.2 }), [true, false]],
    ['a five-hundredth apart is alike, and findings decide', of({ 'media-mass': 0.5 }, { weights: [1, 2] }), of({ 'media-mass': 0.501 }, { weights: [2, 2] }), [true, false]],
    ['a little more apart is not', of({ 'media-mass': 0.5 }, { weights: [1] }), of({ 'media-mass': 0.50102 }, { weights: [2] }), [false, true]],
    ['then what costs less', of({ 'media-mass': 0.5 }, { cost: 100, weights: [1] }), of({ 'media-mass': 0.5 }, { cost: 101, weights: [1], flow: 2e-4 }), [true, false]],
    ['then what flows more', of({ 'media-mass': 0.5 }, { flow: 1.001e-4 }), of({ 'media-mass': 0.5 }), [true, false]],
    ['but not by a hair', of({ 'media-mass': 0.5 }, { flow: 1.00005e-4 }), of({ 'media-mass': 0.5 }), [false, false]],
    ['no more than turnover reaches', of({ 'media-mass': 0.9, turnover: 0.2 }), of({ 'media-mass': 0.4, turnover: 0.3 }), [false, true]],
    ['no more than its current feeds', of({ 'media-mass': 0.9, balance: 0.3 }), of({ 'media-mass': 0.8, balance: 0.31 }), [false, true]],
    ['by what the leading school says, whichever it is', of({ oversizing: 0.3, 'media-mass': 0.1 }), of({ oversizing: 0.2, 'media-mass': 0.9 }), [true, false]],
  ] as const)('%s', (_, a, b, expected) => expect(wins(a, b)).toEqual(expected)) // prettier-ignore
})

describe('limits an arrangement does not keep', () => {
  const GOOD = [layer('c', 'low', COARSE, 30), layer('f', 'low', FINE, 20), layer('m', 'high', SINTERED, 70)]
  const broken = (limits: Partial<FitLimits>, layers = GOOD) =>
    weighCandidate(caseWith(layers), layers, { ...LIMITS, ...limits })?.broken
  test('flow and money count from past the limit on; a caution that is no matter of order does not', () => {
    const good = weighCandidate(caseWith(GOOD), GOOD, LIMITS)
    if (!good) throw new Error('works')
    const { flow, cost } = good.outcome
    expect(broken({})).toBe(0)
    expect([broken({ minFlow: flow }), broken({ minFlow: flow * 1.0001 })]).toEqual([0, 1])
    const { costMinor } = cost
    expect([broken({ maxCostMinor: costMinor }), broken({ maxCostMinor: costMinor - 1 })]).toEqual([0, 1])
    expect(broken({ maxCostMinor: 0, minFlow: 1 })).toBe(2)
    // 30 % of the litres past the foam limit: a caution of weight, which breaks no limit.
    const foam = [
      layer('c', 'low', COARSE, 80),
      layer('f', 'high', FINE, 20),
      layer('m', 'high', SINTERED, 50),
    ]
    expect(weighCandidate(caseWith(foam), foam, LIMITS)?.findings.map((f) => f.rule.id)).toContain(
      'foam-for-media',
    )
    expect(broken({}, foam)).toBe(0)
  })
  test('a fault counts, a finer layer ahead of a coarser, and the pad a school is named after', () => {
    // Nothing strains (a fault); fine ahead of coarse (out of order, and nothing coarser ahead of the fine one).
    expect(broken({}, [layer('m', 'high', SINTERED, 70)])).toBe(1)
    expect(broken({}, [layer('f', 'low', FINE, 20), layer('m', 'high', SINTERED, 70)])).toBe(1)
    expect(broken({ house: POLISH })).toBe(1)
    expect(broken({ house: POLISH }, [layer('c', 'low', COARSE, 30), layer('m', 'high', SINTERED, 50), layer('f', 'high', FINE, 20)])).toBe(0) // prettier-ignore
  })
  test('what cannot be worked through is no candidate', () => {
    expect(weighCandidate(caseWith(GOOD), [layer('x', 'low', FINE, 20, { gap: 0.4 })], LIMITS)).toBeNull()
  })
})

describe('how many arrangements are tried (counted by hand)', () => {
  // A tray of 80 mm: none to three packs or loose to the rim, 5; with the fine pad 4, the coarse 4, both 3.
  test.each([
    ['one tray', [tray('low', 80)], {}, 5 + 4 + 4 + 3],
    ['a pad last as well, where the school asks for it', [tray('low', 80)], { house: POLISH }, 16 + 4 + 3],
    ['a second biological medium', [tray('low', 80)], { media: [...MEDIA, medium('Sintered spheres')] }, 32],
    ['medium foam as well, in every set of pads', [tray('low', 110)], { media: [...MEDIA, medium('Medium foam')] }, 6 + 5 + 5 + 4 + 5 + 4 + 4 + 3],
    ['a cartridge is no pad', [tray('low', 80)], { media: [...MEDIA, medium('Floss cartridge')] }, 16],
    ['floss has no sheet: 20 mm of it', [tray('low', 80)], { media: [medium('Floss, loose'), SINTERED] }, 5 + 4],
    ['pads that leave nothing are not tried', [tray('low', 50)], {}, 4 + 3 + 2],
    ['nor a filling of less than 5 mm', [tray('low', 34)], {}, 3 + 2 + 1],
    ['but one of five', [tray('low', 35)], {}, 3 + 2 + 2],
    ['no packs of what has none: loose only', [tray('low', 80)], { media: [{ ...SINTERED, packVolume: null }] }, 2],
    ['two trays: each with each', [tray('low', 80), tray('high', 80)], {}, 25 + 20 + 20 + 15],
    ['pads that do not fit into the first go on in the next, and no media before them', [tray('low', 40), tray('high', 40)], {}, 9 + 6 + 6 + 2],
    ['pads that fit to the millimetre stay', [tray('low', 50), tray('high', 40)], {}, 4 * 3 + 3 * 3 + 2 * 3 + 1 * 3],
    ['no media in a chamber for straining', [tray('low', 80, { role: 'pre-filter' }), tray('high', 80)], {}, 4 * 5],
    ['nothing into a settling space', [tray('void', 80, { role: 'settling-void' }), tray('low', 80)], {}, 16],
    ['nor where the pump sits', [tray('low', 80), tray('well', 80, { role: 'pump-well' })], {}, 16],
    ['nor into a core that water enters from all round', [tray('low', 80), tray('core', 80, { way: 'inward' })], {}, 16],
  ] as [string, Chamber[], Partial<FitLimits>, number][])('%s', (_, chambers, limits, tried) =>
    expect(fit(chambers, limits).tried).toBe(tried),
  ) // prettier-ignore
  test('none in a pot whose media move', () => {
    const pot = caseWith([], { kind: 'fluidised', chambers: [tray('low', 80)] })
    expect(fitFill(pot, LIMITS).tried).toBe(0)
  })
  test('all of 256, of more only each filled in its turn', () => {
    const only = { media: [SINTERED] }
    // 350 mm: none to 14 packs or loose, 16 in each.
    expect(fit([tray('a', 350), tray('b', 350)], only).tried).toBe(256)
    // 375 mm in one of them: 17 · 16; then one after the other, 1 + 16 + 15.
    expect(fit([tray('a', 375), tray('b', 350)], only).tried).toBe(32)
  })
})

describe('what comes of it', () => {
  const packs = (c: FillArrangement) =>
    c.layers.filter((l) => l.measure === 'packs').map((l) => `${l.chamberId} ${l.amount}`)
  test('pads first, then media in whole packs or loose to the rim, each layer as such', () => {
    // Fed little, so that media bind and not the oxygen of a tank that nothing stirs.
    const stock = { ...NORMAL, feedPerVolume: NORMAL.feedPerVolume / 2 }
    const { best } = fit([tray('low', 80), tray('high', 80)], { stock })
    expect(laid(best)).toEqual([
      'low-p0 height 0.03',
      'low-p1 height 0.02',
      'low-m height 0.03',
      'high-m height 0.08',
    ])
    expect(best.layers[2]).toEqual({ id: 'low-m', chamberId: 'low', mediumId: SINTERED.id, measure: 'height', amount: 0.03, bagged: false, gap: 0, crossed: true, sealed: false, fouled: 0 }) // prettier-ignore
    expect(best.broken).toBe(0)
  })
  test('loose to the rim is to the millimetre below it', () => {
    expect(laid(fit([tray('a-chamber-of-a-long-name', 80.7)], { media: [SINTERED], house: LOW }).best)).toEqual(['a-chambe-m height 0.08']) // prettier-ignore
  })
  test('the pad of a school that wants it last stands last, in the last chamber', () => {
    const { best } = fit([tray('low', 80), tray('high', 80)], { house: POLISH })
    expect(laid(best)).toEqual(['low-p0 height 0.03', 'low-m packs 2', 'high-m height 0.06', 'high-t0 height 0.02']) // prettier-ignore
    expect(best.layers.at(-1)?.mediumId).toBe(FINE.id)
  })
  test('beside a gap round the tray the fine pad is cut to the wall, and nothing else is', () => {
    const sealed = (wallGap: number | null, house = STRAIN) =>
      fit([tray('low', 80, { wallGap }), tray('high', 80, { wallGap })], { house }).best.layers.map(
        (l) => l.sealed,
      )
    expect(sealed(null)).toEqual([false, false, false, false])
    expect(sealed(0.0002)).toEqual([false, true, false, false])
    expect(sealed(0.0002, POLISH)).toEqual([false, false, false, true])
  })
  test('within a price it takes what that buys', () => {
    // Pads at 3.90 and 4.90, packs at 12.90: two packs come to 34.60.
    const { best } = fit([tray('low', 80), tray('high', 80)], { maxCostMinor: 3460 })
    expect(best.outcome.cost.costMinor).toBe(3460)
    expect(packs(best).map((p) => Number(p.split(' ')[1])).reduce((a, b) => a + b, 0)).toBe(2) // prettier-ignore
    expect(fit([tray('low', 80), tray('high', 80)], { maxCostMinor: 3459 }).best.outcome.cost.costMinor).toBe(
      2170,
    )
  })
  test('where not all are tried the widest chamber is filled first: it costs the least head', () => {
    const wide = tray('wide', 350, { solid: { shape: 'box', width: 0.3, depth: 0.2, height: 0.36 } })
    const free = { media: [SINTERED as Medium], house: LOW, maxCostMinor: 3 * 1290 }
    expect(packs(fit([tray('low', 350), wide, tray('high', 350)], free).best)).toEqual(['wide 3'])
  })
  test('what lies where nothing is fitted stays', () => {
    const chambers = [tray('void', 40, { role: 'settling-void' }), tray('low', 80), tray('high', 80)]
    const rings = layer('r', 'void', medium('Ceramic rings'), 30)
    const { best, start } = fit(chambers, {}, [rings, layer('m', 'low', SINTERED, 20)])
    expect(best.layers[0]).toEqual(rings)
    expect(best.layers.filter((l) => l.id === 'm')).toEqual([])
    expect(start.layers.map((l) => l.id)).toEqual(['r', 'm'])
  })
  test('from a start that cannot be worked through it goes from an empty body', () => {
    const { start, best } = fit([tray('low', 80)], {}, [layer('x', 'low', FINE, 20, { gap: 0.4 })])
    expect(start.layers).toEqual([])
    expect(best.layers.length).toBeGreaterThan(1)
  })
})

describe('straining is judged with it', () => {
  test('T/(T + 30) of its days, less seven tenths of what comes to the media (by hand)', () => {
    expect(worthDirty({ days: 30, within: 365, toMedia: 0 })).toBeCloseTo(0.5, 12)
    expect(worthDirty({ days: 90, within: 365, toMedia: 0.5 })).toBeCloseTo(0.75 * 0.65, 12)
    expect(worthDirty({ days: 90, within: 365, toMedia: 0 }, 15)).toBeCloseTo(1 / 3, 12)
    expect(worthDirty({ days: null, within: 270, toMedia: 0 })).toBeCloseTo(0.9, 12)
  })
  test('what clogs in two weeks loses to what lasts three months, within what the house allows', () => {
    // Either medium keeps as many limits; only the stand-in for a forecast tells them apart.
    const SPHERES = medium('Sintered spheres')
    const coarser = { ...COARSE, id: 'coarser', name: 'Coarse foam again' }
    const media = [COARSE, coarser, FINE, SINTERED, SPHERES]
    const has = (layers: readonly { readonly mediumId: string }[], id: string): boolean =>
      layers.some((l) => l.mediumId === id)
    const bodies = { chambers: [tray('low', 80)], media: [...GENERIC_MEDIA, coarser] }
    const lasting = (id: string) =>
      fitFill(caseWith([], bodies), {
        ...LIMITS,
        media,
        dirt: (layers) => ({ days: has(layers, id) ? 90 : 14, within: 365, toMedia: 0 }),
      })
    for (const id of [COARSE.id, coarser.id]) {
      const { best, dirt } = lasting(id)
      expect([has(best.layers, id), dirt.best?.days]).toEqual([true, 90])
    }
    expect(fit([tray('low', 80)]).dirt).toEqual({ best: null, start: null })
  })
})
