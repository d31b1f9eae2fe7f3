import { RESOURCE_NAMES, type ResourceName } from '@ypsometer/contract'
import type { FastifyInstance } from 'fastify'
import type { Db } from './db/client'
import { HANDS_SPECIALS } from './hands/rows'
import { registerEditable } from './http/editable'
import { Rows, type AnyEditable, type Specials } from './http/rows'
import { LIBRARY_SPECIALS } from './library/rows'
import { DOSSIER_SPECIALS } from './models/rows'
import { REVIEW_SPECIALS } from './reviews/routes'
import { TANK_SPECIALS } from './tanks/rows'
import { TICK_SPECIALS } from './upkeep/routes'

const SPECIALS: Specials = {
  ...DOSSIER_SPECIALS,
  ...TANK_SPECIALS,
  ...LIBRARY_SPECIALS,
  ...HANDS_SPECIALS,
  ...TICK_SPECIALS,
  ...REVIEW_SPECIALS,
}

/** Specials of each kind of row. */
const EDITABLE = Object.fromEntries(
  RESOURCE_NAMES.map((name) => [name, { name, ...SPECIALS[name] } as AnyEditable]),
) as Readonly<Record<ResourceName, AnyEditable>>

/** Reader and writer of the rows of a kind. */
// oxlint-disable-next-line typescript/no-explicit-any -- what is special about a kind is of its own type
export const rowsOf = (name: ResourceName): Rows<any, any> => new Rows(EDITABLE[name])

/** Serves every kind of row that the contract declares. */
export function registerRows(app: FastifyInstance, db: Db): void {
  for (const name of RESOURCE_NAMES) registerEditable(app, db, EDITABLE[name])
}
