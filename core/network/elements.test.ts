import { OutOfRange } from '../errors'
import { prepareNetwork, segmentElement, solveNetwork, takesHead, toInp, type Element, type Network } from '.'

/** Water and gravity of round numbers, so that every expected value can be worked out by hand. */
const fluid = { kinematicViscosity: 1e-6, gravity: 10 }
type Bare = Element extends infer E
  ? E extends Element
    ? Omit<E, 'id' | 'label' | 'from' | 'to'>
    : never
  : never
const between = (id: string, from: string, to: string, e: Bare): Element =>
  ({ ...e, id, label: id, from, to }) as Element
const parts = {
  fitting: { kind: 'fitting', lossCoefficient: 10, diameter: 0.02, count: 2 },
  orifices: { kind: 'orifices', holes: 20, holeDiameter: 0.004, dischargeCoefficient: 0.5 },
  layer: { kind: 'layer', thickness: 0.02, area: 0.05, permeability: 1e-9, inertia: 2000 },
  slot: { kind: 'slot', gap: 0.002, perimeter: 0.5, length: 0.02, lossCoefficient: 1.5 },
  weir: { kind: 'weir', sill: 0.05, resistance: 1e5 },
  hose: { kind: 'hose', length: 2, diameter: 0.02, roughness: 0 },
  pump: { kind: 'pump', pump: { shutOffHead: 2, maxFlow: 5e-4, exponent: 2 } },
} as const satisfies Record<string, Bare>
/** One element between two levels. */
const alone = (e: Bare, high: number, low = 0): Network => ({
  elements: [between('e', 'high', 'low', e)],
  heads: { high, low },
  fluid,
})

describe('one element between two levels, by hand', () => {
  // 2 × 10 velocity heads of 0.5 m/s in 20 mm: 20 × 0.25/20 = 0.25 m; the bore has 314.16 mm².
  // 20 holes of 4 mm, discharge coefficient 0.5: Q = 0.5 × 20 × 12.566 mm² × √(2 × 10 × 0.05) = 1.2566e-4 m³/s.
  // Darcy–Forchheimer at 20 mm/s: 1e-6 × 0.02/1e-9 × 0.02/10 = 0.04 m, and 2000 × 0.02 × 0.0004/10 = 0.0016 m.
  // Plane Poiseuille at 0.1 m/s: 12 × 1e-6 × 0.02 × 0.1/(10 × 4e-6) = 0.6 mm, and 1.5 × 0.01/20 = 0.75 mm.
  // 10 mm above the sill: √(0.01/1e5) = 3.1623e-4 m³/s.
  // Laminar flow in a tube (f = 64/Re): Q = π g d⁴ h/(128 ν L) = π × 10 × 1.6e-7 × 1e-3/(128e-6 × 2) = 1.9635e-5 m³/s, Re 1250.
  test.each([
    ['fitting', parts.fitting, 0.25, 0.5 * Math.PI * 1e-4],
    ['orifices', parts.orifices, 0.05, 4e-5 * Math.PI],
    ['layer', parts.layer, 0.0416, 1e-3],
    ['slot', parts.slot, 0.00135, 1e-4],
    ['weir above its sill', parts.weir, 0.06, 3.16228e-4],
    ['hose, laminar', parts.hose, 1e-3, 1.963495e-5],
  ] as const)('%s', (_, e, head, flow) => {
    for (const general of [false, true]) {
      const [q] = prepareNetwork(alone(e, head), general)().flows
      expect((q ?? NaN) / flow).toBeCloseTo(1, 5)
    }
  })
  test('a pump lifts to where its curve says: 2 m × (1 − 0.6²) = 1.28 m at 0.6 of its flow', () => {
    for (const general of [false, true]) {
      const n = { ...alone(parts.pump, 0, 1.28) }
      expect(prepareNetwork(n, general)().flows[0]).toBeCloseTo(3e-4, 9)
    }
  })
  test('below its sill a weir lets next to nothing by, above its shut-off head a pump', () => {
    expect(Math.abs(solveNetwork(alone(parts.weir, 0.049)).flows[0] ?? NaN)).toBeLessThan(1e-9)
    expect(Math.abs(solveNetwork(alone(parts.pump, 0, 2.1)).flows[0] ?? NaN)).toBeLessThan(1e-6)
  })
  test('gravity that is not said is the standard 9.80665 m/s²: the same head drives √0.980665 of the flow', () => {
    const n = { ...alone(parts.orifices, 0.05), fluid: { kinematicViscosity: 1e-6 } }
    expect((solveNetwork(n).flows[0] ?? NaN) / (4e-5 * Math.PI)).toBeCloseTo(0.990285, 5)
  })
})

