import { circuitLoss } from '../duty'
import type { Figure } from '../figures'
import { assess } from '../judging'
import { hookup, labelOnly, lph, poured, SEGMENTS, trial } from '../judging/tests/support'
import { waterProperties } from '../water'
import type { ModelRecord } from '.'

describe('the label against the bench', () => {
  test('compared only at the label’s own conditions: bare, empty, no lift', () => {
    const hosed = trial('a', { flow: 700, hookupId: 'h1' })
    expect(assess({ ...labelOnly, hookups: [hookup], trials: [hosed] }).againstLabel).toBeNull()
    const bare = assess({ ...labelOnly, trials: [trial('b', { flow: 930 })] }).againstLabel
    expect(bare?.difference).toBeCloseTo(-0.07, 4)
    expect(bare?.grade?.id).toBe('2B')
  })
  test('a 60 Hz label on 50 Hz mains is brought down by 5/6 first', () => {
    const claims = labelOnly.claims.map((c) =>
      c.quantity === 'rated-flow' ? { ...c, mainsFrequency: 60 } : c,
    )
    const a = assess({ ...labelOnly, claims, trials: [trial('b', { flow: 833 })] })
    expect((a.againstLabel?.labelAtMains ?? 0) * 3.6e6).toBeCloseTo(833.33, 1)
    expect(Math.abs(a.againstLabel?.difference ?? 1)).toBeLessThan(0.005)
  })
})

describe('the pump and its head', () => {
  const pump = { shutOffHead: 1.6, maxFlow: lph(900), exponent: 1.75 }
  const lifts = [0, 0.3, 0.6, 0.9, 1.2]
  const benched: ModelRecord = {
    ...labelOnly,
    hookups: [hookup],
    trials: [
      ...lifts.map((lift) => trial(`l${lift}`, { lift, flow: poured(lift, pump) })),
      trial('loaded', { flow: 500, state: 'as-shipped', hookupId: 'h1' }),
    ],
  }
  test('five lifts give back the pump they were made from', () => {
    const fit = assess(benched).pump
    expect(fit?.from).toBe('fit')
    expect(fit?.pump.shutOffHead).toBeCloseTo(1.6, 2)
    expect((fit?.pump.maxFlow ?? 0) * 3.6e6).toBeCloseTo(900, 0)
  })
  test('a run of nothing but an open end in the outlet’s own bore flows as the bare outlet does', () => {
    const end = {
      kind: 'fitting',
      id: 'e',
      label: 'Open end',
      lossCoefficient: 1,
      diameter: 0.016,
      count: 1,
    } as const
    const { main } = assess({
      ...benched,
      hookups: [{ ...hookup, segments: [end] }],
      trials: benched.trials.slice(0, 5),
    })
    expect((main?.computed.value ?? 0) * 3.6e6).toBeCloseTo(poured(0, pump), 0)
    // The label says the same of itself: what it prints is what a bare outlet pours.
    const label =
      assess({ ...labelOnly, hookups: [{ ...hookup, segments: [end] }] }).main?.computed.value ?? 0
    expect(label * 3.6e6).toBeCloseTo(1000, 6)
  })
  test('what hose and lift leave of the pump’s head at the loaded flow belongs to media and body', () => {
    const main = assess(benched).main
    const lines = main?.measured?.budget ?? []
    expect(lines.reduce((s, l) => s + l.head, 0)).toBeCloseTo(main?.measured?.pumpHead ?? 0, 9)
    expect(lines.find((l) => l.id === 'by-difference')?.head).toBeGreaterThan(0.5)
  })
  test('air-driven kinds have no pump curve and are not asked for one', () => {
    const air = assess({
      ...labelOnly,
      kind: 'air-sponge',
      claims: labelOnly.claims.filter((c) => c.quantity !== 'max-head'),
    })
    expect(air.pump).toBeNull()
    expect(air.verdict.missing.map((m) => m.id)).not.toContain('max-head')
  })
})

