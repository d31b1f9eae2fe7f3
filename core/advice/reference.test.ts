import fc from 'fast-check'
import { yearlyEnergy } from '../bench'
import { sentenceText } from '../figures'
import { together } from '../judging'
import type { TankRecord } from '../tanks'
import {
  ADVICE_RULE,
  advise,
  AS_ITS_CLASS,
  compareAdvice,
  costWorking,
  CRITERIA,
  explain,
  fillByLabel,
  isCrowded,
  ladderFor,
  ladderWords,
  mediaItems,
  NO_WISHES,
  overtaking,
  owningCost,
  presentSteps,
  quickTank,
  packsByYear,
  ranked,
  rankDraws,
  sayPrice,
  scoreOf,
  serviceMinutes,
  slipOf,
  AIR_PUMP_POWER,
  slipText,
  standingOf,
  sumOf,
  unratedOf,
  priceWords,
  unknownWords,
  type Advice,
  swingWeights,
  stockAsAnswered,
  twoDemanded,
  valueOf,
  type AdviceRule,
  type Candidate,
  type Criterion,
  type Measured,
  type Measures,
  type OfferedFill,
  type Weights,
  type Wishes,
} from '.'
import { canister, classOf, EUR, figure, lph, NOZZLE, offered, TANK, use } from './candidates.fixture'

const weigh = (w: Partial<Weights>): Weights =>
  Object.fromEntries(CRITERIA.map((c) => [c, w[c] ?? 0])) as unknown as Weights
const measures = (m: Partial<Record<Criterion, Measured | null>>): Measures =>
  Object.fromEntries(CRITERIA.map((c) => [c, m[c] === undefined ? exact(0) : m[c]])) as unknown as Measures
const exact = (raw: number): Measured => ({ raw, own: 0, common: 0, log: false, zero: 0, one: 1 })
/** A normal number on a ramp so wide that nothing is cut off: value = (x + 1000)/2000. */
const normal = (raw: number, own: number): Measured => ({ raw, own, common: 0, log: false, zero: -1000, one: 1000 }) // prettier-ignore

describe('scores', () => {
  test('a ramp is straight between its ends and level beyond, whichever way it runs', () => {
    expect([0, 0.8, 1.4, 2, 5].map((x) => valueOf(x, { zero: 0.8, one: 2 }))).toEqual([0, 0, expect.closeTo(0.5, 12), 1, 1]) // prettier-ignore
    expect([20, 25, 35, 45].map((x) => valueOf(x, { zero: 45, one: 25 }))).toEqual([1, 1, 0.5, 0])
  })
  test('the weighted mean of the values, each criterion with what it brings; what nobody knows counts half', () => {
    // (3 · 0.5 + 1 · 1 + 1 · ½)/5 = 0.6.
    const s = scoreOf(measures({ capacity: exact(0.5), price: exact(1), noise: null }), weigh({ capacity: 3, price: 1, noise: 1 })) // prettier-ignore
    expect(s.score).toBeCloseTo(0.6, 12)
    expect(s.parts.find((p) => p.criterion === 'capacity')).toMatchObject({
      weight: 0.6,
      value: 0.5,
      brings: 0.3,
    })
    expect(s.parts.find((p) => p.criterion === 'noise')).toMatchObject({ value: null, brings: 0.1 })
    expect(s.parts.reduce((sum, p) => sum + p.brings, 0)).toBeCloseTo(s.score, 12)
    // Without any weight each counts alike.
    expect(scoreOf(measures({ capacity: exact(1) }), weigh({})).score).toBeCloseTo(1 / 8, 12)
  })
  test('weights by swings: 100, 60 and 40 of 200 are 50, 30 and 20 of 100', () => {
    const w = swingWeights('capacity', [{ criterion: 'noise', worth: 60 }, { criterion: 'price', worth: 40 }]) // prettier-ignore
    expect(w).toMatchObject({ capacity: 50, noise: 30, price: 20, build: 0 })
    // Two options that differ by half of the one swing and by the whole of a half-as-heavy one are level.
    const even = swingWeights('capacity', [{ criterion: 'noise', worth: 50 }])
    const [a, b] = [measures({ capacity: exact(0.5) }), measures({ noise: exact(1) })]
    expect(scoreOf(a, even).score).toBeCloseTo(scoreOf(b, even).score, 12)
  })
  test('where two draw level: the weight solved by hand, put back in, makes them equal', () => {
    const a = measures({ capacity: exact(0.9), price: exact(0.2) })
    const b = measures({ capacity: exact(0.5), price: exact(0.8) })
    const weights = weigh({ capacity: 3, price: 1 })
    // 3 · 0.4 − w · 0.6 = 0: w = 2; the other way 0.4 w − 0.6 = 0: w = 1.5.
    const found = overtaking(a, b, weights)
    expect(found.map((o) => [o.criterion, o.from, o.to])).toEqual([
      ['price', 1, expect.closeTo(2, 9)],
      ['capacity', 3, expect.closeTo(1.5, 9)],
    ])
    for (const o of found) {
      const w = { ...weights, [o.criterion]: o.to }
      expect(scoreOf(a, w).score).toBeCloseTo(scoreOf(b, w).score, 9)
    }
    // One that is better in everything is never overtaken.
    expect(overtaking(measures({ capacity: exact(1), price: exact(1) }), b, weights)).toEqual([])
  })
})

