import { QueryClientProvider } from '@tanstack/react-query'
import type { Me, Opened } from '@ypsometer/contract'
import { STATIONS } from '@ypsometer/core/judging/stations'
import { renderToString } from 'react-dom/server'
import { Route, Routes, StaticRouter } from 'react-router'
import { queryClient } from './api/cache'
import { takeOpened } from './api/prefetch'
import { Frame } from './frame/Frame'
import { decimal, DECIMALS, SYSTEMS, theme, THEMES, units } from './settings/settings'
import { stationView } from './stationView'
import { forgetAnswers } from './workers/useWork'
import { DossierView } from './views/dossier/Dossier'

/** Read once, before the first is drawn. */
const views = Promise.all(STATIONS.map(async (station) => [station, await stationView(station)] as const))

/**
 * Data that a station is drawn from: its address, who looks, what the dossier is opened with, and the reader's choices.
 */
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
export default async function prerender(drawn: Drawn | null): Promise<string> {
  const stations = await views
  // Asked for nothing, it has at least been read.
  if (!drawn) return ''
  const { address, me, opened, tanks, ...chosen } = drawn
  queryClient.clear()
  forgetAnswers()
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
              {stations.map(([path, Station]) => (
                <Route key={path} path={path} element={<Station />} />
              ))}
            </Route>
          </Route>
        </Routes>
      </StaticRouter>
    </QueryClientProvider>,
  )
}
