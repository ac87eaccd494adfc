import { screen } from '@testing-library/react'
import { useState } from 'react'
import { afterEach, describe, expect, it } from 'vitest'
import { expectAccessible, show } from '../../testing/app'
import { practiceManner, writeIn } from '../practice'
import { DateField } from './DateField'
import { UNFINISHED } from './unfinished'
import { NumberField } from './NumberField'
import { TimeField } from './TimeField'

const METRIC = practiceManner()

afterEach(() => {
  writeIn(METRIC)
})

function Dated({ first = '', problem }: { first?: string; problem?: string }) {
  const [value, setValue] = useState(first)
  return (
    <>
      <DateField label="Operated on" value={value} onChange={setValue} problem={problem} />
      <output>{value}</output>
    </>
  )
}

const said = () => screen.getByRole('status').textContent

describe('a field for a date', () => {
  it('takes its parts as they are typed and says the day', async () => {
    const { user } = show(<Dated />)
    await user.click(screen.getByRole('spinbutton', { name: 'Day' }))
    await user.keyboard('26092026')
    expect(said()).toBe('2026-09-26')
    await expectAccessible()
  })

  it('has the parts in the order of the practice', async () => {
    writeIn({ ...METRIC, date_format: 'month_day_year' })
    const { user } = show(<Dated />)
    await user.click(screen.getByRole('spinbutton', { name: 'Month' }))
    await user.keyboard('09262026')
    expect(said()).toBe('2026-09-26')
  })

  it('tells half a date once the field is left, and keeps what was typed', async () => {
    const { user } = show(<Dated />)
    await user.click(screen.getByRole('spinbutton', { name: 'Day' }))
    await user.keyboard('26')
    expect(said()).toBe('')
    await user.click(document.body)
    expect(said()).toBe(UNFINISHED)
    expect(screen.getByRole('spinbutton', { name: 'Day' }).textContent).toBe('26')
  })

  it('shows what was stored and what is wrong with it', () => {
    show(<Dated first="2026-02-03" problem="After today." />)
    expect(screen.getByRole('spinbutton', { name: 'Day' }).textContent).toBe('03')
    expect(screen.getByRole('spinbutton', { name: 'Month' }).textContent).toBe('02')
    expect(screen.getByText('After today.')).toBeTruthy()
  })
})

function Timed() {
  const [value, setValue] = useState('09:30')
  return (
    <>
      <TimeField label="Time" value={value} onChange={setValue} />
      <button
        onClick={() => {
          setValue('')
        }}
      >
        Discard
      </button>
      <output>{value}</output>
    </>
  )
}

describe('a field for a time', () => {
  it('shows what is kept, takes what is typed, and is empty once that is discarded', async () => {
    const { user } = show(<Timed />)
    const hours = () => screen.getByRole('spinbutton', { name: 'Hours' })
    expect(hours().textContent).toBe('09')
    await user.click(hours())
    await user.keyboard('1745')
    expect(said()).toBe('17:45')
    await user.click(screen.getByRole('button', { name: 'Discard' }))
    expect(said()).toBe('')
    expect(hours().textContent).toBe('hh')
    await expectAccessible()
  })

  it('keeps half a time in the field and says none', async () => {
    const { user } = show(<Timed />)
    await user.click(screen.getByRole('spinbutton', { name: 'Minutes' }))
    await user.keyboard('{Backspace}')
    expect(said()).toBe('')
    expect(screen.getByRole('spinbutton', { name: 'Hours' }).textContent).toBe('09')
  })
})

function Numbered({ unit, ...more }: { unit: 'deg' | 'cm' | 'plain'; problem?: string; metric?: boolean }) {
  const [text, setText] = useState('')
  return <NumberField label="How much" unit={unit} text={text} onType={setText} {...more} />
}

const field = () => screen.getByRole('textbox', { name: 'How much' })

describe('a field for a number', () => {
  it('says what is no number only once it is left, and keeps it', async () => {
    const { user } = show(<Numbered unit="deg" />)
    await user.type(field(), 'about 40')
    expect(screen.queryByText(/Not a number/)).toBeNull()
    await user.tab()
    expect(screen.getByText(/Not a number of degrees/)).toBeTruthy()
    expect(field()).toHaveProperty('value', 'about 40')
    expect(field().getAttribute('aria-invalid')).toBe('true')
    await user.click(field())
    expect(screen.queryByText(/Not a number/)).toBeNull()
    await expectAccessible()
  })

  it('says what another unit comes to', async () => {
    const { user } = show(<Numbered unit="cm" />)
    await user.type(field(), '5 ft 8')
    expect(screen.getByText(/^= 172\.7\d* cm$/)).toBeTruthy()
  })

  it('is in the unit the practice writes, but where it is metric by name', () => {
    writeIn({ ...METRIC, units: 'imperial' })
    show(
      <>
        <Numbered unit="cm" />
        <NumberField label="Metric" unit="cm" metric text="10" onType={() => undefined} />
      </>,
    )
    const signOf = (name: string) => screen.getByRole('textbox', { name }).parentElement?.textContent
    expect(signOf('How much')).toMatch(/^in/)
    expect(signOf('Metric')).toMatch(/^cm/)
  })

  it('puts what the server says before what it says itself', async () => {
    const { user } = show(<Numbered unit="plain" problem="Less than 20." />)
    await user.type(field(), 'x')
    await user.tab()
    expect(screen.getByText('Less than 20.')).toBeTruthy()
    expect(screen.queryByText(/Not a number/)).toBeNull()
  })
})
