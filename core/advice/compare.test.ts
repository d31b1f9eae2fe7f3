import { sentenceText, type Figure } from '../figures'
import {
  ADVICE_RULE,
  apart,
  compareRows,
  doubtApart,
  forTheDifference,
  type Candidate,
  type CompareBy,
} from '.'
import { canister, classOf, EUR, figure, lph, offered, use } from './candidates.fixture'

const by = (more: Partial<CompareBy> = {}): CompareBy => ({
  stock: classOf('normal'),
  rule: { ...ADVICE_RULE, years: 2 },
  refilled: false,
  shelf: new Map(),
  ...more,
})
const rowsOf = (models: readonly Candidate[], more: Partial<CompareBy> = {}) =>
  compareRows(models, by(more), (f) => `${Math.round(f.value * 1000)} L`)
const row = (rows: ReturnType<typeof rowsOf>, id: string) => rows.find((r) => r.id === id)

test('two numbers differ where they are further apart than √(U_a² + U_b²) (GUM)', () => {
  const f = (value: number, uncertainty?: number) =>
    figure('f', value, uncertainty === undefined ? {} : { uncertainty })
  // √(3² + 4²) = 5.
  expect([apart(f(15, 3), f(10, 4)), apart(f(15.01, 3), f(10, 4)), apart(f(4.9, 3), f(10, 4))]).toEqual([
    'none',
    'more',
    'less',
  ])
  expect([apart(f(2), f(1)), apart(f(1), f(1)), apart(f(1), f(2, 3))]).toEqual(['more', 'none', 'none'])
})

test('what both are wrong together by does not keep them apart: one meter, one vessel, one rule (GUM 5.2)', () => {
  const f = (value: number, uncertainty: number, ...shared: Figure['shared'] & object) =>
    figure('f', value, { uncertainty, shared })
  const meter = { what: 'sound meter', half: 1.96 }
  // U² = 1.96² + 0.6²: 2.05 dB each; by one meter √(2 · 0.6²) = 0.85 dB of difference, by two 2.9.
  const u = Math.hypot(1.96, 0.6)
  expect(doubtApart(f(37, u, meter), f(35, u, meter))).toBeCloseTo(0.8485, 3)
  expect(doubtApart(f(37, u, meter), f(35, u, { ...meter, what: 'another' }))).toBeCloseTo(Math.SQRT2 * u, 9)
  expect([apart(f(37, u, meter), f(35, u, meter)), apart(f(37, u), f(35, u))]).toEqual(['more', 'none'])
  // A rule of ± 20 % in both: 100 and 150 L are 50 apart and doubted by 10 for it, not by √(20² + 30²).
  const rule = { what: 'litres per kilogram', relative: 0.2 }
  expect(doubtApart(f(150, 30, rule), f(100, 20, rule))).toBeCloseTo(10, 9)
})

test('carries, noise and price against the first: 150 ± 30 and 300 ± 60 L differ, 35 ± 2 and 37 ± 2 dB do not', () => {
  const a = canister('A', 1.5)
  const b = canister('B', 3, {
    price: EUR(15000),
    noise: figure('noise', 37, { uncertainty: 2, dimension: 'sound' }),
  })
  const rows = rowsOf([a, b])
  expect(row(rows, 'carries')?.cells.map((c) => [c.figure?.value, c.apart])).toEqual([
    [expect.closeTo(0.15, 9), null],
    [expect.closeTo(0.3, 9), 'more'],
  ])
  expect(row(rows, 'noise')?.cells[1]?.apart).toBe('none')
  expect(row(rows, 'price')?.cells.map((c) => [c.price, c.apart])).toEqual([
    [EUR(10000), null],
    [EUR(15000), 'more'],
  ])
  // Two years of 15 W at 32 ct: 84.16; with the price 184.16.
  expect(row(rows, 'owning')?.cells[0]?.price).toEqual(EUR(10000 + 2 * 4208))
  // Rows that nobody knows anything of are left out.
  expect([row(rows, 'bare'), row(rows, 'sale')]).toEqual([undefined, undefined])
  const words = forTheDifference([a, b], rows, 1)
  // 150 L more; both go by one rule, wrong by the same: 0.2 · 300 − 0.2 · 150 = 30.
  expect(sentenceText(words ?? [], 'metric')).toMatch(
    /B costs 50\.00 EUR more than A\. You get: 150 ± 30 L more supported\./,
  )
  expect(forTheDifference([a, b], rows, 0)).toBeNull()
  const same = rowsOf([a, canister('C', 1.5)])
  expect(sentenceText(forTheDifference([a, canister('C', 1.5)], same, 1) ?? [], 'metric')).toBe(
    'C costs the same as A. No difference beyond the uncertainty.',
  )
})

