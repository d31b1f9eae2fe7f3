import type { Dossier, NamesServedIn, ResourceName, RowOf } from '@ypsometer/contract'
import { OUTLINE } from '@ypsometer/contract/outline'
import { entriesOf, overlay, type Entry } from './outboxPolicy'

const NAMES = Object.keys(OUTLINE) as readonly ResourceName[]

export type ListName = NamesServedIn<'list'>

export const isList = (name: ResourceName): name is ListName => OUTLINE[name].servedIn === 'list'

/** The collections of a dossier. */
export type InDossier = NamesServedIn<'dossier'>

const DOSSIER_ROWS = NAMES.filter((n): n is InDossier => OUTLINE[n].servedIn === 'dossier')

/** A dossier by its collections, so that each name gives its own kind of rows. */
type Collections = { readonly [N in InDossier]: readonly RowOf<N>[] }

export const emptyDossier = (model: Dossier['model']): Dossier => ({
  model,
  ...(Object.fromEntries(DOSSIER_ROWS.map((n) => [n, []])) as unknown as { [N in InDossier]: RowOf<N>[] }),
})

export const rowsOf = <N extends InDossier>(d: Collections, name: N): readonly RowOf<N>[] => d[name]

export const withRows = <N extends InDossier>(d: Dossier, name: N, rows: readonly RowOf<N>[]): Dossier => ({
  ...d,
  [name]: rows,
})

/** Is the row that this one belongs to in the dossier? */
const hasOwner = (d: Dossier, name: InDossier, row: object): boolean =>
  Object.entries(OUTLINE[name].owners).some(([field, to]) => {
    const id = (row as Readonly<Record<string, unknown>>)[field]
    return to === 'models' ? id === d.model.id : rowsOf(d, to as InDossier).some((r) => r.id === id)
  })

/** Does a row of a collection belong to this dossier? */
export const belongs = (d: Dossier, name: InDossier, row: { readonly id: string }): boolean =>
  rowsOf(d, name).some((r) => r.id === row.id) || hasOwner(d, name, row)

/** Rows with an acknowledged one in its place, or without it when it was deleted. */
export function put<R extends { readonly id: string; readonly deletedAt: string | null }>(
  rows: readonly R[],
  row: R,
): readonly R[] {
  if (row.deletedAt !== null) return rows.filter((r) => r.id !== row.id)
  return rows.some((r) => r.id === row.id) ? rows.map((r) => (r.id === row.id ? row : r)) : [...rows, row]
}

/** A dossier with waiting changes laid over every collection; rows of another model's creation are left out. */
export function withPending(server: Dossier, entries: readonly Entry[]): Dossier {
  let out: Dossier = { ...server, model: overlay([server.model], 'models', entries)[0] ?? server.model }
  const lay = <N extends InDossier>(name: N): void => {
    const mine = entriesOf(name, entries).filter((e) => e.method !== 'POST' || belongs(out, name, e.body))
    if (mine.length) out = withRows(out, name, overlay(rowsOf(out, name), name, mine))
  }
  DOSSIER_ROWS.forEach(lay)
  // Rows under a deleted parent go with it.
  for (const name of DOSSIER_ROWS.filter((n) => !Object.values(OUTLINE[n].owners).includes('models')))
    out = withRows(
      out,
      name,
      rowsOf(out, name).filter((r) => hasOwner(out, name, r)),
    )
  return out
}
