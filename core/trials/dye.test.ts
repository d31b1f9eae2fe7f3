import { sentenceText, type Figure } from '../figures'
import type { TracerPoint } from '../bench'
import type { BenchReading } from '../bench/shape'
import { trialFindings, trialResults } from '.'
import { pulseDoubts, riseDoubts } from './dye/doubt'
import { dyeCurves, dyeFigures, dyePoint, nominalOf } from './dye/find'
import { dyeSentences } from './dye/words'
import type { ModelRecord, TrialRecord } from './records'
import { trial as aTrial } from './records.fixture'

/**
 * Dye: a pulse through three tanks in series, E(t) = t²/(2 θ³) e^(−t/θ) (Levenspiel, ch. 14), mean 3θ, N = 3; a rise
 * behind a delay. Its doubt against the law of propagation: every point scatters by 8 % of itself and 0.5 % of the
 * highest (standard), scaled by how rough the curve is beside that.
 */
const THETA = 20
const gamma = (t: number): number => (t / THETA) ** 2 * Math.exp(-t / THETA) * 100
const pulse = (n: number, end: number, rough = 0): TracerPoint[] =>
  Array.from({ length: n + 1 }, (_, i) => {
    const time = (i * end) / n
    return { time, concentration: gamma(time) * (1 + (i % 2 ? rough : -rough)) }
  })

/** A plug of dye as a raised cosine over a minute: nothing comes after it, so no tail is carried on. */
const plug = (n: number, rough = 0): TracerPoint[] =>
  Array.from({ length: n + 1 }, (_, i) => {
    const time = (i * 66) / n
    const c = time > 2 && time < 62 ? 50 * (1 - Math.cos(((time - 2) * Math.PI) / 30)) : 0
    return { time, concentration: c * (1 + (i % 2 ? rough : -rough)) }
  })

/** Standard uncertainty of ∫tC/∫C by propagation, points scattering by so much (standard). */
function uOfMean(curve: readonly TracerPoint[], sigma: (c: number) => number): number {
  const w = curve.map((_, i) => ((curve[i + 1] ?? curve[i])!.time - (curve[i - 1] ?? curve[i])!.time) / 2)
  const area = curve.reduce((s, p, i) => s + w[i]! * p.concentration, 0)
  const mean = curve.reduce((s, p, i) => s + w[i]! * p.concentration * p.time, 0) / area
  return (
    Math.sqrt(curve.reduce((s, p, i) => s + (w[i]! * (p.time - mean) * sigma(p.concentration)) ** 2, 0)) /
    area
  )
}
const usual = (curve: readonly TracerPoint[]) => {
  const highest = Math.max(...curve.map((p) => p.concentration))
  return (c: number): number => 0.08 * c + 0.005 * highest
}
/** Roughness beside the usual, pooled with 6 degrees of freedom: what is off the line between a point's neighbours. */
function scaleOf(curve: readonly TracerPoint[]): number {
  const sigma = usual(curve)
  let squares = 6
  for (let i = 1; i < curve.length - 1; i++) {
    const [a, b, c] = [curve[i - 1]!, curve[i]!, curve[i + 1]!]
    const line =
      a.concentration + ((c.concentration - a.concentration) * (b.time - a.time)) / (c.time - a.time)
    const [left, right] = [(c.time - b.time) / (c.time - a.time), (b.time - a.time) / (c.time - a.time)]
    squares += ((b.concentration - line) / sigma(b.concentration)) ** 2 / (1 + left ** 2 + right ** 2)
  }
  return Math.sqrt(squares / (6 + curve.length - 2))
}
const half = ([low, high]: readonly [number, number]): number => (high - low) / 2

