import { queryOptions, useQueries, useQuery } from '@tanstack/react-query'
import type { Dossier, ImportRequest, LogPoints, Opened } from '@ypsometer/contract'
import type { Assessment } from '@ypsometer/core/judging/assess'
import { useMemo } from 'react'
import { outbox, useEntries } from './app'
import { queryClient, workedOutOld } from './cache'
import { api } from './client'
import { emptyDossier, withPending } from './collections'
import { entriesOf, overlay } from './outboxPolicy'

export const dossierQuery = (id: string) =>
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

/**
 * How the points of a log are read, all of them or at most so many with every peak kept; they never change, so they are
 * read once. A log still on this device has its own.
 */
export function logPoints(id: string, most?: number) {
  const [waiting] = entriesOf('logs', outbox.held.get().mine).filter(
    (e) => e.rowId === id && e.method === 'POST',
  )
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

/** Assessment by the server of a dossier as it was opened, by its answer: one that was changed is another. */
const workedOut = new WeakMap<Dossier, Assessment>()

export const noteWorked = ({ dossier, assessment }: Opened): void =>
  void (assessment && workedOut.set(dossier, assessment))

export async function openDossier(id: string): Promise<Opened> {
  const opened = await api<Opened>(`/models/${id}/opened`)
  noteWorked(opened)
  return opened
}
