import { sentenceText } from '../figures'
import { AIR_PUMP_POWER, explain, NO_WISHES, priceLine, priceWords, unknownWords, type Advice } from '.'
import { canister, classOf, EUR, figure, offered, TANK, use } from './candidates.fixture'

// What the counter says, from options made by hand: no sum of theirs is worked out here.

type Part = Advice['parts'][number]
const outlet = (name: string, share: number): Part['best'] =>
  ({ id: name, name, share: figure('share', share), level: 'gentle', outlet: {} }) as unknown as Part['best']
const part = (model: string, litres: number, best: Part['best'], more: object = {}): Part =>
  ({
    choice: { candidate: canister(model, 1), fill: offered(1, 400), refilled: false },
    carried: {
      figure: figure(`c-${model}`, litres / 1000, { dimension: 'volume', uncertainty: litres / 4000, provenance: 'rule' }),
      leading: 'media-mass',
    },
    best,
    first: best,
    ...more,
  }) as unknown as Part // prettier-ignore
const exact = (raw: number) => ({ raw, own: 0, common: 0, log: false, zero: 0, one: 1 })
const EVEN = { capacity: 1, gentleness: 1, service: 1, noise: 1, running: 1, price: 1, build: 1, evidence: 1 }
const advice = (more: Partial<Record<keyof Advice, unknown>> = {}): Advice => {
  const parts = (more.parts ?? [part('Alder', 200, outlet('Spray bar', 0))]) as Part[]
  return {
    parts,
    choices: parts.map((p) => p.choice),
    carries: figure('carries', 0.2, { dimension: 'volume', uncertainty: 0.05, provenance: 'rule' }),
    blind: false,
    unknown: [],
    measures: { service: exact(0.9), noise: exact(0.7), price: exact(0.6), evidence: exact(0.8) },
    minutes: null,
    noise: null,
    price: null,
    media: null,
    unpriced: [],
    ...more,
  } as unknown as Advice
}
const reasons = (a: Advice, weights = EVEN): readonly string[] =>
  explain(TANK, a, weights).reasons.map((s) => sentenceText(s, 'metric'))
const needs = (a: Advice, tank = TANK): readonly string[] =>
  explain(tank, a, EVEN).needs.map((s) => sentenceText(s, 'metric'))

describe('money', () => {
  test('a price is said whole, or “from” with what has none', () => {
    expect(priceWords({ price: EUR(12900), unpriced: [] })).toBe('129.00 EUR')
    expect(priceLine({ price: EUR(12900), unpriced: [] })).toBe('129.00 EUR in all.')
    const some = { price: EUR(12900), unpriced: ['floss', 'spray bar'] }
    expect(priceWords(some)).toBe('from 129.00 EUR; floss and spray bar extra')
    expect(priceLine(some)).toBe('From 129.00 EUR; floss and spray bar extra.')
  })
  test('without any price nothing is said', () => {
    expect([priceWords({ price: null, unpriced: ['floss'] }), priceLine({ price: null, unpriced: [] })]).toEqual([null, null]) // prettier-ignore
  })
})

test('what nobody knows is named, and nothing where all is known', () => {
  expect(unknownWords({ unknown: [] })).toBeNull()
  expect(unknownWords({ unknown: ['noise'] })).toMatch(/unknown: noise/)
})

