import Typography from '@mui/material/Typography'
import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import { useTranslation } from 'react-i18next'
import type { Schemas, Side } from '../../api/client'
import { Hidden } from '../../common/ui/Hidden'
import { VerdictMark } from '../../common/ui/VerdictMark'
import { Figure } from '../../figure/Figure'
import { colours, laneColour } from '../../theme/theme'

interface Props {
  family: Schemas['FamilyCards']
  side: Side
  chosen: string | undefined
  onChoose: (rung: string) => void
}

const MOST_IN_A_ROW = 8

/** A family's rungs from most held up to least, each drawn for the same body. */
export function RungStrip({ family, side, chosen, onChoose }: Props) {
  const { t } = useTranslation()
  const columns = Math.min(Math.max(family.rungs.length, 5), MOST_IN_A_ROW)
  return (
    <Box
      role="group"
      aria-label={t('library.ladderOf', { family: family.name })}
      sx={{
        display: 'grid',
        gridTemplateColumns: `repeat(${columns.toString()}, minmax(104px, 1fr))`,
        overflowX: 'auto',
        // What is chosen has its line outside.
        p: '3px',
        mx: '-3px',
        gap: 1,
        mt: 1.5,
        pb: 1.5,
        borderBottom: `1px solid ${colours.line}`,
      }}
    >
      {family.rungs.map((rung) => (
        <ButtonBase
          key={rung.id}
          aria-pressed={rung.id === chosen}
          onClick={() => {
            onChoose(rung.id)
          }}
          sx={{
            display: 'flex',
            flexDirection: 'column',
            alignItems: 'stretch',
            justifyContent: 'flex-start',
            textAlign: 'left',
            borderRadius: 1,
            p: 0.75,
            verticalAlign: 'top',
            outline: rung.id === chosen ? `2px solid ${colours.ink}` : 'none',
            bgcolor: rung.id === chosen ? colours.note : 'transparent',
            '&:hover': { bgcolor: colours.panel },
          }}
        >
          {rung.figure === null ? (
            <Box
              sx={{
                height: 104,
                display: 'grid',
                placeItems: 'center',
                color: 'text.secondary',
                fontSize: '0.85rem',
              }}
            >
              {rung.reason}
            </Box>
          ) : (
            <Figure svg={rung.figure} height={104} faded={rung.verdict === 'leave_out'} decorative />
          )}
          <Box
            sx={{
              borderTop: `2px solid ${family.shared ? laneColour('both') : laneColour(side)}`,
              pt: 0.5,
              display: 'flex',
              gap: 0.75,
              alignItems: 'baseline',
              lineHeight: 1.2,
              fontSize: '0.92rem',
            }}
          >
            {rung.verdict !== null && <VerdictMark verdict={rung.verdict} size={13} />}
            <span style={{ flex: 1 }}>
              {rung.short}
              <Hidden>, {rung.name}</Hidden>
              {rung.verdict !== null && <Hidden>, {t(`verdict.${rung.verdict}`)}</Hidden>}
            </span>
            {rung.own && (
              <Typography variant="small" component="span">
                <Hidden>, </Hidden>
                {t('library.own')}
              </Typography>
            )}
          </Box>
        </ButtonBase>
      ))}
    </Box>
  )
}
