import { Matrix, inverse } from 'ml-matrix'
import { airNetwork, outletFlow, type AirOutlet } from './airNetwork'
import { airlift, airliftCurve } from './airlift'
import { bareOutlet, bodyPosition, velocityHead } from '../kinds/bareOutlet'
import { labelBand, pumpBand, quadraticForm } from './bands'
import { dutyPoint, type Circuit } from '../duty/circuit'
import { pumpVariance, uncertainDutyPoint } from '../duty/dutyUncertainty'
import { fitPumpCurve } from './pumpFit'
import { affinityPower, pumpHead } from './pump'
import type { Segment } from './segments'
import { hookupChanges } from '../duty/sensitivity'
import { fittingPiece, hosePiece, sprayBarPiece, starterHookup } from '../kinds/starters'
import { throttledRun, throttleLoss } from './throttle'

// Values worked by hand, each with the arithmetic beside it. g = 9.80665 m/s², water in an air line 997 kg/m³.

const near = (value: number, digits = 6) => expect.closeTo(value, digits) as number
const share = (a: number, b: number): number => a / b
const outlet = (more: Partial<AirOutlet>): AirOutlet => ({ id: 'a', label: 'A', depth: 0, linear: 0, quadratic: 0, ...more }) // prettier-ignore

describe('an air line', () => {
  const pump = { shutOffPressure: 20_000, maxFlow: 1e-4 }
  test('a stone takes what the pressure leaves above its water: a q + b q² = p − ρ g d', () => {
    // 1e7 · 2e-5 + 1e12 · 4e-10 = 200 + 400 Pa.
    expect(outletFlow(600, outlet({ linear: 1e7, quadratic: 1e12 })) / 2e-5).toBeCloseTo(1, 9)
    expect(outletFlow(600, outlet({ linear: 1e7 })) / 6e-5).toBeCloseTo(1, 9)
    // 0.3 m of water are 2933.17 Pa: nothing up to there, then the rest.
    const deep = outlet({ depth: 0.3, linear: 1e8 })
    expect(outletFlow(2933, deep)).toBe(0)
    expect(outletFlow(2933.17 + 1000, deep) / 1e-5).toBeCloseTo(1, 4)
  })
  test('a valve stands in the line whatever is behind it: half open b = 10 · 1.2 / (2 (A/2)²) = 1.5198e11', () => {
    // A = π 0.004²/4 = 1.25664e-5 m²; at 2e-5 m³/s the stone takes 200 Pa, the valve 60.79 Pa.
    expect(outletFlow(260.793, outlet({ linear: 1e7, open: 0.5 })) / 2e-5).toBeCloseTo(1, 4)
    // Fully open it costs a quarter per halving of the area less: b = 3.7995e10, 15.198 Pa.
    expect(outletFlow(215.198, outlet({ linear: 1e7, open: 1 })) / 2e-5).toBeCloseTo(1, 4)
    expect(outletFlow(1e4, outlet({ linear: 1e7, open: 0 }))).toBe(0)
  })
  test('two outlets at one pressure: 1e-4 (1 − p/20000) = p/1e8 + (p − 2933.17)/1e8 → p = 5173.27 Pa', () => {
    const r = airNetwork(pump, [
      outlet({ linear: 1e8 }),
      outlet({ id: 'b', label: 'B', depth: 0.3, linear: 1e8 }),
    ])
    expect(r.pressure).toBeCloseTo(5173.27, 1)
    expect(r.flow / 7.41337e-5).toBeCloseTo(1, 4)
    expect(r.outlets.map((o) => [o.id, o.flow / 1e-5, o.share])).toEqual([
      ['a', near(5.17327, 3), near(0.69783, 4)],
      ['b', near(2.2401, 3), near(0.30217, 4)],
    ])
  })
  test('a curve of exponent 2 gives half its flow at three quarters of its pressure', () => {
    const r = airNetwork({ ...pump, exponent: 2 }, [outlet({ linear: 15_000 / 5e-5 })])
    expect(r.pressure).toBeCloseTo(15_000, 2)
    expect(r.flow / 5e-5).toBeCloseTo(1, 6)
  })
  test('too deep for the pump nothing flows, and there are no shares; what cannot be is named', () => {
    const r = airNetwork(pump, [outlet({ depth: 5, linear: 1e8 })])
    expect(r.flow).toBe(0)
    expect(r.outlets[0]?.share).toBe(0)
    expect(() => airNetwork({ ...pump, maxFlow: 0 }, [])).toThrow('pump.maxFlow')
    expect(() => airNetwork({ ...pump, shutOffPressure: 0 }, [])).toThrow('pump.shutOffPressure')
    expect(() => airNetwork(pump, [outlet({ linear: 1 }), outlet({ depth: -0.1, linear: 1 })])).toThrow(
      'outlets[1].depth',
    )
    expect(() => airNetwork(pump, [outlet({})])).toThrow('outlets[0].resistance')
    expect(() => airNetwork(pump, [outlet({ linear: -1, quadratic: 5 })])).toThrow('outlets[0].resistance')
    expect(() => airNetwork(pump, [outlet({ linear: 5, quadratic: -1 })])).toThrow('outlets[0].resistance')
    expect(airNetwork(pump, [outlet({ quadratic: 1e12 })]).flow).toBeGreaterThan(0)
  })
})

