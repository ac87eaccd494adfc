import createCache from '@emotion/cache'
import { CacheProvider } from '@emotion/react'
import { ThemeProvider } from '@mui/material/styles'
import { QueryClientProvider } from '@tanstack/react-query'
import { act, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import axe from 'axe-core'
import { type ReactNode, useState } from 'react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { expect, vi } from 'vitest'
import { newQueries } from '../app/queries'
import { routes } from '../app/screens'
import { theme } from '../theme/theme'
import recorded from './answers.json'

type Answer = unknown
/** Answers by method and path, with what is looked up only by its path; a function is given the body that came, and what
 * is promised comes when it does. */
type Answers = Record<string, Answer>

export const PRACTICE = '/practices/the-practice'
export const CLIENT = `${PRACTICE}/clients/the-client`

/** What was asked for and sent, in its order. */
export interface Sent {
  method: string
  path: string
  body: unknown
  signal: AbortSignal
}

/** A refusal as the server words it. */
export function refusal(status: number, message: string, fields: { field: string; message: string }[] = []) {
  return { refused: status, message, code: '', fields }
}

function isRefusal(answer: Answer): answer is { refused: number } {
  return typeof answer === 'object' && answer !== null && 'refused' in answer
}

/** A handful of ladders, made of the single ones that are recorded; refused where one of them is. */
async function handful(answers: Answers, pathname: string, search: string): Promise<Answer> {
  if (!pathname.endsWith('/ladders')) return undefined
  const families = new URLSearchParams(search).getAll('family')
  const found = await Promise.all(families.map((family) => answers[`GET ${pathname}/${family}`]))
  return found.find(isRefusal) ?? found.filter((each) => each !== undefined)
}

/** What the recording answers, with the answers of one test before it. */
function serve(own: Answers, sent: Sent[]) {
  const answers: Answers = { ...(recorded as Answers), ...own }
  return async (request: Request) => {
    const { pathname, search } = new URL(request.url)
    const text = await request.text()
    const body: unknown = text === '' ? undefined : JSON.parse(text)
    sent.push({ method: request.method, path: pathname, body, signal: request.signal })
    const found =
      answers[`${request.method} ${pathname}${search}`] ??
      answers[`${request.method} ${pathname}`] ??
      handful(answers, pathname, search)
    const answer = await (typeof found === 'function' ? (found as (body: unknown) => Answer)(body) : found)
    if (answer === undefined) {
      return Response.json(
        { message: `nothing recorded: ${request.method} ${pathname}${search}` },
        { status: 404 },
      )
    }
    return Response.json(answer, { status: isRefusal(answer) ? answer.refused : 200 })
  }
}

/** Styles go nowhere: the page of the tests would look each rule up for every question about an element. */
const nowhere = createCache({ key: 'css', container: document.createElement('div') })

function Around({ children }: { children: ReactNode }) {
  const [queries] = useState(newQueries)
  return (
    <CacheProvider value={nowhere}>
      <ThemeProvider theme={theme} storageManager={null}>
        <QueryClientProvider client={queries}>{children}</QueryClientProvider>
      </ThemeProvider>
    </CacheProvider>
  )
}

/** A part of the application by itself, as if on a page of the client's; `own` answers what it asks for. */
export function show(part: ReactNode, own: Answers = {}) {
  const sent: Sent[] = []
  vi.stubGlobal('fetch', vi.fn(serve(own, sent)))
  const path = '/practices/:practiceId/clients/:clientId'
  const router = createMemoryRouter([{ path, element: <main>{part}</main> }], { initialEntries: [CLIENT] })
  render(<RouterProvider router={router} />, { wrapper: Around })
  return { user: userEvent.setup(), sent }
}

/** The application at an address, served from the recording; `own` answers go before it. */
export async function open(address: string, own: Answers = {}) {
  const sent: Sent[] = []
  vi.stubGlobal('fetch', vi.fn(serve(own, sent)))
  const router = createMemoryRouter(routes, { initialEntries: [address] })
  const user = userEvent.setup()
  render(<RouterProvider router={router} />, { wrapper: Around })
  await act(async () => {
    await Promise.resolve()
  })
  return {
    user,
    router,
    sent,
    /** What was sent with a method to the paths that end so. */
    sentTo: (method: string, end: string) =>
      sent.filter((each) => each.method === method && each.path.endsWith(end)),
  }
}

/** The button with a name, once it is there. */
export const button = (name: string | RegExp) => screen.findByRole('button', { name })

/** Nothing axe knows of is wrong with what is shown; colours and sizes are seen only in a browser. */
export async function expectAccessible() {
  const { violations } = await axe.run(document.body, {
    rules: { 'color-contrast': { enabled: false }, 'target-size': { enabled: false } },
  })
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html ?? ''}`)).toEqual([])
}
