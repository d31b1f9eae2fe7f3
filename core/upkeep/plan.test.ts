import {
  choresOf,
  occasionsOf,
  tankOccasions,
  UPKEEP_RULE,
  type Chore,
  type KeptFilter,
  type Ticked,
} from '.'
import { openEvery } from './interval'
import { roughly } from './plan'
import { ruleText } from './recurrence'

// Days counted on a calendar by hand.
const START = '2026-01-01'
const filter = (more: Partial<KeptFilter> = {}): KeptFilter => ({
  id: 'f1',
  tankId: 't',
  label: 'Canister',
  kind: 'canister',
  since: START,
  media: [],
  prefilter: false,
  lamp: false,
  forecast: null,
  ...more,
})
const chores = (f: KeptFilter, rule = UPKEEP_RULE) => choresOf([f], rule, START)
const tasks = (media: KeptFilter['media'], kind: KeptFilter['kind'] = 'canister') =>
  chores(filter({ kind, media })).map((c) => c.task)
const one = (task: Chore['task'], f = filter(), rule = UPKEEP_RULE) =>
  chores(f, rule).find((c) => c.task === task)

describe('what a filter asks for', () => {
  test('pads are of foam and none is the fine one, whatever lies beside them', () => {
    expect(tasks([{ form: 'foam', job: 'fine' }])).not.toContain('pads')
    expect(tasks([{ form: 'pad', job: 'coarse' }])).not.toContain('pads')
    expect(
      tasks([
        { form: 'sintered', job: 'biological' },
        { form: 'foam', job: 'coarse' },
      ]),
    ).toContain('pads')
  })
  test('carbon and resin, where some of it lies among other things, and only there', () => {
    const rings = { form: 'sintered', job: 'biological' } as const
    expect(tasks([rings, { form: 'carbon', job: 'chemical' }])).toEqual([
      'open',
      'impeller',
      'carbon',
      'rings',
    ])
    expect(tasks([rings, { form: 'resin', job: 'chemical' }])).toEqual(['open', 'impeller', 'resin', 'rings'])
    expect(tasks([rings])).toEqual(['open', 'impeller', 'rings'])
  })
  test('a sponge is squeezed where there is foam: in a sponge filter with more in it, not in one with a pad', () => {
    expect(tasks([{ form: 'foam', job: 'medium' }, { form: 'sintered', job: 'biological' }], 'air-sponge')).toEqual(['sponge']) // prettier-ignore
    expect(tasks([{ form: 'pad', job: 'fine' }], 'air-sponge')).toEqual(['fine'])
  })
  test('by flow the body alone comes by its forecast, and of a sponge filter the sponge', () => {
    const rule = { ...UPKEEP_RULE, by: 'flow' } as const
    expect(chores(filter({ forecast: 40 }), rule).map((c) => [c.task, c.every, c.byFlow])).toEqual([
      ['open', { days: 40 }, true],
      ['impeller', { months: 2 }, false],
      ['rings', { months: 24 }, false],
    ])
    const foam = [{ form: 'foam', job: 'medium' }] as const
    for (const kind of ['motor-sponge', 'air-sponge'] as const)
      expect(one('sponge', filter({ kind, media: foam, forecast: 25 }), rule)).toMatchObject({ every: { days: 25 }, byFlow: true }) // prettier-ignore
    expect(one('open', filter({ forecast: 40 }))).toMatchObject({
      every: { days: 32 },
      byFlow: false,
    })
    expect(openEvery('motor-sponge', null, { by: 'date', every: { sponge: 5 } })).toEqual({
      days: 5,
      from: 'house',
    })
  })
  test('it starts on the day the filter was set up, else with the record of the tank', () => {
    expect(one('open', filter({ since: '2026-03-05' }))?.start).toBe('2026-03-05')
    expect(one('open', filter({ since: null }))?.start).toBe(START)
  })
  test('the second of two begins half an interval later, of months too (a lamp of twelve: 365 days, 183 of them)', () => {
    expect(roughly({ months: 12 })).toBe(365)
    const lamps = choresOf(
      ['a', 'b'].map((id) => filter({ id, kind: 'sump', lamp: true })),
      UPKEEP_RULE,
      START,
    )
    expect(lamps.filter((c) => c.task === 'lamp').map((c) => c.start)).toEqual([START, '2026-07-03'])
  })
  test('what does not touch the film keeps no distance from what does', () => {
    const pads = chores(filter({ prefilter: true, media: [{ form: 'foam', job: 'coarse' }] }))
    expect(new Set(pads.map((c) => c.start))).toEqual(new Set([START]))
  })
})

const chore = (more: Partial<Chore> = {}): Chore => ({
  key: 'f1:open', tankId: 't', filterId: 'f1', task: 'open', label: '', how: '', water: null, biological: false,
  every: { days: 30 }, start: START, byFlow: false, ...more,
}) // prettier-ignore
const tick = (due: string, on: string, more: Partial<Ticked> = {}): Ticked => ({
  tankId: 't', filterId: 'f1', task: 'open', due, on, state: 'done', ...more,
}) // prettier-ignore
const days = (ticked: readonly Ticked[], today: string, to: string, from = '2025-01-01') =>
  occasionsOf(chore(), ticked, { from, to, today }).map((o) => `${o.on} ${o.state}`)

