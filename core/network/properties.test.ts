import fc from 'fast-check'
import { waterProperties } from '../water'
import { fromInp, prepareNetwork, solveNetwork, toInp, type Element, type Network } from '.'

const fluid = { kinematicViscosity: waterProperties({ temperature: 25 }).kinematicViscosity }

/** Elements between two nodes, of the sizes a filter has. */
const passive = (id: string, from: string, to: string): fc.Arbitrary<Element> =>
  fc.oneof(
    fc
      .record({
        length: fc.double({ min: 0.05, max: 3, noNaN: true }),
        diameter: fc.constantFrom(0.009, 0.012, 0.016, 0.025),
        roughness: fc.constantFrom(1.5e-6, 1e-4),
      })
      .map((r): Element => ({ id, label: id, from, to, kind: 'hose', ...r })),
    fc
      .record({
        lossCoefficient: fc.double({ min: 0.2, max: 30, noNaN: true }),
        diameter: fc.constantFrom(0.012, 0.016, 0.025),
      })
      .map((r): Element => ({ id, label: id, from, to, kind: 'fitting', count: 1, ...r })),
    fc
      .record({
        thickness: fc.double({ min: 0.005, max: 0.15, noNaN: true }),
        area: fc.double({ min: 0.004, max: 0.06, noNaN: true }),
        permeability: fc.double({ min: -10, max: -6.5, noNaN: true }).map((e) => 10 ** e),
        inertia: fc.double({ min: 50, max: 8000, noNaN: true }),
      })
      .map((r): Element => ({ id, label: id, from, to, kind: 'layer', ...r })),
  )

/** A loop: suction, pump, two to six stages in a row, some of them with a second way beside, return. */
const loop: fc.Arbitrary<Network> = fc
  .tuple(
    fc.record({
      shutOffHead: fc.double({ min: 0.3, max: 3, noNaN: true }),
      maxFlow: fc.double({ min: 200, max: 3000, noNaN: true }).map((q) => q / 3.6e6),
      exponent: fc.double({ min: 1.4, max: 2.4, noNaN: true }),
    }),
    fc.integer({ min: 2, max: 6 }),
    fc.array(fc.boolean(), { minLength: 6, maxLength: 6 }),
  )
  .chain(([pump, stages, beside]) => {
    const node = (i: number): string => (i === stages ? 'back' : `n${i}`)
    const parts: fc.Arbitrary<Element>[] = []
    for (let i = 0; i < stages; i++) {
      parts.push(passive(`e${i}`, node(i), node(i + 1)))
      if (beside[i]) parts.push(passive(`b${i}`, node(i), node(i + 1)))
    }
    const driver: Element = { id: 'pump', label: 'pump', from: 'tank', to: 'n0', kind: 'pump', pump }
    return fc.tuple(...parts).map((rest): Network => ({
      elements: [driver, ...rest],
      heads: { tank: 0, back: 0 },
      fluid,
    }))
  })

const flows = (n: Network): Readonly<Record<string, number>> =>
  Object.fromEntries(solveNetwork(n).results.map((r) => [r.element.id, r.flow]))
const close = (a: number, b: number, within = 1e-6): void =>
  expect(Math.abs(a - b)).toBeLessThanOrEqual(within * Math.max(Math.abs(a), Math.abs(b)) + 1e-12)
const runs = { numRuns: 120 }

test('what enters each node leaves it, and each element loses what its ends differ by', () => {
  fc.assert(
    fc.property(loop, (n) => {
      const { results, heads } = solveNetwork(n)
      const whole = Math.max(...results.map((r) => Math.abs(r.flow)))
      const nodes = new Set(n.elements.flatMap((e) => [e.from, e.to]))
      for (const node of nodes) {
        if (node in n.heads) continue
        const sum = results.reduce(
          (t, r) => t + (r.element.to === node ? r.flow : 0) - (r.element.from === node ? r.flow : 0),
          0,
        )
        expect(Math.abs(sum)).toBeLessThan(1e-9 * whole + 1e-15)
      }
      const top = Math.max(...results.map((r) => Math.abs(r.loss)))
      for (const r of results)
        expect(
          Math.abs(r.loss - ((heads[r.element.from] ?? NaN) - (heads[r.element.to] ?? NaN))),
        ).toBeLessThan(1e-5 * top)
    }),
    runs,
  )
})