describe('the doubt of a pulse', () => {
  test.each([
    ['smooth', plug(66)],
    ['rough, by 12 % to and fro', plug(66, 0.12)],
    ['very rough', plug(80, 0.2)],
    ['unevenly read', plug(66, 0.05).filter((_, i) => i % 5 !== 3)],
  ])('its mean by propagation of what its points scatter by: %s', (_, curve) => {
    const doubts = pulseDoubts(curve, null)
    const sigma = usual(curve)
    const scale = scaleOf(curve)
    const expected = 1.96 * uOfMean(curve, (c) => scale * sigma(c))
    const found = half(doubts.mean ?? [NaN, NaN])
    expect(found / expected).toBeGreaterThan(0.85)
    expect(found / expected).toBeLessThan(1.25)
    const [low, high] = doubts.mean ?? [NaN, NaN]
    const { pulse: p } = dyePoint('x', curve, null)
    expect((low + high) / 2 / (p?.meanResidence ?? NaN)).toBeCloseTo(1, 1)
    expect(low).toBeLessThan(p?.meanResidence ?? NaN)
    expect(high).toBeGreaterThan(p?.meanResidence ?? NaN)
    expect(Object.keys(doubts)).toEqual(['mean', 'tanks', 't10', 'morrill'])
  })

  test('a long curve is thinned, and is no less sure for it', () => {
    const curve = plug(600)
    const few = curve.filter((_, i) => i % 4 === 0)
    const scale = scaleOf(few)
    const sigma = usual(few)
    const expected = 1.96 * uOfMean(curve, (c) => scale * sigma(c))
    const found = half(pulseDoubts(curve, null).mean ?? [NaN, NaN])
    expect(found / expected).toBeGreaterThan(0.75)
    expect(found / expected).toBeLessThan(1.3)
    // Its last point is among those that stay: 601 points, of which every fourth and the end.
    const cut = plug(602)
    expect(half(pulseDoubts(cut, null).mean ?? [NaN, NaN]) / expected).toBeCloseTo(1, 0)
  })

  test('dead volume: what is between, with the doubt of V/Q in it; none without V/Q', () => {
    const curve = pulse(60, 160)
    const { pulse: p } = dyePoint('x', curve, null)
    const mean = p?.meanResidence ?? NaN
    const at = (relative: number) => pulseDoubts(curve, { value: 80, relative }).dead ?? ([NaN, NaN] as const)
    // 1 − t̄/(V/Q): u = t̄/(V/Q) √((u_t̄/t̄)² + u_rel²), by the law of propagation.
    const ut = half(pulseDoubts(curve, null).mean ?? [NaN, NaN]) / 1.96 / mean
    for (const relative of [1e-9, 0.05, 0.1]) {
      const expected = 1.96 * (mean / 80) * Math.hypot(ut, relative)
      expect(half(at(relative)) / expected).toBeGreaterThan(0.8)
      expect(half(at(relative)) / expected).toBeLessThan(1.25)
      const [low, high] = at(relative)
      expect(low).toBeLessThan(1 - mean / 80)
      expect(high).toBeGreaterThan(1 - mean / 80)
    }
    // More water than flows by leaves it below nothing, and its doubt is still what is between.
    const [low, high] = pulseDoubts(curve, { value: 55, relative: 0.05 }).dead ?? [NaN, NaN]
    expect(low).toBeLessThan(1 - mean / 55)
    expect(high).toBeGreaterThan(1 - mean / 55)
    expect(high - low).toBeLessThan(0.5)
  })

  test('of a curve that hardly any draw can be read from nothing is said', () => {
    // Three points, two of them of no dye: a draw of it has none of its own width.
    const spike = [0, 10, 20].map((time, i) => ({ time, concentration: i === 1 ? 1 : 0 }))
    const doubts = pulseDoubts(spike, null)
    expect(Object.values(doubts).every(([a, b]) => Number.isFinite(a) && Number.isFinite(b))).toBe(true)
  })
})

describe('the doubt of a rise', () => {
  const rise = (tau: number, delay: number, end: number, n = 60): TracerPoint[] =>
    Array.from({ length: n + 1 }, (_, i) => {
      const time = (i * end) / n
      return { time, concentration: time > delay ? 100 * (1 - Math.exp(-(time - delay) / tau)) : 0 }
    })

  test('watched long enough, its time constant is near what it is', () => {
    const long = riseDoubts(rise(60, 20, 400))
    // A point read to 8 % wanders out of 5 % to the end: when it is mixed has no interval.
    expect(Object.keys(long)).toEqual(['coloured', 'delay', 'tau'])
    const [low, high] = long.tau ?? [NaN, NaN]
    expect(low).toBeGreaterThan(45)
    expect(high).toBeLessThan(80)
    expect(low).toBeLessThan(61)
    expect(high).toBeGreaterThan(59)
  })
})

