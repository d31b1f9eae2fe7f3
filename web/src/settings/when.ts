/** A way to write moments; it is slow to make, and most pages need none at first. */
const format = (options: Intl.DateTimeFormatOptions): ((d: Date) => string) => {
  let made: Intl.DateTimeFormat | undefined
  return (d) => (made ??= new Intl.DateTimeFormat('en-GB', options)).format(d)
}
const DATE = { day: 'numeric', month: 'short', year: 'numeric' } as const
const moment = format({ ...DATE, hour: '2-digit', minute: '2-digit' })

export { dayText as showDay } from '@ypsometer/core/days/text'

/** A moment as it is read: 26 Nov 2026, 03:30, by the clock of this device. */
export const showWhen = (iso: string): string => moment(new Date(iso))

const DAY = 86_400_000
/** The date so many days from today, as 2026-11-26, by the clock of this device. */
export const dayFromNow = (days: number): string => {
  const d = new Date(Date.now() + days * DAY)
  return [d.getFullYear(), d.getMonth() + 1, d.getDate()].map((n) => String(n).padStart(2, '0')).join('-')
}

/** Today, by the clock of this device. */
export const today = (): string => dayFromNow(0)
