/** A hose size in common use: inner and outer diameter (m). Common practice, no source. */
export interface HoseSize {
  readonly id: string
  readonly inner: number
  readonly outer: number
}

export const HOSE_SIZES: readonly HoseSize[] = [
  { id: '4/6', inner: 0.004, outer: 0.006 },
  { id: '9/12', inner: 0.009, outer: 0.012 },
  { id: '12/16', inner: 0.012, outer: 0.016 },
  { id: '16/22', inner: 0.016, outer: 0.022 },
  { id: '19/27', inner: 0.019, outer: 0.027 },
  { id: '25/34', inner: 0.025, outer: 0.034 },
  { id: '32/40', inner: 0.032, outer: 0.04 },
]

/** Wall roughness ε (m) by kind of hose. */
export interface HoseWall {
  readonly id: string
  readonly label: string
  readonly roughness: number
  readonly source: string
}

export const HOSE_WALLS: readonly HoseWall[] = [
  {
    id: 'smooth',
    label: 'Smooth (vinyl, silicone)',
    roughness: 1.5e-6,
    source: 'Moody 1944, drawn tubing; from memory',
  },
  { id: 'aged', label: 'Smooth, with a biofilm', roughness: 1e-4, source: 'common practice, no source' },
  {
    id: 'ribbed',
    label: 'Ribbed inside',
    roughness: 6e-4,
    source: 'common practice, no source; calibrate on the bench',
  },
]

/** A fitting of the catalogue: its loss coefficient K, in velocity heads of its own bore, and what it is. */
export interface FittingKind {
  readonly id: string
  readonly label: string
  readonly lossCoefficient: number
  readonly source: string
  /** An end of the run, where it is one. */
  readonly at?: 'intake' | 'outlet'
  /** Its reach as a screen: grit and fish, or dirt as well. */
  readonly strains?: 'grit' | 'dirt'
  /** Can be shut. */
  readonly closes?: true
  /** Turns the water. */
  readonly turns?: true
}

const CRANE = 'Crane TP-410, from memory'
const IDELCHIK = 'Idelchik, Handbook of Hydraulic Resistance, from memory'
const TRADE = 'common practice, no source'

export const FITTING_KINDS = [
  {
    id: 'entrance-strainer',
    label: 'Intake strainer, slotted',
    lossCoefficient: 1.5,
    source: IDELCHIK,
    at: 'intake',
    strains: 'grit',
  },
  {
    id: 'entrance-open',
    label: 'Intake, open end',
    lossCoefficient: 0.78,
    source: `${CRANE} (inward projecting)`,
    at: 'intake',
  },
  {
    id: 'entrance-sponge',
    label: 'Intake with a coarse sponge',
    lossCoefficient: 4,
    source: TRADE,
    at: 'intake',
    strains: 'dirt',
  },
  {
    id: 'bend-90',
    label: 'Rigid 90° bend',
    lossCoefficient: 0.9,
    source: `${CRANE} (30 f_T, small bore)`,
    turns: true,
  },
  {
    id: 'bend-180',
    label: 'Hook over the rim, 180°',
    lossCoefficient: 1.5,
    source: `${CRANE} (50 f_T, small bore)`,
    turns: true,
  },
  { id: 'sweep-90', label: 'Hose sweep, 90°', lossCoefficient: 0.3, source: CRANE, turns: true },
  {
    id: 'tap',
    label: 'Quick-release tap, fully open',
    lossCoefficient: 1.2,
    source: TRADE,
    closes: true,
  },
  {
    id: 'barb',
    label: 'Barbed joint',
    lossCoefficient: 0.6,
    source: `${IDELCHIK} (contraction and expansion)`,
  },
  { id: 'lip', label: 'Spill lip', lossCoefficient: 1, source: `${CRANE} (exit)`, at: 'outlet' },
  { id: 'nozzle', label: 'Directional nozzle', lossCoefficient: 2.5, source: TRADE, at: 'outlet' },
  { id: 'exit-open', label: 'Outlet, open end', lossCoefficient: 1, source: `${CRANE} (exit)`, at: 'outlet' },
  {
    id: 'measured',
    label: 'Own fitting, measured on the bench',
    lossCoefficient: 1,
    source: 'measured by the user',
  },
] as const satisfies readonly FittingKind[]
export type FittingId = (typeof FITTING_KINDS)[number]['id']
export const FITTING_IDS = FITTING_KINDS.map((f) => f.id) as [FittingId, ...FittingId[]]

/**
 * Catalogue entry of a piece of a run; null for one that names none. Its label says nothing: it is the user's.
 */
export const fittingKind = (piece: {
  readonly catalogue?: FittingId | null | undefined
}): FittingKind | null => FITTING_KINDS.find((f) => f.id === piece.catalogue) ?? null
