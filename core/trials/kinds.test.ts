import { sentenceText, type Figure } from '../figures'
import { trialFindings, trialResults } from '.'
import { disagreements } from './disagreements'
import { airUpTheRiser } from './air/flow'
import { trialFlow } from './flow'
import { bestTrial, methodBeside, vesselOf } from './flows'
import type { BenchReading } from '../bench/shape'
import type { HookupResult } from './modelPump'
import type { ClaimRecord, ModelRecord, TrialRecord } from './records'
import { trialOf } from './records.fixture'

/** What each kind of trial comes to, worked by hand: figures with their workings, and sentences where they are said. */
const lph = (q: number): number => q / 3.6e6
const model = (trials: readonly TrialRecord[], claims: readonly ClaimRecord[] = []): ModelRecord => ({
  kind: 'canister',
  mainsFrequency: 50,
  claims,
  hookups: [],
  mediaMass: null,
  trials,
})
interface Found {
  readonly figures: Readonly<Record<string, Figure>>
  readonly says: readonly string[]
  readonly problem: string | null
}
function found(
  t: TrialRecord,
  {
    claims,
    beside = [],
    main = null,
  }: { claims?: readonly ClaimRecord[]; beside?: readonly TrialRecord[]; main?: unknown } = {},
): Found {
  const m = model([t, ...beside], claims)
  const f = trialFindings({ model: m, flows: trialResults(m), main: main as HookupResult | null }).find(
    (x) => x.trial.id === t.id,
  )
  if (!f) throw new Error('nothing found')
  const figures = Object.fromEntries(f.figures.map((x) => [x.id.replace(`-${t.id}`, ''), x]))
  return { figures, says: f.sentences.map((s) => sentenceText(s, 'metric')), problem: f.problem }
}
/** Symbols of a working with their numbers. */
const worked = (f: Figure | undefined): Record<string, number> =>
  Object.fromEntries((f?.working ?? []).map((w) => [w.symbol, Number(w.value.toPrecision(6))]))
const labelled = (f: Figure | undefined): string[] => (f?.working ?? []).map((w) => w.label)

describe('air', () => {
  const riser = { riserDiameter: 0.02, submergence: 0.3 }
  const air = (series: string, value: number, more: object = {}): BenchReading => ({
    series,
    value: lph(value),
    ...more,
  })
  const water = (value: number, litres: number, seconds: number) =>
    air('water', value, { volume: litres / 1000, seconds })

  test('what is lost at the fitting: one less riser over supplied; at a twentieth it holds, beyond it does not', () => {
    const at = (up: number) =>
      found(trialOf('air', [air('supplied', 90), air('supplied', 110), air('riser', up)]))
    const { figures, says } = at(80)
    expect(figures['air-leak']?.value).toBeCloseTo(0.2, 12)
    expect(figures['air-leak']?.conditions).toContain('empty')
    expect(labelled(figures['air-leak'])).toHaveLength(2)
    expect(says).toHaveLength(1)
    expect(says[0]).toMatch(/^20\s?%/u)
    expect(at(94.9).says[0]).not.toBe(at(95.1).says[0]?.replace('4.9', '5.1'))
    expect(at(96).says[0]).toMatch(/^The fitting holds.*4/u)
    expect(at(120).figures['air-leak']?.value).toBe(0)
  })

  test('nothing is said of a fitting of which one side, or no air, was measured', () => {
    for (const runs of [[air('supplied', 90)], [air('riser', 90)], [air('supplied', 0), air('riser', 0)]])
      expect(found(trialOf('air', runs))).toMatchObject({ figures: {}, says: [] })
  })

  test('against the model at the air that goes up: a leak of half is half of the air', () => {
    const runs = [water(60, 2, 40), water(90, 2, 30)]
    const alone = found(trialOf('air', runs, { setup: riser }))
    expect(alone.says).toHaveLength(2)
    const leaky = [...runs, air('supplied', 100), air('riser', 50)]
    const half = found(trialOf('air', leaky, { setup: riser })).figures['airlift-ratio']
    const halved = found(trialOf('air', [water(30, 2, 40), water(45, 2, 30)], { setup: riser })).figures[
      'airlift-ratio'
    ]
    expect(half?.value).toBeCloseTo(halved?.value ?? NaN, 12)
    expect(worked(half)).toEqual(worked(halved))
    expect(Object.keys(worked(half))).toEqual(['Q1', 'Q2'])
    // Σ measured ÷ Σ calculated: 180 and 240 L/h over what the model gives.
    const sum = Object.values(worked(half)).reduce((a, b) => a + b, 0)
    expect(half?.value).toBeCloseTo(lph(420) / sum, 4)
    const both = found(trialOf('air', [...runs, air('supplied', 100)], { setup: riser })).figures[
      'airlift-ratio'
    ]
    expect(both?.value).toBeCloseTo(alone.figures['airlift-ratio']?.value ?? NaN, 12)
  })

  test('a lift above the water counts, one below it does not', () => {
    const at = (lift: number) =>
      found(trialOf('air', [water(60, 2, 40)], { setup: riser, lift })).figures['airlift-ratio']?.value ?? NaN
    expect(at(0.05)).toBeGreaterThan(at(0))
    expect(at(-0.05)).toBeCloseTo(at(0), 12)
  })

  test('no model without bore and depth of the riser, nor without water timed', () => {
    for (const setup of [{ riserDiameter: 0.02 }, { submergence: 0.3 }, {}])
      expect(found(trialOf('air', [water(60, 2, 40)], { setup })).figures['airlift-ratio']).toBeUndefined()
    expect(
      found(trialOf('air', [air('supplied', 60), air('riser', 60)], { setup: riser })).figures[
        'airlift-ratio'
      ],
    ).toBeUndefined()
  })

  test('the most water lifted, with its air', () => {
    const { figures, says } = found(trialOf('air', [water(60, 2, 40), water(90, 2, 30), water(120, 3, 47)]))
    expect(figures['air-most']?.value).toBeCloseTo(2e-3 / 30, 12)
    expect(worked(figures['air-most'])).toEqual({ V: 0.002, t: 30, air: 0.000025 })
    expect(says.at(-1)).toMatch(/240 L\/h.*90 L\/h/u)
  })

  test('air up the riser: measured there, else supplied, else that of the water’s runs, else unknown', () => {
    const runs = [
      water(60, 2, 40),
      water(80, 2, 40),
      air('supplied', 100),
      air('riser', 50),
      air('riser', 54),
    ]
    expect(airUpTheRiser(runs)).toBeCloseTo(lph(52), 15)
    expect(airUpTheRiser(runs.slice(0, 3))).toBeCloseTo(lph(100), 15)
    expect(airUpTheRiser(runs.slice(0, 2))).toBeCloseTo(lph(70), 15)
    expect(airUpTheRiser([])).toBeNull()
    expect(trialFlow(trialOf('air', [air('supplied', 60), water(60, 2, 40)]))?.mean).toBeCloseTo(5e-5, 12)
  })
})

