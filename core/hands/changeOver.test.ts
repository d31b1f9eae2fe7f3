import { simulate } from '../biology'
import { dayAfter, daysBetween } from '../days'
import { sentenceText } from '../figures'
import { changeStory, leastWeeks, planChange } from './changeOver'
import { plainSteps, type ChangeSubject } from './changeWords'
import { filmsOfMass } from '../path/films'
import { BEGAN, keeping, subject } from './swap.fixture'

/** What a filter swap asks for, day by day, from the lists of its ways (common practice, no source). */
const DAY = 86400
/** Media for a tenth of a litre a day: no tank of this size is ever held by it. */
const tiny = filmsOfMass(0.02, 50 / 3.6e6, 0.9)
const dated = (steps: ReturnType<typeof plainSteps>) => steps.map((s) => [s.id, daysBetween(BEGAN, s.on)])
const daysOf = (plan: ReturnType<typeof planChange>) => plan.tests.map((t) => daysBetween(BEGAN, t.on))
const says = (plan: ReturnType<typeof planChange>) =>
  plan.sentences.map((s) => `${s.tone}: ${sentenceText(s.sentence, 'metric')}`)

test.each([
  ['beside', 2, [['on', 0], ['leave', 1], ['test', 13], ['off', 14], ['feed', 14]]],
  ['moved', 2, [['move', 0], ['feed', 0], ['leave', 1]]],
  ['starter', 2, [['starter', 0], ['few', 0], ['leave', 1]]],
] as const)('%s: its steps with their days; each says why', (way, weeks, wanted) => {
  const steps = plainSteps({ way, weeks }, BEGAN)
  expect(dated(steps)).toEqual(wanted)
  for (const s of steps) expect([s.says, s.why].every((t) => t.length > 10)).toBe(true)
}) // prettier-ignore

test('beside, planned: off on its day, full feeding once the new one has had three easy days', () => {
  const plan = planChange(subject('beside', { weeks: 6 }), BEGAN, [])
  expect(plan.weeks?.least).toBeLessThanOrEqual(6)
  // Off on day 42; half the feed for three days.
  expect(dated(plan.steps)).toEqual([['on', 0], ['leave', 1], ['test', 41], ['off', 42], ['feed', 42], ['safe', 45]]) // prettier-ignore
  expect(plan.steps.find((s) => s.id === 'feed')?.says).toBe('Half the feed for 3 days')
  expect(says(plan)).toContain(
    `note: The forecast needs at least ${plan.weeks?.least} of the 6 weeks side by side.`,
  )
  // The day before, at the start, and 1, 3, 7 and 14 days after, until a week past the end.
  expect(daysOf(plan)).toEqual([0, 41, 43, 45, 49])
})

test('beside one that never holds alone: both stay, tests every week, no day to take the old one off', () => {
  const plan = planChange(subject('beside', { weeks: 6, next: tiny }), BEGAN, [])
  expect(leastWeeks(subject('beside', { weeks: 6, next: tiny }), 1)).toBeNull()
  expect(dated(plan.steps)).toEqual([['on', 0], ['leave', 1], ['weekly', 7]]) // prettier-ignore
  expect(daysOf(plan)).toEqual([7, 14, 21, 28, 35, 42, 49, 56])
  expect(plan.safe).toEqual({ soonest: null, middle: null, latest: null })
  expect(says(plan)[0]).toBe('against: The new filter cannot take over alone within 26 weeks. Move mature media, or keep both.') // prettier-ignore
})

test('weeks that are too few are said in their number', () => {
  const of = (weeks: number) => planChange(subject('beside', { weeks }), BEGAN, [])
  const { weeks } = of(2)
  expect(weeks?.least).toBeGreaterThan(2)
  expect(says(of(1))[0]).toBe(`caution: 1 week side by side is not enough: the forecast needs ${weeks?.least}.`) // prettier-ignore
  expect(says(of(2))[0]).toBe(`caution: 2 weeks side by side are not enough: the forecast needs ${weeks?.least}.`) // prettier-ignore
  expect(says(planChange(subject('beside', { weeks: 6, old: null }), BEGAN, []))[0]).toBe('caution: The media of the old filter are unknown, so the new one is assumed to start without bacteria.') // prettier-ignore
  expect(planChange(subject('moved', { old: null }), BEGAN, []).sentences.some((s) => s.tone === 'caution')).toBe(false) // prettier-ignore
})

test.each([
  ['moved', [1, 2, 4, 7, 10, 14, 21, 28]],
  ['starter', [1, 2, 4, 6, 8, 10, 14, 18, 22, 28, 35, 42]],
] as const)('%s: often at first; all of them while it is not safe, and none later than a week after it is', (way, all) => {
  expect(daysOf(planChange(subject(way, { next: tiny }), BEGAN, []))).toEqual(all)
  const plan = planChange(subject(way), BEGAN, [])
  const safe = plan.told.safeFrom ?? NaN
  expect(daysOf(plan)).toEqual(all.filter((d, i) => i < 3 || d <= safe + 7))
  // What is made is on the list with what was foretold of its day, once.
  const made = { on: dayAfter(BEGAN, 3), ammonia: null, nitrite: null }
  const with_ = planChange(subject(way), BEGAN, [made, { ...made, on: dayAfter(BEGAN, 4) }])
  expect(daysOf(with_).slice(0, 4)).toEqual([1, 2, 3, 4])
  expect(with_.tests.map((t) => t.made !== null).slice(0, 4)).toEqual([false, false, true, true])
}) // prettier-ignore

