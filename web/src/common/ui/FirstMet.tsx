import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { colours } from '../../theme/theme'
import { type OwnWord, useUnmet } from '../met'
import { usePracticeId } from '../route'
import { addressOf, screenById } from '../screens'

const Note = styled('aside')(({ theme }) => ({
  display: 'flex',
  flexWrap: 'wrap',
  alignItems: 'center',
  gap: theme.spacing(0.5, 1.5),
  padding: theme.spacing(0.75, 1.5),
  marginBottom: theme.spacing(1.25),
  backgroundColor: colours.note,
  fontSize: '0.92rem',
  '& dl': { display: 'flex', flexWrap: 'wrap', gap: theme.spacing(0.25, 2), margin: 0, flex: '1 1 340px' },
  '& dl > div': { display: 'flex', gap: theme.spacing(0.5) },
  '& dt': { fontWeight: 700 },
  '& dd': { margin: 0 },
  '& a': { color: 'inherit', display: 'inline-flex', alignItems: 'center', minHeight: 44 },
}))

/** Words of ours explained where one meets them first; once known they are out of the way. */
export function FirstMet({ words }: { words: readonly OwnWord[] }) {
  const { t } = useTranslation()
  const practiceId = usePracticeId()
  const [unmet, know] = useUnmet(words)
  if (unmet.length === 0) return null
  return (
    <Note aria-label={t('words.met')}>
      <dl>
        {unmet.map((word) => (
          <div key={word}>
            <dt>{t(`words.name.${word}`)}:</dt>
            <dd>{t(`words.short.${word}`)}</dd>
          </div>
        ))}
      </dl>
      <Link to={addressOf(screenById('words'), practiceId)}>{t('words.all')}</Link>
      <Button variant="outlined" color="inherit" onClick={know} sx={{ minHeight: 44 }}>
        {t('words.know')}
      </Button>
    </Note>
  )
}
