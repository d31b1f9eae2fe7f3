import type { Figure } from '../figures'
import type { FilterKind } from '../kinds'
import { runs, visit } from './tests/support'
import {
  flowLeft,
  historyOf,
  observationsOf,
  unitSurvival,
  visitFlow,
  wantedVisits,
  waterProofs,
} from './history'
import { usedChecks, usedWorth, type VisitRecord } from '.' // prettier-ignore

const working = (f: Figure | null) => f?.working?.map((w) => [w.symbol, w.value])

describe('flow at a visit, V/t by hand', () => {
  const v = visit('v', '2026-05-01', { runsBefore: runs(25, 20), runsAfter: runs(10) })
  test('as it was found and after it was cleaned, each from its own runs, one by one in its working', () => {
    const [found, cleaned] = [visitFlow(v, 'before'), visitFlow(v, 'after')]
    expect([found?.id, found?.label, found?.conditions]).toEqual(['visit-v-before', 'Flow as it was found', ['1 May 2026']]) // prettier-ignore
    expect(found?.value).toBeCloseTo((0.0002 + 0.00025) / 2, 9)
    expect(working(found)).toEqual([
      ['V_1/t_1', 0.0002],
      ['V_2/t_2', 0.00025],
    ])
    expect([cleaned?.id, cleaned?.label, cleaned?.value]).toEqual([
      'visit-v-after',
      'Flow after cleaning',
      0.0005,
    ])
  })
  test('a run that is half entered is no run', () => {
    const half = [
      { volume: 0, seconds: 20 },
      { volume: 0.005, seconds: 0 },
    ]
    expect(visitFlow(visit('h', '2026-05-01', { runsBefore: half }), 'before')).toBeNull()
    expect(visitFlow(visit('h', '2026-05-01', { runsBefore: [...half, ...runs(20)] }), 'before')?.value).toBe(
      0.00025,
    )
  })
})

describe('the story of a unit', () => {
  const setUp = visit('s', '2026-03-01', { stage: 'set-up', runsBefore: runs(20) })
  test('goes by day, and on one day by its id, however it was written down', () => {
    const { visits } = historyOf(
      [visit('b', '2026-04-01'), visit('c', '2026-03-05'), visit('a', '2026-04-01')],
      null,
    )
    expect(visits.map((v) => v.id)).toEqual(['c', 'a', 'b'])
  })
  test('leaves out what is dated before the unit came, and nothing of the day itself', () => {
    const { visits, tooEarly } = historyOf(
      [visit('x', '2026-02-28'), setUp, visit('y', '2026-03-02')],
      '2026-03-01',
    )
    expect([visits.map((v) => v.id), tooEarly.map((v) => v.id)]).toEqual([['s', 'y'], ['x']])
  })
  test('is held against its first clean flow: that found at setting up, not that found at a visit', () => {
    const found = visit('f', '2026-03-05', { runsBefore: runs(25) })
    expect(historyOf([found], null).first).toBeNull()
    expect(historyOf([found, visit('g', '2026-03-09', { runsAfter: runs(20) })], null).first?.on).toBe(
      '2026-03-09',
    )
    const { first } = historyOf([setUp, found], null)
    expect([first?.on, first?.flow.mean]).toEqual(['2026-03-01', 0.00025])
  })
  test('flow left says what it is of: 20 s of 25 s are 80 %, on which day, against which', () => {
    const story = historyOf([setUp, visit('v', '2026-03-31', { runsBefore: runs(25) })], null)
    const left = flowLeft(story, story.visits[1] as VisitRecord)
    expect(left?.value).toBeCloseTo(0.8, 9)
    expect(left?.conditions).toEqual(['found on 31 Mar 2026, first timed on 1 Mar 2026'])
    expect(working(left)?.slice(0, 2)).toEqual([
      ['Q', 0.0002],
      ['Q₀', 0.00025],
    ])
    // Without a clean flow, or without runs, there is none.
    expect(flowLeft({ ...story, first: null }, story.visits[1] as VisitRecord)).toBeNull()
    expect(flowLeft(story, visit('w', '2026-03-31'))).toBeNull()
  })
  test('tells a forecast of what came after the first flow alone: what was cleaned at setting up is nothing', () => {
    const rinsed = { cleaned: [{ what: 'everything', how: 'tap' }] } as const
    const story = historyOf(
      [{ ...setUp, ...rinsed }, visit('v', '2026-03-31', { ...rinsed, runsBefore: runs(25) })],
      null,
    )
    expect(observationsOf(story, [])).toMatchObject({
      seen: [{ day: 30 }],
      services: [{ day: 30, layers: null, share: 0.9 }],
    })
    expect(observationsOf({ ...story, first: null }, [])).toEqual({ seen: [], services: [] })
  })
})

