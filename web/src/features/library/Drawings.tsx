import Box from '@mui/material/Box'
import ButtonBase from '@mui/material/ButtonBase'
import Typography from '@mui/material/Typography'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Schemas } from '../../api/client'
import { Hidden } from '../../common/ui/Hidden'
import { Figure } from '../../figure/Figure'
import { colours } from '../../theme/theme'

type Drawing = Schemas['Drawing']

/** One posture from every side: one view large, the others beneath to change places with it. */
export function Drawings({ data }: { data: Schemas['VariationOut'] }) {
  const { t } = useTranslation()
  const usual = data.drawings.find((each) => each.view === data.seen_from) ?? data.drawings[0]
  const [picked, setPicked] = useState<Drawing['view'] | null>(null)
  const large = data.drawings.find((each) => each.view === picked) ?? usual
  if (large === undefined) return null
  return (
    <>
      <Figure svg={large.figure} height={310} />
      <Typography color="text.secondary" sx={{ fontSize: '0.88rem', textAlign: 'center' }}>
        {t(`library.seen.${large.view}`)}
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1, mt: 0.5 }}>
        {data.drawings
          .filter((each) => each.view !== large.view)
          .map((each) => (
            <ButtonBase
              key={each.view}
              onClick={() => {
                setPicked(each.view)
              }}
              sx={{ display: 'block', borderRadius: 1, p: 0.5, '&:hover': { bgcolor: colours.panel } }}
            >
              <Figure svg={each.figure} height={92} decorative />
              <Typography variant="small">
                {t(`library.view.${each.view}`)}
                <Hidden>, {t(`library.seen.${each.view}`)}</Hidden>
              </Typography>
            </ButtonBase>
          ))}
      </Box>
      <Typography sx={{ fontSize: '0.88rem', lineHeight: 1.4, mt: 0.5 }} color="text.secondary">
        {data.figure_words}
      </Typography>
    </>
  )
}
