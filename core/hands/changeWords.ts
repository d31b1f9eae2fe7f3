import { type Keeping, type Films, type Simulation, KIT_ZERO } from '../biology'
import { dayAfter, type Day, dayText } from '../days'
import { inline, type Figure, type Sentence } from '../figures'
import type { ChangeWay } from './vocabulary'
import type { Belief } from '../clogging'
import { unionisedLimitOf } from '../water'

/** Subject of a change-over. */
export interface ChangeSubject {
  readonly way: ChangeWay
  /** Weeks beside each other that were agreed. */
  readonly weeks: number
  /** Share of a ripe film that comes with the media moved. */
  readonly share: number
  readonly keeping: Keeping
  /** Films of the old filter, of all others that stay, and of the new one. */
  readonly old: Films | null
  readonly stay: readonly Films[]
  readonly next: Films
  /** Shrimp, fry or the like live there, which do not stand what fish do. */
  readonly delicate?: boolean
}

/** Most weeks two filters are left beside each other. */
export const MOST_WEEKS = 26

/** Days. */
export const WEEK = 7

/** Half the feed for so long after the old one is off (days; common practice, no source). */
const EASY = 3

/** A test of the water on a day (kg/m³, as N); null for what was not tested. */
export interface ChangeTest {
  readonly on: Day
  readonly ammonia: number | null
  readonly nitrite: number | null
}

/** Tasks on a day of the plan. */
interface PlanStep {
  readonly id: string
  readonly on: Day
  readonly says: string
  readonly why: string
}

/** A test that is wanted or was made: what the balance says of the day, and what was read. */
export interface PlannedTest {
  readonly on: Day
  readonly predicted: { readonly ammonia: Figure; readonly nitrite: Figure }
  readonly made: ChangeTest | null
}

/** The plan of a change-over, as the constants have it and as the tests moved it. */
export interface ChangePlan {
  readonly told: Simulation
  readonly asShipped: Simulation
  readonly belief: Belief
  readonly steps: readonly PlanStep[]
  readonly tests: readonly PlannedTest[]
  /** Weeks beside each other: as agreed, as the balance wants, and as planned. */
  readonly weeks: { readonly agreed: number; readonly least: number | null; readonly planned: number } | null
  /** First day from which a kit reads zero: at the middle, soonest and latest (95 %); null: not within its time. */
  readonly safe: { readonly soonest: Day | null; readonly middle: Day | null; readonly latest: Day | null }
  /** Days by which the tests moved the end of it; positive: later. Null where one of the two is not within its time. */
  readonly moved: number | null
  readonly sentences: readonly {
    readonly tone: 'note' | 'caution' | 'against'
    readonly sentence: Sentence
  }[]
}

/** Source of the forecast. */
export const SOURCE = 'Metcalf and Eddy (growth), Zhu and Chen 1999 (uptake); from memory'

/** The steps of a change-over of which nothing can be worked out: as agreed, with their dates. */
export const plainSteps = (c: Pick<ChangeSubject, 'way' | 'weeks'>, began: Day): readonly PlanStep[] =>
  changeSteps(c, began, c.way === 'beside' ? c.weeks * WEEK : null, null, false)

/** The steps of a filter swap by its way, each with its day and reason. */
export function changeSteps(
  c: Pick<ChangeSubject, 'way'>,
  began: Day,
  off: number | null,
  safe: Day | null,
  stays: boolean,
): readonly PlanStep[] {
  const step = (id: string, day: number, says: string, why: string): PlanStep => ({
    id,
    on: dayAfter(began, day),
    says,
    why,
  })
  const eased = off === null ? began : dayAfter(began, off + EASY)
  const end: PlanStep[] = safe
    ? [
        {
          id: 'safe',
          on: safe > eased ? safe : eased,
          says: 'Full feeding, test once a week',
          why: 'From here on the test kit should read 0.',
        },
      ]
    : []
  switch (c.way) {
    case 'beside':
      return [
        step(
          'on',
          0,
          'Start the new filter; leave the old one running',
          'Bacteria from the old filter settle in the new one.',
        ),
        step(
          'leave',
          1,
          'Do not clean either filter meanwhile, except the pre-filter',
          'Young biofilm washes off easily.',
        ),
        ...(stays
          ? [
              step(
                'weekly',
                WEEK,
                'Keep both filters. Test ammonia and nitrite weekly',
                'The forecast never lets the new filter hold the tank alone. Move mature media over to change that.',
              ),
            ]
          : []),
        ...(off === null
          ? []
          : [
              step(
                'test',
                off - 1,
                'Test ammonia and nitrite. Both 0? If not, wait.',
                'If they are not 0 before the swap, look for another cause.',
              ),
              step(
                'off',
                off,
                'Remove the old filter; keep it running in a bucket of tank water for a week',
                'If a test shows colour, put it back.',
              ),
              step(
                'feed',
                off,
                `Half the feed for ${EASY} days`,
                'Halves the ammonia while the bacteria grow.',
              ),
            ]),
        ...end,
      ]
    case 'moved':
      return [
        step(
          'move',
          0,
          'Move mature media within the hour: wet, rinsed in tank water only',
          'Bacteria die when they dry, and in chlorine.',
        ),
        step(
          'feed',
          0,
          'Half the feed for a week',
          'The moved media process part of the load. The rest has to grow.',
        ),
        step('leave', 1, 'Clean only the pre-filter for four weeks', 'Young biofilm washes off easily.'),
        ...end,
      ]
    case 'starter':
      return [
        step(
          'starter',
          0,
          'Pour the bacteria into the filter, not the tank; UV-C lamp off for two days',
          'They must reach the media, and the lamp kills them.',
        ),
        step(
          'few',
          0,
          'Few fish and half the feed until the test kit reads 0',
          'Bottled bacteria only start the process.',
        ),
        step('leave', 1, 'Clean only the pre-filter for six weeks', 'Young biofilm washes off easily.'),
        ...end,
      ]
  }
}

