import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css'
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import '@fontsource-variable/bricolage-grotesque/wght.css'
import '@mantine/core/styles.css'
import './theme/base.css'
import { MantineProvider } from '@mantine/core'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { lazy, StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter, RouterProvider } from 'react-router'
import { Refusal } from './api/client'
import { hashed } from './api/hashed'
import { BenchScreen } from './bench/Bench'
import { Broke } from './shell/Broke'
import { Shell } from './shell/Shell'
import { ShotsScreen } from './shots/ShotsScreen'
import { theme, variables } from './theme/theme'

const queries = new QueryClient({
  // A refusal stays one however often it is asked; silence may pass.
  defaultOptions: {
    queries: {
      retry: (count, error) => !(error instanceof Refusal) && count < 2,
      networkMode: 'always',
      queryKeyHashFn: hashed,
    },
    mutations: { networkMode: 'always' },
  },
})

// Fetched when it is first opened.
const Floor = lazy(() => import('./floor/FloorScreen').then(({ Floor }) => ({ default: Floor })))
const Match = lazy(() => import('./match/Match').then(({ Match }) => ({ default: Match })))

const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broke />,
    children: [
      { path: '/', element: <ShotsScreen /> },
      { path: '/shots/:id', element: <BenchScreen match={Match} floor={Floor} /> },
      {
        path: '/new',
        lazy: async () => ({ Component: (await import('./brief/BriefScreen')).BriefScreen }),
      },
      // Not needed to see a shot: fetched when it is opened.
      {
        path: '/kit/:kind?/:id?',
        lazy: async () => ({ Component: (await import('./kit/KitScreen')).KitScreen }),
      },
      {
        path: '/copies',
        lazy: async () => ({ Component: (await import('./copies/CopiesScreen')).CopiesScreen }),
      },
      {
        path: '/preferences',
        lazy: async () => ({
          Component: (await import('./preferences/PreferencesScreen')).PreferencesScreen,
        }),
      },
      {
        path: '/notes/:page?',
        lazy: async () => ({ Component: (await import('./notes/Notes')).Notes }),
      },
      { path: '*', element: <ShotsScreen /> },
    ],
  },
])

const root = document.getElementById('root')
if (root) {
  createRoot(root).render(
    <StrictMode>
      <MantineProvider theme={theme} cssVariablesResolver={variables} defaultColorScheme="dark">
        <QueryClientProvider client={queries}>
          <RouterProvider router={router} />
        </QueryClientProvider>
      </MantineProvider>
    </StrictMode>,
  )
}
