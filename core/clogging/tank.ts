import type { Fill } from '../fills'
import type { PathCase } from '../path'
import { usualSponge } from './arrange'
import { feedBand as bandOfFeed, feedOf, type TankRecord } from '../tanks'
import { sharesOf } from './particles'
import type { ClogCase, DirtyTank } from './run'

/** A tank as the forecast reads it: fed as noted, else as its class is. */
export const dirtyTank = (t: TankRecord): DirtyTank => ({
  water: t.water.value,
  feed: feedOf(t),
  shares: sharesOf(t.stock),
  changeShare: t.changeShare,
  changeDays: t.changeDays,
})

/** How far the feed of a tank is believed. */
export const feedDoubt = (t: Pick<TankRecord, 'feed' | 'stock'>): { readonly band: number } => ({
  band: bandOfFeed(t),
})

/** Question for a forecast of a fill on a tank. */
export interface DirtQuestion {
  readonly fill: Fill
  readonly tank: TankRecord
  readonly days: number
  /** A coarse sponge is put over its intake. */
  readonly sponge: boolean
}

/** The case of a forecast, for every screen: a body with one of its fills on a tank. */
export function dirtCase(body: Omit<PathCase, 'fill'>, { fill, tank, days, sponge }: DirtQuestion): ClogCase {
  const over = sponge ? usualSponge(body.media) : null
  return { path: { ...body, fill }, intake: over ? [over] : [], tank: dirtyTank(tank), days }
}
