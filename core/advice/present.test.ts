import { sentenceText } from '../figures'
import { ADVICE_RULE, ladderFor, ladderWords, presentSteps, type Advice, type Candidate } from '.'
import { canister, classOf, EUR, figure, offered, TANK, use } from './candidates.fixture'

// Options made by hand; the tank holds 100 L.
const litres = (v: number, doubt = 0) =>
  figure(`v${v}`, v / 1000, { dimension: 'volume', provenance: 'rule', ...(doubt && { uncertainty: doubt / 1000 }) }) // prettier-ignore
const option = (name: string, carried: number, more: Partial<Record<keyof Advice, unknown>> = {}, kind: Candidate['kind'] = 'canister'): Advice =>
  ({
    id: name,
    name,
    choices: [{ candidate: canister(name, 1, { kind }), fill: offered(1, 400), refilled: false }],
    carries: litres(carried),
    blind: false,
    stops: [],
    unknown: [],
    price: EUR(10000),
    unpriced: [],
    ...more,
  }) as unknown as Advice // prettier-ignore
const small = { stops: [{ id: 'small', sentence: ['Too small.'] }] }
const now = (carried: number | null) => ({ carries: carried === null ? null : litres(carried) }) as never
const said = (steps: ReturnType<typeof presentSteps>) =>
  steps.map((s) => [s.id, s.enough, s.cost?.minor ?? null, sentenceText(s.sentence, 'metric')])
const running = (more: Partial<Candidate>) => ({ candidate: canister('Old', 0.5, more), fill: offered(0.5, 400), refilled: false }) // prettier-ignore

describe('keeping what runs', () => {
  test('what it carries beside what the tank holds; enough from the very litre on', () => {
    expect(said(presentSteps(TANK, [], now(80), []))).toEqual([
      ['keep', false, null, 'Too small: supports 80 L at this stocking; the tank is 100 L.'],
    ])
    expect(presentSteps(TANK, [], now(100), [])[0]?.enough).toBe(true)
  })
  test('where nobody noted its media nothing sure is said, and it is not enough', () => {
    const unknown = 'Its media are unknown. Flow alone does not tell what it supports.'
    expect(said(presentSteps(TANK, [], now(null), []))).toEqual([['keep', false, null, unknown]])
    expect(said(presentSteps(TANK, [], null, []))).toEqual([['keep', false, null, unknown]])
  })
})

describe('re-filling', () => {
  // By mass of good media, 100 L a kilogram, sure to a fifth: 2 kg carry 200 L, half a kilogram beside it 50; bands add.
  const proposed = offered(2, 400, [use({ name: 'Rings', price: EUR(1200), pack: 0.001, volume: 0.0015 })])
  test('its better media, those of the rest as they are, and the packs', () => {
    const one = presentSteps(TANK, [running({ proposed })], now(50), [])
    expect(said(one)[1]).toEqual(['refill', true, 2400, expect.stringMatching(/Old with better media supports 200 ± 40 L, for 24\.00 EUR\./)]) // prettier-ignore
    const other = { ...running({ id: 'other', name: 'Other' }), refilled: false }
    expect(presentSteps(TANK, [running({ proposed }), other], now(50), [])[1]).toMatchObject({ enough: true })
    const [, refilled] = presentSteps(TANK, [running({ proposed }), other], now(50), [])
    expect(sentenceText(refilled?.sentence ?? [], 'metric')).toMatch(
      /Old with better media supports 250 ± 50 L, for [\d.,\s]+ EUR\./,
    )
  })
  test('two are named together; what has no price makes the sum “from”', () => {
    const free = offered(2, 400, [use({ name: 'Rings', price: null }), use({ name: 'Pad', price: EUR(600) })])
    const second = running({ id: 'b', name: 'Second', proposed: free })
    const [, step] = presentSteps(TANK, [running({ proposed }), second], now(50), [])
    expect(sentenceText(step?.sentence ?? [], 'metric')).toMatch(/Old and Second with better media supports 400 ± 80 L, from 30\.00 EUR\./) // prettier-ignore
  })
  test('one that has them already, or for which none are proposed, is not re-filled', () => {
    expect(presentSteps(TANK, [{ ...running({ proposed }), refilled: true }], now(50), [])).toHaveLength(1)
    expect(presentSteps(TANK, [running({})], now(50), [])).toHaveLength(1)
  })
})

