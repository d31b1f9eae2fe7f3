const FORMAT = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
})

/** A moment as it is read: 26 Nov 2026, 03:30, by the clock of this device. */
export const showWhen = (iso: string): string => FORMAT.format(new Date(iso))
