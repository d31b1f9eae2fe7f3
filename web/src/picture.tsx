import { QueryClientProvider } from '@tanstack/react-query'
import type { Me, Opened } from '@ypsometer/contract'
import type { ComponentType } from 'react'
import { renderToString } from 'react-dom/server'
import { Route, Routes, StaticRouter } from 'react-router'
import { queryClient } from './api/cache'
import { takeOpened } from './api/prefetch'
import { Frame } from './frame/Frame'
import { decimal, DECIMALS, SYSTEMS, theme, THEMES, units } from './settings/settings'
import { Bench } from './views/bench/Bench'
import { Claims } from './views/claims/Claims'
import { DossierView } from './views/dossier/Dossier'
import { Fill } from './views/fill/Fill'
import { Inside } from './views/inside/Inside'
import { Path } from './views/path/Path'
import { Strip } from './views/strip/Strip'
import { TankRange } from './views/verdict/TankRange'
import { VerdictView } from './views/verdict/VerdictView'
import { Visits } from './views/visits/Visits'

const STATIONS: Readonly<Record<string, ComponentType>> = {
  claims: Claims,
  strip: Strip,
  inside: Inside,
  bench: Bench,
  fill: Fill,
  path: Path,
  tanks: TankRange,
  verdict: VerdictView,
  visits: Visits,
}

/** What a station is drawn from: its address, who looks, what the dossier is opened with, and the reader's choices. */
export interface Drawn {
  readonly address: string
  /** `Me` as JSON. */
  readonly me: string
  /** `Opened` as JSON. */
  readonly opened: string
  /** The page of tanks as JSON, for stations that look at tanks. */
  readonly tanks?: string | undefined
  readonly units?: string | undefined
  readonly decimal?: string | undefined
  readonly theme?: string | undefined
}

/**
 * A station as HTML, for the server to send before any of the app's code has come: the same components over the same
 * answers. It holds no charts, and nothing that only a worker works out.
 */
export default function picture(drawn: Drawn | null): string {
  // Asked for nothing, it has at least been read.
  if (!drawn) return ''
  const { address, me, opened, tanks, ...chosen } = drawn
  queryClient.clear()
  queryClient.setQueryData(['me'], JSON.parse(me) as Me)
  takeOpened(JSON.parse(opened) as Opened)
  if (tanks) queryClient.setQueryData(['tanks'], JSON.parse(tanks))
  units.set(SYSTEMS.find(([s]) => s === chosen.units)?.[0] ?? 'metric')
  decimal.set(DECIMALS.find((d) => d === chosen.decimal) ?? '.')
  theme.set(THEMES.find((t) => t === chosen.theme) ?? 'paper')
  return renderToString(
    <QueryClientProvider client={queryClient}>
      <StaticRouter location={address}>
        <Routes>
          <Route path="/" element={<Frame />}>
            <Route path="models/:id" element={<DossierView />}>
              {Object.entries(STATIONS).map(([path, Station]) => (
                <Route key={path} path={path} element={<Station />} />
              ))}
            </Route>
          </Route>
        </Routes>
      </StaticRouter>
    </QueryClientProvider>,
  )
}
