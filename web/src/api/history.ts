import type { HistoryPage } from '@ypsometer/contract'
import { useInfiniteQuery } from '@tanstack/react-query'
import { api } from './client'
import { queryClient } from './cache'

/** Of what a history is: a model’s whole dossier, one row, or the bench. */
export interface HistoryOf {
  readonly model: string | null
  readonly row: string | null
}

/** History and when, newest first, page after page. */
export const useHistory = ({ model, row }: HistoryOf) =>
  useInfiniteQuery({
    queryKey: ['history', model, row],
    initialPageParam: 0,
    queryFn: ({ pageParam, signal }) => {
      const q = new URLSearchParams({ limit: '50' })
      if (model) q.set('model', model)
      if (row) q.set('row', row)
      if (pageParam) q.set('before', String(pageParam))
      return api<HistoryPage>(`/history?${q}`, { signal })
    },
    getNextPageParam: (last) => last.next ?? undefined,
    staleTime: 0,
  })

/** Takes a change back. @throws ApiProblem where it was changed again since. */
export async function undoChange(id: number): Promise<void> {
  await api(`/history/${id}/undo`, { method: 'POST', key: crypto.randomUUID() })
  await queryClient.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'me' })
}
