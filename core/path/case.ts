import type { Fill } from '../fills'
import type { Pump } from '../hydraulics'
import type { PumpKnowledge } from '../duty'
import type { HookupRecord } from '../trials/records'
import type { FilterKind } from '../kinds'
import type { Medium } from '../media'
import type { BodyRecord, Chamber } from '../volumes'

/** Flow before a run is described (m³/s): the label, and what the rule of thumb leaves of it. */
export interface ByLabel {
  readonly label: number
  readonly low: number
  readonly high: number
}

/** The drive of the water, and how well it is known. */
export interface Drive {
  readonly pump: Pump
  readonly knowledge: PumpKnowledge
  /** `airlift`: its own curve by riser, depth and air; `straight`: a line from a measured flow, for want of them. */
  readonly from: 'fit' | 'label' | 'airlift' | 'straight'
  /** Heads (m) taken as usual for the kind, because the label prints none. */
  readonly supposedHead?: readonly [low: number, high: number] | null
  /** A label's curve brought to a timing of the empty body on its hoses. */
  readonly brought?: boolean
  /** Factor on the curve's reach that gives the calibration trial its own flow; absent when it was left alone. */
  readonly reach?: number
}

/** Another filter on the same hoses: in the same run, or in a branch of its own beside this one. */
export interface SecondFilter {
  readonly label: string
  readonly arrangement: 'series' | 'beside'
  readonly running: boolean
  readonly shutOffHead: number
  readonly maxFlow: number
  readonly exponent: number
  /** Its body and fill, in velocity heads of a 16 mm bore. */
  readonly lossCoefficient: number
}

/**
 * A loaded trial that told how the body behaves: the case as it stood then, and what was measured (m³/s, standard
 * uncertainty). `knob` is what was set by it: what trays and grids take, or, where hose and media alone take more than
 * the trial shows and for airlifts, how far the curve of the drive reaches.
 */
export interface CalibrationTrial {
  readonly case: PathCase
  readonly knob: 'rest' | 'reach'
  readonly flow: number
  readonly uncertainty: number
  readonly degreesOfFreedom: number
}

/**
 * One filter with one fill on one hookup: all the path needs. SI; `rest` is what trays and grids take, m per (m³/s)².
 */
export interface PathCase {
  readonly kind: FilterKind
  readonly body: BodyRecord
  readonly chambers: readonly Chamber[]
  readonly media: readonly Medium[]
  readonly fill: Fill
  readonly hookup: HookupRecord | null
  /**
   * Nobody has described a run: it is the usual one of the kind, and the flow stays within what the rule of thumb
   * leaves of the label. Absent where a run is on record.
   */
  readonly supposed?: { readonly within: ByLabel | null }
  /** The largest tank its label claims (m³), for houses that go by oversizing. */
  readonly claimedMax?: number | null
  readonly second?: SecondFilter | null
  readonly drive: Drive
  readonly rest: number
  readonly told?: CalibrationTrial | null
  /** Biological media of one fill as weighed (kg): it calibrates that fill, and no other. */
  readonly weighed?: { readonly fillId: string; readonly mass: number } | null
  readonly temperature: number
  /** Practical salinity; fresh water when absent. */
  readonly salinity?: number
}
