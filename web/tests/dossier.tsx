import {
  modelRecord,
  type ChangeOver,
  type Dossier,
  type FaultSearch,
  type HouseRule,
  type Medium,
  type SetUp,
  type StockClassRow,
  type Tank,
  type Tick,
} from '@ypsometer/contract'
import { UPKEEP_RULE } from '@ypsometer/core/upkeep/rule'
import { ADVICE_RULE } from '@ypsometer/core/advice/rule'
import { assess } from '@ypsometer/core/judging/assess'
import { GENERIC_MEDIA } from '@ypsometer/core/media/library'
import { HOUSE_RULES } from '@ypsometer/core/path/audit'
import { CAPACITY_RULE } from '@ypsometer/core/tanks/rule'
import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { demoBundle } from '@ypsometer/demo'
import { QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { queryClient } from '../src/api/cache'
import { DossierProvider } from '../src/frame/dossier'

const stamp = {
  version: 1,
  createdAt: '2026-09-01T00:00:00.000Z',
  updatedAt: '2026-09-01T00:00:00.000Z',
  deletedAt: null,
}
const stamped = <T extends object>(rows: readonly T[]) => rows.map((r) => ({ ...stamp, ...r }))

/** A demo model's dossier as the server would give it. */
export function demoDossier(name: string): Dossier {
  const m = demoBundle.models.find((x) => x.model.name === name)
  if (!m) throw new Error(`no demo model ${name}`)
  const { model, ...collections } = m
  return {
    model: { ...stamp, ...model },
    photos: [],
    logs: [],
    ...Object.fromEntries(
      Object.entries(collections).map(([k, rows]) => [k, stamped(rows as readonly object[])]),
    ),
  } as unknown as Dossier
}

export const demoModels = (): string[] => demoBundle.models.map((m) => m.model.name)

/** The media and house rules of the demo bench as the server would give them. */
export const demoMedia = (): Medium[] =>
  [
    ...GENERIC_MEDIA.map((m) => ({ ...m, generic: true })),
    ...demoBundle.media.map((m) => ({ ...m, generic: false })),
  ].map((m) => ({ ...stamp, note: '', typed: {}, ...m }))
export const demoRules = (): HouseRule[] =>
  HOUSE_RULES.map((r, i) => ({
    ...stamp,
    ...r,
    capacity: CAPACITY_RULE,
    advice: ADVICE_RULE,
    upkeep: UPKEEP_RULE,
    rules: { ...r.rules },
    shipped: true,
    chosen: i === 0,
  }))

export const demoTanks = (): Tank[] => stamped(demoBundle.tanks) as unknown as Tank[]
export const demoTicks = (): Tick[] => stamped(demoBundle.ticks) as unknown as Tick[]
export const demoStock = (): StockClassRow[] =>
  stamped(STOCK_CLASSES.map((c) => ({ ...c, position: 0, typed: {} }))) as unknown as StockClassRow[]
export const demoSetUps = (): SetUp[] => stamped(demoBundle.setUps) as unknown as SetUp[]
export const demoChanges = (): ChangeOver[] => stamped(demoBundle.changeOvers) as unknown as ChangeOver[]
export const demoSearches = (): FaultSearch[] => stamped(demoBundle.faultSearches) as unknown as FaultSearch[]

/** What was put there stays as it is: nothing answers in these tests, and nothing is asked twice. */
queryClient.setDefaultOptions({ queries: { staleTime: Infinity, networkMode: 'always', retry: false } })

/** What a station of a dossier stands in: a router, and everything computed as in the app. */
export function aroundStation(dossier: Dossier) {
  const assessment = assess(modelRecord(dossier, demoMedia()))
  const wrapper = ({ children }: { readonly children: React.ReactNode }) => (
    <QueryClientProvider client={queryClient}>
      <MemoryRouter>
        <DossierProvider dossier={dossier} assessment={assessment} stock={[...STOCK_CLASSES]}>
          {children}
        </DossierProvider>
      </MemoryRouter>
    </QueryClientProvider>
  )
  return { assessment, wrapper }
}

/** Shows a station of a dossier. */
export function showStation(view: React.ReactNode, dossier: Dossier) {
  const { assessment, wrapper } = aroundStation(dossier)
  return { assessment, ...render(view, { wrapper }) }
}
