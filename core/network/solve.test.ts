import { dutyPoint } from '../duty'
import { waterProperties } from '../water'
import { BadNetwork, solveNetwork, toInp, fromInp, type Element, type Network } from '.'

const fluid = { kinematicViscosity: waterProperties({ temperature: 25 }).kinematicViscosity }
const PUMP = { shutOffHead: 1.6, maxFlow: 1000 / 3.6e6, exponent: 1.8 }
type Ends = { readonly id: string; readonly from: string; readonly to: string }
const pump = (e: Ends): Element => ({ ...e, kind: 'pump', label: e.id, pump: PUMP })
const hose = (e: Ends, length = 1.5): Element => ({
  ...e, kind: 'hose', label: e.id, length, diameter: 0.016, roughness: 1.5e-6,
}) // prettier-ignore
const layer = (e: Ends, permeability = 8e-10): Element => ({
  ...e, kind: 'layer', label: e.id, thickness: 0.02, area: 0.04, permeability, inertia: 3000,
}) // prettier-ignore
const slot = (e: Ends, gap = 0.002): Element => ({
  ...e, kind: 'slot', label: e.id, gap, perimeter: 0.8, length: 0.02, lossCoefficient: 1.5,
}) // prettier-ignore
const weir = (e: Ends, sill: number): Element => ({
  ...e, kind: 'weir', label: e.id, sill, resistance: 1e5,
}) // prettier-ignore
const ends = (id: string, from: string, to: string): Ends => ({ id, from, to })
const net = (elements: readonly Element[], more: Partial<Network> = {}): Network => ({
  elements,
  heads: { tank: 0, back: 0 },
  fluid,
  ...more,
})
const loop = (...middle: Element[]): Network =>
  net([
    hose(ends('suction', 'tank', 'a')),
    pump(ends('pump', 'a', 'b')),
    ...middle,
    hose(ends('return', 'c', 'back')),
  ])
const flowIn = (n: Network, id: string): number =>
  solveNetwork(n).results.find((r) => r.element.id === id)?.flow ?? NaN
const wrong = (f: () => unknown): BadNetwork => {
  try {
    f()
  } catch (error) {
    return error as BadNetwork
  }
  throw new Error('nothing was refused')
}

describe('what must hold in every solution', () => {
  const n = loop(
    layer(ends('fine', 'b', 'm')),
    slot(ends('gap', 'b', 'm')),
    layer(ends('coarse', 'm', 'c'), 1e-7),
    weir(ends('weir', 'b', 'c'), 0.002),
  )
  const s = solveNetwork(n)
  test('what enters a node leaves it', () => {
    for (const node of ['a', 'b', 'm', 'c']) {
      const sum = s.results.reduce(
        (t, r) => t + (r.element.to === node ? r.flow : 0) - (r.element.from === node ? r.flow : 0),
        0,
      )
      expect(Math.abs(sum)).toBeLessThan(1e-12)
    }
  })
  test('each element loses what its ends differ by', () => {
    for (const r of s.results)
      expect(r.loss).toBeCloseTo((s.heads[r.element.from] ?? 0) - (s.heads[r.element.to] ?? 0), 8)
  })
  test('it settles within a dozen rounds', () => expect(s.iterations).toBeLessThan(13))
})

test('a run of one pump and its hoses is the duty point of the series solver', () => {
  const segment = (id: string, length: number) =>
    ({ kind: 'hose', id, label: id, length, diameter: 0.016, roughness: 1.5e-6 }) as const
  const duty = dutyPoint({
    pump: PUMP,
    segments: [segment('a', 1.5), segment('b', 1.5)],
    staticHead: 0.4,
    fluid,
  })
  const n = net([hose(ends('s', 'tank', 'a')), pump(ends('p', 'a', 'b')), hose(ends('r', 'b', 'back'))], {
    heads: { tank: 0, back: 0.4 },
  })
  expect(flowIn(n, 'p') / duty.flow).toBeCloseTo(1, 8)
})

test('a wider gap takes more of the water, a tighter layer gives more to it', () => {
  const past = (gap: number, k: number): number => {
    const n = loop(layer(ends('fine', 'b', 'c'), k), slot(ends('gap', 'b', 'c'), gap))
    return flowIn(n, 'gap') / flowIn(n, 'pump')
  }
  expect(past(0.001, 8e-10)).toBeLessThan(past(0.002, 8e-10))
  expect(past(0.002, 8e-10)).toBeLessThan(past(0.002, 2e-10))
})

