import AppBar from '@mui/material/AppBar'
import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import Toolbar from '@mui/material/Toolbar'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import { Link, NavLink } from 'react-router'
import type { Schemas } from '../../api/client'
import { useHint } from '../../common/commands'
import { addressOf, SCREENS } from '../../common/screens'
import { colours, serif } from '../../theme/theme'

interface Props {
  practice: Schemas['Me']['practices'][number]
  name: string
  onFind: () => void
  onPerson: () => void
}

/** Name, the views of a practice, finding things, and who is here. */
export function PracticeBar({ practice, name, onFind, onPerson }: Props) {
  const { t } = useTranslation()
  const find = useHint('find')
  return (
    <AppBar sx={{ '@media print': { display: 'none' } }}>
      <Toolbar variant="dense" sx={{ minHeight: 46, gap: { xs: 1.5, md: 4 }, px: { xs: 1.5, md: 2.75 } }}>
        <Typography
          component={Link}
          to="/"
          translate="no"
          sx={{
            fontFamily: serif,
            fontWeight: 600,
            fontSize: '1.4rem',
            color: 'inherit',
            textDecoration: 'none',
          }}
        >
          {t('app.name')}
        </Typography>
        <Box
          component="nav"
          aria-label={t('nav.views')}
          sx={{ display: { xs: 'none', md: 'flex' }, gap: 3, height: 46 }}
        >
          {SCREENS.filter((each) => each.bar).map((each) => (
            <Box
              key={each.id}
              component={NavLink}
              to={addressOf(each, practice.id)}
              sx={{
                color: colours.quietOnBar,
                textDecoration: 'none',
                display: 'grid',
                alignItems: 'center',
                borderBlock: '3px solid transparent',
                outlineOffset: '-3px !important',
                '&.active': { color: colours.onBar, borderBottomColor: colours.accent },
              }}
            >
              {t(each.title)}
            </Box>
          ))}
        </Box>
        <Button color="inherit" onClick={onFind} title={find} sx={{ ml: 'auto', ...ON_BAR }}>
          {t('palette.open')}
        </Button>
        <Box component="span" translate="no" sx={{ display: { xs: 'none', md: 'inline' } }}>
          {practice.name}
        </Box>
        <Button color="inherit" onClick={onPerson} aria-haspopup="dialog" sx={ON_BAR}>
          <span translate="no">{name}</span>
        </Button>
      </Toolbar>
    </AppBar>
  )
}

const ON_BAR = { border: `1px solid ${colours.quietOnBar}`, minHeight: 34, py: 0, fontWeight: 400 } as const