test('turning an element round turns its flow round and changes nothing else', () => {
  fc.assert(
    fc.property(loop, fc.nat(), (n, pick) => {
      const passiveOnes = n.elements.filter((e) => e.kind !== 'pump')
      const turned = passiveOnes[pick % passiveOnes.length] as Element
      const elements = n.elements.map((e) => (e === turned ? { ...e, from: e.to, to: e.from } : e))
      const [before, after] = [flows(n), flows({ ...n, elements })]
      for (const e of n.elements) close(after[e.id] ?? NaN, (e === turned ? -1 : 1) * (before[e.id] ?? NaN))
    }),
    runs,
  )
})

test('the order in which elements are written does not matter', () => {
  fc.assert(
    fc.property(loop, (n) => {
      const [before, after] = [flows(n), flows({ ...n, elements: [...n.elements].reverse() })]
      for (const e of n.elements) close(after[e.id] ?? NaN, before[e.id] ?? NaN)
    }),
    runs,
  )
})

test('a hose or a layer cut in two carries the same', () => {
  fc.assert(
    fc.property(loop, (n) => {
      const whole = n.elements.find((e) => e.kind === 'hose' || e.kind === 'layer')
      if (!whole) return
      const half = (id: string, from: string, to: string): Element =>
        whole.kind === 'hose'
          ? { ...whole, id, from, to, length: whole.length / 2 }
          : {
              ...(whole as Extract<Element, { kind: 'layer' }>),
              id,
              from,
              to,
              thickness: (whole as Extract<Element, { kind: 'layer' }>).thickness / 2,
            }
      const elements = n.elements.flatMap((e) =>
        e === whole ? [half('first', e.from, 'cut'), half('second', 'cut', e.to)] : [e],
      )
      const [before, after] = [flows(n), flows({ ...n, elements })]
      close(after.first ?? NaN, before[whole.id] ?? NaN)
      close(after.pump ?? NaN, before.pump ?? NaN)
    }),
    runs,
  )
})

test('more resistance anywhere never gives the pump more to carry', () => {
  fc.assert(
    fc.property(loop, fc.nat(), fc.double({ min: 1.1, max: 20, noNaN: true }), (n, pick, by) => {
      const passiveOnes = n.elements.filter((e) => e.kind !== 'pump')
      const worse = passiveOnes[pick % passiveOnes.length] as Element
      const elements = n.elements.map((e): Element => {
        if (e !== worse) return e
        if (e.kind === 'hose') return { ...e, length: e.length * by }
        if (e.kind === 'fitting') return { ...e, lossCoefficient: e.lossCoefficient * by }
        return e.kind === 'layer' ? { ...e, permeability: e.permeability / by, inertia: e.inertia * by } : e
      })
      const [before, after] = [flows(n), flows({ ...n, elements })]
      expect(after.pump ?? NaN).toBeLessThanOrEqual((before.pump ?? NaN) * (1 + 1e-7))
    }),
    runs,
  )
})

test('two like layers side by side are one of twice the area', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -10, max: -7, noNaN: true }),
      fc.double({ min: 100, max: 5000, noNaN: true }),
      (exponent, inertia) => {
        const bed = (id: string, area: number): Element => ({
          id, label: id, from: 'n0', to: 'back', kind: 'layer', thickness: 0.03, area, permeability: 10 ** exponent, inertia,
        }) // prettier-ignore
        const pump: Element = {
          id: 'pump', label: 'pump', from: 'tank', to: 'n0', kind: 'pump', pump: { shutOffHead: 1, maxFlow: 2e-4, exponent: 1.8 },
        } // prettier-ignore
        const base = { heads: { tank: 0, back: 0 }, fluid }
        const two = flows({ ...base, elements: [pump, bed('a', 0.02), bed('b', 0.02)] })
        const one = flows({ ...base, elements: [pump, bed('a', 0.04)] })
        close(two.pump ?? NaN, one.pump ?? NaN)
        close(two.a ?? NaN, two.b ?? NaN)
      },
    ),
    runs,
  )
})

test('a prepared network gives the same each time, and its file gives it back', () => {
  fc.assert(
    fc.property(loop, (n) => {
      const solve = prepareNetwork(n)
      const [first, second] = [solve(), solve()]
      expect(second.results.map((r) => r.flow)).toEqual(first.results.map((r) => r.flow))
      expect(second.heads).toEqual(first.heads)
      expect(fromInp(toInp(n))).toEqual(n)
    }),
    { numRuns: 40 },
  )
})
