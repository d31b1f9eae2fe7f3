import type { Figure } from '../figures'
import type { OrderFinding } from '../path'
import {
  CHECKS,
  evidenceOf,
  nothingKnown,
  search,
  type CheckOutcome,
  type Evidence,
  type FaultRecord,
} from '.'

/** What each fact of a record points to, how strongly, and just where it begins to: by hand from the table of rules. */
const TODAY = '2026-11-26'
const ago = (days: number): string => new Date(Date.UTC(2026, 10, 26 - days)).toISOString().slice(0, 10)
const bare = nothingKnown('canister', TODAY)
const share = (value: number): Figure => ({
  id: 'x',
  label: 'X',
  value,
  dimension: 'ratio',
  provenance: 'measured',
})
const left = (value: number): FaultRecord['left'] => ({ figure: share(value), on: ago(20), dueAt: 0.7 })
const finding = (id: string, severity: 'fault' | 'note' = 'fault'): OrderFinding =>
  ({ rule: { id, severity }, sentence: [`by ${id}`] }) as unknown as OrderFinding
const lastVisit = (what: Partial<NonNullable<FaultRecord['last']>>): FaultRecord['last'] => ({
  on: ago(12),
  seeping: [],
  hoses: null,
  holding: null,
  clarity: null,
  ammonia: null,
  nitrite: null,
  ...what,
})
const visit = (
  days: number,
  ...cleaned: readonly Readonly<Record<string, string>>[]
): FaultRecord['visits'][number] =>
  ({ on: ago(days), cleaned, parts: [] }) as unknown as FaultRecord['visits'][number]
const points = (patch: Partial<FaultRecord>): Record<string, number> =>
  Object.fromEntries(evidenceOf({ ...bare, ...patch }).map((e) => [e.check, e.times]))