describe('how sure a ranking is', () => {
  test('JCGM 101, 9.2: four normal inputs added give ±3.92 (published), shared by weight', () => {
    const four = weigh({ capacity: 1, noise: 1, price: 1, service: 1 })
    const o = measures(Object.fromEntries((['capacity', 'noise', 'price', 'service'] as const).map((c) => [c, normal(0, 1)]))) // prettier-ignore
    const r = ranked([o], four, 60_000).options[0]
    // Mean of four values (x + 1000)/2000: ±3.92/4/2000 about a half.
    expect(((r?.high ?? 0) - 0.5) * 8000).toBeCloseTo(3.92, 1)
    expect(((r?.low ?? 0) - 0.5) * 8000).toBeCloseTo(-3.92, 1)
    expect(r).toMatchObject({ best: 1, rankLow: 1, rankHigh: 1 })
  })
  test('JCGM 101, 9.2.3: four rectangular inputs give ±3.88 (published); what nobody knows is rectangular', () => {
    const four = weigh({ capacity: 1, noise: 1, price: 1, service: 1 })
    const o = measures({ capacity: null, noise: null, price: null, service: null })
    const r = ranked([o], four, 60_000).options[0]
    // Rectangular of unit variance is 2√3 wide; ours is 1 wide, and the mean of four.
    expect(((r?.high ?? 0) - 0.5) * 4 * 2 * Math.sqrt(3)).toBeCloseTo(3.88, 1)
  })
  test('two normal scores: the better is first in Φ(δ/√2σ) of the draws', () => {
    const w = weigh({ noise: 1 })
    const r = ranked([measures({ noise: normal(0, 1) }), measures({ noise: normal(1, 1) })], w, 40_000)
    // Φ(0.70711) = 0.76025 (Abramowitz and Stegun, table 26.1).
    expect(r.options[1]?.best).toBeCloseTo(0.76, 2)
    expect((r.options[0]?.best ?? 0) + (r.options[1]?.best ?? 0)).toBeCloseTo(1, 9)
    expect(r.options[1]).toMatchObject({ rankLow: 1, rankHigh: 2 })
  })
  test('three alike are first a third each; equals share the first place; ranks are those of the order', () => {
    const w = weigh({ noise: 1 })
    const alike = ranked(
      Array.from({ length: 3 }, () => measures({ noise: normal(0, 1) })),
      w,
      60_000,
    )
    for (const o of alike.options) expect(o.best).toBeCloseTo(1 / 3, 2)
    const equal = ranked(
      [exact(0.5), exact(0.5), exact(0.2)].map((noise) => measures({ noise })),
      w,
      100,
    )
    expect(equal.options.map((o) => [o.best, o.rankLow, o.rankHigh])).toEqual([[0.5, 1, 1], [0.5, 1, 1], [0, 3, 3]]) // prettier-ignore
  })
  test('a doubt that all share moves them together: it never turns two about', () => {
    const rule = (raw: number): Measures => measures({ capacity: { raw, own: 0, common: 0.3, log: true, zero: 0, one: 100 } }) // prettier-ignore
    const own = (raw: number): Measures => measures({ capacity: { raw, own: 0.3, common: 0, log: true, zero: 0, one: 100 } }) // prettier-ignore
    const w = weigh({ capacity: 1 })
    expect(ranked([rule(1), rule(1.1)], w, 2000).options[1]?.best).toBe(1)
    expect(ranked([own(1), own(1.1)], w, 2000).options[1]?.best).toBeLessThan(0.7)
    // Under two rules each moves by its own.
    const under = (raw: number, of: string): Measures => measures({ capacity: { raw, own: 0, common: 0.3, rule: of, log: true, zero: 0, one: 100 } }) // prettier-ignore
    expect(ranked([under(1, 'mass'), under(1.1, 'floor')], w, 2000).options[1]?.best).toBeLessThan(0.7)
    expect(ranked([under(1, 'mass'), under(1.1, 'mass')], w, 2000).options[1]?.best).toBe(1)
    // One model in two options: what it is off by it is off by in both. Pairs that share one of two are between.
    const made = (raw: number, ...models: string[]): Measures => measures({ capacity: { raw, own: 0.3, common: 0, models, log: true, zero: 0, one: 100 } }) // prettier-ignore
    const best = (a: string[], b: string[]) =>
      ranked([made(1, ...a), made(1.1, ...b)], w, 20_000).options[1]?.best ?? 0
    expect(best(['a'], ['a'])).toBe(1)
    const [half, apart] = [best(['a', 'b'], ['a', 'c']), best(['a', 'b'], ['c', 'd'])]
    // ln 1.1 = 0.0953; σ = √ln 1.09 = 0.2936; Φ(0.0953/(0.2936 √2)) = Φ(0.2296) = 0.591, with one of two shared the
    // difference has half the variance: Φ(0.3246) = 0.627.
    expect(apart).toBeCloseTo(0.591, 1)
    expect(half - apart).toBeGreaterThan(0.02)
    // Log-normal of relative deviation r about its median: 95 % at exp(±1.96 √ln(1 + r²)) (closed form).
    const r = ranked([rule(10)], w, 40_000).options[0]
    expect((r?.high ?? 0) * 100).toBeCloseTo(10 * Math.exp(1.96 * Math.sqrt(Math.log(1.09))), 0)
    expect(((r?.low ?? 0) * 100) / (10 * Math.exp(-1.96 * Math.sqrt(Math.log(1.09))))).toBeCloseTo(1, 1)
    // Its own doubt likewise.
    const self = ranked([own(10)], w, 40_000).options[0]
    expect((self?.high ?? 0) * 100).toBeCloseTo(10 * Math.exp(1.96 * Math.sqrt(Math.log(1.09))), 0)
    // A straight shared doubt: ± 1.96 · 30 %.
    const straight = measures({ capacity: { raw: 10, own: 0, common: 0.3, log: false, zero: 0, one: 100 } })
    expect((ranked([straight], w, 40_000).options[0]?.high ?? 0) * 100).toBeCloseTo(15.9, 0)
  })
  test('it is seeded, tells how far it is, and refuses too few draws', () => {
    const set = [measures({ noise: normal(0, 1) }), measures({ noise: normal(0.5, 2), price: null })]
    const w = weigh({ noise: 2, price: 1 })
    expect(ranked(set, w, 3000, 7)).toEqual(ranked(set, w, 3000, 7))
    expect(ranked(set, w, 3000, 8)).not.toEqual(ranked(set, w, 3000, 7))
    const steps = [...rankDraws(set, w, 3000)]
    expect(steps.every((s, i) => s > (steps[i - 1] ?? 0) && s <= 1)).toBe(true)
    expect(steps.at(-1)).toBeCloseTo(1, 12)
    expect(() => ranked(set, w, 3)).toThrow('draws')
    expect(ranked([], w, 100).options).toEqual([])
  })
  test('the middle of the draws is the score where nothing is cut off', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.2, max: 0.8, noNaN: true }), { minLength: 2, maxLength: 6 }),
        (raws) => {
          const w = weigh({ noise: 1, price: 2 })
          const set = raws.map((r) => measures({ noise: { ...exact(r), own: 0.02 }, price: exact(1 - r) }))
          const r = ranked(set, w, 2000)
          set.forEach((m, i) => expect(r.options[i]?.middle).toBeCloseTo(scoreOf(m, w).score, 2))
          expect(r.options.reduce((sum, o) => sum + o.best, 0)).toBeCloseTo(1, 9)
        },
      ),
      { numRuns: 20 },
    )
  })
})

