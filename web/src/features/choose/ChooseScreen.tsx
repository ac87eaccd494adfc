import Box from '@mui/material/Box'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import Typography from '@mui/material/Typography'
import { type ReactNode, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import type { Schemas } from '../../api/client'
import { usePicked } from '../../common/drafts'
import { familyOf, useFamilies, useLadders, usePurposes } from '../../common/ladders'
import { useClientPath } from '../../common/route'
import { addressOf, screenById } from '../../common/screens'
import { meant } from '../../common/search'
import { FirstMet } from '../../common/ui/FirstMet'
import { Empty, Failure, isStatureMissing, Working } from '../../common/ui/States'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { WhenSeen } from '../../common/ui/WhenSeen'
import { colours } from '../../theme/theme'
import { Row } from '../../common/ui/layout'
import { Ladder } from './Ladder'
import type { Chosen } from './model'
import { ReasonPanel } from './ReasonPanel'

/** Nothing chosen yet, the same at every look. */
const NONE: Chosen = {}

const VERDICTS: readonly Schemas['Verdict'][] = [
  'clear',
  'with_setup',
  'with_eye',
  'check_first',
  'leave_out',
]

const FIRST_WORDS = ['ladder', 'rung', 'with_eye', 'check_first'] as const

/** What was worked on stands first; the rest is found by what it is for. */
const WORKED = 'worked_on'
const EVERYTHING = 'everything'

/** Families as two-lane ladders by purpose; the reasons of the chosen rungs beneath. */
export function ChooseScreen() {
  const { t } = useTranslation()
  const { practice_id, client_id } = useClientPath()
  const navigate = useNavigate()
  const families = useFamilies()
  const everyPurpose = usePurposes()
  const [picked, setPicked] = usePicked<string | null>(`purpose:${client_id}`, null)
  const [chosen, setChosen] = usePicked<Chosen>(`chosen:${client_id}`, NONE)
  const [text, setText] = useState('')
  const [seen, setSeen] = useState<ReadonlySet<string>>(new Set())
  const lines = families.data ?? []
  const known = new Set(lines.flatMap((family) => family.purposes))
  const purposes = (everyPurpose.data ?? []).filter((each) => known.has(each.code))
  const worked = lines.some((family) => family.worked)
  const choices = [...(worked ? [WORKED] : []), ...purposes.map((each) => each.code), EVERYTHING]
  const purpose = picked !== null && choices.includes(picked) ? picked : (choices[0] ?? EVERYTHING)
  // What is looked for by name is found whatever it is for.
  const shown =
    text.trim() === ''
      ? lines.filter((family) =>
          purpose === WORKED ? family.worked : purpose === EVERYTHING || family.purposes.includes(purpose),
        )
      : meant(lines, text)
  const held = Object.values(chosen).map(familyOf)
  // Each ladder is worked out when it comes near the screen: with everything open there are dozens.
  const near = shown.map((family) => family.family).filter((family) => seen.has(family))
  const ladders = useLadders([...new Set([...near, ...held])])
  if (families.isPending || everyPurpose.isPending) return <Working />
  if (families.isError) return <Failure error={families.error} again={() => void families.refetch()} />
  if (everyPurpose.isError)
    return <Failure error={everyPurpose.error} again={() => void everyPurpose.refetch()} />
  const unmeasured = ladders.failed.find(({ error }) => isStatureMissing(error))
  if (unmeasured !== undefined) return <Failure error={unmeasured.error} />
  const openSetup = () => {
    const query = new URLSearchParams(Object.entries(chosen)).toString()
    void navigate(`${addressOf(screenById('setUp'), practice_id, client_id)}?${query}`)
  }
  const label = (each: string) =>
    each === WORKED
      ? t('choose.workedOn')
      : each === EVERYTHING
        ? t('choose.all')
        : (purposes.find((purpose) => purpose.code === each)?.words ?? '')
  return (
    <>
      <FirstMet words={FIRST_WORDS} />
      <Box
        sx={{
          display: 'flex',
          flexWrap: 'wrap',
          gap: 2,
          alignItems: 'center',
          color: 'text.secondary',
          fontSize: '0.88rem',
          pb: 1.25,
          borderBottom: `1px solid ${colours.line}`,
        }}
      >
        <TextField
          select
          label={t('choose.whatFor')}
          value={purpose}
          onChange={(event) => {
            setPicked(event.target.value)
          }}
          sx={{ width: 290 }}
        >
          {choices.map((each) => (
            <MenuItem key={each} value={each}>
              {label(each)}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          type="search"
          label={t('choose.find')}
          placeholder={t('choose.findFor')}
          value={text}
          onChange={(event) => {
            setText(event.target.value)
          }}
          sx={{ width: 240 }}
        />
        <Box role="status">{t('choose.ladders', { count: shown.length })}</Box>
        <Box
          aria-label={t('choose.legend')}
          sx={{ ml: 'auto', display: 'flex', flexWrap: 'wrap', columnGap: 2 }}
        >
          {VERDICTS.map((verdict) => (
            <Row key={verdict} gap={0.75}>
              <VerdictMark verdict={verdict} />
              {t(`verdict.${verdict}`)}
            </Row>
          ))}
        </Box>
      </Box>
      {shown.length === 0 && <Empty title={t('choose.noneFound', { text })} />}
      {shown.map((family) => {
        const ladder = ladders.data.find((each) => each.family === family.family)
        const failed = ladders.failed.find((each) => each.family === family.family)
        if (failed !== undefined) {
          return (
            <LadderToCome key={family.family} family={family}>
              <Failure error={failed.error} again={failed.again} />
            </LadderToCome>
          )
        }
        return ladder === undefined ? (
          <WhenSeen
            key={family.family}
            onSeen={() => {
              setSeen((before) => new Set([...before, family.family]))
            }}
          >
            <LadderToCome family={family} />
          </WhenSeen>
        ) : (
          <Ladder
            key={family.family}
            ladder={ladder}
            chosen={chosen}
            onChoose={(side, rung) => {
              // A shape both legs share is chosen for both.
              setChosen(ladder.shared ? { left: rung, right: rung } : { ...chosen, [side]: rung })
            }}
          />
        )
      })}
      <ReasonPanel ladders={ladders.data} chosen={chosen} onOpen={openSetup} />
    </>
  )
}

/** A family whose lanes are still being worked out, or could not be had. */
function LadderToCome({ family, children }: { family: Schemas['FamilyLine']; children?: ReactNode }) {
  const { t } = useTranslation()
  return (
    <Box
      component="section"
      aria-busy={children === undefined}
      sx={{ pt: 1.5, pb: 1, minHeight: 300, borderBottom: `1px solid ${colours.line}` }}
    >
      <Typography variant="h2">{family.name}</Typography>
      {children ?? <Typography color="text.secondary">{t('common.loading')}</Typography>}
    </Box>
  )
}