describe('what it carries', () => {
  test('of one: litres by its school, and times the tank with the same relative doubt', () => {
    // The tank holds 100 L: 200 ± 50 L are 2.0 ± 0.5 times it.
    const [first, second] = reasons(advice())
    expect(first).toBe('Supports 200 ± 50 L, 2.0 ± 0.5 times this tank. Limit: media.')
    expect(second).toBe('Gentle everywhere (spray bar).')
    expect(reasons(advice({ carries: figure('c', 0.2, { dimension: 'volume' }) }))[0]).toBe('Supports 200 L, 2 times this tank. Limit: media.') // prettier-ignore
  })
  test('known by its flow alone: at most, without a ±', () => {
    expect(reasons(advice({ blind: true }))[0]).toBe(
      'Not tested: its media are unknown. By flow alone it supports at most 200 L.',
    )
  })
  test('of two: their sum, and what the other carries with the larger one open, whichever stands first', () => {
    const two = (a: number, b: number): Advice =>
      advice({ parts: [part('Alder', a, outlet('Nozzle', 0)), part('Birch', b, outlet('Nozzle', 0))] })
    const said =
      'Together they support 200 ± 50 L, 2.0 ± 0.5 times this tank. While you clean the larger one, the other supports 80 ± 20 L.'
    expect([reasons(two(120, 80))[0], reasons(two(80, 120))[0]]).toEqual([said, said])
  })
  test('of three: with the largest open the others together', () => {
    const three = advice({
      parts: [120, 80, 40].map((v, i) => part(`M${i}`, v, outlet('Nozzle', 0))),
    })
    // 80 + 40 L, and 20 + 10 of doubt.
    expect(reasons(three)[0]).toBe(
      'Together they support 200 ± 50 L, 2.0 ± 0.5 times this tank. While you clean the larger one, the others support 120 ± 30 L.',
    )
  })
})

describe('how it runs', () => {
  test('of several outlets the one that is too fast over most of the length is named', () => {
    const of = (...shares: number[]): string | undefined =>
      reasons(advice({ parts: shares.map((s, i) => part(`M${i}`, 100, outlet(`Way ${i}`, s))) }))[1]
    expect(of(0.1, 0.3, 0.2)).toBe('Gentle: strong current only in the first 0.3 of the tank (way 1).')
    expect(of(0.3, 0.3)).toBe('Gentle: strong current only in the first 0.3 of the tank (way 0).')
    expect(of(0)).toBe('Gentle everywhere (way 0).')
  })
  test('where no outlet is known nothing is said of it', () => {
    const a = advice({ parts: [part('Alder', 200, null)], minutes: figure('m', 15) }) // prettier-ignore
    expect(reasons(a)[1]).toBe('About 15 min of work a month.')
  })
})

describe('what else speaks for it', () => {
  const full = (measures: Partial<Record<string, ReturnType<typeof exact> | null>>): Advice =>
    advice({
      parts: [part('Alder', 200, null)],
      minutes: figure('m', 15),
      noise: figure('n', 35, { dimension: 'sound' }),
      price: EUR(10000),
      measures: { service: exact(0.5), noise: exact(0.5), price: exact(0.5), evidence: exact(0.5), ...measures }, // prettier-ignore
    })
  const LINES = {
    service: 'About 15 min of work a month.',
    noise: 'Measured at 35 dB.',
    price: '100.00 EUR in all.',
    evidence: 'Installed flow, measured here: 400 ± 16 L/h.',
  }
  test.each(Object.entries(LINES))('%s leads where it brings most over half', (criterion, line) => {
    expect(reasons(full({ [criterion]: exact(0.9) }))[1]).toBe(line)
  })
  test('by the weight of the house: a tenth over half that weighs ten is more than three tenths that weigh one', () => {
    const a = full({ noise: exact(0.8), price: exact(0.6) })
    expect(reasons(a).slice(1)).toEqual([LINES.noise, LINES.price])
    expect(reasons(a, { ...EVEN, price: 10 }).slice(1)).toEqual([LINES.price, LINES.noise])
  })
  test('what nobody measured counts half, and is not said', () => {
    const a = full({ noise: null, service: exact(0.4), price: exact(0.3), evidence: exact(0.2) })
    expect(reasons(a).slice(1)).toEqual([LINES.noise, LINES.service])
    expect(reasons({ ...a, noise: null, minutes: null, price: null }).slice(1)).toEqual([LINES.evidence])
  })
  test('a flow that was not measured as it stands is none; of two both are said', () => {
    const not = { ...offered(1, 400), basis: 'hoses' } as never
    const one = part('Alder', 200, null)
    const two = advice({ parts: [one, part('Birch', 100, null)] })
    expect(reasons(two).at(-1)).toBe('Installed flow, measured here: 400 ± 16 L/h and 400 ± 16 L/h.')
    const mixed = advice({ parts: [one, { ...one, choice: { ...one.choice, fill: not } }] })
    expect(reasons(mixed).some((s) => s.startsWith('Its flow'))).toBe(false)
  })
  test('three reasons at most', () => {
    const all = { ...full({}), parts: [part('Alder', 200, outlet('Nozzle', 0))] } as Advice
    expect(reasons(all)).toHaveLength(3)
  })
})

