import { sentenceText } from '../figures'
import { ADVICE_RULE, advise, NO_WISHES, type Advice, type Candidate, type Wishes } from '.'
import { canister, classOf, EUR, figure, offered, TANK } from './candidates.fixture'

// One kilogram of good media carries 100 L, sure to a fifth (common practice); the tank holds 100 L. Litres, minutes
// and levels of pairs are put together here by hand.

const ask = (models: readonly Candidate[], wishes: Partial<Wishes> = {}, more: Partial<typeof TANK> = {}, rule = ADVICE_RULE) =>
  advise({ tank: { ...TANK, ...more }, wishes: { ...NO_WISHES, ...wishes }, rule }, models) // prettier-ignore
const names = (list: readonly Advice[]): readonly string[] => list.map((a) => a.name)
const stops = (a: Advice | undefined): readonly string[] => a?.stops.map((s) => sentenceText(s.sentence, 'metric')) ?? [] // prettier-ignore
const one = (list: readonly Advice[], name: string): Advice | undefined => list.find((a) => a.name === name)
const body = (outerWidth: number, outerDepth: number): Candidate['fitting'] => ({
  kind: 'canister',
  outerWidth,
  outerDepth,
  outerHeight: 0.1,
  heightWithHoses: null,
  overhang: null,
  hookOpening: null,
  intakeReach: null,
  fullMass: null,
  water: null,
  hoses: [],
  parts: [],
  heater: null,
})

describe('how options are named', () => {
  test('one, refilled, two of one, two, three', () => {
    expect(names(ask([canister('A', 2)]))).toEqual(['A', 'Two A'])
    const filled = canister('A', 0.1, { proposed: offered(2, 400) })
    expect(names(ask([filled]))[0]).toBe('A, better media')
    // 60 L each carry 100 only as two, 40 L each only as three.
    expect(names(ask([canister('A', 0.6), canister('B', 0.6)]).filter((a) => !a.stops.length)).toSorted()).toEqual(['A and B', 'Two A', 'Two B']) // prettier-ignore
    const three = ask([canister('A', 0.36), canister('B', 0.36), canister('C', 0.36)])
    expect(names(three.filter((a) => !a.stops.length))).toContain('A, B and C')
    expect(names(three)).not.toContain('A and B')
  })
  test('threes are tried only where neither one nor two will do', () => {
    const two = ask([canister('A', 0.6), canister('B', 0.6)])
    expect(two.every((a) => a.choices.length < 3)).toBe(true)
  })
})

describe('what goes beside what', () => {
  const pair = (a: Candidate, b: Candidate, more: Partial<typeof TANK> = {}) =>
    names(ask([a, b], {}, more)).includes(`${a.name} and ${b.name}`) ||
    names(ask([a, b], {}, more)).includes(`${b.name} and ${a.name}`)
  const half = (id: string, more: Partial<Candidate> = {}) => canister(id, 0.6, more)
  test('two sumps do not stand under one tank; a sump and a canister do', () => {
    const sump = { kind: 'sump' } as const
    expect(pair(half('A', sump), half('B', sump))).toBe(false)
    expect(pair(half('A', sump), half('B'))).toBe(true)
  })
  test('two bodies on hoses fit side by side into the cabinet, each by its narrower side', () => {
    const [a, b] = [half('A', { fitting: body(0.3, 0.2) }), half('B', { fitting: body(0.15, 0.4) })]
    const room = (cabinetWidth: number | null) =>
      pair(a, b, { cabinetWidth, cabinetDepth: 1, cabinetHeight: 1 })
    // 0.2 + 0.15 m.
    expect([room(0.35), room(0.34), room(null)]).toEqual([true, false, true])
    // One that hangs on the rim takes no room there.
    const rim = half('B', { kind: 'hang-on-back', fitting: body(0.15, 0.4) })
    expect(pair(a, rim, { cabinetWidth: 0.25, cabinetDepth: 1, cabinetHeight: 1 })).toBe(true)
  })
  test('a model is taken with one of its fills', () => {
    const list = ask([canister('A', 0.6, { proposed: offered(0.7, 400) })])
    expect(names(list).some((n) => /A and A|refilled and A|A and A, refilled/.test(n))).toBe(false)
    expect(names(list)).toEqual(expect.arrayContaining(['Two A', 'Two A, better media']))
  })
})

describe('what a pair comes to', () => {
  const [a, b] = [
    canister('A', 0.6, { noise: figure('n', 35, { dimension: 'sound', uncertainty: 1 }) }),
    canister('B', 0.7, { noise: figure('n', 35, { dimension: 'sound', uncertainty: 2 }), service: figure('s', 960, { dimension: 'time' }) }),
  ] // prettier-ignore
  const found = (models: readonly Candidate[]) => ask(models).find((x) => x.choices.length === 2 && new Set(x.choices.map((c) => c.candidate.id)).size === 2) // prettier-ignore
  test('litres add with their bands, two alike are 3 dB louder, minutes add', () => {
    const p = found([a, b])
    expect(p?.carries.value).toBeCloseTo(0.13, 9)
    expect(p?.carries.uncertainty).toBeCloseTo(0.2 * 0.13, 9)
    // 35 + 10 lg 2 = 38.01; the wider doubt.
    expect(p?.noise).toMatchObject({ value: expect.closeTo(38.0103, 3), uncertainty: 2 })
    expect(p?.noise?.working?.map((w) => [w.symbol, w.value])).toEqual([
      ['L_1', 35],
      ['L_2', 35],
    ])
    // 480 and 960 s every 32 days: (8 + 16) · 30.44/32 min a month, ± 40 %.
    expect(p?.minutes?.value).toBeCloseTo((24 * 30.44) / 32, 9)
    expect(p?.minutes?.uncertainty).toBeCloseTo(0.4 * ((24 * 30.44) / 32), 9)
    expect(p?.minutes?.working?.map((w) => w.symbol)).toEqual(['t_1', 't_2'])
  })
  test('where one of two is not known there is no sum', () => {
    const p = found([a, { ...b, noise: null, service: null }])
    expect([p?.noise, p?.minutes]).toEqual([null, null])
  })
})

