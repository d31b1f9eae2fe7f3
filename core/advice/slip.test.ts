import { sentenceText } from '../figures'
import { ADVICE_RULE, slipOf, type Advice, type Choice } from '.'
import { canister, EUR, figure, offered, TANK, use } from './candidates.fixture'

// A slip from options made by hand: what stands on it, and in which order.

const choice = (name: string, uses: readonly string[], more: Partial<Choice> = {}): Choice => ({
  candidate: canister(name, 1),
  fill: offered(1, 400, uses.map((u) => use({ name: u, lifeDays: null }))),
  refilled: false,
  ...more,
}) // prettier-ignore
const option = (choices: readonly Choice[], more: Partial<Record<keyof Advice, unknown>> = {}): Advice =>
  ({
    id: 'x',
    name: choices.map((c) => c.candidate.name).join(' and '),
    choices,
    parts: choices.map((c) => ({ choice: c, carried: { figure: figure('c', 0.2, { dimension: 'volume' }), leading: 'media-mass' }, best: null, first: null })),
    carries: figure('carries', 0.2, { dimension: 'volume' }),
    blind: false,
    stops: [],
    unknown: [],
    measures: {},
    minutes: null,
    noise: null,
    price: EUR(10000),
    media: null,
    unpriced: [],
    ...more,
  }) as unknown as Advice // prettier-ignore
const told = { many: 'usual', planted: null, weak: false } as const
const asks = {
  weights: ADVICE_RULE.weights,
  dayAfter: (days: number) => `day ${String(days).padStart(3, '0')}`,
  due: [null, null] as readonly (number | null)[],
  opens: undefined,
}
const part = (a: Advice, id: string, how: Partial<typeof asks> = {}, answers: object = told): readonly string[] =>
  (slipOf(TANK, answers as typeof told, a, { ...asks, ...how }).find((p) => p.id === id)?.lines ?? []).map((l) => sentenceText(l, 'metric')) // prettier-ignore

test('the tank: its class, and what was told beyond the usual', () => {
  const a = option([choice('A', [])])
  expect(part(a, 'tank')).toEqual(['T: 100 L; normal.'])
  expect(part(a, 'tank', {}, { many: 'many', planted: true, weak: true })).toEqual(['T: 100 L; normal, many for its size, planted, some swim weakly.']) // prettier-ignore
})

test('the advice: price or none, what is not known, and what speaks against it', () => {
  const one = choice('A', [])
  expect(part(option([one]), 'advice')[0]).toBe('100.00 EUR in all.')
  expect(part(option([one], { price: null }), 'advice')[0]).toBe('Price not known.')
  expect(part(option([one], { unknown: ['noise'] }), 'advice')[1]).toMatch(/Unknown: noise\./)
  const small = { stops: [{ id: 'small', sentence: ['It carries too little.'] }] }
  expect(part(option([one], small), 'advice').at(-1)).toBe('But: It carries too little.')
  // It will do, and the house wants a second one beside it: that is no “but”.
  const two = { stops: [{ id: 'two', sentence: ['This house wants two.'] }] }
  expect(part(option([one], two), 'advice').at(-1)).toBe('This house wants two.')
})

test('media in the order of the water; one that lies twice in a row once; of two filters each by its name', () => {
  const a = choice('A', ['Coarse foam', 'Rings', 'Rings', 'Coarse foam'])
  const b = choice('B', ['Floss'])
  expect(part(option([a]), 'order')).toEqual(['Coarse foam, then Rings, then Coarse foam.'])
  expect(part(option([a, b]), 'order')).toEqual([
    'A: Coarse foam, then Rings, then Coarse foam.',
    'B: Floss.',
  ])
  // Two of one model have one order; one without layers none.
  expect(part(option([a, a]), 'order')).toEqual(['Coarse foam, then Rings, then Coarse foam.'])
  expect(part(option([a, choice('C', [])]), 'order')).toHaveLength(1)
  expect(part(option([choice('C', [])]), 'order')).toEqual([])
})

describe('dates', () => {
  // A canister is opened every 32 days by the usual interval; three services, and renewals within a year.
  const lives = (days: number | null) =>
    choice('A', [], { fill: offered(1, 400, [use({ name: 'Fine Pad', lifeDays: days })]) })
  test('three services, renewals within a year in the order of their days', () => {
    expect(part(option([lives(40)]), 'dates')).toEqual([
      'day 032: open and rinse A.',
      'day 040: replace fine pad in A.',
      'day 064: open and rinse A.',
      'day 096: open and rinse A.',
      'Maintenance dates at the usual interval for its kind (common practice, no source).',
    ])
    expect(part(option([lives(365)]), 'dates')).toContain('day 365: replace fine pad in A.')
    expect(part(option([lives(366)]), 'dates').some((l) => l.includes('replace'))).toBe(false)
    expect(part(option([lives(null)]), 'dates').some((l) => l.includes('replace'))).toBe(false)
  })
  test('the last service of a year is on its last day', () => {
    const opens = (days: number) => ({ by: 'date', every: { open: days } }) as never
    const services = (days: number) => part(option([lives(null)]), 'dates', { opens: opens(days) }).filter((l) => l.includes('open and rinse')) // prettier-ignore
    expect(services(182.5)).toEqual(['day 183: open and rinse A.', 'day 365: open and rinse A.'])
    expect(services(183)).toEqual(['day 183: open and rinse A.'])
    expect(services(400)).toEqual([])
  })
  test('two on one day share a line; their forecasts stand together, each as if alone', () => {
    const pair = option([lives(32), choice('B', [])])
    expect(part(pair, 'dates')[0]).toBe('day 032: open and rinse A; replace fine pad in A; open and rinse B.')
    const due = (days: readonly (number | null)[]) => part(pair, 'dates', { due: days, opens: { by: 'flow', every: {} } as never }).at(-1) // prettier-ignore
    expect(due([100.4, 199.6])).toMatch(/Maintenance dates by the flow forecast\. The forecast says 100 and 200 days \(each alone\); it may be off by [\d.,\s]+ times\./) // prettier-ignore
    expect(due([100.4, null])).toMatch(/Maintenance dates by the flow forecast, or at the usual interval for its kind \(common practice, no source\)\. The forecast says 100 days \(each alone\); it may be off by [\d.,\s]+ times\./) // prettier-ignore
    expect(due([null, null])).toBe(
      'Maintenance dates at the usual interval for its kind (common practice, no source).',
    )
    // What was forecast of a third, which is not part of it, is not said.
    expect(due([100.4, 199.6, 300])).not.toContain('300')
  })
})

test('cautions once each; a heavy one is lifted by two', () => {
  const light = part(option([choice('A', []), choice('B', [])]), 'cautions')
  expect(new Set(light).size).toBe(light.length)
  const weight = (kg: number) => ({ candidate: canister('A', 1, { fitting: { fullMass: figure('w', kg, { dimension: 'mass' }) } as never }) }) // prettier-ignore
  const heavy = part(option([choice('A', [], weight(30))]), 'cautions')
  expect(heavy.length).toBeGreaterThan(part(option([choice('A', [], weight(5))]), 'cautions').length)
})
