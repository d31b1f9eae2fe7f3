import { GENERIC_MEDIA, resistanceOf } from '../media'
import type { Element } from '../network'
import type { PathCase, SecondFilter } from './case'
import { outcomeOf } from './outcome'
import { asSecond } from './second'
import { caseWith, chamber, layer, medium, NORMAL } from './tests/support'
import { topologyOf } from './topology'

// How a body is laid out as a network, each element's numbers by hand.
const COARSE = medium('Coarse foam')
const FINE = medium('Fine pad')
const SINTERED = medium('Sintered glass rings')
const of = (layers: ReturnType<typeof layer>[], more: Partial<PathCase> = {}) =>
  topologyOf(caseWith(layers, more))
const ways = (elements: readonly Element[]) => elements.map((e) => `${e.id} ${e.from}>${e.to}`)
const element = (t: ReturnType<typeof of>, id: string) => {
  const e = t.pumped.elements.find((x) => x.id === id)
  if (!e) throw new Error(id)
  return e as Element & Record<string, number>
}
const c30 = layer('c', 'low', COARSE, 30)
const f20 = layer('f', 'low', FINE, 20)
const m60 = layer('m', 'high', SINTERED, 60)

describe('a body as a network', () => {
  test('in a row: intake and suction, layer on layer, the pump, the return', () => {
    const t = of([c30, f20, m60])
    expect(ways(t.pumped.elements)).toEqual([
      'seg:intake source>n1',
      'seg:suction n1>n2',
      'layer:c n2>n4',
      'layer:f n4>n3',
      'layer:m n3>n5',
      'pump n5>n6',
      'seg:return n6>n7',
      'seg:exit n7>return',
    ])
    expect([t.gravity, t.pumped.heads]).toEqual([null, { source: 0, return: 0 }])
    expect(t.chambers.map((c) => c.chamber.id)).toEqual(['low', 'high'])
  })
  test('what takes no head is left out; the pump has its place among the chambers, and only once', () => {
    const well = chamber('well', { role: 'pump-well', use: 'machinery' })
    const row = (...chambers: ReturnType<typeof chamber>[]) => of([c30, m60], { chambers, hookup: null }).pumped.elements.map((e) => e.id) // prettier-ignore
    expect(row(chamber('low'), well, chamber('high'))).toEqual(['layer:c', 'pump', 'layer:m'])
    expect(row(well, chamber('low'), chamber('high'))).toEqual(['pump', 'layer:c', 'layer:m'])
    expect(row(chamber('low'), well, chamber('high'), { ...well, id: 'well2' })).toEqual(['layer:c', 'pump', 'layer:m']) // prettier-ignore
    expect(row(chamber('low'), chamber('high'))).toEqual(['layer:c', 'layer:m', 'pump'])
    const { hookup } = caseWith([])
    const lamp = { kind: 'hose', id: 'lamp', label: 'Lamp', length: 0, diameter: 0.016, roughness: 0 } as const // prettier-ignore
    const ids = of([], { hookup: hookup && { ...hookup, segments: [lamp, ...hookup.segments] } }).pumped.elements.map((e) => e.id) // prettier-ignore
    expect(ids.filter((id) => id === 'seg:lamp')).toHaveLength(0)
  })
  test('two chambers side by side have their ends in common, however many layers each has', () => {
    const side = [chamber('low'), chamber('high', { beside: true })]
    expect(ways(of([c30, f20, m60], { chambers: side, hookup: null }).pumped.elements)).toEqual(['layer:c source>n2', 'layer:f n2>n1', 'layer:m source>n1', 'pump n1>return']) // prettier-ignore
  })
  test('dirt leaves the cube of what is free of it: k and C by hand', () => {
    const { permeability, inertia } = resistanceOf(FINE)
    // 40 % full: 0.6³ = 0.216.
    const e = element(of([{ ...f20, fouled: 0.4 }]), 'layer:f')
    expect([(e.permeability ?? 0) / permeability, (e.inertia ?? 0) / inertia]).toEqual([expect.closeTo(0.216, 12), expect.closeTo(1 / Math.sqrt(0.216), 12)]) // prettier-ignore
    expect([e.thickness, e.area]).toEqual([0.02, expect.closeTo(0.04, 12)])
  })
  test('a gap beside layers is one slot for as long as it is of one width', () => {
    const t = of([{ ...c30, gap: 0.002 }, { ...f20, gap: 0.002 }, layer('x', 'low', FINE, 20, { gap: 0.001 }), m60], { hookup: null }) // prettier-ignore
    const slots = t.pumped.elements.filter((e) => e.kind === 'slot')
    expect(slots.map((e) => [e.id, e.label, e.from, e.to, e.gap, +e.length.toFixed(9), +e.perimeter.toFixed(9)])).toEqual([
      ['gap:c', 'Gap at coarse foam (10 ppi)', 'source', 'n3', 0.002, 0.05, 0.8],
      ['gap:x', 'Gap at fine pad', 'n3', 'n1', 0.001, 0.02, 0.8],
    ]) // prettier-ignore
    expect(t.parts.get('gap:c')).toEqual({ what: 'gap', chamberId: 'low', layerIds: ['c', 'f'] })
    // A core that water enters all round has no edge for a gap.
    const core = of([{ ...c30, gap: 0.002 }], { chambers: [chamber('low', { way: 'inward' })] })
    expect(core.pumped.elements.filter((e) => e.kind === 'slot')).toEqual([])
  })
  test('the gap round a tray runs between layers that are cut to the wall; half of it lies open at its edge', () => {
    const walled = { chambers: [chamber('low', { wallGap: 0.003 }), chamber('high')], hookup: null }
    const slots = (...layers: ReturnType<typeof layer>[]) =>
      of(layers, walled)
        .pumped.elements.filter((e) => e.kind === 'slot')
        .map((e) => `${e.id} ${e.label} ${e.from}>${e.to} ${e.length.toFixed(3)} ${e.perimeter.toFixed(3)}`)
    const x10 = layer('x', 'low', COARSE, 10)
    expect(slots(c30, f20, x10)).toEqual(['wall:low:0 Gap around low source>n1 0.060 0.400'])
    expect(slots(c30, { ...f20, sealed: true }, x10)).toEqual(['wall:low:0 Gap around low source>n2 0.030 0.400', 'wall:low:2 Gap around low n3>n1 0.010 0.400']) // prettier-ignore
    expect(slots({ ...c30, sealed: true })).toEqual([])
    expect(slots(c30, { ...f20, sealed: true })).toEqual(['wall:low:0 Gap around low source>n2 0.030 0.400'])
    expect(() => of([c30], { chambers: [chamber('low', { wallGap: 0.2 })] })).toThrow(/wallGap/)
  })
  test('over a sill water falls through a weir as wide as a side: 1/(2g (C b h)²)', () => {
    const spill = (width: number) =>
      element(of([c30], { chambers: [chamber('low', { overflowSill: 0.02, solid: { shape: 'box', width, depth: width, height: 0.09 } })] }), 'spill:low') // prettier-ignore
    // C 0.6, 0.2 m wide, 10 mm open: 1.2e-3 m², 1/(2 · 9.80665 · 1.44e-6) = 35 408.
    expect(spill(0.2)).toMatchObject({
      kind: 'weir',
      label: 'Overflow of low',
      sill: 0.02,
      from: 'n2',
      to: 'n3',
    })
    expect(spill(0.2).resistance).toBeCloseTo(35408, -1)
    // No narrower than 10 mm.
    expect((spill(0.008).resistance ?? 0) / 35408).toBeCloseTo(400, 0)
  })
  test('what the body takes counts in a bore of 16 mm; nothing, where nothing is known', () => {
    // A = 2.0106e-4 m²: K = 2 · 9.80665 · A² · 2e7 = 15.857.
    expect(element(of([], { rest: 2e7 }), 'rest')).toMatchObject({ label: 'Filter body', diameter: 0.016, count: 1 }) // prettier-ignore
    expect(element(of([], { rest: 2e7 }), 'rest').lossCoefficient).toBeCloseTo(15.857, 2)
    expect(of([]).pumped.elements.map((e) => e.id)).not.toContain('rest')
  })
  test('a second filter in the row or in a branch, stopped or running', () => {
    const second: SecondFilter = { label: 'Its like', arrangement: 'series', running: true, shutOffHead: 1, maxFlow: 2e-4, exponent: 2, lossCoefficient: 7 } // prettier-ignore
    const row = (more: Partial<SecondFilter>) =>
      ways(of([c30], { second: { ...second, ...more } }).pumped.elements).filter((w) => /second|pump/.test(w))
    expect(row({})).toEqual(['pump n3>n5', 'second-pump n5>n6', 'second-body n6>n7'])
    expect(row({ running: false })).toEqual(['pump n3>n5', 'second-body n5>n6'])
    expect(row({ arrangement: 'beside' })).toEqual(['pump n3>n5', 'second-pump n2>n6', 'second-body n6>n5'])
    expect(row({ arrangement: 'beside', running: false })).toEqual(['pump n3>n5', 'second-body n2>n5'])
    expect(element(of([], { second }), 'second-body')).toMatchObject({ lossCoefficient: 7, diameter: 0.016, label: 'Its like' }) // prettier-ignore
    expect(element(of([], { second }), 'second-pump').label).toBe('Pump of Its like')
  })
  test('in a sump the water falls through the media by itself, and the pump lifts it', () => {
    const t = of([c30, m60], { kind: 'sump', hookup: null, chambers: [chamber('low', { role: 'compartment' }), chamber('high', { role: 'compartment' })] }) // prettier-ignore
    expect(ways(t.pumped.elements)).toEqual(['pump source>return'])
    expect(t.gravity && [ways(t.gravity.network.elements), t.gravity.network.heads, t.gravity.inlet]).toEqual([['layer:c inlet>g1', 'layer:m g1>well'], { well: 0 }, 'inlet']) // prettier-ignore
    expect(of([], { kind: 'sump' }).gravity).toBeNull()
  })
  test('sea water is thicker', () => {
    const nu = (salinity?: number) => of([], salinity === undefined ? {} : { salinity }).pumped.fluid.kinematicViscosity // prettier-ignore
    expect(nu(0)).toBe(nu())
    // Sharqawy, Lienhard and Zubair 2010, from memory: some 4 to 5 % above fresh water at 35 g/kg and 25 °C.
    expect(nu(35) / nu()).toBeGreaterThan(1.03)
    expect(nu(35) / nu()).toBeLessThan(1.07)
  })
  test('a medium nothing is known of is named', () => {
    const bare = { ...FINE, permeability: null, fibre: null, solidity: null, grain: null, voidage: null, poresPerInch: null } // prettier-ignore
    expect(() => of([f20], { media: GENERIC_MEDIA.map((m) => (m.id === FINE.id ? bare : m)) })).toThrow(expect.objectContaining({ at: { what: 'media', id: FINE.id, field: 'permeability' } }) as never) // prettier-ignore
  })
})