test('tests that are as foretold say so, and move nothing; what was learnt is measured, what was not is a rule', () => {
  const c = subject('moved', { share: 0.1 })
  const truth = simulate(changeStory(c, 0, 1))
  const on = (day: number) => truth.points.find((p) => p.day >= day)
  const made = [1, 2].map((day) => ({ on: dayAfter(BEGAN, day), ammonia: on(day)?.ammonia ?? 0, nitrite: on(day)?.nitrite ?? 0 })) // prettier-ignore
  const [plain, learnt] = [planChange(c, BEGAN, []), planChange(c, BEGAN, made)]
  expect(Math.abs(learnt.belief.mean)).toBeLessThan(0.05)
  expect(says(learnt)).toContain('note: Tests match the plan so far.')
  expect(says(plain).join()).not.toContain('Tests match')
  const pace = (p: typeof plain) => p.tests[0]?.predicted.ammonia.working?.[0]?.provenance
  expect([pace(plain), pace(learnt)]).toEqual(['rule', 'measured'])
  expect([plain.tests[0]?.predicted.ammonia.label, plain.tests[0]?.predicted.nitrite.label]).toEqual(['Ammonia on day 1, as N', 'Nitrite on day 1, as N']) // prettier-ignore
  // One unknown of a line through two of its points: a reading that is left out teaches nothing.
  expect(planChange(c, BEGAN, made.map((t) => ({ ...t, ammonia: null, nitrite: null }))).belief).toEqual(plain.belief) // prettier-ignore
})

test('a slow tank: how slow, how sure, and how many days later, in one breath', () => {
  const c = subject('moved', { share: 0.1 })
  const slow = simulate(changeStory(c, 0, 0.6))
  const made = [2, 4, 7].map((day) => {
    const p = slow.points.findLast((x) => x.day <= day)
    return { on: dayAfter(BEGAN, day), ammonia: p?.ammonia ?? 0, nitrite: p?.nitrite ?? 0 }
  })
  const plan = planChange(c, BEGAN, made)
  const [mean, low, high] = [plan.belief.mean, plan.belief.low, plan.belief.high].map((x) => Math.exp(x).toFixed(2)) // prettier-ignore
  expect(says(plan)).toContain(
    `note: By your tests, bacteria here grow ${mean} times as fast as assumed (${low} to ${high}). The end moves ${plan.moved} ${plan.moved === 1 ? 'day' : 'days'} later.`,
  )
  expect(plan.moved).toBe(daysBetween(planChange(c, BEGAN, []).safe.middle ?? '', plan.safe.middle ?? ''))
})

test('peaks: told of fish and of shrimp by their limits, with the water to change up to a half', () => {
  const peak = (more: Partial<ChangeSubject>) => {
    const plan = planChange(subject('starter', more), BEGAN, [])
    return [plan.told, says(plan)] as const
  }
  // 5.38 % at pH 8 and 25 °C, 1.6 % at 7.5 (Emerson et al. 1975, from memory): 0.025 mg/L NH₃ is 1.28 mg/L as N there.
  const [told, fish] = peak({ keeping: { ...keeping, feed: 0.4e-3 / DAY } })
  const of = (what: 'Ammonia' | 'Nitrite') => told[`peak${what}`]
  expect(of('Ammonia').value).toBeLessThan(1.28e-3)
  const day = (what: 'Ammonia' | 'Nitrite') => `around day ${Math.round(of(what).day)}`
  expect(fish.find((s) => s.includes('Ammonia peaks'))).toMatch(new RegExp(`^note: Ammonia peaks at .* mg/L ${day('Ammonia')}\\. Fish tolerate that; test, and feed half\\.$`)) // prettier-ignore
  const [, shrimp] = peak({ keeping: { ...keeping, feed: 0.4e-3 / DAY }, delicate: true })
  expect(shrimp.find((s) => s.includes('Ammonia peaks'))).toMatch(/^caution: .*Shrimp and fry may not survive it: wait until the test kit reads 0\.$/) // prettier-ignore
  // Ten times the feed: over the limit, by so much that no water change mends it.
  const [high, much] = peak({})
  expect(high.peakNitrite.value).toBeGreaterThan(1e-3)
  expect(much.find((s) => s.includes('Nitrite would peak'))).toMatch(/^against: Nitrite would peak at .* at full feeding\. Too much for water changes: fewer fish, half the feed, or another method\.$/) // prettier-ignore
  expect(peak({ next: tiny })[1].at(-1)).toBe('against: A test kit will not read zero in this period.')
})
