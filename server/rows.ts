import { RESOURCE_NAMES } from '@ypsometer/contract'
import type { FastifyInstance } from 'fastify'
import type { Db } from './db/client'
import { HANDS_SPECIALS } from './hands/rows'
import { registerEditable } from './http/editable'
import type { AnyEditable, Specials } from './http/rows'
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

/** Serves every kind of row that the contract declares. */
export function registerRows(app: FastifyInstance, db: Db): void {
  for (const name of RESOURCE_NAMES) registerEditable(app, db, { name, ...SPECIALS[name] } as AnyEditable)
}
