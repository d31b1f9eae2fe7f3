import './app.css'
import { QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter, RouterProvider } from 'react-router'
import { followChanges } from './api/changes'
import { queryClient, startWriting } from './api/queries'
import { Crash, Loading, NotFound } from './frame/States'
import { Frame } from './frame/Frame'
import { toast } from './frame/toasts'
import { Shelf } from './views/shelf/Shelf'

const router = createBrowserRouter([
  {
    path: '/',
    element: <Frame />,
    errorElement: <Crash />,
    HydrateFallback: Loading,
    children: [
      { index: true, element: <Shelf /> },
      { path: 'tanks/:id?', lazy: async () => ({ Component: (await import('./views/tanks/Tanks')).Tanks }) },
      {
        path: 'library/:id?',
        lazy: async () => ({ Component: (await import('./views/library/Library')).Library }),
      },
      {
        path: 'rules/:id?',
        lazy: async () => ({ Component: (await import('./views/rules/HouseRules')).HouseRules }),
      },
      {
        path: 'models/:id',
        lazy: async () => ({ Component: (await import('./views/dossier/Dossier')).DossierView }),
        children: [
          {
            index: true,
            lazy: async () => ({ Component: (await import('./views/dossier/Dossier')).ToFirstStation }),
          },
          {
            path: 'claims',
            lazy: async () => ({ Component: (await import('./views/claims/Claims')).Claims }),
          },
          { path: 'strip', lazy: async () => ({ Component: (await import('./views/strip/Strip')).Strip }) },
          {
            path: 'inside',
            lazy: async () => ({ Component: (await import('./views/inside/Inside')).Inside }),
          },
          { path: 'bench', lazy: async () => ({ Component: (await import('./views/bench/Bench')).Bench }) },
          {
            path: 'bench/:trialId',
            lazy: async () => ({ Component: (await import('./views/bench/TrialDesk')).TrialDesk }),
          },
          { path: 'fill', lazy: async () => ({ Component: (await import('./views/fill/Fill')).Fill }) },
          { path: 'path', lazy: async () => ({ Component: (await import('./views/path/Path')).Path }) },
          {
            path: 'tanks',
            lazy: async () => ({ Component: (await import('./views/verdict/TankRange')).TankRange }),
          },
          {
            path: 'verdict',
            lazy: async () => ({ Component: (await import('./views/verdict/VerdictView')).VerdictView }),
          },
        ],
      },
      { path: '*', element: <NotFound /> },
    ],
  },
  {
    path: '/models/:id/strip/run',
    errorElement: <Crash />,
    HydrateFallback: Loading,
    lazy: async () => ({ Component: (await import('./views/striprun/StripRun')).StripRun }),
  },
  {
    path: '/models/:id/bench/:trialId/run',
    errorElement: <Crash />,
    HydrateFallback: Loading,
    lazy: async () => ({ Component: (await import('./views/benchrun/BenchRun')).BenchRun }),
  },
])

followChanges(queryClient)
startWriting(() => toast('Another window changed this too. Both changes are kept.'))

const root = document.getElementById('root')
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queryClient}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </StrictMode>,
  )

// The app shell stays on the device, so that the bench works with the server out of reach.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  void navigator.serviceWorker.register('/sw.js').catch(() => undefined)
