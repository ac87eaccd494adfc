import { expect, it } from 'vitest'
import { daysOf } from './model'

const change = (date: string, name: string, tightens = false) => ({
  date,
  name,
  tightens,
  lines: [],
  client_id: name,
})

it('puts what happens on one day together and keeps the order of days', () => {
  const days = daysOf([change('2026-12-01', 'a'), change('2026-12-01', 'b', true), change('2026-12-09', 'a')])
  expect(days.map(({ date, tightens, changes }) => [date, tightens, changes.length])).toEqual([
    ['2026-12-01', true, 2],
    ['2026-12-09', false, 1],
  ])
})