const rule = (more: Partial<AdviceRule> = {}): AdviceRule => ({ ...ADVICE_RULE, ...more })
describe('what it costs to own', () => {
  test('15 W all year are 131 kWh (common practice, no source, a worked figure of the trade)', () => {
    expect(yearlyEnergy(15)).toBeCloseTo(131.5, 1)
  })
  test('packs: renewed every 60 days, two from a pack; 6 renewals in the first year, 12 by the second', () => {
    // Days 60 … 360: 6 renewals, 3 packs; by day 730 twelve, 6 packs. Bought with its first fill: 7 halves, 13 halves.
    expect(packsByYear(use({}), 2, false)).toEqual([3, 6])
    expect(packsByYear(use({}), 2, true)).toEqual([4, 7])
    expect(packsByYear(use({ lifeDays: null }), 3, true)).toEqual([1, 1, 1])
    expect(packsByYear(use({ lifeDays: null }), 3, false)).toEqual([0, 0, 0])
    expect(packsByYear(use({ lifeDays: 365 }), 2, false)).toEqual([0, 1])
    expect(packsByYear(use({ pack: null }), 1, true)).toEqual([NaN])
    // Cartridges are whole pieces: of a pack that holds one and two thirds the rest serves nobody. Every 138 days in five
    // years 13 renewals, 13 packs; loose media of the same make do with 13 · 0.6 = 7.8, 8 packs.
    const piece = { volume: 0.6e-3, pack: 1e-3, lifeDays: 138 }
    expect(packsByYear(use({ ...piece, form: 'cartridge' }), 5, false)).toEqual([2, 5, 7, 10, 13])
    expect(packsByYear(use({ ...piece, form: 'rings' }), 5, false).at(-1)).toBe(8)
    // Two from a pack, and one that takes two packs.
    expect(packsByYear(use({ ...piece, volume: 0.5e-3, form: 'cartridge' }), 5, false).at(-1)).toBe(7)
    expect(packsByYear(use({ ...piece, volume: 1.2e-3, form: 'cartridge' }), 5, false).at(-1)).toBe(26)
  })
  test('year by year, worked by hand: 100 €, pads 18 €, an impeller in the fourth year, 131.5 kWh at 32 ct', () => {
    const fill = offered(1, 400, [
      use({}),
      use({ name: 'Rings', form: 'sintered', job: 'biological', lifeDays: null }),
    ])
    const c = canister('A', 1, {
      shipped: fill,
      spares: [{ name: 'Impeller', wears: 'impeller', price: { ...EUR(790), on: '2026-09-02' } }],
    })
    const cost = owningCost({ candidate: c, fill, buysFill: false, rule: rule({ years: 4 }) })
    // 15 W · 8765.82 h · 0.32 €/kWh = 42.08 €.
    expect(cost.years.map((y) => [y.price, y.media, y.spares, y.electricity])).toEqual([
      [10000, 1800, 0, 4208],
      [0, 1800, 0, 4208],
      [0, 1800, 0, 4208],
      [0, 1800, 790, 4208],
    ])
    expect(cost.total).toBe(10000 + 4 * 1800 + 790 + 4 * 4208)
    expect(cost).toMatchObject({ currency: 'EUR', apart: [], missing: [] })
    // A lamp of 25 € is renewed as each year but the last ends.
    const lit = { ...c, spares: [{ name: 'UV-C lamp', wears: 'lamp', price: EUR(2500) } as const] }
    const years = owningCost({ candidate: lit, fill, buysFill: false, rule: rule({ years: 3 }) }).years
    expect(years.map((y) => y.spares)).toEqual([0, 2500, 2500])
    expect(costWorking(cost, 'media')).toEqual([{ what: 'Fine pad', minor: 7200, on: null }])
    expect(costWorking(cost, 'spares')).toEqual([{ what: 'Impeller', minor: 790, on: '2026-09-02' }])
    // A year later the rings of a bought fill were paid once.
    const bought = owningCost({ candidate: c, fill, buysFill: true, rule: rule({ years: 1 }) })
    expect(bought.years[0]?.media).toBe(4 * 600 + 600)
  })
  test('cartridges as sold, or the frame kept and floss cut for it', () => {
    const fill = offered(0.2, 400, [use({ name: 'Cartridge', form: 'cartridge', volume: 0.0003, pack: 0.0003, price: EUR(590), lifeDays: 30 })]) // prettier-ignore
    const c = canister('A', 1, { shipped: fill })
    const ask = {
      candidate: c,
      fill,
      buysFill: false,
      floss: { name: 'Floss', pack: 0.003, price: EUR(400) },
    }
    // 12 cartridges of 5.90; or 12 · 0.3 L out of packs of 3 L: two packs of 4.00.
    expect(owningCost({ ...ask, rule: rule({ years: 1 }) }).years[0]?.cartridges).toBe(12 * 590)
    const cut = owningCost({ ...ask, rule: rule({ years: 1, cutFloss: true }) })
    expect(cut.years[0]?.cartridges).toBe(800)
    expect(cut.lines.find((l) => l.part === 'cartridges')?.what).toBe('Floss, cut for Cartridge')
  })
  test('two currencies are never added; what has no price is named; minutes count only where they have a price', () => {
    const fill = offered(1, 400, [
      use({ price: { minor: 700, currency: 'GBP' } }),
      use({ name: 'Floss', price: null }),
    ])
    const c = canister('A', 1, { shipped: fill, watts: null })
    const cost = owningCost({
      candidate: c,
      fill,
      buysFill: false,
      rule: rule({ years: 1, minuteMinor: 50 }),
    })
    expect(cost.apart).toEqual([{ minor: 2100, currency: 'GBP' }])
    // At a rate of the user’s own, 1.15 and 0.006, they come together: 21.00 GBP are 24.15, 2100 JPY 12.60.
    const at = (currency: string, rate: number) => {
      const priced = offered(1, 400, [use({ price: { minor: 700, currency } })])
      return owningCost({ candidate: c, fill: priced, buysFill: false, rule: rule({ years: 1, rates: { [currency]: { rate, on: '2026-11-01' } } }) }) // prettier-ignore
    }
    expect([at('GBP', 1.15).years[0]?.media, at('GBP', 1.15).apart]).toEqual([2415, []])
    expect(at('JPY', 0.006).years[0]?.media).toBe(1260)
    expect(cost.missing).toEqual(['Floss: price', 'Power in watts'])
    // An air pump nobody measured: 3.5 W all year are 30.7 kWh, and the line says that it is by a rule.
    const air = owningCost({ candidate: { ...c, watts: AIR_PUMP_POWER }, fill: null, buysFill: false, rule: rule({ years: 1, tariffMinor: 40 }) }) // prettier-ignore
    expect(air.lines.filter((l) => l.part === 'electricity')).toEqual([
      expect.objectContaining({ what: 'Electricity, at about 3.5 W (a rule)', minor: 1227 }),
    ])
    // 480 s every 32 days: 7.61 min a month; a year of them at 0.50.
    expect(serviceMinutes(c)?.value).toBeCloseTo((8 * 30.44) / 32, 9)
    expect(cost.years[0]?.minutes).toBe(Math.round(((8 * 30.44) / 32) * 12 * 50))
    expect(cost.total).toBe(10000 + Math.round(((8 * 30.44) / 32) * 12 * 50))
    const free = canister('A', 1, { price: EUR(0), service: null })
    const none = owningCost({ candidate: free, fill: null, buysFill: false, rule: rule({ years: 1, tariffMinor: null, minuteMinor: 5 }) }) // prettier-ignore
    expect(none).toMatchObject({
      total: 0,
      missing: ['Electricity price', 'Minutes of work (timed teardown)'],
    })
    expect(() => owningCost({ candidate: c, fill, buysFill: false, rule: rule({ years: 0 }) })).toThrow(
      'years',
    )
  })
})

