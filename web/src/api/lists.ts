import { queryOptions, useQuery } from '@tanstack/react-query'
import type { RowOf, WaterTestPage } from '@ypsometer/contract'
import { houseOf, judgedClasses } from '@ypsometer/contract/house'
import { firstPage } from '@ypsometer/contract/page'
import type { KeptFilter } from '@ypsometer/core/upkeep/plan'
import { useMemo } from 'react'
import { useEntries } from './app'
import { api } from './client'
import { type ListName } from './collections'
import { overlay } from './outboxPolicy'

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

export const listQuery = <N extends ListName>(collection: N) =>
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

/** Every water test that visits found on tanks, page after page. */
export const waterTestsQuery = queryOptions({
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

export const keptFiltersQuery = queryOptions({
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
