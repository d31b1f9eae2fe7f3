import { looksAtTanks, STATIONS, type Station } from '@ypsometer/core/judging/stations'

/** The stations of the work in their order, and whether each looks at tanks too: what the first page knows of them. */
export const STATION_LIST: readonly (readonly [station: Station, onTanks: boolean])[] = STATIONS.map((s) => [
  s,
  looksAtTanks(s),
])
