import Accordion from '@mui/material/Accordion'
import AccordionDetails from '@mui/material/AccordionDetails'
import AccordionSummary from '@mui/material/AccordionSummary'
import Table from '@mui/material/Table'
import TableBody from '@mui/material/TableBody'
import TableCell from '@mui/material/TableCell'
import TableRow from '@mui/material/TableRow'
import Typography from '@mui/material/Typography'
import { useTranslation } from 'react-i18next'
import licences from './licences.json'

/** Every package that ships with the application, with its licence. */
export function Licences() {
  const { t } = useTranslation()
  return (
    <section>
      <Typography id="licences" variant="h2" sx={{ mb: 0.5 }}>
        {t('settings.licences')}
      </Typography>
      <Accordion
        disableGutters
        slotProps={{ heading: { component: 'h3' }, transition: { unmountOnExit: true } }}
      >
        <AccordionSummary expandIcon="▾">{t('settings.licencesMore')}</AccordionSummary>
        <AccordionDetails sx={{ p: 0 }}>
          <Table size="small" aria-labelledby="licences">
            <TableBody>
              {licences.map(({ name, version, licence }) => (
                <TableRow key={name} translate="no">
                  <TableCell component="th" scope="row">
                    {name}
                  </TableCell>
                  <TableCell>{version}</TableCell>
                  <TableCell>{licence}</TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </AccordionDetails>
      </Accordion>
    </section>
  )
}
