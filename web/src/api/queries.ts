import type {
  Dossier,
  HouseRule,
  ImportRequest,
  Medium,
  LogPoints,
  ShelfPage,
  StockClassRow,
  Tank,
} from '@ypsometer/contract'
import { keepPreviousData, QueryClient, useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { toast } from '../frame/toasts'
import { api, ApiProblem } from './client'
import {
  enqueue,
  overlay,
  startOutbox,
  useEntries,
  type Collection,
  type Entry,
  type RowBody,
} from './outbox'

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

/** The collections of a dossier that belong to its model directly. */
const OWNED = [
  'claims',
  'specimens',
  'hookups',
  'trials',
  'contents',
  'parts',
  'bodies',
  'chambers',
  'fills',
] as const
/** Those that belong to a row of another collection, and the columns that say which. */
const NESTED = {
  readings: [['trials', 'trialId']],
  logs: [['trials', 'trialId']],
  photos: [
    ['parts', 'partId'],
    ['trials', 'trialId'],
  ],
} as const
const COLLECTIONS = [...OWNED, ...(Object.keys(NESTED) as (keyof typeof NESTED)[])] as const
type InDossier = (typeof COLLECTIONS)[number]
interface AnyRow {
  readonly id: string
  readonly version: number
}
const rowsOf = (d: Dossier, name: InDossier): readonly (AnyRow & RowBody)[] =>
  d[name] as unknown as (AnyRow & RowBody)[]

const emptyDossier = (model: unknown): Dossier =>
  ({ model, ...Object.fromEntries(COLLECTIONS.map((name) => [name, []])) }) as unknown as Dossier

/** Collections that are lists of their own. */
const LISTS = ['tanks', 'media', 'house-rules'] as const
type ListName = (typeof LISTS)[number]
const isList = (name: Collection): name is ListName => (LISTS as readonly string[]).includes(name)

/** Does a row of a collection belong to this dossier? */
function belongs(d: Dossier, name: InDossier, row: RowBody): boolean {
  if (row.modelId === d.model.id || rowsOf(d, name).some((r) => r.id === row.id)) return true
  const nested = name in NESTED ? NESTED[name as keyof typeof NESTED] : undefined
  return (
    nested !== undefined &&
    nested.some(([parent, column]) => rowsOf(d, parent).some((r) => r.id === row[column]))
  )
}

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
  if (isList(collection)) {
    queryClient.setQueryData<{ items: { id: string }[] }>(
      [collection],
      (old) => old && { ...old, items: put(old.items) },
    )
    return
  }
  if (collection === 'models' && !queryClient.getQueryData(['dossier', row.id]))
    queryClient.setQueryData(['dossier', row.id], emptyDossier(row))
  for (const [key, data] of queryClient.getQueriesData<Dossier>({ queryKey: ['dossier'] })) {
    if (!data) continue
    if (collection === 'models') {
      if (data.model.id === row.id) queryClient.setQueryData(key, { ...data, model: row })
    } else if (belongs(data, collection, row)) {
      queryClient.setQueryData(key, { ...data, [collection]: put(rowsOf(data, collection)) })
    }
  }
  void queryClient.invalidateQueries({ queryKey: ['shelf'], refetchType: 'active' })
}

startOutbox(acknowledge, () => toast('Another window changed this too. Both changes are kept.'))

/** A dossier with waiting changes laid over every collection; rows of another model's creation are left out. */
function laidOver(server: Dossier, entries: readonly Entry[]): Dossier {
  let out: Dossier = { ...server, model: overlay([server.model], 'models', entries)[0] ?? server.model }
  for (const name of COLLECTIONS) {
    const mine = entries.filter(
      (e) => e.collection === name && (e.method !== 'POST' || e.restore || belongs(out, name, e.body)),
    )
    if (mine.length) out = { ...out, [name]: overlay(rowsOf(out, name), name, mine) }
  }
  // Rows under a deleted parent go with it.
  return {
    ...out,
    readings: out.readings.filter((r) => out.trials.some((t) => t.id === r.trialId)),
    logs: out.logs.filter((l) => out.trials.some((t) => t.id === l.trialId)),
    photos: out.photos.filter(
      (p) => out.parts.some((q) => q.id === p.partId) || out.trials.some((t) => t.id === p.trialId),
    ),
  }
}

