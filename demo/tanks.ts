import type { Tank, TankFilter } from '@ypsometer/contract'
import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { DAY } from '@ypsometer/core/biology/load'
import { modelIdOf } from './interior'
import { TRUTHS } from './truth'

/** The id of a class that ships, by its code. */
const living = (code: string): string => {
  const found = STOCK_CLASSES.find((c) => c.code === code)
  if (!found) throw new Error(`no class ${code}`)
  return found.id
}
/** Filters on a tank since a day: models of the bench by their names, as they ship unless said otherwise. */
const running = (
  since: string,
  ...names: readonly (string | readonly [name: string, fill: TankFilter['fill']])[]
) =>
  names.map((n, i): TankFilter => {
    const [name, fill] = typeof n === 'string' ? ([n, 'as-shipped'] as const) : n
    const truth = TRUTHS.find((t) => t.name === name)
    if (!truth) throw new Error(`no model ${name}`)
    return {
      id: `f${i + 1}`,
      modelId: modelIdOf(truth),
      fill,
      label: '',
      kind: null,
      ratedFlow: null,
      since,
    }
  })
/** Grams a day. */
const grams = (g: number): number => (g * 1e-3) / DAY

type DemoTank = Partial<Omit<Tank, 'shape' | 'stockClassId'>> &
  Pick<Tank, 'name' | 'place' | 'shape' | 'height' | 'waterLevel' | 'stockClassId'>

const box = (
  name: string,
  place: string,
  l: number,
  w: number,
  h: number,
  code: string,
  more: Partial<Tank> = {},
): DemoTank => ({
  name,
  place,
  shape: 'box',
  length: l,
  width: w,
  height: h,
  waterLevel: Math.round((h - 0.03) * 1000) / 1000,
  stockClassId: living(code),
  ...more,
})

/** The tanks the Saltery Row bench looks after. Invented, like the island. */
export const TANKS: readonly DemoTank[] = [
  box('Dentist, front window', 'Saltery Row 4', 0.8, 0.35, 0.4, 'normal', {
    substrateDepth: 0.04,
    decorVolume: 0.004,
    feed: grams(1.4),
    cabinetWidth: 0.36,
    cabinetDepth: 0.3,
    cabinetHeight: 0.62,
    doorWidth: 0.34,
    bottomHeight: 0.72,
    wallGap: 0.06,
    rimThickness: 0.012,
    filters: running('2025-11-20', 'Ledger 700'),
  }),
  // 76 L of tetras.
  box('Dentist, children’s corner', 'Saltery Row 4', 0.61, 0.31, 0.43, 'light', {
    waterLevel: 0.403,
    wallGap: 0.14,
    rimThickness: 0.008,
    filters: running('2026-03-02', 'Bellows S2'),
  }),
  box('Ferry café, counter', 'Ferry terminal', 1.2, 0.4, 0.5, 'heavy', {
    substrateDepth: 0.03,
    decorVolume: 0.012,
    changeShare: 0.4,
    cabinetWidth: 0.5,
    cabinetDepth: 0.36,
    cabinetHeight: 0.66,
    bottomHeight: 0.75,
    wallGap: 0.05,
    roomTemperature: 19,
    // A cheap canister with better media in it, and a motor-driven sponge that runs while the canister is open.
    filters: running('2025-12-05', ['Plainbody 1000', 'proposed'], 'Mop 300'),
  }),
  box('Ferry café, shrimp', 'Ferry terminal', 0.3, 0.3, 0.3, 'delicate', {
    substrateDepth: 0.06,
    plantShare: 0.4,
    covered: true,
    filters: running('2026-05-11', 'Coracle A1'),
  }),
  box('Ferry hall, long tank', 'Ferry terminal', 1.8, 0.6, 0.6, 'normal', {
    substrateDepth: 0.05,
    decorVolume: 0.03,
    cabinetWidth: 0.8,
    cabinetDepth: 0.55,
    cabinetHeight: 0.7,
    bottomHeight: 0.8,
    wallGap: 0.1,
    rimThickness: 0.02,
    filters: running('2026-06-01', 'Undercroft 90'),
  }),
  {
    name: 'Museum lobby, column',
    place: 'Island museum',
    shape: 'cylinder',
    diameter: 0.7,
    height: 1.1,
    waterLevel: 1.05,
    substrateDepth: 0.06,
    stockClassId: living('normal'),
    filters: running('2026-08-03', 'Torrent 1400'),
  },
  {
    name: 'Museum, bowed front',
    place: 'Island museum',
    shape: 'bow-front',
    length: 1.2,
    width: 0.4,
    bowWidth: 0.52,
    height: 0.55,
    waterLevel: 0.52,
    substrateDepth: 0.05,
    decorVolume: 0.01,
    stockClassId: living('light'),
    filters: running('2026-07-13', 'Gale HB'),
  },
  box('Museum, turtle pond', 'Island museum', 1.5, 0.7, 0.5, 'turtle', {
    waterLevel: 0.3,
    decorVolume: 0.02,
    waterTemperature: 26,
    changeShare: 0.5,
    wallGap: 0.4,
    // Two alike: one runs while the other is open.
    filters: running('2026-04-20', 'Torrent 1400', 'Torrent 1400'),
  }),
  {
    name: 'Optician, corner',
    place: 'Saltery Row 11',
    shape: 'corner',
    side: 0.7,
    endPanel: 0.25,
    front: 'curved',
    height: 0.5,
    waterLevel: 0.47,
    substrateDepth: 0.05,
    stockClassId: living('normal'),
    filters: running('2026-09-14', 'Triptych 600'),
  },
  box('Notary, reef', 'Saltery Row 2', 0.9, 0.5, 0.5, 'marine', {
    substrateDepth: 0.02,
    decorVolume: 0.02,
    salinity: 35,
    pH: 8.2,
    alkalinity: 0.13,
    changeShare: 0.15,
    filters: running('2026-02-09', 'Terrace 1200'),
  }),
  box('Vet, quarantine', 'Quay Lane', 0.6, 0.3, 0.35, 'normal', {
    filters: running('2026-10-05', 'Bellows S2'),
  }),
  box('Bench room, goldfish', 'Saltery Row 9', 1.0, 0.45, 0.5, 'heavy', {
    substrateDepth: 0.02,
    // What came with the tank, and is not on the shelf.
    filters: [
      {
        id: 'f1',
        modelId: null,
        fill: 'as-shipped',
        label: 'Canister without a name',
        kind: 'canister',
        ratedFlow: 1000 / 3.6e6,
        since: '2024-05-04',
      },
    ],
  }),
]
