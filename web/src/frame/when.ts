const FORMAT = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
})

const DAY_FORMAT = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
})
/** A day of the calendar as it is read: 2026-11-26 is 26 Nov 2026 wherever one is. */
export const showDay = (day: string): string => DAY_FORMAT.format(new Date(`${day}T00:00:00Z`))

/** A moment as it is read: 26 Nov 2026, 03:30, by the clock of this device. */
export const showWhen = (iso: string): string => FORMAT.format(new Date(iso))

const DAY = 86_400_000
/** The date so many days from today, as 2026-11-26, by the clock of this device. */
export const dayFromNow = (days: number): string => {
  const d = new Date(Date.now() + days * DAY)
  return [d.getFullYear(), d.getMonth() + 1, d.getDate()].map((n) => String(n).padStart(2, '0')).join('-')
}
