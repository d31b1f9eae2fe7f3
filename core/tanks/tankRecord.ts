import { BESIDE_ORGANIC, CONDITIONER_LEAVES, ownArea, type Keeping } from '../biology'
import type { Figure } from '../figures'
import { surfaceSpeed, type Outlet } from '../hydraulics/jets'
import type { StockClass } from './stock'

/** Room for a filter around a tank (m); null for what nobody has measured. */
export interface TankRoom {
  readonly cabinetWidth: number | null
  readonly cabinetDepth: number | null
  readonly cabinetHeight: number | null
  readonly doorWidth: number | null
  /** The tank's bottom over the place where the filter stands. */
  readonly bottomHeight: number | null
  readonly wallGap: number | null
  readonly rimThickness: number | null
  readonly covered: boolean
}

/** A tank as judging reads it: its water, who lives there, how it is kept, what stands round it. */
export interface TankRecord extends TankRoom {
  readonly name: string
  readonly water: Figure
  readonly stock: StockClass
  /** Water surface (m²); extent along and across (m). */
  readonly surface: number
  readonly length: number
  readonly width: number
  readonly height: number
  readonly waterLevel: number
  readonly substrateDepth: number
  /** What its sizes were taken from, where only its water was told. */
  readonly sizesAssumed?: string
  /** Rock and wood (m³); none when absent. */
  readonly decorVolume?: number
  /** Is an ammonia-binding conditioner or sorbent in use? */
  readonly conditioner?: boolean
  readonly temperature: number
  readonly salinity: number
  readonly pH: number
  readonly alkalinity: number
  readonly tapNitrate: number
  /** Fed (kg/s); null for what its class is fed. */
  readonly feed: number | null
  readonly plantShare: number | null
  readonly changeShare: number
  readonly changeDays: number
  readonly roomTemperature: number | null
}

/** Feed a house writes down is believed so far (relative, common practice). */
const NOTED_FEED_BAND = 0.15

/** How far the feed of a tank is believed (relative half-width): as noted, else as wide as its class’s mark. */
export const feedBand = ({ feed, stock }: Pick<TankRecord, 'feed' | 'stock'>): number =>
  feed === null ? stock.marks.feedPerVolume.band : NOTED_FEED_BAND

/** Feed of a tank (kg/s): as noted, else as its class usually is. */
export const feedOf = ({ feed, stock, water }: Pick<TankRecord, 'feed' | 'stock' | 'water'>): number =>
  feed ?? stock.feedPerVolume * water.value

/** A surface faster than this is no tank’s (m/s). */
const FASTEST = 5

/** Water that comes back into a tank (m³/s) by an outlet; null where nobody knows by what. */
export interface Return {
  readonly outlet: Outlet | null
  readonly flow: number
}

/**
 * How a tank is kept, with its surface stirred by what comes back. Several returns put their momenta together, so their
 * speeds along the surface add by squares.
 */
export const keepingOfTank = (t: TankRecord, ...returns: readonly Return[]): Keeping => ({
  volume: t.water.value,
  surface: t.surface,
  stirred: Math.min(
    FASTEST,
    Math.hypot(
      ...returns.map(({ outlet, flow }) => (outlet && flow > 0 ? surfaceSpeed(outlet, flow, t.width) : 0)),
    ),
  ),
  feed: feedOf(t),
  protein: t.stock.protein,
  oxygenOfFeed: t.stock.oxygenOfFeed,
  temperature: t.temperature,
  salinity: t.salinity,
  pH: t.pH,
  organic: BESIDE_ORGANIC,
  alkalinity: t.alkalinity,
  nitrateLimit: t.stock.nitrateLimit,
  tapNitrate: t.tapNitrate,
  plantShare: t.plantShare ?? t.stock.plantShare,
  changeShare: t.changeShare,
  changeDays: t.changeDays,
  ownArea: ownArea({ ...t, perimeter: 2 * (t.length + t.width), decorVolume: t.decorVolume ?? 0 }),
  ...(t.conditioner && { food: CONDITIONER_LEAVES }),
})