describe('a water test', () => {
  const read = (series: string, value: number): BenchReading => ({ series, value })
  const test1 = (
    runs: readonly BenchReading[],
    setup: TrialRecord['setup'] = {},
    more: Partial<TrialRecord> = {},
  ) => found(trialOf('water-test', runs, { setup, ...more }))

  test('an ion read is nitrogen by its molar mass, half a step either way; nitrogen is as it is', () => {
    const { figures } = test1([read('ammonia', 1e-3), read('nitrite', 2e-3), read('nitrate', 40e-3)])
    expect(figures['water-ammonia']?.value).toBeCloseTo((1e-3 * 14.007) / 18.039, 9)
    expect(figures['water-nitrite']?.value).toBeCloseTo((2e-3 * 14.007) / 46.005, 9)
    expect(figures['water-nitrate']?.value).toBeCloseTo((40e-3 * 14.007) / 62.004, 9)
    expect(figures['water-nitrate']?.uncertainty).toBeCloseTo((2.5e-3 * 14.007) / 62.004, 9)
    expect(worked(figures['water-ammonia'])).toEqual({
      c: 0.001,
      'step/2': 0.000125,
      'M_N ÷ M_ion': 0.776484,
    })
    expect(labelled(figures['water-ammonia'])[0]).toMatch(/card$/u)
    const n = test1([read('ammonia', 1e-3)], { countedAs: 'nitrogen', readBy: 'meter', stepAmmonia: 0.1e-3 })
      .figures['water-ammonia']
    expect(n?.value).toBe(1e-3)
    expect(worked(n)).toEqual({ c: 0.001, 'step/2': 0.00005 })
    expect(labelled(n)[0]).toMatch(/meter$/u)
  })

  test('without any set-up it is a card of ions, in its usual steps', () => {
    const t = trialOf('water-test', [read('ammonia', 1e-3), read('ph', 7.4), read('temperature', 25)])
    const { figures } = found(t)
    expect(figures['water-ammonia']?.uncertainty).toBeCloseTo((0.125e-3 * 14.007) / 18.039, 9)
    // Nobody said what the card counts: an assumption is marked, an answer is not.
    expect(figures['water-ammonia']?.assumed).toMatch(/ion/)
    expect(test1([read('ammonia', 1e-3), read('ph', 8)]).figures['water-unionised']?.assumed).toMatch(/ion/)
    for (const countedAs of ['ion', 'nitrogen'] as const)
      expect(test1([read('ammonia', 1e-3)], { countedAs }).figures['water-ammonia']).not.toHaveProperty(
        'assumed',
      )
    expect(figures['water-ph']).toMatchObject({ value: 7.4, uncertainty: 0.1 })
    expect(figures['water-temperature']).toMatchObject({ value: 25, uncertainty: 0.5 })
    expect(worked(figures['water-ph'])).toEqual({ 'step/2': 0.1 })
  })

  test('the newest reading of each stands; what was not read is not there', () => {
    const { figures, says } = test1([read('nitrite', 2e-3), read('nitrite', 1e-3)])
    expect(Object.keys(figures)).toEqual(['water-nitrite'])
    expect(worked(figures['water-nitrite']).c).toBe(0.001)
    expect(says).toHaveLength(1)
    expect(says[0]).toMatch(/^Nitrite.*\.$/u)
    expect(test1([read('temperature', 25)]).says).toEqual([])
    expect(test1([read('ph', 7.2)]).says).toEqual(['pH 7.20 ± 0.10.'])
  })

  test('one sentence for all of them, small letters behind the first', () => {
    expect(test1([read('ammonia', 1e-3), read('nitrate', 20e-3), read('ph', 7)]).says[0]).toMatch(
      /^Ammonia, as nitrogen [\d.]+ [^,]+, nitrate, as nitrogen [\d.]+ [^,]+, pH 7.00 ± 0.10\.$/u,
    )
  })

  test('ammonia and nitrite both at 0 is said of both, and only where both were read', () => {
    const both = (a: number, n: number) =>
      test1([read('ammonia', a), read('nitrite', n), read('nitrate', 50e-3)]).says[1] ?? ''
    const nothing = both(0, 0)
    expect(nothing).not.toBe('')
    expect(both(0.125e-3, 0.125e-3)).toBe(nothing)
    for (const [a, n] of [
      [0.13e-3, 0],
      [0, 0.13e-3],
      [0.5e-3, 0.5e-3],
    ] as const)
      expect(both(a, n)).not.toBe(nothing)
    expect(both(0, 1e-3)).not.toBe('')
    for (const runs of [
      [read('ammonia', 0), read('nitrate', 0)],
      [read('nitrite', 0), read('nitrate', 0)],
    ])
      expect(test1(runs).says).toHaveLength(1)
  })

  test('un-ionised by Emerson at 25 °C and pH 8: 5.37 % of it, and the most that half a step of each allows', () => {
    const pka = (t: number): number => 0.09018 + 2729.92 / (t + 273.15)
    const share = (pH: number, t: number): number => 1 / (1 + 10 ** (pka(t) - pH))
    const gas = (setup: TrialRecord['setup'], t: readonly BenchReading[] = [read('temperature', 25)]) =>
      test1([read('ammonia', 0.5e-3), read('ph', 8), ...t], { countedAs: 'nitrogen', ...setup })
    const { figures, says } = gas({})
    const value = (0.5e-3 * share(8, 25) * 17.031) / 14.007
    const most = (0.625e-3 * share(8.1, 25.5) * 17.031) / 14.007
    expect(figures['water-unionised']?.value).toBeCloseTo(value, 9)
    expect((figures['water-unionised']?.uncertainty ?? NaN) * 1e6).toBeCloseTo((most - value) * 1e6, 3)
    expect(worked(figures['water-unionised'])).toMatchObject({
      c_N: 0.0005,
      pH: 8,
      T: 25,
      share: Number(share(8, 25).toPrecision(6)),
    })
    expect(figures['water-unionised']?.working?.[2]?.provenance).toBe('measured')
    expect(says).toHaveLength(2)
    // Without a thermometer the trial’s own temperature stands, and is said to be set.
    const set = gas({}, []).figures['water-unionised']
    expect(worked(set)).toMatchObject({ T: 20 })
    expect(set?.working?.[2]?.provenance).toBe('rule')
    expect(labelled(set)[2]).not.toBe(labelled(figures['water-unionised'])[2])
    expect(set?.value).toBeCloseTo((0.5e-3 * share(8, 20) * 17.031) / 14.007, 9)
  })

  test('0.025 mg/L: below even at its most nothing is said; between it cannot be ruled out; above it is told', () => {
    const says = (a: number, pH: number) =>
      test1([read('ammonia', a), read('ph', pH), read('temperature', 25)], {
        countedAs: 'nitrogen',
        stepAmmonia: 0.1e-3,
      }).says
    const [below, between, above] = [says(0.1e-3, 7), says(0.3e-3, 8), says(1e-3, 8.2)]
    expect(below).toHaveLength(1)
    expect(between).toHaveLength(2)
    expect(above).toHaveLength(2)
    expect(above[1]?.split(':')[1]).not.toBe(between[1]?.split(':')[1])
    expect(above[1]).toMatch(/Change water/u)
    expect(test1([read('ammonia', 1e-3)]).figures['water-unionised']).toBeUndefined()
    expect(test1([read('nitrite', 1e-3), read('ph', 8.4)]).figures['water-unionised']).toBeUndefined()
  })

  test('a conditioner is said, by its name', () => {
    expect(test1([read('ph', 7)], { conditioner: 'Bindwell' }).says.at(-1)).toMatch(/Bindwell/u)
    expect(test1([read('ph', 7)], { conditioner: '' }).says).toHaveLength(1)
  })
})

