import { pooledScatter } from '../bench'
import type { Figure } from '../figures'
import { fitPumpCurve, type Segment } from '../hydraulics'
import {
  atMains,
  budgetFigures,
  changeFigure,
  claimed,
  claimsOf,
  fitFigures,
  trialFlow,
  trialFlowFigure,
  installedTrial,
  isLabelCondition,
  labelBias,
  labelDisagreements,
  labelFigure,
  printedFigure,
  runFigure,
  trialConditions,
  trialResults,
  type ClaimRecord,
  type TrialRecord,
} from '.'
import { figure, hookup, model, near, put, trial } from './records.fixture'

describe('labels', () => {
  const claim = (
    quantity: ClaimRecord['quantity'],
    value: number,
    more: Partial<ClaimRecord> = {},
  ): ClaimRecord => ({ quantity, value, ...more })
  test('as printed: where, under which words, for which mains', () => {
    expect(printedFigure(claim('max-head', 2, { where: 'box', qualifier: 'up to', mainsFrequency: 60 }))).toMatchObject({
      id: 'printed-max-head-box-up to-60', label: 'Maximum head', value: 2, dimension: 'head', provenance: 'printed',
      conditions: ['printed on the box', '“up to”', 'for 60 Hz'],
    }) // prettier-ignore
    expect(printedFigure(claim('noise', 34)).conditions).toEqual(['place on the label not recorded'])
  })
  test('brought over by the affinity laws: Q by 1.2, H by 1.44, P by 1.728; litres and noise by nothing', () => {
    const at60 = (q: ClaimRecord['quantity']) => atMains(claim(q, 10, { mainsFrequency: 50 }), 60)
    expect([at60('rated-flow').value, at60('max-head').value, at60('power').value]).toEqual([
      near(12),
      near(14.4),
      near(17.28),
    ])
    expect(at60('tank-max')).toEqual({ value: 10, ratio: 1 })
    expect(atMains(claim('power', 10), 60)).toEqual({ value: 10, ratio: 1 })
    const f = labelFigure(claim('max-head', 10, { mainsFrequency: 50 }), 60)
    expect([f.value, f.provenance, f.label, f.formula, put(f)]).toEqual([near(14.4), 'computed', 'Maximum head at 60 Hz', 'printed · (f₂/f₁)²', [['printed', 10], ['f₂/f₁', 1.2]]]) // prettier-ignore
    expect(labelFigure(claim('max-head', 10, { mainsFrequency: 50 }), 50).provenance).toBe('printed')
  })
  test('of several rows the one for the bench’s mains, else one that names none, else the first', () => {
    const rows = [
      claim('power', 1, { mainsFrequency: 60 }),
      claim('power', 2),
      claim('power', 3, { mainsFrequency: 50 }),
    ]
    const of = (claims: ClaimRecord[], mains = 50) =>
      claimed({ claims, mainsFrequency: mains }, 'power')?.value
    expect([of(rows), of(rows, 60), of(rows.slice(0, 2)), of(rows.slice(0, 1)), of([])]).toEqual([
      3,
      1,
      2,
      1,
      undefined,
    ])
    expect(claimed({ claims: rows, mainsFrequency: 50 }, 'power', 60)?.value).toBe(1)
    expect(claimsOf({ claims: [...rows, claim('noise', 9)], mainsFrequency: 50 }, 'power')).toHaveLength(3)
  })
  test('rows disagree past half a per cent, at one mains; agreement and other quantities are silent', () => {
    const of = (...claims: ClaimRecord[]): number => labelDisagreements({ claims, mainsFrequency: 50 }).length
    expect(of(claim('max-head', 2, { where: 'box' }), claim('max-head', 1.8, { where: 'manual' }))).toBe(1)
    expect(of(claim('max-head', 2), claim('max-head', 2.009))).toBe(0)
    expect(of(claim('max-head', 2), claim('max-head', 2.011))).toBe(1)
    // 1000 at 50 Hz is 1200 at 60 Hz.
    expect(
      of(
        claim('rated-flow', 1000, { mainsFrequency: 50 }),
        claim('rated-flow', 1200, { mainsFrequency: 60 }),
      ),
    ).toBe(0)
    expect(
      of(
        claim('rated-flow', 1000, { mainsFrequency: 50 }),
        claim('rated-flow', 1100, { mainsFrequency: 60 }),
      ),
    ).toBe(1)
    expect(of(claim('max-head', 2), claim('power', 3))).toBe(0)
    expect(of(claim('max-head', 2), claim('max-head', 1), claim('max-head', 1.5))).toBe(2)
  })
  test('the bias of a shelf: four models make it, the spread is robust, and says where one more will be found (by hand)', () => {
    expect(labelBias([1, 1, 1]).n).toBe(0)
    expect(labelBias([])).toMatchObject({ median: 0.875, low: 0.75, high: 1 })
    // 0.8, 0.9, 0.9, 1: s = √(0.02/3) = 0.08165; t(3) = 3.1824; √(1 + π/8) = 1.1801: half 0.3066.
    expect(labelBias([0.8, 0.9, 0.9, 1])).toMatchObject({ median: 0.9, low: 0.59, high: 1.21, n: 4 }) // prettier-ignore
    // One flatters itself: it counts as if 3 · √(3 · 0.0036/4.48) = 0.1473 off; s = 0.0736, half 2.776 · 0.0736 · 1.1464.
    expect(labelBias([0.9, 0.9, 0.9, 0.9, 0.2])).toMatchObject({ low: 0.67, high: 1.13 })
    expect(labelBias([0.9, 0.9, 0.9, 0.9, 0.9])).toMatchObject({ low: 0.87, high: 0.93 })
    // No cliff as it goes astray.
    const lows = Array.from({ length: 71 }, (_, i) => labelBias([0.88, 0.9, 0.92, 0.9, 0.9 - 0.01 * i]).low)
    lows.slice(1).forEach((v, i) => expect(Math.abs(v - (lows[i] as number))).toBeLessThanOrEqual(0.04))
    expect(labelBias([0.01, 0.01, 1, 1]).low).toBe(0)
  })
})

