import { createBrowserRouter, Navigate, type RouteObject } from 'react-router'
import { Broken } from '../common/ui/Broken'
import { NothingHere, Working } from '../common/ui/States'
import { ClientFrame } from '../features/client-frame/ClientFrame'
import { ClientsScreen } from '../features/clients/ClientsScreen'
import { Home } from '../features/practice-frame/Home'
import { PracticeFrame } from '../features/practice-frame/PracticeFrame'
import { SignInScreen } from '../features/practice-frame/SignInScreen'

/** Screens inside a frame: one that breaks or cannot be loaded says so there, and the frame stays. */
function within(children: RouteObject[]): RouteObject[] {
  return [{ errorElement: <Broken />, children }]
}

/** Every screen there is, by its address. What a client's views need is loaded with the view. */
export const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    hydrateFallbackElement: <Working />,
    children: [
      { path: '/', element: <Home /> },
      { path: '/sign-in', element: <SignInScreen /> },
      {
        path: '/practices/:practiceId',
        element: <PracticeFrame />,
        children: within([
          { index: true, element: <Navigate to="clients" replace /> },
          { path: 'clients', element: <ClientsScreen /> },
          {
            path: 'clients/:clientId',
            element: <ClientFrame />,
            children: within([
              { index: true, element: <Navigate to="limits" replace /> },
              {
                path: 'limits',
                lazy: async () => ({
                  Component: (await import('../features/limits/LimitsScreen')).LimitsScreen,
                }),
              },
              {
                path: 'measures',
                lazy: async () => ({
                  Component: (await import('../features/measures/MeasuresScreen')).MeasuresScreen,
                }),
              },
              {
                path: 'choose',
                lazy: async () => ({
                  Component: (await import('../features/choose/ChooseScreen')).ChooseScreen,
                }),
              },
              {
                path: 'set-up',
                lazy: async () => ({
                  Component: (await import('../features/set-up/SetUpScreen')).SetUpScreen,
                }),
              },
              {
                path: 'responses',
                lazy: async () => ({
                  Component: (await import('../features/responses/ResponsesScreen')).ResponsesScreen,
                }),
              },
            ]),
          },
          {
            path: 'library/:familyId?',
            lazy: async () => ({
              Component: (await import('../features/library/LibraryScreen')).LibraryScreen,
            }),
          },
          {
            path: 'library/card/:variationId',
            lazy: async () => ({ Component: (await import('../features/library/CardScreen')).CardScreen }),
          },
          {
            path: 'clients/:clientId/mat',
            lazy: async () => ({ Component: (await import('../features/mat/MatScreen')).MatScreen }),
          },
        ]),
      },
      { path: '*', element: <NothingHere /> },
    ],
  },
])
