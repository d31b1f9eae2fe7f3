import { type FetchQueryOptions, type QueryFunction, type QueryKey } from '@tanstack/react-query'
import type { Opened } from '@ypsometer/contract'
import { queryClient } from './cache'
import { type ListName } from './collections'
import { dossierQuery, noteWorked, openDossier } from './dossier'
import { keptFiltersQuery, listQuery, waterTestsQuery } from './lists'
import { biasQuery, candidatesQuery, shelfFilter, shelfQuery } from './shelf'

/** The lists that a dossier is opened with. */
const OPENED_WITH = ['stock-classes', 'media', 'house-rules'] as const

/** Puts what a dossier was opened with where its views look for it. */
export function takeOpened(opened: Opened): void {
  noteWorked(opened)
  queryClient.setQueryData(dossierQuery(opened.dossier.model.id).queryKey, opened.dossier)
  queryClient.setQueryData(biasQuery.queryKey, opened['label-bias'])
  for (const name of OPENED_WITH) queryClient.setQueryData([name], opened[name])
}

/** Asks for an answer, which is the part of another where that is given and comes; a second try asks for its own. */
function prefetch<T, K extends QueryKey>(query: FetchQueryOptions<T, Error, T, K>, part?: Promise<T>): void {
  let given = part
  part?.catch(() => undefined)
  const { queryFn } = query
  void queryClient.prefetchQuery({
    ...query,
    queryFn: (context) => {
      const now = given
      given = undefined
      return now ?? (queryFn as QueryFunction<T, K>)(context)
    },
  })
}

/** Asks for what a view will need while its code is still on the way. */
export const ahead = {
  shelf: (q: URLSearchParams): void => void queryClient.prefetchInfiniteQuery(shelfQuery(shelfFilter(q))),
  dossier: (id: string): void => {
    // A dossier that was open before is there with its lists; what is old of them is read again by whoever shows it.
    const opened = queryClient.getQueryState(['dossier', id]) ? undefined : openDossier(id)
    prefetch(
      dossierQuery(id),
      opened?.then((o) => o.dossier),
    )
    prefetch(
      biasQuery,
      opened?.then((o) => o['label-bias']),
    )
    for (const name of OPENED_WITH)
      prefetch(
        listQuery(name),
        opened?.then((o) => o[name]),
      )
  },
  counter: (): void => {
    ahead.candidates()
    ahead.list('tanks')
    ahead.list('stock-classes')
    ahead.list('house-rules')
  },
  trial: (): void => {
    ahead.counter()
    void queryClient.prefetchQuery(waterTestsQuery)
  },
  upkeep: (): void => {
    void queryClient.prefetchQuery(keptFiltersQuery)
    ahead.list('ticks')
    ahead.list('tanks')
    ahead.list('house-rules')
  },
  faults: (): void => {
    ahead.counter()
    ahead.list('fault-searches')
    ahead.list('set-ups')
    ahead.list('media')
    void queryClient.prefetchQuery(biasQuery)
  },
  candidates: (): void => void queryClient.prefetchQuery(candidatesQuery),
  list: (name: ListName): void => void queryClient.prefetchQuery(listQuery(name)),
}
