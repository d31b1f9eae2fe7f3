import type { Dossier, Instrument, Log, Reading, Trial } from '@ypsometer/contract'
import type { Dimension } from '@ypsometer/core/units/dimensions'
import type { ComponentType } from 'react'
import type { Target } from '../csv/target'

/** Props of every bench screen: the trial and its readings in the order they were taken. */
export interface ScreenProps {
  readonly dossier: Dossier
  readonly trial: Trial
  readonly readings: readonly Reading[]
}

/** A number of a reading: what it is called and in which unit it is typed. */
export interface NumberCell {
  readonly field: 'volume' | 'seconds' | 'value'
  readonly label: string
  readonly dimension: Dimension
  readonly unit?: string
}

/** The second number of a run against the clock, and the instrument that can give it. */
export interface SecondNumber {
  readonly instrument: Instrument
  readonly min: number
  readonly max: number
  /**
   * Counted from the start of the run to its end, in whole numbers; else it is what the instrument shows at the end.
   */
  readonly counted?: true
  /** Another series whose number the same instrument shows. */
  readonly alsoOf?: string
  /** Label of the button that takes it from the instrument. */
  readonly take: (si: number) => string
}

/** How runs against the clock go. */
export interface Clocked {
  /** Instruments shown beside the clock. */
  readonly live: readonly Instrument[]
  /** Label of the button while a run is on; that the vessel is full unless said. */
  readonly stop?: string
  /** Notes of a run besides its seconds; absent: the vessel's mark is all. */
  readonly second?: SecondNumber
  /** The series that is timed, where others are only typed: into the vessel as well. */
  readonly timed?: string
  /** Its flow depends on lift, so that the next lift is one press away. */
  readonly lifts?: true
  /** The runs are told how many more are wanted. */
  readonly advises?: true
}

/** How a kind of trial is called, what it asks for, how its readings are taken, and what it draws. */
export interface TrialView {
  readonly title: string
  readonly short: string
  readonly how: string
  /** Cautions, beside what always holds. */
  readonly caution?: string
  /** The number typed, where there is one. */
  readonly value?: Omit<NumberCell, 'field'>
  /** The instrument that gives that number, and whether it can be logged. */
  readonly instrument?: { readonly gives: Instrument; readonly log?: 'mean' | 'energyMean' }
  /** The number is counted, in whole ones, over the vessel's volume. */
  readonly perVessel?: (vessel: number) => string
  /** Numbers typed at the desk; by its shape and `value` unless said. */
  readonly cells?: (series: string) => readonly NumberCell[]
  readonly clock?: Clocked
  /** Values a reading may be of, and what they are called. */
  readonly series?: (trial: Trial) => readonly (readonly [value: string, words: string])[]
  readonly outcomes?: readonly (readonly [value: string, words: string])[]
  readonly Screen: ComponentType<ScreenProps>
  /** Setup of its instrument or arrangement. */
  readonly Setup?: ComponentType<{ readonly trial: Trial }>
  /** Chart of its readings at the desk, in place of one of each log. */
  readonly Drawing?: ComponentType<ScreenProps & { readonly logs: readonly Log[] }>
  /** Note below its readings at the desk. */
  readonly Below?: ComponentType<{ readonly trial: Trial }>
  /** Tables that can be imported into trials of it. */
  readonly imports?: readonly Target[]
  /** Figures that lead the row of a trial: all unless said, by the end of their ids. */
  readonly leads?: string
}
