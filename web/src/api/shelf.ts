import {
  infiniteQueryOptions,
  keepPreviousData,
  queryOptions,
  useInfiniteQuery,
  useQuery,
} from '@tanstack/react-query'
import type { Ranking, ShelfPage } from '@ypsometer/contract'
import type { CandidateList } from '@ypsometer/contract/candidateList'
import type { LabelBias } from '@ypsometer/core/trials/bias'
import { queryClient } from './cache'
import { api } from './client'

export interface ShelfFilter {
  readonly search: string
  readonly kind: string
  readonly sort: string
  readonly stands: string
  readonly missing: string
}

export const shelfQuery = (f: ShelfFilter) =>
  infiniteQueryOptions({
    queryKey: ['shelf', f],
    initialPageParam: '',
    queryFn: ({ pageParam, signal }) => {
      const q = new URLSearchParams({ sort: f.sort, limit: '40' })
      if (f.search) q.set('search', f.search)
      if (f.kind) q.set('kind', f.kind)
      if (f.stands) q.set('stands', f.stands)
      if (f.missing) q.set('missing', f.missing)
      if (pageParam) q.set('cursor', pageParam)
      return api<ShelfPage>(`/models?${q}`, { signal })
    },
    getNextPageParam: (last) => last.next ?? undefined,
  })

/** Between two looks for rows that are being worked out anew (ms). */
const ANEW = 2000
/** The shelf, page after page. */

export const useShelf = (f: ShelfFilter) =>
  useInfiniteQuery({
    ...shelfQuery(f),
    placeholderData: keepPreviousData,
    // Rows that are being worked out anew are looked for again.
    refetchInterval: ({ state }) =>
      state.data?.pages.some((p) => p.items.some((r) => r.old)) ? ANEW : false,
  })

/** Query of the shelf’s address. */
export const shelfFilter = (q: URLSearchParams): ShelfFilter => ({
  search: q.get('q') ?? '',
  kind: q.get('kind') ?? '',
  sort: q.get('sort') ?? 'name',
  stands: q.get('stands') ?? '',
  missing: q.get('missing') ?? '',
})

/** Between two looks while some of the shelf is still to be worked out again (ms). */
const STILL_OLD = 3000

/** Candidates of the shelf. */
export const candidatesQuery = queryOptions({
  queryKey: ['candidates'],
  queryFn: async ({ signal }) => {
    const all: CandidateList['items'][number][] = []
    for (let after: string | null = ''; after !== null;) {
      const page: CandidateList = await api(`/candidates${after ? `?after=${after}` : ''}`, { signal })
      all.push(...page.items)
      after = page.next
    }
    return all
  },
  // Those that are still to be worked out again are asked for until they are.
  refetchInterval: ({ state }) => (state.data?.some((c) => c.old) ? STILL_OLD : false),
})

export const useCandidates = () => useQuery(candidatesQuery)

const rankingQuery = queryOptions({
  queryKey: ['ranking'],
  queryFn: ({ signal }) => api<{ ranking: Ranking | null }>('/rankings/latest', { signal }),
  staleTime: 0,
})

/** The last ranking of the whole shelf, and what starts and stops one. */
export function useRankings() {
  const latest = useQuery(rankingQuery)
  const put = (ranking: Ranking): void => void queryClient.setQueryData(['ranking'], { ranking })
  return {
    latest,
    refetch: () => void latest.refetch(),
    start: async () => put(await api<Ranking>('/rankings', { method: 'POST', key: crypto.randomUUID() })),
    cancel: async (id: string) => put(await api<Ranking>(`/rankings/${id}/cancel`, { method: 'POST' })),
  }
}

export const biasQuery = queryOptions({
  queryKey: ['label-bias'],
  queryFn: ({ signal }) => api<LabelBias>('/label-bias', { signal }),
  staleTime: 60000,
})

/** Label bias of this shelf. */
export const useLabelBias = () => useQuery(biasQuery)