describe('noise', () => {
  const level = (series: string, value: number): BenchReading => ({ series, value })
  const noise = (runs: readonly BenchReading[], more: Partial<TrialRecord> = {}) =>
    found(trialOf('noise', runs, more))

  test('energies, not decibels: 40 and 46 dB are 43.96; less a background of 36 by −10 lg(1 − 10^(−ΔL/10))', () => {
    const raw = 10 * Math.log10((1e4 + 10 ** 4.6) / 2)
    const { figures, says } = noise([level('with', 40), level('with', 46), level('without', 36)])
    const f = figures.noise
    const k1 = -10 * Math.log10(1 - 10 ** (-(raw - 36) / 10))
    expect(f?.value).toBeCloseTo(raw - k1, 9)
    expect(worked(f)).toEqual({
      L_with: Number(raw.toPrecision(6)),
      L_without: 36,
      ΔL: Number((raw - 36).toPrecision(6)),
      K1: Number(k1.toPrecision(6)),
    })
    expect(says).toHaveLength(1)
  })

  test('without a background there is none in its working', () => {
    const { figures } = noise([level('with', 40)])
    expect(worked(figures.noise)).toEqual({ L_with: 40, K1: 0 })
  })

  test('± by hand: one reading scatters by 1.2 dB with 2 degrees of freedom, the meter by 1 with no end of them', () => {
    // u² = 1.2² + 1² = 2.44; Welch and Satterthwaite: 2.44²/(1.44²/2) = 5.74; t(5) = 2.571 as it is cut, 5.74 as it is not.
    const f = noise([level('with', 50)]).figures.noise
    expect(f?.uncertainty).toBeGreaterThan(2.45 * Math.sqrt(2.44))
    expect(f?.uncertainty).toBeLessThan(2.58 * Math.sqrt(2.44))
    expect(f?.shared?.[0]).toMatchObject({ what: 'sound meter, 1 dB', half: expect.closeTo(1.96, 2) })
    // A meter of nothing: three readings of 49, 50, 51 pool (2·1.44 + 2·1)/4 = 1.22, of the mean 0.4067, 4 degrees: 2.776.
    const three = [49, 50, 51].map((v) => level('with', v))
    const exact = noise(three, { setup: { levelUncertainty: 1e-9 } }).figures.noise
    expect(exact?.uncertainty).toBeCloseTo(2.776 * Math.sqrt(1.22 / 3), 2)
    // A coarse one: 2 dB of it alone.
    const coarse = noise([level('with', 50)], { setup: { levelUncertainty: 20 } }).figures.noise
    expect(coarse?.uncertainty).toBeCloseTo(1.96 * Math.hypot(20, 1.2), 0)
  })

  test('a background weighs by its share of the energy: at 10 dB below, 10/9 with, 1/9 without', () => {
    const f = noise([level('with', 50), level('without', 40)], { setup: { levelUncertainty: 1e-9 } }).figures
      .noise
    // Two parts of 2 degrees each: u² = (100/81 + 1/81) · 1.44.
    const u2 = ((100 + 1) / 81) * 1.44
    const dof = u2 ** 2 / ((((100 / 81) * 1.44) ** 2 + ((1 / 81) * 1.44) ** 2) / 2)
    expect(dof).toBeGreaterThan(2)
    expect((f?.uncertainty ?? NaN) / Math.sqrt(u2)).toBeGreaterThan(4.2)
    expect((f?.uncertainty ?? NaN) / Math.sqrt(u2)).toBeLessThan(4.31)
    // The meter carries over as it is: 10/9 − 1/9.
    const meter = noise([level('with', 50), level('without', 40)], { setup: { levelUncertainty: 2 } }).figures
      .noise
    expect(meter?.shared?.[0]?.half).toBeCloseTo(1.96 * 2, 2)
    // Held at the correction of 6 dB (ISO 3744): from there on what is read and what is said move together.
    const near = noise([level('with', 50), level('without', 47)], { setup: { levelUncertainty: 1e-9 } })
      .figures.noise
    expect(near?.value).toBeCloseTo(50 - 1.3, 1)
  })

  test('where it was held, and only the background: what can be said of each', () => {
    const at = noise([level('with', 40)], { setup: { distance: 1, position: 'before the doors' } })
    expect(at.says[0]).toMatch(/^At 1 m/u)
    expect(at.figures.noise?.conditions).toEqual(expect.arrayContaining(['1 m away', 'before the doors']))
    const nowhere = noise([level('with', 40)])
    expect(nowhere.figures.noise?.conditions).toHaveLength((at.figures.noise?.conditions?.length ?? 0) - 1)
    expect(noise([level('without', 30)])).toMatchObject({ figures: {}, says: [expect.any(String)] })
  })

  test('of logs the last of its own series, and only where nothing was typed', () => {
    const log = (series: string, energyMean: number) =>
      ({ id: series + energyMean, series, n: 9, mean: 1, deviation: 1, energyMean }) as never
    const logs = [log('with', 44), log('without', 30), log('with', 46), log('without', 31)]
    const f = noise([], { logs }).figures.noise
    expect(worked(f)).toMatchObject({ L_with: 46, L_without: 31 })
    expect(worked(noise([level('with', 50)], { logs }).figures.noise)).toMatchObject({
      L_with: 50,
      L_without: 31,
    })
  })
})

