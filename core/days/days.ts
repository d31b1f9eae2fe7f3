import { Temporal } from 'temporal-polyfill'

/** A day of the calendar, as 2026-11-26. It has no hour and no zone: clocks that change do not touch it. */
export type Day = string

/** Days from one day to another; negative where it is earlier. */
export const daysBetween = (from: Day, to: Day): number =>
  Temporal.PlainDate.from(from).until(Temporal.PlainDate.from(to), { largestUnit: 'days' }).days

/** The day so many days later. */
export const dayAfter = (day: Day, days: number): Day =>
  Temporal.PlainDate.from(day)
    .add({ days: Math.round(days) })
    .toString()

/** Day of the month, 1 to 31. */
export const dayOfMonth = (day: Day): number => Temporal.PlainDate.from(day).day

/** Year, month and day in numbers. */
export const partsOfDay = (day: Day): readonly [year: number, month: number, day: number] => {
  const d = Temporal.PlainDate.from(day)
  return [d.year, d.month, d.day]
}

/** The Monday on or before a day. */
export const mondayOf = (day: Day): Day => {
  const d = Temporal.PlainDate.from(day)
  return d.subtract({ days: d.dayOfWeek - 1 }).toString()
}