test('visits a house wants on days 10, 20, 60: made within 35 % of the gap before it, and no farther', () => {
  const wanted = (made: string[], today: string) =>
    wantedVisits([60, 10, 20], '2026-01-01', made, today).map((w) => `${w.on} ${w.state}`)
  expect(wanted([], '2026-01-10')).toEqual(['2026-01-11 ahead', '2026-01-21 ahead', '2026-03-02 ahead'])
  expect(wanted([], '2026-01-11')).toEqual(['2026-01-11 due', '2026-01-21 ahead', '2026-03-02 ahead'])
  // On the day of the next the one before is missed; the last is due for as long as nobody comes.
  expect(wanted([], '2026-01-21')).toEqual(['2026-01-11 missed', '2026-01-21 due', '2026-03-02 ahead'])
  expect(wanted([], '2026-12-01').at(-1)).toBe('2026-03-02 due')
  // The gap before day 60 is 40 days: 14 days to either side of it, day 46 in, day 45 not.
  expect(wanted(['2026-02-16'], '2026-03-02').at(-1)).toBe('2026-03-02 made')
  expect(wanted(['2026-02-15'], '2026-03-02').at(-1)).toBe('2026-03-02 due')
})

test('units that fail run from their first visit to the first failure, however it was written down', () => {
  const failed = { failed: [{ part: 'impeller', how: 'worn' }] } as const
  const one = unitSurvival([
    visit('c', '2026-07-20', failed),
    visit('a', '2026-01-01'),
    visit('b', '2026-04-11', failed),
  ])
  expect(one?.units).toBe(1)
  // 100 days: 1 January to 11 April; it is the only unit, so none is left after it.
  expect(one?.steps).toMatchObject([{ time: 100 * 86400, survival: 0 }])
  // Seen twice and whole, it is counted up to the last time: four units of which one failed at 100 days.
  const whole = ['x', 'y', 'z'].flatMap((specimenId) => [
    visit(`${specimenId}2`, '2026-12-01', { specimenId }), visit(`${specimenId}1`, '2026-01-01', { specimenId }),
  ]) // prettier-ignore
  const four = unitSurvival([visit('a', '2026-01-01'), visit('b', '2026-04-11', failed), ...whole])
  expect([four?.units, four?.steps[0]?.survival]).toEqual([4, 0.75])
  expect(unitSurvival([visit('a', '2026-01-01')])).toBeNull()
  expect(unitSurvival([])).toBeNull()
})