describe('power', () => {
  const watt = (...values: number[]): BenchReading[] => values.map((value) => ({ value }))
  const label = (value: number): ClaimRecord[] => [{ quantity: 'power', value }]

  test('mean of the readings, the meter one part in a hundred of it; a year of 8765.82 hours', () => {
    const { figures } = found(trialOf('power', watt(19, 20, 21)))
    expect(figures.power?.value).toBe(20)
    expect(worked(figures.power)).toMatchObject({ n: 3, u_meter: 0.01 })
    // u = √(1/3 + 0.2²).
    expect(worked(figures.power).u).toBeCloseTo(Math.sqrt(1 / 3 + 0.04), 5)
    expect(labelled(figures.power)[0]).toBe('readings')
    expect(figures.energy?.value).toBeCloseTo(175.3164, 9)
    expect(figures.energy?.uncertainty).toBeCloseTo((175.3164 * (figures.power?.uncertainty ?? NaN)) / 20, 9)
    expect(worked(figures.energy)).toEqual({ P: 20 })
    expect(
      worked(found(trialOf('power', watt(20), { setup: { relative: 0.05 } })).figures.power).u_meter,
    ).toBe(0.05)
    expect(found(trialOf('power', watt(0))).figures.energy?.uncertainty).toBe(0)
  })

  test('of a log where nothing was typed', () => {
    const logs = [{ id: 'a', series: '', n: 600, mean: 12, deviation: 0.5 }] as never
    const log = found(trialOf('power', [], { logs })).figures.power
    expect(log?.value).toBe(12)
    expect(worked(log).n).toBe(600)
    expect(labelled(log)[0]).not.toBe('readings')
    const typed = found(trialOf('power', watt(20), { logs })).figures.power
    expect(typed?.value).toBe(20)
    expect(labelled(typed)[0]).toBe('readings')
  })

  test('its cost where a price is known, with its currency', () => {
    const cost = (setup: NonNullable<TrialRecord['setup']>) =>
      found(trialOf('power', watt(20), { setup })).figures.cost
    expect(cost({ pricePerKwhMinor: 30, currency: 'EUR' })?.value).toBeCloseTo(52.59492, 6)
    expect(worked(cost({ pricePerKwhMinor: 30, currency: 'EUR' }))).toMatchObject({ E: 175.316, price: 0.3 })
    expect(cost({ pricePerKwhMinor: 30 })).toBeUndefined()
    expect(cost({ currency: 'EUR' })).toBeUndefined()
    expect(cost({ pricePerKwhMinor: 0, currency: 'EUR' })).toBeUndefined()
  })

  test('efficiency at the flow of the same state and hoses, by ρ g Q H ÷ P', () => {
    const flow = (id: string, more: Partial<TrialRecord>) =>
      trialOf('read', [{ value: lph(600) }], { id, ...more })
    const own = { state: 'as-shipped', hookupId: 'h' } as const
    const main = { hookup: { id: 'h' }, duty: { head: 1.2 }, measured: null }
    const p = trialOf('power', watt(20), own)
    const at = (beside: TrialRecord[], m: unknown = main, t = p) =>
      found(t, { beside, main: m }).figures.efficiency
    const eta = (998.2 * 9.80665 * lph(600) * 1.2) / 20
    expect(at([flow('f', own)])?.value).toBeCloseTo(eta, 4)
    expect(worked(at([flow('f', own)]))).toMatchObject({ H: 1.2, P: 20, Q: Number(lph(600).toPrecision(6)) })
    expect(Object.keys(worked(at([flow('f', own)])))).toHaveLength(4)
    // Another state, other hoses, no main circuit, the circuit of others: nothing is said.
    expect(at([flow('f', { ...own, state: 'dirty' })])).toBeUndefined()
    expect(at([flow('f', { ...own, hookupId: null })])).toBeUndefined()
    expect(at([flow('f', own)], null)).toBeUndefined()
    expect(at([flow('f', own)], { ...main, hookup: { id: 'x' } })).toBeUndefined()
    expect(at([])).toBeUndefined()
    const bare = { ...own, hookupId: null }
    expect(
      at([flow('f', bare)], { ...main, hookup: { id: null } }, trialOf('power', watt(20), bare)),
    ).toBeUndefined()
    expect(at([flow('f', own)], main, trialOf('power', watt(0), own))).toBeUndefined()
    // Where the head was measured with that very trial, that head.
    const measured = { ...main, measured: { figure: { id: 'trial-f' }, pumpHead: 0.8 } }
    expect(worked(at([flow('f', own)], measured)).H).toBe(0.8)
    expect(
      worked(at([flow('f', own)], { ...main, measured: { figure: { id: 'trial-other' }, pumpHead: 0.8 } })).H,
    ).toBe(1.2)
  })

  test('against the label: within its ±, more, less; nothing without one', () => {
    const says = (w: number, l?: number) =>
      found(trialOf('power', watt(w, w, w)), l ? { claims: label(l) } : {}).says
    expect(says(20)).toEqual([])
    const [same, more, less] = [says(20, 20.1), says(25, 20), says(15, 20)].map((s) =>
      s[0]?.split(': ').at(-1),
    )
    expect(new Set([same, more, less]).size).toBe(3)
    expect(more).toMatch(/^more/u)
    expect(less).toMatch(/^less/u)
    const { figures } = found(trialOf('power', watt(20, 20, 20)))
    const u = figures.power?.uncertainty ?? NaN
    expect(
      says(20, 20 + u * 0.999)[0]
        ?.split(': ')
        .at(-1),
    ).toBe(same)
    expect(
      says(20, 20 + u * 1.001)[0]
        ?.split(': ')
        .at(-1),
    ).toBe(less)
  })
})

