import {
  AT_LEAST,
  balance,
  CARBON_DIOXIDE_OF_AIR,
  keptAtPH,
  EXCHANGE_BAND,
  FILM_BAND,
  ORGANIC_BAND,
  OWN_BAND,
  hoursOfOxygen,
  reachedSurface,
  type Balance,
  type Keeping,
  type LimitId,
} from '../biology'
import { put, putFigure, type Figure, type WorkingLine } from '../figures'
import type { JudgedFill } from './fills'
import { ammoniaPKa } from '../water/properties'
import { feedBand, keepingOfTank, type TankRecord } from '../tanks/tankRecord'
import { LIMIT_WORDS, type TankBalance, type BalanceLine, balanceSentences } from './balanceWords'

const SOURCES = {
  film: 'Zhu and Chen 1999, 2001; Timmons and Ebeling (from memory)',
  gas: 'Emerson et al. 1975; EIFAC 1970',
  oxygen: 'Benson and Krause 1984; O’Connor and Dobbins 1958 (from memory)',
} as const

/** Share of a film’s clean-water rate that organic carbon and pH leave it. */
const heldTo = (k: Keeping): number => (k.organic ?? 1) * keptAtPH(k.pH)

/** Of a filter what a tank’s balance takes: its films, its flow and how it comes back. */
type OnTank = Pick<JudgedFill, 'films' | 'flow' | 'outlet'> & Partial<Pick<JudgedFill, 'mass'>>

/** A concentration of the balance. */
const level = (id: string, label: string, value: number, more: Partial<Figure>): Figure => ({
  id: `tank-${id}`,
  label,
  value,
  dimension: 'concentration',
  provenance: 'computed',
  ...more,
})

/**
 * A tank at rest with one fill or several on it, each number with its working and its limit. Null while no films are
 * known of any; one without films on record only stirs.
 * @throws OutOfRange naming a field of the tank.
 */
export function tankBalance(tank: TankRecord, ...fills: readonly (OnTank | null)[]): TankBalance | null {
  const on = fills.filter((f) => f !== null)
  const films = on.flatMap((f) => (f.films ? [f.films] : []))
  if (!films.length) return null
  const keeping = keepingOfTank(tank, ...on.map((f) => ({ outlet: f.outlet, flow: f.flow.value })))
  const b = balance(keeping, ...films)
  const fedBand = feedBand(tank)
  const fed: Figure = feedFigure(keeping, fedBand, tank)
  const made: Figure = ammoniaMade(b, fedBand, fed, keeping)
  const surface = put(
    'A',
    'surface of the media that water reaches',
    films.reduce((sum, f) => sum + reachedSurface(f), 0),
    'area',
    'rule',
  )
  // The surface of the media is as sure as their worth; the widest of several.
  const mediaBand = Math.max(
    0,
    ...on.map(({ mass }) => (mass && mass.value > 0 ? (mass.uncertainty ?? 0) / mass.value : 0)),
  )
  const doubt = Math.hypot(fedBand, FILM_BAND, ORGANIC_BAND, mediaBand)
  const own = b.nitrogen.own
  const ownFigure: Figure = {
    id: 'tank-own',
    label: 'Processed by the tank itself, as N',
    value: own,
    uncertainty: own * Math.hypot(OWN_BAND, FILM_BAND, ORGANIC_BAND),
    dimension: 'feed',
    unit: 'mg/d',
    provenance: 'rule',
    conditions: ['glass, substrate and décor; not counted for any filter'],
    formula: 'G = A · D/δ · (S − s), as much as its film takes at s',
    working: [
      put('A', 'glass, substrate and décor', keeping.ownArea ?? 0, 'area', 'rule'),
      put('δ', 'standing water, 0.5 to 1 mm', 0.75e-3, 'length', 'rule'),
      put('S', 'total ammonia', b.ammonia, 'concentration', 'computed'),
    ],
    source: 'Fick; Zhu and Chen 1999 (from memory); areas: common practice, no source',
  }
  const film = (value: number, floor: boolean): Partial<Figure> => ({
    ...(!floor && Number.isFinite(value) && { uncertainty: value * doubt }),
    conditions: floor ? ['minimum level that keeps bacteria alive'] : [],
    formula: 'P (1 − plants) = (f/T) V S + κ [F(S) + G(S)], not below 0.07 mg/L',
    working: [
      putFigure('P', made),
      put('plants', 'take of it', keeping.plantShare, 'ratio', 'rule'),
      surface,
      ...(own > 0 ? [putFigure('G', ownFigure)] : []),
      put(
        'κ',
        'of their rate that organic carbon, pH and alkalinity leave',
        heldTo(keeping) * b.kept,
        'ratio',
        'rule',
      ),
      ...(keeping.food ? [put('food', 'left by the conditioner', keeping.food, 'ratio', 'rule')] : []),
      ...on.map((f, i) => putFigure(on.length > 1 ? `Q_${i + 1}` : 'Q', f.flow)),
    ],
    source: SOURCES.film,
  })
  const exchange = [
    put('U', 'speed along the surface (ours, to a factor of two)', keeping.stirred, 'velocity', 'rule'),
    put('K_L', 'gas exchange', b.exchange, 'velocity', 'rule'),
    put('A', 'water surface', keeping.surface, 'area', 'measured'),
  ]
  const held = (id: LimitId, figure: Figure): BalanceLine => ({ figure, limit: limitOn(b, id, figure) })
  const lines: BalanceLine[] = [
    { figure: fed, limit: null },
    { figure: made, limit: null },
    ...(own > 0 ? [{ figure: ownFigure, limit: null }] : []),
    held('ammonia', level('ammonia', 'Total ammonia, as N', b.ammonia, film(b.ammonia, b.atFloor))),
    held(
      'unionised',
      level('unionised', 'Un-ionised ammonia', b.unionised, {
        ...(!b.atFloor && Number.isFinite(b.unionised) && { uncertainty: b.unionised * doubt }),
        formula: 'S · food · (17.031 ÷ 14.007) ÷ (1 + 10^(pKa − pH))',
        working: [
          put('S', 'total ammonia', b.ammonia, 'concentration', 'computed'),
          put('food', 'free share, the conditioner holds the rest', keeping.food ?? 1, 'ratio', 'rule'),
          put('pKa', 'at this temperature and salt', ammoniaPKa(keeping.temperature, keeping.salinity)),
          put('pH', 'pH', keeping.pH, 'ratio', 'measured'),
          put('t', 'water', keeping.temperature, 'temperature', 'measured'),
        ],
        source: SOURCES.gas,
      }),
    ),
    held(
      'nitrite',
      level('nitrite', 'Nitrite, as N', b.nitrite, film(b.nitrite, b.nitrite > 0 && b.atFloor)),
    ),
    held('nitrate', nitrateFigure(b, keeping, fedBand, tank)),
    held('alkalinity', alkalinityBefore(b, keeping, fedBand, made, tank)),
    held('oxygen', oxygenFigure(b, fedBand, exchange)),
    {
      figure: carbonDioxideFigure(b, fedBand, exchange),
      limit: null,
    },
    {
      figure: {
        id: 'tank-reserve',
        label: 'Spare capacity of the bacteria (× daily load)',
        value: b.reserve,
        ...(Number.isFinite(b.reserve) && { uncertainty: b.reserve * doubt }),
        dimension: 'ratio',
        provenance: 'computed',
        formula: 'F(0.12 mg/L) ÷ P (1 − plants)',
        working: [putFigure('P', made), surface],
        source: SOURCES.film,
      },
      limit: null,
    },
  ]
  return { balance: b, keeping, lines, sentences: balanceSentences(tank, keeping, b, lines) }
}