describe('what it comes to', () => {
  const worked = (layers: ReturnType<typeof layer>[], more: Partial<PathCase> = {}, quick = true) =>
    outcomeOf(caseWith(layers, more), NORMAL, quick)
  const { hookup } = caseWith([])
  const lifted = (outletAboveWater: number) => ({ hookup: hookup && { ...hookup, outletAboveWater } })
  test('where the pump cannot lift nothing flows, and nothing is divided by it', () => {
    const o = worked([{ ...c30, gap: 0.002 }, m60], lifted(3), false)
    expect([o.flow, o.uncertainty, o.meetsMedia, o.unstrained]).toEqual([0, 0, 0, 0])
    expect(o.layers.map((l) => [l.bypassFraction, l.contact, l.velocity])).toEqual([[0, Infinity, 0], [0, Infinity, 0]]) // prettier-ignore
    expect(o.sides.map((s) => s.share)).toEqual([0])
    expect(o.capacity.volume).toBe(0)
  })
  test('velocity is flow over area; a layer in a box of 0.04 m² takes litres over flow', () => {
    const o = worked([c30, m60])
    const [first] = o.layers
    expect(first?.velocity).toBeCloseTo(o.flow / 0.04, 12)
    expect(first?.contact).toBeCloseTo(0.0012 / o.flow, 9)
    expect(first?.through).toBeCloseTo(o.flow, 12)
  })
  test('ways beside the media, by name, and what part of the water takes each', () => {
    const o = worked([{ ...c30, gap: 0.002 }, m60], { chambers: [chamber('low', { overflowSill: 0.001 }), chamber('high', { wallGap: 0.003 })] }) // prettier-ignore
    expect(o.sides.map((s) => [s.part.what, s.label])).toEqual([
      ['gap', 'Gap at coarse foam (10 ppi)'],
      ['spill', 'Overflow of low'],
      ['wall', 'Gap around high'],
    ])
    for (const s of o.sides) expect(s.share).toBeCloseTo(s.flow / o.flow, 12)
    const [c, m] = o.layers
    const [gap, spill, wall] = o.sides
    expect(c?.past).toBeCloseTo((gap?.flow ?? 0) + (spill?.flow ?? 0), 12)
    expect(m?.past).toBeCloseTo(wall?.flow ?? 0, 12)
    expect(m?.bypassFraction).toBeCloseTo((wall?.flow ?? 0) / o.flow, 6)
  })
  test('straining is as good as the tightest layer of its fineness, and as bad as the worst fineness', () => {
    const gaps = (c: number, f: number, g: number, m = 0) => {
      const o = worked([{ ...c30, gap: c }, { ...f20, gap: f }, layer('g', 'high', FINE, 20, { gap: g }), layer('m', 'high', SINTERED, 50, { gap: m })]) // prettier-ignore
      return { o, past: (id: string) => o.layers.find((l) => l.placed.layer.id === id)?.bypassFraction }
    }
    const one = gaps(0.003, 0.002, 0)
    expect(one.o.unstrained).toBe(one.past('c'))
    const two = gaps(0, 0.002, 0.001)
    expect(two.o.unstrained).toBe(two.past('g'))
    expect(gaps(0, 0, 0, 0.01).o.unstrained).toBe(0)
  })
  test('one scale for every fill: foam alone has a worth, a pad thrown away in two months none', () => {
    const worth = (...layers: ReturnType<typeof layer>[]) => worked(layers).worth
    expect([worth(c30).foam, worth(c30).mass > 0]).toEqual([1, true])
    expect([worth(f20).mass, worth().mass]).toEqual([0, 0])
    // What is laid beside media adds to their worth; it never takes any away.
    expect(worth(c30, m60).mass).toBeCloseTo(worth(c30).mass + worth(m60).mass, 2)
  })
  test('the budget follows the water, past gaps and branches, and ends with the lift', () => {
    const line = (more: Partial<PathCase>) =>
      worked([{ ...c30, gap: 0.002 }, m60], more).budget.map((l) => l.id)
    const row = ['seg:intake', 'seg:suction', 'layer:c', 'layer:m']
    const back = ['seg:return', 'seg:exit']
    expect(line({ chambers: [chamber('low', { wallGap: 0.002, overflowSill: 0.01 }), chamber('high')] })).toEqual([...row, ...back]) // prettier-ignore
    expect(line(lifted(0.2))).toEqual([...row, ...back, 'lift'])
    expect(worked([c30], lifted(0.2)).budget.at(-1)).toEqual({ id: 'lift', label: 'Lift', part: { what: 'lift' }, head: 0.2 }) // prettier-ignore
    const like = asSecond(worked([c30, m60]), 'Its like')
    expect(line({ second: { ...like, arrangement: 'beside', running: true } })).toEqual([...row, ...back])
    expect(line({ second: { ...like, arrangement: 'series', running: true } })).toEqual([...row, 'second-body', ...back]) // prettier-ignore
    const side = [chamber('low'), chamber('high', { beside: true })]
    expect(line({ chambers: side })).toEqual(['seg:intake', 'seg:suction', 'layer:c', ...back])
  })
  test('of a filter as a second one: its head in velocity heads of 16 mm, by hand', () => {
    const o = worked([c30, m60], { rest: 2e7 })
    const head = o.budget.filter((l) => /rest|layer/.test(l.id)).reduce((s, l) => s + l.head, 0)
    const v = o.flow / ((Math.PI / 4) * 0.016 ** 2)
    expect(asSecond(o, 'x').lossCoefficient / ((head * 2 * 9.80665) / v ** 2)).toBeCloseTo(1, 9)
    expect(asSecond(worked([c30], lifted(3)), 'x').lossCoefficient).toBe(0)
  })
})