describe('priming, leaks and noise heard', () => {
  const run = (series: string, outcome: string, more: object = {}): BenchReading => ({
    series,
    outcome,
    seconds: 0,
    ...more,
  })
  const prime = (...runs: BenchReading[]) => found(trialOf('prime', runs))

  test('the try at which it primed, and its seconds', () => {
    const first = prime(run('prime', 'yes', { seconds: 40 }))
    expect(first.says).toEqual([expect.stringMatching(/^Primed at the first try.*40 s/u)])
    expect(first.figures['prime-seconds']).toMatchObject({ value: 40 })
    expect(worked(first.figures['prime-seconds'])).toEqual({ n: 1 })
    const third = prime(run('prime', 'no'), run('prime', 'no'), run('prime', 'yes', { seconds: 70 }))
    expect(third.says[0]).toMatch(/^Primed at try 3/u)
    expect(worked(third.figures['prime-seconds'])).toEqual({ n: 3 })
    const untimed = prime(run('prime', 'yes'))
    expect(untimed.figures).toEqual({})
    expect(untimed.says[0]).toBe('Primed at the first try.')
    expect(prime(run('prime', 'no', { seconds: 90 })).figures).toEqual({})
    expect(prime(run('prime', 'no', { seconds: 90 })).says).toEqual(['Did not prime.'])
    // A try that failed is no time, nor one of no seconds.
    expect(
      prime(run('prime', 'yes', { seconds: 50 }), run('prime', 'no', { seconds: 90 }), run('prime', 'yes'))
        .figures['prime-seconds']?.value,
    ).toBe(50)
  })

  test('a restart has its own name and no count of tries; what is heard has neither', () => {
    const { figures, says } = prime(
      run('restart', 'no'),
      run('restart', 'yes', { seconds: 12 }),
      run('air', 'yes', { seconds: 3 }),
      run('rattle', 'no'),
    )
    expect(Object.keys(figures)).toEqual(['restart-seconds'])
    expect(figures['restart-seconds']?.label).not.toBe(
      prime(run('prime', 'yes', { seconds: 12 })).figures['prime-seconds']?.label,
    )
    expect(says).toHaveLength(3)
    expect(says[0]).not.toMatch(/try/u)
    expect(says[0]).toMatch(/12 s/u)
    expect(says[1]).not.toMatch(/3/u)
  })

  test('water caught adds up, each by where', () => {
    const { figures, says } = prime(
      run('leak', 'yes', { value: 3e-6, note: 'lid' }),
      run('leak', 'yes', { value: 5e-6, note: '' }),
      run('leak', 'yes', { value: 0, note: 'tap' }),
    )
    expect(figures.leaked?.value).toBeCloseTo(8e-6, 15)
    expect(figures.leaked?.working?.map((w) => [w.symbol, w.label, w.value])).toEqual([
      ['1', 'lid', 3e-6],
      ['2', 'caught', 5e-6],
    ])
    expect(says[0]).toMatch(/^Leaks: 8.* \(tap\)\.$/u)
    expect(prime(run('leak', 'yes')).figures).toEqual({})
    expect(prime(run('leak', 'yes', { value: 3e-6 }), run('leak', 'no')).figures).toEqual({})
    expect(prime(run('air', 'yes', { value: 3e-6 })).figures).toEqual({})
    expect(prime(run('prime', 'yes', { value: 3e-6 })).figures).toEqual({})
  })
})