test('a weir lets nothing by below its sill, then carries what the layer will not', () => {
  const over = (sill: number): number =>
    flowIn(loop(layer(ends('pad', 'b', 'c'), 2e-10), weir(ends('weir', 'b', 'c'), sill)), 'weir')
  expect(over(5)).toBeLessThan(1e-9)
  expect(over(0.01)).toBeGreaterThan(1e-5)
  expect(over(0.01)).toBeGreaterThan(over(0.03))
})

test('two filters on one loop: in a row they share the head; a stopped one beside lets water run back', () => {
  const alone = flowIn(loop(hose(ends('h', 'b', 'c'), 3)), 'pump')
  const both = flowIn(loop(pump(ends('second', 'b', 'x')), hose(ends('h', 'x', 'c'), 3)), 'pump')
  expect(both).toBeGreaterThan(alone * 1.1)
  const stopped: Element = {
    ...ends('stopped', 'a', 'c'), kind: 'fitting', label: 'stopped', lossCoefficient: 20, diameter: 0.016, count: 1,
  } // prettier-ignore
  expect(flowIn(loop(hose(ends('h', 'b', 'c'), 0.2), stopped), 'stopped')).toBeLessThan(0)
})

test('water let in from outside leaves by the open end, whatever the heads', () => {
  const n: Network = {
    elements: [layer(ends('l', 'in', 'm')), hose(ends('h', 'm', 'well'), 0.1)],
    heads: { well: 0 },
    inflows: { in: 2e-4 },
    fluid,
  }
  expect(flowIn(n, 'h')).toBeCloseTo(2e-4, 12)
  expect(fromInp(toInp(n))).toEqual(n)
})

test('two hundred layers in a row, half of them with gaps', () => {
  const many = Array.from({ length: 200 }, (_, i) => {
    const e = ends(`l${i}`, i === 0 ? 'b' : `n${i}`, i === 199 ? 'c' : `n${i + 1}`)
    return i % 2 ? [layer(e, 1e-8)] : [layer(e, 1e-8), slot({ ...e, id: `g${i}` }, 0.001)]
  }).flat()
  const s = solveNetwork(loop(...many))
  const q = s.results[1]?.flow ?? NaN
  expect(q).toBeGreaterThan(0)
  expect(s.results.find((r) => r.element.id === 'l1')?.flow).toBeCloseTo(q, 10)
})

describe('what cannot be solved is refused by name', () => {
  test.each([
    ['no elements', () => solveNetwork(net([])), 'elements'],
    ['no pump and one level', () => solveNetwork(net([hose(ends('h', 'tank', 'back'))])), 'elements'],
    ['no open water', () => solveNetwork(net([pump(ends('p', 'a', 'b')), hose(ends('h', 'b', 'a'))])), 'heads'],
    ['an element that floats', () => solveNetwork(loop(hose(ends('h', 'b', 'c')), hose(ends('lost', 'x', 'y')))), 'elements[lost]'],
    ['two of one name', () => solveNetwork(loop(hose(ends('pump', 'b', 'c')))), 'elements[pump]'],
    ['an element onto itself', () => solveNetwork(loop(hose(ends('h', 'b', 'c')), hose(ends('k', 'b', 'b')))), 'elements[k].to'],
    ['zero permeability', () => solveNetwork(loop(layer(ends('blind', 'b', 'c'), 0))), 'elements[blind].permeability'],
    ['a gap of nothing', () => solveNetwork(loop(slot(ends('g', 'b', 'c'), 0))), 'elements[g].gap'],
    ['a level that is no number', () => solveNetwork({ ...loop(hose(ends('h', 'b', 'c'))), heads: { tank: NaN, back: 0 } }), 'heads.tank'],
    ['water let in nowhere', () => solveNetwork({ ...loop(hose(ends('h', 'b', 'c'))), inflows: { moon: 1 } }), 'inflows.moon'],
  ] as const)('%s', (_, f, field) => {
    const error = wrong(f)
    expect(error.field).toBe(field)
    expect(error.message.length).toBeGreaterThan(20)
  })
}) // prettier-ignore
