import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import MenuItem from '@mui/material/MenuItem'
import Select from '@mui/material/Select'
import TextField from '@mui/material/TextField'
import { memo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Row } from '../../common/ui/layout'
import { type Filters, MINUTES } from './model'

/** What a ladder is chosen for, with how many ladders there are of it. */
interface Purpose {
  code: string
  /** `null` for what was worked on so far. */
  words: string | null
  count: number
}

/** Purposes in sight without asking for more. */
const AT_ONCE = 5

interface Props {
  purposes: readonly Purpose[]
  picked: readonly string[]
  onPick: (picked: readonly string[]) => void
  filters: Filters
  onFilter: (filters: Filters) => void
  text: string
  onText: (text: string) => void
}

/** What for, of which kind, and by which name. */
export const FilterBar = memo(function FilterBar({
  purposes,
  picked,
  onPick,
  filters,
  onFilter,
  text,
  onText,
}: Props) {
  const { t } = useTranslation()
  const [all, setAll] = useState(false)
  const shown = purposes.filter(({ code }, place) => all || place < AT_ONCE || picked.includes(code))
  const more = purposes.length - shown.length
  const box = (name: 'open' | 'chair' | 'noFloor' | 'shelf') => (
    <FormControlLabel
      label={t(`choose.filter.${name}`)}
      control={
        <Checkbox
          size="small"
          checked={filters[name]}
          onChange={(_, on) => {
            onFilter({ ...filters, [name]: on })
          }}
          sx={{ p: 0.5 }}
        />
      }
      sx={{ m: 0, '& .MuiFormControlLabel-label': { fontSize: '0.92rem' } }}
    />
  )
  return (
    <>
      <Row wrap gap={1} align="flex-start" style={{ marginBottom: 4 }}>
        <Row wrap gap={0.75} role="group" aria-label={t('choose.whatFor')} style={{ flex: 1 }}>
          {shown.map(({ code, words, count }) => {
            const on = picked.includes(code)
            return (
              <Button
                key={code}
                size="small"
                variant={on ? 'contained' : 'outlined'}
                aria-pressed={on}
                onClick={() => {
                  onPick(on ? picked.filter((each) => each !== code) : [...picked, code])
                }}
                sx={{ minHeight: 32, px: 1.25, fontSize: '0.9rem', gap: 0.75 }}
              >
                {words ?? t('choose.workedOn')}
                <span style={{ fontWeight: 400 }}>{count}</span>
              </Button>
            )
          })}
          {(more > 0 || all) && (
            <Button
              size="small"
              aria-expanded={all}
              onClick={() => {
                setAll(!all)
              }}
              sx={{ minHeight: 32 }}
            >
              {all ? t('choose.fewer') : t('choose.more', { count: more })}
            </Button>
          )}
        </Row>
        <TextField
          type="search"
          size="small"
          label={t('choose.find')}
          placeholder={t('choose.findFor')}
          value={text}
          onChange={(event) => {
            onText(event.target.value)
          }}
          sx={{ width: 220 }}
        />
      </Row>
      <Row wrap gap={2} role="group" aria-label={t('choose.narrow')}>
        {box('open')}
        {box('chair')}
        {box('noFloor')}
        {box('shelf')}
        <Select
          variant="standard"
          disableUnderline
          value={filters.minutes}
          inputProps={{ 'aria-label': t('choose.filter.minutes') }}
          onChange={(event) => {
            onFilter({ ...filters, minutes: event.target.value })
          }}
          sx={{ fontSize: '0.92rem' }}
        >
          <MenuItem value={0}>{t('choose.anyLength')}</MenuItem>
          {MINUTES.map((minutes) => (
            <MenuItem key={minutes} value={minutes}>
              {t('choose.atMost', { count: minutes })}
            </MenuItem>
          ))}
        </Select>
      </Row>
    </>
  )
})
