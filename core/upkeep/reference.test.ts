import { Temporal } from 'temporal-polyfill'
import { daysBetween } from '../days'
import { comingDays } from './recurrence'
import {
  choresOf,
  occasionsOf,
  ruleText,
  tankOccasions,
  UPKEEP_RULE,
  waterOf,
  type Chore,
  type KeptFilter,
  type Ticked,
} from '.'

const filter = (more: Partial<KeptFilter> = {}): KeptFilter => ({
  id: 'f1',
  tankId: 't',
  label: 'Canister',
  kind: 'canister',
  since: '2026-01-01',
  media: [
    { form: 'foam', job: 'coarse' },
    { form: 'pad', job: 'fine' },
    { form: 'sintered', job: 'biological' },
  ],
  prefilter: true,
  lamp: false,
  forecast: null,
  ...more,
})
const tasks = (f: KeptFilter): string[] => choresOf([f], UPKEEP_RULE, '2026-01-01').map((c) => c.task)
const chore = (more: Partial<Chore> = {}): Chore => ({
  key: 'f1:open',
  tankId: 't',
  filterId: 'f1',
  task: 'open',
  label: '',
  how: '',
  water: null,
  biological: false,
  every: { days: 30 },
  start: '2026-01-01',
  byFlow: false,
  ...more,
})
const days = (c: Chore, ticked: readonly Ticked[], today: string, to: string) =>
  occasionsOf(c, ticked, { from: '2025-01-01', to, today }).map((o) => `${o.on} ${o.state}`)
const tick = (due: string, on: string, state: Ticked['state'] = 'done'): Ticked => ({ tankId: 't', filterId: 'f1', task: 'open', due, state, on }) // prettier-ignore

describe('what a filter asks for', () => {
  test('by what is in it: sintered media never; no impeller where air lifts; a sponge by halves', () => {
    expect(tasks(filter())).toEqual(['prefilter', 'open', 'impeller', 'fine', 'pads', 'rings'])
    expect(tasks(filter({ kind: 'air-sponge', media: [{ form: 'foam', job: 'medium' }], prefilter: false }))).toEqual(['sponge']) // prettier-ignore
    expect(tasks(filter({ media: [{ form: 'carbon', job: 'chemical' }], lamp: true, prefilter: false }))).toEqual(['open', 'impeller', 'carbon', 'lamp', 'rings']) // prettier-ignore
  })
  test('two filters on one tank alternate, and what touches the film keeps a week apart', () => {
    const sponge = { kind: 'air-sponge', media: [{ form: 'foam', job: 'medium' }], prefilter: false } as const
    const [a, b] = choresOf(
      [filter({ ...sponge }), filter({ ...sponge, id: 'f2' })],
      UPKEEP_RULE,
      '2026-01-01',
    )
    // Every 21 days; the second half of that later: 11 days.
    expect([a?.start, b?.start]).toEqual(['2026-01-01', '2026-01-12'])
    // Of three the others begin a third and two thirds of it later: 7 and 14 days.
    const three = ['a', 'b', 'c'].map((id) => filter({ ...sponge, id }))
    expect(choresOf(three, UPKEEP_RULE, '2026-01-01').map((c) => c.start)).toEqual(['2026-01-01', '2026-01-08', '2026-01-15']) // prettier-ignore
    const short = choresOf([filter({ ...sponge }), filter({ ...sponge, id: 'f2' })], { ...UPKEEP_RULE, every: { sponge: 6 } }, '2026-01-01') // prettier-ignore
    expect(short[1]?.start).toBe('2026-01-08')
  })
  test('by flow: the body is opened when its forecast says; the schools of rinsing', () => {
    const open = choresOf([filter({ forecast: 44.6 })], { ...UPKEEP_RULE, by: 'flow' }, '2026-01-01').find((c) => c.task === 'open') // prettier-ignore
    expect([open?.every, open?.byFlow]).toEqual([{ days: 45 }, true])
    expect(waterOf('prefilter', 'tap-prefilter')).toContain('tap water')
    expect([waterOf('open', 'tap-prefilter'), waterOf('sponge', 'tank-water')]).toEqual(['in tank water', 'in tank water']) // prettier-ignore
    expect([waterOf('open', 'dechlorinated'), waterOf('carbon', 'tank-water')]).toEqual(['in dechlorinated tap water', null]) // prettier-ignore
  })
})

