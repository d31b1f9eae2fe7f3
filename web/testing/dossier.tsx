import { modelRecord, type Dossier, type Tank } from '@ypsometer/contract'
import { assess } from '@ypsometer/core/judging'
import { STOCK_CLASSES } from '@ypsometer/core/tanks'
import { demoBundle } from '@ypsometer/demo'
import { render } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { DossierProvider } from '../src/views/dossier/Dossier'

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
    ...Object.fromEntries(
      Object.entries(collections).map(([k, rows]) => [k, stamped(rows as readonly object[])]),
    ),
  } as unknown as Dossier
}

export const demoTanks = (): Tank[] => stamped(demoBundle.tanks) as unknown as Tank[]

/** Shows a station of a dossier inside a router, with everything computed as in the app. */
export function showStation(view: React.ReactNode, dossier: Dossier) {
  const assessment = assess(modelRecord(dossier))
  const shown = render(
    <MemoryRouter>
      <DossierProvider dossier={dossier} assessment={assessment} stock={[...STOCK_CLASSES]}>
        {view}
      </DossierProvider>
    </MemoryRouter>,
  )
  return { assessment, ...shown }
}
