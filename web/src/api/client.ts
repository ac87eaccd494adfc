import createClient, { type Middleware } from 'openapi-fetch'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Problem = Schemas['Problem']
export type Side = Schemas['Side']

/** An answer that was not a success, with the server's own words for it. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem,
  ) {
    super(problem.message)
  }

  /** Messages by field; what the server says about no known field stays in `message`. */
  get byField(): Record<string, string> {
    return Object.fromEntries((this.problem.fields ?? []).map((field) => [field.field, field.message]))
  }
}

function csrfToken(): string {
  return document.cookie.match(/(?:^|; )csrftoken=([^;]*)/)?.[1] ?? ''
}

const csrf: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken())
    return request
  },
}

export const api = createClient<paths>({ baseUrl: '/', credentials: 'same-origin' })
api.use(csrf)

interface Answer<T> {
  data?: T
  error?: unknown
  response: Response
}

function isProblem(value: unknown): value is Problem {
  return typeof value === 'object' && value !== null && 'message' in value
}

/** The data of an answer, or an `ApiProblem` thrown. */
export async function unwrap<T>(answer: Promise<Answer<T>>): Promise<T> {
  let result: Answer<T>
  try {
    result = await answer
  } catch {
    throw new ApiProblem(0, {
      message: 'The server cannot be reached. Nothing is lost; try again.',
      fields: [],
    })
  }
  const { data, error, response } = result
  if (response.ok && data !== undefined) return data
  throw new ApiProblem(
    response.status,
    isProblem(error)
      ? error
      : { message: 'Something went wrong on the server. Nothing is lost; try again.', fields: [] },
  )
}
