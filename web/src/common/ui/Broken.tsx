import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import { useTranslation } from 'react-i18next'
import { Link, useLocation, useNavigate, useRouteError } from 'react-router'
import { Empty } from './States'
import { Row } from './layout'

/** What browsers say when a part of the application cannot be fetched. */
const NOT_LOADED =
  /dynamically imported module|importing a module script failed|error loading|failed to fetch/i

/** In the place of a view that broke or could not be loaded: what happened, and the ways on. */
export function Broken() {
  const { t } = useTranslation()
  const error = useRouteError()
  const navigate = useNavigate()
  const { pathname, search } = useLocation()
  const notLoaded = error instanceof Error && NOT_LOADED.test(error.message)
  return (
    <Box role="alert">
      <Empty
        title={t(notLoaded ? 'common.notLoaded' : 'common.broken')}
        more={t(notLoaded ? 'common.notLoadedMore' : 'common.brokenMore')}
        action={
          <Row align="stretch" justify="center">
            <Button variant="contained" onClick={() => void navigate(pathname + search, { replace: true })}>
              {t('common.again')}
            </Button>
            <Button
              variant="outlined"
              onClick={() => {
                window.location.reload()
              }}
            >
              {t('common.reload')}
            </Button>
            <Button component={Link} to="/">
              {t('common.toClients')}
            </Button>
          </Row>
        }
      />
    </Box>
  )
}