describe('an airlift’s own curve', () => {
  const riser = { diameter: 0.02, submergence: 0.3, lift: 0.02 }
  const air = 1e-5
  test('its head at no flow is S/(1 − α) − S − L, α = j/(1.2 j + 0.35 √(g D)); half its flow is at H0 (1 − ½ⁿ)', () => {
    const curve = airliftCurve(riser, air)
    // j = 1e-5/3.14159e-4 = 0.031831; √(9.80665 · 0.02) = 0.442869; α = 0.031831/(0.038197 + 0.155004) = 0.164755.
    expect(curve.shutOffHead).toBeCloseTo(0.3 / (1 - 0.164755) - 0.32, 4)
    expect(curve.maxFlow).toBe(airlift(riser, air).flow)
    const half = curve.shutOffHead * (1 - 0.5 ** curve.exponent)
    expect(airlift({ ...riser, lift: riser.lift + half }, air).flow / (curve.maxFlow / 2)).toBeCloseTo(1, 3)
    expect(curve.exponent).toBeGreaterThan(0.5)
    expect(curve.exponent).toBeLessThan(10)
  })
  test('air too little to lift is named; a lift of nothing is taken, one below nothing is not', () => {
    expect(airlift({ ...riser, lift: 0.2 }, 1e-6)).toMatchObject({ flow: 0, stalled: true })
    expect(() => airliftCurve({ ...riser, lift: 0.2 }, 1e-6)).toThrow('airFlow')
    expect(airlift({ ...riser, lift: 0 }, air).flow).toBeGreaterThan(airlift(riser, air).flow)
    expect(() => airlift({ ...riser, lift: -0.01 }, air)).toThrow('lift')
    expect(() => airlift(riser, -1)).toThrow('airFlow')
    expect(() => airlift(riser, Infinity)).toThrow('airFlow')
    expect(() => airlift({ ...riser, diameter: 0 }, air)).toThrow('diameter')
    expect(() => airlift({ ...riser, submergence: 0 }, air)).toThrow('submergence')
  })
  test('what carries the water is spent on column, wall and entry (momentum balance, worked out again here)', () => {
    const { flow, voidFraction } = airlift(riser, air, 1e-6)
    const area = (Math.PI * 0.02 ** 2) / 4
    const [j, gas] = [flow / area, air / area]
    // Blasius holds at this Reynolds number to a few per cent: f = 0.316/Re^¼.
    const f = 0.316 / (((j + gas) * 0.02) / 1e-6) ** 0.25
    const wall = ((f * 0.32) / 0.02) * ((j * (j + gas)) / (2 * 9.80665))
    const left = 0.3 - (1 - voidFraction) * 0.32 - wall - j ** 2 / (2 * 9.80665)
    expect(Math.abs(left)).toBeLessThan(0.1 * wall)
    expect(voidFraction).toBeCloseTo(gas / (1.2 * (gas + j) + 0.35 * Math.sqrt(9.80665 * 0.02)), 9)
  })
})