describe('parabolas are solved at the first look: the first flows are theirs', () => {
  const row = (elements: Element[], heads = { tank: 0, back: 0 }): Network => ({ elements, heads, fluid })
  const fitting = (id: string, from: string, to: string, lossCoefficient: number): Element =>
    between(id, from, to, { ...parts.fitting, lossCoefficient, count: 1 })
  const bed = (id: string, from: string, to: string, permeability: number): Element =>
    between(id, from, to, { ...parts.layer, permeability, inertia: 0 })
  const pump = between('pump', 'tank', 'a', parts.pump)
  const turned = (e: Element): Element => ({ ...e, from: e.to, to: e.from })
  /** K of 25 in 20 mm at 2e-4 m³/s: 25 × 0.6366²/20 = 0.5066 m; two of K 100 side by side are one of K 25. */
  const k = 25
  test.each([
    ['in a row', [pump, fitting('f', 'a', 'm', k), fitting('g', 'm', 'back', k)], 2 * k],
    ['side by side', [pump, fitting('f', 'a', 'back', 4 * k), fitting('g', 'a', 'back', 4 * k)], k],
    ['one of them turned', [pump, fitting('f', 'a', 'back', 4 * k), turned(fitting('g', 'a', 'back', 4 * k))], k],
    ['a row beside a row, then one more, the pump last', [
      fitting('f', 'tank', 'x', 2 * k), fitting('g', 'x', 'y', 2 * k), fitting('h', 'tank', 'y', 4 * k),
      fitting('i', 'y', 'a', k), { ...pump, from: 'a', to: 'back' },
    ], 2 * k],
    ['two ways in one of two ways', [
      pump, fitting('f', 'a', 'b', 2 * k), fitting('g', 'b', 'back', 8 * k), fitting('h', 'b', 'back', 8 * k),
      fitting('i', 'a', 'back', 4 * k),
    ], k],
  ] as const)('%s', (_, elements, together) => {
    // 2 (1 − (Q/5e-4)²) = K Q²/(2 g A²).
    const area = Math.PI * 1e-4
    const flow = Math.sqrt(2 / (2 / 25e-8 + together / (20 * area * area)))
    const s = solveNetwork(row([...elements]))
    expect((s.results.find((r) => r.element.id === 'pump')?.flow ?? NaN) / flow).toBeCloseTo(1, 9)
    expect(s.iterations).toBe(1)
  })
  test('beds without inertia between two levels', () => {
    // Each loses 40 m per m³/s; the pair side by side 40 and 40/3 in all 10; then 40 more: 0.05/50. Their levels differ: one step more.
    const beds = [bed('a', 'tank', 'm', 1e-9), bed('b', 'm', 'tank', 3e-9), bed('c', 'm', 'back', 1e-9)]
    const s = solveNetwork(row(beds, { tank: 0.05, back: 0 }))
    expect(s.flows[2]).toBeCloseTo(1e-3, 9)
    expect(s.flows.map((q) => q.toFixed(9))).toEqual(['0.000250000', '-0.000750000', '0.001000000'])
    expect(s.iterations).toBe(2)
  })
  test('both ways through levels of their own: each ring by itself', () => {
    const two = [bed('a', 'tank', 'back', 1e-9), bed('b', 'back', 'tank', 1e-9), bed('c', 'back', 'low', 1e-9)]
    const s = solveNetwork(row(two, { tank: 0.04, back: 0, low: -0.04 } as never))
    expect(s.flows.map((q) => q.toFixed(9))).toEqual(['0.001000000', '-0.001000000', '0.001000000'])
    expect(s.iterations).toBe(1)
  })
  test('a weir that is over its sill', () => {
    const over = row([between('w', 'tank', 'm', parts.weir), fitting('f', 'm', 'back', k)], { tank: 0.5, back: 0 })
    // (0.5 − 0.05) m over 1e5 + 25/(20 A²).
    const area = Math.PI * 1e-4
    expect(solveNetwork(over).flows[1]).toBeCloseTo(Math.sqrt(0.45 / (1e5 + 25 / (20 * area * area))), 9)
  })
  test('with hoses and an exponent of its own it settles in a few steps, by either way', () => {
    const hose = (id: string, from: string, to: string): Element => between(id, from, to, parts.hose)
    const bridge = [
      between('pump', 'tank', 'a', { kind: 'pump', pump: { ...parts.pump.pump, exponent: 1.7 } }),
      hose('h', 'a', 'b'), hose('i', 'a', 'c'), fitting('across', 'b', 'c', 5), hose('j', 'b', 'back'),
      fitting('k', 'c', 'back', 20),
    ] // prettier-ignore
    const plain = bridge.filter((e) => e.id !== 'across')
    expect(solveNetwork(row(plain)).iterations).toBeLessThanOrEqual(4)
    expect(solveNetwork(row(bridge)).iterations).toBeLessThanOrEqual(8)
  })
}) // prettier-ignore

