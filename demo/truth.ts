import type { FilterKind } from '@ypsometer/core/kinds/filters'
import type { Priming } from '@ypsometer/core/parts/vocabulary'
import type { FittingId } from '@ypsometer/core/hydraulics/tables'
import type { Pump } from '@ypsometer/core/hydraulics/pump'
import type { Segment } from '@ypsometer/core/hydraulics/segments'

/** An invented model: what its label prints, and what it truly is, which only the generated bench runs show. */
export interface Truth {
  readonly maker: string
  readonly name: string
  readonly kind: FilterKind
  readonly note: string
  /** Offers besides its list price: kind, minor units of EUR, day. */
  readonly offers?: readonly (readonly [kind: 'sale' | 'second-hand', minor: number, on: string])[]
  /** The model of the same maker that it is a later generation of. */
  readonly after?: string
  readonly label: {
    readonly flow: number
    readonly head?: number
    readonly power?: number
    readonly tankMin: number
    readonly tankMax: number
    readonly mediaVolume?: number
    readonly noise?: number
    readonly priceMinor: number
    readonly contents: string
    readonly guarantee?: string
    readonly hertz?: 50 | 60
    /** Maximum head as the manual has it, where box and manual disagree. */
    readonly manualHead?: number
  }
  readonly primedBy?: Priming
  readonly obtained: 'bought' | 'loaned' | 'given' | 'second-hand'
  /** True pump with its empty body; for air-driven kinds the water they truly lift (L/h). */
  readonly pump?: Pump
  readonly lifted?: number
  readonly hookup: {
    readonly name: string
    readonly outletAboveWater: number
    readonly sourceBelowWater?: number
    readonly bodyBelowWater?: number
    readonly segments: readonly Segment[]
  }
  /** Other ways it may be joined: outlets to choose from, another filter on the loop. */
  readonly others?: readonly {
    readonly name: string
    readonly outletAboveWater: number
    readonly bodyBelowWater?: number
    readonly segments: readonly Segment[]
    readonly fitted?: object
  }[]
  /** Loss of trays, grids and turns as velocity heads in a 16 mm bore. */
  readonly trays?: number
  readonly lifts?: readonly number[]
  /** Weighed ÷ reckoned mass of its biological media; absent where nobody weighed them. */
  readonly weighed?: number
  /** Litres of the vessel used. */
  readonly vessel: number
}

const lph = (q: number): number => q / 3.6e6
const pump = (flow: number, head: number, exponent: number): Pump => ({
  maxFlow: lph(flow),
  shutOffHead: head,
  exponent,
})

const hose = (id: string, label: string, length: number, mm: number): Segment => ({
  kind: 'hose',
  id,
  label,
  length,
  diameter: mm / 1000,
  roughness: 1.5e-6,
})
/** Fittings of the demo, by id. */
const CATALOGUE: Readonly<Record<string, FittingId>> = {
  intake: 'entrance-strainer',
  grid: 'entrance-strainer',
  'hook-in': 'bend-180',
  'hook-out': 'bend-180',
  taps: 'tap',
  barbs: 'barb',
  turn: 'bend-90',
  bends: 'bend-90',
  'exit-open': 'exit-open',
  'exit-nozzle': 'nozzle',
  'exit-venturi': 'nozzle',
  'exit-lip': 'lip',
}
const fit = (id: string, label: string, k: number, mm: number, count = 1): Segment => ({
  kind: 'fitting',
  id,
  label,
  catalogue: CATALOGUE[id] ?? null,
  lossCoefficient: k,
  diameter: mm / 1000,
  count,
})
const bar = (holes: number, mm: number): Segment => ({
  kind: 'spray-bar',
  id: 'bar',
  label: 'Spray bar',
  holes,
  holeDiameter: mm / 1000,
  dischargeCoefficient: 0.62,
})

/** The run of hose a canister in a cabinet has, with its spray bar or open end. */
const cabinet = (mm: number, metres: number, outlet: Segment): readonly Segment[] => [
  fit('intake', 'Intake strainer', 1.5, mm),
  fit('hook-in', 'Hook over the rim', 1.5, mm),
  hose('suction', 'Suction hose', metres, mm),
  fit('taps', 'Quick-release taps', 1.2, mm, 2),
  fit('barbs', 'Barbed joints', 0.6, mm, 4),
  hose('return', 'Return hose', metres, mm),
  fit('hook-out', 'Hook over the rim', 1.5, mm),
  outlet,
]