test.each<[string, Partial<FaultRecord>, Record<string, number>]>([
  ['flow below what is due: seen', { left: left(0.69) }, { clogged: 6 }],
  ['flow just at what is due: nothing', { left: left(0.7) }, {}],
  ['flow at nine tenths: nothing', { left: left(0.9) }, {}],
  ['flow above nine tenths: against', { left: left(0.91) }, { clogged: 0.3, slimed: 0.3, shaft: 0.3 }],
  ['blind layers', { blind: ['fine pad'] }, { clogged: 4 }],
  ['opened a week ago', { opened: { on: ago(7), every: 30 } }, { clogged: 0.3, 'clogging-cavitates': 0.3 }],
  ['opened eight days ago', { opened: { on: ago(8), every: 30 } }, {}],
  ['opened as often as the house does', { opened: { on: ago(30), every: 30 } }, {}],
  [
    'opened a day later than that',
    { opened: { on: ago(31), every: 30 } },
    { clogged: 2.5, 'impeller-gunk': 2.5 },
  ],
  ['less than three quarters of the label', { ofLabel: share(0.74) }, { 'label-hope': 2.5 }],
  ['three quarters of it', { ofLabel: share(0.75) }, {}],
  ['little of the label, but clogged', { ofLabel: share(0.5), left: left(0.85) }, {}],
  ['little of the label, and as new', { ofLabel: share(0.5), left: left(0.86) }, { 'label-hope': 2.5 }],
  ['a valve half open', { valve: 0.5 }, { 'taps-shut': 2.5 }],
  ['a valve fully open', { valve: 1 }, {}],
  ['no layers on record', { order: null }, {}],
  ['layers in order', { order: [] }, { order: 0.3 }],
  ['a fault of order', { order: [finding('coarse-to-fine')] }, { order: 4 }],
  ['only a note on order', { order: [finding('coarse-to-fine', 'note')] }, { order: 0.3 }],
  ['a fault of another rule', { order: [finding('something')] }, { order: 0.3 }],
  ['bypass', { order: [finding('fine-sealed', 'note')] }, { order: 0.3, 'past-it': 4 }],
  ['a stack above the rim', { order: [finding('above-rim', 'note')] }, { order: 0.3, overfilled: 6 }],
  ['hoses half closed', { last: lastVisit({ hoses: 'half-closed' }) }, { slimed: 6 }],
  ['hoses clean', { last: lastVisit({ hoses: 'clean' }) }, { slimed: 0.3 }],
  ['hoses slimy', { last: lastVisit({ hoses: 'slimy' }) }, {}],
  ['some cups hold', { last: lastVisit({ holding: 'some' }) }, { 'touches-glass': 4, tilt: 4 }],
  ['no cup holds', { last: lastVisit({ holding: 'none' }) }, { 'touches-glass': 4, tilt: 4 }],
  ['all cups hold', { last: lastVisit({ holding: 'all' }) }, {}],
  ['water at the taps', { last: lastVisit({ seeping: ['taps'] }) }, { 'tap-ring': 6, 'slack-nut': 6 }],
  ['water at a place of no name', { last: lastVisit({ seeping: ['roof'] }) }, {}],
  [
    'ammonia read',
    { last: lastVisit({ ammonia: 0.13e-3 }) },
    { ripening: 2.5, 'too-clean': 2.5, overfed: 2.5 },
  ],
  [
    'nitrite read',
    { last: lastVisit({ ammonia: 0, nitrite: 0.13e-3 }) },
    { ripening: 2.5, 'too-clean': 2.5, overfed: 2.5 },
  ],
  ['half a step of the kit', { last: lastVisit({ ammonia: 0.12e-3, nitrite: 0.12e-3 }) }, {}],
  ['both at 0', { last: lastVisit({ ammonia: 0, nitrite: 0 }) }, { ripening: 0.3, 'too-clean': 0.3 }],
  ['ammonia at 0, nitrite not tested', { last: lastVisit({ ammonia: 0 }) }, {}],
  ['nitrite at 0, ammonia not tested', { last: lastVisit({ nitrite: 0 }) }, {}],
  ['3 dB louder', { noise: { first: 34, last: 37 } }, { shaft: 2.5 }],
  ['2.9 dB louder', { noise: { first: 34, last: 36.9 } }, {}],
  ['an air pump 3 dB louder', { kind: 'air-sponge', noise: { first: 34, last: 37 } }, { diaphragm: 2.5 }],
  ['no kind, 3 dB louder', { kind: null, noise: { first: 34, last: 37 } }, { shaft: 2.5 }],
  ['water 5 cm below the rim', { belowRim: 0.05 }, {}],
  ['water 5.1 cm below it', { belowRim: 0.051 }, { 'below-lip': 2.5, level: 2.5 }],
  ['came a week ago', { since: ago(7) }, { 'young-media': 4, 'trapped-air': 4, ripening: 2.5 }],
  ['came eight days ago', { since: ago(8) }, { 'young-media': 0.3, ripening: 2.5 }],
  ['came six weeks ago', { since: ago(42) }, { 'young-media': 0.3, ripening: 2.5 }],
  ['came a day before that', { since: ago(43) }, { 'young-media': 0.3 }],
  ['came 90 days ago', { since: ago(90) }, { 'young-media': 0.3 }],
  ['came 91 days ago, impeller not seen', { since: ago(91) }, { 'young-media': 0.3, 'impeller-gunk': 2.5 }],
  [
    'came long ago, impeller seen 90 days ago',
    { since: ago(300), visits: [visit(90, { what: 'impeller', how: 'bucket' })] },
    { 'young-media': 0.3 },
  ],
  [
    'all of it cleaned 91 days ago',
    { visits: [visit(91, { what: 'pad', how: 'bucket' }, { what: 'everything', how: 'bucket' })] },
    { 'impeller-gunk': 2.5 },
  ],
  [
    'a pad rinsed two days ago',
    { visits: [visit(2, { what: 'pad', how: 'bucket' }), visit(1)] },
    { 'stirred-up': 2.5, 'too-clean': 2.5 },
  ],
  ['a pad rinsed three days ago', { visits: [visit(3, { what: 'pad', how: 'bucket' })] }, {}],
  [
    'under the tap, six weeks ago',
    {
      visits: [
        visit(42, { what: 'pad', how: 'tap' }, { what: 'media', how: 'bucket' }),
        visit(9, { what: 'pad', how: 'bucket' }),
      ],
    },
    { 'too-clean': 4 },
  ],
  ['under the tap, a day before that', { visits: [visit(43, { what: 'pad', how: 'tap' })] }, {}],
  [
    'an impeller with scoring',
    { parts: [{ name: 'Impeller', checklist: 'impeller', findings: ['scoring'], on: null }] },
    { shaft: 4, 'impeller-seat': 4 },
  ],
  [
    'a finding that points nowhere',
    { parts: [{ name: 'Pad', checklist: 'pad', findings: ['fine'], on: null }] },
    {},
  ],
  [
    'a checklist of no name',
    { parts: [{ name: 'Pad', checklist: 'none', findings: ['clogged'], on: null }] },
    {},
  ],
  [
    'steps refused at set-up',
    { refused: { on: ago(5), steps: ['part:3', 'seal', 'rim:2'] } },
    { 'head-seal': 6, overfilled: 6 },
  ],
])('%s', (_, patch, expected) => {
  expect(points(patch)).toEqual(expected)
})

