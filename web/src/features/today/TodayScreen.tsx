import Box from '@mui/material/Box'
import Button from '@mui/material/Button'
import IconButton from '@mui/material/IconButton'
import Typography from '@mui/material/Typography'
import { lazy, Suspense, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useSearchParams } from 'react-router'
import type { Schemas } from '../../api/client'
import { clockTime, daysAfter, longDate } from '../../common/dates'
import { usePracticeId } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { useMayWrite } from '../../common/session'
import { Rest, Row } from '../../common/ui/layout'
import { Main } from '../../common/ui/Main'
import { Empty, Failure, Working } from '../../common/ui/States'
import { Undo } from '../../common/ui/Undo'
import { ViewTitle } from '../../common/ui/ViewTitle'
import { CancelDialog } from './CancelDialog'
import { useDay, useRestore } from './queries'
import { Session } from './Session'

/** Loaded when it is first opened, its calendar with it. */
const AppointmentDialog = lazy(async () => ({
  default: (await import('./AppointmentDialog')).AppointmentDialog,
}))

type Appointment = Schemas['SessionOut']
type Doing =
  | { what: 'book' }
  | { what: 'move' | 'cancel'; session: Appointment }
  | { what: 'cancelled'; session: Appointment; cancelled: Schemas['AppointmentOut']; following: boolean }

/** Who comes today, and what is worth knowing before they do. */
export function TodayScreen() {
  const { t } = useTranslation()
  const practiceId = usePracticeId()
  const mayWrite = useMayWrite(practiceId)
  const [search, setSearch] = useSearchParams()
  const [doing, setDoing] = useState<Doing | null>(null)
  const day = useDay(search.get('date') ?? undefined)
  const done = () => {
    setDoing(null)
  }
  const go = (date: string) => {
    setSearch(date === day.data?.today ? {} : { date })
  }
  const shown = day.data
  return (
    <Main sx={{ maxWidth: 1160, mx: 'auto', px: { xs: 1.5, md: 3 }, py: { xs: 1.5, md: 3 } }}>
      <ViewTitle />
      {shown !== undefined && (
        <Row wrap gap={1.5} style={{ marginBottom: 20 }}>
          <Typography variant="h1" component="p" aria-live="polite">
            {longDate(shown.date)}
          </Typography>
          <Row gap={0.5}>
            <IconButton
              aria-label={t('today.dayBefore')}
              onClick={() => {
                go(daysAfter(shown.date, -1))
              }}
            >
              ‹
            </IconButton>
            <IconButton
              aria-label={t('today.dayAfter')}
              onClick={() => {
                go(daysAfter(shown.date, 1))
              }}
            >
              ›
            </IconButton>
            {shown.date !== shown.today && (
              <Button
                onClick={() => {
                  go(shown.today)
                }}
              >
                {t('today.toToday')}
              </Button>
            )}
          </Row>
          <Rest />
          {mayWrite && (
            <Button
              component={Link}
              to={`${addressOf(screenById('clients'), practiceId)}?new`}
              variant="outlined"
            >
              {t('clients.new')}
            </Button>
          )}
          {mayWrite && (
            <Button
              variant="contained"
              onClick={() => {
                setDoing({ what: 'book' })
              }}
            >
              {t('today.book')}
            </Button>
          )}
        </Row>
      )}
      {day.isPending && <Working />}
      {day.isError && <Failure error={day.error} again={() => void day.refetch()} />}
      {shown?.sessions.length === 0 && (
        <Empty
          title={t('today.none')}
          more={t('today.noneMore')}
          action={
            <Button component={Link} to={addressOf(screenById('clients'), practiceId)} variant="outlined">
              {t('today.toClients')}
            </Button>
          }
        />
      )}
      <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0 }}>
        {shown?.sessions.map((session) => (
          <Session
            key={session.id}
            session={session}
            today={shown.date === shown.today}
            mayWrite={mayWrite}
            onMove={() => {
              setDoing({ what: 'move', session })
            }}
            onCancel={() => {
              setDoing({ what: 'cancel', session })
            }}
          />
        ))}
      </Box>
      {shown !== undefined && (doing?.what === 'book' || doing?.what === 'move') && (
        <Suspense>
          <AppointmentDialog
            moving={doing.what === 'move' ? doing.session : null}
            day={shown.date < shown.today ? shown.today : shown.date}
            onDone={(date) => {
              done()
              go(date)
            }}
            onClose={done}
          />
        </Suspense>
      )}
      {doing?.what === 'cancel' && (
        <CancelDialog
          session={doing.session}
          onCancelled={(cancelled, following) => {
            setDoing({ what: 'cancelled', session: doing.session, cancelled, following })
          }}
          onClose={done}
        />
      )}
      {doing?.what === 'cancelled' && (
        <Cancelled
          key={doing.cancelled.id}
          name={doing.session.name}
          cancelled={doing.cancelled}
          following={doing.following}
          onClose={done}
        />
      )}
    </Main>
  )
}

interface CancelledProps {
  name: string
  cancelled: Schemas['AppointmentOut']
  following: boolean
  onClose: () => void
}

function Cancelled({ name, cancelled, following, onClose }: CancelledProps) {
  const { t } = useTranslation()
  const practice_id = usePracticeId()
  const restore = useRestore()
  return (
    <Undo
      text={t('today.cancelled', { time: clockTime(cancelled.time), name })}
      back={restore}
      onUndo={() => {
        const path = { practice_id, appointment_id: cancelled.id }
        restore.mutate(
          { params: { path }, body: { version: cancelled.version, following } },
          { onSuccess: onClose },
        )
      }}
      onClose={onClose}
    />
  )
}
