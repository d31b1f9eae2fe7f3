// What the server and the app tell each other of a page before any of the app’s code has come.

/** Cookies by which the app tells what its pages are drawn by: choices of the reader, and that something waits. */
export const PAGE_COOKIES = {
  units: 'ypsometer.units',
  decimal: 'ypsometer.decimal',
  theme: 'ypsometer.theme',
  /** Something waits on this device that the server does not know. */
  waiting: 'ypsometer.waiting',
} as const

/** Most rows of a page of a list. */
export const MOST_OF_PAGE = 500
/** The address of the first page of a list, by the path of its rows. */
export const firstPage = (path: string): string => `/${path}?limit=${MOST_OF_PAGE}`
