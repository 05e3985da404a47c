import { MantineProvider } from '@mantine/core'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { Suspense, useEffect } from 'react'
import { ErrorBoundary } from 'react-error-boundary'
import { BrowserRouter, Navigate, Route, Routes, useLocation, useParams } from 'react-router'
import { ShelfPage } from '../features/shelf/ShelfPage.tsx'
import { keepAppHere } from '../state/appVersion.ts'
import { leftBehind } from '../state/arrangedBehind.ts'
import { keepInstallOffer } from '../state/install.ts'
import { sweep } from '../state/shelf.ts'
import { broughtWithTexts } from '../ui/brought.ts'
import { Notices } from './Notices.tsx'
import { PageError } from './PageError.tsx'
import { Porch } from './Porch.tsx'
import { theme } from './theme.ts'
import { UnknownAddress } from './UnknownAddress.tsx'
import { useFailures } from './useFailures.ts'

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, staleTime: 60_000, refetchOnWindowFocus: false } },
})

/** A stage comes with its texts when it is gone to. */
const stage = broughtWithTexts

/** Milliseconds after which what comes next is brought, where nobody has touched anything. */
const UNTOUCHED_MS = 4000

/**
 * Whoever has nothing on the shelf yet takes a first tune next: what that needs is brought at the first sign of a hand, so that
 * the page itself does not wait for it.
 */
const bringNext = () => {
  const signs = ['pointermove', 'pointerdown', 'keydown'] as const
  const bring = () => {
    clearTimeout(late)
    for (const sign of signs) window.removeEventListener(sign, bring)
    void import('./warmUp.ts').then(({ warmUp }) => warmUp())
  }
  for (const sign of signs) window.addEventListener(sign, bring, { passive: true })
  const late = setTimeout(bring, UNTOUCHED_MS)
}

/** When the page has loaded, the app is kept for work without a network. */
const keepForOffline = () => {
  const keep = () => void keepAppHere().catch(() => undefined)
  if (document.readyState === 'complete') keep()
  else window.addEventListener('load', keep, { once: true })
}

const TuneStage = stage(async () => (await import('../features/tune/TuneStage.tsx')).TuneStage)
const FitStage = stage(async () => (await import('../features/fit/FitStage.tsx')).FitStage)
const ArrangeStage = stage(async () => (await import('../features/arrange/ArrangeStage.tsx')).ArrangeStage)
const TeachStage = stage(async () => (await import('../features/lesson/TeachStage.tsx')).TeachStage)
const PractiseStage = stage(
  async () => (await import('../features/practise/PractiseStage.tsx')).PractiseStage,
)
const HandoutStage = stage(async () => (await import('../features/handout/HandoutStage.tsx')).HandoutStage)
const ShapesPage = stage(async () => (await import('../features/shapes/ShapesPage.tsx')).ShapesPage)
const NeckCardPage = stage(async () => (await import('../features/neck/NeckCardPage.tsx')).NeckCardPage)
const TunerPage = stage(async () => (await import('../features/tuner/TunerPage.tsx')).TunerPage)
const StudentsPage = stage(async () => (await import('../features/students/StudentsPage.tsx')).StudentsPage)
const StudentPage = stage(async () => (await import('../features/students/StudentPage.tsx')).StudentPage)
const RepertoirePage = stage(
  async () => (await import('../features/repertoire/RepertoirePage.tsx')).RepertoirePage,
)
const SetBookPage = stage(async () => (await import('../features/sets/book/SetBookPage.tsx')).SetBookPage)
const SetsPage = stage(async () => (await import('../features/sets/SetsPage.tsx')).SetsPage)
const TastePage = stage(async () => (await import('../features/taste/TastePage.tsx')).TastePage)
const SettingsPage = stage(async () => (await import('../features/settings/SettingsPage.tsx')).SettingsPage)
const PrintPage = stage(async () => (await import('../features/handout/print/PrintPage.tsx')).PrintPage)

/** Every address, and the page that it shows. */
function Pages() {
  const { pathname } = useLocation()
  return (
    <ErrorBoundary FallbackComponent={PageError} resetKeys={[pathname]}>
      <Routes>
        <Route path="/" element={<Porch />}>
          <Route index element={<ShelfPage onEmpty={bringNext} />} />
          <Route path="tunes/:id/tune" element={<TuneStage />} />
          <Route path="tunes/:id/fit" element={<FitStage />} />
          <Route path="tunes/:id/arrange" element={<ArrangeStage />} />
          <Route path="tunes/:id/teach" element={<TeachStage />} />
          <Route path="tunes/:id/practise" element={<PractiseStage />} />
          <Route path="tunes/:id/handout" element={<HandoutStage />} />
          <Route path="shapes" element={<ShapesPage />} />
          <Route path="neck" element={<NeckCardPage />} />
          <Route path="tuner" element={<TunerPage />} />
          <Route path="students" element={<StudentsPage />} />
          <Route path="students/:student" element={<StudentPage />} />
          <Route path="repertoire" element={<RepertoirePage />} />
          <Route path="sets/:set/book" element={<SetBookPage />} />
          <Route path="sets/:set?" element={<SetsPage />} />
          <Route path="taste" element={<TastePage />} />
          <Route path="settings" element={<SettingsPage />} />
          <Route path="tunes/:id" element={<ToBench />} />
          <Route path="*" element={<UnknownAddress />} />
        </Route>
        <Route
          path="/tunes/:id/print"
          element={
            <Suspense>
              <PrintPage />
            </Suspense>
          }
        />
      </Routes>
    </ErrorBoundary>
  )
}

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
        <BrowserRouter>
          <Pages />
        </BrowserRouter>
      </QueryClientProvider>
    </MantineProvider>
  )
}
