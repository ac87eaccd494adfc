import { renderToString } from 'react-dom/server'
import { createStaticHandler, createStaticRouter, type RouteObject, StaticRouterProvider } from 'react-router'
import { describe, expect, it } from 'vitest'
import { start } from '../i18n/start'

start('en')
import { en } from '../i18n/en'
import { Broken } from './Broken'

/** What stands on the page after a view failed with an error while it was fetched. */
async function shownAfter(error: Error): Promise<string> {
  const routes: RouteObject[] = [
    {
      errorElement: <Broken />,
      children: [
        {
          path: '/practices/:practiceId/clients/:clientId',
          loader: () => {
            throw error
          },
          element: <p>the view</p>,
        },
      ],
    },
  ]
  const handler = createStaticHandler(routes)
  const context = await handler.query(new Request('http://here/practices/1/clients/2'))
  if (context instanceof Response) throw new Error('no page')
  return renderToString(
    <StaticRouterProvider
      router={createStaticRouter(handler.dataRoutes, context)}
      context={context}
      hydrate={false}
    />,
  )
}

describe('in the place of a broken view', () => {
  it('says that it broke and offers the ways on, without the words of the error', async () => {
    const page = await shownAfter(new Error('undefined is not a person called Hartley'))
    expect(page).toContain(en.common.broken)
    expect(page).toContain('role="alert"')
    for (const way of [en.common.again, en.common.reload, en.common.toClients]) expect(page).toContain(way)
    expect(page).not.toContain('<p>the view')
    expect(page).not.toContain('Hartley')
  })

  it.each([
    'Failed to fetch dynamically imported module: http://here/assets/mat-1.js',
    'Importing a module script failed.',
    'error loading dynamically imported module',
  ])('tells a part that could not be fetched from one that broke: %s', async (words) => {
    const page = await shownAfter(new TypeError(words))
    expect(page).toContain(en.common.notLoaded)
    expect(page).not.toContain(en.common.broken)
  })
})
