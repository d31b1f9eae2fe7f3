import { ADVICE_RULE, compareRows, forTheDifference, type Candidate, type CompareBy } from '.'
import { sentenceText, type Figure } from '../figures'
import { canister, classOf, EUR, FACTS, figure, offered, use } from './candidates.fixture'

// Every row of a comparison takes its own fact of a model: each here has a number that nothing else has.

const by: CompareBy = {
  stock: classOf('normal'),
  rule: { ...ADVICE_RULE, years: 2 },
  refilled: false,
  shelf: new Map(),
}
const f = (id: string, value: number, dimension: Figure['dimension'] = 'ratio') =>
  figure(id, value, { dimension })
const reach = (n: number) => ({ moves: f('moves', n), seconds: f('seconds', n + 1) })
const shipped = { ...offered(1, 400), meets: f('meets', 0.91) }
const proposed = { ...offered(2, 300), meets: f('meets', 0.92) }
const full = canister('Full', 1, {
  shipped,
  proposed,
  noise: f('noise', 31),
  watts: f('watts', 11),
  fitting: { fullMass: f('mass', 12) } as Candidate['fitting'],
  build: { parts: 9, faults: ['a hairline crack', 'a soft clip'] },
  offers: [
    { kind: 'sale', price: EUR(8100) },
    { kind: 'sale', price: EUR(8200) },
    { kind: 'second-hand', price: EUR(4100) },
  ] as unknown as Candidate['offers'],
  facts: {
    ...FACTS,
    printed: {
      ratedFlow: f('rated', 1001),
      maxHead: f('max', 1.1),
      mediaVolume: f('claimed', 0.0031),
      tankMin: f('min', 0.05),
      tankMax: f('max', 0.15),
    },
    bare: f('bare', 801),
    shutOff: f('shut', 0.9),
    media: { shipped: f('ms', 0.0021), proposed: f('mp', 0.0022) },
    preFilter: reach(3),
    toMedia: reach(7),
    omits: ['floss', 'a key'],
    guarantee: '3 years',
  } as unknown as Candidate['facts'],
})
const empty = canister('Empty', 1, {
  shipped: null,
  noise: null,
  watts: null,
  build: null,
  price: null,
})
const show = (x: Figure): string => `${Math.round(x.value * 1000)} L`
const rows = (models: readonly Candidate[], more: Partial<CompareBy> = {}) =>
  new Map(compareRows(models, { ...by, ...more }, show).map((r) => [r.id, r]))

test.each([
  ['rated', 'Rated flow', 1001],
  ['bare', 'Measured flow (empty, no hoses)', 801],
  ['max-head', 'Maximum head', 1.1],
  ['shut-off', 'Measured maximum head', 0.9],
  ['claimed-media', 'Media volume on the label', 0.0031],
  ['carries', 'Supports with supplied media (normal)', 0.1],
  ['carries-proposed', 'Supports with recommended media', 0.2],
  ['flow', 'Installed flow, supplied media', 400 / 3.6e6],
  ['flow-proposed', 'Installed flow, recommended media', 300 / 3.6e6],
  ['meets', 'Reaches the bio media', 0.91],
  ['litres', 'Supplied bio media', 0.0021],
  ['litres-proposed', 'Recommended bio media', 0.0022],
  ['kilograms', 'Supplied media, as sintered-media weight', 1],
  ['kilograms-proposed', 'Recommended media, as sintered-media weight', 2],
  ['noise', 'Sound level', 31],
  ['watts', 'Power', 11],
  ['pre-moves', 'Hand movements to the pre-filter', 3],
  ['pre-seconds', 'Access time to the pre-filter', 4],
  ['media-moves', 'Hand movements to the media', 7],
  ['media-seconds', 'Access time to the media', 8],
  ['weight', 'Weight ready to run', 12],
])('%s: %s', (id, label, value) => {
  const row = rows([full, empty]).get(id)
  expect(row?.label).toBe(label)
  expect(row?.cells[0]?.figure?.value).toBeCloseTo(value, 9)
  expect(row?.cells[1]).toEqual({ figure: null, price: null, words: null, inherited: null, apart: null })
})

test('words: tanks claimed, faults, what the box omits, the guarantee', () => {
  const of = (c: Candidate, id: string): string | null | undefined => rows([c, full]).get(id)?.cells[0]?.words
  expect(['claimed-tanks', 'faults', 'omits', 'guarantee'].map((id) => of(full, id))).toEqual([
    '50 L to 150 L',
    'a hairline crack; a soft clip',
    'floss, a key',
    '3 years',
  ])
  const sound = { ...full, build: { parts: 9, faults: [] }, facts: { ...full.facts, omits: [], printed: { ...full.facts.printed, tankMin: null } } } // prettier-ignore
  expect(['claimed-tanks', 'faults', 'omits'].map((id) => of(sound, id))).toEqual(['? to 150 L', 'none found', 'nothing']) // prettier-ignore
  const open = { ...full, facts: { ...full.facts, printed: { ...full.facts.printed, tankMax: null } } }
  expect(of(open, 'claimed-tanks')).toBe('50 L to ?')
})

