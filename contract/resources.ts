import type { z } from 'zod'
import { completed, mayBeIncomplete, momentsWithin } from './schema'
import { fills, houseRules, media } from './fills'
import { changeOvers, faultSearches, setUps } from './hands'
import { claims, hookups, logs, models, readings, specimens, trials } from './models'
import type { Shape } from './resource'
import { reviews } from './reviews'
import { stockClasses } from './stock'
import { tanks } from './tanks'
import { bodies, chambers, contents, parts, photos } from './teardown'
import { ticks, visits } from './visits'

/**
 * Every kind of row people write, by its path, in the order in which rows need each other: it is the order of a
 * document. Those of a dossier belong to a model, at the end of their chain of owners.
 */
export const RESOURCES = {
  'house-rules': houseRules,
  'stock-classes': stockClasses,
  media,
  models,
  tanks,
  claims,
  specimens,
  hookups,
  bodies,
  chambers,
  fills,
  trials,
  readings,
  logs,
  contents,
  parts,
  visits,
  ticks,
  'set-ups': setUps,
  'change-overs': changeOvers,
  'fault-searches': faultSearches,
  photos,
  reviews,
} as const

type Resources = typeof RESOURCES
export type ResourceName = keyof Resources
/** A row of a resource as it travels. */
export type RowOf<N extends ResourceName> = z.output<Resources[N]['Row']>
/** Body that makes a row; fields with a default may be left out. */
export type CreateOf<N extends ResourceName> = z.input<Resources[N]['Create']>
/** Body that makes a row, with the defaults in. */
export type CreatedOf<N extends ResourceName> = z.output<Resources[N]['Create']>
/** Body that changes a row. */
export type PatchOf<N extends ResourceName> = z.output<Resources[N]['Patch']>
/** The kinds of rows that travel in a way. */
export type NamesServedIn<W> = {
  [N in ResourceName]: Resources[N]['servedIn'] extends W ? N : never
}[ResourceName]
/** The kinds of rows of a dossier. */
export type DossierName = NamesServedIn<'dossier'>
/** The kinds of rows that are lists of their own. */
export type ListName = NamesServedIn<'list'>

/** The kinds of rows, in the order of a document. */
export const RESOURCE_NAMES = Object.keys(RESOURCES) as readonly ResourceName[]
export const DOSSIER_ROWS = RESOURCE_NAMES.filter(
  (n): n is DossierName => RESOURCES[n].servedIn === 'dossier',
)
export const LISTS = RESOURCE_NAMES.filter((n): n is ListName => RESOURCES[n].servedIn === 'list')

const MOMENTS = new Map(RESOURCE_NAMES.map((n) => [n, momentsWithin(RESOURCES[n].declared)]))
/** The fields of a kind of row that hold a moment. */
export const momentsOf = (name: ResourceName): readonly string[] => MOMENTS.get(name) ?? []

const GROWN = new Map(
  RESOURCE_NAMES.map((n) => [
    n,
    Object.entries(RESOURCES[n].declared as Shape).filter(([, s]) => mayBeIncomplete(s)),
  ]),
)
/** A row that was written by an older program, with what its fields have got since; see `completed`. */
export function completedRow(name: ResourceName, row: unknown): unknown {
  const grown = GROWN.get(name) ?? []
  if (!grown.length || row === null || typeof row !== 'object') return row
  const fields = grown.flatMap(([f, s]) =>
    f in row ? [[f, completed(s, row[f as keyof typeof row], (RESOURCES[name].defaults as Plain)[f])]] : [],
  )
  return { ...row, ...Object.fromEntries(fields) }
}
type Plain = Readonly<Record<string, unknown>>

for (const [name, { links }] of Object.entries(RESOURCES))
  for (const { to, path } of links)
    if (!(to in RESOURCES))
      throw new Error(`${name}.${path.join('.')} names rows of ${to}, which there are none of`)
