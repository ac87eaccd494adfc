import { screen, within } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, it } from 'vitest'
import { expectAccessible, show } from '../../testing/app'
import type { Question } from './forms'
import { QuestionField } from './QuestionField'

const option = (value: string) => ({ value, label: value })
const question = (more: Partial<Question>): Question => ({
  name: 'q',
  label: 'Symptoms',
  type: 'ticks',
  unit: 'plain',
  options: [],
  group: undefined,
  ifAny: false,
  columns: [],
  when: [],
  ...more,
})

function Asked({ question: asked, problem }: { question: Question; problem?: string }) {
  const [value, setValue] = useState('')
  return (
    <>
      <QuestionField question={asked} value={value} problem={problem} onChange={setValue} />
      <output>{value}</output>
    </>
  )
}

const said = () => screen.getByRole('status').textContent
const SYMPTOMS = question({ options: ['clicking', 'locking', 'none'].map(option) })
const FALLS = question({
  label: 'Falls',
  type: 'list',
  columns: [
    question({ name: 'how', label: 'How', type: 'choice', options: ['tripped', 'unknown'].map(option) }),
    question({ name: 'age', label: 'At what age', type: 'number' }),
  ],
})

describe('a question of a record', () => {
  it('takes ticks together, and “none” alone', async () => {
    const { user } = show(<Asked question={SYMPTOMS} />)
    await user.click(screen.getByRole('checkbox', { name: 'clicking' }))
    await user.click(screen.getByRole('checkbox', { name: 'locking' }))
    expect(said()).toBe('clicking,locking')
    await user.click(screen.getByRole('checkbox', { name: 'none' }))
    expect(said()).toBe('none')
    await user.click(screen.getByRole('checkbox', { name: 'locking' }))
    expect(said()).toBe('locking')
    await expectAccessible()
  })

  it('lists things one by one, what is not known as not known', async () => {
    const { user } = show(<Asked question={FALLS} />)
    const list = within(screen.getByRole('group', { name: /Falls/ }))
    await user.click(list.getByRole('button', { name: 'Add one' }))
    expect(JSON.parse(said())).toEqual([{ how: 'unknown', age: '' }])
    await user.type(list.getByRole('textbox', { name: 'At what age' }), '61')
    expect(JSON.parse(said())).toEqual([{ how: 'unknown', age: '61' }])
    await user.click(list.getByRole('button', { name: 'Add one' }))
    await user.click(list.getAllByRole('button', { name: 'Remove this one' })[0] as HTMLElement)
    expect(JSON.parse(said())).toEqual([{ how: 'unknown', age: '' }])
  })

  it('tells that there was none from nothing said', async () => {
    const { user } = show(<Asked question={FALLS} />)
    expect(said()).toBe('')
    await user.click(screen.getByRole('button', { name: 'There was none' }))
    expect(said()).toBe('[]')
    expect(screen.queryByRole('button', { name: 'There was none' })).toBeNull()
  })

  it('says beside it what is wrong', () => {
    show(<Asked question={SYMPTOMS} problem="Say at least one." />)
    expect(screen.getByText('Say at least one.')).toBeTruthy()
  })
})
