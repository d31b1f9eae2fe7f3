import type {
  Claim,
  Dossier,
  Hookup,
  Reading,
  ShelfPage,
  Specimen,
  StockClassRow,
  Tank,
  Trial,
} from '@ypsometer/contract'
import { keepPreviousData, QueryClient, useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { toast } from '../frame/toasts'
import { api, ApiProblem } from './client'
import { enqueue, overlay, startOutbox, useEntries, type Collection, type RowBody } from './outbox'

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

type DossierRow = Claim | Specimen | Hookup | Trial | Reading
const IN_DOSSIER: readonly Collection[] = ['claims', 'specimens', 'hookups', 'trials', 'readings']

/** Puts an acknowledged row into every cached answer that shows it. */
function acknowledge(collection: Collection, row: RowBody & { id: string }): void {
  const gone = row.deletedAt !== null
  const put = <T extends { id: string }>(rows: readonly T[]): T[] => {
    const others = rows.filter((r) => r.id !== row.id)
    if (gone) return others
    return rows.some((r) => r.id === row.id)
      ? rows.map((r) => (r.id === row.id ? (row as unknown as T) : r))
      : [...others, row as unknown as T]
  }
  if (collection === 'tanks') {
    queryClient.setQueryData<{ items: Tank[] }>(['tanks'], (old) => old && { ...old, items: put(old.items) })
    return
  }
  if (collection === 'models' && !queryClient.getQueryData(['dossier', row.id]))
    queryClient.setQueryData(['dossier', row.id], {
      model: row,
      claims: [],
      specimens: [],
      hookups: [],
      trials: [],
      readings: [],
    })
  for (const [key, data] of queryClient.getQueriesData<Dossier>({ queryKey: ['dossier'] })) {
    if (!data) continue
    if (collection === 'models') {
      if (data.model.id === row.id) queryClient.setQueryData(key, { ...data, model: row })
    } else if (IN_DOSSIER.includes(collection)) {
      const name = collection as 'claims'
      const belongs =
        row.modelId === data.model.id ||
        data.trials.some((t) => t.id === row.trialId) ||
        (data[name] as readonly DossierRow[]).some((r) => r.id === row.id)
      if (belongs) queryClient.setQueryData(key, { ...data, [name]: put(data[name] as never) })
    }
  }
  void queryClient.invalidateQueries({ queryKey: ['shelf'], refetchType: 'active' })
}

startOutbox(acknowledge, () => toast('Another window changed this too. Both changes are kept.'))

/** One dossier with this device's waiting changes laid over it. */
export function useDossier(id: string) {
  const entries = useEntries()
  const query = useQuery({
    queryKey: ['dossier', id],
    queryFn: ({ signal }) => api<Dossier>(`/models/${id}/dossier`, { signal }),
    refetchOnWindowFocus: true,
  })
  const dossier = useMemo(() => {
    const fresh = entries.find((e) => e.collection === 'models' && e.method === 'POST' && e.rowId === id)
    const server: Dossier | undefined =
      query.data ??
      (fresh && {
        model: overlay<Dossier['model']>([], 'models', [fresh])[0] as Dossier['model'],
        claims: [],
        specimens: [],
        hookups: [],
        trials: [],
        readings: [],
      })
    if (!server) return undefined
    const mine = entries.filter(
      (e) => e.method !== 'POST' || e.body.modelId === id || e.collection === 'readings',
    )
    const trials = overlay(server.trials, 'trials', mine)
    return {
      model: overlay([server.model], 'models', entries)[0] ?? server.model,
      claims: overlay(server.claims, 'claims', mine),
      specimens: overlay(server.specimens, 'specimens', mine),
      hookups: overlay(server.hookups, 'hookups', mine),
      trials,
      readings: overlay(server.readings, 'readings', mine).filter((r) =>
        trials.some((t) => t.id === r.trialId),
      ),
    } satisfies Dossier
  }, [query.data, entries, id])
  return { ...query, dossier }
}

export interface ShelfFilter {
  readonly search: string
  readonly kind: string
  readonly sort: string
}

/** The shelf, page after page. */
export const useShelf = (f: ShelfFilter) =>
  useInfiniteQuery({
    queryKey: ['shelf', f],
    initialPageParam: '',
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam, signal }) => {
      const q = new URLSearchParams({ sort: f.sort, limit: '40' })
      if (f.search) q.set('search', f.search)
      if (f.kind) q.set('kind', f.kind)
      if (pageParam) q.set('cursor', pageParam)
      return api<ShelfPage>(`/models?${q}`, { signal })
    },
    getNextPageParam: (last) => last.next ?? undefined,
  })

/** All tanks with waiting changes laid over them. */
export function useTanks() {
  const entries = useEntries()
  const query = useQuery({
    queryKey: ['tanks'],
    queryFn: ({ signal }) => api<{ items: Tank[]; next: string | null }>('/tanks?limit=200', { signal }),
  })
  const data = query.data
  const tanks = useMemo(
    () => data && overlay(data.items, 'tanks', entries).sort((a, b) => a.name.localeCompare(b.name)),
    [data, entries],
  )
  return { ...query, tanks }
}

export const useStockClasses = () =>
  useQuery({
    queryKey: ['stock-classes'],
    queryFn: ({ signal }) => api<StockClassRow[]>('/stock-classes', { signal }),
    staleTime: Infinity,
  })

interface AnyRow {
  readonly id: string
  readonly version: number
}

/** Creates a row with an id of our own, kept on this device until acknowledged. Returns the id. */
export function createRow(collection: Collection, body: RowBody, id: string = crypto.randomUUID()): string {
  enqueue({ method: 'POST', collection, rowId: id, body: { id, ...body }, version: 0, base: {} })
  return id
}

/** Changes fields of a row the person is looking at. */
export function changeRow(collection: Collection, row: AnyRow, body: RowBody): void {
  const seen = row as unknown as RowBody
  const base = Object.fromEntries(Object.keys(body).map((k) => [k, seen[k]]))
  enqueue({ method: 'PATCH', collection, rowId: row.id, body, version: row.version, base })
}

/** Deletes a row, with an undo that stays a while. */
export function deleteRow(collection: Collection, row: AnyRow, what: string): void {
  enqueue({ method: 'DELETE', collection, rowId: row.id, body: {}, version: row.version, base: {} })
  toast(`${what} deleted.`, {
    label: 'Undo',
    run: () =>
      enqueue({
        method: 'POST',
        collection,
        rowId: row.id,
        body: {},
        version: row.version + 1,
        base: {},
        restore: true,
      }),
  })
}
