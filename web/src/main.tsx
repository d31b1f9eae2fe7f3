import './app.css'
import { QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { STATION_LIST } from '@ypsometer/contract/firstPage'
import {
  createBrowserRouter,
  RouterProvider,
  type LoaderFunctionArgs,
  type ShouldRevalidateFunctionArgs,
} from 'react-router'
import { tellOfWaiting } from './api/app'
import { followChanges } from './api/changes'
import { FlowLeftChart, HeadFlow, SeriesChart } from './charts'
import { ahead } from './api/prefetch'
import { queryClient, startWriting } from './api/cache'
import { Crash, Loading, NotFound } from './frame/States'
import { followMe } from './api/people'
import { Door } from './frame/Door'
import { Frame } from './frame/Frame'
import { whenIdle } from './frame/idle'
import { warmView } from './frame/warmViews'
import { savesData } from './frame/savesData'
import { toast } from './frame/toastStore'
import { stationView } from './stationView'
import { Shelf } from './views/shelf/Shelf'

/** Asks for data beside the code, and waits for neither. */
const asks =
  (ask: (params: Readonly<Record<string, string | undefined>>, query: URLSearchParams) => void) =>
  ({ params, request }: LoaderFunctionArgs): null => {
    ask(params, new URL(request.url).searchParams)
    return null
  }
/** How long after a station was opened the code of the others is fetched (ms). */
const SOON = 1000
/** A busy page may take so long until it is (ms). */
const UNTIL = 60_000
let soon: ReturnType<typeof setTimeout> | undefined
/** Requests of stations once they are there: their charts, their workers, the tanks. */
const LATER: readonly (() => Promise<unknown>)[] = [
  async () => warmView((await import('./views/bench/TrialDesk')).TrialDesk),
  HeadFlow.ahead,
  SeriesChart.ahead,
  FlowLeftChart.ahead,
  async () => void (await import('./workers/usePath')).pathRemote(),
  async () => void (await import('./workers/livingRemote')).livingRemote(),
  async () => void (await import('./workers/assessRemote')).assessRemote(),
  async () => ahead.list('tanks'),
  async () => ahead.candidates(),
]
/** Fetches what the other stations need, the next one first, and rehearses them, while the page has nothing to do. */
function otherStations(path: string): void {
  if (savesData()) return
  const here = STATION_LIST.findIndex(([s]) => path.endsWith(`/${s}`))
  const others = [...STATION_LIST.slice(here + 1), ...STATION_LIST.slice(0, Math.max(0, here))]
  const one = ([work, ...rest]: readonly (() => Promise<unknown>)[]): void => {
    if (!work) return
    void work()
      .catch(() => undefined)
      .finally(() => whenIdle(() => one(rest), UNTIL))
  }
  const made = others.map(
    ([s]) =>
      async () =>
        warmView(await stationView(s)),
  )
  clearTimeout(soon)
  soon = setTimeout(() => whenIdle(() => one([...made, ...LATER]), UNTIL), SOON)
}
/** Asks for what a station looks at besides the dossier, and soon for the code of the others. */
const stationAhead =
  (onTanks: boolean) =>
  ({ request }: LoaderFunctionArgs): null => {
    if (onTanks) ahead.list('tanks')
    otherStations(new URL(request.url).pathname)
    return null
  }
const dossierAhead = asks(({ id }) => id && ahead.dossier(id))
/** A station asks for nothing of its own: going from one to the next reads nothing again. */
const sameDossier = ({ currentParams, nextParams }: ShouldRevalidateFunctionArgs): boolean =>
  currentParams.id !== nextParams.id

/** In place of a view that failed, or that is on its way. */
const MEANWHILE = { errorElement: <Crash />, HydrateFallback: Loading }

const router = createBrowserRouter([
  {
    path: '/',
    element: <Frame />,
    ...MEANWHILE,
    children: [
      { index: true, loader: asks((_, q) => ahead.shelf(q)), element: <Shelf /> },
      {
        path: 'tanks/:id?',
        loader: asks(() => {
          ahead.list('tanks')
          ahead.candidates()
        }),
        lazy: async () => ({ Component: (await import('./views/tanks/Tanks')).Tanks }),
      },
      {
        path: 'advise',
        loader: asks(() => ahead.counter()),
        lazy: async () => ({ Component: (await import('./views/advise/Advise')).Advise }),
      },
      {
        path: 'advise/slip',
        loader: asks(() => ahead.counter()),
        lazy: async () => ({ Component: (await import('./views/advise/Slip')).Slip }),
      },
      {
        path: 'rankings',
        loader: asks(() => ahead.list('tanks')),
        lazy: async () => ({ Component: (await import('./views/rankings/Rankings')).Rankings }),
      },
      {
        path: 'compare',
        loader: asks(() => {
          ahead.counter()
          ahead.list('media')
        }),
        lazy: async () => ({ Component: (await import('./views/compare/Compare')).Compare }),
      },
      {
        path: 'upkeep',
        loader: asks(() => ahead.upkeep()),
        lazy: async () => ({ Component: (await import('./views/upkeep/Upkeep')).Upkeep }),
      },
      {
        path: 'faults/:id?',
        loader: asks(() => ahead.faults()),
        lazy: async () => ({ Component: (await import('./views/faults/Faults')).Faults }),
      },
      {
        path: 'documents',
        loader: asks(() => {
          ahead.counter()
          ahead.list('media')
        }),
        lazy: async () => ({ Component: (await import('./views/documents/Documents')).Documents }),
      },
      {
        path: 'reviews',
        loader: asks(() => {
          ahead.list('reviews')
          ahead.candidates()
        }),
        lazy: async () => ({ Component: (await import('./views/reviews/Reviews')).Reviews }),
      },
      {
        path: 'reviews/:id',
        loader: asks(() => ahead.list('reviews')),
        lazy: async () => ({ Component: (await import('./views/reviews/ReviewDesk')).ReviewDesk }),
      },
      {
        path: 'tanks/:id/changes/:changeId',
        loader: asks(() => {
          ahead.counter()
          ahead.list('change-overs')
        }),
        lazy: async () => ({ Component: (await import('./views/changeover/ChangeOver')).ChangeOver }),
      },
      {
        path: 'library/:id?',
        loader: asks(() => ahead.list('media')),
        lazy: async () => ({ Component: (await import('./views/library/Library')).Library }),
      },
      {
        path: 'stock/:id?',
        loader: asks(() => ahead.list('stock-classes')),
        lazy: async () => ({ Component: (await import('./views/stock/StockClasses')).StockClasses }),
      },
      {
        path: 'rules/:id?',
        loader: asks(() => ahead.list('house-rules')),
        lazy: async () => ({ Component: (await import('./views/rules/HouseRules')).HouseRules }),
      },
      {
        path: 'trial',
        loader: asks(() => ahead.trial()),
        lazy: async () => ({ Component: (await import('./views/trial/Trial')).Trial }),
      },
      {
        path: 'models/:id',
        loader: dossierAhead,
        shouldRevalidate: sameDossier,
        lazy: async () => ({ Component: (await import('./views/dossier/Dossier')).DossierView }),
        children: [
          {
            index: true,
            lazy: async () => ({ Component: (await import('./views/dossier/Dossier')).ToFirstStation }),
          },
          ...STATION_LIST.map(([path, onTanks]) => ({
            path,
            lazy: async () => ({ Component: await stationView(path) }),
            loader: stationAhead(onTanks),
          })),
          {
            path: 'bench/:trialId',
            lazy: async () => ({ Component: (await import('./views/bench/TrialDesk')).TrialDesk }),
            loader: stationAhead(false),
          },
        ],
      },
      { path: 'people', lazy: async () => ({ Component: (await import('./views/people/People')).People }) },
      {
        path: 'history',
        lazy: async () => ({ Component: (await import('./views/history/History')).History }),
      },
      { path: '*', element: <NotFound /> },
    ],
  },
  {
    path: '/join',
    ...MEANWHILE,
    lazy: async () => ({ Component: (await import('./views/people/Join')).Join }),
  },
  {
    path: '/models/:id/strip/run',
    loader: dossierAhead,
    ...MEANWHILE,
    lazy: async () => ({ Component: (await import('./views/striprun/StripRun')).StripRun }),
  },
  {
    path: '/models/:id/visits/:visitId/run',
    loader: dossierAhead,
    ...MEANWHILE,
    lazy: async () => ({ Component: (await import('./views/visitrun/VisitRun')).VisitRun }),
  },
  {
    path: '/models/:id/set-ups/:setUpId/run',
    loader: asks(({ id }) => {
      if (id) ahead.dossier(id)
      ahead.list('set-ups')
    }),
    ...MEANWHILE,
    lazy: async () => ({ Component: (await import('./views/setuprun/SetUpRun')).SetUpRun }),
  },
  {
    path: '/s/:secret',
    ...MEANWHILE,
    lazy: async () => ({ Component: (await import('./views/shared/Shared')).Shared }),
  },
  {
    path: '/models/:id/bench/:trialId/run',
    loader: dossierAhead,
    ...MEANWHILE,
    lazy: async () => ({ Component: (await import('./views/benchrun/BenchRun')).BenchRun }),
  },
])

// A review that is read by its link has nothing of the bench about it.
const guest = location.pathname.startsWith('/s/')
// Whoever has a one-time link comes in by it, whoever was here before.
const joining = location.pathname === '/join'
if (!guest) {
  followMe()
  followChanges(queryClient)
  tellOfWaiting()
  startWriting(() => toast('Another window changed this too. Both changes are kept.'))
}

/** Longest that a picture of the server's stands for the app (ms). */
const PICTURED = 5000
/** Resolves once the view is there with what it asked for, so that it takes the place of its picture whole. */
const viewThere = (): Promise<void> =>
  new Promise((there) => {
    const stops: (() => void)[] = []
    const end = (): void => {
      stops.forEach((stop) => stop())
      there()
    }
    const look = (): void => {
      if (router.state.initialized && queryClient.isFetching() === 0) end()
    }
    const late = setTimeout(end, PICTURED)
    stops.push(
      router.subscribe(look),
      // What has just come is in the cache only after those who watch it were told.
      queryClient.getQueryCache().subscribe(() => queueMicrotask(look)),
      () => clearTimeout(late),
    )
    look()
  })

const mount = (root: HTMLElement): void =>
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queryClient}>
        {guest || joining ? (
          <RouterProvider router={router} />
        ) : (
          <Door>
            <RouterProvider router={router} />
          </Door>
        )}
      </QueryClientProvider>
    </StrictMode>,
  )
const root = document.getElementById('root')
// Not awaited at the top: views import from here.
if (root) void (document.getElementById('picture') ? viewThere() : Promise.resolve()).then(() => mount(root))

// The app shell stays on the device, so that the bench works with the server out of reach.
if (!guest && import.meta.env.PROD && 'serviceWorker' in navigator)
  void navigator.serviceWorker.register('/sw.js').catch(() => undefined)
