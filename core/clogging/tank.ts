import { feedBand as bandOfFeed, feedOf, type TankRecord } from '../judging'
import { sharesOf } from './particles'
import type { DirtyTank } from './run'

/** A tank as the forecast reads it: fed as noted, else as its class is. */
export const dirtyTank = (t: TankRecord): DirtyTank => ({
  water: t.water.value,
  feed: feedOf(t),
  shares: sharesOf(t.stock),
  changeShare: t.changeShare,
  changeDays: t.changeDays,
})

/** How far the feed of a tank is believed. */
export const feedBand = (t: Pick<TankRecord, 'feed' | 'stock'>): { readonly band: number } => ({
  band: bandOfFeed(t),
})
