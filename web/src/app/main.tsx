import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/fraunces'
import CssBaseline from '@mui/material/CssBaseline'
import { ThemeProvider } from '@mui/material/styles'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router'
import { ApiProblem } from '../api/client'
import '../common/i18n'
import { modeAtStart } from '../theme/light'
import { theme } from '../theme/theme'
import { router } from './screens'

const queries = new QueryClient({
  defaultOptions: {
    // Without a network a request fails and says so; it does not wait in silence.
    mutations: { networkMode: 'always' },
    queries: {
      networkMode: 'always',
      staleTime: 30_000,
      // A refusal is an answer; only a server that could not be reached is asked again.
      retry: (count, error) => !(error instanceof ApiProblem && error.status > 0) && count < 2,
    },
  },
})

const root = document.getElementById('root')
if (root === null) throw new Error('The page has no root element.')
createRoot(root).render(
  <StrictMode>
    <ThemeProvider
      theme={theme}
      defaultMode={modeAtStart()}
      // Which light a place has is kept by the place, not by MUI.
      storageManager={null}
      disableTransitionOnChange
    >
      <CssBaseline />
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </ThemeProvider>
  </StrictMode>,
)
