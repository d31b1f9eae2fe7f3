import { PAGE_COOKIES } from '@ypsometer/contract/page'
import { makeStore } from './store'
import type { UnitSystem } from '@ypsometer/core/units/dimensions'

export const THEMES = ['paper', 'fishroom'] as const
export type Theme = (typeof THEMES)[number]

/** A value kept in this browser, with subscribers; falls back to memory where storage is refused. */
function kept<T extends string>(key: string, initial: () => T, apply?: (value: T) => void) {
  let first = initial()
  try {
    first = (localStorage.getItem(key) as T | null) ?? first
  } catch {
    // A private window without storage.
  }
  const { get, set, use } = makeStore<T>(first)
  // Whoever draws without a browser has nobody to tell.
  if (first !== initial() && typeof document !== 'undefined') apply?.(first)
  return {
    get,
    use: (): T => use(),
    set: (next: T) => {
      try {
        localStorage.setItem(key, next)
      } catch {
        // The choice lasts for this page.
      }
      apply?.(next)
      set(next)
    },
  }
}

/** Tells the server a choice that its pages are drawn by, by a cookie. Who reads a review by its link gets none. */
const tell =
  (key: string) =>
  (value: string): void => {
    if (typeof document !== 'undefined' && !location.pathname.startsWith('/s/'))
      document.cookie = `${key}=${value}; path=/; max-age=31536000; samesite=lax`
  }

export const SYSTEMS: readonly (readonly [UnitSystem, string])[] = [
  ['metric', 'Metric'],
  ['us', 'US'],
  ['imperial', 'Imperial'],
]
export const units = kept<UnitSystem>(PAGE_COOKIES.units, () => 'metric', tell(PAGE_COOKIES.units))
export const theme = kept<Theme>(
  PAGE_COOKIES.theme,
  () =>
    typeof document !== 'undefined' && document.documentElement.dataset.theme === 'fishroom'
      ? 'fishroom'
      : 'paper',
  (t) => {
    if (typeof document !== 'undefined') document.documentElement.dataset.theme = t
    tell(PAGE_COOKIES.theme)(t)
  },
)

/** Signs between whole and broken numbers, and the one this reader has. */
export const DECIMALS = ['.', ','] as const
export type Decimal = (typeof DECIMALS)[number]
export const decimal = kept<Decimal>(PAGE_COOKIES.decimal, () => '.', tell(PAGE_COOKIES.decimal))

/** The 95 % interval a timing should reach, as a share of the flow. */
export const PRECISIONS = ['0.02', '0.03', '0.05', '0.1'] as const
export const precision = kept<(typeof PRECISIONS)[number]>('ypsometer.precision', () => '0.03')

/** Models put by to be compared, at most four: their ids and names. */
export interface PutBy {
  readonly id: string
  readonly name: string
}
export const MOST_COMPARED = 4
const tray = kept<string>('ypsometer.compare', () => '[]')
const readTray = (text: string): readonly PutBy[] => {
  try {
    const list: unknown = JSON.parse(text)
    return Array.isArray(list) ? (list as PutBy[]).slice(0, MOST_COMPARED) : []
  } catch {
    return []
  }
}
export const compareTray = {
  use: (): readonly PutBy[] => readTray(tray.use()),
  set: (list: readonly PutBy[]): void => tray.set(JSON.stringify(list.slice(0, MOST_COMPARED))),
}

/** What the card of this reader’s test kit counts: the ion or the nitrogen in it; empty while nobody has said. */
export type KitCounts = 'ion' | 'nitrogen'
/** Whether single keys act on their own: off for who speaks to the machine or rests a hand on the keys. */
export const singleKeys = kept<'on' | 'off'>('ypsometer.keys', () => 'on')

export const kitCounts = kept<KitCounts | ''>('ypsometer.kit', () => '')