/** All of it is invented: makers, models, figures. */
export const TRUTHS: readonly Truth[] = [
  {
    maker: 'Tarn & Wick',
    name: 'Ledger 700',
    kind: 'canister',
    note: 'Two trays over a settling space. The museum lobby has had one for a year.',
    label: {
      flow: 700,
      head: 1.5,
      power: 10,
      tankMin: 60,
      tankMax: 120,
      mediaVolume: 3.6,
      noise: 34,
      priceMinor: 12900,
      contents: '2 trays, coarse pad ×1, fine pad ×1, sintered rings 1 L, hose 2 × 1.5 m, taps, spray bar',
      guarantee: '3 years, seals excepted',
    },
    primedBy: 'fill',
    obtained: 'bought',
    pump: pump(692, 1.47, 1.8),
    hookup: {
      name: 'Cabinet, own hoses, spray bar',
      outletAboveWater: -0.04,
      bodyBelowWater: 0.9,
      segments: cabinet(16, 1.3, bar(18, 5)),
    },
    trays: 12,
    lifts: [0.3, 0.6, 0.9, 1.2],
    weighed: 1.04,
    vessel: 5,
  },
  {
    maker: 'Quillon',
    name: 'Torrent 1400',
    kind: 'canister',
    note: 'Box and manual disagree on the head: 2.0 m outside, 1.8 m inside.',
    label: {
      flow: 1400,
      head: 2.0,
      manualHead: 1.8,
      power: 18,
      tankMin: 100,
      tankMax: 500,
      mediaVolume: 7,
      noise: 30,
      priceMinor: 11900,
      contents: '3 trays, pads ×3, mixed media bag, hose 3 m, taps, spray bar, nozzle',
      guarantee: '2 years',
    },
    primedBy: 'button',
    obtained: 'bought',
    pump: pump(1085, 1.72, 1.7),
    hookup: {
      name: 'Cabinet, own hoses, spray bar',
      outletAboveWater: -0.03,
      bodyBelowWater: 0.95,
      segments: cabinet(16, 1.5, bar(16, 4)),
    },
    trays: 18,
    lifts: [0.4, 0.8, 1.2],
    weighed: 0.96,
    vessel: 10,
  },
  {
    maker: 'Marrowby',
    name: 'Plainbody 1000',
    kind: 'canister',
    note: 'Thin media from the factory, a good body: most of the trays hold loose foam.',
    offers: [
      ['sale', 5490, '2026-10-30'],
      ['second-hand', 2500, '2026-11-08'],
    ],
    label: {
      flow: 1000,
      head: 1.7,
      power: 15,
      tankMin: 50,
      tankMax: 150,
      mediaVolume: 6.2,
      priceMinor: 6900,
      contents: '4 trays, foam ×4, hose 2.5 m, taps, spray bar',
    },
    primedBy: 'levers',
    obtained: 'bought',
    pump: pump(955, 1.66, 1.75),
    hookup: {
      name: 'Cabinet, own hoses, open end',
      outletAboveWater: -0.05,
      bodyBelowWater: 0.85,
      segments: cabinet(16, 1.25, fit('exit-open', 'Open end', 1, 16)),
    },
    others: [
      {
        name: 'Two filters on one loop',
        outletAboveWater: -0.05,
        bodyBelowWater: 0.85,
        segments: cabinet(16, 1.6, fit('exit-open', 'Open end', 1, 16)),
        fitted: {
          second: {
            label: 'Ledger 700 behind it',
            arrangement: 'series',
            running: true,
            shutOffHead: 1.47,
            maxFlow: lph(692),
            exponent: 1.8,
            lossCoefficient: 12,
          },
        },
      },
    ],
    trays: 10,
    lifts: [0.4, 0.8, 1.2],
    weighed: 1.07,
    vessel: 10,
  },
  {
    maker: 'Quillon',
    name: 'Terrace 1200',
    kind: 'canister',
    note: 'The trays stand 2 mm off the wall on both long sides.',
    after: 'Torrent 1400',
    label: {
      flow: 1200,
      head: 1.9,
      power: 16,
      tankMin: 100,
      tankMax: 300,
      mediaVolume: 8,
      noise: 36,
      priceMinor: 14900,
      contents: '3 trays, coarse, medium and fine pads, rings 2 L, hose 3 m, taps, nozzle',
    },
    primedBy: 'fill',
    obtained: 'loaned',
    pump: pump(1150, 1.85, 1.8),
    hookup: {
      name: 'Cabinet, own hoses, nozzle',
      outletAboveWater: -0.02,
      bodyBelowWater: 0.9,
      segments: cabinet(16, 1.4, fit('exit-nozzle', 'Directional nozzle', 2.5, 16)),
    },
    trays: 7,
    lifts: [0.5, 1.0, 1.5],
    weighed: 0.98,
    vessel: 10,
  },
  {
    maker: 'Pellam Works',
    name: 'Gale HB',
    kind: 'hang-on-back',
    note: 'One cartridge, a wide lip, and a current that the café’s small tank did not like.',
    label: {
      flow: 900,
      head: 0.6,
      power: 9,
      tankMin: 20,
      tankMax: 80,
      mediaVolume: 0.9,
      noise: 38,
      priceMinor: 4490,
      contents: 'cartridge ×2, lift tube, strainer, flow tab',
      guarantee: '2 years',
    },
    obtained: 'bought',
    pump: pump(860, 0.62, 1.6),
    hookup: {
      name: 'On the rim, water 3 cm below the lip',
      outletAboveWater: 0.03,
      segments: [
        fit('intake', 'Intake strainer', 1.5, 18),
        hose('lift-tube', 'Lift tube', 0.28, 18),
        fit('turn', 'Turn into the box', 0.9, 18),
        fit('exit-lip', 'Spill lip', 1, 30),
      ],
    },
    trays: 4,
    lifts: [0.15, 0.3, 0.45],
    weighed: 1.05,
    vessel: 5,
  },
  {
    maker: 'Pellam Works',
    name: 'Triptych 600',
    kind: 'internal',
    note: 'Three compartments and three outlets to choose from.',
    label: {
      flow: 600,
      head: 0.9,
      power: 7,
      tankMin: 40,
      tankMax: 110,
      mediaVolume: 1.8,
      priceMinor: 5490,
      contents: '3 cartridges, nozzle, spray bar, venturi, cups ×4',
    },
    obtained: 'given',
    pump: pump(575, 0.88, 1.7),
    hookup: {
      name: 'In the tank, top nozzle',
      outletAboveWater: -0.03,
      segments: [fit('grid', 'Intake grid', 1.5, 20), fit('exit-nozzle', 'Directional nozzle', 2.5, 14)],
    },
    others: [
      {
        name: 'In the tank, spray bar',
        outletAboveWater: -0.02,
        segments: [fit('grid', 'Intake grid', 1.5, 20), bar(12, 4)],
      },
      {
        name: 'In the tank, venturi',
        outletAboveWater: -0.05,
        segments: [fit('grid', 'Intake grid', 1.5, 20), fit('exit-venturi', 'Venturi, air drawn in', 9, 14)],
      },
    ],
    trays: 6,
    lifts: [0.2, 0.4, 0.6],
    weighed: 1.02,
    vessel: 5,
  },
  {
    maker: 'Tarn & Wick',
    name: 'Mop 300',
    kind: 'motor-sponge',
    note: 'A sponge on a small pump; the sponge is most of what it is.',
    label: {
      flow: 300,
      head: 0.5,
      power: 3.5,
      tankMin: 10,
      tankMax: 60,
      priceMinor: 1990,
      contents: 'sponge ×1, nozzle, cups ×2',
    },
    obtained: 'bought',
    pump: pump(288, 0.49, 1.8),
    hookup: {
      name: 'In the tank, nozzle',
      outletAboveWater: -0.02,
      segments: [fit('exit-nozzle', 'Directional nozzle', 2.5, 9)],
    },
    trays: 9,
    lifts: [0.12, 0.24, 0.36],
    vessel: 2,
  },
  {
    maker: 'Marrowby',
    name: 'Bellows S2',
    kind: 'air-sponge',
    note: 'The elbow at the riser bubbles beside the tube: air that lifts no water.',
    label: {
      flow: 250,
      tankMin: 20,
      tankMax: 60,
      priceMinor: 890,
      contents: 'two sponges, riser, elbow, weight',
    },
    obtained: 'bought',
    lifted: 128,
    hookup: { name: 'Riser 30 cm under, 2 cm above the water', outletAboveWater: 0.02, segments: [] },
    vessel: 1,
  },
  {
    maker: 'Quillon',
    name: 'Coracle A1',
    kind: 'air-box',
    note: 'A corner box with floss and a handful of gravel.',
    label: {
      flow: 180,
      tankMin: 10,
      tankMax: 30,
      priceMinor: 790,
      contents: 'box, lid, riser, floss, carbon 20 g',
    },
    obtained: 'second-hand',
    lifted: 104,
    hookup: { name: 'Corner, riser 18 cm under', outletAboveWater: 0, segments: [] },
    vessel: 1,
  },
  {
    maker: 'Marrowby',
    name: 'Whirlpot F1',
    kind: 'fluidised',
    note: 'Moving media in a clear pot, turned by air.',
    label: {
      flow: 200,
      tankMin: 15,
      tankMax: 50,
      mediaVolume: 1,
      priceMinor: 2490,
      contents: 'pot, moving media 0.5 L, stone',
    },
    obtained: 'bought',
    lifted: 166,
    hookup: { name: 'On the wall, 35 cm under', outletAboveWater: 0, segments: [] },
    weighed: 0.95,
    vessel: 1,
  },
  {
    maker: 'Pellam Works',
    name: 'Undercroft 90',
    kind: 'sump',
    note: 'Sold with a return pump. Here the lift is real: sump to tank.',
    label: {
      flow: 2500,
      head: 3.0,
      power: 32,
      tankMin: 200,
      tankMax: 600,
      mediaVolume: 14,
      priceMinor: 32900,
      contents: 'sump, return pump, sock ×2, union, hose 2 m',
      hertz: 50,
    },
    obtained: 'loaned',
    pump: pump(2420, 2.95, 1.75),
    hookup: {
      name: 'Under the stand, 95 cm to the tank’s surface',
      outletAboveWater: 0.02,
      sourceBelowWater: 0.95,
      bodyBelowWater: 1.1,
      segments: [
        fit('intake', 'Pump intake', 1.5, 25),
        hose('return', 'Return hose', 1.6, 25),
        fit('bends', 'Rigid 90° bend', 0.9, 25, 3),
        fit('exit-open', 'Open end', 1, 25),
      ],
    },
    trays: 0.5,
    lifts: [0.6, 1.2, 1.8, 2.4],
    weighed: 1.03,
    vessel: 20,
  },
]
