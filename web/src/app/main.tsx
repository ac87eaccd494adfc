import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/fraunces'
import CssBaseline from '@mui/material/CssBaseline'
import { ThemeProvider } from '@mui/material/styles'
import { QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter, RouterProvider } from 'react-router'
import '../common/i18n'
import { modeAtStart } from '../theme/light'
import { theme } from '../theme/theme'
import { newQueries } from './queries'
import { routes } from './screens'

const router = createBrowserRouter(routes)
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
      <QueryClientProvider client={newQueries()}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </ThemeProvider>
  </StrictMode>,
)
