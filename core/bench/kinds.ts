/** Kinds of trial. Each has its own readings; see {@link readingProblem} for what a reading of each must hold. */
export const TRIAL_KINDS = [
  'vessel',
  'weighed',
  'meter',
  'read',
  'shut-off',
  'meter-check',
  'power',
  'noise',
  'dye',
  'holding',
  'prime',
  'air',
] as const
export type TrialKind = (typeof TRIAL_KINDS)[number]

/** Kinds that end in a flow of water under a trial's conditions. */
export const FLOW_KINDS: readonly TrialKind[] = ['vessel', 'weighed', 'meter', 'read']
export const isFlowKind = (kind: TrialKind): boolean => FLOW_KINDS.includes(kind)

/**
 * One reading of any trial, SI. What `value` is follows the kind: mass (kg), pulses, flow (m³/s), head (m), watts, dB,
 * strength of dye, air flow (m³/s), water leaked (m³).
 */
export interface BenchReading {
  readonly volume?: number | null
  readonly seconds?: number | null
  readonly value?: number | null
  /** Which of several series: with or without the filter, a point in the tank, cup or clip, what was tried. */
  readonly series?: string
  readonly outcome?: string
  readonly note?: string
}

/** What a kind's readings are made of; `positive` must be above zero. */
interface Shape {
  readonly volume?: true
  readonly seconds?: { readonly min: number }
  readonly value?: { readonly min: number; readonly max: number; readonly unit: string }
  readonly series?: readonly string[]
  readonly outcome?: readonly string[]
}

export const NOISE_SERIES = ['with', 'without'] as const
export const HOLDING_OUTCOMES = ['let-go', 'still'] as const
export const PRIME_SERIES = ['prime', 'restart', 'leak', 'air', 'rattle'] as const
export const PRIME_OUTCOMES = ['yes', 'no'] as const
export const AIR_SERIES = ['water', 'supplied', 'riser'] as const

/** The fields a reading of each kind has, and their limits in SI. */
export const READING_SHAPES: Readonly<Record<TrialKind, Shape>> = {
  vessel: { volume: true, seconds: { min: 0.5 } },
  weighed: { value: { min: 1e-4, max: 1000, unit: 'kg' }, seconds: { min: 0.5 } },
  meter: { value: { min: 1, max: 1e9, unit: 'pulses' }, seconds: { min: 0.5 } },
  read: { value: { min: 0, max: 1, unit: 'm³/s' } },
  'shut-off': { value: { min: 1e-3, max: 100, unit: 'm' } },
  'meter-check': { value: { min: 1, max: 1e9, unit: 'pulses' }, volume: true },
  power: { value: { min: 0, max: 5000, unit: 'W' } },
  noise: { value: { min: 0, max: 140, unit: 'dB' }, series: NOISE_SERIES },
  dye: { seconds: { min: 0 }, value: { min: 0, max: 1e9, unit: 'of dye' } },
  holding: { seconds: { min: 0 }, outcome: HOLDING_OUTCOMES },
  prime: { seconds: { min: 0 }, series: PRIME_SERIES, outcome: PRIME_OUTCOMES },
  air: { value: { min: 0, max: 0.1, unit: 'm³/s of air' }, series: AIR_SERIES },
}

/** What keeps a reading from being one of its kind: the field and what would be accepted; null when nothing does. */
export function readingProblem(
  kind: TrialKind,
  r: BenchReading,
): { readonly field: string; readonly message: string } | null {
  const shape = READING_SHAPES[kind]
  const bad = (field: string, message: string) => ({ field, message })
  if (shape.volume && !((r.volume ?? 0) > 0)) return bad('volume', 'a volume above zero')
  if (shape.seconds && !((r.seconds ?? -1) >= shape.seconds.min))
    return bad('seconds', `at least ${shape.seconds.min} s`)
  if (shape.value && !((r.value ?? -1) >= shape.value.min && (r.value ?? 0) <= shape.value.max))
    return bad('value', `from ${shape.value.min} to ${shape.value.max} ${shape.value.unit}`)
  if (shape.series && !shape.series.includes(r.series ?? ''))
    return bad('series', `one of ${shape.series.join(', ')}`)
  if (shape.outcome && !shape.outcome.includes(r.outcome ?? ''))
    return bad('outcome', `one of ${shape.outcome.join(', ')}`)
  if (kind === 'air' && r.series === 'water' && !((r.volume ?? 0) > 0 && (r.seconds ?? 0) >= 0.5))
    return bad('volume', 'the water lifted and the seconds it took')
  return null
}

/** What a trial of some kind is set up with; SI. Absent means the usual. */
export interface TrialSetup {
  /** Standard uncertainty of the scale (kg). */
  readonly scale?: number | undefined
  /** Meter factor (pulses/m³) and its relative standard uncertainty. */
  readonly kFactor?: number | undefined
  readonly kUncertainty?: number | undefined
  /** Relative standard uncertainty of an instrument read off: flow or watts. */
  readonly relative?: number | undefined
  /** Standard uncertainty of a sound level meter (dB). */
  readonly levelUncertainty?: number | undefined
  readonly pricePerKwhMinor?: number | undefined
  readonly currency?: string | undefined
  /** Microphone from the filter (m), and where. */
  readonly distance?: number | undefined
  readonly position?: string | undefined
  /** Points watched in a dye trial, the unit of strength, and the water it spreads in (m³). */
  readonly points?: readonly string[] | undefined
  readonly unit?: string | undefined
  readonly volume?: number | undefined
  /** Riser of an airlift: bore, depth of the air's entry, height of release (m). */
  readonly riserDiameter?: number | undefined
  readonly submergence?: number | undefined
  readonly stone?: string | undefined
  /** What holds it up, in a holding trial: cups, clips. */
  readonly load?: string | undefined
  /** One air pump over many outlets: heads as metres of water (the stone's at 1 L/min), flow in m³/s. */
  readonly airLine?:
    | {
        readonly shutOffHead: number
        readonly maxFlow: number
        readonly outlets: readonly {
          readonly label: string
          readonly depth: number
          readonly stoneHead: number
          readonly open: number
        }[]
      }
    | undefined
}

/** Usual setup values. Common practice, no source. */
export const USUAL_SETUP = {
  scale: 0.005,
  kFactor: 4.5e6,
  kUncertainty: 0.01,
  relative: 0.02,
  levelUncertainty: 1,
} as const