/** Share of the water to change to bring a concentration down to a limit: 1 − limit ÷ C. */
const changeTo = (value: number, limit: number): number => Math.max(0, 1 - limit / value)

/** Nitrite that fish in fresh water should not live in (kg/m³ as N). Common practice, no source. */
const NITRITE_LIMIT = 0.5e-3

/** More than this on one day upsets more than it helps (common practice, no source). */
const MOST_CHANGED = 0.5

interface Come {
  readonly told: Simulation
  readonly slow: Simulation
  readonly belief: Belief
  readonly weeks: ChangePlan['weeks']
  readonly first: ChangePlan['weeks']
  readonly moved: number | null
  readonly learnt: boolean
  /** Days of tests that no pace explains. */
  readonly unlike: readonly Day[]
}

/** What is said of a plan: what is missing, what the tests taught, and what the water will show. */
export function changeSentences(c: ChangeSubject, come: Come): ChangePlan['sentences'] {
  const { told, belief, weeks, first, moved, learnt, unlike } = come
  const out: { tone: 'note' | 'caution' | 'against'; sentence: Sentence }[] = []
  const add = (tone: 'note' | 'caution' | 'against', ...sentence: Sentence): void =>
    void out.push({ tone, sentence })
  if (c.way === 'beside' && !c.old)
    add(
      'caution',
      'The media of the old filter are unknown, so the new one is assumed to start without bacteria.',
    )
  if (weeks?.least === null)
    add(
      'against',
      `The new filter cannot take over alone within ${MOST_WEEKS} weeks. Move mature media, or keep both.`,
    )
  else if (weeks && weeks.least > weeks.agreed)
    add(
      'caution',
      `${weeks.agreed} ${weeks.agreed === 1 ? 'week' : 'weeks'} side by side ${weeks.agreed === 1 ? 'is' : 'are'} not enough: the forecast needs ${weeks.least}.`,
    )
  else if (weeks)
    add('note', `The forecast needs at least ${weeks.least} of the ${weeks.agreed} weeks side by side.`)
  if (unlike.length)
    add(
      'against',
      `The reading of ${unlike.map(dayText).join(', ')} does not fit any normal cycle. Test again. Then look for a dead animal, overfeeding or untreated tap water.`,
    )
  if (learnt && Math.abs(belief.mean) > 0.05) {
    const times = (x: number): string => Math.exp(x).toFixed(2)
    add(
      'note',
      `By your tests, bacteria here grow ${times(belief.mean)} times as fast as assumed (${times(belief.low)} to ${times(belief.high)}).`,
      ...(moved
        ? [
            ` The end moves ${Math.abs(moved)} ${Math.abs(moved) === 1 ? 'day' : 'days'} ${moved > 0 ? 'later' : 'earlier'}.`,
          ]
        : []),
      ...(weeks && first && weeks.planned !== first.planned
        ? [` The old filter stays ${weeks.planned} weeks instead of ${first.planned}.`]
        : []),
    )
  } else if (learnt && !unlike.length) add('note', 'Tests match the plan so far.')
  const { peakAmmonia, peakNitrite } = told
  const limit = unionisedLimitOf(c.keeping.pH, c.keeping.temperature)
  const peaks = [
    { what: 'Ammonia', peak: peakAmmonia, limit },
    { what: 'Nitrite', peak: peakNitrite, limit: NITRITE_LIMIT },
  ]
  for (const { what, peak, limit: most } of peaks) {
    if (peak.value <= KIT_ZERO) continue
    const figure: Figure = {
      id: `change-peak-${what.toLowerCase()}`,
      label: `Peak ${what.toLowerCase()}, as N`,
      value: peak.value,
      dimension: 'concentration',
      provenance: 'computed',
      conditions: [`day ${Math.round(peak.day)}, full feeding`],
      source: SOURCE,
    }
    const day = `around day ${Math.round(peak.day)}`
    if (peak.value <= most)
      add(
        c.delicate ? 'caution' : 'note',
        `${what} peaks at `,
        inline(figure, 2),
        ` ${day}. ${c.delicate ? 'Shrimp and fry may not survive it: wait until the test kit reads 0.' : 'Fish tolerate that; test, and feed half.'}`,
      )
    else {
      const share = changeTo(peak.value, most)
      add(
        'against',
        `${what} would peak at `,
        inline(figure, 2),
        ` ${day} at full feeding. `,
        share > MOST_CHANGED
          ? 'Too much for water changes: fewer fish, half the feed, or another method.'
          : `Change ${Math.ceil(share * 10) * 10} % of the water when a test shows it, and feed half.`,
      )
    }
  }
  if (told.safeFrom === null) add('against', 'A test kit will not read zero in this period.')
  return out
}
