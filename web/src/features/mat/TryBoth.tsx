import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import useMediaQuery from '@mui/material/useMediaQuery'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Lane, Schemas } from '../../api/client'
import { shortDate } from '../../common/dates'
import { usePicked } from '../../common/drafts'
import { useClientPath } from '../../common/route'
import { Row } from '../../common/ui/layout'
import { Failure, Refused, Working } from '../../common/ui/States'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { Figure } from '../../figure/Figure'
import { colours, laneColour, serif } from '../../theme/theme'
import { isTried, keptOf, newTrial, trialFrom, type Trying, type Which } from './both'
import { BriefClock } from './BriefClock'
import { Touch } from '../../common/ui/Touch'
import { useKeepTrial, useWays } from './queries'
import { sideOf } from './road'
import { Scores } from '../../common/ui/Scores'

/** As long as a body needs to tell two ways apart. */
const BREATHS = 3
const MOST_CAUTIONS = 2

const Body = styled(DialogContent)(({ theme }) => ({
  display: 'grid',
  gap: theme.spacing(1.5),
  alignContent: 'start',
  '& .ways': {
    display: 'grid',
    direction: 'ltr',
    gap: theme.spacing(2),
    gridTemplateColumns: 'minmax(0, 1fr)',
    [theme.breakpoints.up('sm')]: { gridTemplateColumns: 'repeat(2, minmax(0, 1fr))' },
  },
  '& .way': {
    display: 'grid',
    // Both ways line up, whatever is to be minded in one of them.
    gridTemplateRows: 'auto auto 1fr auto auto auto',
    gap: theme.spacing(1),
    borderTop: `5px solid ${colours.line}`,
    paddingTop: theme.spacing(0.75),
  },
  '& .way.kept': { borderTopColor: 'var(--lane)' },
  '& h3': { fontFamily: serif, fontSize: '1.25rem', fontWeight: 600, margin: 0 },
  '& .mind': { color: colours.mind, lineHeight: 1.3, fontSize: '0.95rem' },
}))

interface Props {
  lane: Lane
  /** Which of several planned ladders. */
  name: string
  date: string
  breath_s: number
  mat: Schemas['MatSide']
}

/** Two ways of this set-up, one touch away where it has any; marked while one wants trying again. */
export function TryBoth(props: Props) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  if (props.mat.trials.length === 0) return null
  return (
    <>
      <Button
        variant="outlined"
        color="inherit"
        style={
          props.mat.trials.some(({ again }) => again) ? { borderColor: colours.accent, borderWidth: 2 } : {}
        }
        onClick={() => {
          setOpen(true)
        }}
      >
        {t('mat.both.open')}
      </Button>
      {open && (
        <Trial
          {...props}
          onClose={() => {
            setOpen(false)
          }}
        />
      )}
    </>
  )
}

/** Which way is kept on this side and since when, and what was not tried yet. */
export function TriedBefore({ trials }: { trials: Schemas['SlotTrial'][] }) {
  const { t } = useTranslation()
  const untried = trials.filter(({ last }) => last === null)
  return (
    <>
      {trials.map(({ slot, label, last, again }) => {
        if (last === null) return null
        const told = { what: label, kept: last.kept, date: shortDate(last.date) }
        return (
          <span key={slot} style={again ? { color: colours.mind } : {}}>
            {t(again ? 'mat.both.again' : 'mat.both.kept', told)}{' '}
          </span>
        )
      })}
      {untried.length > 0 && t('mat.both.untried', { what: untried.map(({ label }) => label).join(', ') })}
    </>
  )
}

