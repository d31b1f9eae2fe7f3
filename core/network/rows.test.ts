import fc from 'fast-check'
import { waterProperties } from '../water'
import { prepareNetwork, type Element, type Network } from '.'

const fluid = { kinematicViscosity: waterProperties({ temperature: 25 }).kinematicViscosity }

/** An element without its ends, or pieces in a row or side by side. */
type Piece =
  | { readonly element: Record<string, unknown> }
  | { readonly beside: boolean; readonly pieces: readonly Piece[] }

const element = fc
  .oneof(
    fc.record({
      kind: fc.constant('hose'),
      length: fc.double({ min: 0.05, max: 3, noNaN: true }),
      diameter: fc.constantFrom(0.009, 0.016, 0.025),
      roughness: fc.constantFrom(0, 1e-4),
    }),
    fc.record({
      kind: fc.constant('fitting'),
      lossCoefficient: fc.double({ min: 0.2, max: 30, noNaN: true }),
      diameter: fc.constantFrom(0.012, 0.025),
      count: fc.constant(1),
    }),
    fc.record({
      kind: fc.constant('layer'),
      thickness: fc.double({ min: 0.005, max: 0.1, noNaN: true }),
      area: fc.double({ min: 0.004, max: 0.06, noNaN: true }),
      permeability: fc.double({ min: -10, max: -7, noNaN: true }).map((e) => 10 ** e),
      inertia: fc.double({ min: 50, max: 8000, noNaN: true }),
    }),
    fc.record({
      kind: fc.constant('slot'),
      gap: fc.double({ min: 0.0005, max: 0.01, noNaN: true }),
      perimeter: fc.double({ min: 0.1, max: 1, noNaN: true }),
      length: fc.double({ min: 0.005, max: 0.1, noNaN: true }),
      lossCoefficient: fc.constant(1.5),
    }),
    fc.record({
      kind: fc.constant('weir'),
      sill: fc.double({ min: 0.005, max: 0.3, noNaN: true }),
      resistance: fc.double({ min: 1e4, max: 1e7, noNaN: true }),
    }),
  )
  .map((e): Piece => ({ element: e }))

const { piece } = fc.letrec<{ piece: Piece; join: Piece }>((tie) => ({
  piece: fc.oneof({ maxDepth: 3 }, element, tie('join')),
  join: fc
    .tuple(fc.boolean(), fc.array(tie('piece'), { minLength: 2, maxLength: 3 }))
    .map(([beside, pieces]) => ({ beside, pieces })),
}))

/** Lays pieces between two nodes, some elements turned round. */
function lay(
  p: Piece,
  from: string,
  to: string,
  into: { elements: Element[]; nodes: number },
  turns: readonly boolean[],
): void {
  if ('element' in p) {
    const i = into.elements.length
    const id = `e${i}`
    // What lets water one way only stays along the way, or nothing could pass.
    const turn = p.element.kind !== 'weir' && turns[i % turns.length]
    into.elements.push({
      ...p.element,
      id,
      label: id,
      from: turn ? to : from,
      to: turn ? from : to,
    } as Element)
    return
  }
  let at = from
  p.pieces.forEach((inner, i) => {
    if (p.beside) return lay(inner, from, to, into, turns)
    const next = i === p.pieces.length - 1 ? to : `n${into.nodes++}`
    lay(inner, at, next, into, turns)
    at = next
  })
}

const network = fc
  .tuple(
    piece,
    fc.array(fc.boolean(), { minLength: 8, maxLength: 8 }),
    fc.double({ min: 0, max: 0.3, noNaN: true }),
    fc.boolean(),
  )
  .map(([p, turns, lift, second]): Network => {
    const pump = (id: string): Element => ({
      id, label: id, from: 'tank', to: 'in', kind: 'pump', pump: { shutOffHead: 1.5, maxFlow: 4e-4, exponent: 1.8 },
    }) // prettier-ignore
    const elements: Element[] = [pump('pump'), ...(second ? [pump('other')] : [])]
    lay(p, 'in', 'back', { elements, nodes: 0 }, turns)
    return { elements, heads: { tank: 0, back: lift }, fluid }
  })

test('solved along its rows and by its heads, a network of rows and ways side by side carries the same', () => {
  fc.assert(
    fc.property(network, (n) => {
      const rows = prepareNetwork(n)()
      const heads = prepareNetwork(n, true)()
      const top = Math.max(...heads.flows.map(Math.abs))
      rows.flows.forEach((q, i) =>
        expect(Math.abs(q - (heads.flows[i] ?? NaN))).toBeLessThan(1e-6 * top + 1e-14),
      )
      for (const [node, h] of Object.entries(heads.heads))
        expect(Math.abs((rows.heads[node] ?? NaN) - h)).toBeLessThan(1e-5)
      // And on its own: whichever way round, the same head is lost.
      const most = Math.max(...rows.results.map((r) => Math.abs(r.loss)))
      for (const { element: e, loss, flow } of rows.results)
        if (!(e.kind === 'weir' && flow <= 0))
          expect(Math.abs(loss - ((rows.heads[e.from] ?? NaN) - (rows.heads[e.to] ?? NaN)))).toBeLessThan(
            1e-6 * most,
          )
    }),
    { numRuns: 300 },
  )
})