describe('points of a pump’s curve', () => {
  const pump = { shutOffHead: 1.6, maxFlow: lph(900), exponent: 1.75 }
  const points = (m: Partial<ModelRecord>) => assess({ ...labelOnly, ...m }).pump?.curve
  const loss = (flow: number): number =>
    circuitLoss(lph(flow), SEGMENTS, { kinematicViscosity: waterProperties({ temperature: 22 }).kinematicViscosity })
  const velocityHead = (flow: number): number => (lph(flow) / (Math.PI * 0.008 ** 2)) ** 2 / (2 * 9.80665)
  test('bare at a lift: the lift and what the water leaves with; on hoses: the lift and all they take', () => {
    const found = points({ hookups: [hookup], trials: [trial('bare', { flow: 700, lift: 0.3 }), trial('hosed', { flow: 600, lift: 0.2, hookupId: 'h1' }), trial('low', { flow: 800, lift: -0.1 })] })
    const [bare, hosed, low] = found?.points ?? []
    expect(bare?.head).toBeCloseTo(0.3 + velocityHead(700), 6)
    expect(hosed?.head).toBeCloseTo(0.2 + loss(600), 6)
    expect(low?.head).toBeCloseTo(velocityHead(800), 6)
    // A tape to 5 mm; the losses of the run to 15 %.
    expect(bare?.headUncertainty).toBeCloseTo(0.005, 9)
    expect(hosed?.headUncertainty).toBeCloseTo(Math.hypot(0.005, 0.15 * loss(600)), 6)
    // The bore is the hookup's: a tenth of the velocity head of the largest flow is doubted, a half where nobody knows it.
    expect(found?.common.outletHead).toBeCloseTo(0.1 * velocityHead(800), 6)
    expect(points({ trials: [trial('bare', { flow: 700 })] })?.common.outletHead).toBeCloseTo(0.5 * velocityHead(700), 6)
  })
  test('at other mains by the affinity laws: flow by the ratio, head by its square', () => {
    const [at60] = points({ trials: [trial('bare', { flow: 720, lift: 0.36, mainsFrequency: 60 })] })?.points ?? []
    expect((at60?.flow ?? 0) * 3.6e6).toBeCloseTo(600, 0)
    expect(at60?.head).toBeCloseTo((0.36 + velocityHead(720)) / 1.44, 5)
    const stop = { ...trial('stop', { flow: 1, kind: 'shut-off', mainsFrequency: 60 }), runs: [{ value: 1.44 }, { value: 1.44 }, { value: 1.44 }, { value: 1.44 }] }
    const [point] = points({ trials: [stop as never] })?.points ?? []
    expect([point?.flow, point?.head]).toEqual([0, expect.closeTo(1, 9)])
    // By eye to 10 mm, four times.
    expect(point?.headUncertainty).toBeCloseTo(0.005, 9)
  })
  test('only empty ones that flow; a vessel’s own share is common to all', () => {
    const found = points({ trials: [
      trial('a', { flow: 900 }), trial('l', { flow: 500, state: 'as-shipped' }), trial('z', { flow: 1, kind: 'read', runs: [{ value: 0 }, { value: 0 }] }),
      trial('s', { flow: 1, kind: 'shut-off', runs: [] }), trial('o', { flow: 700, lift: 0.3, outReason: 'spilled' }),
    ] })
    expect(found?.points.map((p) => p.trialId)).toEqual(['a'])
    expect(found?.out.map((p) => [p.trialId, p.reason])).toEqual([['o', 'spilled']])
    // Readings of 0.01 L of 10 L and 0.05 s of 40 to 51 s, as rectangular shares: some tenths of a percent.
    expect(found?.common.flow).toBeGreaterThan(3e-4)
    expect(found?.common.flow).toBeLessThan(0.02)
    expect(found?.common.degreesOfFreedom).toBe(8)
    expect(points({ trials: [] })?.common).toEqual({ flow: 0, head: 0.003, outletHead: 0 })
  })
  test('scatter is pooled: each flow is as sure as all of them say, by the root of its own runs', () => {
    const [a, b] = points({ trials: [trial('a', { flow: 900 }), trial('b', { flow: 450, lift: 0.5 })] })?.points ?? []
    expect((a?.flowUncertainty ?? 0) / (b?.flowUncertainty ?? 1)).toBeCloseTo(2, 2)
    // ± 0.5, 0.3 %: standard deviation 0.412 %, over √5 runs 0.184 %.
    expect((a?.flowUncertainty ?? 0) / (a?.flow ?? 1)).toBeCloseTo(0.00184, 4)
  })
  test('the budget of a loaded trial adds up to the head there; the rest stands before the lift, with its doubt', () => {
    const lifts = [0, 0.3, 0.6, 0.9, 1.2].map((lift) => trial(`l${lift}`, { lift, flow: poured(lift, pump) }))
    const measured = (outletAboveWater: number, lift: number) => {
      const raised = trial('loaded', { flow: 400, state: 'as-shipped', hookupId: 'h1', lift })
      return assess({ ...labelOnly, hookups: [{ ...hookup, outletAboveWater }], trials: [...lifts, raised] }).main?.measured
    }
    const head = 1.6 * (1 - (400 / 900) ** 1.75)
    for (const [above, lift] of [[-0.05, 0], [0.2, 0.2]] as const) {
      const m = measured(above, lift)
      expect(m?.pumpHead).toBeCloseTo(head, 2)
      const lines = m?.budget ?? []
      expect(lines.reduce((t, l) => t + l.share, 0)).toBeCloseTo(1, 9)
      expect(lines.at(lift ? -2 : -1)?.id).toBe('by-difference')
      const rest = lines.find((l) => l.id === 'by-difference')
      expect(rest?.head).toBeCloseTo(head - lift - loss(400), 2)
      expect(rest?.share).toBeCloseTo((head - lift - loss(400)) / head, 2)
      // By hand: 15 % of the hoses, and ∂H/∂Q of curve and hoses times the flow's standard uncertainty (0.4 %), twice.
      const slope = (1.75 * 1.6 * (400 / 900) ** 1.75) + 2 * loss(400)
      const least = 2 * Math.hypot(0.15 * loss(400), slope * 0.002)
      expect(rest?.figure.uncertainty).toBeGreaterThan(least * 0.8)
      expect(rest?.figure.uncertainty).toBeLessThan(least * 4)
    }
    expect(measured(-0.05, 0)?.budget.length).toBe((measured(0.2, 0.2)?.budget.length ?? 0) - 1)
  })
  test('a pump that cannot give what the hoses take leaves nothing for the media, and no line of it', () => {
    const loaded = trial('loaded', { flow: 990, state: 'as-shipped', hookupId: 'h1' })
    const lines = assess({ ...labelOnly, hookups: [hookup], trials: [loaded] }).main?.measured?.budget ?? []
    expect(lines.map((l) => l.id)).not.toContain('by-difference')
    expect(lines.reduce((t, l) => t + l.share, 0)).toBeCloseTo(1, 9)
  })
  test('the computed flow says what its curve is, and each number of it where it is from', () => {
    const lifts = [0, 0.3, 0.6, 0.9, 1.2].map((lift) => trial(`l${lift}`, { lift, flow: poured(lift, pump) }))
    const figureOf = (m: Partial<ModelRecord>) => assess({ ...labelOnly, hookups: [hookup], ...m }).answers.computed
    const from = (f: Figure | null) => f?.working?.map((w) => w.provenance)
    expect(from(figureOf({ trials: lifts }))).toEqual(['computed', 'computed', 'computed', 'measured', 'computed'])
    expect(from(figureOf({}))).toEqual(['printed', 'printed', 'rule', 'measured', 'computed'])
    expect(from(figureOf({ trials: lifts.slice(0, 3) }))).toEqual(['computed', 'computed', 'rule', 'measured', 'computed'])
    expect(figureOf({ trials: lifts })?.conditions).toEqual(['Cabinet', 'pump curve from measurements', 'without media', '25 °C'])
    expect(figureOf({})?.conditions).toEqual(['Cabinet', 'pump curve from the label, n assumed 1.75', 'without media', '25 °C'])
    const cold = trial('loaded', { flow: 400, state: 'as-shipped', hookupId: 'h1', waterTemperature: 12 })
    expect(figureOf({ trials: [cold] })?.conditions?.at(-1)).toBe('12 °C')
  })
  test('the rule of thumb: half to six tenths of the label', () => {
    const { thumb } = assess(labelOnly).answers
    expect((thumb?.value ?? 0) * 3.6e6).toBeCloseTo(550, 6)
    expect((thumb?.uncertainty ?? 0) * 3.6e6).toBeCloseTo(50, 6)
    expect(thumb?.conditions).toEqual(['any plumbing', 'any media setup'])
  })
  test('what the label prints lies on its curve: its flow with the head it leaves the outlet with, its head at no flow', () => {
    const known = assess({ ...labelOnly, hookups: [hookup] }).pump
    // 1000 L/h at 50 Hz through the 16 mm of the hookup.
    expect(known?.labelPoints).toEqual([{ flow: lph(1000), head: expect.closeTo(velocityHead(1000), 9) }, { flow: 0, head: 1.8 }])
    const { shutOffHead, maxFlow, exponent } = known?.labelPump ?? { shutOffHead: 0, maxFlow: 1, exponent: 1 }
    for (const { flow, head } of known?.labelPoints ?? []) expect(shutOffHead * (1 - (flow / maxFlow) ** exponent)).toBeCloseTo(head, 9)
    expect(assess({ ...labelOnly, claims: labelOnly.claims.filter((c) => c.quantity !== 'max-head') }).pump?.labelPoints).toHaveLength(1)
  })
  test('a label of nothing gives no curve', () => {
    const without = (quantity: string) =>
      assess({ ...labelOnly, claims: labelOnly.claims.map((c) => (c.quantity === quantity ? { ...c, value: 0 } : c)) }).pump
    expect(without('rated-flow')).toBeNull()
    // A head of nothing is none printed: what its kind usually has, and nothing said to be the label’s.
    expect(without('max-head')).toMatchObject({ labelPump: null, supposedHead: [1.2, 2.6], from: 'label' })
    // √(1.2 · 2.6) and the velocity head of what leaves.
    expect(without('max-head')?.pump.shutOffHead).toBeCloseTo(Math.sqrt(1.2 * 2.6), 1)
  })
}) // prettier-ignore