test('evidence says where it comes from, and a finding of a part by the name on its list', () => {
  const from = (patch: Partial<FaultRecord>): Evidence[] => [...evidenceOf({ ...bare, ...patch })]
  const impeller = { name: 'Impeller', checklist: 'impeller', findings: ['debris'] }
  expect(from({ parts: [{ ...impeller, on: ago(4) }] })[0]).toMatchObject({ from: `check-up of ${ago(4)}` })
  const lid = { name: 'Lid', checklist: 'lid', findings: ['lifts'], on: null }
  expect(from({ parts: [lid] })[0]?.says.join('')).toBe('Lid: lets water past.')
  expect(from({ since: ago(91) }).at(-1)?.from).toBe(`since ${ago(91)}`)
  expect(from({ visits: [visit(91, { what: 'impeller', how: 'bucket' })] }).at(-1)?.from).toBe(
    `check-up of ${ago(91)}`,
  )
  const louder = from({ noise: { first: 34, last: 39 } })[0]?.says[1]
  expect(louder).toMatchObject({ si: 5 })
})

test('every cause that a record can point to is on the list of checks', () => {
  const ids = new Set(CHECKS.map((c) => c.id))
  const all = evidenceOf({
    ...bare,
    parts: ['o-ring', 'impeller', 'shaft', 'clip', 'hose-joint', 'lid', 'feet', 'pad', 'general'].map(
      (checklist) => ({
        name: checklist,
        checklist,
        findings: ['dry', 'flat', 'cracked', 'scoring', 'play', 'debris', 'chipped', 'worn', 'rust', 'loose', 'whitened', 'slips', 'weeps', 'rattles', 'lifts', 'hard', 'missing', 'clogged', 'torn', 'thin', 'warped'], // prettier-ignore
        on: null,
      }),
    ),
    last: lastVisit({ seeping: ['head', 'lid', 'taps', 'hoses', 'body'] }),
  })
  expect(all.length).toBeGreaterThan(40)
  expect(all.filter((e) => !ids.has(e.check))).toEqual([])
})

