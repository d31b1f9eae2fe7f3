const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const

/** A day of the calendar as it is read: 2026-11-26 is 26 Nov 2026, wherever one is. */
export const dayText = (day: string): string => {
  const [year, month, date] = day.split('-')
  return `${Number(date)} ${MONTHS[Number(month) - 1] ?? month} ${year}`
}