const water = (v: number): Partial<TankRecord> => ({ water: figure('water', v, { dimension: 'volume' }) })

describe('the trade’s ladder (common practice, no source)', () => {
  const rung = (v: number, code: string) => ladderFor({ water: v, stock: classOf(code) }, ADVICE_RULE).id
  test('small and still, community, crowded, and from 473 L', () => {
    expect([rung(0.02, 'delicate'), rung(0.1, 'normal'), rung(0.2, 'heavy'), rung(0.473, 'normal'), rung(0.472, 'normal')]).toEqual(['still', 'community', 'crowded', 'large', 'community']) // prettier-ignore
    expect([isCrowded(classOf('heavy')), isCrowded(classOf('normal'))]).toEqual([true, false])
    const demanded = (v: number, code: string, more: Partial<AdviceRule> = {}) => twoDemanded({ water: v, stock: classOf(code) }, rule(more)) // prettier-ignore
    expect([demanded(0.1, 'normal'), demanded(0.1, 'heavy'), demanded(0.5, 'normal')]).toEqual([
      false,
      true,
      true,
    ])
    expect([demanded(0.1, 'heavy', { twoWhenCrowded: false }), demanded(9, 'normal', { twoFrom: null })]).toEqual([false, false]) // prettier-ignore
  })
})