/** Carbon dioxide at night. */
function carbonDioxideFigure(b: Balance, fedBand: number, exchange: WorkingLine[]): Figure {
  return level('carbon-dioxide', 'Carbon dioxide at night', b.carbonDioxide, {
    uncertainty: b.carbonDioxide * Math.hypot(fedBand, EXCHANGE_BAND),
    formula: 'C = C_air + (1.38 breathed + 5.85 N) ÷ (0.96 K_L · A)',
    working: [
      put('C_air', 'in balance with the air', CARBON_DIOXIDE_OF_AIR, 'concentration', 'rule'),
      ...exchange,
      put(
        'breathed',
        'by animals, plants and bacteria, 1.38 of their oxygen',
        b.oxygenUse.animals + b.oxygenUse.plants + b.oxygenUse.rotting,
        'feed',
        'computed',
      ),
      put('N', 'oxidised, 5.85 of it', b.nitrogen.oxidised, 'feed', 'computed'),
    ],
    source: SOURCES.oxygen,
  })
}

/** Oxygen at night: saturation less all that breathes over what the surface lets in. */
function oxygenFigure(b: Balance, fedBand: number, exchange: WorkingLine[]): Figure {
  return level('oxygen', 'Oxygen at night', b.oxygen, {
    uncertainty: (b.saturation - b.oxygen) * Math.hypot(fedBand, EXCHANGE_BAND),
    formula: 'C = C* − use ÷ (K_L · A);  K_L = 3.93 √(U/H) m a day at 20 °C',
    working: [
      put('C*', 'saturation', b.saturation, 'concentration', 'computed'),
      ...exchange,
      put('animals', 'use', b.oxygenUse.animals, 'feed', 'computed'),
      put('films', 'use', b.oxygenUse.film, 'feed', 'computed'),
      put('plants', 'use at night', b.oxygenUse.plants, 'feed', 'rule'),
      put('bacteria', 'use on what rots, 0.8 of the solids', b.oxygenUse.rotting, 'feed', 'rule'),
    ],
    source: SOURCES.oxygen,
  })
}

