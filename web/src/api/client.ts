import createClient, { type Middleware } from 'openapi-fetch'
import createQueries from 'openapi-react-query'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Problem = Schemas['Problem']
export type Side = Schemas['Side']

/** What a lane stands for: one side, or a shape that both legs share. */
export type Lane = Side | 'both'

/** An answer that was not a success, with the server's own words for it; status 0 where there was no answer. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem,
  ) {
    super(problem.message)
  }

  /** Messages by field; what the server says about no known field stays in `message`. */
  get byField(): Record<string, string> {
    return Object.fromEntries(this.problem.fields.map((field) => [field.field, field.message]))
  }
}

function csrfToken(): string {
  return document.cookie.match(/(?:^|; )csrftoken=([^;]*)/)?.[1] ?? ''
}

/** What is said of answers that never came or made no sense, until the words of the interface are there. */
let ownWords = { unreachable: '', broken: '' }

/** Say problems the server cannot word itself in the language of the interface. */
export function sayProblemsWith(words: { unreachable: string; broken: string }): void {
  ownWords = words
}

const everyRequest: Middleware = {
  onRequest({ request }) {
    request.headers.set('Accept-Language', document.documentElement.lang)
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken())
    return request
  },
  async onResponse({ response }) {
    if (response.ok) return undefined
    const said: unknown = await response.json().catch(() => null)
    throw isProblem(said)
      ? new ApiProblem(response.status, said)
      : problemOf(response.status, ownWords.broken)
  },
  onError: () => problemOf(0, ownWords.unreachable),
}

function isProblem(value: unknown): value is Problem {
  return typeof value === 'object' && value !== null && 'message' in value
}

function problemOf(status: number, message: string): ApiProblem {
  return new ApiProblem(status, { code: '', message, fields: [] })
}

/** Dispatched on `window` when an answer says that nobody is signed in any more. */
export const SIGNED_OUT = 'asketa:signed-out'

/** What waits for somebody to sign in again. */
let waiting: (() => void)[] = []

/** Whoever signed in again lets everything that waited for it go on. */
export function resume(): void {
  const go = waiting
  waiting = []
  for (const each of go) each()
}

/**
 * A request whose session ended waits until somebody signed in again and is then sent anew: nothing
 * that was on its way is lost, and no screen falls over for it.
 */
async function fetchInSession(request: Request): Promise<Response> {
  const again = request.clone()
  const response = await fetch(request)
  // A wrong password is answered with 401 as well, by the sign-in itself.
  if (response.status !== 401 || new URL(request.url).pathname.startsWith('/api/auth/')) return response
  const resumed = new Promise<void>((resolve) => {
    waiting.push(resolve)
  })
  // An answer nobody reads keeps its connection.
  await response.body?.cancel()
  window.dispatchEvent(new Event(SIGNED_OUT))
  await resumed
  if (again.method !== 'GET') again.headers.set('X-CSRFToken', csrfToken())
  return fetchInSession(again)
}

interface Refusal {
  headers: Record<string, unknown>
  content: { 'application/json': ApiProblem }
}
/** A success, or an `ApiProblem` as the only kind of failure. */
type Failing<Operation> = Operation extends { responses: infer Responses }
  ? Omit<Operation, 'responses'> & {
      responses: {
        [Status in keyof Responses]: Status extends 200 | 201 | 204 ? Responses[Status] : Refusal
      } & { 500: Refusal }
    }
  : Operation
type Paths = { [Path in keyof paths]: { [Method in keyof paths[Path]]: Failing<paths[Path][Method]> } }

const api = createClient<Paths>({
  baseUrl: `${window.location.origin}/`,
  credentials: 'same-origin',
  fetch: fetchInSession,
})
api.use(everyRequest)

/**
 * Typed hooks over the API: `query.useQuery('get', path, …)`, `query.useMutation('post', path)`, and their options.
 * What fails is an `ApiProblem`.
 */
export const query = createQueries(api)
