import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable'
import Alert from '@mui/material/Alert'
import Button from '@mui/material/Button'
import { styled } from '@mui/material/styles'
import Typography from '@mui/material/Typography'
import { useCallback, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { Side } from '../../api/client'
import { clockTime, longDate, shortDate } from '../../common/dates'
import { useClientPath } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { useMayWrite } from '../../common/session'
import { Rest, Row } from '../../common/ui/layout'
import { Empty, Failure, Refused, Working } from '../../common/ui/States'
import { AddPose } from './AddPose'
import { Aside } from './Aside'
import { inOrder, moved, type Much, type Part, shownPoses, wholeMinutes } from './model'
import { PlanStrip } from './PlanStrip'
import { PoseRow } from './PoseRow'
import { useAdd, useAgain, useBreath, usePlan, usePlanOf, useSuggest } from './queries'
import { Templates } from './Templates'
import { usePlanEdits } from './usePlanEdits'

const Columns = styled('div')(({ theme }) => ({
  display: 'grid',
  gap: theme.spacing(3),
  gridTemplateColumns: 'minmax(0, 1fr)',
  [theme.breakpoints.up('lg')]: { gridTemplateColumns: 'minmax(0, 1fr) 236px' },
  '& ol': { listStyle: 'none', margin: 0, padding: 0 },
}))

const MINUTES = [20, 30, 40, 45, 50, 60, 75, 90, 120]
const BREATHS = Array.from({ length: 19 }, (_, more) => more + 2)

const Choice = styled('label')(({ theme }) => ({
  display: 'inline-flex',
  alignItems: 'baseline',
  gap: theme.spacing(0.75),
  color: theme.vars?.palette.text.secondary,
  '& select': {
    font: 'inherit',
    fontSize: '0.95rem',
    fontWeight: 700,
    color: theme.vars?.palette.text.primary,
    background: 'none',
    border: 0,
    borderBottom: `1px dotted ${theme.vars?.palette.text.secondary ?? ''}`,
    minHeight: 30,
    '& option': {
      color: theme.vars?.palette.text.primary,
      backgroundColor: theme.vars?.palette.background.paper,
    },
    '&:focus-visible': { outline: '3px solid var(--focus)', outlineOffset: 1 },
  },
}))

/** The day's session: its poses in order with both sides, its minutes as a strip, what to settle and why it is so. */
export function PlanScreen() {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  const mayWrite = useMayWrite(practice_id)
  const params = usePlanOf()
  const found = usePlan()
  const plan = found.data
  const { edits, change, setMinutes, saving, error, stale } = usePlanEdits(plan, found.refetch)
  const again = useAgain()
  const add = useAdd()
  const breath = useBreath()
  const suggest = useSuggest()
  const [added, setAdded] = useState(false)
  const next = useCallback(() => {
    setAdded(false)
  }, [])
  const [templates, setTemplates] = useState(false)
  const [ordered, setOrdered] = useState<'same' | 'changed' | Error | null>(null)
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  if (found.isPending) return <Working />
  if (found.isError || plan === undefined) {
    return <Failure error={found.error} again={() => void found.refetch()} />
  }
  const poses = shownPoses(plan, edits)
  const families = poses.map(({ family }) => family)
  const isToday = plan.date === plan.today
  const to = (id: 'mat' | 'choose') => addressOf(screenById(id), practice_id, client_id)
  const setUpAt = (part: Part, side: Side) =>
    `${addressOf(screenById('setUp'), practice_id, client_id)}?${side}=${part.variation}`
  const since = plan.last_visit === null ? '' : shortDate(plan.last_visit)
  // What is added is put beside what is stored: what was changed is stored first.
  const busy = saving || again.isPending || add.isPending
  const addOne = (family: string, after?: string, onSuccess?: () => void) => {
    const body = { family, as_last_time: false, ...(after === undefined ? {} : { after }) }
    add.mutate({ params, body }, { onSuccess })
  }
  const addTyped = (family: string) => {
    addOne(family, undefined, () => {
      setAdded(true)
    })
  }
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over === null || over.id === active.id) return
    setOrdered(null)
    change((now) => {
      const at = (id: string | number) => now.findIndex(({ family }) => family === id)
      return moved(now, at(active.id), at(over.id))
    })
  }
  const onSuggest = () => {
    suggest().then(
      (order) => {
        setOrdered(order.changes ? 'changed' : 'same')
        if (order.changes) change((now) => inOrder(now, order.families))
      },
      (failure: unknown) => {
        setOrdered(failure instanceof Error ? failure : new Error())
      },
    )
  }
  const anew = plan.last_ladders > 0 && (
    <Button
      variant={poses.length === 0 ? 'contained' : 'outlined'}
      disabled={busy}
      onClick={() => {
        again.mutate({ params, body: {} })
      }}
    >
      {t('plan.same', { date: since })}
    </Button>
  )
  const fromTemplate = (
    <Button
      variant="outlined"
      onClick={() => {
        setTemplates(true)
      }}
    >
      {t('plan.templates.open')}
    </Button>
  )
  const nameAt = (id: string | number) => poses.find(({ family }) => family === id)?.name ?? ''
  const placeAt = (id: string | number | undefined) => families.indexOf(String(id)) + 1
  return (
    <>
      <Row wrap gap={1.5} align="baseline">
        <Typography variant="h1" component="p">
          {isToday ? t('plan.today') : longDate(plan.date)}
          {plan.time !== null && `, ${clockTime(plan.time)}`}
        </Typography>
        {poses.length > 0 && (
          <Typography role="status">
            <strong>{t('plan.minutesOf', { minutes: wholeMinutes(plan.seconds), of: plan.minutes })}</strong>
          </Typography>
        )}
        {mayWrite && (
          <Choice>
            {t('plan.length')}
            <select
              value={plan.minutes}
              onChange={(event) => {
                setMinutes(Number(event.target.value))
              }}
            >
              {[...new Set([...MINUTES, plan.minutes])]
                .sort((a, b) => a - b)
                .map((each) => (
                  <option key={each} value={each}>
                    {t('today.minutes', { count: each })}
                  </option>
                ))}
            </select>
          </Choice>
        )}
        {mayWrite && (
          <Choice>
            {t('plan.breath')}
            <select
              value={plan.breath_s}
              disabled={breath.isPending}
              onChange={(event) => {
                breath.mutate({ params, body: { seconds: Number(event.target.value) } })
              }}
            >
              {BREATHS.map((each) => (
                <option key={each} value={each}>
                  {t('plan.seconds', { count: each })}
                </option>
              ))}
            </select>
          </Choice>
        )}
        <Rest />
        {mayWrite && poses.length > 1 && (
          <Button variant="outlined" disabled={saving} onClick={onSuggest}>
            {t('plan.suggest')}
          </Button>
        )}
        {isToday && poses.length > 0 && (
          <Button component={Link} to={to('mat')} variant="contained">
            {t('plan.toMat')}
          </Button>
        )}
      </Row>
      {ordered !== null && (
        <Typography role="status" variant="note">
          {ordered instanceof Error ? ordered.message : t(`plan.ordered.${ordered}`)}
        </Typography>
      )}
      <Refused error={error ?? again.error ?? add.error ?? breath.error} />
      {stale !== null && (
        <Alert
          severity="warning"
          action={
            <>
              <Button color="inherit" onClick={stale.keep}>
                {t('plan.keepMine')}
              </Button>
              <Button color="inherit" onClick={stale.drop}>
                {t('plan.takeTheirs')}
              </Button>
            </>
          }
        >
          {t('plan.stale')}
        </Alert>
      )}
      {poses.length === 0 ? (
        <Empty
          title={t('plan.none')}
          more={t(plan.last_ladders > 0 ? 'plan.noneMore' : 'plan.noneNew')}
          action={
            <Row wrap gap={1.5} justify="center">
              {mayWrite && anew}
              {mayWrite && (
                <AddPose planned={families} busy={busy} added={added} onNext={next} onAdd={addTyped} />
              )}
              {mayWrite && fromTemplate}
              <Button component={Link} to={to('choose')} variant="outlined">
                {t('plan.toChoose')}
              </Button>
            </Row>
          }
        />
      ) : (
        <>
          <PlanStrip plan={plan} busy={saving} />
          <Columns>
            <div>
              <DndContext
                sensors={sensors}
                collisionDetection={closestCenter}
                onDragEnd={onDragEnd}
                accessibility={{
                  screenReaderInstructions: { draggable: t('plan.drag.how') },
                  announcements: {
                    onDragStart: ({ active }) =>
                      t('plan.drag.lifted', { name: nameAt(active.id), place: placeAt(active.id) }),
                    onDragOver: ({ active, over }) =>
                      t('plan.drag.over', { name: nameAt(active.id), place: placeAt(over?.id) }),
                    onDragEnd: ({ active, over }) =>
                      t('plan.drag.dropped', { name: nameAt(active.id), place: placeAt(over?.id) }),
                    onDragCancel: ({ active }) => t('plan.drag.cancelled', { name: nameAt(active.id) }),
                  },
                }}
              >
                <SortableContext items={families} strategy={verticalListSortingStrategy}>
                  <ol aria-label={t('plan.poses')}>
                    {poses.map((pose, place) => (
                      <PoseRow
                        key={pose.family}
                        pose={pose}
                        place={place}
                        mayWrite={mayWrite}
                        busy={busy}
                        setUpAt={setUpAt}
                        onFix={() => {
                          change((now) =>
                            now.map((each) =>
                              each.family === pose.family ? { ...each, fixed: !each.fixed } : each,
                            ),
                          )
                        }}
                        onMuch={(side: Side, much: Much) => {
                          change((now) =>
                            now.map((each) =>
                              each.family === pose.family ? { ...each, [side]: much } : each,
                            ),
                          )
                        }}
                        onLeaveOut={() => {
                          change((now) => now.filter((each) => each.family !== pose.family))
                        }}
                        onAdd={() => {
                          addOne(pose.family)
                        }}
                        onAsLastTime={() => {
                          add.mutate({ params, body: { family: pose.family, as_last_time: true } })
                        }}
                      />
                    ))}
                  </ol>
                </SortableContext>
              </DndContext>
              {mayWrite && (
                <Row wrap gap={1.5} style={{ marginTop: 14 }}>
                  <AddPose planned={families} busy={busy} added={added} onNext={next} onAdd={addTyped} />
                  {plan.left_out.length > 0 && anew}
                  {fromTemplate}
                </Row>
              )}
            </div>
            <Aside plan={plan} mayWrite={mayWrite} busy={busy} since={since} onAdd={addOne} />
          </Columns>
        </>
      )}
      {templates && (
        <Templates
          planned={poses.length > 0}
          busy={busy}
          onUse={(template_id) => {
            setTemplates(false)
            again.mutate({ params, body: { template_id } })
          }}
          onClose={() => {
            setTemplates(false)
          }}
        />
      )}
    </>
  )
}