describe('flows and their conditions', () => {
  test('a trial in words', () => {
    const words = (more: Partial<TrialRecord>) => trialConditions(trial(more), { hookups: [hookup] })
    expect(words({})).toEqual(['empty', 'no plumbing', 'no lift', '22 °C', '50 Hz'])
    expect(words({ state: 'dirty', daysInUse: 40, hookupId: 'h', lift: 0.4, salinity: 35, valve: 0.5 })).toEqual(['dirty, 40 days in use', 'Own hoses', '0.4 m lift', '22 °C', 'salinity 35', '50 Hz', 'tap 50 % open']) // prettier-ignore
    expect(words({ state: 'dirty' })[0]).toBe('dirty')
    expect(words({ state: 'as-shipped', daysInUse: 3 })[0]).toBe('supplied media')
  })
  test('label conditions: empty, nothing attached, no lift, nothing turned down', () => {
    expect(isLabelCondition(trial())).toBe(true)
    for (const t of [{ state: 'as-shipped' }, { lift: 0.01 }, { hookupId: 'h' }, { valve: 0.99 }] as const)
      expect(isLabelCondition(trial(t))).toBe(false)
    expect(isLabelCondition(trial({ lift: -0.1 }))).toBe(true)
  })
  test('as installed: within two centimetres of its own lift, its mains, its taps; the newest of them', () => {
    const own = model({ hookups: [hookup] })
    const pick = (...trials: TrialRecord[]): string | undefined =>
      installedTrial(trialResults({ ...own, trials }), own, 'as-shipped')?.trial.id
    const at = (id: string, lift: number, more: Partial<TrialRecord> = {}): TrialRecord =>
      trial({ id, state: 'as-shipped', hookupId: 'h', lift, ...more })
    // Return 0.1 m above, source 0.3 m below: 0.4 m.
    expect(pick(at('a', 0.4), at('b', 0.415))).toBe('b')
    expect(pick(at('a', 0.385))).toBe('a')
    for (const t of [at('x', 0.43), at('x', 0.37), at('x', 0.4, { mainsFrequency: 60 }), at('x', 0.4, { valve: 0.9 }), at('x', 0.4, { state: 'proposed' }), at('x', 0.4, { hookupId: null })]) expect(pick(t)).toBeUndefined() // prettier-ignore
    // Without hoses a filter in the tank is as it stands with nothing attached, at the lift of its own run.
    const inside = model({ kind: 'internal', hookups: [] })
    expect(
      installedTrial(
        trialResults({ ...inside, trials: [trial({ state: 'as-shipped' })] }),
        inside,
        'as-shipped',
      ),
    ).not.toBeNull()
    expect(
      installedTrial(
        trialResults({ ...inside, trials: [trial({ state: 'as-shipped', lift: 0.3 })] }),
        inside,
        'as-shipped',
      ),
    ).toBeNull()
  })
  test('scatter pooled over trials: √(Σ (n − 1) r² / Σ (n − 1)), from three degrees on (by hand)', () => {
    const of = (n: number, mean: number, deviation: number) => ({ n, mean, deviation }) as never
    // (2 · 0.01² + 4 · 0.02²)/6 = 0.0003.
    expect(pooledScatter([of(3, 10, 0.1), of(5, 5, 0.1)])).toEqual({
      relative: near(Math.sqrt(0.0003)),
      degreesOfFreedom: 6,
    })
    expect(pooledScatter([of(3, 10, 0.1), of(1, 5, 0), of(4, 0, 0)])).toBeNull()
    expect(pooledScatter([of(4, 10, 0.1)])?.degreesOfFreedom).toBe(3)
    // With the usual of a hand, 2 % on four: (4 · 0.02² + 3 · 0.01²)/7.
    expect(pooledScatter([of(4, 10, 0.1)], true)?.relative).toBeCloseTo(Math.sqrt(0.0019 / 7), 9)
    expect(pooledScatter([], true)).toEqual({ relative: 0.02, degreesOfFreedom: 4 })
    // A run alone is as sure as the others have shown, 4.09 % on three, with the usual: √[(4 · 2² + 3 · 4.09²)/7] = 3.075 %.
    const shown = trialResults(model({ trials: [trial({ runs: [19, 20, 21, 20].map((seconds) => ({ volume: 0.005, seconds })) }), trial({ id: 'one', runs: [{ volume: 0.005, seconds: 20 }] })] })) // prettier-ignore
    const one = shown.find((t) => t.trial.id === 'one')?.result
    expect((one?.typeA ?? 0) / (one?.mean ?? 1)).toBeCloseTo(0.03075, 4)
  })
  test('a run and a mean show their symbols: V/t, m B/(ρ t), N/(K t), and the parts of U', () => {
    expect(put(runFigure({ volume: 0.005, seconds: 20 }, 2.5e-4, 0, 'vessel'))).toEqual([['V', 0.005], ['t', 20]]) // prettier-ignore
    expect(put(runFigure({ value: 5, seconds: 20 }, 2.5e-4, 1, 'weighed'))).toEqual([['m', 5], ['t', 20]]) // prettier-ignore
    expect(put(runFigure({ value: 900, seconds: 20 }, 2.5e-4, 1, 'meter'))).toEqual([['N', 900], ['t', 20]]) // prettier-ignore
    expect(runFigure({ value: 1e-4 }, 1e-4, 2, 'read')).toMatchObject({
      id: 'run-2',
      label: 'Run 3',
      formula: 'as read',
    })
    expect(runFigure({ volume: 1, seconds: 1 }, 1, 0, 'vessel').formula).toBe('Q = V/t')
    const r = trialFlow(trial())
    if (!r) throw new Error('flow')
    const f = trialFlowFigure({ id: 't', when: 'then', kind: 'vessel' }, r, ['c'])
    expect(f).toMatchObject({
      value: r.mean,
      uncertainty: r.expandedUncertainty,
      conditions: ['c'],
      when: 'then',
      source: 'GUM, JCGM 100:2008',
    })
    expect(put(f)).toEqual([['n', 3], ['u_A', r.typeA], ['u_B', r.typeB.vessel], ['u_clock', r.typeB.timing], ['u_reaction', r.typeB.reaction], ['ν', r.effectiveDegreesOfFreedom], ['k', r.coverageFactor]]) // prettier-ignore
    expect(trialFlowFigure({ id: 't', kind: 'weighed' }, r, []).source).toBe('ISO 4185; GUM, JCGM 100:2008')
  })
})