describe('curves', () => {
  test('by point, in time order; of two in one instant the later stands', () => {
    const read = (series: string, seconds: number, value: number): BenchReading => ({
      series,
      seconds,
      value,
    })
    const curves = dyeCurves([
      read('left', 20, 5),
      read('right', 1, 1),
      read('left', 10, 2),
      read('left', 20, 7),
      read('left', 5, 1),
    ])
    expect([...curves.keys()]).toEqual(['left', 'right'])
    expect(curves.get('left')).toEqual([
      { time: 5, concentration: 1 },
      { time: 10, concentration: 2 },
      { time: 20, concentration: 7 },
    ])
  })
})

const trial = (id: string, more: Partial<TrialRecord> = {}): TrialRecord =>
  aTrial({ id, waterTemperature: 20, runs: [], ...more })
const model = (trials: readonly TrialRecord[]): ModelRecord => ({
  kind: 'canister',
  mainsFrequency: 50,
  claims: [],
  hookups: [],
  mediaMass: null,
  trials,
})
const flow = (id: string, more: Partial<TrialRecord> = {}): TrialRecord =>
  trial(id, { kind: 'read', runs: [{ value: 360e-3 / 3600 }], setup: { relative: 0.03 }, ...more })
const dye = (more: Partial<TrialRecord> = {}): TrialRecord =>
  trial('d', { kind: 'dye', setup: { volume: 8e-3 }, ...more })

describe('V/Q of the state it was watched in', () => {
  const nominal = (d: TrialRecord, ...flows: TrialRecord[]) => nominalOf(d, trialResults(model(flows)))

  test('8 L at 360 L/h are 80 s; a fiftieth of the volume and what is doubted of the flow', () => {
    const n = nominal(dye(), flow('a'))
    expect(n?.value).toBeCloseTo(80, 9)
    expect(n?.relative).toBeCloseTo(Math.hypot(0.02, 0.03), 4)
  })

  test('the newest flow of the same hoses, state, lift, mains and tap; none of another', () => {
    expect(nominal(dye(), flow('a'), flow('b', { runs: [{ value: 180e-3 / 3600 }] }))?.value).toBeCloseTo(
      160,
      9,
    )
    for (const other of [
      { hookupId: 'h' },
      { state: 'dirty' },
      { lift: 0.3 },
      { lift: 0.005 },
      { mainsFrequency: 60 },
      { valve: 0.5 },
    ] as Partial<TrialRecord>[])
      expect(nominal(dye(), flow('a', other))).toBeNull()
    expect(
      nominal(dye({ lift: 0.3, valve: 0.5 }), flow('a', { lift: 0.304, valve: 0.5 }))?.value,
    ).toBeCloseTo(80, 9)
    expect(nominal(dye({ valve: 1 }), flow('a'))?.value).toBeCloseTo(80, 9)
    expect(nominal(dye({ setup: {} }), flow('a'))).toBeNull()
  })
})

