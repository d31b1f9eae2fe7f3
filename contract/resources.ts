import type { z } from 'zod'
import { fills, houseRules, media } from './fills'
import { changeOvers, faultSearches, setUps } from './hands'
import { claims, hookups, logs, models, readings, specimens, trials } from './models'
import { reviews } from './reviews'
import { stockClasses } from './stock'
import { tanks } from './tanks'
import { bodies, chambers, contents, parts, photos } from './teardown'
import { ticks, visits } from './visits'

/** Every kind of row people write, by its path. */
export const RESOURCES = {
  models,
  claims,
  specimens,
  hookups,
  trials,
  readings,
  logs,
  contents,
  parts,
  photos,
  bodies,
  chambers,
  fills,
  visits,
  ticks,
  'set-ups': setUps,
  'change-overs': changeOvers,
  'fault-searches': faultSearches,
  reviews,
  media,
  'house-rules': houseRules,
  'stock-classes': stockClasses,
  tanks,
} as const

type Resources = typeof RESOURCES
export type ResourceName = keyof Resources
/** A row of a resource as it travels. */
export type RowOf<N extends ResourceName> = z.output<Resources[N]['Row']>
/** What makes a row; fields with a default may be left out. */
export type CreateOf<N extends ResourceName> = z.input<Resources[N]['Create']>
/** What makes a row, with the defaults in. */
export type CreatedOf<N extends ResourceName> = z.output<Resources[N]['Create']>
/** What changes a row. */
export type PatchOf<N extends ResourceName> = z.output<Resources[N]['Patch']>
