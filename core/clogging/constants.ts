/** A constant of the forecast: what is taken, within which factor it is believed (95 %), and why. */
export interface Constant {
  readonly label: string
  readonly value: number
  /** 95 % of what is believed lies between value ÷ band and value · band. */
  readonly band: number
  readonly unit: string
  readonly source: string
}

const MEMORY = 'from memory'
const SET = 'common practice, no source: set so that the forecast matches experience'

/**
 * Constants of the forecast besides sizes and flows. Those without literature were set so that its reference cases
 * meet common practice (see the tests).
 */
export const CONSTANTS = {
  solidsOfFeed: {
    label: 'Solids made of feed',
    value: 0.25,
    band: 1.5,
    unit: 'kg/kg',
    source: `Timmons and Ebeling, Recirculating Aquaculture (${MEMORY}), about a quarter`,
  },
  lies: {
    label: 'Share that settles in the tank and never reaches the filter',
    value: 0.1,
    band: 1.5,
    unit: 'share of the pieces; finer classes in proportion to how they sink',
    source: SET,
  },
  floc: {
    label: 'Dry mass in a litre of wet deposit',
    value: 45,
    band: 1.6,
    unit: 'kg/m³',
    source: `settled fish sludge holds 2 to 10 % dry (${MEMORY})`,
  },
  heavier: {
    label: 'Flocs heavier than water by',
    value: 50,
    band: 2,
    unit: 'kg/m³',
    source: `faeces of fish, 1.02 to 1.15 g/cm³ (${MEMORY})`,
  },
  sticks: {
    label: 'Share of touching particles that stick',
    value: 0.12,
    band: 2.5,
    unit: 'share',
    source: SET,
  },
  cakeVoids: {
    label: 'Share of a surface cake that is water between its flocs',
    value: 0.6,
    band: 1.2,
    unit: 'share',
    source: SET,
  },
  heldFrom: {
    label: 'Size from which a floc is held, as a share of the opening',
    value: 0.77,
    band: 1.3,
    unit: 'share of the opening',
    source: SET,
  },
  bridges: {
    label: 'Cake thickness that holds back finer dirt',
    value: 5,
    band: 2,
    unit: 'flocs',
    source: SET,
  },
  flocSize: {
    label: 'Floc size of fine dirt in a deposit',
    value: 165,
    band: 1.5,
    unit: 'µm',
    source: SET,
  },
  compresses: {
    label: 'How a cake’s resistance grows with the head it takes (exponent)',
    value: 0.75,
    band: 1.5,
    unit: 'exponent',
    source: `Tiller 1953: 0.4 to 0.9 for flocs and sludges (${MEMORY})`,
  },
  clears: {
    label: 'Share of dirt under 100 µm that settles and rots in the tank each day',
    value: 1.5,
    band: 2,
    unit: '1/day',
    source: SET,
  },
  rots: {
    label: 'Share of a deposit that rots away each day',
    value: 0.02,
    band: 2,
    unit: '1/day',
    source: SET,
  },
  grazed: {
    label: 'Share of dirt on an intake sponge that is eaten or falls off each day',
    value: 0.095,
    band: 2,
    unit: '1/day',
    source: SET,
  },
} as const satisfies Readonly<Record<string, Constant>>
export type ConstantName = keyof typeof CONSTANTS

/** Values the forecast is run with. */
export type Values = Readonly<Record<ConstantName, number>>
export const VALUES = Object.fromEntries(
  Object.entries(CONSTANTS).map(([k, c]) => [k, c.value]),
) as unknown as Values

/** How far each class flocs and settles in the tank itself, as multiples of {@link CONSTANTS}.clears. */
export const CLEARS: readonly number[] = [0, 0, 0.2, 1, 1]

/** How far each class sinks out of the water before the filter draws it in, as multiples of {@link CONSTANTS}.lies. */
export const SINKS: readonly number[] = [1, 0.7, 0.35, 0.1, 0]