describe('advice for a tank', () => {
  const ask = (
    candidates: readonly Candidate[],
    tank: Partial<TankRecord> = {},
    wishes: Partial<Wishes> = {},
    more: Partial<AdviceRule> = {},
  ) =>
    // prettier-ignore
    advise({ tank: { ...TANK, ...tank }, wishes: { ...NO_WISHES, ...wishes }, rule: rule(more) }, candidates)
  const stopsOf = (list: ReturnType<typeof ask>, name: string): readonly string[] =>
    list.find((a) => a.name === name)?.stops.map((s) => s.id) ?? ['not there']

  test('1.5 kg carries 150 L of such stock, 1.5 times 100 L; 0.5 kg is too little alone, and helps in a pair', () => {
    const list = ask([canister('Big', 1.5), canister('Small', 0.5)])
    const big = list.find((a) => a.name === 'Big')
    expect(big?.carries.value).toBeCloseTo(0.15, 9)
    expect(stopsOf(list, 'Small')).toEqual(['small'])
    const pair = list.find((a) => a.name === 'Big and Small' || a.name === 'Small and Big')
    expect(pair?.carries.value).toBeCloseTo(0.2, 9)
    expect(pair?.carries.uncertainty).toBeCloseTo(0.2 * 0.2, 9)
    expect(pair?.price).toEqual(EUR(20000))
    // Draws take standard uncertainties: half of what is shown for 95 %, own and the rule's together.
    const { capacity, noise } = big?.measures ?? {}
    expect(Math.hypot(capacity?.own ?? 0, capacity?.common ?? 0)).toBeCloseTo(
      (big?.carries.uncertainty ?? 0) / 0.15 / 2,
      9,
    )
    expect(capacity?.common).toBeCloseTo(0.2 / 2, 9)
    expect(noise?.own).toBeCloseTo((big?.noise?.uncertainty ?? 0) / 2, 12)
    expect(noise?.own).toBeGreaterThan(0)
    // Two sounds of 35 dB are 38.01; minutes add.
    expect(pair?.noise?.value).toBeCloseTo(35 + 10 * Math.log10(2), 9)
    expect(pair?.minutes?.value).toBeCloseTo((2 * 8 * 30.44) / 32, 9)
    const { reasons, needs } = explain(TANK, pair as NonNullable<typeof pair>, ADVICE_RULE.weights)
    expect(sentenceText(reasons[0] ?? [], 'metric')).toMatch(/Together they support 200 ± 40 L, 2\.0 ± 0\.4 times this tank\. While you clean the larger one, the other supports 50 ± 10 L\./) // prettier-ignore
    expect(reasons).toHaveLength(3)
    expect(needs).toEqual([])
    // The whole: those that will do come first.
    const stopped = list.findIndex((a) => a.stops.length > 0)
    expect(list.slice(stopped).every((a) => a.stops.length > 0)).toBe(true)
  })
  test('the hard no comes first: place, strength, inlet, size, redundancy, noise, work, budget', () => {
    const strong = canister('Strong', 2, {
      shipped: offered(2, 2000),
      outlets: [{ id: 'o', name: 'Nozzle', outlet: NOZZLE }],
    })
    // 2000 L/h from 16 mm: 2.763 m/s; at the glass 6 · 0.016 · 2.763 · 0.4/0.25 = 0.42 m of 0.8: past half.
    expect(stopsOf(ask([{ ...strong, kind: 'internal' }]), 'Strong')).toEqual(['strong'])
    // On hoses a bar can be put on it: 24 holes of 4 mm over 60 % of 80 cm, 1.84 m/s, a plane jet gentle from 21 cm.
    const [barred] = ask([strong])
    expect([barred?.name, barred?.stops]).toEqual(['Strong', []])
    expect(barred?.parts[0]?.best?.gentle.value).toBeCloseTo(0.2075, 2)
    expect(sentenceText(explain(TANK, barred as NonNullable<typeof barred>, ADVICE_RULE.weights).needs[0] ?? [], 'metric')).toBe('A spray bar, because its own outlet is too strong.') // prettier-ignore
    expect(stopsOf(ask([canister('A', 2)], {}, { stands: ['rim'] }), 'A')).toEqual(['place'])
    const fry = { stock: { ...classOf('normal'), openInlet: false } }
    expect(stopsOf(ask([canister('A', 2)], fry, {}, { addsSponge: false }), 'A')).toEqual(['inlet'])
    expect(stopsOf(ask([canister('A', 2)], fry), 'A')).toEqual([])
    const guarded = canister('A', 2, { inlet: { openArea: 0.01, sponge: true } })
    expect(stopsOf(ask([guarded], fry, {}, { addsSponge: false }), 'A')).toEqual([])
    expect(stopsOf(ask([canister('A', 2)], {}, { noise: 30 }), 'A')).toEqual(['noise'])
    // 35 ± 2 dB may well be 34.
    expect(stopsOf(ask([canister('A', 2)], {}, { noise: 34 }), 'A')).toEqual([])
    expect(stopsOf(ask([canister('A', 2)], {}, { minutes: 5 }), 'A')).toEqual(['work'])
    expect(stopsOf(ask([canister('A', 2)], {}, { budget: EUR(9999) }), 'A')).toEqual(['budget'])
    expect(stopsOf(ask([canister('A', 2)], {}, { budget: { minor: 1, currency: 'GBP' } }), 'A')).toEqual([])
    const crowded = ask([canister('A', 3)], { stock: classOf('heavy') })
    expect(stopsOf(crowded, 'A')).toEqual(['two'])
    expect(stopsOf(crowded, 'Two A')).toEqual([])
    const { body } = { body: { outerWidth: 0.4, outerDepth: 0.4, outerHeight: 0.5 } }
    const tall = canister('Tall', 2, {
      fitting: { kind: 'canister', ...body, heightWithHoses: 0.6, overhang: null, hookOpening: null, intakeReach: null, fullMass: figure('full', 24, { dimension: 'mass' }), water: null, hoses: [], parts: [], heater: null }, // prettier-ignore
    })
    expect(stopsOf(ask([tall], { cabinetHeight: 0.55 }), 'Tall')).toEqual(['fit'])
    const fits = ask([tall], { cabinetHeight: 0.7, cabinetWidth: 0.7, cabinetDepth: 0.5 })
    expect(stopsOf(fits, 'Tall')).toEqual([])
    // Two of 40 cm do not stand side by side in 70.
    expect(stopsOf(fits, 'Two Tall')).toEqual(['not there'])
    const said = explain(TANK, fits[0] as NonNullable<(typeof fits)[0]>, ADVICE_RULE.weights)
    expect(said.needs.map((n) => sentenceText(n, 'metric')).join()).toMatch(
      /Two people to lift it: 24 kg full\./,
    )
  })
  test('what it needs besides: better media with their price, a sponge, air', () => {
    const fill = offered(2, 400, [
      use({ name: 'Rings', volume: 0.0009, pack: 0.0004, price: EUR(600), lifeDays: null }),
    ])
    expect(sumOf(mediaItems(fill), ADVICE_RULE)).toEqual({ price: EUR(1800), missing: [] })
    const c = canister('A', 0.2, { proposed: fill })
    const [best] = ask([c], { stock: { ...classOf('normal'), openInlet: false } })
    expect([best?.name, best?.price, best?.media]).toEqual(['A, better media', EUR(11800), EUR(1800)])
    const needs = explain({ ...TANK, stock: { ...TANK.stock, openInlet: false } }, best as NonNullable<typeof best>, ADVICE_RULE.weights).needs.map((n) => sentenceText(n, 'metric')) // prettier-ignore
    expect(needs).toEqual([
      'Better media (rings, 18.00 EUR).',
      'A sponge on the intake, to keep shrimp and fry out.',
    ])
    const air = canister('Air', 2, { kind: 'air-sponge', watts: null })
    const [blown] = ask([air])
    expect(explain(TANK, blown as NonNullable<typeof blown>, ADVICE_RULE.weights).needs).toEqual([['', 'An air pump with a check valve', '.']]) // prettier-ignore
    // Its power belongs to the air pump: a year of it is not known, and counts half.
    expect([blown?.year, blown?.measures.running]).toEqual([null, null])
  })
  test('a model with only a label is ranked by its flow, marked, and never carries more than that says', () => {
    const judged = fillByLabel('canister', lph(600))
    const c = canister('Label', 1, { shipped: judged && { ...judged, order: [], uses: [] }, watts: null, noise: null, service: null, build: null }) // prettier-ignore
    const [a] = ask([c])
    expect(a?.blind).toBe(true)
    // 600 L/h less 45 %: 330 at one turnover an hour.
    expect((a?.carries.value ?? 0) * 1000).toBeCloseTo(330, 0)
    expect(sentenceText(explain(TANK, a as NonNullable<typeof a>, ADVICE_RULE.weights).reasons[0] ?? [], 'metric')).toMatch(/Not tested: its media are unknown\. By flow alone it supports at most [\d.,\s]+ L\./) // prettier-ignore
    expect(a?.measures.evidence).toMatchObject({ raw: 0.1 })
    expect([a?.measures.noise, a?.measures.service, a?.measures.build]).toEqual([null, null, null])
    // Nothing of it is paired.
    expect(ask([c, canister('A', 1)]).some((x) => x.choices.length > 1 && x.blind)).toBe(false)
  })
  test('none will do: the nearest is first; no models: nothing; equal ones stand by name; a price of 0 is a price', () => {
    const none = ask([canister('A', 0.3), canister('B', 0.6)], water(2))
    expect(none.map((a) => a.name)).toEqual(['B', 'A'])
    expect(ask([])).toEqual([])
    const equal = ask([canister('B', 2), canister('A', 2)]).filter((a) => a.choices.length === 1)
    expect(equal.map((a) => a.name)).toEqual(['A', 'B'])
    const [free] = ask([canister('Free', 2, { price: EUR(0) })])
    expect([free?.price, free?.measures.price]).toEqual([EUR(0), expect.objectContaining({ raw: 0 })])
    expect(free?.score.parts.find((p) => p.criterion === 'price')?.value).toBe(1)
    const [pounds] = ask([canister('P', 2, { price: { minor: 9000, currency: 'GBP' } })])
    expect([pounds?.price, pounds?.measures.price, pounds?.unpriced]).toEqual([null, null, ['P (priced in GBP, no rate)']]) // prettier-ignore
    // Nothing is mixed: what has no rate is named, and at a rate of the house it comes in.
    const two = [{ what: 'body', price: EUR(1000) }, { what: 'valve', price: { minor: 200, currency: 'GBP' } }] // prettier-ignore
    expect(unratedOf(['GBP', 'EUR', 'GBP'], ADVICE_RULE)).toEqual(['GBP'])
    expect(sumOf(two, ADVICE_RULE)).toEqual({ price: EUR(1000), missing: ['valve (priced in GBP, no rate)'] })
    const rated = { ...ADVICE_RULE, rates: { GBP: { rate: 1.15, on: '2026-11-01' } } }
    expect(sumOf(two, rated)).toEqual({ price: EUR(1230), missing: [] })
    expect([sayPrice(EUR(1790)), sayPrice({ minor: 500, currency: 'JPY' })]).toEqual(['17.90 EUR', '500 JPY']) // prettier-ignore
  })
  test('a slip says all that is taken home, with dates by the lives of its media', () => {
    const fill = {
      ...offered(2, 400, [use({ lifeDays: 60 })]),
      order: ['Coarse foam', 'Fine pad', 'Rings', 'Rings'],
    }
    const [a] = ask([canister('A', 2, { shipped: fill })])
    const told = { many: 'few', planted: true, weak: true } as const
    const asks = {
      weights: ADVICE_RULE.weights,
      dayAfter: (n: number) => `day ${String(n).padStart(3, '0')}`,
      opens: { by: 'flow', every: {} } as const,
    }
    const slip = slipOf(TANK, told, a as NonNullable<typeof a>, { ...asks, due: [null] }) // prettier-ignore
    expect(slip.map((p) => p.id)).toEqual(['tank', 'advice', 'order', 'start', 'dates', 'cautions'])
    const text = slipText(slip, 'metric')
    expect(text).toMatch(/T: 100.L; .*, few for its size, planted, some swim weakly\./)
    expect(text).toContain('Coarse foam, then Fine pad, then Rings.')
    expect(text.match(/day \d+: .*/g)).toEqual([
      'day 032: open and rinse A.',
      'day 060: replace fine pad in A.',
      'day 064: open and rinse A.',
      'day 096: open and rinse A.',
    ])
    expect(text).toContain('The tank')
    // By its forecast where there is one: as often as that, within the year, and said to be so.
    const forecast = slipText(slipOf(TANK, told, a as NonNullable<typeof a>, { ...asks, due: [140.4] }), 'metric') // prettier-ignore
    expect(forecast.match(/day \d+: open .*/g)).toEqual([
      'day 140: open and rinse A.',
      'day 280: open and rinse A.',
    ])
    // The tank's feed and the five constants of pace put together by hand: a factor of 3.
    expect(forecast).toMatch(/The tank/)
    // A house that goes by the date: its own interval, and what the forecast says beside it.
    const dated = { ...asks, opens: { by: 'date', every: { open: 45 } } } as const
    const byDate = slipText(slipOf(TANK, told, a as NonNullable<typeof a>, { ...dated, due: [140.4] }), 'metric') // prettier-ignore
    expect(byDate.match(/day \d+: open .*/g)?.[0]).toBe('day 045: open and rinse A.')
    expect(byDate).toMatch(/The tank/)
    expect(text).toMatch(/Unplug filter and heater before hands go in/)
    expect(text).toContain('Follow local electrical codes')
    expect(slipText(slip, 'us')).toContain('26.4 US gal')
  })
  test('what they have: keep, re-fill, add, replace, each with what it carries and costs', () => {
    const rings = use({ name: 'Rings', volume: 0.0008, pack: 0.0004, price: EUR(500), lifeDays: null })
    const old = canister('Old', 0.6, { proposed: offered(1.2, 400, [rings]) })
    const other = canister('Other', 0.5, { price: EUR(4000) })
    const list = ask([old, other, canister('Big', 3, { price: EUR(20000) })])
    const present = [{ candidate: old, fill: old.shipped as OfferedFill, refilled: false }]
    const now = together(TANK, [{ name: 'Old', fill: present[0]?.fill as OfferedFill }])
    const steps = presentSteps(TANK, present, now, list)
    expect(steps.map((s) => [s.id, s.enough, s.cost])).toEqual([
      ['keep', false, null],
      ['refill', true, EUR(1000)],
      ['add', true, EUR(4000)],
      ['replace', true, expect.anything()],
    ])
    expect(sentenceText(steps[0]?.sentence ?? [], 'metric')).toMatch(
      /Too small: supports 60 ± 12 L at this stocking; the tank is 100 L\./,
    )
    expect(sentenceText(steps[1]?.sentence ?? [], 'metric')).toMatch(
      /Old with better media supports 120 ± 24 L, for 10\.00 EUR\./,
    )
    expect(sentenceText(steps[2]?.sentence ?? [], 'metric')).toMatch(
      /Other beside it: together they support 110 ± 22 L, for 40\.00 EUR\./,
    )
    // Of which only the flow is known nothing is added up.
    const unknown = presentSteps(TANK, [], together(TANK, [{ name: 'X', fill: { ...present[0]?.fill as OfferedFill, mass: null, films: null } }]), list) // prettier-ignore
    expect(unknown.map((s) => s.id)).toEqual(['keep', 'replace'])
    expect(sentenceText(unknown[0]?.sentence ?? [], 'metric')).toContain('Its media are unknown.')
    expect(presentSteps(TANK, present, now, []).map((s) => s.id)).toEqual(['keep', 'refill'])
  })
  test('the ladder beside the ranking: it agrees, or the difference is said in numbers', () => {
    const say = (list: ReturnType<typeof ask>): string =>
      sentenceText(ladderWords(ladderFor({ water: 0.1, stock: TANK.stock }, ADVICE_RULE), list), 'metric')
    const rim = (mass: number) => canister('Rim', mass, { kind: 'hang-on-back' })
    expect(say(ask([rim(3)]).filter((a) => a.choices.length === 1))).toMatch(
      /Usual shop choice for a community tank: a hang-on-back, ideally two\. Our ranking agrees\./,
    )
    const singles = ask([rim(1.1), canister('Big', 3)]).filter((a) => a.choices.length === 1)
    expect(say(singles)).toMatch(
      /That would be Rim, rank 2 here\. It supports 110 ± 22 L, rank 1 supports 300 ± 60 L\./,
    )
    expect(say(ask([rim(0.2), canister('Big', 3)]).filter((a) => a.choices.length === 1))).toMatch(
      /None of your filters fits; closest is Rim\. Too small: supports 20 ± 4(?:\.0)? L at this stocking; the tank is 100 L\./,
    )
    expect(say(ask([canister('Big', 3)]))).toMatch(/You have none of those\./)
    expect(say(ask([rim(0.1)]))).toMatch(
      /Usual shop choice for a community tank: a hang-on-back, ideally two\./,
    )
  })
  test('a tank told in taps: as tanks are made; few and many in proportion, plants and weak swimmers', () => {
    const t = quickTank(0.128, TANK.stock)
    // 2 h³ = 128 L: 40 cm high, 80 long.
    expect([t.length, t.width, t.waterLevel, t.surface]).toEqual(
      [0.8, 0.4, 0.4, 0.32].map((v) => expect.closeTo(v, 9)),
    )
    // By its sizes: 60 · 30 · 36 cm are 64.8 L.
    const box = quickTank({ shape: 'box', length: 0.6, width: 0.3, height: 0.36 }, TANK.stock)
    expect([box.water.value, box.length, box.width, box.surface]).toEqual([0.0648, 0.6, 0.3, 0.18].map((v) => expect.closeTo(v, 9))) // prettier-ignore
    // Plane mensuration: a disc of 50 cm is 0.19635 m², with 40 cm of water 78.54 L.
    const round = quickTank({ shape: 'cylinder', diameter: 0.5, height: 0.4 }, TANK.stock)
    expect([round.water.value, round.length, round.width, round.surface]).toEqual([0.07854, 0.5, 0.5, 0.19635].map((v) => expect.closeTo(v, 5))) // prettier-ignore
    expect(() =>
      quickTank({ shape: 'bow-front', length: 0.8, width: 0.4, bowWidth: 0.3, height: 0.4 }, TANK.stock),
    ).toThrow(/bowWidth/)
    const s = stockAsAnswered(TANK.stock, { many: 'many', planted: true, weak: true })
    expect([s.litresPerKilogram, s.feedPerVolume / TANK.stock.feedPerVolume]).toEqual([
      expect.closeTo(66.7, 1),
      1.5,
    ])
    expect([s.plantShare >= 0.3, s.strongestCurrent]).toEqual([true, 0.08])
    expect(stockAsAnswered(TANK.stock, AS_ITS_CLASS)).toEqual(TANK.stock)
    expect(stockAsAnswered(classOf('light'), { many: 'usual', planted: false, weak: false }).plantShare).toBe(
      0,
    )
  })
  test('a house that goes by oversizing has its claim: 300 L at three times are 100 L, alone, in a pair and on the tank', () => {
    const stock = {
      ...TANK.stock,
      oversizing: 3,
      rule: { order: ['oversizing'], bind: [], turnoverFloor: 1 },
    } as const
    const c = canister('A', 1, { claimedMax: 0.3 })
    const list = ask([c], { stock })
    expect(list.find((a) => a.name === 'A')?.carries.value).toBeCloseTo(0.1, 9)
    const on = together({ ...TANK, stock }, [{ name: 'A', fill: c.shipped as OfferedFill, claimedMax: 0.3 }])
    expect(on?.each[0]?.carries.value).toBeCloseTo(0.1, 9)
    // The house lets it lead, so it is no stopgap for what nobody noted.
    expect([list[0]?.blind, on?.each[0]?.blind]).toEqual([false, false])
  })
  test('what is not known is no pass: it stands after what is known to fit, with what is missing named', () => {
    const asks = { ...NO_WISHES, budget: EUR(20000), noise: 40, minutes: 60 }
    const quiet = figure('noise', 35, { dimension: 'sound', uncertainty: 1 })
    const known = canister('Known', 1.3, { noise: quiet })
    const silent = canister('Silent', 4, { noise: null })
    const dear = canister('Unpriced', 4, { noise: quiet, price: null })
    const list = ask([dear, silent, known], {}, asks)
    const single = list.filter((a) => a.choices.length === 1)
    expect(single.map((a) => [a.name, standingOf(a), a.unknown])).toEqual([
      ['Known', 'will', []],
      ['Silent', 'unknown', ['noise']],
      ['Unpriced', 'unknown', ['price']],
    ])
    expect(single.map(unknownWords)).toEqual([null, 'unknown: noise', 'unknown: price'])
    // Nothing noted of its media: by its flow alone, and never among what will do.
    const bare = { ...offered(1, 600), mass: null, films: null }
    const [blind] = ask([canister('Bare', 1, { shipped: bare })])
    expect([blind?.unknown, blind && standingOf(blind)]).toEqual([['capacity'], 'unknown'])
  })
  test('the price is that to run it: what it needs besides is in it, or is named and the sum is “from”', () => {
    const air = canister('Air', 2, { kind: 'air-sponge', watts: null, price: EUR(1500) })
    const at = (extras: AdviceRule['extras']) => ask([air], {}, NO_WISHES, { ...ADVICE_RULE, extras })[0]
    expect([at({})?.price, at({})?.unpriced]).toEqual([EUR(1500), ['air pump', 'check valve']])
    expect(priceWords(at({}) as Advice)).toBe('from 15.00 EUR; air pump and check valve extra')
    const all = at({ 'air-pump': 1200, 'check-valve': 200 })
    expect([all?.price, all?.unpriced, priceWords(all as Advice)]).toEqual([EUR(2900), [], '29.00 EUR'])
  })
  test('where two are wanted, one that carries it is alone enough, and not refused; three are tried where two will not do', () => {
    const crowded = { stock: classOf('heavy') }
    const [one] = ask([canister('Big', 4)], crowded).filter((a) => a.choices.length === 1)
    expect([one && standingOf(one), sentenceText(one?.stops[0]?.sentence ?? [], 'metric')]).toEqual([
      'alone',
      'House rule: this tank needs two filters, so one always runs.',
    ])
    // 100 L of turtles: filters rated 300 to 400 L in sum (common practice). Three of 120 L are 360, two are too few.
    const turtles = { stock: classOf('turtle') }
    const small = canister('Small', 1, { claimedMax: 0.12 })
    const three = ask([small], turtles)[0]
    expect([three?.name, three?.choices.length]).toEqual(['Three Small', 3])
    expect(three?.carries.value).toBeCloseTo(0.36 / 3.5, 9)
    const rated = canister('Rated', 1, { claimedMax: 0.2 })
    expect(ask([rated], turtles)[0]?.name).toBe('Two Rated')
  })
  test('the order is total: whatever the models, it does not hang on how they came', () => {
    const list = ask([0.3, 0.9, 1.4, 2.2, 3].map((m, i) => canister(`M${i}`, m)))
    expect(
      [...list]
        .reverse()
        .sort(compareAdvice)
        .map((a) => a.id),
    ).toEqual(list.map((a) => a.id))
  })
})