const hose = (diameter: number, id = 'h'): Segment => hosePiece(id, 'Hose', 1, diameter)
const bend = (diameter: number, id = 'f'): Segment => fittingPiece(id, 'bend-90', diameter)
const strainer = (diameter: number): Segment => fittingPiece('s', 'entrance-strainer', diameter)

describe('where a bare body pours from', () => {
  test('v²/2g: 1000 L/h in 16 mm are 1.3816 m/s, 0.09731 m', () => {
    expect(velocityHead(1000 / 3.6e6, 0.016)).toBeCloseTo(0.09731, 4)
  })
  test('the body stands after the first of two hoses, after the intake where there is one, at the end of a tube', () => {
    expect(bodyPosition('canister', [strainer(0.016), hose(0.016), bend(0.016), hose(0.016)])).toBe(2)
    expect(bodyPosition('internal', [strainer(0.02), hose(0.016), bend(0.016)])).toBe(1)
    expect(bodyPosition('internal', [bend(0.016), hose(0.016)])).toBe(0)
    expect(bodyPosition('internal', [strainer(0.016)])).toBe(1)
    expect(bodyPosition('hang-on-back', [strainer(0.018), hose(0.018), bend(0.018)])).toBe(2)
    expect(bodyPosition('hang-on-back', [])).toBe(0)
  })
  test('its bore is the first after it, else the last before it, else the kind’s usual', () => {
    const run = [strainer(0.02), hose(0.018), hose(0.012), sprayBarPiece('b')]
    expect(bareOutlet('canister', run)).toEqual({ bore: 0.012, known: true })
    expect(bareOutlet('internal', [strainer(0.02)])).toEqual({ bore: 0.02, known: true })
    // A bar has holes, no bore.
    expect(bareOutlet('internal', [strainer(0.02), sprayBarPiece('b')])).toEqual({ bore: 0.02, known: true })
    expect(bareOutlet('canister', undefined)).toEqual({ bore: 0.016, known: false })
    expect(bareOutlet('hang-on-back', [])).toEqual({ bore: 0.03, known: false })
  })
})

describe('a tap turned down, and pieces to start from', () => {
  test('K (1/s⁴ − 1), K = 1.2: half open 18, a quarter 306; fully nothing; closed as 2 %', () => {
    expect(throttleLoss(0.5)).toBeCloseTo(18, 9)
    expect(throttleLoss(0.25)).toBeCloseTo(306, 9)
    expect(throttleLoss(1)).toBe(0)
    expect(throttleLoss(1.5)).toBe(0)
    expect(throttleLoss(0)).toBeCloseTo(1.2 * (1 / 0.02 ** 4 - 1), 3)
  })
  test('the run has it as one piece more, in the bore of its last one', () => {
    const run = [hose(0.018), hose(0.012), sprayBarPiece('b')]
    expect(throttledRun(run, 0.5)).toEqual([...run, { kind: 'fitting', id: 'throttle', label: 'Tap, 50 % open', lossCoefficient: 18, diameter: 0.012, count: 1 }]) // prettier-ignore
    expect(throttledRun([], 0.5, 0.02)[0]).toMatchObject({ diameter: 0.02 })
    expect(throttledRun(run, 1)).toBe(run)
    expect(throttledRun(run, undefined)).toBe(run)
  })
  test('a canister’s usual run: strainer, hoses and fittings as its kind lists them, each with an id of its own', () => {
    let n = 0
    const { segments, outletAboveWater, bodyBelowWater } = starterHookup(
      'canister',
      (what) => `${what}-${++n}`,
    )
    expect(new Set(segments.map((s) => s.id)).size).toBe(segments.length)
    expect([outletAboveWater, bodyBelowWater]).toEqual([-0.05, 0.9])
    expect(segments[0]).toMatchObject({
      kind: 'fitting',
      catalogue: 'entrance-strainer',
      diameter: 0.016,
      count: 1,
    })
    expect(segments[2]).toMatchObject({ kind: 'hose', length: 1.5, diameter: 0.016, label: 'Suction hose' })
    expect(segments[3]).toMatchObject({ catalogue: 'tap', lossCoefficient: 1.2, count: 2 })
    expect(hosePiece('x', 'y', 2, 0.01)).toMatchObject({ kind: 'hose', roughness: 1.5e-6, length: 2 })
  })
})

