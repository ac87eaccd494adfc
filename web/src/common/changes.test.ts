import { QueryClient } from '@tanstack/react-query'
import { describe, expect, it } from 'vitest'
import { forget, touchedBy } from './changes'

const CLIENT = '/api/practices/{practice_id}/clients/{client_id}'
const LADDER = `${CLIENT}/ladders/{family_id}`
const about = (path: string, client_id: string) => ['get', path, { params: { path: { client_id } } }]

function stale(
  change: Parameters<typeof forget>[1],
  path: string,
  client = 'mine',
  stored: string[] = [],
): boolean {
  const queries = new QueryClient()
  const key = about(path, client)
  queries.setQueryData(key, 'an answer')
  forget(queries, change, 'mine', stored)
  return queries.getQueryState(key)?.isInvalidated ?? false
}

describe('what a change touches', () => {
  it('is judged anew after a record', () => {
    for (const path of [
      '',
      '/coming',
      '/calendar',
      '/outlook',
      '/entries',
      '/mat',
      '/responses',
      '/setups/{variation_id}/{side}',
    ]) {
      expect(stale('body', CLIENT + path), path).toBe(true)
    }
    for (const path of [LADDER, `${CLIENT}/ladders`, `${CLIENT}/why-not/{variation_id}/{side}`])
      expect(stale('body', path), path).toBe(true)
  })

  it('is where a side stands, and no drawing, after a hold', () => {
    for (const path of [LADDER, `${CLIENT}/ladders`]) expect(stale('holds', path), path).toBe(true)
    expect(stale('holds', `${LADDER}/drawings`)).toBe(false)
    expect(stale('holds', `${CLIENT}/setups/{variation_id}/{side}`)).toBe(false)
    expect(stale('holds', `${CLIENT}/entries`)).toBe(false)
  })

  it('is only the head, the plan and the mat after planning', () => {
    const touched = ['', '/coming', '/calendar', '/outlook', '/plan', '/mat'].map((path) => CLIENT + path)
    expect(touchedBy('plan')).toEqual(touched)
  })

  it('is every list of the practice, whoever it was about', () => {
    const queries = new QueryClient()
    const lists = [
      ['get', '/api/practices/{practice_id}/today', {}],
      ['post', '/api/practices/{practice_id}/clients/search', {}],
    ]
    for (const key of lists) queries.setQueryData(key, 'an answer')
    forget(queries, 'plan', 'mine')
    for (const key of lists) expect(queries.getQueryState(key)?.isInvalidated, key[1] as string).toBe(true)
  })

  it('is nothing of another client', () => {
    expect(stale('body', LADDER, 'theirs')).toBe(false)
  })

  it('leaves what was stored with its answer', () => {
    expect(stale('body', `${CLIENT}/entries`, 'mine', [`${CLIENT}/entries`])).toBe(false)
    expect(stale('body', LADDER, 'mine', [`${CLIENT}/entries`])).toBe(true)
  })
})
