import { useQuery } from '@tanstack/react-query'
import type { Edition, ReviewShare, SharedReview } from '@ypsometer/contract'
import type { Snapshot } from '@ypsometer/contract/review'
import type { Moved } from '@ypsometer/core/review/moved'
import { queryClient } from './cache'
import { api } from './client'

/** Grounds of a review: its draft’s numbers, its editions, its links, and what has moved since. */
export function useReviewParts(id: string, editions: number) {
  const draft = useQuery({
    queryKey: ['reviews', id, 'draft'],
    queryFn: ({ signal }) => api<{ snapshot: Snapshot }>(`/reviews/${id}/draft`, { signal }),
  })
  const published = useQuery({
    queryKey: ['reviews', id, 'editions'],
    queryFn: ({ signal }) =>
      api<{ items: (Edition & { snapshot: Snapshot })[] }>(`/reviews/${id}/editions`, { signal }),
  })
  const shares = useQuery({
    queryKey: ['reviews', id, 'shares'],
    queryFn: ({ signal }) => api<{ items: ReviewShare[] }>(`/reviews/${id}/shares`, { signal }),
    enabled: editions > 0,
  })
  const moved = useQuery({
    queryKey: ['reviews', id, 'moved'],
    queryFn: ({ signal }) => api<{ since: string; items: Moved[] }>(`/reviews/${id}/moved`, { signal }),
  })
  return { draft, published, shares, moved }
}

/** Asks the server to do something to a review, and reads all of it again. */
export async function actOnReview(path: string, body: object = {}): Promise<void> {
  await api(path, { method: 'POST', body, key: crypto.randomUUID() })
  await queryClient.invalidateQueries({ queryKey: ['reviews'] })
}

/** Makes a link to a review; its secret is told this once. */
export async function makeShare(
  id: string,
  body: { readonly label: string; readonly expiresOn: string | null },
): Promise<string> {
  const { secret } = await api<{ secret: string }>(`/reviews/${id}/shares`, { method: 'POST', body })
  await queryClient.invalidateQueries({ queryKey: ['reviews', id, 'shares'] })
  return secret
}

/** One review by a link, without an account; asked once for each edition, so that a reading counts as one. */
export const useShared = (secret: string, edition: number | null) =>
  useQuery({
    queryKey: ['shared', secret, edition],
    queryFn: ({ signal }) =>
      api<SharedReview>(`/shared/${secret}${edition ? `?edition=${edition}` : ''}`, { signal }),
    staleTime: Infinity,
    refetchOnWindowFocus: false,
    refetchOnReconnect: false,
  })