describe('doubt in a curve', () => {
  const pump = { shutOffHead: 2, maxFlow: 1, exponent: 2 }
  const diagonal = [[0.01, 0, 0], [0, 0.04, 0], [0, 0, 0.09]] // prettier-ignore
  test('gᵀ C g of (1, 2) over ((2, 0.5), (0.5, 1)): 2 + 4 · 1 + 2 · 2 · 0.5 = 8; never below nothing', () => {
    expect(quadraticForm([1, 2], [[2, 0.5], [0.5, 1]])).toBe(8) // prettier-ignore
    expect(quadraticForm([1, 2], [[-2, 0], [0, -1]])).toBe(0) // prettier-ignore
  })
  test('the band at half the flow: g = (0.75, 1, 0.3466), u² = 0.005625 + 0.04 + 0.010811; k = 1.96, with five degrees 2.571', () => {
    const none = [[0, 0, 0], [0, 0, 0], [0, 0, 0]] // prettier-ignore
    const known = { pump, covariance: diagonal, scatter: none, degreesOfFreedom: 5 }
    expect(pumpBand(0.5, known)).toBeCloseTo(1.96 * Math.sqrt(0.0564357), 3)
    expect(pumpBand(0.5, { ...known, scatter: diagonal })).toBeCloseTo(2.5706 * Math.sqrt(0.0564357), 3)
    // At no flow only the shut-off head counts.
    expect(pumpBand(0, known)).toBeCloseTo(1.96 * 0.1, 3)
    // H0 and Q0 that move together: 2 · 0.75 · 1 · 0.002 more.
    const tied = [[0.01, 0.002, 0], [0.002, 0.04, 0], [0, 0, 0.09]] // prettier-ignore
    expect(pumpBand(0.5, { ...known, covariance: tied })).toBeCloseTo(1.96 * Math.sqrt(0.0594357), 3)
  })
  test('a label’s band lies between exponents 1.5 and 2.2', () => {
    const { low, high } = labelBand(0.5, pump)
    expect([low, high]).toEqual([near(2 * (1 - 0.5 ** 1.5)), near(2 * (1 - 0.5 ** 2.2))])
    expect(pumpHead(0.5, pump)).toBeCloseTo(1.5, 12)
  })
  test('what shifts by 3 H0 + 5 Q0 + 7 n has 9 · 0.01 + 25 · 0.04 + 49 · 0.09 = 5.5; a label’s exponent is rectangular', () => {
    const shift = (p: typeof pump): number => 3 * p.shutOffHead + 5 * p.maxFlow + 7 * p.exponent
    const fit = { pump, covariance: diagonal, scatter: [[0.02, 0, 0], [0, 0, 0], [0, 0, 0]], degreesOfFreedom: 4 } // prettier-ignore
    const r = pumpVariance(pump, { kind: 'fit', fit }, shift)
    expect(r.variance).toBeCloseTo(5.5, 6)
    expect(r.parts).toEqual([{ variance: near(0.18), degreesOfFreedom: 4 }])
    // (7 · (2.2 − 1.5)/2)²/3 = 2.000833.
    expect(pumpVariance(pump, { kind: 'label' }, shift)).toEqual({ variance: near(2.0008333), parts: [] })
  })
  test('losses ±15 %: a fitting alone, Q = √(H0/(H0/Q0² + K/(2 g A²))) by hand; a hose and a bar as if longer and tighter', () => {
    const own = { shutOffHead: 2, maxFlow: 3e-4, exponent: 2 }
    const area = (Math.PI * 0.012 ** 2) / 4
    const flow = (k: number): number => Math.sqrt(2 / (2 / 9e-8 + k / (2 * 9.80665 * area ** 2)))
    const fitting: Segment = {
      kind: 'fitting',
      id: 'f',
      label: '',
      lossCoefficient: 5,
      diameter: 0.012,
      count: 1,
    }
    const circuit = (segments: readonly Segment[]): Circuit => ({ pump: own, segments, staticHead: 0, fluid: { kinematicViscosity: 1e-6 } }) // prettier-ignore
    const r = uncertainDutyPoint(circuit([fitting]), { kind: 'label' })
    expect(share(r.flow, flow(5))).toBeCloseTo(1, 6)
    expect(share(r.parts.losses, (flow(5 * 0.85) - flow(5 * 1.15)) / 2)).toBeCloseTo(1, 5)
    expect(share(r.standardUncertainty, Math.hypot(r.parts.pump, r.parts.losses))).toBeCloseTo(1, 9)
    expect(share(r.expandedUncertainty, 1.96 * r.standardUncertainty)).toBeCloseTo(1, 3)
    // The label's exponent: half the flow's span between 1.5 and 2.2, over √3.
    const at = (exponent: number): number =>
      dutyPoint({ ...circuit([fitting]), pump: { ...own, exponent } }).flow
    expect(share(r.parts.pump, (at(2.2) - at(1.5)) / 2 / Math.sqrt(3))).toBeCloseTo(1, 6)
    for (const [now, more, less] of [
      [hosePiece('h', '', 2, 0.012), hosePiece('h', '', 2.3, 0.012), hosePiece('h', '', 1.7, 0.012)],
      [
        sprayBarPiece('b'),
        { ...sprayBarPiece('b'), dischargeCoefficient: 0.62 / Math.sqrt(1.15) },
        { ...sprayBarPiece('b'), dischargeCoefficient: 0.62 / Math.sqrt(0.85) },
      ],
    ] as [Segment, Segment, Segment][])
      // prettier-ignore
      expect(
        share(
          uncertainDutyPoint(circuit([now]), { kind: 'label' }).parts.losses,
          (dutyPoint(circuit([less])).flow - dutyPoint(circuit([more])).flow) / 2,
        ),
      ).toBeCloseTo(1, 5)
    const blocked = uncertainDutyPoint({ ...circuit([fitting]), staticHead: 3 }, { kind: 'label' })
    expect(blocked).toMatchObject({
      blocked: true,
      standardUncertainty: 0,
      expandedUncertainty: 0,
      parts: { pump: 0, losses: 0 },
    })
  })
})