test('prepared once, with its layers as they are by and by, a network carries what it carries prepared anew', () => {
  const clogging = fc.array(fc.double({ min: -4, max: 0, noNaN: true }), { minLength: 3, maxLength: 3 })
  fc.assert(
    fc.property(network, clogging, fc.boolean(), (n, keeps, general) => {
      const solve = prepareNetwork(n, general)
      const first = solve()
      for (const keep of keeps) {
        const elements = n.elements.map((e, i) =>
          e.kind === 'layer' && i % 2 ? { ...e, permeability: e.permeability * 10 ** keep } : e,
        )
        const [relaid, anew] = [solve(elements), prepareNetwork({ ...n, elements }, general)()]
        const top = Math.max(...anew.flows.map(Math.abs))
        relaid.flows.forEach((q, i) =>
          expect(Math.abs(q - (anew.flows[i] as number))).toBeLessThan(1e-6 * top + 1e-14),
        )
        relaid.results.forEach((r, i) => {
          expect(r.element).toBe(elements[i])
          expect(relaid.lossIn(i)).toBe(r.loss)
        })
      }
      // What was laid in between leaves nothing behind.
      const again = solve()
      first.flows.forEach((q, i) => expect(Math.abs((again.flows[i] as number) - q)).toBeLessThan(1e-12))
    }),
    { numRuns: 150 },
  )
})

test('of a prepared network nothing but layers can be laid anew', () => {
  const mat: Element = {
    id: 'mat', label: 'mat', from: 'a', to: 'back', kind: 'layer', thickness: 0.02, area: 0.02, permeability: 1e-9, inertia: 2000,
  } // prettier-ignore
  const solve = prepareNetwork({ heads: { tank: 0, back: 0 }, fluid, elements: [pump, mat] })
  const refused = (...elements: Element[]) => {
    try {
      solve(elements)
    } catch (error) {
      return (error as { field?: string }).field
    }
    return undefined
  }
  expect(refused({ ...pump, pump: { shutOffHead: 2, maxFlow: 4e-4, exponent: 1.8 } } as Element, mat)).toBe(
    'elements[pump]',
  )
  expect(refused(pump, { ...mat, id: 'other' })).toBe('elements[mat]')
  expect(refused(pump)).toBe('elements[mat]')
  expect(refused(pump, { ...mat, permeability: 0 } as Element)).toBe('elements[mat].permeability')
  // Half as open, it loses twice as much where the water creeps: Darcy.
  const creeping = { ...mat, inertia: 0, permeability: 1e-12 } as Element
  const [q] = solve([pump, creeping]).flows
  const [half] = solve([pump, { ...creeping, permeability: 5e-13 } as Element]).flows
  expect((q as number) / (half as number)).toBeCloseTo(2, 2)
})

const fitting = (id: string, from: string, to: string, lossCoefficient = 2): Element => ({
  id, label: id, from, to, kind: 'fitting', lossCoefficient, diameter: 0.016, count: 1,
}) // prettier-ignore
const pump: Element = {
  id: 'pump', label: 'pump', from: 'tank', to: 'a', kind: 'pump', pump: { shutOffHead: 1.5, maxFlow: 4e-4, exponent: 1.8 },
} // prettier-ignore

test('a bridge between two ways is no row and no way beside: it is solved by its heads, and idle when they balance', () => {
  const bridge = (k: number): Network => ({
    heads: { tank: 0, back: 0 },
    fluid,
    elements: [
      pump, fitting('ab', 'a', 'b'), fitting('ac', 'a', 'c'), fitting('bridge', 'b', 'c'), fitting('bd', 'b', 'back'), fitting('cd', 'c', 'back', k),
    ],
  }) // prettier-ignore
  const flow = (k: number): number => prepareNetwork(bridge(k))().flows[3] ?? NaN
  expect(Math.abs(flow(2))).toBeLessThan(1e-9)
  expect(flow(8)).toBeLessThan(-1e-6)
  expect(flow(0.5)).toBeGreaterThan(1e-6)
})

test('a dead end stands still, and two circuits on one tank do not disturb each other', () => {
  const one: Network = { heads: { tank: 0, back: 0 }, fluid, elements: [pump, fitting('out', 'a', 'back')] }
  const [, alone = NaN] = prepareNetwork(one)().flows
  const dead = prepareNetwork({ ...one, elements: [...one.elements, fitting('blind', 'a', 'x')] })()
  expect(dead.flows[1]).toBeCloseTo(alone, 9)
  expect(Math.abs(dead.flows[2] ?? NaN)).toBeLessThan(1e-9)
  expect(dead.heads.x).toBeCloseTo(dead.heads.a ?? NaN, 9)
  const second = [{ ...pump, id: 'second', to: 'y' }, fitting('off', 'y', 'tank')]
  const two = prepareNetwork({ ...one, elements: [...one.elements, ...second] })()
  expect(two.flows[1]).toBeCloseTo(alone, 12)
  expect(two.flows[3]).toBeCloseTo(alone, 12)
})
