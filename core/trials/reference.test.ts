import { sentenceText } from '../figures'
import type { ModelRecord, TrialRecord } from './records'
import { unionisedShare } from '../water'
import { nominalOf } from './dye/find'
import { trialFindings } from './findings'
import type { TrialKind } from '.'
import type { BenchReading } from '../bench'

const trial = (kind: TrialKind, runs: readonly BenchReading[], setup: TrialRecord['setup'] = {}): TrialRecord => ({
  id: 't', kind, setup, state: 'as-shipped', hookupId: null, lift: 0, waterTemperature: 25, mainsFrequency: 50,
  method: { vessel: 0.01, resolution: 0.01, reaction: 0.05 }, runs,
}) // prettier-ignore
const found = (t: TrialRecord) => {
  const model: ModelRecord = { kind: 'canister', mainsFrequency: 50, claims: [], hookups: [], trials: [t], mediaMass: null }
  const f = trialFindings({ model, flows: [], main: null })[0]
  const value = (id: string) => f?.figures.find((x) => x.id.startsWith(id))
  return { value, says: (f?.sentences ?? []).map((s) => sentenceText(s, 'metric')).join(' ') }
} // prettier-ignore
const test1 = (series: string, value: number): BenchReading => ({ series, value })

describe('un-ionised ammonia, Emerson et al. 1975 (from memory)', () => {
  // The paper’s own table at 25 °C: pH 7.0 0.566, 8.0 5.38, 9.0 36.3 %; the value given for pH 8.0 elsewhere is 5.37 %.
  test.each([
    [7, 0.566],
    [8, 5.37],
    [9, 36.3],
  ])('pH %d at 25 °C: %d %%', (pH, percent) => {
    expect((unionisedShare(pH, 25) * 100) / percent).toBeCloseTo(1, 2)
  })
})

describe('a water test', () => {
  // 1 mg/L of the ion holds 14.007/18.039 = 0.7765 mg/L N as ammonium, 14.007/46.005 = 0.3045 as nitrite,
  // 14.007/62.004 = 0.2259 as nitrate (IUPAC standard atomic weights, worked out by hand).
  test('counts the nitrogen in the ion, sure to half a step of the card', () => {
    const r = found(
      trial('water-test', [test1('ammonia', 1e-3), test1('nitrite', 0.5e-3), test1('nitrate', 20e-3)]),
    )
    expect((r.value('water-ammonia')?.value ?? 0) * 1e3).toBeCloseTo(0.7765, 4)
    expect((r.value('water-nitrite')?.value ?? 0) * 1e3).toBeCloseTo(0.1522, 4)
    expect((r.value('water-nitrate')?.value ?? 0) * 1e3).toBeCloseTo(4.518, 3)
    // A card of 0.25 mg/L: half a step is 0.125 mg/L of the ion, 0.0971 mg/L of nitrogen.
    expect((r.value('water-ammonia')?.uncertainty ?? 0) * 1e3).toBeCloseTo(0.0971, 4)
  })
  test('a card that counts nitrogen is taken as it reads, and a set step in place of the usual one', () => {
    const r = found(
      trial('water-test', [test1('ammonia', 0.5e-3)], { countedAs: 'nitrogen', stepAmmonia: 0.1e-3 }),
    )
    expect((r.value('water-ammonia')?.value ?? 0) * 1e3).toBeCloseTo(0.5, 9)
    expect((r.value('water-ammonia')?.uncertainty ?? 0) * 1e3).toBeCloseTo(0.05, 9)
  })
  test('ammonia and nitrite at zero are said to read as zero, never to be none', () => {
    const r = found(
      trial('water-test', [test1('ammonia', 0), test1('nitrite', 0), test1('nitrate', 10e-3)], {
        countedAs: 'ion',
      }),
    )
    expect(r.says).toContain(
      'Ammonia, as nitrogen 0.00 ± 0.10 mg/L, nitrite, as nitrogen 0.00 ± 0.04 mg/L, nitrate, as nitrogen 2.3 ± 0.6 mg/L. Ammonia and nitrite read 0: the filter keeps up.',
    )
    expect(found(trial('water-test', [test1('ammonia', 0.5e-3), test1('nitrite', 0)])).says).toContain(
      'Ammonia or nitrite shows: the filter does not keep up yet.',
    )
  })
  test('un-ionised ammonia is held against what fish bear: 1 mg/L NH₄ at pH 8, 25 °C is 0.0507 mg/L NH₃', () => {
    // 0.7765 mg/L N · 17.031/14.007 · 0.0537 = 0.0507; twice the 0.025 mg/L of EIFAC 1970.
    const r = found(
      trial('water-test', [test1('ammonia', 1e-3), test1('ph', 8), test1('temperature', 25)], {
        countedAs: 'ion',
      }),
    )
    expect((r.value('water-unionised')?.value ?? 0) * 1e3).toBeCloseTo(0.0507, 3)
    expect(r.says).toContain('Un-ionised ammonia 0.051 ± 0.022 mg/L is too high (limit 0.025 mg/L).')
    const zero = found(
      trial('water-test', [test1('ammonia', 0), test1('ph', 8.8), test1('temperature', 27)], {
        countedAs: 'ion',
      }),
    )
    expect(zero.says).toContain(
      'Un-ionised ammonia 0.00 ± 0.04 mg/L: this reading is too coarse to rule out more than 0.025 mg/L.',
    )
  })
  test('a conditioner stands beside the reading', () => {
    const r = found(trial('water-test', [test1('ammonia', 0)], { conditioner: 'Stillbind, this morning' }))
    expect(r.says).toContain('Stillbind, this morning')
  })
})

describe('clarity', () => {
  const at = (series: string, value: number | null, outcome = 'rated'): BenchReading => ({
    series,
    value,
    outcome,
  })
  test('what changed since before, no finer than an eye can tell', () => {
    expect(found(trial('clarity', [at('before', 3), at('minutes', 5), at('morning', 8)])).says).toContain(
      'The next morning: 5 steps clearer than before.',
    )
    expect(found(trial('clarity', [at('before', 6), at('later', 7)])).says).toContain(
      'Later: no visible difference.',
    )
    expect(found(trial('clarity', [at('later', 2)])).says).toContain('No rating from before to compare with.')
  })
  test('photos stand for themselves', () => {
    expect(
      found(trial('clarity', [at('before', null, 'photo'), at('morning', null, 'photo')])).says,
    ).toContain('Photos before, the next morning')
  })
})

test('V/Q of a dye trial: its volume over the flow of the very state it was watched in, with both doubts', () => {
  const trial = {
    id: 'd',
    hookupId: 'h',
    state: 'as-shipped',
    lift: 0,
    mainsFrequency: 50,
    setup: { volume: 6e-3 },
  }
  const flow = (state: string, mean: number) => ({
    trial: { ...trial, state },
    result: { mean, standardUncertainty: 0.03 * mean },
  })
  const flows = [flow('as-shipped', 1e-4), flow('empty', 3e-4)]
  // 6 L at 0.1 L/s: 60 s; a volume to 2 % and a flow to 3 %: 3.61 %.
  const found = nominalOf(trial as never, flows as never)
  expect(found?.value).toBeCloseTo(60, 9)
  expect(found?.relative).toBeCloseTo(0.03606, 4)
  expect(nominalOf({ ...trial, state: 'dirty' } as never, flows as never)).toBeNull()
  expect(nominalOf({ ...trial, setup: {} } as never, flows as never)).toBeNull()
})
