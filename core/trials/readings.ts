import { reading as vessel } from './vessel/reading'
import { reading as weighed } from './weighed/reading'
import { reading as meter } from './meter/reading'
import { reading as read } from './read/reading'
import { reading as shutOff } from './shut-off/reading'
import { reading as meterCheck } from './meter-check/reading'
import { reading as power } from './power/reading'
import { reading as noise } from './noise/reading'
import { reading as dye } from './dye/reading'
import { reading as holding } from './holding/reading'
import { reading as prime } from './prime/reading'
import { reading as air } from './air/reading'
import { reading as waterTest } from './water-test/reading'
import { reading as clarity } from './clarity/reading'
import {
  shapeProblem,
  type BenchReading,
  type ReadingOf,
  type ReadingProblem,
  type SetupField,
  type TrialShape,
} from '../bench/shape'

export { LONGEST_WATCH, SHORTEST_RUN } from '../bench/shape'

/** Readings of each kind of trial. A new kind is a folder beside this file and a line here. */
const SHAPES = {
  vessel,
  weighed,
  meter,
  read,
  'shut-off': shutOff,
  'meter-check': meterCheck,
  power,
  noise,
  dye,
  holding,
  prime,
  air,
  'water-test': waterTest,
  clarity,
} as const
type Shapes = typeof SHAPES

export type TrialKind = keyof Shapes
export const TRIAL_KINDS = Object.keys(SHAPES) as [TrialKind, ...TrialKind[]]
export const READING_SHAPES: Readonly<Record<TrialKind, TrialShape>> = SHAPES

/** Kinds that end in a flow of water under a trial's conditions. */
export const FLOW_KINDS: readonly TrialKind[] = TRIAL_KINDS.filter((k) => READING_SHAPES[k].flow)
export const isFlowKind = (kind: TrialKind): boolean => FLOW_KINDS.includes(kind)

/** A whole reading of a kind. */
export type Reading<K extends TrialKind> = ReadingOf<Shapes[K]>

/** Fault of a reading: the field and what would be accepted; null when there is none. */
export const readingProblem = (kind: TrialKind, r: BenchReading): ReadingProblem | null =>
  shapeProblem(READING_SHAPES[kind], r)

/**
 * The whole readings of a kind among those kept. One that lacks a part is left out: it was never written by this app.
 */
export const wholeReadings = <K extends TrialKind>(
  kind: K,
  runs: readonly BenchReading[],
): readonly Reading<K>[] =>
  runs.flatMap((r) =>
    readingProblem(kind, r) ? [] : [{ series: '', outcome: '', note: '', ...r } as unknown as Reading<K>],
  )

type Declared<F> = F extends { is: 'number' }
  ? number
  : F extends { is: 'text' }
    ? string
    : F extends { is: 'texts' }
      ? readonly string[]
      : F extends { is: 'choice'; of: readonly (infer V)[] }
        ? V
        : never
type SetupDeclared = {
  [K in TrialKind]: Shapes[K] extends { setup: infer S } ? S : object
}[TrialKind]
type AllSetup = SetupDeclared extends infer S ? (S extends object ? keyof S : never) : never
type SetupFieldOf<F extends PropertyKey> = SetupDeclared extends infer S
  ? S extends Record<F, infer D>
    ? D
    : never
  : never

/** Every field of every kind's set-up, by its name. */
export const SETUP_FIELDS: Readonly<Record<string, SetupField>> = Object.assign(
  {},
  ...TRIAL_KINDS.map((k) => READING_SHAPES[k].setup),
)

/** Setup of a trial of some kind; SI. Absent means the usual. */
export type TrialSetup = {
  readonly [F in AllSetup]?: Declared<SetupFieldOf<F>> | undefined
} & {
  readonly currency?: string | undefined
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
