import { rowBase } from './common'
import type { Resource } from './resource'
import { RESOURCES, type ResourceName } from './resources'
import { unitOf } from './schema'

/** A resource without its schemas. */
export interface Outline {
  /** Name of one of them in a sentence. */
  readonly singular: string
  readonly servedIn: Resource['servedIn']
  /** The fields that say whose it is: of a row of which kind. */
  readonly owners: Readonly<Record<string, ResourceName>>
  /** The fields of a row but for its stamps, with the unit of those that are numbers of one. */
  readonly fields: Readonly<Record<string, string | null>>
  /** Fields that only the server says. */
  readonly serverOnly: readonly string[]
  /** Value of a field that was not given. */
  readonly defaults: object
}

const outlineOf = (name: ResourceName): Outline => {
  const { singular, servedIn, links, Row, Create, defaults } = RESOURCES[name]
  return {
    singular,
    servedIn,
    owners: Object.fromEntries(links.filter((l) => l.owner).map((l) => [l.path[0], l.to as ResourceName])),
    fields: Object.fromEntries(
      Object.entries(Row.shape).flatMap(([f, s]) =>
        f === 'id' || !(f in rowBase) ? [[f, unitOf(s) ?? null]] : [],
      ),
    ),
    serverOnly: Object.keys(Row.shape).filter((f) => !(f in Create.shape) && !(f in rowBase)),
    defaults,
  }
}

/**
 * The resources in outline. The build of the app puts what this comes to in its place, so that a page writes and names
 * rows without reading every schema first.
 */
export const OUTLINE = Object.fromEntries(
  (Object.keys(RESOURCES) as ResourceName[]).map((n) => [n, outlineOf(n)]),
) as Readonly<Record<ResourceName, Outline>>
