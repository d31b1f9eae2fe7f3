import type { Keeping } from '.'

const DAY = 86400
/** A planted tank of 200 L, fed 3 g a day, a third of its water changed every week. */
export const KEPT: Keeping = {
  volume: 0.2,
  surface: 0.4,
  stirred: 0.05,
  feed: 3e-3 / DAY,
  protein: 0.42,
  oxygenOfFeed: 0.4,
  temperature: 25,
  salinity: 0,
  pH: 7.4,
  alkalinity: 0.12,
  tapNitrate: 4e-3,
  plantShare: 0.1,
  changeShare: 0.3,
  changeDays: 7,
}