/** One dossier with this device's waiting changes laid over it. */
export function useDossier(id: string) {
  const entries = useEntries()
  const query = useQuery({
    queryKey: ['dossier', id],
    queryFn: ({ signal }) => api<Dossier>(`/models/${id}/dossier`, { signal }),
    // What others change shows within a quarter of a minute, and at once on coming back to the window.
    refetchOnWindowFocus: true,
    refetchInterval: 15000,
  })
  const dossier = useMemo(() => {
    const fresh = entries.find((e) => e.collection === 'models' && e.method === 'POST' && e.rowId === id)
    const server = query.data ?? (fresh && emptyDossier(overlay<Dossier['model']>([], 'models', [fresh])[0]))
    return server && laidOver(server, entries)
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

/** The points of a log; they never change, so they are read once. */
export const useLogPoints = (id: string, local?: LogPoints) =>
  useQuery({
    queryKey: ['log', id],
    queryFn: ({ signal }) => api<LogPoints>(`/logs/${id}/points`, { signal }),
    staleTime: Infinity,
    ...(local && { initialData: local }),
  })

/** Writes a whole import at once; the key makes a second try after a lost answer harmless. */
export async function importAll(body: ImportRequest, key: string, modelId: string): Promise<void> {
  await api('/imports', { method: 'POST', body, key })
  await queryClient.invalidateQueries({ queryKey: ['dossier', modelId] })
  void queryClient.invalidateQueries({ queryKey: ['shelf'], refetchType: 'active' })
}

/** A whole list with this device's waiting changes laid over it. */
function useList<T extends AnyRow>(collection: ListName, path: string) {
  const entries = useEntries()
  const query = useQuery({
    queryKey: [collection],
    queryFn: ({ signal }) => api<{ items: T[] }>(path, { signal }),
  })
  const data = query.data
  const rows = useMemo(
    () => data && (overlay(data.items as unknown as (T & RowBody)[], collection, entries) as readonly T[]),
    [data, entries, collection],
  )
  return { ...query, rows }
}

const byName = <T extends { readonly name: string }>(rows: readonly T[] | undefined) =>
  rows && [...rows].sort((a, b) => a.name.localeCompare(b.name))

/** All tanks. */
export function useTanks() {
  const { rows, ...query } = useList<Tank>('tanks', '/tanks?limit=200')
  return { ...query, tanks: useMemo(() => byName(rows), [rows]) }
}

/** The media of the library. */
export function useMedia() {
  const { rows, ...query } = useList<Medium>('media', '/media')
  return { ...query, media: useMemo(() => byName(rows), [rows]) }
}

/** The house rules, and the one that holds for a dossier: its own choice, else the chosen one. */
export function useHouseRules(own: string | null = null) {
  const { rows, ...query } = useList<HouseRule>('house-rules', '/house-rules')
  const house = rows?.find((r) => r.id === own) ?? rows?.find((r) => r.chosen) ?? rows?.[0]
  return { ...query, rules: rows, house }
}

export const useStockClasses = () =>
  useQuery({
    queryKey: ['stock-classes'],
    queryFn: ({ signal }) => api<StockClassRow[]>('/stock-classes', { signal }),
    staleTime: Infinity,
  })

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

/** Whose a photo is: a part's or a trial's. */
export type PhotoOwner = { readonly partId: string } | { readonly trialId: string }

/** Keeps a photo on this device and sends it when it can. Returns the photo's id. */
export function addPhoto(owner: PhotoOwner, blob: Blob, caption: string): string {
  const id = crypto.randomUUID()
  const body = { id, partId: null, trialId: null, ...owner, caption, width: 0, height: 0, bytes: blob.size }
  enqueue({ method: 'POST', collection: 'photos', rowId: id, body, version: 0, base: {}, blob })
  return id
}
