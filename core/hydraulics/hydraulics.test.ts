import { affinity, fitPumpCurve, pumpBand, pumpFlow, pumpFromLabel, pumpHead, sprayBarLoss } from '.'
import { dutyPoint, netStaticHead, sensitivity, uncertainDutyPoint, type Circuit } from '../duty'

const lph = (q: number): number => q / 3.6e6
const pump = pumpFromLabel({ ratedFlow: lph(1000), maxHead: 1.8 })
const circuit: Circuit = {
  pump,
  staticHead: 0,
  fluid: { kinematicViscosity: 8.93e-7 },
  segments: [
    { kind: 'fitting', id: 'in', label: 'Intake strainer', lossCoefficient: 1.5, diameter: 0.016, count: 1 },
    { kind: 'hose', id: 'h', label: 'Hose', length: 3, diameter: 0.016, roughness: 1.5e-6 },
    { kind: 'fitting', id: 'tap', label: 'Tap', lossCoefficient: 1.2, diameter: 0.016, count: 2 },
    { kind: 'fitting', id: 'exit-open', label: 'Open end', lossCoefficient: 1, diameter: 0.016, count: 1 },
  ],
}

test('a label curve runs from its head to its flow and is never negative', () => {
  expect(pumpHead(0, pump)).toBe(1.8)
  expect(pumpHead(lph(1000), pump)).toBeCloseTo(0, 12)
  expect(pumpHead(lph(2000), pump)).toBe(0)
  expect(pumpFlow(pumpHead(lph(640), pump), pump)).toBeCloseTo(lph(640), 12)
})

test('60 Hz turns a 50 Hz pump 1.2 times faster: flow × 1.2, head × 1.44', () => {
  expect(affinity(pump, 1.2)).toMatchObject({ maxFlow: lph(1200), shutOffHead: 1.8 * 1.44 })
})

test('cabinet height costs nothing in a closed loop; a raised return or a sump does', () => {
  expect(netStaticHead({ outletAboveWater: -0.05, sourceBelowWater: 0 })).toMatchObject({
    head: 0,
    circuit: 'closed',
  })
  expect(netStaticHead({ outletAboveWater: 0.12, sourceBelowWater: 0 })).toMatchObject({
    head: 0.12,
    circuit: 'open',
  })
  expect(netStaticHead({ outletAboveWater: 0.1, sourceBelowWater: 0.8 }).head).toBeCloseTo(0.9, 12)
})

test('a lift at or above the shut-off head gives no flow and says so', () => {
  expect(dutyPoint({ ...circuit, staticHead: 1.8 })).toEqual({ flow: 0, head: 1.8, blocked: true })
})

test('a source above the tank runs by gravity past the pump’s largest flow', () => {
  expect(dutyPoint({ ...circuit, staticHead: -2 }).flow).toBeGreaterThan(pump.maxFlow)
})

const LEVEL = { head: 0, circuit: 'closed', fromOutlet: 0, fromSource: 0 } as const

test('a return let down to the water gives back its own height, and a sump keeps the rest (energy equation, by hand)', () => {
  const lift = netStaticHead({ outletAboveWater: 0.1, sourceBelowWater: 0.8 })
  const lines = sensitivity({ ...circuit, staticHead: lift.head }, lift)
  const lowered = lines.find((l) => l.id === 'lift')
  expect(lowered?.flow).toBeCloseTo(dutyPoint({ ...circuit, staticHead: 0.8 }).flow, 12)
  // Nothing to let down: it is not offered.
  const level = netStaticHead({ outletAboveWater: 0, sourceBelowWater: 0.8 })
  expect(sensitivity({ ...circuit, staticHead: 0.8 }, level).map((l) => l.id)).not.toContain('lift')
})

test('each change for the better gives more flow, and a spray bar less than an open end', () => {
  const lines = new Map(sensitivity(circuit, LEVEL).map((l) => [l.id, l.change]))
  expect(lines.get('shorter')).toBeGreaterThan(0)
  expect(lines.get('wider')).toBeGreaterThan(lines.get('shorter') ?? Infinity)
  expect(lines.get('fewer')).toBeGreaterThan(0)
  expect(lines.get('outlet')).toBeLessThan(0)
})

test('a spray bar costs the head of its jets: 20 holes of 4 mm at 720 L/h', () => {
  // By hand: a = 1.2566e-5 m², v = 2e-4/(0.62·20·1.2566e-5) = 1.2835 m/s, h = v²/2g = 0.0840 m.
  const bar = {
    kind: 'spray-bar',
    id: 's',
    label: 's',
    holes: 20,
    holeDiameter: 0.004,
    dischargeCoefficient: 0.62,
  } as const
  expect(sprayBarLoss(2e-4, bar)).toBeCloseTo(0.084, 4)
})

test('an unknown exponent and unsure losses widen the duty point; a point on the curve does not', () => {
  const byLabel = uncertainDutyPoint(circuit, { kind: 'label' })
  expect(byLabel.parts.pump).toBeGreaterThan(0)
  expect(byLabel.standardUncertainty).toBeCloseTo(Math.hypot(byLabel.parts.pump, byLabel.parts.losses), 15)
  const zero = [0, 1, 2].map(() => [0, 0, 0])
  expect(
    uncertainDutyPoint(circuit, {
      kind: 'fit',
      fit: { pump, covariance: zero, scatter: zero, degreesOfFreedom: Infinity },
    }).parts.pump,
  ).toBe(0)
})

describe('fitting a curve', () => {
  const at = (head: number, flow: number) => ({ head, flow: lph(flow) })
  test('one point fits no curve', () => {
    expect(() => fitPumpCurve([at(0, 900)])).toThrow('and has 1')
  })
  test('a series that rises is refused', () => {
    expect(() => fitPumpCurve([at(0, 300), at(0.5, 500), at(1, 900)])).toThrow('rises')
  })
  test('points over little of the head keep to the assumed exponent and say so; over most of it they find it', () => {
    const few = fitPumpCurve([at(0, 985), at(0.3, 890), at(0.6, 790)])
    expect(few.exponent).toBe('assumed')
    expect(few.pump.exponent).toBeGreaterThan(1.5)
    expect(few.pump.exponent).toBeLessThan(2.2)
    expect(pumpBand(lph(700), few)).toBeGreaterThan(0)
    const truth = { shutOffHead: 1.8, maxFlow: lph(1000), exponent: 2.1 }
    const many = fitPumpCurve(
      [0, 0.4, 0.8, 1.2, 1.5, 1.7].map((head) => ({
        head,
        flow: pumpFlow(head, truth),
        flowUncertainty: lph(2),
        headUncertainty: 0.003,
      })),
    )
    expect(many.exponent).toBe('fitted')
    expect(many.pump.exponent).toBeCloseTo(2.1, 1)
  })
})

test.each([
  [
    'segments[1].diameter',
    { ...circuit, segments: circuit.segments.map((s) => (s.kind === 'hose' ? { ...s, diameter: 0 } : s)) },
  ],
  ['pump.maxFlow', { ...circuit, pump: { ...pump, maxFlow: -1 } }],
])('a bad %s is named', (field, bad) => {
  expect(() => dutyPoint(bad)).toThrow(field)
})
