import * as rrule from 'rrule'
import { dayAfter, dayOfMonth, partsOfDay, type Day } from '../days'

/** The library as it is loaded: its CommonJS build, as Node takes it, stands under `default`. */
const { RRule, datetime, Frequency } = 'RRule' in rrule ? rrule : (rrule as { default: typeof rrule }).default

/** How often something comes again. */
export type Every = { readonly days: number } | { readonly months: number }

/**
 * The rule of RFC 5545 by which something comes again from a day on. A month without such a day takes its last one: the
 * 31st of April is the 30th.
 */
const ruleFrom = (every: Every, from: Day): rrule.RRule => {
  const dtstart = datetime(...partsOfDay(from))
  if ('days' in every) return new RRule({ freq: Frequency.DAILY, interval: every.days, dtstart })
  const late = dayOfMonth(from)
  return new RRule({
    freq: Frequency.MONTHLY,
    interval: every.months,
    dtstart,
    ...(late > 28 && { bymonthday: Array.from({ length: late - 27 }, (_, i) => 28 + i), bysetpos: -1 }),
  })
}

/** The rule as iCalendar has it, without its start: FREQ=DAILY;INTERVAL=7. */
export const ruleText = (every: Every, from: Day): string =>
  ruleFrom(every, from).toString().split('\n').at(-1)?.replace('RRULE:', '') ?? ''

/** No more than so many days are given. */
const MOST = 400

/** The days after one day, up to another. */
export const comingDays = (every: Every, from: Day, to: Day): readonly Day[] =>
  ruleFrom(every, from)
    .between(
      datetime(...partsOfDay(dayAfter(from, 1))),
      datetime(...partsOfDay(to)),
      true,
      (_, i) => i < MOST,
    )
    .map((d) => d.toISOString().slice(0, 10))
