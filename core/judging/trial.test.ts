import { seeded } from '../statistics'
import type { CapacitySchool } from '../tanks'
import { onTrial, shareInterval, trialCase, type TrialCase, type WaterTest } from './trial'
import { FILL, TANK } from './tests/tank'

const test0 = (on: string, ammonia = 0, more: Partial<WaterTest> = {}): WaterTest => ({ on, ammonia, nitrite: 0, binder: false, ...more }) // prettier-ignore
const runs = { name: 'Ledger', fill: FILL, claimedMax: 0.12, since: '2026-01-01' }

describe('a tank on record as a case', () => {
  const of = (...tests: readonly WaterTest[]) => trialCase({ id: 't', tank: TANK }, [runs], tests)
  test('tests count once the filter has cycled, and where nothing bound the ammonia', () => {
    expect(of(test0('2026-01-20', 1e-3))).toBeNull()
    expect(of(test0('2026-06-01', 1e-3, { binder: true }))).toBeNull()
    expect(of(test0('2026-01-20', 1e-3), test0('2026-06-01'))).toMatchObject({ held: true, tests: 1 })
    expect(of(test0('2026-06-01', 0.25e-3))).toMatchObject({ held: false, worst: { ammonia: 0.25e-3 } })
    expect(trialCase({ id: 't', tank: TANK }, [], [test0('2026-06-01')])).toBeNull()
  })
  test('each school that speaks says beforehand how likely it is to hold (by hand)', () => {
    const said = new Map(of(test0('2026-06-01'))?.said.map((s) => [s.school, s.chance]))
    // By mass 120 L ± √(0.2² + 0.05²) over a tank of 100 L: Φ(ln 1.2 ÷ 0.1031) = Φ(1.769) = 0.9615.
    expect(said.get('media-mass')).toBeCloseTo(0.9615, 3)
    // Oversizing: 80 ± 20 %: Φ(ln 0.8 ÷ 0.1) = 0.0128, and no school is surer than 3 in 100.
    expect(said.get('oversizing')).toBe(0.03)
    expect(said.get('balance')).toBe(0.97)
  })
})

describe('schools on trial', () => {
  const TRUE = 0.85
  const SCHOOLS: readonly CapacitySchool[] = ['media-mass', 'balance', 'turnover']
  /** Cases whose outcome goes by the second school; the others say the opposite, or nothing but a coin. */
  const cases = (n: number, seed: number): TrialCase[] => {
    const random = seeded(seed)
    return Array.from({ length: n }, (_, i) => {
      const p = random() < 0.6 ? TRUE : 1 - TRUE
      const held = random() < p
      const chances = [0.5 + (random() - 0.5) * 0.4, p, 1 - p]
      return { id: String(i), name: '', filters: [], tests: 1, held, worst: { ammonia: 0, nitrite: 0 }, said: SCHOOLS.map((school, j) => ({ school, chance: chances[j] ?? 0.5 })) } // prettier-ignore
    })
  }
  test('two cases worked by hand: weights are the products of what was said of what came', () => {
    const one = (held: boolean, a: number, b: number): TrialCase => ({ id: '', name: '', filters: [], tests: 1, held, worst: { ammonia: 0, nitrite: 0 }, said: [{ school: 'media-mass', chance: a }, { school: 'balance', chance: b }] }) // prettier-ignore
    const t = onTrial([one(true, 0.2, 0.9), one(false, 0.1, 0.8)])
    // 0.2 · 0.9 = 0.18 against 0.9 · 0.2 = 0.18: even.
    expect(t.schools.map((s) => s.weight)).toEqual([expect.closeTo(0.5, 9), expect.closeTo(0.5, 9)])
    expect(t.tooFew).toBe(true)
    // Mass said that neither would hold; the balance that both would, and one did.
    expect(t.schools.map((s) => [s.said, s.held])).toEqual([[0, 0], [2, 1]]) // prettier-ignore
    expect(t.schools[0]?.calibration).toBeNull()
  })
  test('over simulated sets with a known truth the true school earns the weight', () => {
    let first = 0
    for (let i = 0; i < 200; i++) {
      const t = onTrial(cases(20, 100 + i))
      const best = t.schools.reduce((a, b) => (b.weight > a.weight ? b : a))
      if (best.school === 'balance') first++
    }
    expect(first).toBeGreaterThan(190)
    expect(onTrial(cases(200, 7)).schools.find((s) => s.school === 'balance')?.weight).toBeGreaterThan(0.99)
  })
  test('the interval of its calibration holds the truth 93 to 97 times in 100', () => {
    let [inside, all] = [0, 0]
    for (let i = 0; i < 4000; i++) {
      const s = onTrial(cases(40, 5000 + i)).schools.find((x) => x.school === 'balance')
      if (!s?.calibration) continue
      all++
      if (s.calibration[0] <= TRUE && TRUE <= s.calibration[1]) inside++
    }
    expect(inside / all).toBeGreaterThan(0.93)
    expect(inside / all).toBeLessThan(0.97)
  })
  test('nothing on record says nothing; a share of all or none has an end at its edge', () => {
    expect(onTrial([])).toEqual({ cases: 0, tooFew: true, schools: [] })
    expect([shareInterval(0, 5)[0], shareInterval(5, 5)[1]]).toEqual([0, 1])
    // Jeffreys, 5 of 10: 0.224 to 0.776 (Brown, Cai and DasGupta 2001, table; from memory).
    expect(shareInterval(5, 10)[0]).toBeCloseTo(0.224, 3)
  })
})