describe('heads', () => {
  const f = (id: string, from: string, to: string): Element => between(id, from, to, parts.fitting)
  test('a dead corner between a shut weir and an open way stands at the open way’s head', () => {
    const shut = (from: string, to: string): Element => between('w', from, to, { ...parts.weir, sill: 5 })
    for (const w of [shut('a', 'x'), shut('c', 'x')]) {
      const elements = [between('pump', 'tank', 'a', parts.pump), f('p', 'a', 'c'), w, f('q', 'x', 'c'), f('r', 'c', 'back')]
      const { heads } = solveNetwork({ elements, heads: { tank: 0, back: 0 }, fluid })
      expect(heads.x).toBeCloseTo(heads.c ?? NaN, 6)
      expect(heads.a).toBeGreaterThan(heads.c ?? NaN)
    }
  })
  test('a pump that cannot lift to its level: the head at its outlet is the level’s', () => {
    const n = { elements: [f('p', 'tank', 'a'), between('pump', 'a', 'b', parts.pump), f('r', 'b', 'back')], heads: { tank: 0, back: 3 }, fluid }
    const { heads, results } = solveNetwork(n)
    expect(Math.abs(results[1]?.flow ?? NaN)).toBeLessThan(1e-6)
    expect(heads.a).toBeCloseTo(0, 6)
    expect(heads.b).toBeCloseTo(3, 6)
  })
  test('worked out once', () => {
    const s = solveNetwork(alone(parts.fitting, 0.25))
    expect(s.heads).toBe(s.heads)
    expect(s.results).toBe(s.results)
  })
}) // prettier-ignore

describe('what drives the water', () => {
  test.each([
    ['a level above another', { high: 1, low: -1 }, undefined, true],
    ['two levels below zero', { high: -1, low: -2 }, undefined, true],
    ['one level', { high: 1, low: 1 }, undefined, false],
    ['one level, and nothing let in', { high: 1, low: 1 }, { m: 0 }, false],
    ['one level, and water let in', { high: 1, low: 1 }, { m: 1e-4 }, true],
  ] as const)('%s', (_, heads, inflows, solved) => {
    const elements = [between('a', 'high', 'm', parts.fitting), between('b', 'm', 'low', parts.fitting)]
    const solve = (): unknown => solveNetwork({ elements, heads, fluid, ...(inflows && { inflows }) })
    if (solved) expect(solve).not.toThrow()
    else expect(solve).toThrow(/Nothing drives/)
  })
  test('water let in that is no number is refused by its node', () =>
    expect(() => solveNetwork({ ...alone(parts.fitting, 1), inflows: { low: NaN } })).toThrow(
      expect.objectContaining({ field: 'inflows.low' }),
    ))
})

describe('limits: the last value that is taken, and the first that is not', () => {
  const hair = 1e-9
  test.each([
    ['hose', 'length', 1e-6, 1000], ['hose', 'diameter', 0.001, 1], ['hose', 'roughness', 0, 0.004],
    ['fitting', 'lossCoefficient', 0, 1e9], ['fitting', 'diameter', 0.001, 1], ['fitting', 'count', 0, 1000],
    ['orifices', 'holes', 1, 1e4], ['orifices', 'holeDiameter', 1e-4, 0.2], ['orifices', 'dischargeCoefficient', 0.05, 2],
    ['layer', 'thickness', 1e-5, 10], ['layer', 'area', 1e-6, 100], ['layer', 'inertia', 0, 1e7],
    ['slot', 'gap', 1e-5, 0.5], ['slot', 'perimeter', 1e-4, 100], ['slot', 'length', 1e-5, 10], ['slot', 'lossCoefficient', 0, 1000],
    ['weir', 'sill', 0, 100], ['weir', 'resistance', 0, 1e15],
  ] as const)('%s %s', (kind, field, min, max) => {
    const check = (value: number): unknown => prepareNetwork(alone({ ...parts[kind], [field]: value } as Bare, 1))
    for (const value of [min, max]) expect(() => check(value)).not.toThrow()
    for (const value of [min - hair, max * (1 + hair), NaN])
      expect(() => check(value)).toThrow(expect.objectContaining({ field: `elements[e].${field}` }))
  })
  test.each([['shutOffHead', 0, 1e-9], ['maxFlow', 0, 1e-9], ['exponent', 0.4999, 0.5], ['exponent', 10.001, 10]] as const)(
    'pump %s %d', (field, out, taken) => {
      const check = (value: number): unknown =>
        prepareNetwork(alone({ kind: 'pump', pump: { ...parts.pump.pump, [field]: value } }, 1))
      expect(() => check(taken)).not.toThrow()
      expect(() => check(out)).toThrow(OutOfRange)
      expect(() => check(Infinity)).toThrow(expect.objectContaining({ field: `elements[e].pump.${field}` }))
    })
}) // prettier-ignore

