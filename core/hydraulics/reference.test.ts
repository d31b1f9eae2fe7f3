import { seeded } from '../statistics'
import { waterProperties } from '../water'
import { dutyPoint, headBudget, type Circuit } from '../duty'
import { fitPumpCurve, frictionFactor, hoseLoss, reynolds, type Segment } from '.'
import { epanet, EPANET_GRAVITY, EPANET_VISCOSITY } from './epanet.fixture'

/* value | source | from memory? | tolerance */
test.each([
  [1e4, 0, 0.0309],
  [1e5, 0, 0.018],
  [1e5, 1e-4, 0.0185],
  [1e6, 1e-3, 0.0199],
])('friction factor at Re %d, ε/D %d is %d (Moody chart, 1944; from memory; 0.5 %)', (re, rough, f) => {
  expect(Math.abs(frictionFactor(re, rough) / f - 1)).toBeLessThan(5e-3)
})

test('laminar hose loss is Poiseuille’s law: h = 128 ν L Q / (π g D⁴) (exact)', () => {
  const nu = waterProperties({ temperature: 25 }).kinematicViscosity
  const hose = { kind: 'hose', id: 'h', label: 'h', length: 2, diameter: 0.02, roughness: 0 } as const
  const q = 1e-5
  expect(reynolds(q, 0.02, nu)).toBeLessThan(2000)
  const exact = (128 * nu * 2 * q) / (Math.PI * 9.80665 * 0.02 ** 4)
  expect(hoseLoss(q, hose, { kinematicViscosity: nu })).toBeCloseTo(exact, 14)
})

test.each(['colebrook', 'swamee-jain'] as const)(
  'the transition joins %s smoothly at Re 2000 and 4000',
  (correlation) => {
    for (const rough of [0, 1e-3, 2e-2]) {
      const f = (re: number): number => frictionFactor(re, rough, correlation)
      expect(f(2000.0001)).toBeCloseTo(0.032, 6)
      expect(f(3999.999)).toBeCloseTo(f(4000), 6)
      const inside = (f(3999.9) - f(3999.8)) / 0.1
      const outside = (f(4000.2) - f(4000.1)) / 0.1
      expect(Math.abs(inside / outside - 1)).toBeLessThan(1e-2)
    }
  },
)

/** One random canister-like circuit: hoses of 6 to 25 mm, fittings, lift; viscosity spread to reach laminar flow. */
function randomCircuit(random: () => number): Circuit {
  const between = (a: number, b: number): number => a + (b - a) * random()
  const diameter = between(0.006, 0.025)
  const head = between(0.3, 3)
  const segments: Segment[] = []
  const count = 2 + Math.floor(random() * 10)
  for (let i = 0; i < count; i++) {
    const bore = diameter * between(0.8, 1.2)
    if (i % 2 === 0)
      segments.push({
        kind: 'hose',
        id: `h${i}`,
        label: 'hose',
        length: between(0.2, 3),
        diameter: bore,
        roughness: bore * 10 ** between(-5, -2),
      })
    else
      segments.push({
        kind: 'fitting',
        id: `f${i}`,
        label: 'f',
        lossCoefficient: between(0.1, 5),
        diameter: bore,
        count: 1,
      })
  }
  return {
    pump: { shutOffHead: head, maxFlow: between(150, 2500) / 3.6e6, exponent: between(1.2, 2.4) },
    segments,
    staticHead: random() < 0.5 ? 0 : between(0, 0.8) * head,
    fluid: {
      kinematicViscosity: EPANET_VISCOSITY * 10 ** between(-0.1, 1.3),
      gravity: EPANET_GRAVITY,
      correlation: 'swamee-jain',
    },
  }
}

test('80 generated circuits, laminar to turbulent, agree with EPANET 2.2 within 0.1 % in flow', async () => {
  const random = seeded(20260711)
  const regimes = { laminar: 0, transition: 0, turbulent: 0 }
  let worst = 0
  for (let i = 0; i < 80; i++) {
    const circuit = randomCircuit(random)
    const engine = await epanet(circuit)
    const theirs = engine.solve()
    engine.close()
    const ours = dutyPoint(circuit).flow
    worst = Math.max(worst, Math.abs(ours / theirs - 1))
    const bore = circuit.segments[0]?.kind === 'hose' ? circuit.segments[0].diameter : 0.016
    const re = reynolds(ours, bore, circuit.fluid.kinematicViscosity)
    regimes[re < 2000 ? 'laminar' : re < 4000 ? 'transition' : 'turbulent']++
  }
  expect(worst).toBeLessThan(1e-3)
  expect(Math.min(...Object.values(regimes))).toBeGreaterThan(5)
})

test('a budget spends the whole duty head and no more', () => {
  const random = seeded(5)
  for (let i = 0; i < 20; i++) {
    const circuit = randomCircuit(random)
    const duty = dutyPoint(circuit)
    const spent = headBudget(duty.flow, circuit).reduce((sum, l) => sum + l.head, 0)
    expect(spent).toBeCloseTo(duty.head, 9)
  }
})

test('a curve fitted to sure points off a known pump finds that pump (own case, exact by construction)', () => {
  const pump = { shutOffHead: 1.8, maxFlow: 1000 / 3.6e6, exponent: 1.9 }
  const heads = [0, 0.3, 0.6, 0.9, 1.2, 1.5]
  const fit = fitPumpCurve(
    heads.map((head) => ({
      head,
      flow: pump.maxFlow * (1 - head / pump.shutOffHead) ** (1 / pump.exponent),
      flowUncertainty: 1e-9,
      headUncertainty: 1e-5,
    })),
  )
  expect(fit.pump.shutOffHead).toBeCloseTo(1.8, 5)
  expect(fit.pump.maxFlow * 3.6e6).toBeCloseTo(1000, 3)
  expect(fit.pump.exponent).toBeCloseTo(1.9, 4)
})
