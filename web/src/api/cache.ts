import { QueryClient } from '@tanstack/react-query'
import type { Dossier, ResourceName, RowOf } from '@ypsometer/contract'
import { outbox } from './app'
import { ApiProblem } from './client'
import { belongs, emptyDossier, type InDossier, isList, put, rowsOf, withRows } from './collections'

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5000,
      networkMode: 'always',
      // A refusal is final; no answer is worth another try.
      retry: (count, error) => !(error instanceof ApiProblem) && count < 2,
      retryDelay: 800,
    },
  },
})

/** Lists that dossiers are worked out with: what the server makes of them is old when one is written to. */
export const WORKED_WITH: readonly string[] = ['media', 'house-rules', 'stock-classes']

/**
 * Asks again for answers that are on their way: they were asked for before a write that has been acknowledged since,
 * and would put what was before it in its place.
 */
function overtaken(first: string): void {
  for (const { queryKey } of queryClient
    .getQueryCache()
    .findAll({ queryKey: [first], fetchStatus: 'fetching' })) {
    const one = { queryKey, exact: true }
    void queryClient.cancelQueries(one).then(() => queryClient.refetchQueries({ ...one, type: 'active' }))
  }
}

/** Puts an acknowledged row into every cached answer that shows it. */
function acknowledge<N extends ResourceName>(collection: N, row: RowOf<N>): void {
  overtaken(isList(collection) ? collection : 'dossier')
  if (isList(collection)) {
    queryClient.setQueryData<{ items: readonly RowOf<N>[] }>(
      [collection],
      (old) => old && { ...old, items: put(old.items, row) },
    )
    if (collection === 'tanks' || collection === 'house-rules')
      void queryClient.invalidateQueries({ queryKey: ['kept-filters'] })
    if (WORKED_WITH.includes(collection)) workedOutOld()
    return
  }
  if (collection === 'models') {
    const model = row as RowOf<'models'>
    queryClient.setQueryData<Dossier>(['dossier', row.id], (old) => ({
      ...(old ?? emptyDossier(model)),
      model,
    }))
  } else
    for (const [key, data] of queryClient.getQueriesData<Dossier>({ queryKey: ['dossier'] }))
      if (data && belongs(data, collection as InDossier, row))
        queryClient.setQueryData(
          key,
          withRows(
            data,
            collection as InDossier,
            put<RowOf<InDossier>>(rowsOf(data, collection as InDossier), row as RowOf<InDossier>),
          ),
        )
  workedOutOld()
}

/** Results of the server from dossiers, library and rules are old: what is shown of it is asked for again. */
export function workedOutOld(): void {
  for (const first of ['shelf', 'candidates'])
    void queryClient.invalidateQueries({ queryKey: [first], refetchType: 'active' })
}

/** Starts the outbox of this page over the cache. `merged` is told when a change was made on top of another's. */
export const startWriting = (merged: () => void): void => outbox.start({ acknowledged: acknowledge, merged })