test('money: the list price, the last offer of each kind, and years by their number', () => {
  const of = (id: string, more: Partial<CompareBy> = {}) => rows([full], more).get(id)
  expect(['price', 'sale', 'second-hand'].map((id) => of(id)?.cells[0]?.price?.minor)).toEqual([10000, 8200, 4100]) // prettier-ignore
  expect(of('owning')?.label).toBe('Cost over 2 years')
  expect(of('owning', { rule: { ...by.rule, years: 1 } })?.label).toBe('Cost over 1 year')
  // With better media: the body and a pack of 6.00 for 0.2 L of 0.4.
  const refilled = { ...full, proposed: { ...offered(2, 300), uses: [use({})] } } as Candidate
  const media = (c: Candidate) => rows([c]).get('refilled')?.cells[0]
  expect(media(refilled)?.price?.minor).toBe(10600)
  const free = { ...full, proposed: { ...offered(2, 300), uses: [use({}), use({ name: 'Rings', price: null })] } } as Candidate // prettier-ignore
  expect(media(free)?.words).toBe('from 106.00 EUR, without Rings')
  expect(rows([{ ...full, proposed: null }]).has('refilled')).toBe(false)
  expect(rows([{ ...full, price: null }]).has('owning')).toBe(false)
})

test('a row that no model knows is left out', () => {
  expect([...rows([empty]).keys()]).not.toContain('noise')
  expect(
    rows([empty, full])
      .get('noise')
      ?.cells.map((c) => c.figure?.value ?? null),
  ).toEqual([null, 31])
})

describe('what belongs to the body is carried over from kin', () => {
  const young = { ...empty, id: 'young', name: 'Young', kin: { id: 'Full', name: 'Full' } } as unknown as Candidate // prettier-ignore
  const shelf = new Map([['Full', full]])
  test.each(['pre-moves', 'pre-seconds', 'media-moves', 'media-seconds', 'weight', 'faults'])('%s', (id) => {
    const cell = rows([full, young], { shelf }).get(id)?.cells[1]
    expect(cell?.inherited).toBe('Full')
    expect(cell?.figure ?? cell?.words).toEqual(rows([full]).get(id)?.cells[0]?.figure ?? 'a hairline crack; a soft clip') // prettier-ignore
  })
  test('its sound and its flow are not', () => {
    const found = rows([full, young], { shelf })
    for (const id of ['noise', 'flow', 'guarantee'])
      expect(found.get(id)?.cells[1]).toMatchObject({ figure: null, words: null, inherited: null })
  })
  test('its own comes first, and nothing where the kin is not on the shelf', () => {
    const own = { ...young, fitting: { fullMass: f('mass', 9) } } as unknown as Candidate
    expect(rows([full, own], { shelf }).get('weight')?.cells[1]).toMatchObject({ inherited: null, figure: { value: 9 } }) // prettier-ignore
    expect(rows([full, young]).get('weight')?.cells[1]).toMatchObject({ inherited: null, figure: null })
  })
})

describe('for the difference', () => {
  const price = (minor: number, currency = 'EUR') => ({ minor, currency })
  const two = (a: object, b: object): readonly Candidate[] => [
    canister('A', 1, { noise: figure('noise', 35, { dimension: 'sound' }), ...a }),
    canister('B', 1, { noise: figure('noise', 35, { dimension: 'sound' }), ...b }),
  ]
  const said = (models: readonly Candidate[]): string | null => {
    const s = forTheDifference(models, compareRows(models, by, show), 1)
    return s && sentenceText(s, 'metric')
  }
  const louder = { noise: figure('noise', 38, { dimension: 'sound' }) }
  test('dearer, cheaper, the same; what is more and what is less', () => {
    expect(said(two({}, { price: price(12500), ...louder }))).toBe('B costs 25.00 EUR more than A. But: 3 dB louder.') // prettier-ignore
    expect(said(two(louder, { price: price(7500) }))).toBe('B costs 25.00 EUR less than A. You get: 3 dB quieter.') // prettier-ignore
    expect(said(two({}, { watts: figure('power', 20, { dimension: 'power' }), ...louder }))).toBe('B costs the same as A. But: 3 dB louder, 5 W more power used.') // prettier-ignore
    expect(said(two({}, {}))).toBe('B costs the same as A. No difference beyond the uncertainty.')
  })
  test('nothing where one has no price, or another currency; nor of the first against itself', () => {
    expect([said(two({ price: null }, {})), said(two({}, { price: null })), said(two({}, { price: price(10000, 'USD') }))]).toEqual([null, null, null]) // prettier-ignore
    const models = two({}, {})
    expect(forTheDifference(models, compareRows(models, by, show), 0)).toBeNull()
  })
  test('a number is doubted by what is each one’s own: one meter is taken out (GUM 5.2)', () => {
    // 2 dB by one meter (± 1.96 dB) and ± 0.6 dB of its own each: √2 · 0.6 = 0.85.
    const by_ = (value: number) => ({ noise: figure('noise', value, { dimension: 'sound', uncertainty: Math.hypot(1.96, 0.6), shared: [{ what: 'meter', half: 1.96 }] }) }) // prettier-ignore
    expect(said(two(by_(35), by_(37)))).toContain('2.0 ± 0.8 dB louder')
  })
})
