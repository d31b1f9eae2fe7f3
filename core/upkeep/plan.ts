import { dayAfter, daysBetween, type Day } from '../days'
import { FILTERS, hasPump, type FilterKind } from '../kinds'
import type { MediumForm, MediumJob } from '../media'
import { bodyTask, openEvery } from './interval'
import { comingDays, type Every } from './recurrence'
import { TASK_KINDS, TASKS, waterOf, type Task, type UpkeepRule } from './rule'

/** A filter on a tank as its upkeep asks for it. */
export interface KeptFilter {
  readonly id: string
  readonly tankId: string
  readonly label: string
  readonly kind: FilterKind
  /** The day it was set up; null: nobody said, and its work starts with the tank's record. */
  readonly since: Day | null
  /** Forms and jobs of its media. */
  readonly media: readonly { readonly form: MediumForm; readonly job: MediumJob }[]
  readonly prefilter: boolean
  readonly lamp: boolean
  /** Days until it is due by its forecast; null where there is none. */
  readonly forecast: number | null
}

/** A task of one filter: how often, from when, in what water. */
export interface Chore {
  readonly key: string
  readonly tankId: string
  readonly filterId: string
  readonly task: Task
  readonly label: string
  readonly how: string
  readonly water: string | null
  readonly biological: boolean
  readonly every: Every
  readonly start: Day
  /** It comes by the forecast of its flow, not by the calendar. */
  readonly byFlow: boolean
}

const needs: Readonly<Record<Task, (f: KeptFilter) => boolean>> = {
  prefilter: (f) => f.prefilter,
  open: (f) => !FILTERS[f.kind].foamIsMedia,
  impeller: (f) => hasPump(f.kind),
  fine: (f) => f.media.some((m) => m.job === 'fine'),
  pads: (f) => !FILTERS[f.kind].foamIsMedia && f.media.some((m) => m.form === 'foam' && m.job !== 'fine'),
  sponge: (f) => FILTERS[f.kind].foamIsMedia === true && f.media.some((m) => m.form === 'foam'),
  carbon: (f) => f.media.some((m) => m.form === 'carbon'),
  resin: (f) => f.media.some((m) => m.form === 'resin'),
  nitrate: () => false,
  lamp: (f) => f.lamp,
  // A sealed head on hoses.
  rings: (f) => FILTERS[f.kind].hoses && FILTERS[f.kind].circuit === 'closed',
}

/** Days of an interval, roughly: for shifting and drawing. */
export const roughly = (every: Every): number =>
  'days' in every ? every.days : Math.round(every.months * 30.44)

/** Tasks that touch the film stand so many days apart on one tank (ours). */
const APART = 7

/**
 * The work of the filters of one tank by a house rule. Filters on one tank alternate: the second begins half an
 * interval later. What touches the film keeps {@link APART} days from what else does.
 */
export function choresOf(filters: readonly KeptFilter[], rule: UpkeepRule, from: Day): readonly Chore[] {
  const all = filters.flatMap((f, i) =>
    TASKS.filter((t) => needs[t](f)).map((task): Chore => {
      const { label, how, biological, every: usual } = TASK_KINDS[task]
      const opens = task === bodyTask(f.kind) ? openEvery(f.kind, f.forecast, rule) : null
      const byFlow = opens?.from === 'forecast'
      const days = opens?.days ?? rule.every[task]
      const every = days === undefined ? usual : { days }
      const shift = Math.round((roughly(every) * i) / filters.length)
      return {
        key: `${f.id}:${task}`,
        tankId: f.tankId,
        filterId: f.id,
        task,
        label,
        how,
        biological,
        water: waterOf(task, rule.rinse),
        every,
        start: dayAfter(f.since ?? from, shift),
        byFlow,
      }
    }),
  )
  return spread(all)
}

