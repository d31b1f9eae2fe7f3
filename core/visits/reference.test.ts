import { dayAfter, daysBetween, mondayOf } from '../days'
import type { Figure } from '../figures'
import { runs, visit } from './tests/support'
import {
  flowLeft,
  partHistories,
  historyOf,
  observationsOf,
  unitSurvival,
  visitFlow,
  wantedVisits,
  waterProofs,
} from './history'
import { usedChecks, usedWorth, type VisitRecord } from '.' // prettier-ignore

test('days of the calendar: leap years, the 31st, clocks that change (Gregorian calendar, by hand)', () => {
  expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2)
  expect(daysBetween('2028-02-28', '2028-03-01')).toBe(2)
  expect(daysBetween('2026-11-26', '2026-11-20')).toBe(-6)
  expect([dayAfter('2026-12-31', 1), dayAfter('2026-10-24', 1)]).toEqual(['2027-01-01', '2026-10-25'])
  // 26 November 2026 is a Thursday.
  expect(mondayOf('2026-11-26')).toBe('2026-11-23')
})

describe('flow left', () => {
  const story = historyOf(
    [
      visit('v1', '2026-09-30', { runsBefore: runs(33, 33.5, 33.2), runsAfter: runs(24, 24.2) }),
      visit('set', '2026-09-01', { stage: 'set-up', runsBefore: runs(23.1, 22.9, 23) }),
    ],
    '2026-09-01',
  )
  test('as a share of the first, by hand: 23.0 s against 33.23 s is 69 %, and only the scatter counts', () => {
    const left = flowLeft(story, story.visits[1] as VisitRecord)
    expect(left?.value).toBeCloseTo(23 / 33.2333, 3)
    // Scatter of one run in the three sets: 0.757 %, 0.587 % and 0.435 % on 2, 1 and 2 degrees: 0.606 % pooled on 5; with
    // the usual 2 % on 4 it is √[(5 · 0.606² + 4 · 2²)/9] = 1.408 %; t = 2.262; √(1/3 + 1/3) = 0.8165.
    expect((left?.uncertainty ?? 0) / (left?.value ?? 1)).toBeCloseTo(2.262 * 0.01408 * 0.8165, 4)
    expect(left?.label).toContain('29 days')
    expect(flowLeft(story, story.visits[0] as VisitRecord)).toBeNull()
    expect(visitFlow(story.visits[1] as VisitRecord, 'after')?.value).toBeCloseTo(0.005 / 24.1, 7)
    expect(visitFlow(story.visits[0] as VisitRecord, 'after')).toBeNull()
  })
  test('a visit dated before the unit came is left out and named; the first flow may be that after a cleaning', () => {
    const early = historyOf([visit('x', '2026-08-01', { runsBefore: runs(20) })], '2026-09-01')
    expect([early.visits.length, early.tooEarly.map((v) => v.id), early.first]).toEqual([0, ['x'], null])
    const later = historyOf([visit('a', '2026-09-02', { runsBefore: runs(30), runsAfter: runs(25) })], null)
    expect(later.first?.flow.mean).toBeCloseTo(0.005 / 25, 8)
    expect(observationsOf(early, [])).toEqual({ seen: [], services: [] })
  })
  test('what it tells a forecast: days from the first flow, and what was taken out', () => {
    const cleaned = historyOf(
      [
        ...story.visits.slice(0, 1),
        visit('v2', '2026-12-30', {
          runsBefore: runs(40),
          cleaned: [
            { what: 'pad', how: 'renewed' },
            { what: 'impeller', how: 'wiped' },
            { what: 'everything', how: 'tank-water' },
          ],
        }),
      ],
      null,
    )
    const told = observationsOf(cleaned, [{ id: 'pad' }, { id: 'foam' }])
    // A gap of four months is a gap: nothing is made up between.
    expect(told.seen.map((s) => s.day)).toEqual([120])
    // A forecast takes a standard uncertainty: half of what is shown for 95 %.
    const shown = flowLeft(cleaned, cleaned.visits[1] as VisitRecord)
    expect((told.seen[0]?.uncertainty ?? 0) / (shown?.uncertainty ?? 1)).toBeCloseTo(0.5, 12)
    expect(told.services).toEqual([
      { day: 120, layers: ['pad'], share: 1 },
      { day: 120, layers: null, share: 0.85 },
    ])
  })
})

test('visits a house wants: made when near enough, due, ahead, missed when the next has come', () => {
  const wanted = wantedVisits([1, 14, 90, 30, 180], '2026-09-01', ['2026-09-02', '2026-10-03'], '2026-12-05')
  expect(wanted.map((w) => [w.days, w.state])).toEqual([
    [1, 'made'],
    [14, 'missed'],
    [30, 'made'],
    [90, 'due'],
    [180, 'ahead'],
  ])
  expect(wanted[3]?.on).toBe('2026-11-30')
})

test('a part keeps its story', () => {
  const told = partHistories([
    visit('a', '2026-09-01', { parts: { ring: ['sound'] } }),
    visit('b', '2026-12-01', { parts: { ring: ['flat'], shaft: ['scored'] } }),
  ])
  expect(told.find((p) => p.part === 'ring')?.seen.map((s) => s.findings[0])).toEqual(['sound', 'flat'])
  expect(told.find((p) => p.part === 'shaft')?.seen).toHaveLength(1)
})

test('units that fail: product-limit by hand, 3 units, one fails at 100 days of three, one at 200 of two', () => {
  const unit = (specimenId: string, days: number, failed: boolean): VisitRecord[] => [
    visit(`${specimenId}0`, '2026-01-01', { specimenId }),
    visit(`${specimenId}1`, dayAfter('2026-01-01', days), { specimenId, failed: failed ? [{ part: 'impeller', how: 'worn' }] : [] }), // prettier-ignore
  ]
  const s = unitSurvival([...unit('a', 100, true), ...unit('b', 200, true), ...unit('c', 300, false)])
  expect(s?.steps.map((x) => x.survival)).toEqual([expect.closeTo(2 / 3, 12), expect.closeTo(1 / 3, 12)])
  expect([s?.units, (s?.median ?? 0) / 86400]).toEqual([3, 200])
  expect(unitSurvival([visit('x', '2026-01-01')])).toBeNull()
})

test('water as proof: within both uncertainties it is borne out; a binder is said', () => {
  const expected: Figure = { id: 'e', label: 'e', value: 1.2e-4, uncertainty: 5e-5, dimension: 'concentration', provenance: 'computed' } // prettier-ignore
  const say = (ammonia: number, binder = false): string =>
    waterProofs(
      { id: 'v', on: '2026-09-01', ammonia, nitrite: null, nitrate: 0.02, binder },
      { ammonia: expected },
    )
      .map((p) => p.sentence.filter((x) => typeof x === 'string').join('#'))
      .join('|')
  expect(say(1e-4)).toMatch(/borne out/)
  expect(say(5e-4)).toMatch(/more than the balance/)
  expect(say(5e-4, true)).toMatch(/binding conditioner/)
  expect(say(0)).toMatch(/borne out/)
})

test('used units: what each kind is looked at for, and half the list price less spares', () => {
  expect(usedChecks('canister').join()).toMatch(/Impeller.*O-ring.*Clips/)
  expect(usedChecks('air-sponge').join()).not.toMatch(/Impeller/)
  expect(usedWorth(10000, [{ name: 'Impeller', minor: 1500 }])?.value).toBe(3500)
  expect(usedWorth(1000, [{ name: 'Impeller', minor: 1500 }])?.value).toBe(0)
  expect(usedWorth(null, [])).toBeNull()
})