describe('water as proof', () => {
  const tested = { id: 'v', on: '2026-05-01', ammonia: 4e-4, nitrite: null, nitrate: 0.02, binder: false }
  const says = (value: number, uncertainty?: number): Figure => ({
    id: 'x', label: 'x', value, dimension: 'concentration', provenance: 'computed', ...(uncertainty && { uncertainty }),
  }) // prettier-ignore
  const told = (expected: Parameters<typeof waterProofs>[1], more: Partial<typeof tested> = {}) =>
    waterProofs({ ...tested, ...more }, expected).map((p) =>
      p.sentence.filter((s) => typeof s === 'string').join('#'),
    )
  test('what was not tested says nothing; what nobody expects is told as it was read', () => {
    const [ammonia, nitrate] = waterProofs(tested, {})
    expect([ammonia?.what, ammonia?.found.label, ammonia?.found.conditions]).toEqual(['ammonia', 'Ammonia by the kit', ['1 May 2026']]) // prettier-ignore
    expect(nitrate?.what).toBe('nitrate')
    expect(told({})).toEqual(['Ammonia by the kit: #.', 'Nitrate by the kit: #.'])
    // The step of the kit, 0.12 mg/L, beside a quarter of what it shows; 5 mg/L beside three tenths.
    expect([ammonia?.found.uncertainty, nitrate?.found.uncertainty]).toEqual([1.2e-4, 0.006])
  })
  test('more, less, or borne out, as √(0.12² + U²) mg/L says; half of it where its own doubt is not said', () => {
    const verdicts = (value: number, U?: number) =>
      told({ ammonia: says(value, U) })[0]
        ?.split(': ')
        .at(-1)
    expect(verdicts(2e-4, 1e-4)).toBe('there is more than the balance accounts for.')
    expect(verdicts(6e-4, 1e-4)).toBe('there is less than the balance accounts for.')
    expect(verdicts(3e-4, 1e-4)).toBe('that is borne out.')
    // Half of 0.8 mg/L: 0.4 apart is within 0.418, and would not be within the kit’s 0.12 alone.
    expect(verdicts(8e-4)).toBe('that is borne out.')
    expect(verdicts(2e-4)).toBe('there is more than the balance accounts for.')
  })
  test('a binder is said of ammonia, where one was used, and of nothing else', () => {
    const binder = { binder: true }
    const [ammonia, nitrate] = waterProofs({ ...tested, ...binder }, {})
    expect(ammonia?.found.conditions).toEqual(['1 May 2026', 'a binding conditioner was used: kits then read bound ammonia too']) // prettier-ignore
    expect(nitrate?.found.conditions).toEqual(['1 May 2026'])
    const both = told({ ammonia: says(4e-4), nitrate: says(0.02) }, binder)
    expect(both.map((s) => s.includes('A binding conditioner was used'))).toEqual([true, false])
  })
})

describe('used units (common practice, no source)', () => {
  test.each<[FilterKind, string]>([
    ['canister', 'O-ring of the head'],
    ['hang-on-back', 'Body without hairline cracks'],
    ['internal', 'Suction cups'],
    ['motor-sponge', 'Suction cups'],
    ['sump', 'Seams of the sump'],
    ['air-sponge', 'Air hose'],
  ])('a %s is looked at for its own: %s …', (kind, begins) => {
    const own = ['O-ring of the head', 'Body without', 'Suction cups', 'Seams of the sump', 'Air hose']
    const asked = usedChecks(kind)
    expect(own.filter((o) => asked.some((a) => a.startsWith(o)))).toEqual([
      own.find((o) => begins.startsWith(o)),
    ])
    // A pump has a cord and an impeller; air lifts without.
    expect(asked.some((a) => a.startsWith('Impeller'))).toBe(kind !== 'air-sponge')
    expect(asked.some((a) => a.startsWith('Unplugged'))).toBe(kind !== 'air-sponge')
    expect(asked.at(-1)).toContain('thrown away or disinfected')
    expect(asked.every((a) => a.length > 10)).toBe(true)
  })
  test('worth half its list price less spares, ± three tenths of that half: 200.00 with 30.00 of spares is 70.00 ± 30.00', () => {
    const worth = usedWorth(20_000, [
      { name: 'Impeller', minor: 2000 },
      { name: 'O-ring', minor: 1000 },
    ])
    expect([worth?.value, worth?.uncertainty]).toEqual([7000, 3000])
    expect(working(worth)).toEqual([
      ['P', 20_000],
      ['s_1', 2000],
      ['s_2', 1000],
    ])
    expect(worth?.working?.[1]?.label).toBe('impeller, minor units')
    expect(usedWorth(null, [])).toBeNull()
  })
})