/** Nitrate before a change, in a run of equal changes. */
function nitrateFigure(b: Balance, keeping: Keeping, fedBand: number, tank: TankRecord): Figure {
  return level('nitrate', 'Nitrate before a change, as N', b.nitrate, {
    ...(Number.isFinite(b.nitrate) && { uncertainty: (b.nitrate - keeping.tapNitrate) * fedBand }),
    formula: 'C = C_tap + N · T ÷ (f · V)',
    working: [
      put('C_tap', 'of the water put in', keeping.tapNitrate, 'concentration', 'measured'),
      put('N', 'oxidised to nitrate', b.nitrogen.nitrified, 'feed', 'computed'),
      put('f', 'of the water changed', keeping.changeShare, 'ratio', 'measured'),
      put('T', 'between changes', keeping.changeDays * 86400, 'time', 'measured'),
      putFigure('V', tank.water),
    ],
    source: 'a run of equal changes, in closed form',
  })
}

/** Alkalinity before a change: what films and animals leave of it. */
function alkalinityBefore(
  b: Balance,
  keeping: Keeping,
  fedBand: number,
  made: Figure,
  tank: TankRecord,
): Figure {
  return level('alkalinity', 'Alkalinity before a change', b.alkalinity, {
    formula: 'A = A_in + [3.57 P (1 − plants) − 7.14 N oxidised] · T ÷ (f · V), never below nothing',
    uncertainty: Math.abs(keeping.alkalinity - b.alkalinity) * fedBand,
    working: [
      put('A_in', 'of the water put in', keeping.alkalinity, 'concentration', 'measured'),
      putFigure('P', made),
      put('plants', 'take of it', keeping.plantShare, 'ratio', 'rule'),
      put('N', 'oxidised', b.nitrogen.oxidised, 'feed', 'computed'),
      put('f', 'of the water changed', keeping.changeShare, 'ratio', 'measured'),
      put('T', 'between changes', keeping.changeDays * 86400, 'time', 'measured'),
      putFigure('V', tank.water),
    ],
    source:
      '7.14 g CaCO₃ for each g of nitrogen (EPA 1993), half of it given back as ammonia is let out (charge balance)',
  })
}

/** Ammonia that the feed becomes, as nitrogen. */
function ammoniaMade(b: Balance, fedBand: number, fed: Figure, keeping: Keeping): Figure {
  return {
    id: 'tank-ammonia-made',
    label: 'Ammonia made, as N',
    value: b.nitrogen.made,
    uncertainty: b.nitrogen.made * fedBand,
    dimension: 'feed',
    unit: 'mg/d',
    provenance: 'computed',
    formula: 'P = feed · protein · 0.092',
    working: [putFigure('feed', fed), put('protein', 'of the feed', keeping.protein, 'ratio', 'rule')],
    source: 'Timmons and Ebeling (from memory)',
  }
}

/** Feed a day: as noted, else as its class is fed. */
function feedFigure(keeping: Keeping, fedBand: number, tank: TankRecord): Figure {
  return {
    id: 'tank-feed',
    label: 'Feed',
    value: keeping.feed,
    uncertainty: keeping.feed * fedBand,
    dimension: 'feed',
    provenance: tank.feed === null ? 'rule' : 'measured',
    ...(tank.feed === null && {
      assumed: 'feed typical for this stocking',
      formula: 'feed typical for this stocking · V',
      working: [
        put('f', 'feed typical for this stocking', tank.stock.feedPerVolume, 'feeding', 'rule'),
        putFigure('V', tank.water),
      ],
      source: tank.stock.marks.feedPerVolume.source,
    }),
  }
}

/** How a figure stands to the limit of its kind. */
function limitOn(b: Balance, id: LimitId, { uncertainty = 0 }: Partial<Figure>): BalanceLine['limit'] {
  const l = b.limits.find((x) => x.id === id)
  if (!l) return null
  const doubtful = Math.abs(l.value - l.limit) < uncertainty
  const words =
    id === 'nitrate'
      ? `at most ${(l.limit * 1e3).toFixed(1)} mg/L for this stocking; water changes control it, not the filter`
      : LIMIT_WORDS[id]
  const side = AT_LEAST.has(id) ? 'below the limit' : 'above the limit'
  return { words, met: l.met, doubtful, said: doubtful ? `maybe ${side}` : l.met ? '' : side }
}

/** How long the oxygen of a closed body (m³) lasts once it stops; null for one nobody measured, or that is open. */
export function closedBodyFigure(study: TankBalance, bodyWater: number | null): Figure | null {
  if (bodyWater === null || !(bodyWater < Infinity) || !(study.balance.nitrogen.oxidised > 0)) return null
  const hours = hoursOfOxygen(bodyWater, study.balance.oxygen, study.balance.nitrogen.oxidised)
  return {
    id: 'closed-body-oxygen',
    label: 'Oxygen in the stopped filter lasts',
    value: hours * 3600,
    uncertainty: hours * 3600 * 0.5,
    dimension: 'time',
    unit: 'h',
    provenance: 'computed',
    formula: 't = V · DO ÷ (4.57 · N oxidised)',
    working: [
      put('V', 'water in the body', bodyWater, 'volume', 'computed'),
      put('DO', 'as the pump stopped', study.balance.oxygen, 'concentration', 'computed'),
      put('N', 'oxidised', study.balance.nitrogen.oxidised, 'feed', 'computed'),
    ],
    source: 'bacteria breathing on as they did while it ran (assumption)',
  }
}
