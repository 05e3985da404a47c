import { MantineProvider } from '@mantine/core'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { useEffect, type ComponentType } from 'react'
import { createBrowserRouter, Navigate, RouterProvider, useParams } from 'react-router'
import { ShelfPage } from '../features/shelf/ShelfPage.tsx'
import { bringStages } from '../texts/i18n.ts'
import { keepAppHere } from '../state/appVersion.ts'
import { leftBehind } from '../state/arrangedBehind.ts'
import { keepInstallOffer } from '../state/install.ts'
import { sweep } from '../state/shelf.ts'
import { Notices } from './Notices.tsx'
import { Porch } from './Porch.tsx'
import { RouteError } from './RouteError.tsx'
import { theme } from './theme.ts'
import { UnknownAddress } from './UnknownAddress.tsx'
import { useFailures } from './useFailures.ts'

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, staleTime: 60_000, refetchOnWindowFocus: false } },
})

/** Shown while a stage's code is on its way: nothing, for it is on disk. */
const Nothing = () => null

/** A stage with its texts. */
const stage = (load: () => Promise<ComponentType>) => async () => {
  const [Component] = await Promise.all([load(), bringStages()])
  return { Component }
}

/** Milliseconds after which what comes next is brought, where the browser does not say that it is idle. */
const IDLE_MS = 400

/** Whoever has nothing on the shelf yet takes a first tune next: once the page stands, what that needs is brought. */
const bringNext = () => {
  const bring = () => void import('./warmUp.ts').then(({ warmUp }) => warmUp())
  if ('requestIdleCallback' in window) requestIdleCallback(bring)
  else setTimeout(bring, IDLE_MS)
}

/** When the page has loaded, the app is kept for work without a network. */
const keepForOffline = () => {
  const keep = () => void keepAppHere().catch(() => undefined)
  if (document.readyState === 'complete') keep()
  else window.addEventListener('load', keep, { once: true })
}

const router = createBrowserRouter([
  {
    path: '/',
    element: <Porch />,
    errorElement: <RouteError />,
    HydrateFallback: Nothing,
    children: [
      { index: true, element: <ShelfPage onEmpty={bringNext} /> },
      {
        path: 'tunes/:id/tune',
        lazy: stage(async () => (await import('../features/tune/TuneStage.tsx')).TuneStage),
      },
      {
        path: 'tunes/:id/fit',
        lazy: stage(async () => (await import('../features/fit/FitStage.tsx')).FitStage),
      },
      {
        path: 'tunes/:id/arrange',
        lazy: stage(async () => (await import('../features/arrange/ArrangeStage.tsx')).ArrangeStage),
      },
      {
        path: 'tunes/:id/teach',
        lazy: stage(async () => (await import('../features/lesson/TeachStage.tsx')).TeachStage),
      },
      {
        path: 'tunes/:id/practise',
        lazy: stage(async () => (await import('../features/practise/PractiseStage.tsx')).PractiseStage),
      },
      {
        path: 'tunes/:id/handout',
        lazy: stage(async () => (await import('../features/handout/HandoutStage.tsx')).HandoutStage),
      },
      {
        path: 'shapes',
        lazy: stage(async () => (await import('../features/shapes/ShapesPage.tsx')).ShapesPage),
      },
      {
        path: 'neck',
        lazy: stage(async () => (await import('../features/neck/NeckCardPage.tsx')).NeckCardPage),
      },
      {
        path: 'tuner',
        lazy: stage(async () => (await import('../features/tuner/TunerPage.tsx')).TunerPage),
      },
      {
        path: 'students',
        lazy: stage(async () => (await import('../features/students/StudentsPage.tsx')).StudentsPage),
      },
      {
        path: 'students/:student',
        lazy: stage(async () => (await import('../features/students/StudentPage.tsx')).StudentPage),
      },
      {
        path: 'repertoire',
        lazy: stage(async () => (await import('../features/repertoire/RepertoirePage.tsx')).RepertoirePage),
      },
      {
        path: 'sets/:set/book',
        lazy: stage(async () => (await import('../features/sets/book/SetBookPage.tsx')).SetBookPage),
      },
      {
        path: 'sets/:set?',
        lazy: stage(async () => (await import('../features/sets/SetsPage.tsx')).SetsPage),
      },
      {
        path: 'taste',
        lazy: stage(async () => (await import('../features/taste/TastePage.tsx')).TastePage),
      },
      {
        path: 'settings',
        lazy: stage(async () => (await import('../features/settings/SettingsPage.tsx')).SettingsPage),
      },
      { path: 'tunes/:id', element: <ToBench /> },
      { path: '*', element: <UnknownAddress /> },
    ],
  },
  {
    path: '/tunes/:id/print',
    errorElement: <RouteError />,
    HydrateFallback: Nothing,
    lazy: stage(async () => (await import('../features/handout/print/PrintPage.tsx')).PrintPage),
  },
])

/** A tune without a stage is worked on. */
function ToBench() {
  return <Navigate to={`/tunes/${useParams().id}/arrange`} replace />
}

export function App() {
  useFailures(queries)
  useEffect(() => {
    // That storage fails is shown on the page.
    sweep().catch(() => undefined)
    keepInstallOffer()
    keepForOffline()
    if (leftBehind())
      void import('../features/shelf/demo/demoBehind.ts')
        .then(({ bringRest }) => bringRest())
        .catch(() => undefined)
  }, [])
  return (
    <MantineProvider theme={theme} defaultColorScheme="auto">
      <QueryClientProvider client={queries}>
        <Notices />
        <RouterProvider router={router} />
      </QueryClientProvider>
    </MantineProvider>
  )
}
