import Button from '@mui/material/Button'
import { useTranslation } from 'react-i18next'

interface Props {
  /** Whether it was asked about already, without an answer so far. */
  asked: boolean
  busy: boolean
  size?: 'small' | 'medium'
  /** What was said; nothing where the client was asked and did not answer yet. */
  onAnswer: (settled?: boolean) => void
}

/** Settled or not by the next morning, or asked and not answered. */
export function MorningAnswers({ asked, busy, size = 'medium', onAnswer }: Props) {
  const { t } = useTranslation()
  return (
    <>
      {([true, false] as const).map((settled) => (
        <Button
          key={settled.toString()}
          variant="outlined"
          color="inherit"
          size={size}
          disabled={busy}
          onClick={() => {
            onAnswer(settled)
          }}
        >
          {t(settled ? 'mat.settled' : 'mat.notSettled')}
        </Button>
      ))}
      {asked ? (
        <span>{t('mat.noAnswerYet')}</span>
      ) : (
        <Button
          color="inherit"
          size={size}
          disabled={busy}
          onClick={() => {
            onAnswer()
          }}
        >
          {t('mat.noAnswer')}
        </Button>
      )}
    </>
  )
}