describe('the order of looking, by hand', () => {
  const seen = (check: string, times: number): Evidence => ({ check, times, says: [], from: 'here' })
  const one = search('weak-flow', 'canister', [], {})
  const weights = one.suspects.map((s) => s.check.symptoms['weak-flow'] ?? 0)
  const all = weights.reduce((a, b) => a + b, 0)

  test('a cause has its share of all that is common, with two for what is on no list', () => {
    one.suspects.forEach((s, i) => expect(s.chance).toBeCloseTo((weights[i] ?? 0) / (all + 2), 12))
    expect(one.none).toBeCloseTo(2 / (all + 2), 12)
  })

  test('what comes first stands first; then the most chance found in a minute', () => {
    const rest = one.suspects.filter((s) => !s.first).map((s) => (s.chance * s.check.sees) / s.check.minutes)
    expect(rest).toEqual([...rest].sort((a, b) => b - a))
    const firsts = one.suspects.map((s) => s.first)
    expect(firsts.lastIndexOf(true)).toBeLessThan(firsts.indexOf(false))
  })

  test('looked at and clear leaves 1 − sees of it; put right and no better, a fiftieth; not sure, all of it', () => {
    const s = one.suspects.find((x) => x.check.id === 'clogged')
    const w = s?.check.symptoms['weak-flow'] ?? NaN
    const chance = (outcome: CheckOutcome): number =>
      search('weak-flow', 'canister', [], { clogged: outcome }).suspects.find((x) => x.check.id === 'clogged')
        ?.chance ?? NaN
    const expected = (left: number): number => (w * left) / (all - w + w * left + 2)
    expect(chance('clear')).toBeCloseTo(expected(1 - (s?.check.sees ?? NaN)), 12)
    expect(chance('remains')).toBeCloseTo(expected(0.02), 12)
    expect(chance('unsure')).toBeCloseTo(expected(1), 12)
  })

  test('open ones, then what nobody is sure of, then what was looked at', () => {
    const [a, b] = one.suspects
    const order = search('weak-flow', 'canister', [], {
      [a!.check.id]: 'clear',
      [b!.check.id]: 'unsure',
    }).suspects
    expect(order.at(-1)?.check.id).toBe(a?.check.id)
    expect(order.at(-2)?.check.id).toBe(b?.check.id)
  })

  test('the next step: a cure, a remedy, a check, one nobody was sure of again, then somebody licensed', () => {
    const ids = one.suspects.map((s) => s.check.id)
    const next = (outcomes: Record<string, CheckOutcome>) =>
      search('weak-flow', 'canister', [], outcomes).next
    const clear = Object.fromEntries(ids.map((id) => [id, 'clear' as const]))
    expect(next({})).toMatchObject({ what: 'check', again: false })
    expect(next({ ...clear, clogged: 'unsure' })).toMatchObject({ what: 'check', again: true })
    expect(next({ clogged: 'found' })).toMatchObject({ what: 'remedy' })
    expect(next({ clogged: 'cured', slimed: 'found' })).toMatchObject({ what: 'cured' })
    expect(next(clear)).toMatchObject({ what: 'licensed' })
  })

  test('a record alone names a cause at one half and at twice the next, and only by what speaks for it', () => {
    const alone = (...evidence: Evidence[]) =>
      search('weak-flow', 'canister', evidence, {}).recordAlone?.check.id
    expect(alone()).toBeUndefined()
    expect(alone(seen('clogged', 1))).toBeUndefined()
    expect(alone(seen('clogged', 1000))).toBe('clogged')
    // Two that are as likely: neither is named, though both together are nearly certain.
    const w = (id: string): number => CHECKS.find((c) => c.id === id)?.symptoms['weak-flow'] ?? NaN
    expect(alone(seen('clogged', 1000 / w('clogged')), seen('slimed', 1000 / w('slimed')))).toBeUndefined()
    expect(alone(seen('clogged', 2100 / w('clogged')), seen('slimed', 1000 / w('slimed')))).toBe('clogged')
    // Its weight against all the rest and the two of none: at one half it is named, below it not.
    const rest = all - w('clogged') + 2
    const others = weights.filter((x) => x !== w('clogged')).every((x) => x * 2 < rest * 0.98)
    expect(others).toBe(true)
    expect(alone(seen('clogged', (rest / w('clogged')) * 1.01))).toBe('clogged')
    expect(alone(seen('clogged', (rest / w('clogged')) * 0.99))).toBeUndefined()
    // What speaks for it and what speaks against it: one of them is enough to be named by.
    expect(alone(seen('clogged', 10000), seen('clogged', 0.5))).toBe('clogged')
  })
})
