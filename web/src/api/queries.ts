import type { Assessment } from '@ypsometer/core/judging/assess'
import type { LabelBias } from '@ypsometer/core/trials/bias'
import type { KeptFilter } from '@ypsometer/core/upkeep/plan'
import type {
  Dossier,
  Edition,
  ImportRequest,
  LogPoints,
  NamesServedIn,
  Opened,
  Ranking,
  ResourceName,
  ReviewShare,
  RowOf,
  SharedReview,
  ShelfPage,
  WaterTestPage,
} from '@ypsometer/contract'
import { houseOf, judgedClasses } from '@ypsometer/contract/house'
import { OUTLINE } from '@ypsometer/contract/outline'
import { firstPage } from '@ypsometer/contract/page'
import type { CandidateList } from '@ypsometer/contract/candidateList'
import type { Snapshot } from '@ypsometer/contract/review'
import type { Moved } from '@ypsometer/core/review/moved'
import {
  infiniteQueryOptions,
  keepPreviousData,
  QueryClient,
  queryOptions,
  type FetchQueryOptions,
  type QueryFunction,
  type QueryKey,
  useInfiniteQuery,
  useQueries,
  useQuery,
} from '@tanstack/react-query'
import { useMemo } from 'react'
import { outbox, useEntries } from './app'
import { api, ApiProblem } from './client'
import { entriesOf, overlay, type Entry } from './outbox'

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

const NAMES = Object.keys(OUTLINE) as readonly ResourceName[]
type ListName = NamesServedIn<'list'>
/** Lists that dossiers are worked out with: what the server makes of them is old when one is written to. */
export const WORKED_WITH: readonly string[] = ['media', 'house-rules', 'stock-classes']
const isList = (name: ResourceName): name is ListName => OUTLINE[name].servedIn === 'list'

/** The collections of a dossier. */
type InDossier = NamesServedIn<'dossier'>
const DOSSIER_ROWS = NAMES.filter((n): n is InDossier => OUTLINE[n].servedIn === 'dossier')
/** A dossier by its collections, so that each name gives its own kind of rows. */
type Collections = { readonly [N in InDossier]: readonly RowOf<N>[] }

const emptyDossier = (model: Dossier['model']): Dossier => ({
  model,
  ...(Object.fromEntries(DOSSIER_ROWS.map((n) => [n, []])) as unknown as { [N in InDossier]: RowOf<N>[] }),
})