test('another currency is not held against the first; a sale and a second-hand price stand beside the list price', () => {
  const pounds = { minor: 8000, currency: 'GBP' }
  const a = canister('A', 1.5, { offers: [{ kind: 'sale', price: EUR(7900), on: '2026-11-02' }] })
  const b = canister('B', 3, { price: pounds, offers: [{ kind: 'second-hand', price: EUR(3000), on: null }] })
  const rows = rowsOf([a, b])
  expect(row(rows, 'price')?.cells[1]).toMatchObject({ price: pounds, apart: null })
  expect(row(rows, 'sale')?.cells.map((c) => c.price)).toEqual([EUR(7900), null])
  expect(row(rows, 'second-hand')?.cells.map((c) => c.price)).toEqual([null, EUR(3000)])
  expect(forTheDifference([a, b], rows, 1)).toBeNull()
  // What was paid takes the place of the list price in what it costs to own.
  const paid = new Map([['A', EUR(7900)]])
  expect(row(rowsOf([a, b], { prices: paid }), 'owning')?.cells[0]?.price).toEqual(EUR(7900 + 2 * 4208))
})

test('better media are bought with it: price and cost of owning take them in', () => {
  const rings = use({ name: 'Rings', volume: 0.0008, pack: 0.0004, price: EUR(500), lifeDays: null })
  const a = canister('A', 0.2, { proposed: offered(1.2, 380, [rings]) })
  const rows = rowsOf([a], { refilled: true })
  expect(row(rows, 'refilled')?.cells[0]?.price).toEqual(EUR(11000))
  expect(row(rows, 'owning')?.cells[0]?.price).toEqual(EUR(11000 + 2 * 4208))
  expect(row(rowsOf([a]), 'owning')?.cells[0]?.price).toEqual(EUR(10000 + 2 * 4208))
  expect(row(rows, 'carries-proposed')?.cells[0]?.figure?.value).toBeCloseTo(0.12, 9)
})

test('what belongs to the body is carried over from a sibling, and marked; flow never is', () => {
  const timed = { moves: figure('moves', 6), seconds: figure('seconds', 40, { dimension: 'time' }) }
  const base = canister('Base', 1.5, { build: { parts: 9, faults: ['Latch: whitened'] } })
  const first = {
    ...base,
    facts: { ...base.facts, toMedia: timed, bare: figure('bare', lph(700), { dimension: 'flow' }) },
  }
  const strong = canister('Strong', 1.5, { build: null, kin: { id: 'Base', as: 'sibling' } })
  const rows = rowsOf([strong, first], { shelf: new Map([['Base', first]]) })
  expect(row(rows, 'media-seconds')?.cells.map((c) => [c.figure?.value, c.inherited])).toEqual([
    [40, 'Base'],
    [40, null],
  ])
  expect(row(rows, 'faults')?.cells.map((c) => [c.words, c.inherited])).toEqual([
    ['Latch: whitened', 'Base'],
    ['Latch: whitened', null],
  ])
  expect(row(rows, 'bare')?.cells[0]).toMatchObject({ figure: null, inherited: null })
})

test('tanks claimed and words stand as they are', () => {
  const a = canister('A', 1)
  const told = {
    ...a,
    facts: {
      ...a.facts,
      omits: [],
      guarantee: '3 years',
      printed: { ...a.facts.printed, tankMax: figure('max', 0.3) },
    },
  }
  const rows = rowsOf([told, a])
  expect(row(rows, 'claimed-tanks')?.cells.map((c) => c.words)).toEqual(['? to 300 L', null])
  expect(row(rows, 'omits')?.cells[0]?.words).toBe('nothing')
  expect(row(rows, 'guarantee')?.cells.map((c) => [c.words, c.apart])).toEqual([
    ['3 years', null],
    [null, null],
  ])
})
