import type { Figure } from '../figures'
import type { Outlet } from '../hydraulics'
import type { TankRecord } from '../tanks'
import { STOCK_CLASSES, type StockClass } from '../tanks'
import type { Candidate, MediumUse, OfferedFill } from './candidate'
import { quickTank } from './quickTank'

export const lph = (v: number): number => v / 3.6e6
export const EUR = (minor: number) => ({ minor, currency: 'EUR' })
export const use = (more: Partial<MediumUse>): MediumUse => ({
  name: 'Fine pad',
  form: 'pad',
  job: 'fine',
  counts: false,
  volume: 0.0002,
  pack: 0.0004,
  price: EUR(600),
  lifeDays: 60,
  ...more,
})
export const figure = (id: string, value: number, more: Partial<Figure> = {}): Figure => ({
  id,
  label: id,
  value,
  dimension: 'ratio',
  provenance: 'measured',
  ...more,
})
export const NOZZLE: Outlet = { kind: 'nozzle', aim: 'along', depth: 0.02, diameter: 0.016, holes: 1, spacing: 0.02, width: 0.1 } // prettier-ignore
export const offered = (mass: number, flow: number, uses: readonly MediumUse[] = []): OfferedFill => ({
  fill: { id: `f${mass}-${flow}`, name: 'As shipped' },
  flow: figure('flow', lph(flow), { uncertainty: lph(flow * 0.04), dimension: 'flow' }),
  meets: figure('meets', 1),
  mass: figure('mass', mass),
  foam: 0,
  films: { flow: lph(flow), layers: [{ area: 2.29 * mass, flow: lph(flow) }] },
  outlet: NOZZLE,
  basis: 'measured',
  calibration: null,
  pack: null,
  order: uses.map((u) => u.name),
  uses,
})
export const FACTS: Candidate['facts'] = {
  printed: { ratedFlow: null, maxHead: null, mediaVolume: null, tankMin: null, tankMax: null },
  bare: null,
  shutOff: null,
  pump: null,
  media: { shipped: null, proposed: null },
  preFilter: null,
  toMedia: null,
  omits: null,
  guarantee: null,
  holding: [],
}
export const canister = (id: string, mass: number, more: Partial<Candidate> = {}): Candidate => ({
  id,
  maker: 'Quillon',
  name: id,
  kind: 'canister',
  shipped: offered(mass, 400),
  proposed: null,
  fitting: null,
  outlets: [{ id: 'o', name: 'Nozzle', outlet: { ...NOZZLE, aim: 'glass' } }],
  inlet: null,
  level: 'holds',
  claimedMax: null,
  price: EUR(10000),
  watts: figure('power', 15, { dimension: 'power' }),
  noise: figure('noise', 35, { dimension: 'sound', uncertainty: 2 }),
  service: figure('service', 480, { dimension: 'time' }),
  build: { parts: 10, faults: [] },
  spares: [],
  offers: [],
  kin: null,
  facts: FACTS,
  ...more,
})
export const classOf = (code: string): StockClass => STOCK_CLASSES.find((s) => s.code === code) as StockClass

/** 100 L, 80 cm long, under a rim of three more. */
export const TANK: TankRecord = {
  ...quickTank(0.1, classOf('normal')),
  name: 'T',
  surface: 0.27,
  length: 0.8,
  width: 0.35,
  height: 0.4,
  waterLevel: 0.37,
  substrateDepth: 0.04,
  temperature: 25,
  pH: 7.5,
  alkalinity: 0.1,
}