/** Work on the film of one tank, none within {@link APART} days of another’s start. */
function spread(chores: readonly Chore[]): readonly Chore[] {
  let last: Day | null = null
  return chores.map((c) => {
    if (!c.biological) return c
    const start: Day = last !== null && daysBetween(last, c.start) < APART ? dayAfter(last, APART) : c.start
    last = start
    return { ...c, start }
  })
}

/** Record of one due day: done, skipped, or moved to another day. */
export interface Ticked {
  readonly tankId: string
  readonly filterId: string
  readonly task: Task
  readonly due: Day
  readonly state: 'done' | 'skipped' | 'moved'
  /** The day it was done on, or moved to. */
  readonly on: Day
}

/** One day on which a chore is due. */
export interface Occasion {
  readonly chore: Chore
  readonly due: Day
  readonly state: 'done' | 'skipped' | 'due' | 'overdue' | 'ahead'
  /** The day it is to be done on: where it was moved, that one. */
  readonly on: Day
  /** It was put off so that not too much of the film is touched at once. */
  readonly putOff?: true
}

/** Days a chore falls on after one day, to the end of the window. */
function comingFrom(
  chore: Chore,
  ticked: readonly Ticked[],
  begin: Day,
  { to, today }: { readonly to: Day; readonly today: Day },
): readonly Occasion[] {
  return comingDays(chore.every, begin, to).map((due): Occasion => {
    const on = ticked.findLast((t) => t.state === 'moved' && t.due === due)?.on ?? due
    const state = on < today ? 'overdue' : on === today ? 'due' : 'ahead'
    return { chore, due, on, state }
  })
}

/**
 * The days of a chore from one day to another. Each next day counts from when the last was done or let go, so a long
 * gap leaves one thing overdue and not a row of them.
 */
export function occasionsOf(
  chore: Chore,
  ticked: readonly Ticked[],
  window: { readonly from: Day; readonly to: Day; readonly today: Day },
): readonly Occasion[] {
  const own = ticked
    .filter((t) => t.tankId === chore.tankId && t.filterId === chore.filterId && t.task === chore.task)
    .sort((a, b) => a.on.localeCompare(b.on))
  const past = own
    .filter((t) => t.state !== 'moved')
    .map((t): Occasion => ({ chore, due: t.due, on: t.on, state: t.state === 'done' ? 'done' : 'skipped' }))
  const lastOn = past.at(-1)?.on ?? null
  const begin = lastOn ?? chore.start
  const ahead = comingFrom(chore, own, begin, window)
  const waiting = ahead.find((o) => o.state === 'overdue')
  // What comes after it counts from the day it will be done on: today, at the earliest.
  const out = waiting
    ? [...past, waiting, ...comingFrom(chore, own, window.today, window)]
    : [...past, ...ahead]
  return out
    .filter((o) => (o.on >= window.from && o.on <= window.to) || o.state === 'overdue')
    .sort((a, b) => a.on.localeCompare(b.on))
}

/**
 * The work of one tank with its filters. Of what touches the film only one thing is asked for within {@link APART}
 * days: what would come sooner is put off. What is overdue comes first, and is never put off.
 */
export function tankOccasions(
  filters: readonly KeptFilter[],
  rule: UpkeepRule,
  ticked: readonly Ticked[],
  window: { readonly from: Day; readonly to: Day; readonly today: Day; readonly since: Day },
): readonly Occasion[] {
  const all = choresOf(filters, rule, window.since).flatMap((c) => occasionsOf(c, ticked, window))
  let last: Day | null = null
  return [...all]
    .sort((a, b) => a.on.localeCompare(b.on))
    .map((o): Occasion => {
      if (!o.chore.biological || o.state === 'skipped') return o
      const waits = o.state === 'ahead' || o.state === 'due'
      const kept: Occasion =
        waits && last !== null && daysBetween(last, o.on) < APART
          ? { ...o, on: dayAfter(last, APART), state: 'ahead', putOff: true }
          : o
      // What is overdue will be done today at the earliest.
      last = kept.state === 'overdue' ? window.today : kept.on
      return kept
    })
}