describe('the rest of the bench', () => {
  test('cups that let go: half of them by the median; where fewer did, how many still held and the longest', () => {
    const hold = (series: string, seconds: number, outcome: string): BenchReading => ({
      series,
      seconds,
      outcome,
    })
    const { figures, says } = found(
      trialOf('holding', [
        hold('cups', 100, 'let-go'),
        hold('cups', 300, 'let-go'),
        hold('cups', 900, 'still'),
        hold('feet', 700, 'still'),
        hold('feet', 60, 'let-go'),
        hold('feet', 800, 'still'),
      ]),
    )
    expect(figures['holding-cups']?.value).toBe(300)
    expect(worked(figures['holding-cups'])).toEqual({ n: 3, held: 1 })
    expect(says[0]).toMatch(/^Cups: .*300\s?s/u)
    expect(says[1]).toMatch(/^Feet: 2 of 3 .*800\s?s/u)
    expect(found(trialOf('holding', [hold('', 100, 'still')])).says[0]).toMatch(/^They: 1 of 1 /u)
  })

  test('the height at which it stops: mean, twice the tape and its scatter, beside the label', () => {
    const t = trialOf('shut-off', [{ value: 1.7 }, { value: 1.8 }])
    const { figures, says } = found(t)
    expect(figures['shut-off']?.value).toBeCloseTo(1.75, 12)
    expect(figures['shut-off']?.uncertainty).toBeCloseTo(
      2 * Math.hypot(0.01, Math.hypot(0.05, 0.05) / Math.sqrt(2)),
      9,
    )
    expect(worked(figures['shut-off'])).toEqual({ H1: 1.7, H2: 1.8 })
    expect(says).toEqual([])
    expect(found(t, { claims: [{ quantity: 'max-head', value: 2 }] }).says).toEqual([
      expect.stringMatching(/1\.75.*2/u),
    ])
  })

  test('a meter’s factor by least squares through 0, and whether the one in use agrees', () => {
    const check = (kFactor: number) =>
      found(
        trialOf(
          'meter-check',
          [
            { value: 9000, volume: 2e-3 },
            { value: 18100, volume: 4e-3 },
          ],
          { setup: { kFactor } },
        ),
      )
    const k = (9000 * 2 + 18100 * 4) / (4 + 16)
    const { figures, says } = check(4.5e6)
    expect(figures['k-factor']?.value).toBeCloseTo(k, 9)
    expect(worked(figures['k-factor'])).toEqual({ N1: 9000, N2: 18100 })
    // ± 2 √(u² + (1 % of K)²), more than 2 %.
    expect(figures['k-factor']?.uncertainty).toBeGreaterThan(0.02 * k)
    expect(figures['k-factor']?.uncertainty).toBeLessThan(0.03 * k)
    expect(figures['k-off']?.value).toBeCloseTo(Math.abs(4500 / k - 1), 9)
    expect(worked(figures['k-off'])).toMatchObject({ 'K in use': 4500, K: Number(k.toPrecision(6)) })
    expect(Object.keys(figures)).toEqual(['k-factor', 'k-off'])
    expect(says[0]).toMatch(/agrees/u)
    expect(check(5e6).says[0]).toMatch(/too high.*read low/u)
    expect(check(4e6).says[0]).toMatch(/too low.*read high/u)
  })

  test('clarity: the newest of each moment in their order, and what changed beyond what an eye can tell', () => {
    const rate = (series: string, value: number | null, outcome = 'rated'): BenchReading =>
      ({ series, outcome, value }) as BenchReading
    const clear = (...runs: BenchReading[]) => found(trialOf('clarity', runs))
    const { figures, says } = clear(rate('morning', 8), rate('before', 2), rate('before', 3))
    expect(Object.values(figures).map((f) => [f.value, f.uncertainty])).toEqual([
      [3, 1],
      [8, 1],
    ])
    expect(worked(Object.values(figures)[0])).toEqual({ U: 1 })
    expect(says[0]).toMatch(/^[^:]+: 3[^,]*before, 8[^,]*the next morning\.$/u)
    expect(says[1]).toMatch(/5 steps clearer/u)
    expect(clear(rate('before', 8), rate('later', 3)).says[1]).toMatch(/5 steps cloudier/u)
    expect(clear(rate('before', 3), rate('later', 4)).says[1]).not.toMatch(/steps/u)
    expect(clear(rate('before', 3), rate('later', 5)).says[1]).toMatch(/2 steps/u)
    expect(clear(rate('before', 3)).says).toHaveLength(1)
    expect(clear(rate('later', 3)).says).toHaveLength(2)
    const photos = clear(rate('later', null, 'photo'), rate('before', null, 'photo'))
    expect(photos.figures).toEqual({})
    expect(photos.says).toEqual([expect.stringMatching(/before, later/u)])
    expect(clear(rate('before', 3), rate('later', 3, 'photo')).says).toHaveLength(2)
  })

  test('two kinds under one condition that disagree beyond both ± are told once; alike, or elsewhere, never', () => {
    const vessel = (id: string, seconds: number, more: Partial<TrialRecord> = {}) =>
      trialOf(
        'vessel',
        [1, 2, 3].map((i) => ({ volume: 5e-3, seconds: seconds + i / 100 })),
        { id, ...more },
      )
    const meter = (id: string, flow: number, more: Partial<TrialRecord> = {}) =>
      trialOf(
        'read',
        [1, 2, 3].map(() => ({ value: lph(flow) })),
        { id, setup: { relative: 0.01 }, ...more },
      )
    const told = (...trials: TrialRecord[]) =>
      disagreements(trialResults(model(trials))).map((s) => sentenceText(s, 'metric'))
    expect(told(vessel('a', 36), meter('b', 600))).toEqual([expect.stringMatching(/disagree.*500.*600/u)])
    expect(told(vessel('a', 36), meter('b', 505))).toEqual([])
    expect(told(vessel('a', 36), vessel('b', 30))).toEqual([])
    const { kind: _k, ...plain } = vessel('a', 36)
    expect(told(plain, meter('b', 600))).toHaveLength(1)
    expect(told(plain, vessel('b', 30))).toEqual([])
    for (const more of [
      { state: 'dirty' },
      { hookupId: 'h' },
      { lift: 0.005 },
      { lift: 0.3 },
      { mainsFrequency: 60 },
    ] as Partial<TrialRecord>[])
      expect(told(vessel('a', 36), meter('b', 600, more))).toEqual([])
    expect(told(vessel('a', 36, { lift: 0.3 }), meter('b', 600, { lift: 0.304 }))).toHaveLength(1)
  })

  test('the vessel of a trial is one litre mark for all of its runs, and is what its trials are wrong alike by', () => {
    const runs = (...litres: number[]) => litres.map((l) => ({ volume: l / 1000, seconds: 36 }))
    expect(vesselOf({ kind: 'vessel', runs: runs(5, 5, 5) })).toBe('vessel of 5 L')
    expect(vesselOf({ runs: runs(5) })).toBe('vessel of 5 L')
    expect(vesselOf({ runs: runs(5, 5, 4) })).toBeNull()
    expect(vesselOf({ kind: 'weighed', runs: runs(5, 5) })).toBeNull()
    expect(vesselOf({ runs: [{ seconds: 3 }] })).toBeNull()
    const [first] = trialResults(model([trialOf('vessel', runs(5, 5))]))
    const r = first?.result
    expect(first?.figure.shared).toEqual([
      {
        what: 'vessel of 5 L',
        relative: ((r?.coverageFactor ?? NaN) * (r?.typeB.vessel ?? NaN)) / (r?.mean ?? NaN),
      },
    ])
    // 1 % of a vessel, of a flow of 5 L in 36 s.
    expect((r?.typeB.vessel ?? NaN) / (r?.mean ?? NaN)).toBeCloseTo(0.01, 6)
    expect(trialResults(model([trialOf('read', [{ value: lph(500) }])]))[0]?.figure.shared).toBeUndefined()
    expect(first?.figure.working?.find((w) => w.symbol === 'u_B')?.label).toBe('vessel')
    const { kind: _k, ...plain } = trialOf('vessel', runs(5, 5))
    expect(trialResults(model([plain]))[0]?.figure.working?.find((w) => w.symbol === 'u_B')?.label).toBe(
      'vessel',
    )
    expect(trialResults(model([trialOf('power', [{ value: 20 }])]))).toEqual([])
  })

  test('a run counts beside others of its own kind that have more than one', () => {
    const timed = (id: string, ...seconds: number[]) =>
      trialOf(
        'vessel',
        seconds.map((s) => ({ volume: 5e-3, seconds: s })),
        { id },
      )
    const one = timed('a', 36)
    const others = [timed('b', 30, 34, 38), timed('c', 36)]
    const beside = methodBeside(one, [one, ...others])
    expect(methodBeside(one, [one, others[0] as TrialRecord])).toEqual(beside)
    const weighed = trialOf(
      'weighed',
      [
        { value: 5, seconds: 20 },
        { value: 5, seconds: 40 },
      ],
      { id: 'w' },
    )
    expect(methodBeside(one, [one, ...others, weighed])).toEqual(beside)
    expect(methodBeside(one, [one, timed('b', 35.9, 36, 36.1)]).repeatability).toBeLessThan(
      beside.repeatability ?? 0,
    )
  })

  test('the best trial: clean, without lift, and the first of two as good', () => {
    const flow = (id: string, q: number, more: Partial<TrialRecord> = {}) =>
      trialOf('read', [{ value: lph(q) }], { id, ...more })
    const best = (...trials: TrialRecord[]) => bestTrial(trialResults(model(trials)))?.trial.id
    expect(
      best(flow('a', 500), flow('b', 600), flow('c', 700, { state: 'dirty' }), flow('d', 800, { lift: 0.2 })),
    ).toBe('b')
    expect(best(flow('a', 500), flow('b', 500))).toBe('a')
    expect(best(flow('a', 0))).toBeUndefined()
  })

  test('an arithmetic that refuses says why, and nothing is found where nothing was read', () => {
    expect(found(trialOf('meter-check', [{ value: 9000, volume: 2e-3 }]))).toMatchObject({
      figures: {},
      says: [],
      problem: expect.stringMatching(/./u),
    })
    const m = model([trialOf('power', [])])
    expect(trialFindings({ model: m, flows: [], main: null })).toEqual([])
  })
})