describe('pieces of a run', () => {
  const at = { id: 'e', from: 'a', to: 'b' }
  const hose = { kind: 'hose', id: 's', label: 'Hose', length: 1, diameter: 0.016, roughness: 1e-6 } as const
  const bend = { kind: 'fitting', id: 's', label: 'Bend', lossCoefficient: 0.9, diameter: 0.016, count: 2 } as const
  const bar = { kind: 'spray-bar', id: 's', label: 'Bar', holes: 12, holeDiameter: 0.003, dischargeCoefficient: 0.6 } as const
  test.each([
    ['hose', hose, { kind: 'hose', label: 'Hose', length: 1, diameter: 0.016, roughness: 1e-6 }],
    ['fitting', bend, { kind: 'fitting', label: 'Bend', lossCoefficient: 0.9, diameter: 0.016, count: 2 }],
    ['spray bar', bar, { kind: 'orifices', label: 'Bar', holes: 12, holeDiameter: 0.003, dischargeCoefficient: 0.6 }],
  ] as const)('%s as an element', (_, segment, bare) => expect(segmentElement(segment, at)).toEqual({ ...at, ...bare }))
  test.each([
    ['a hose', hose, true], ['a hose of no length', { ...hose, length: 0 }, false], ['of a hair', { ...hose, length: 1e-6 }, false],
    ['two bends', bend, true], ['no bend', { ...bend, count: 0 }, false], ['a spray bar', bar, true],
  ] as const)('%s takes head or not', (_, segment, takes) => expect(takesHead(segment)).toBe(takes))
}) // prettier-ignore

test('an EPANET file: each element in its section, names it takes, flows in L/min', () => {
  // Sections and units as in the EPANET 2.2 manual, appendix C.
  const elements = [
    between('pump', 'tank', 'a b', { kind: 'pump', pump: { shutOffHead: 2, maxFlow: 1e-3, exponent: 2 } }),
    between('hose one', 'a b', 'c', { ...parts.hose, roughness: 1e-4 }),
    between('bend', 'c', 'back', parts.fitting),
    between('bed', 'a b', 'c', parts.layer),
  ]
  const text = toInp({ elements, heads: { tank: 0, back: 0.5 }, inflows: { c: 1e-4 }, fluid })
  const section = (name: string): string[] =>
    (text.split(`[${name}]\n`)[1] ?? '').split('\n[')[0]?.split('\n').map((l) => l.trim()) ?? []
  expect(section('JUNCTIONS')).toEqual(['N2 0 0', 'c 0 -6.00000000000000'])
  expect(section('RESERVOIRS')).toEqual(['tank 0', 'back 0.5'])
  expect(section('PUMPS')).toEqual(['pump tank N2 HEAD pumpC'])
  expect(section('PIPES').map((l) => l.split(' ').map((w) => (Number.isNaN(Number(w)) ? w : Number(w))))).toEqual([
    ['E2', 'N2', 'c', 2, 20, 0.1, 0, 'Open'],
    ['bend', 'c', 'back', 1e-6, 20, 1e-7, expect.closeTo(20, 9), 'Open'],
  ])
  expect(section('VALVES')).toEqual(['bed N2 c 1000 GPV bedC 0'])
  expect(section('CURVES').slice(0, 5).map((l) => l.split(' ').map((w, i) => (i ? Number(w) : w)))).toEqual([
    ['pumpC', 0, 2], ['pumpC', 30, 1.5], ['pumpC', 60, 0], ['bedC', 0, 0], ['bedC', expect.any(Number), expect.any(Number)],
  ])
  // The whole of a layer’s curve at 10 L/s: 40 × 0.01 + 1600 × 0.0001 = 0.56 m.
  expect(section('CURVES').at(-1)?.split(' ').map(Number).slice(1)).toEqual([600, expect.closeTo(0.56, 9)])
}) // prettier-ignore
