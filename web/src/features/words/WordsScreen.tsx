import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { OWN_WORDS, type OwnWord } from '../../common/met'
import { Main } from '../../common/ui/Main'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { ViewTitle } from '../../common/ui/ViewTitle'
import { colours, serif } from '../../theme/theme'

const List = styled('dl')(({ theme }) => ({
  margin: theme.spacing(2, 0),
  '& > div': {
    display: 'grid',
    gap: theme.spacing(0, 3),
    gridTemplateColumns: 'minmax(0, 1fr)',
    [theme.breakpoints.up('sm')]: { gridTemplateColumns: '200px minmax(0, 1fr)' },
    padding: theme.spacing(1.25, 0),
    borderTop: `1px solid ${colours.line}`,
  },
  '& dt': {
    display: 'flex',
    alignItems: 'center',
    gap: 8,
    fontFamily: serif,
    fontSize: '1.15rem',
    fontWeight: 600,
  },
  '& dd': { margin: 0, maxWidth: 620, lineHeight: 1.5 },
}))

const VERDICTS: readonly string[] = [
  'clear',
  'with_setup',
  'with_eye',
  'check_first',
  'leave_out',
] satisfies Schemas['Verdict'][]

function isVerdict(word: OwnWord): word is OwnWord & Schemas['Verdict'] {
  return VERDICTS.includes(word)
}

/** The words the application uses in a way of its own, each in a sentence or two. */
export function WordsScreen() {
  const { t } = useTranslation()
  return (
    <Main sx={{ maxWidth: 920, mx: 'auto', px: { xs: 1.5, md: 3 }, py: { xs: 1.5, md: 3 } }}>
      <ViewTitle />
      <Typography variant="h1" component="p" aria-hidden>
        {t('screens.words')}
      </Typography>
      <List>
        {OWN_WORDS.map((word) => (
          <div key={word}>
            <dt>
              {isVerdict(word) && <VerdictMark verdict={word} />}
              {t(`words.name.${word}`)}
            </dt>
            <dd>
              {t(`words.short.${word}`)} {t(`words.more.${word}`)}
            </dd>
          </div>
        ))}
      </List>
    </Main>
  )
}
