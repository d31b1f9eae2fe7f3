import type { PatchOf } from '@ypsometer/contract'
import { SHORTEST_RUN } from '@ypsometer/core/bench/shape'
import type { Dimension } from '@ypsometer/core/units/dimensions'

/** Roles of a column, each with the quantity its numbers are of. */
export interface Role {
  readonly id: string
  readonly label: string
  readonly dimension: Dimension
  /** Unit assumed when the header names none. */
  readonly unit: string
  /** Words in a header that mean this role. */
  readonly hints: RegExp
  readonly min: number
  readonly max: number
  readonly required?: boolean
  /** May be given to several columns, each a series of its own named by its header. */
  readonly many?: boolean
}

type Row = Readonly<Record<string, number>>

/** Target of an import: the columns it is made of, and what a row of them becomes. */
export interface Target {
  readonly id: string
  readonly label: string
  readonly roles: readonly Role[]
  /** The readings that a row gives; without it the rows are points of a log. */
  readonly readings?: (row: Row) => readonly PatchOf<'readings'>[]
  /** The series that a log of it is. */
  readonly logSeries?: string
  /** Conditions of the trial it makes, from its first row. */
  readonly trial?: (first: Row) => PatchOf<'trials'>
  /** Makes a trial of its own for each value of this column, which is the lift; goes into no trial that is there. */
  readonly trialEach?: string
}

export const role = (
  id: string,
  label: string,
  dimension: Dimension,
  unit: string,
  hints: RegExp,
  [min, max]: readonly [number, number],
  more: Partial<Role> = { required: true },
): Role => ({ id, label, dimension, unit, hints, min, max, ...more })

// Headings of the trade in English and in the languages that decimal commas come from: German, French, Italian,
// Spanish, Portuguese, Dutch, the Scandinavian ones, Polish.
const TIME = /time|zeit|temps|tempo|tiempo|tijd|\btid\b|czas|sec|sek|seg|dur|dauer|\bmin\b|^t\b|^s\b/i
export const HEADINGS = {
  time: TIME,
  volume:
    /vol|lit(er|re|ro|rów)|vessel|gal|eimer|inhalt|seau|secchio|cubo|balde|emmer|inhoud|hink|spand|bøtte|wiadro|obj[eę]to|^v\b/i,
  mass: /mass|weight|gewicht|poids|peso|vikt|vekt|vægt|masa|waga|scale|\bkg\b/i,
  head: /head|lift|h[öo]he|f[öo]rderh|hauteur|altezza|prevalenza|altura|hoogte|h[öøo]j?d|wysoko|^h\b|^m\b/i,
  flow: /flow|d[ée]bit|durchfluss|f[öo]rdermenge|portata|caudal|vaz[ãa]o|debiet|fl[öo]de|przep[łl]yw|l\/h|gph|^q\b/i,
  power: /watt|power|leistung|puissance|potenza|potencia|pot[êe]ncia|vermogen|effekt|moc\b|^w\b|^p\b/i,
  sound:
    /level|noise|db|pegel|ger[äa]usch|l[äa]rm|bruit|niveau|rumore|ruido|ru[íi]do|geluid|ljud|lyd|st[øo]y|ha[łl]as|^l\b/i,
} as const

export const SECONDS = role('seconds', 'Seconds', 'time', 's', TIME, [SHORTEST_RUN, 1e6])
export const TIME_OF_LOG = role('time', 'Time', 'time', 's', TIME, [0, 1e7])
