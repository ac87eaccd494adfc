import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { OWN_WORDS } from '../../common/met'
import { button, CLIENT, expectAccessible, open, PRACTICE } from '../../testing/app'

describe('words of ours', () => {
  it('stand on a page, each with what it means', async () => {
    await open(`${PRACTICE}/words`)
    expect(await screen.findAllByRole('term')).toHaveLength(OWN_WORDS.length)
    expect(screen.getAllByRole('definition').map((each) => each.textContent)).not.toContain('')
    await expectAccessible()
  })

  it('are explained where they are met first, until they are known', async () => {
    const { user } = await open(`${CLIENT}/choose`)
    const note = within(await screen.findByRole('complementary', { name: /first time/ }))
    expect(note.getByText('rung:')).toBeTruthy()
    expect(note.getByRole('link', { name: 'All words' }).getAttribute('href')).toBe(`${PRACTICE}/words`)
    await user.click(await button('Understood'))
    expect(screen.queryByRole('complementary', { name: /first time/ })).toBeNull()
  })
})
