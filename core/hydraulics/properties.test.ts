import fc from 'fast-check'
import {
  circuitLoss,
  dutyPoint,
  headBudget,
  netStaticHead,
  sensitivity,
  uncertainDutyPoint,
  type Circuit,
} from '../duty'
import {
  FITTING_KINDS,
  fitPumpCurve,
  frictionFactor,
  HOSE_SIZES,
  HOSE_WALLS,
  labelBand,
  pumpBand,
  pumpFlow,
  pumpHead,
  type Segment,
} from '.'

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const pump = fc.record({
  shutOffHead: between(0.2, 5),
  maxFlow: between(5e-5, 2e-3),
  exponent: between(1, 2.5),
})
const hose: fc.Arbitrary<Segment> = fc.record({
  kind: fc.constant('hose' as const),
  id: fc.uuid(),
  label: fc.constant('Hose'),
  length: between(0.1, 6),
  diameter: between(0.008, 0.03),
  roughness: between(0, 1e-3),
})
const fitting: fc.Arbitrary<Segment> = fc.record({
  kind: fc.constant('fitting' as const),
  id: fc.uuid(),
  label: fc.constant('Fitting'),
  lossCoefficient: between(0.1, 20),
  diameter: between(0.008, 0.03),
  count: fc.integer({ min: 1, max: 4 }),
})
const bar: fc.Arbitrary<Segment> = fc.record({
  kind: fc.constant('spray-bar' as const),
  id: fc.uuid(),
  label: fc.constant('Bar'),
  holes: fc.integer({ min: 5, max: 40 }),
  holeDiameter: between(0.002, 0.006),
  dischargeCoefficient: between(0.55, 0.7),
})
const circuit: fc.Arbitrary<Circuit> = fc
  .record({
    pump,
    segments: fc.array(fc.oneof(hose, fitting, bar), { minLength: 1, maxLength: 12 }),
    lift: between(0, 0.9),
    nu: between(6e-7, 2e-6),
  })
  .map(({ lift, nu, ...c }) => ({
    ...c,
    staticHead: lift * c.pump.shutOffHead,
    fluid: { kinematicViscosity: nu },
  }))

test('the friction factor falls with Re within each regime and rises with roughness, and is always positive', () => {
  fc.assert(
    fc.property(between(4000, 1e7), between(0, 0.05), between(1.001, 3), (re, rough, k) => {
      const f = frictionFactor(re, rough)
      expect(f).toBeGreaterThan(0)
      expect(frictionFactor(re * k, rough)).toBeLessThanOrEqual(f * (1 + 1e-12))
      expect(frictionFactor(re, Math.min(0.2, rough * k))).toBeGreaterThanOrEqual(f * (1 - 1e-12))
    }),
  )
})

test('head and flow of a pump undo each other', () => {
  fc.assert(
    fc.property(pump, between(0.001, 0.999), (p, share) => {
      const head = p.shutOffHead * share
      expect(Math.abs(pumpHead(pumpFlow(head, p), p) - head)).toBeLessThan(1e-9)
      expect(pumpHead(p.maxFlow * 1.5, p)).toBe(0)
    }),
  )
})

test('at the duty point the pump gives exactly what lift and losses take, and the budget spends all of it', () => {
  fc.assert(
    fc.property(circuit, (c) => {
      const duty = dutyPoint(c)
      expect(duty.flow).toBeGreaterThan(0)
      const taken = c.staticHead + circuitLoss(duty.flow, c.segments, c.fluid)
      expect(Math.abs(taken / duty.head - 1)).toBeLessThan(1e-8)
      const lines = headBudget(duty.flow, c)
      expect(Math.abs(lines.reduce((s, l) => s + l.share, 0) - 1)).toBeLessThan(1e-9)
      expect(lines.every((l) => l.head >= 0)).toBe(true)
    }),
  )
})

test('whatever adds resistance or lift never adds flow', () => {
  fc.assert(
    fc.property(circuit, fitting, between(0, 1), (c, more, lift) => {
      const now = dutyPoint(c).flow
      expect(dutyPoint({ ...c, segments: [...c.segments, more] }).flow).toBeLessThan(now)
      expect(dutyPoint({ ...c, staticHead: c.staticHead + lift }).flow).toBeLessThanOrEqual(now)
    }),
  )
})

test('pieces may be named and ordered as one likes: the flow is the same', () => {
  fc.assert(
    fc.property(circuit, (c) => {
      const turned = [...c.segments].reverse()
      expect(Math.abs(dutyPoint({ ...c, segments: turned }).flow / dutyPoint(c).flow - 1)).toBeLessThan(1e-9)
    }),
  )
})