/** Two ways held briefly one after the other; the calmer is kept for this side. */
function Trial({ lane, name, date, breath_s, mat, onClose }: Props & { onClose: () => void }) {
  const { t } = useTranslation()
  const path = useClientPath()
  const narrow = useMediaQuery((theme) => theme.breakpoints.down('sm'))
  const side = sideOf(lane)
  const found = useWays(mat.variation, side, mat.setup)
  const keep = useKeepTrial()
  const [begun, setBegun] = usePicked<Trying | null>(
    `both:${path.client_id}:${date}:${mat.variation}:${side}`,
    null,
  )
  const ways = found.data?.ways ?? []
  const first =
    ways.find(({ slot }) => mat.trials.some((each) => each.slot === slot && each.again)) ?? ways[0]
  const known = begun !== null && ways.some((way) => isTried(begun, way)) ? begun : null
  const trying = known ?? (first === undefined ? null : newTrial(first))
  const way = trying === null ? undefined : ways.find((each) => isTried(trying, each))
  const kept = trying === null ? null : keptOf(trying)
  const send = () => {
    const body =
      trying === null || found.data === undefined ? null : trialFrom(trying, mat, found.data.here.setup, side)
    if (body === null) return
    keep.mutate(
      { params: { path }, body },
      {
        onSuccess: () => {
          setBegun(null)
          onClose()
        },
      },
    )
  }
  return (
    <Dialog
      open
      onClose={onClose}
      fullScreen={narrow}
      fullWidth
      maxWidth="md"
      aria-labelledby="both-title"
      style={{ '--lane': laneColour(lane) } as object}
    >
      <DialogTitle id="both-title">
        <span style={{ color: 'var(--lane)' }}>{t('mat.both.title', { side: t(`side.${lane}`) })}</span>{' '}
        {name}, {mat.short}
      </DialogTitle>
      <Body>
        {found.isPending && <Working />}
        {found.isError && <Failure error={found.error} again={() => void found.refetch()} />}
        {found.data !== undefined && ways.length === 0 && <Typography>{t('mat.both.none')}</Typography>}
        {ways.length > 1 && trying !== null && (
          <Row wrap role="group" aria-label={t('mat.both.which')}>
            {ways.map((each) => (
              <Touch
                key={`${each.slot} ${each.then}`}
                side={lane}
                on={isTried(trying, each)}
                onTouch={() => {
                  if (!isTried(trying, each)) setBegun(newTrial(each))
                }}
              >
                {t('mat.both.choice', { what: each.label, then: each.then })}
              </Touch>
            ))}
          </Row>
        )}
        {found.data !== undefined && trying !== null && way !== undefined && (
          <>
            <Typography variant="note">{t('mat.both.how', { count: BREATHS })}</Typography>
            <div className="ways">
              {(['a', 'b'] as const).map((which) => (
                <Way
                  key={`${which} ${way.slot} ${way.then}`}
                  lane={lane}
                  which={which}
                  what={way.label}
                  words={which === 'a' ? way.now : way.then}
                  drawn={which === 'a' ? found.data.here : way}
                  seconds={BREATHS * breath_s}
                  felt={trying.felt[which]}
                  kept={kept === which}
                  onFelt={(score) => {
                    setBegun({ ...trying, felt: { ...trying.felt, [which]: score } })
                  }}
                />
              ))}
            </div>
            <Refused error={keep.error} />
          </>
        )}
      </Body>
      <DialogActions>
        <Button onClick={onClose} size="large">
          {t('common.close')}
        </Button>
        {way !== undefined && trying !== null && kept !== null && (
          <>
            <Button
              size="large"
              variant="outlined"
              onClick={() => {
                setBegun({ ...trying, chosen: kept === 'a' ? 'b' : 'a' })
              }}
            >
              {t('mat.both.otherwise', { words: kept === 'a' ? way.then : way.now })}
            </Button>
            <Button size="large" variant="contained" color={lane} disabled={keep.isPending} onClick={send}>
              {t('mat.both.keep', { words: kept === 'a' ? way.now : way.then })}
            </Button>
          </>
        )}
      </DialogActions>
    </Dialog>
  )
}

interface WayProps {
  lane: Lane
  which: Which
  what: string
  words: string
  drawn: Schemas['DrawnSetup']
  seconds: number
  felt: number | null
  kept: boolean
  onFelt: (score: number) => void
}

/** One of the two ways: its picture, what to mind in it, the clock, and what was felt. */
function Way({ lane, which, what, words, drawn, seconds, felt, kept, onFelt }: WayProps) {
  const { t } = useTranslation()
  const letter = which.toUpperCase()
  const minded = [...new Set(drawn.cautions.map(({ sentence }) => sentence))]
  return (
    <section className={kept ? 'way kept' : 'way'} aria-label={`${letter}: ${what}, ${words}`}>
      <Row justify="space-between" align="baseline">
        <h3>
          {letter} {what}: {words}
        </h3>
        <Row gap={0.5}>
          <VerdictMark verdict={drawn.verdict} /> {t(`verdict.${drawn.verdict}`)}
        </Row>
      </Row>
      <Figure svg={drawn.figure} height="clamp(140px, 25vh, 240px)" />
      <div>
        {minded.slice(0, MOST_CAUTIONS).map((each) => (
          <div key={each} className="mind">
            {each}
          </div>
        ))}
      </div>
      <BriefClock label={t('mat.both.timer', { which: letter })} seconds={seconds} />
      <Typography variant="note">{t('mat.both.felt')}</Typography>
      <Scores
        side={lane}
        of={{ words: t('mat.both.feltIn', { which: letter }) }}
        value={felt}
        named={(score) => t('mat.both.score', { which: letter, score })}
        large
        onScore={onFelt}
      />
    </section>
  )
}