describe('lines of a budget answer with their formula', () => {
  const fluid = { kinematicViscosity: 1e-6 }
  const segments: readonly Segment[] = [
    { kind: 'hose', id: 'a', label: 'Hose', length: 2, diameter: 0.016, roughness: 0 },
    { kind: 'fitting', id: 'b', label: 'Bend', lossCoefficient: 0.9, diameter: 0.012, count: 3 },
    { kind: 'spray-bar', id: 'c', label: 'Bar', holes: 20, holeDiameter: 0.004, dischargeCoefficient: 0.62 },
  ]
  const lines = [
    ...segments.map((s, i) => ({ id: s.id, label: s.label, kind: s.kind, head: i + 1, share: 0 })),
    { id: 'by-difference', label: 'Media', kind: 'fitting', head: 0.5, share: 0 },
    { id: 'static', label: 'Lift', kind: 'static', head: 0.4, share: 0 },
  ] as const
  const flow = figure(2e-4)
  test('hose, fitting, bar, what is left, lift', () => {
    const [hose, bend, bar, rest, lift] = budgetFigures(lines, {
      segments,
      fluid,
      flow,
      available: 6.9,
      restUncertainty: 0.11,
    }).map((l) => l.figure)
    if (!hose || !bend || !bar || !rest || !lift) throw new Error('lines')
    // v = 2e-4/(π/4 · 0.016²) = 0.99472 m/s, Re = 15915; Blasius 0.3164/Re^0.25 = 0.02817, Colebrook smooth 0.0275.
    const at = (f: Figure, s: string): number => f.working?.find((w) => w.symbol === s)?.value ?? NaN
    expect([at(hose, 'L'), at(hose, 'D'), at(hose, 'v'), at(hose, 'Re')]).toEqual([
      2,
      0.016,
      near(0.994718, 5),
      near(15915.5, 0),
    ])
    expect(at(hose, 'f')).toBeCloseTo(0.0275, 3)
    expect([at(bend, 'n'), at(bend, 'K'), at(bend, 'v')]).toEqual([3, 0.9, near(1.768388, 5)])
    expect([at(bar, 'C'), at(bar, 'N'), at(bar, 'd')]).toEqual([0.62, 20, 0.004])
    expect([rest.uncertainty, at(rest, 'H_pump'), at(rest, 'h1'), at(rest, 'h4')]).toEqual([
      0.11, 6.9, 1, 0.4,
    ])
    expect([lift.provenance, hose.provenance, lift.value]).toEqual(['measured', 'computed', 0.4])
    expect(hose).not.toHaveProperty('uncertainty')
    // Still water has no friction factor to show.
    const still = budgetFigures(lines, { segments, fluid, flow: figure(0) })[0]?.figure
    expect(still?.working?.some((w) => w.symbol === 'f')).toBe(false)
  })
  test('a change is the circuit solved again less the flow as it is', () => {
    const f = changeFigure({ id: 'wider', label: 'Wider', flow: 2.5e-4, change: 0.5e-4 }, flow)
    expect([f.value, put(f)]).toEqual([0.5e-4, [['Q(changed)', 2.5e-4], ['Q', 2e-4]]]) // prettier-ignore
  })
  test('a fit shows its points, its freedom, what was believed of the exponent, and how far it is from it', () => {
    const fit = fitPumpCurve([0, 0.5, 1, 1.4].map((head) => ({ head, flow: 2.8e-4 * (1 - head / 1.8) ** (1 / 1.75) })), { flow: 0.01, head: 0.003, degreesOfFreedom: 9 }) // prettier-ignore
    const f = fitFigures({ pump: fit.pump, fit })
    expect(f?.shutOff.working?.map((w) => [w.symbol, w.value])).toEqual([['points', 4], ['ν', 9], ['n₀', 1.75], ['s', fit.residualDeviation]]) // prettier-ignore
    expect([f?.shutOff.uncertainty, f?.maxFlow.uncertainty, f?.exponent.uncertainty]).toEqual(fit.halfWidths)
    expect([f?.shutOff.value, f?.maxFlow.value, f?.exponent.value]).toEqual([fit.pump.shutOffHead, fit.pump.maxFlow, fit.pump.exponent]) // prettier-ignore
    expect(fitFigures({ pump: fit.pump, fit: null })).toBeNull()
    expect(fitFigures({ pump: fit.pump, fit: { ...fit, exponent: 'fitted' } })?.exponent.provenance).toBe(
      'computed',
    )
    expect(fitFigures({ pump: fit.pump, fit: { ...fit, exponent: 'assumed' } })?.exponent.provenance).toBe(
      'rule',
    )
  })
})