describe('a curve through measured points', () => {
  const truth = { shutOffHead: 2, maxFlow: 3e-4, exponent: 1.8 }
  const flows = [0.4e-4, 1.1e-4, 1.9e-4, 2.6e-4]
  const points = flows.map((flow) => ({
    flow,
    head: pumpHead(flow, truth),
    flowUncertainty: 2e-6,
    headUncertainty: 0.01,
  }))
  test('its covariance is (JᵀWJ + prior)⁻¹ at the curve, weights 1/(u_H² + (dH/dQ u_Q)²) (Orear), worked out again here', () => {
    const fit = fitPumpCurve(points)
    const p = fit.pump
    const of = (q: number, d: Partial<typeof p> = {}): number => pumpHead(q, { ...p, ...d })
    const rows = flows.map((q) =>
      (['shutOffHead', 'maxFlow', 'exponent'] as const).map((k) => {
        const h = p[k] * 1e-5
        return (of(q, { [k]: p[k] + h }) - of(q, { [k]: p[k] - h })) / (2 * h)
      }),
    )
    const weights = flows.map((q) => {
      const slope = (of(q * 1.0001) - of(q * 0.9999)) / (q * 0.0002)
      return 1 / (0.01 ** 2 + (slope * 2e-6) ** 2)
    })
    const J = new Matrix([...rows, [0, 0, 1]])
    const W = Matrix.diag([...weights, 1 / 0.3 ** 2])
    const C = inverse(J.transpose().mmul(W).mmul(J)).to2DArray()
    fit.covariance.forEach((row, i) =>
      row.forEach((v, j) => expect(share(v, C[i]?.[j] ?? 0)).toBeCloseTo(1, 2)),
    )
    expect(fit.points.map((x) => x.residual)).toEqual(points.map((x) => near(x.head - of(x.flow), 9)))
    // Without a word on it a head is known to 10 mm and a flow to 2 % of the largest: 5.2e-6 m³/s.
    const usual = fitPumpCurve(points.map(({ flow, head }) => ({ flow, head })))
    const said = fitPumpCurve(points.map((x) => ({ ...x, flowUncertainty: 5.2e-6 })))
    usual.covariance.forEach((row, i) =>
      row.forEach((v, j) => expect(share(v, said.covariance[i]?.[j] ?? 0)).toBeCloseTo(1, 3)),
    )
  })
  test('what all points share is added to H0 and Q0 and to nothing else; half-widths take k from the freedom', () => {
    const own = fitPumpCurve(points)
    const p = own.pump
    const shared = fitPumpCurve(points, { flow: 0.02, head: 0.05, outletHead: 0.1, degreesOfFreedom: 6 })
    const added = shared.covariance.map((row, i) => row.map((v, j) => v - (own.covariance[i]?.[j] ?? 0)))
    expect(added[0]?.[0]).toBeCloseTo(0.0025, 9)
    // (0.02 Q0)² and the outlet's (0.1 Q0/(n H0))².
    const q0 = (0.02 * p.maxFlow) ** 2 + ((0.1 * p.maxFlow) / (p.exponent * p.shutOffHead)) ** 2
    expect(share(added[1]?.[1] ?? 0, q0)).toBeCloseTo(1, 6)
    for (const [i, j] of [[0, 1], [1, 0], [0, 2], [2, 2], [1, 2]] as const) expect(added[i]?.[j]).toBeCloseTo(0, 12) // prettier-ignore
    expect(shared.scatter).toEqual(own.scatter)
    expect([own.degreesOfFreedom, shared.degreesOfFreedom]).toEqual([Infinity, 6])
    // Without freedom said k is 1.96; with six and nothing shared it is Student's 2.447.
    expect(share(own.halfWidths[2] ?? 0, 1.96 * Math.sqrt(own.covariance[2]?.[2] ?? 0))).toBeCloseTo(1, 3)
    const six = fitPumpCurve(points, { flow: 0, head: 0, degreesOfFreedom: 6 })
    expect(share(six.halfWidths[0] ?? 0, 2.4469 * Math.sqrt(six.covariance[0]?.[0] ?? 0))).toBeCloseTo(1, 3)
  })
  test('too few heads, a flow or head below nothing, and a series that rises or stands still are named', () => {
    const [a, b, c] = points as [(typeof points)[0], (typeof points)[0], (typeof points)[0]]
    expect(() => fitPumpCurve([a, b])).toThrow('and has 2')
    expect(() => fitPumpCurve([a, b, b, a])).toThrow('and has 2')
    expect(() => fitPumpCurve([a, a, a])).toThrow('and has 1')
    try {
      fitPumpCurve([a, b, b, a])
    } catch (error) {
      expect((error as { value: number }).value).toBe(2)
    }
    expect(() => fitPumpCurve([a, { ...b, flow: -1e-5 }, c])).toThrow('points[1].flow')
    expect(() => fitPumpCurve([a, b, { ...c, head: -0.1 }])).toThrow('points[2].head')
    expect(fitPumpCurve([{ ...a, flow: 0, head: 2 }, b, c]).pump.shutOffHead).toBeCloseTo(2, 1)
    const rising = [b, a, c].map((x, i) => ({
      ...x,
      head: [1, 0.5, 1.5][i] ?? 0,
      flow: [1e-4, 0.5e-4, 2e-4][i] ?? 0,
    }))
    expect(() => fitPumpCurve(rising)).toThrow('points')
    expect(() => fitPumpCurve([0.5, 1, 1.5].map((head) => ({ flow: 1e-4, head })))).toThrow('points')
    // The order in which they were taken says nothing.
    expect(
      share(fitPumpCurve([c, a, b, ...points.slice(3)]).pump.maxFlow, fitPumpCurve(points).pump.maxFlow),
    ).toBeCloseTo(1, 6)
  })
})