describe('days of one chore: every 30 days from 1 January, so on 31 January, 2 March, 1 April', () => {
  test('only ticks of its own tank, filter and task count', () => {
    const foreign = [{ tankId: 'x' }, { filterId: 'x' }, { task: 'fine' as const }].map((more) =>
      tick('2026-01-31', '2026-01-25', more),
    )
    expect(days(foreign, '2026-01-20', '2026-02-10')).toEqual(['2026-01-31 ahead'])
  })
  test('it counts from the last day it was done, in whatever order that was written down', () => {
    const two = [tick('2026-03-02', '2026-03-02'), tick('2026-01-31', '2026-01-31')]
    expect(days(two, '2026-03-10', '2026-04-05')).toEqual([
      '2026-01-31 done',
      '2026-03-02 done',
      '2026-04-01 ahead',
    ])
  })
  test('today it is due; what was moved is moved by itself, and comes in its place among the others', () => {
    expect(days([], '2026-01-31', '2026-02-10')).toEqual(['2026-01-31 due'])
    const moved = [tick('2026-01-31', '2026-03-05', { state: 'moved' })]
    expect(days(moved, '2026-01-20', '2026-04-05')).toEqual([
      '2026-03-02 ahead',
      '2026-03-05 ahead',
      '2026-04-01 ahead',
    ])
    // Done early, under the name of the next day it is due on: that one stays where it is.
    expect(days([tick('2026-03-02', '2026-01-31')], '2026-02-01', '2026-03-05')).toEqual(['2026-01-31 done', '2026-03-02 ahead']) // prettier-ignore
  })
  test('a window shows both of its ends, nothing before or after, and what is overdue from before it', () => {
    const done = [tick('2026-01-31', '2026-01-31')]
    expect(days(done, '2026-02-01', '2026-03-02', '2026-01-31')).toEqual([
      '2026-01-31 done',
      '2026-03-02 ahead',
    ])
    expect(days(done, '2026-02-01', '2026-03-02', '2026-02-01')).toEqual(['2026-03-02 ahead'])
    const beyond = [...done, tick('2026-03-02', '2026-03-20', { state: 'moved' })]
    expect(days(beyond, '2026-02-01', '2026-03-10', '2026-02-01')).toEqual([])
    expect(days([], '2026-02-20', '2026-03-10', '2026-02-20')).toEqual(['2026-01-31 overdue'])
  })
})

describe('the work of one tank', () => {
  const foam = [{ form: 'foam', job: 'medium' }] as const
  const sponge = (id: string, since = START) => filter({ id, kind: 'air-sponge', media: foam, since })
  const at = (filters: readonly KeptFilter[], ticked: readonly Ticked[], today: string, to: string) =>
    tankOccasions(filters, { ...UPKEEP_RULE, every: { sponge: 14 } }, ticked, { from: START, to, today, since: START })
      .map((o) => `${o.chore.filterId} ${o.on} ${o.state}${o.putOff ? ' put off' : ''}`) // prettier-ignore
  test('two sponges every 14 days stand a week apart by themselves: none is put off', () => {
    expect(at([sponge('a'), sponge('b')], [], START, '2026-02-01')).toEqual([
      'a 2026-01-15 ahead',
      'b 2026-01-22 ahead',
      'a 2026-01-29 ahead',
    ])
  })
  test('one that is skipped touches nothing; one that was done does, and puts off what is due today', () => {
    const other = (state: Ticked['state']) => [
      tick('2026-01-15', '2026-01-19', { filterId: 'a', task: 'sponge', state }),
    ]
    expect(at([sponge('a'), sponge('b')], other('skipped'), '2026-01-22', '2026-01-25')).toEqual([
      'a 2026-01-19 skipped',
      'b 2026-01-22 due',
    ])
    expect(at([sponge('a'), sponge('b')], other('done'), '2026-01-22', '2026-01-25')).toEqual([
      'a 2026-01-19 done',
      'b 2026-01-26 ahead put off',
    ])
  })
  test('what is overdue will be done today at the earliest: the next waits a week from today', () => {
    expect(at([sponge('a'), sponge('b')], [], '2026-01-20', '2026-01-25')).toEqual([
      'a 2026-01-15 overdue',
      'b 2026-01-27 ahead put off',
    ])
  })
  test('what does not touch the film is not put off by what does', () => {
    const fine = filter({ id: 'c', media: [{ form: 'pad', job: 'fine' }], since: '2025-11-23' })
    const both = tankOccasions([sponge('a'), fine], { ...UPKEEP_RULE, every: { sponge: 14, fine: 56 } }, [], {
      from: START,
      to: '2026-02-20',
      today: START,
      since: START,
    }).filter((o) => o.chore.task === 'fine')
    // Its interval begins half of it later: 21 December, then 15 February.
    expect(both.map((o) => [o.on, o.putOff ?? false])).toEqual([['2026-02-15', false]])
  })
})

test('the rule as iCalendar has it: the 28th is a plain day of the month, the 29th may be a month’s last (RFC 5545)', () => {
  expect(ruleText({ months: 1 }, '2026-01-28')).toBe('FREQ=MONTHLY;INTERVAL=1')
  expect(ruleText({ months: 1 }, '2026-01-29')).toBe('FREQ=MONTHLY;INTERVAL=1;BYMONTHDAY=28,29;BYSETPOS=-1')
})
