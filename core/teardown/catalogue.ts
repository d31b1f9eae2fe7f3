import { FILTERS, type FilterKind } from '../kinds'
import { part, type PartKind } from '../parts/partKind'

/** Parts in the order they usually come off, by kind. Common practice, no source. */
export const partsOf = (kind: FilterKind): readonly PartKind[] => FILTERS[kind].parts

/** Kind of a part by its name, or a general part. */
export const partKind = (kind: FilterKind, name: string): PartKind =>
  partsOf(kind).find((p) => p.name.toLowerCase() === name.trim().toLowerCase()) ??
  part(name, '', 'general', 'hard plastic', 'none')
