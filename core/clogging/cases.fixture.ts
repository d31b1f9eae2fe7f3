import { caseWith, chamber, layer, medium } from '../path/tests/support'
import type { FillLayer } from '../fills'
import type { PathCase } from '../path'
import { STOCK_CLASSES, type StockClass } from '../tanks'
import { sharesOf } from './particles'
import type { ClogCase, DirtyTank } from './run'
import type { IntakeLayer } from './waterways'

export const COARSE = medium('Coarse foam')
export const MEDIUM = medium('Medium foam')
export const FINE_FOAM = medium('Fine foam')
export const PAD = medium('Fine pad')
export const SINTERED = medium('Sintered glass')

const BOX = { shape: 'box', width: 0.18, depth: 0.15, height: 0.09 } as const
const TRAYS = ['a', 'b', 'c', 'd'].map((id, i) => chamber(id, { y: 0.1 + i / 10, solid: BOX }))

/** Four trays of 270 cm²: two foams, a pad, sintered media. */
export const STRAIN_FIRST = [
  layer('coarse', 'a', COARSE, 30),
  layer('medium', 'a', MEDIUM, 30),
  layer('pad', 'b', PAD, 20),
  layer('low', 'b', SINTERED, 50),
  layer('mid', 'c', SINTERED, 75),
  layer('top', 'd', SINTERED, 50),
]
export const without = (...ids: readonly string[]): FillLayer[] =>
  STRAIN_FIRST.filter((l) => !ids.includes(l.id))

/** A canister of 1000 L/h by its label. */
export const canister = (layers: readonly FillLayer[], more: Partial<PathCase> = {}): PathCase => {
  const c = caseWith(layers)
  const pump = { shutOffHead: 1.5, maxFlow: 1000 / 3.6e6, exponent: 1.6 }
  return { ...c, chambers: TRAYS, drive: { ...c.drive, pump }, ...more }
}

/** A hang-on-back of 600 L/h: a cartridge of 140 cm² under a weir of 25 mm. */
export const hangOnBack = (): PathCase => {
  const cartridge = medium('Floss cartridge', { fibre: 3e-5, solidity: 0.06 })
  const slot = chamber('slot', {
    role: 'cartridge-slot',
    way: 'across',
    solid: { shape: 'box', width: 0.012, depth: 0.1, height: 0.15 },
    usableHeight: 0.14,
    overflowSill: 0.025,
  })
  const pump = { shutOffHead: 0.6, maxFlow: 600 / 3.6e6, exponent: 1.6 }
  const c = canister([layer('cartridge', 'slot', cartridge, 12)])
  return {
    ...c,
    kind: 'hang-on-back',
    hookup: null,
    chambers: [slot],
    media: [cartridge],
    drive: { ...c.drive, pump },
  }
}

export const classOf = (code: string): StockClass => STOCK_CLASSES.find((s) => s.code === code) as StockClass
export const tankOf = (litres: number, code: string): DirtyTank => ({
  water: litres / 1000,
  feed: (classOf(code).feedPerVolume * litres) / 1000,
  shares: sharesOf(classOf(code)),
  changeShare: 0.25,
  changeDays: 7,
})
export const clog = (path: PathCase, tank: DirtyTank, more: Partial<ClogCase> = {}): ClogCase => ({
  path,
  tank,
  intake: [],
  days: 180,
  ...more,
})
export const sponge = (medium: IntakeLayer['medium'], thickness: number, area: number): IntakeLayer => ({
  medium,
  thickness,
  area,
  inTank: true,
})
