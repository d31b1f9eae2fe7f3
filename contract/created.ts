import { logSummary } from '@ypsometer/core/bench/logs'
import { OUTLINE } from './outline'
import type { CreatedOf, CreateOf, ResourceName, RowOf } from './resources'

/** Fields that only the server writes. */
type Stamp = Pick<RowOf<ResourceName>, 'version' | 'createdAt' | 'updatedAt' | 'deletedAt'>
type AddedOf<N extends ResourceName> = Omit<RowOf<N>, keyof CreatedOf<N> | keyof Stamp>

/** Server’s fields of a new row, as far as they can be known before. */
const ADDED: { readonly [N in ResourceName]?: (body: CreateOf<N>) => Partial<AddedOf<N>> } = {
  logs: ({ times, values }) => logSummary(times, values),
}

/**
 * The whole row that a write makes, before the server has seen it: version 0, every field there, what was left out at
 * its default.
 */
export function rowToBe<N extends ResourceName>(name: N, body: CreateOf<N>, now: string): RowOf<N> {
  const { defaults, fields } = OUTLINE[name]
  const given = Object.entries(body).filter(([k, v]) => v !== undefined && k in fields)
  const stamp: Stamp = { version: 0, createdAt: now, updatedAt: now, deletedAt: null }
  return { ...stamp, ...defaults, ...Object.fromEntries(given), ...ADDED[name]?.(body) } as RowOf<N>
}

/** Fields for another row like this one: all that a person can give, without its id. */
export const givenOf = <N extends ResourceName>(name: N, row: Partial<RowOf<N>>): Partial<CreateOf<N>> =>
  Object.fromEntries(
    Object.entries(row).filter(
      ([k]) => k !== 'id' && k in OUTLINE[name].fields && !OUTLINE[name].serverOnly.includes(k),
    ),
  ) as Partial<CreateOf<N>>
