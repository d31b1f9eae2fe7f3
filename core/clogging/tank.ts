import type { TankRecord } from '../judging'
import { sharesOf } from './particles'
import type { DirtyTank } from './run'

/** A tank as the forecast reads it: fed as noted, else as its class is. */
export const dirtyTank = (t: TankRecord): DirtyTank => ({
  water: t.water.value,
  feed: t.feed ?? t.stock.feedPerVolume * t.water.value,
  shares: sharesOf(t.stock),
  changeShare: t.changeShare,
  changeDays: t.changeDays,
})

/** How far the feed of a tank is believed: a noted one within 15 %, a class’s as wide as its mark (common practice). */
const NOTED = 0.15
export const feedBand = (t: Pick<TankRecord, 'feed' | 'stock'>): { readonly band: number } => ({
  band: t.feed === null ? t.stock.marks.feedPerVolume.band : NOTED,
})
