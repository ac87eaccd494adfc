import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { longDate } from '../../common/dates'
import { useClientHead } from '../../common/head'
import { useClientPath } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { useMayWrite, useMe } from '../../common/session'
import { Row } from '../../common/ui/layout'
import { Empty, Failure, Working } from '../../common/ui/States'
import { laneColour, serif, SHEET } from '../../theme/theme'
import { SeenDialog } from './SeenDialog'

const Page = styled('div')(({ theme }) => ({
  display: 'grid',
  gap: theme.spacing(3),
  alignItems: 'start',
  [theme.breakpoints.up('lg')]: { gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)' },
  '& h1': { fontFamily: serif, fontWeight: 600, fontSize: '1.7rem', lineHeight: 1.2, margin: 0 },
  '& ul': { margin: theme.spacing(0.5, 0), paddingLeft: 20, lineHeight: 1.45 },
  '@media print': { display: 'block', '& .on-screen': { display: 'none' } },
}))

const Call = styled('section')(({ theme }) => ({
  borderLeft: '4px solid',
  paddingLeft: theme.spacing(1.5),
  marginTop: theme.spacing(2),
}))

/** The note on paper: it stays as it is in either light. */
const Sheet = styled('article')(({ theme }) => ({
  backgroundColor: SHEET.ground,
  color: SHEET.ink,
  border: `1px solid ${SHEET.line}`,
  padding: theme.spacing(3, 4),
  lineHeight: 1.5,
  '& h2': { fontFamily: serif, fontWeight: 600, fontSize: '1.3rem', margin: theme.spacing(0, 0, 1) },
  '& .reply': { borderBottom: `1px solid ${SHEET.line}`, height: 34 },
  '@media print': { border: 0, padding: 0 },
}))

/** A sign that belongs to a doctor was recorded: whom to call, a note to take along, and where the answer goes. */
export function DoctorScreen() {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  const head = useClientHead()
  const mayWrite = useMayWrite(practice_id)
  const [answering, setAnswering] = useState<Schemas['CallOut'] | null>(null)
  if (head.isPending) return <Working />
  if (head.isError) return <Failure error={head.error} again={() => void head.refetch()} />
  const { doctor } = head.data
  const limits = addressOf(screenById('limits'), practice_id, client_id)
  if (doctor === null) {
    return (
      <Empty
        title={t('doctor.nothing')}
        more={t('doctor.nothingMore')}
        action={
          <Button component={Link} to={limits} variant="outlined">
            {t('doctor.toLimits')}
          </Button>
        }
      />
    )
  }
  return (
    <Page>
      <div className="on-screen">
        <h1>{doctor.headline}</h1>
        <Typography sx={{ mt: 1 }}>{doctor.meanwhile}</Typography>
        {doctor.calls.map((call) => (
          <Call key={call.entry_id} style={{ borderColor: laneColour(call.side ?? 'both') }}>
            <strong>{t(`doctor.urgency.${call.urgency}`, { whom: call.whom })}</strong>
            <div>{call.label}</div>
            <ul>
              {call.signs.map((sign) => (
                <li key={sign}>{sign}</li>
              ))}
            </ul>
            {mayWrite && (
              <Button
                variant="outlined"
                onClick={() => {
                  setAnswering(call)
                }}
              >
                {t('doctor.answer')}
              </Button>
            )}
          </Call>
        ))}
        <Row wrap gap={1.5} style={{ marginTop: 24 }}>
          <Button
            variant="contained"
            onClick={() => {
              window.print()
            }}
          >
            {t('doctor.print')}
          </Button>
          <Link to={limits}>{t('doctor.mistake')}</Link>
        </Row>
      </div>
      <Note head={head.data} doctor={doctor} />
      {answering !== null && (
        <SeenDialog
          call={answering}
          onClose={() => {
            setAnswering(null)
          }}
        />
      )}
    </Page>
  )
}

/** What the client takes along: who, what was said, what is asked back. */
function Note({ head, doctor }: { head: Schemas['ClientHead']; doctor: Schemas['DoctorOut'] }) {
  const { t } = useTranslation()
  const { practice_id } = useClientPath()
  const me = useMe()
  const practice = me.data?.practices.find((each) => each.id === practice_id)
  const { client } = head
  return (
    <Sheet>
      <h2>{t('doctor.note.title')}</h2>
      <div>{longDate(head.today)}</div>
      <p>
        <span translate="no">{client.name}</span>
        {client.birth_date !== null && `, ${t('doctor.note.born', { date: longDate(client.birth_date) })}`}
      </p>
      <p>{t('doctor.note.opening')}</p>
      <ul>
        {doctor.calls.flatMap(({ signs, entry_id }) =>
          signs.map((sign) => <li key={entry_id + sign}>{sign}</li>),
        )}
      </ul>
      <p>{t('doctor.note.records', { what: doctor.records.join('; ') })}</p>
      <p>{t('doctor.note.asking')}</p>
      <div className="reply" />
      <div className="reply" />
      <div className="reply" />
      <p translate="no">{[me.data?.full_name, practice?.name].filter(Boolean).join(', ')}</p>
    </Sheet>
  )
}
