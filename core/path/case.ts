import type { Fill } from '../fills'
import type { Pump, PumpKnowledge } from '../hydraulics'
import type { HookupRecord } from '../judging'
import type { FilterKind } from '../kinds'
import type { Medium } from '../media'
import type { BodyRecord, Chamber } from '../volumes'

/** What drives the water, and how well it is known. */
export interface Drive {
  readonly pump: Pump
  readonly knowledge: PumpKnowledge
  readonly from: 'fit' | 'label' | 'airlift'
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
 * One filter with one fill on one hookup: all the path needs. SI; `rest` is what trays and grids take, m per (m³/s)².
 */
export interface PathCase {
  readonly kind: FilterKind
  readonly body: BodyRecord
  readonly chambers: readonly Chamber[]
  readonly media: readonly Medium[]
  readonly fill: Fill
  readonly hookup: HookupRecord | null
  readonly second?: SecondFilter | null
  readonly drive: Drive
  readonly rest: number
  /** The loaded trial that told `rest`: its flow and standard uncertainty (m³/s). */
  readonly told?: { readonly flow: number; readonly uncertainty: number } | null
  readonly temperature: number
}
