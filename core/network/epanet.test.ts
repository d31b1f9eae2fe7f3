import { seeded } from '../statistics'
import { openEpanet } from './epanet.fixture'
import { EPANET_GRAVITY, EPANET_VISCOSITY, fromInp, toInp } from './inp'
import { solveNetwork, type Network } from './solve'
import type { Element } from './elements'

const FLUID = {
  kinematicViscosity: EPANET_VISCOSITY,
  gravity: EPANET_GRAVITY,
  correlation: 'swamee-jain',
} as const

/** A generated network: one or two pumps, hoses, and between them branches of layers, gaps and holes side by side. */
function generate(seed: number): Network {
  const random = seeded(seed)
  const between = (a: number, b: number): number => a + (b - a) * random()
  const pick = (n: number): number => Math.floor(random() * n)
  const elements: Element[] = []
  let count = 0
  const id = (k: string): string => `${k}${++count}`
  const pump = (from: string, to: string): void =>
    void elements.push({
      kind: 'pump', id: id('pu'), label: 'Pump', from, to,
      pump: { shutOffHead: between(0.6, 3), maxFlow: between(2e-4, 1e-3), exponent: between(1.4, 2.2) },
    }) // prettier-ignore
  const hose = (from: string, to: string): void =>
    void elements.push({
      kind: 'hose', id: id('h'), label: 'Hose', from, to,
      length: between(0.3, 3), diameter: between(0.01, 0.025), roughness: between(1e-6, 2e-4),
    }) // prettier-ignore
  const fitting = (from: string, to: string): void =>
    void elements.push({
      kind: 'fitting', id: id('f'), label: 'Fitting', from, to,
      lossCoefficient: between(0.5, 6), diameter: between(0.012, 0.025), count: 1 + pick(3),
    }) // prettier-ignore
  const medium = (from: string, to: string): void => {
    const k = 10 ** between(-9, -7)
    elements.push({
      kind: 'layer', id: id('l'), label: 'Layer', from, to,
      thickness: between(0.01, 0.12), area: between(0.01, 0.05), permeability: k, inertia: between(50, 3000),
    }) // prettier-ignore
  }
  const slot = (from: string, to: string): void =>
    void elements.push({
      kind: 'slot', id: id('s'), label: 'Gap', from, to,
      gap: between(0.0008, 0.004), perimeter: between(0.2, 0.9), length: between(0.02, 0.12), lossCoefficient: 1.5,
    }) // prettier-ignore
  const holes = (from: string, to: string): void =>
    void elements.push({
      kind: 'orifices', id: id('o'), label: 'Spray bar', from, to,
      holes: 8 + pick(20), holeDiameter: between(0.003, 0.006), dischargeCoefficient: 0.62,
    }) // prettier-ignore
  const lift = random() < 0.4 ? between(0, 0.3) : 0
  hose('tank', 'a')
  fitting('a', 'b')
  pump('b', 'c')
  if (random() < 0.4) pump('b', 'c')
  let at = 'c'
  const stages = 1 + pick(4)
  for (let s = 0; s < stages; s++) {
    const next = `t${s}`
    medium(at, next)
    if (random() < 0.7) slot(at, next)
    if (random() < 0.25) medium(at, next)
    at = next
  }
  hose(at, 'd')
  if (random() < 0.5) holes('d', 'back')
  else fitting('d', 'back')
  if (random() < 0.4) {
    // A second outlet beside the first, from its own branch of hose.
    hose(at, 'e')
    fitting('e', 'back')
  }
  return { elements, heads: { tank: 0, back: lift }, fluid: FLUID }
}

/** Fewer of them, where each mutant is held against all of this. */
declare const NETWORKS: number | undefined

test('two hundred generated networks with layers, gaps, branches and two pumps: every flow within 0.1 % of EPANET', async () => {
  const worst: [number, string, number][] = []
  for (let seed = 1; seed <= (typeof NETWORKS === 'number' ? NETWORKS : 200); seed++) {
    const network = generate(seed)
    const ours = solveNetwork(network)
    const top = 2.5 * Math.max(...ours.results.map((r) => Math.abs(r.flow)))
    const engine = await openEpanet(network, top)
    const theirs = engine.solve()
    engine.close()
    const whole = Math.max(...theirs.map(Math.abs))
    ours.results.forEach((r, i) => {
      const t = theirs[i] ?? NaN
      // A trickle is held against the whole: EPANET stops at a relative change of all flows together.
      const apart = Math.abs(r.flow - t) / Math.max(Math.abs(t), 0.02 * whole)
      worst.push([apart, `${seed} ${r.element.id}`, t])
    })
  }
  worst.sort((a, b) => b[0] - a[0])
  expect(
    worst.slice(0, 3).map(([apart, id]) => `${id} ${apart < 0.001 ? 'ok' : (apart * 100).toFixed(3)}`),
  ).toEqual(worst.slice(0, 3).map(([, id]) => `${id} ok`))
}, 180000)

test('an exported file gives back the very same network; another program’s file is refused', () => {
  const network = generate(7)
  expect(fromInp(toInp(network))).toEqual(network)
  expect(() => fromInp('[JUNCTIONS]\n J1 0 0\n')).toThrow('a file exported from here')
  expect(() => fromInp(`${toInp(network).slice(0, 400)}`)).toThrow()
})
