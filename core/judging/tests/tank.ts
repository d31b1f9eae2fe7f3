import type { Figure } from '../../figures'
import type { Outlet } from '../../hydraulics'
import { STOCK_CLASSES, type StockClass } from '../../tanks'
import type { JudgedFill } from '../fills'
import type { TankRecord } from '../../tanks/tankRecord'
import { lph } from './support'

export const classOf = (code: string): StockClass => {
  const found = STOCK_CLASSES.find((s) => s.code === code)
  if (!found) throw new Error(code)
  return found
}
export const figure = (id: string, value: number, more: Partial<Figure> = {}): Figure => ({
  id,
  label: id,
  value,
  dimension: 'ratio',
  provenance: 'computed',
  ...more,
})
export const NOZZLE: Outlet = { kind: 'nozzle', aim: 'along', depth: 0.02, diameter: 0.013, holes: 1, spacing: 0.02, width: 0.1 } // prettier-ignore
export const TANK: TankRecord = {
  name: 'A',
  water: figure('water', 0.1, { dimension: 'volume' }),
  stock: classOf('normal'),
  surface: 0.27,
  length: 0.8,
  width: 0.35,
  height: 0.4,
  waterLevel: 0.37,
  substrateDepth: 0.04,
  temperature: 25,
  salinity: 0,
  pH: 7.5,
  alkalinity: 0.1,
  tapNitrate: 0,
  feed: null,
  plantShare: null,
  changeShare: 0.3,
  changeDays: 7,
  roomTemperature: null,
  cabinetWidth: null,
  cabinetDepth: null,
  cabinetHeight: null,
  doorWidth: null,
  bottomHeight: null,
  wallGap: null,
  rimThickness: null,
  covered: false,
}
export const FILL: JudgedFill = {
  fill: { id: 'f', name: 'As shipped' },
  flow: figure('flow', lph(600), { uncertainty: lph(24), dimension: 'flow' }),
  meets: figure('meets', 1),
  mass: figure('mass', 1.2, { uncertainty: 0.06 }),
  foam: 0,
  films: { flow: lph(600), layers: [{ area: 2.75, flow: lph(600) }] },
  outlet: NOZZLE,
  basis: 'measured',
  calibration: null,
  pack: { name: 'Sintered rings', mass: 0.5 },
}