test('each offered change is solved on its own circuit; taking away never loses flow', () => {
  fc.assert(
    fc.property(circuit, (c) => {
      for (const line of sensitivity(c, {
        head: c.staticHead,
        circuit: 'open',
        fromOutlet: Math.max(0, c.staticHead),
        fromSource: 0,
      })) {
        expect(Math.abs(line.flow - line.change - dutyPoint(c).flow)).toBeLessThan(1e-12)
        if (['shorter', 'wider', 'fewer', 'lift'].includes(line.id))
          expect(line.change).toBeGreaterThanOrEqual(-1e-12)
      }
    }),
    { numRuns: 50 },
  )
})

test('uncertainty of the duty point grows with what is unknown of pump and losses', () => {
  fc.assert(
    fc.property(circuit, (c) => {
      const zero = [0, 1, 2].map(() => [0, 0, 0])
      const sure = uncertainDutyPoint(c, {
        kind: 'fit',
        fit: { pump: c.pump, covariance: zero, scatter: zero, degreesOfFreedom: Infinity },
      })
      const label = uncertainDutyPoint(c, { kind: 'label' })
      expect(label.standardUncertainty).toBeGreaterThanOrEqual(sure.standardUncertainty)
      expect(label.expandedUncertainty).toBeCloseTo(1.959964 * label.standardUncertainty, 9)
    }),
    { numRuns: 50 },
  )
})

test('the label’s band holds the assumed curve; the fitted band closes where nothing is uncertain', () => {
  fc.assert(
    fc.property(pump, between(0.05, 0.95), (p, share) => {
      const flow = p.maxFlow * share
      const zero = [0, 1, 2].map(() => [0, 0, 0])
      const { low, high } = labelBand(flow, p)
      const assumed = pumpHead(flow, { ...p, exponent: 1.75 })
      expect(low).toBeLessThanOrEqual(assumed)
      expect(high).toBeGreaterThanOrEqual(assumed)
      expect(pumpBand(flow, { pump: p, covariance: zero, scatter: zero, degreesOfFreedom: Infinity })).toBe(0)
    }),
  )
})

test('a fit of noisy points covers the truth: its 95 % band at mid-flow holds the true head in most of 60 cases', () => {
  const truth = { shutOffHead: 1.7, maxFlow: 2.6e-4, exponent: 1.8 }
  let inside = 0
  const cases = 60
  for (let seed = 1; seed <= cases; seed++) {
    let state = seed * 7919
    const noise = (): number => {
      let sum = 0
      for (let i = 0; i < 12; i++) {
        state = (state * 16807) % 2147483647
        sum += state / 2147483647
      }
      return sum - 6
    }
    const fit = fitPumpCurve(
      [0, 0.25, 0.5, 0.75, 1, 1.25, 1.5].map((head) => ({
        head,
        flow: pumpFlow(head, truth) * (1 + 0.01 * noise()),
        flowUncertainty: pumpFlow(head, truth) * 0.01,
        headUncertainty: 0.003,
      })),
    )
    const flow = truth.maxFlow / 2
    if (Math.abs(pumpHead(flow, fit.pump) - pumpHead(flow, truth)) <= pumpBand(flow, fit)) inside++
  }
  // 95 % of 60 is 57; three standard deviations below that is 52.
  expect(inside).toBeGreaterThanOrEqual(52)
})

test('static head is what is let go above less what is taken from below, and depth of the body never enters', () => {
  fc.assert(
    fc.property(between(-1, 2), between(0, 2), (outlet, source) => {
      const s = netStaticHead({ outletAboveWater: outlet, sourceBelowWater: source })
      expect(s.head).toBeCloseTo(Math.max(0, outlet) + source, 12)
      expect(s.circuit).toBe(s.head === 0 ? 'closed' : 'open')
    }),
  )
})

test('tables: bores fit in their hoses, every coefficient names its source, ids are their own', () => {
  for (const h of HOSE_SIZES) expect(h.outer).toBeGreaterThan(h.inner)
  for (const row of [...FITTING_KINDS, ...HOSE_WALLS]) expect(row.source).toMatch(/memory|no source|measured/)
  for (const list of [FITTING_KINDS, HOSE_WALLS, HOSE_SIZES])
    expect(new Set(list.map((r) => r.id)).size).toBe(list.length)
  for (const kind of FITTING_KINDS) expect(kind.lossCoefficient).toBeGreaterThan(0)
})
