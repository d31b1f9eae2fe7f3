// What the first page knows of core’s lists: the build puts it in as constants, without the lists.
import { looksAtTanks, STATIONS, type Station } from '@ypsometer/core/judging/stations'
import { FILTER_KINDS, FILTERS, type FilterKind } from '@ypsometer/core/kinds/filters'

/** The stations of the work in their order, and whether each looks at tanks too. */
export const STATION_LIST: readonly (readonly [station: Station, onTanks: boolean])[] = STATIONS.map((s) => [
  s,
  looksAtTanks(s),
])

/** Name of each kind of filter. */
export const KIND_WORDS = Object.fromEntries(FILTER_KINDS.map((k) => [k, FILTERS[k].name])) as Readonly<
  Record<FilterKind, string>
>