describe('changes worth trying', () => {
  const level = { head: 0, circuit: 'closed', fromOutlet: 0, fromSource: 0 } as const
  const by = (segments: readonly Segment[], id: string, lift: Parameters<typeof hookupChanges>[1] = level) =>
    hookupChanges(segments, lift).find((c) => c.id === id)
  const long = hosePiece('long', 'Return', 2, 0.012)
  const short = hosePiece('short', 'Suction', 1.5, 0.016)
  const exit: Segment = { kind: 'fitting', id: 'anything', label: 'Sortie libre', lossCoefficient: 1, diameter: 0.012, count: 1, catalogue: 'exit-open' } // prettier-ignore

  test('the longest hose a metre shorter, and none of a metre', () => {
    for (const run of [
      [short, long, bend(0.012)],
      [long, short],
      [bend(0.012), short, long],
    ])
      expect(
        by(run, 'shorter')
          ?.segments.map((s) => (s.kind === 'hose' ? s.length : 0))
          .sort(),
      ).toEqual(run.map((s) => (s.kind === 'hose' ? (s === long ? 1 : 1.5) : 0)).sort())
    expect(by([hosePiece('h', '', 1, 0.012)], 'shorter')).toBeUndefined()
    expect(by([bend(0.012)], 'shorter')).toBeUndefined()
  })
  test('one size wider takes the fittings of the same bore along, and leaves a bar', () => {
    const wider = by([long, bend(0.012), bend(0.03), sprayBarPiece('b')], 'wider')?.segments ?? []
    expect(wider.map((s) => (s.kind === 'spray-bar' ? s.holeDiameter : s.diameter))).toEqual([
      0.016, 0.016, 0.03, 0.004,
    ])
    expect(by([bend(0.012)], 'wider')).toBeUndefined()
  })
  test('the fitting that costs most for its bore goes once; one that is not there does not', () => {
    // K/D⁴: a tap of 1.2 in 12 mm costs more than a strainer of more heads in 30 mm.
    const tap = fittingPiece('t', 'tap', 0.012, 2)
    const gone = { ...fittingPiece('z', 'bend-180', 0.01), count: 0 } as Segment
    const changed = by([strainer(0.03), gone, long, tap], 'fewer')
    expect(changed?.label).toBe('Without one quick-release tap, fully open')
    expect(changed?.segments.find((s) => s.id === 't')).toMatchObject({ count: 1 })
    expect(changed?.segments).toHaveLength(4)
    expect(by([long], 'fewer')).toBeUndefined()
  })
  test('a bar for an open end by what it is, whatever it is called; an open end for a bar in the run’s bore', () => {
    const barred = by([long, exit], 'outlet')
    expect(barred?.segments.map((s) => s.kind)).toEqual(['hose', 'spray-bar'])
    expect(barred?.segments[1]).toMatchObject({ holes: 20, holeDiameter: 0.004 })
    const tap = fittingPiece('exit-tap', 'tap', 0.012)
    expect(by([long, tap], 'outlet')?.segments.map((s) => s.id)).toEqual(['long', 'exit-tap', 'spray-bar'])
    const bar = sprayBarPiece('bar')
    const opened = by([long, bar], 'outlet')
    expect(opened?.segments[1]).toMatchObject({
      kind: 'fitting',
      id: 'bar',
      lossCoefficient: 1,
      diameter: 0.012,
      count: 1,
    })
    expect(by([bend(0.012)], 'outlet')).toBeUndefined()
  })
  test('the return let down gives back its own height above the water and no more', () => {
    const lift = { head: 0.5, circuit: 'open', fromOutlet: 0.1, fromSource: 0.4 } as const
    expect(by([long], 'lift', lift)?.staticHead).toBeCloseTo(0.4, 12)
    expect(by([long], 'lift')).toBeUndefined()
    expect(by([long], 'shorter', lift)?.staticHead).toBe(0.5)
  })
})

test('power goes with the third power of the speed, and the band of a curve by its own gradient (by hand)', () => {
  // 10 W · 1.2³ = 17.28 W.
  expect(affinityPower(10, 1.2)).toBeCloseTo(17.28, 10)
})
