import type { ComponentType } from 'react'
import { Navigate, type RouteObject } from 'react-router'
import { isClients, SCREENS, type Screen, type ScreenId } from '../common/screens'
import { Broken } from '../common/ui/Broken'
import { NothingHere, Working } from '../common/ui/States'
import { Home } from '../features/practice-frame/Home'
import { SignInScreen } from '../features/practice-frame/SignInScreen'

/** Where each screen comes from; what it needs is loaded with it. */
const LOADED: Record<ScreenId, () => Promise<ComponentType>> = {
  today: async () => (await import('../features/today/TodayScreen')).TodayScreen,
  clients: async () => (await import('../features/clients/ClientsScreen')).ClientsScreen,
  ahead: async () => (await import('../features/ahead/AheadScreen')).AheadScreen,
  library: async () => (await import('../features/library/LibraryScreen')).LibraryScreen,
  card: async () => (await import('../features/library/CardScreen')).CardScreen,
  settings: async () => (await import('../features/settings/SettingsScreen')).SettingsScreen,
  words: async () => (await import('../features/words/WordsScreen')).WordsScreen,
  limits: async () => (await import('../features/limits/LimitsScreen')).LimitsScreen,
  doctor: async () => (await import('../features/doctor/DoctorScreen')).DoctorScreen,
  measures: async () => (await import('../features/measures/MeasuresScreen')).MeasuresScreen,
  choose: async () => (await import('../features/choose/ChooseScreen')).ChooseScreen,
  setUp: async () => (await import('../features/set-up/SetUpScreen')).SetUpScreen,
  plan: async () => (await import('../features/plan/PlanScreen')).PlanScreen,
  mat: async () => (await import('../features/mat/MatScreen')).MatScreen,
  responses: async () => (await import('../features/responses/ResponsesScreen')).ResponsesScreen,
}

const CLIENT = 'clients/:clientId'

function routeOf({ id, path }: Screen, below = ''): RouteObject {
  return { path: path.slice(below.length), lazy: async () => ({ Component: await LOADED[id]() }) }
}

/** Screens inside a frame: one that breaks or cannot be loaded says so there, and the frame stays. */
function within(children: RouteObject[]): RouteObject[] {
  return [{ errorElement: <Broken />, children }]
}

/** A client's screen stands in the client's frame unless it has the whole page. */
const framed = (screen: Screen) => isClients(screen) && screen.whole !== true

/** Every screen there is, by its address. */
export const routes: RouteObject[] = [
  {
    errorElement: <Broken />,
    hydrateFallbackElement: <Working />,
    children: [
      { path: '/', element: <Home /> },
      { path: '/sign-in', element: <SignInScreen /> },
      {
        path: '/practices/:practiceId',
        lazy: async () => ({
          Component: (await import('../features/practice-frame/PracticeFrame')).PracticeFrame,
        }),
        children: within([
          { index: true, element: <Navigate to="today" replace /> },
          {
            path: CLIENT,
            lazy: async () => ({
              Component: (await import('../features/client-frame/ClientFrame')).ClientFrame,
            }),
            children: within([
              { index: true, element: <Navigate to="limits" replace /> },
              ...SCREENS.filter(framed).map((screen) => routeOf(screen, `${CLIENT}/`)),
            ]),
          },
          ...SCREENS.filter((screen) => !framed(screen)).map((screen) => routeOf(screen)),
        ]),
      },
      { path: '*', element: <NothingHere /> },
    ],
  },
]