describe('figures and sentences of a point', () => {
  const told = (
    curve: readonly TracerPoint[],
    nominal: { value: number; relative: number } | null,
    point = 'left',
  ) => {
    const d = dyePoint(point, curve, nominal)
    const figures = dyeFigures({ id: 't' }, d, ['empty body'])
    return {
      d,
      figures,
      ids: figures.map((f) => f.id.split('-').at(-1)),
      says: dyeSentences(d, figures).map((s) => sentenceText(s, 'metric')),
    }
  }
  const byId = (figures: readonly Figure[], id: string) => figures.find((f) => f.id.endsWith(`-${id}`))

  test('a pulse: mean 3θ, three tanks; dead volume where V/Q is known, in per cent', () => {
    const { figures, ids, says } = told(pulse(120, 400), { value: 100, relative: 0.03 })
    expect(ids).toEqual(['mean', 'tanks', 't10', 'morrill', 'dead'])
    expect(byId(figures, 'mean')?.value).toBeCloseTo(60, 0)
    expect(byId(figures, 'tanks')?.value).toBeCloseTo(3, 1)
    expect(byId(figures, 'dead')?.value).toBeCloseTo(0.4, 2)
    expect(byId(figures, 'dead')?.unit).toBe('%')
    expect(byId(figures, 'mean')?.unit).toBeUndefined()
    expect(byId(figures, 'mean')?.label).toMatch(/left$/u)
    expect(byId(figures, 'mean')?.working).toEqual([])
    expect(byId(figures, 'mean')?.conditions).toEqual(['empty body'])
    expect(says).toHaveLength(1)
    expect(says[0]).toMatch(/^Left: .*60.*40\s?%.*\.$/u)
    const free = told(pulse(120, 400), null)
    expect(free.ids).toEqual(['mean', 'tanks', 't10', 'morrill'])
    expect(free.says[0]).not.toMatch(/volume|t10/u)
    expect(told(pulse(120, 400), null, '').figures[0]?.label).toMatch(/, the point$/u)
  })

  test('an interval always holds its value, and its ± reaches the farther end', () => {
    const { figures } = told(pulse(60, 300, 0.2), { value: 100, relative: 0.1 })
    for (const f of figures) {
      const [low, high] = f.interval ?? [NaN, NaN]
      expect(low).toBeLessThanOrEqual(f.value)
      expect(high).toBeGreaterThanOrEqual(f.value)
      expect(f.uncertainty).toBeCloseTo(Math.max(f.value - low, high - f.value), 12)
      expect(f.uncertainty).toBeGreaterThan(0)
    }
    const d = {
      point: 'x',
      mixing: null,
      pulse: dyePoint('x', pulse(60, 160), null).pulse,
      doubts: { mean: [70, 80] as const },
    }
    const mean = dyeFigures({ id: 't' }, d, [])[0]
    expect(mean?.interval).toEqual([mean?.value, 80])
    const low = dyeFigures({ id: 't' }, { ...d, doubts: { mean: [40, 50] as const } }, [])[0]
    expect(low?.interval).toEqual([40, low?.value])
    expect(dyeFigures({ id: 't' }, { ...d, doubts: {} }, [])[0]?.uncertainty).toBeUndefined()
  })

  test('dead volume that its doubt swallows is not told; none is told where there is no V/Q', () => {
    const sure = told(pulse(120, 400), { value: 100, relative: 0.03 }).says[0] ?? ''
    const unsure = told(pulse(120, 400), { value: 61, relative: 0.1 }).says[0] ?? ''
    expect(unsure).toMatch(/No dead volume beyond the uncertainty\./u)
    expect(sure).not.toMatch(/no dead volume/u)
    const d = dyePoint('x', pulse(120, 400), { value: 100, relative: 0.03 })
    const figures = dyeFigures({ id: 't' }, d, [])
    const at = (uncertainty: number) =>
      dyeSentences(
        d,
        figures.map((f) => (f.id.endsWith('-dead') ? { ...f, uncertainty } : f)),
      ).map((s) => sentenceText(s, 'metric'))[0]
    const dead = byId(figures, 'dead')?.value ?? NaN
    expect(at(dead)).toMatch(/No dead volume beyond the uncertainty\./u)
    expect(at(dead * 0.999)).not.toMatch(/no dead volume/u)
  })

  test('t10 by its EPA class, where V/Q is known', () => {
    expect(told(pulse(120, 400), { value: 60, relative: 0.03 }).says[0]).toMatch(/Baffling by t10: poor\./u)
  })

  test('a tail cut off: how much was still there; one that does not fall is said to be so', () => {
    const cut = told(pulse(60, 110), null)
    expect(cut.d.pulse?.extrapolated).toBeGreaterThan(0.02)
    expect(cut.says[0]).toContain(`${Math.round((cut.d.pulse?.tail ?? NaN) * 100)}`)
    expect(cut.says[0]).toMatch(/Left: the dye stays [\d.,\s]+ ± [\d.,\s]+ s on average\./u)
    const whole = told(pulse(120, 400), null)
    expect(whole.says[0]).not.toMatch(/tail|still/u)
    const p = whole.d.pulse!
    const says = (tail: number, extrapolated: number) =>
      dyeSentences({ ...whole.d, pulse: { ...p, tail, extrapolated } }, whole.figures).map((s) =>
        sentenceText(s, 'metric'),
      )[0] ?? ''
    expect(says(0.4, 0.0201)).toMatch(
      /The test ended with 40 % of the peak left; the rest is extrapolated\./u,
    )
    expect(says(0.4, 0.02)).toMatch(/too short/u)
    expect(says(0.1001, 0)).toMatch(/too short/u)
    expect(says(0.1, 0)).not.toMatch(/too short|still/u)
  })

  test('a rise: colours, delay and time constant; mixed only where it came to be', () => {
    const rise = (end: number) =>
      Array.from({ length: 81 }, (_, i) => {
        const time = (i * end) / 80
        return { time, concentration: time > 20 ? 100 * (1 - Math.exp(-(time - 20) / 60)) : 0 }
      })
    const long = told(rise(600), null)
    expect(long.ids).toEqual(['coloured', 'delay', 'tau', 'mixed'])
    expect(byId(long.figures, 'tau')?.value).toBeCloseTo(60, 0)
    expect(byId(long.figures, 'delay')?.value).toBeCloseTo(20, 0)
    expect(long.says[0]).toMatch(/^Left colours after.*mixed after.*\.$/u)
    const open = { ...long.d, mixing: { ...long.d.mixing!, mixed: null } }
    const figures = dyeFigures({ id: 't' }, open, [])
    expect(figures.map((f) => f.id.split('-').at(-1))).toEqual(['coloured', 'delay', 'tau'])
    const says = dyeSentences(open, figures).map((s) => sentenceText(s, 'metric'))
    expect(says[0]).toMatch(/It was not fully mixed when the test ended\./u)
    expect(says).toHaveLength(1)
  })

  test('a point of which nothing came has no figures and no sentence', () => {
    const none = { point: 'x', mixing: null, pulse: null, doubts: {} }
    expect(dyeFigures({ id: 't' }, none, [])).toEqual([])
    expect(dyeSentences(none, [])).toEqual([])
    const d = dyePoint('x', pulse(60, 160), null)
    expect(dyeSentences(d, [])).toEqual([])
  })

  test('a whole trial: every point its own, and one that cannot be read says why beside the others', () => {
    const at = (series: string, curve: readonly TracerPoint[]): BenchReading[] =>
      curve.map((p) => ({ series, seconds: p.time, value: p.concentration }))
    const find = (t: TrialRecord) => {
      const m = model([t, flow('f')])
      const f = trialFindings({ model: m, flows: trialResults(m), main: null }).find(
        (x) => x.trial.id === 'd',
      )
      return {
        labels: f?.figures.map((x) => x.label) ?? [],
        says: f?.sentences.map((s) => sentenceText(s, 'metric')) ?? [],
      }
    }
    const both = find(
      dye({
        runs: [...at('left', pulse(40, 300)), ...at('right', [{ time: 1, concentration: 2 }])],
        setup: { volume: 8e-3, points: ['left', 'right'] },
      }),
    )
    expect(both.says).toHaveLength(2)
    expect(both.says[0]).toMatch(/^Left: /u)
    expect(both.says[1]).toMatch(/^right: /u)
    expect(both.labels).toHaveLength(5)
    const one = find(dye({ runs: at('', pulse(40, 300)), setup: { volume: 8e-3, points: ['left'] } }))
    expect(one.labels[0]).toMatch(/, the point$/u)
    const nameless = find(dye({ runs: at('', pulse(40, 300)) }))
    expect(nameless.labels[0]).toMatch(/, the point$/u)
    expect(nameless.says[0]).toMatch(/^The point: /u)
  })
})