const rowsOf = <N extends InDossier>(d: Collections, name: N): readonly RowOf<N>[] => d[name]
const withRows = <N extends InDossier>(d: Dossier, name: N, rows: readonly RowOf<N>[]): Dossier => ({
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
const belongs = (d: Dossier, name: InDossier, row: { readonly id: string }): boolean =>
  rowsOf(d, name).some((r) => r.id === row.id) || hasOwner(d, name, row)

/** Rows with an acknowledged one in its place, or without it when it was deleted. */
function put<R extends { readonly id: string; readonly deletedAt: string | null }>(
  rows: readonly R[],
  row: R,
): readonly R[] {
  if (row.deletedAt !== null) return rows.filter((r) => r.id !== row.id)
  return rows.some((r) => r.id === row.id) ? rows.map((r) => (r.id === row.id ? row : r)) : [...rows, row]
}

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

/** What the server works out of dossiers, library and rules is old: what is shown of it is asked for again. */
function workedOutOld(): void {
  for (const first of ['shelf', 'candidates'])
    void queryClient.invalidateQueries({ queryKey: [first], refetchType: 'active' })
}

/** Starts the outbox of this page over the cache. `merged` is told when a change was made on top of another's. */
export const startWriting = (merged: () => void): void => outbox.start({ acknowledged: acknowledge, merged })

/** A dossier with waiting changes laid over every collection; rows of another model's creation are left out. */
function withPending(server: Dossier, entries: readonly Entry[]): Dossier {
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

const dossierQuery = (id: string) =>
  queryOptions({
    queryKey: ['dossier', id],
    queryFn: ({ signal }) => api<Dossier>(`/models/${id}/dossier`, { signal }),
    // What others change is told by the server; on coming back to the window it is asked once more.
    refetchOnWindowFocus: true,
  })

/** One dossier with this device's waiting changes laid over it. */
export function useDossier(id: string) {
  const entries = useEntries()
  const query = useQuery(dossierQuery(id))
  const dossier = useMemo(() => {
    const fresh = overlay([], 'models', entries).find((m) => m.id === id)
    const server = query.data ?? (fresh && emptyDossier(fresh))
    return server && withPending(server, entries)
  }, [query.data, entries, id])
  const worked = query.data && entries.length === 0 ? workedOut.get(query.data) : undefined
  return { ...query, dossier, worked }
}

/** Several dossiers at once, those that are there. */
export function useDossiers(ids: readonly string[]) {
  const entries = useEntries()
  const queries = useQueries({ queries: ids.map(dossierQuery) })
  return {
    dossiers: queries.flatMap((q) => (q.data ? [withPending(q.data, entries)] : [])),
    isPending: queries.some((q) => q.isPending),
  }
}

export interface ShelfFilter {
  readonly search: string
  readonly kind: string
  readonly sort: string
  readonly stands: string
}

const shelfQuery = (f: ShelfFilter) =>
  infiniteQueryOptions({
    queryKey: ['shelf', f],
    initialPageParam: '',
    queryFn: ({ pageParam, signal }) => {
      const q = new URLSearchParams({ sort: f.sort, limit: '40' })
      if (f.search) q.set('search', f.search)
      if (f.kind) q.set('kind', f.kind)
      if (f.stands) q.set('stands', f.stands)
      if (pageParam) q.set('cursor', pageParam)
      return api<ShelfPage>(`/models?${q}`, { signal })
    },
    getNextPageParam: (last) => last.next ?? undefined,
  })

/** The shelf, page after page. */
/** Between two looks for rows that are being worked out anew (ms). */
const ANEW = 2000
export const useShelf = (f: ShelfFilter) =>
  useInfiniteQuery({
    ...shelfQuery(f),
    placeholderData: keepPreviousData,
    // Rows that are being worked out anew are looked for again.
    refetchInterval: ({ state }) =>
      state.data?.pages.some((p) => p.items.some((r) => r.old)) ? ANEW : false,
  })

/** What the address of the shelf asks for. */
export const shelfFilter = (q: URLSearchParams): ShelfFilter => ({
  search: q.get('q') ?? '',
  kind: q.get('kind') ?? '',
  sort: q.get('sort') ?? 'name',
  stands: q.get('stands') ?? '',
})

/**
 * How the points of a log are read, all of them or at most so many with every peak kept; they never change, so they are
 * read once. A log still on this device has its own.
 */
export function logPoints(id: string, most?: number) {
  const [waiting] = entriesOf('logs', outbox.entries()).filter((e) => e.rowId === id && e.method === 'POST')
  const local = waiting?.method === 'POST' ? waiting.body : undefined
  return queryOptions({
    queryKey: ['log', id, most],
    queryFn: ({ signal }) => api<LogPoints>(`/logs/${id}/points${most ? `?most=${most}` : ''}`, { signal }),
    staleTime: Infinity,
    ...(local && { initialData: { times: local.times, values: local.values } }),
  })
}
/** Points of a long log that a drawing needs. */
const DRAWN = 1000
export const useLogDrawing = (id: string) => useQuery(logPoints(id, DRAWN))

/** Writes a whole import at once; the key makes a second try after a lost answer harmless. */
export async function importAll(body: ImportRequest, key: string, modelId: string): Promise<void> {
  await api('/imports', { method: 'POST', body, key })
  await queryClient.invalidateQueries({ queryKey: ['dossier', modelId] })
  workedOutOld()
}

/** A list, page after page. */
async function wholeList<N extends ListName>(collection: N, signal: AbortSignal): Promise<RowOf<N>[]> {
  const items: RowOf<N>[] = []
  const first = firstPage(collection)
  for (let cursor: string | null = ''; cursor !== null;) {
    const page: { items: RowOf<N>[]; next?: string | null } = await api(
      cursor ? `${first}&cursor=${encodeURIComponent(cursor)}` : first,
      { signal },
    )
    items.push(...page.items)
    // An answer kept on this device by an older version of the app is whole.
    cursor = page.next ?? null
  }
  return items
}

const listQuery = <N extends ListName>(collection: N) =>
  queryOptions({
    queryKey: [collection],
    queryFn: async ({ signal }) => ({ items: await wholeList(collection, signal) }),
  })

/** A whole list with this device's waiting changes laid over it. */
function useList<N extends ListName>(collection: N) {
  const entries = useEntries()
  const query = useQuery(listQuery(collection))
  const data = query.data
  const rows = useMemo(
    () => data && (overlay(data.items, collection, entries) as readonly RowOf<N>[]),
    [data, entries, collection],
  )
  return { ...query, rows }
}

const byName = <T extends { readonly name: string }>(rows: readonly T[] | undefined) =>
  rows && [...rows].sort((a, b) => a.name.localeCompare(b.name))

/** All tanks. */
export function useTanks() {
  const { rows, ...query } = useList('tanks')
  return { ...query, tanks: useMemo(() => byName(rows), [rows]) }
}

/** The media of the library. */
export function useMedia() {
  const { rows, ...query } = useList('media')
  return { ...query, media: useMemo(() => byName(rows), [rows]) }
}

/** The house rules, and the one that holds for a dossier: its own choice, else the chosen one. */
export function useHouseRules(own: string | null = null) {
  const { rows, ...query } = useList('house-rules')
  const house = rows && houseOf(rows, own)
  return { ...query, rules: rows, house }
}

/** The stock classes, in their order. */
export function useStockClasses() {
  const { rows, ...query } = useList('stock-classes')
  const classes = useMemo(
    () => rows && [...rows].sort((a, b) => a.position - b.position || a.createdAt.localeCompare(b.createdAt)),
    [rows],
  )
  return { ...query, classes }
}

/** The classes with the house’s order of schools of capacity, as a dossier that chose a rule, or none, is judged. */
export function useJudgedClasses(own: string | null = null) {
  const { classes, isPending } = useStockClasses()
  const { house, isPending: rulesPending } = useHouseRules(own)
  const judged = useMemo(() => classes && judgedClasses(classes, house), [classes, house])
  return { stock: judged, isPending: isPending || rulesPending }
}

/** Between two looks while some of the shelf is still to be worked out again (ms). */
const STILL_OLD = 3000

/** What every model of the shelf brings to a tank. */
const candidatesQuery = queryOptions({
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

/** Every water test that visits found on tanks, page after page. */
const waterTestsQuery = queryOptions({
  queryKey: ['water-tests'],
  queryFn: async ({ signal }) => {
    const all: WaterTestPage['items'][number][] = []
    for (let after: string | null = ''; after !== null;) {
      const page: WaterTestPage = await api(`/water-tests${after ? `?after=${after}` : ''}`, { signal })
      all.push(...page.items)
      after = page.next
    }
    return all
  },
})
export const useWaterTests = () => useQuery(waterTestsQuery)

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

const keptFiltersQuery = queryOptions({
  queryKey: ['kept-filters'],
  queryFn: ({ signal }) => api<{ items: KeptFilter[] }>('/upkeep/filters', { signal }),
  staleTime: 30_000,
})
/** Every filter of every tank as its upkeep asks for it, and what was ticked. */
export function useUpkeep() {
  const filters = useQuery(keptFiltersQuery)
  const { rows: ticks } = useList('ticks')
  return { filters: filters.data?.items, error: filters.error, refetch: filters.refetch, ticks }
}

const newestFirst = <T extends { readonly on: string; readonly createdAt: string }>(
  rows: readonly T[] | undefined,
) => rows && [...rows].sort((a, b) => b.on.localeCompare(a.on) || b.createdAt.localeCompare(a.createdAt))

/** Set-ups done by their checklists. */
export function useSetUps() {
  const { rows, ...query } = useList('set-ups')
  return { ...query, setUps: useMemo(() => newestFirst(rows), [rows]) }
}
/** Filters changed for others. */
export function useChangeOvers() {
  const { rows, ...query } = useList('change-overs')
  return { ...query, changes: useMemo(() => newestFirst(rows), [rows]) }
}
/** Faults looked for. */
export function useFaultSearches() {
  const { rows, ...query } = useList('fault-searches')
  return { ...query, searches: useMemo(() => newestFirst(rows), [rows]) }
}

/** What a review stands on: its draft’s numbers, its editions, its links, and what has moved since. */
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

/** Reviews, without their numbers. */
export function useReviews() {
  const { rows, ...query } = useList('reviews')
  const reviews = useMemo(
    () =>
      rows && [...rows].sort((a, b) => b.updatedAt.localeCompare(a.updatedAt) || a.id.localeCompare(b.id)),
    [rows],
  )
  return { ...query, reviews }
}

const biasQuery = queryOptions({
  queryKey: ['label-bias'],
  queryFn: ({ signal }) => api<LabelBias>('/label-bias', { signal }),
  staleTime: 60000,
})
/** What labels are wrong by on this shelf. */
export const useLabelBias = () => useQuery(biasQuery)

/** What the server worked out of a dossier as it was opened, by its answer: one that was changed is another. */
const workedOut = new WeakMap<Dossier, Assessment>()

const noteWorked = ({ dossier, assessment }: Opened): void =>
  void (assessment && workedOut.set(dossier, assessment))

async function openDossier(id: string): Promise<Opened> {
  const opened = await api<Opened>(`/models/${id}/opened`)
  noteWorked(opened)
  return opened
}
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