describe('adding one', () => {
  const list = [
    option('Dear', 90, { price: EUR(20000) }),
    option('Cheap', 60, { ...small, price: EUR(5000) }),
    option('Cheaper, too small', 40, { ...small, price: EUR(1000) }),
    option('Cheaper, too strong', 90, { stops: [{ id: 'strong', sentence: [] }], price: EUR(900) }),
    option('Cheaper, unknown', 90, { blind: true, price: EUR(800) }),
  ]
  test('the cheapest that with what is there carries the tank, though it alone would not', () => {
    const [, add] = said(presentSteps(TANK, [], now(40), list))
    expect(add).toEqual(['add', true, 5000, 'Cheap beside it: together they support 100 L, for 50.00 EUR.'])
  })
  test('a pair is not added, and nothing where nobody knows what is there', () => {
    const pair = option('Pair', 90)
    const two = { ...pair, choices: [...pair.choices, ...pair.choices], price: EUR(100) } as Advice
    expect(said(presentSteps(TANK, [], now(40), [two, ...list])).find(([id]) => id === 'add')?.[2]).toBe(5000) // prettier-ignore
    expect(presentSteps(TANK, [], now(null), list).some((s) => s.id === 'add')).toBe(false)
  })
  test('one without a price only where none has one; a sum in part is “from”', () => {
    const none = option('No price', 90, { price: null })
    const add = (all: readonly Advice[]) => said(presentSteps(TANK, [], now(40), all)).find(([id]) => id === 'add')?.[3] // prettier-ignore
    expect(add([none])).toBe('No price beside it: together they support 130 L.')
    expect(add([none, ...list])).toMatch(/^Cheap beside it/)
    expect(add([option('Part', 90, { unpriced: ['floss'] })])).toBe('Part beside it: together they support 130 L, from 100.00 EUR; floss extra.') // prettier-ignore
  })
})

test('replacing: by the first of the list, where it will do', () => {
  const first = option('First', 150)
  const [, , replace] = said(presentSteps(TANK, [], now(40), [first]))
  expect(replace).toEqual(['replace', true, 10000, 'First supports 150 L, for 100.00 EUR. Run it beside the old one for some weeks, or move mature media over.']) // prettier-ignore
  const stopped = [option('First', 150, { stops: [{ id: 'strong', sentence: [] }] })]
  expect(presentSteps(TANK, [], now(40), stopped).some((s) => s.id === 'replace')).toBe(false)
  expect(presentSteps(TANK, [], now(40), []).map((s) => s.id)).toEqual(['keep'])
})

describe('the trade’s ladder beside the ranking', () => {
  const words = (rung: ReturnType<typeof ladderFor>, list: readonly Advice[]): string =>
    sentenceText(ladderWords(rung, list), 'metric').replace(
      /^The trade’s ladder \(common practice\): [^.]*\. /,
      '',
    )
  const community = ladderFor({ water: 0.1, stock: classOf('normal') }, ADVICE_RULE)
  const large = ladderFor({ water: 0.6, stock: classOf('normal') }, ADVICE_RULE)
  const stopped = { stops: [{ id: 'strong', sentence: ['Its jet is too strong.'] }] }
  const hang = (name: string, carried: number, more = {}) => option(name, carried, more, 'hang-on-back')
  test('they agree, by kind and by how many', () => {
    expect(community.id).toBe('community')
    expect(words(community, [hang('Gale', 120)])).toBe(
      'Usual shop choice for a community tank: a hang-on-back, ideally two. Our ranking agrees.',
    )
    const one = option('One', 700)
    expect(words(large, [one])).toBe(
      'Usual shop choice for a large tank: a sump and a canister. You have none of those.',
    )
    const pair = { ...one, choices: [...one.choices, ...one.choices] } as Advice
    expect(words(large, [pair])).toBe(
      'Usual shop choice for a large tank: a sump and a canister. Our ranking agrees.',
    )
    // Every one of a pair has to be of the rung.
    const mixed = { ...one, choices: [...one.choices, ...hang('Gale', 1).choices] } as Advice
    expect(words(large, [mixed])).toBe(
      'Usual shop choice for a large tank: a sump and a canister. You have none of those.',
    )
  })
  test.each([2, 3, 11])('the one of the ladder stands in place %i', (at) => {
    const list = Array.from({ length: at - 1 }, (_, i) => option(`C${i}`, 200))
    expect(words(community, [...list, hang('Gale', 120)])).toBe(`Usual shop choice for a community tank: a hang-on-back, ideally two. That would be Gale, rank ${at} here. It supports 120 L, rank 1 supports 200 L.`) // prettier-ignore
  })
  test('one that will not do is named with its reason; none at all, and nothing that will do', () => {
    expect(words(community, [option('C', 200), hang('Gale', 120, stopped)])).toBe('Usual shop choice for a community tank: a hang-on-back, ideally two. None of your filters fits; closest is Gale. Its jet is too strong.') // prettier-ignore
    expect(words(community, [option('C', 200)])).toBe(
      'Usual shop choice for a community tank: a hang-on-back, ideally two. You have none of those.',
    )
    expect(words(community, [option('C', 200, stopped)])).toBe(
      'Usual shop choice for a community tank: a hang-on-back, ideally two. None of your filters fits.',
    )
    expect(words(community, [])).toBe(
      'Usual shop choice for a community tank: a hang-on-back, ideally two. None of your filters fits.',
    )
  })
})
