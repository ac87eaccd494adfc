import { screen, within } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { expectAccessible, show } from '../../testing/app'
import { Stepper } from './Stepper'

const choice = (number: number, label = '') => ({ number, label, value: { number } }) as Schemas['ChoiceOut']
const axis = {
  name: 'seat',
  label: 'Seat',
  kind: 'stack',
  side: null,
  choices: [choice(0, 'floor'), choice(10, 'block'), choice(20), choice(30), choice(40)],
} as unknown as Schemas['AxisOut']
/** At 10 nothing can be built; at 30 a limit closes. */
const grid = {
  shape: [5],
  letters: { c: 'clear', x: 'leave_out' },
  verdicts: 'c-cxc',
  columns: {},
  figure_letters: '',
  purpose: null,
} as unknown as Schemas['GridOut']

function Seat({ first }: { first: number }) {
  const [place, setPlace] = useState(first)
  return (
    <>
      <Stepper axis={axis} axes={[axis]} grid={grid} indices={[place]} at={0} onStep={setPlace} />
      <output data-testid="place">{place}</output>
    </>
  )
}

const place = () => screen.getByTestId('place').textContent
const seat = () => screen.getByRole('spinbutton', { name: 'Seat' })

describe('a stepper', () => {
  it('passes over what cannot be built, by button and by arrow', async () => {
    const { user } = show(<Seat first={0} />)
    await user.click(screen.getByRole('button', { name: 'Seat: higher or more' }))
    expect(place()).toBe('2')
    await user.click(seat())
    await user.keyboard('{ArrowDown}')
    expect(place()).toBe('0')
    expect(screen.getByRole('button', { name: 'Seat: lower or less' })).toHaveProperty('disabled', true)
    await expectAccessible()
  })

  it('says of a button where a limit closes, and of what was reached', async () => {
    const { user } = show(<Seat first={2} />)
    await user.click(screen.getByRole('button', { name: 'Seat: higher or more (leave out)' }))
    expect(place()).toBe('3')
    const told = screen.getAllByRole('status').find((each) => each.dataset['testid'] === undefined)
    expect(told?.textContent).toBe('30 cm, leave out')
  })

  it('takes a typed figure to the nearest that can be built', async () => {
    const { user } = show(<Seat first={4} />)
    await user.clear(seat())
    await user.type(seat(), '12{Enter}')
    // 10 is nearer and cannot be built.
    expect(place()).toBe('2')
    expect(seat()).toHaveProperty('value', '20 cm')
  })

  it('leaves the figure as it was on Escape, and when it is no number', async () => {
    const { user } = show(<Seat first={2} />)
    await user.clear(seat())
    await user.type(seat(), '40{Escape}')
    expect(place()).toBe('2')
    expect(seat()).toHaveProperty('value', '20 cm')
    await user.clear(seat())
    await user.type(seat(), 'high')
    await user.tab()
    expect(place()).toBe('2')
    expect(seat()).toHaveProperty('value', '20 cm')
  })

  it('reads its own words where nothing is under the seat', () => {
    show(<Seat first={0} />)
    const words = within(seat().parentElement as HTMLElement)
    expect(seat()).toHaveProperty('value', 'floor')
    expect(seat().getAttribute('aria-valuetext')).toBe('floor')
    expect(words.queryByText('0 cm')).toBeNull()
  })
})