describe('what it needs besides', () => {
  const nano = { ...TANK, stock: classOf('delicate') }
  const with_ = (candidate: object, more: object = {}, extra: object = {}): Advice =>
    advice({
      parts: [part('Alder', 200, outlet('Nozzle', 0), { choice: { candidate: canister('Alder', 1, candidate), fill: offered(1, 400, [use({}), use({ name: 'Rings' }), use({})]), refilled: false, ...more }, ...extra })],
    }) // prettier-ignore
  test('nothing where it comes with all', () => {
    expect(needs(advice())).toEqual([])
  })
  test('better media by name, each once, with their price where it is one filter', () => {
    const a = with_({}, { refilled: true })
    expect(needs(a)).toEqual(['Better media (fine pad and rings).'])
    expect(needs({ ...a, media: EUR(2450) })).toEqual(['Better media (fine pad and rings, 24.50 EUR).'])
    const two = { ...a, choices: [...a.choices, ...a.choices], media: EUR(2450) }
    expect(needs(two)).toEqual(['Better media (fine pad and rings).'])
  })
  test('a sponge over an open intake where shrimp live, not where one is over it', () => {
    expect(needs(with_({}), nano)).toEqual(['A sponge on the intake, to keep shrimp and fry out.']) // prettier-ignore
    expect(needs(with_({ inlet: { openArea: 1e-3, sponge: true } }), nano)).toEqual([])
  })
  test('air for what air drives, plumbing for what water falls to', () => {
    expect(needs(with_({ kind: 'air-sponge' }))).toEqual(['An air pump with a check valve.'])
    expect(needs(with_({ kind: 'sump' }))).toEqual(['Pipes and hoses between tank and sump.'])
  })
  test('its outlet turned, where another way of using it is gentler', () => {
    const turned = { best: outlet('Nozzle, at the glass', 0.1), first: outlet('Nozzle', 0.6) }
    expect(needs(with_({}, {}, turned))).toEqual(['Another outlet setting: nozzle, at the glass.'])
    expect(needs(with_({}, {}, { ...turned, first: null }))).toEqual([])
    expect(needs(with_({}, {}, { ...turned, best: null }))).toEqual([])
  })
  test('over 20 kg a second pair of hands; at 20 not', () => {
    const full = (kg: number) => ({ fitting: { fullMass: figure('w', kg, { dimension: 'mass' }) } })
    expect(needs(with_(full(24)))).toEqual(['Two people to lift it: 24 kg full.'])
    expect(needs(with_(full(20)))).toEqual([])
  })
  test('of a pair each by its name, and two of one model once', () => {
    const [alder] = with_({ kind: 'sump' }).parts as [Part]
    const birch = part('Birch', 100, outlet('Nozzle', 0), {
      choice: { candidate: canister('Birch', 1, { kind: 'air-sponge' }), fill: offered(2, 300), refilled: false },
    }) // prettier-ignore
    expect(needs(advice({ parts: [alder, birch] }))).toEqual([
      'Alder: pipes and hoses between tank and sump.',
      'Birch: an air pump with a check valve.',
    ])
    expect(needs(advice({ parts: [alder, alder] }))).toEqual([
      'Alder: pipes and hoses between tank and sump.',
    ])
    // Each need of one in a sentence of its own.
    const both = with_({ kind: 'sump', fitting: { fullMass: figure('w', 30, { dimension: 'mass' }) } })
    expect(needs(both)).toEqual(['Pipes and hoses between tank and sump.', 'Two people to lift it: 30 kg full.']) // prettier-ignore
  })
})

test('an air pump that nobody measured takes 2 to 5 W (common practice), and a customer wants nothing unless they say so', () => {
  expect([AIR_PUMP_POWER.value - (AIR_PUMP_POWER.uncertainty ?? 0), AIR_PUMP_POWER.value + (AIR_PUMP_POWER.uncertainty ?? 0)]).toEqual([2, 5]) // prettier-ignore
  expect(Object.values(NO_WISHES).every((w) => w === null || w === false)).toBe(true)
})