describe('what was asked', () => {
  const A = canister('A', 2)
  test('louder and more work than asked; within its doubt a level passes', () => {
    const alone = (wishes: Partial<Wishes>, more: Partial<Candidate> = {}) => one(ask([{ ...A, ...more }], wishes), 'A') // prettier-ignore
    // 35 ± 2 dB: at 33 it may be as quiet as asked.
    expect(stops(alone({ noise: 33 }))).toEqual([])
    expect(stops(alone({ noise: 32.9 }))).toEqual(['Louder than you want: 35.0 ± 2.0 dB.'])
    // 8 min every 32 days are 7.61 a month.
    expect(stops(alone({ minutes: 7.7 }))).toEqual([])
    expect(stops(alone({ minutes: 7.5 }))[0]).toBe('More work than you want: 8 ± 3 min a month.')
    expect(alone({ noise: 30 }, { noise: null })?.unknown).toEqual(['noise'])
    expect(alone({ minutes: 5 }, { service: null })?.unknown).toEqual(['work'])
    expect(alone({}, { noise: null, service: null })?.unknown).toEqual([])
  })
  test('a budget: over it by a cent; without a price, or in a currency without a rate, nobody knows', () => {
    const of = (budget: Wishes['budget'], more: Partial<Candidate> = {}) => one(ask([{ ...A, ...more }], { budget }), 'A') // prettier-ignore
    expect(stops(of(EUR(10000)))).toEqual([])
    expect(stops(of(EUR(9999)))).toEqual(['Over budget.'])
    expect(of(EUR(10000), { price: null })?.unknown).toEqual(['price'])
    expect(of({ minor: 20000, currency: 'SEK' })?.unknown).toEqual(['price'])
    expect(of(null, { price: null })?.unknown).toEqual([])
  })
  test('a size only where something was measured round the tank', () => {
    const of = (more: Partial<typeof TANK>, fitting: Candidate['fitting'] = null) => one(ask([{ ...A, fitting }], {}, more), 'A')?.unknown // prettier-ignore
    expect(of({})).toEqual([])
    for (const side of [
      'cabinetWidth',
      'cabinetDepth',
      'cabinetHeight',
      'doorWidth',
      'wallGap',
      'rimThickness',
    ])
      expect([side, of({ [side]: 2 })]).toEqual([side, ['size']])
    expect(of({ cabinetWidth: 2 }, body(0.2, 0.2))).toEqual([])
  })
  test('where it stands, in words', () => {
    expect(stops(one(ask([A], { stands: ['rim'] }), 'A'))).toEqual([
      'It stands beside or under the tank, on hoses.',
    ])
    expect(stops(one(ask([A], { stands: ['outside', 'rim'] }), 'A'))).toEqual([])
  })
  test('an open inlet is a hard no with shrimp only where the house adds no sponge', () => {
    const shrimp = { stock: classOf('delicate') }
    const of = (addsSponge: boolean, inlet: Candidate['inlet'] = null) => stops(ask([canister('A', 9, { inlet })], {}, shrimp, { ...ADVICE_RULE, addsSponge }).find((x) => x.choices.length === 1)).filter((s) => /intake/.test(s)) // prettier-ignore
    expect(of(false)).toEqual(['Open intake: shrimp and fry are drawn in.'])
    expect(of(true)).toEqual([])
    expect(of(false, { openArea: 1e-3, sponge: true })).toEqual([])
  })
})

describe('their order', () => {
  test('those that will do by score, then unknown, then what the house wants two of, then the rest by how hard', () => {
    const good = canister('Good', 2, { noise: figure('n', 25, { dimension: 'sound' }) })
    const dull = canister('Dull', 2, { noise: figure('n', 44, { dimension: 'sound' }) })
    const mute = canister('Mute', 2, { noise: null })
    const tiny = canister('Tiny', 0.1)
    const small = canister('Small', 0.5)
    const list = ask([tiny, mute, dull, small, good], { noise: 60 }).filter((a) => a.choices.length === 1)
    // Of what is too small the larger comes nearer.
    expect(names(list)).toEqual(['Good', 'Dull', 'Mute', 'Small', 'Tiny'])
  })
  test('alike in all, by their names', () => {
    expect(names(ask([canister('B', 2), canister('A', 2)]).filter((a) => a.choices.length === 1))).toEqual(['A', 'B']) // prettier-ignore
  })
  test('too small is said with both numbers; it is not while its doubt reaches the tank', () => {
    // 80 ± 16 L against 100; 84 ± 16.8 reaches it.
    expect(stops(one(ask([canister('A', 0.8)]), 'A'))).toEqual(['Too small: supports 80 ± 16 L at this stocking; the tank is 100 L.']) // prettier-ignore
    expect(stops(one(ask([canister('A', 0.84)]), 'A'))).toEqual([])
  })
  test('a house that wants two says so, and whether one would carry it alone', () => {
    const rule = { ...ADVICE_RULE, twoFrom: 0.1 }
    const of = (mass: number) =>
      stops(ask([canister('A', mass)], {}, {}, rule).find((x) => x.choices.length === 1))
    const wants = 'House rule: this tank needs two filters, so one always runs.'
    expect(of(2)).toEqual([wants])
    expect(of(0.9)).toEqual([wants])
  })
})