test('never more than one thing that touches the film within a week; what is overdue comes first', () => {
  const sponge = { kind: 'air-sponge', media: [{ form: 'foam', job: 'medium' }], prefilter: false } as const
  const two = [filter({ ...sponge }), filter({ ...sponge, id: 'f2' })]
  const rule = { ...UPKEEP_RULE, every: { sponge: 9 } }
  const window = { from: '2026-01-01', to: '2026-03-31', today: '2026-01-01', since: '2026-01-01' }
  const days = tankOccasions(two, rule, [], window)
  // Left to themselves they would stand 5 and 4 days apart.
  for (let i = 1; i < days.length; i++) expect(daysBetween(days[i - 1]?.on ?? '', days[i]?.on ?? '')).toBeGreaterThanOrEqual(7) // prettier-ignore
  expect(days.some((o) => o.putOff)).toBe(true)
  const late = tankOccasions(two, rule, [], { ...window, today: '2026-02-20' })
  expect(late.filter((o) => o.state === 'overdue')).toHaveLength(2)
  // Both would come nine days after today: the second waits another seven.
  expect(late.filter((o) => o.state === 'ahead').map((o) => o.on)).toEqual(expect.arrayContaining(['2026-03-01', '2026-03-08'])) // prettier-ignore
})

describe('days it is due', () => {
  test('counted from when it was done; a gap of 90 days leaves one thing overdue', () => {
    expect(days(chore(), [], '2026-01-20', '2026-03-05')).toEqual(['2026-01-31 ahead', '2026-03-02 ahead'])
    expect(days(chore(), [], '2026-04-01', '2026-05-05')).toEqual(['2026-01-31 overdue', '2026-04-01 due', '2026-05-01 ahead'].filter((d) => !d.includes('04-01'))) // prettier-ignore
    expect(days(chore(), [tick('2026-01-31', '2026-02-03')], '2026-02-04', '2026-03-10')).toEqual(['2026-02-03 done', '2026-03-05 ahead']) // prettier-ignore
  })
  test('skipped, it comes an interval after; moved, it stands on its new day', () => {
    expect(days(chore(), [tick('2026-01-31', '2026-01-31', 'skipped')], '2026-02-01', '2026-03-05')).toEqual(['2026-01-31 skipped', '2026-03-02 ahead']) // prettier-ignore
    expect(days(chore(), [tick('2026-01-31', '2026-02-05', 'moved')], '2026-02-01', '2026-02-20')).toEqual(['2026-02-05 ahead']) // prettier-ignore
  })
  test('the 31st: the last day of a month that has none (RFC 5545, BYMONTHDAY with BYSETPOS −1), and February', () => {
    const monthly = chore({ every: { months: 1 }, start: '2027-12-31' })
    expect(days(monthly, [], '2027-12-31', '2028-04-30').map((d) => d.slice(0, 10))).toEqual([
      '2028-01-31',
      '2028-02-29',
      '2028-03-31',
      '2028-04-30',
    ])
  })
  test('clocks that change move no day', () => {
    const weekly = chore({ every: { days: 7 }, start: '2026-03-22' })
    expect(days(weekly, [], '2026-03-22', '2026-04-06').map((d) => d.slice(0, 10))).toEqual(['2026-03-29', '2026-04-05']) // prettier-ignore
  })
  test('days as the calendar of another library counts them (Temporal: months added, the day held to the month)', () => {
    const from = Temporal.PlainDate.from('2026-01-31')
    const add = (n: number) => [
      from.add({ days: 53 * n }),
      from.add({ months: 2 * n }),
      from.add({ months: n }),
    ]
    const ours = ([{ days: 53 }, { months: 2 }, { months: 1 }] as const).map((e) => comingDays(e, '2026-01-31', '2040-01-01').slice(0, 25)) // prettier-ignore
    for (let n = 1; n <= 25; n++) expect(ours.map((d) => d[n - 1])).toEqual(add(n).map(String))
    expect(ruleText({ days: 7 }, '2026-01-31')).toBe('FREQ=DAILY;INTERVAL=7')
    expect(ruleText({ months: 2 }, '2026-01-30')).toBe(
      'FREQ=MONTHLY;INTERVAL=2;BYMONTHDAY=28,29,30;BYSETPOS=-1',
    )
  })
})
