import { matchPath, useLocation } from 'react-router'
import type { Schemas } from '../api/client'

type Stop = Schemas['StopOut']['stop']

interface Of {
  /** Below the practice's address. */
  path: string
  /** Words of its title in the catalogue. */
  title: `screens.${string}`
  /** Where it stands: in the bar of the practice, at a stop of a client's band, or in neither. */
  bar?: true
  stop?: Stop
  /** Whether it stands in no bar and is found from who one is, and by looking for it. */
  aside?: true
  /** Whether it has the whole page, without the bar of the practice. */
  whole?: true
}

const listed = {
  today: { path: 'today', title: 'screens.today', bar: true },
  clients: { path: 'clients', title: 'screens.clients', bar: true },
  ahead: { path: 'ahead', title: 'screens.ahead', bar: true },
  library: { path: 'library/:familyId?', title: 'screens.library', bar: true },
  card: { path: 'library/card/:variationId', title: 'screens.card' },
  settings: { path: 'settings', title: 'screens.settings', bar: true },
  words: { path: 'words', title: 'screens.words', aside: true },
  limits: { path: 'clients/:clientId/limits', title: 'screens.limits', stop: 'limits' },
  doctor: { path: 'clients/:clientId/doctor', title: 'screens.doctor' },
  measures: { path: 'clients/:clientId/measures', title: 'screens.measures', stop: 'measures' },
  choose: { path: 'clients/:clientId/choose', title: 'screens.choose', stop: 'choose' },
  setUp: { path: 'clients/:clientId/set-up', title: 'screens.setUp', stop: 'set_up' },
  plan: { path: 'clients/:clientId/plan', title: 'screens.plan', stop: 'plan' },
  mat: { path: 'clients/:clientId/mat', title: 'screens.mat', stop: 'on_the_mat', whole: true },
  responses: { path: 'clients/:clientId/responses', title: 'screens.responses', stop: 'responses' },
} as const satisfies Record<string, Of>

export type ScreenId = keyof typeof listed
export type Screen = Of & { id: ScreenId; title: (typeof listed)[ScreenId]['title'] }

/** Every screen of a practice, listed once: what routes, bars, titles and the palette are made from. */
export const SCREENS: readonly Screen[] = Object.entries(listed).map(([id, each]) => ({
  id: id as ScreenId,
  ...each,
}))

/** The stops of a client's band, in their order. */
export function stopScreen(stop: Stop): Screen {
  const found = SCREENS.find((each) => each.stop === stop)
  if (found === undefined) throw new Error(`No screen stands at ${stop}.`)
  return found
}

export function screenById(id: ScreenId): Screen {
  const found = SCREENS.find((each) => each.id === id)
  if (found === undefined) throw new Error(`There is no screen ${id}.`)
  return found
}

/** Addresses that name one client are a client's screens. */
export function isClients({ path }: Screen): boolean {
  return path.startsWith('clients/:clientId/')
}

/** The address of a screen of a practice, for a client's one with its client. */
export function addressOf(screen: Screen, practiceId: string, clientId = ''): string {
  const path = screen.path.replace(':clientId', clientId).replace(/\/:\w+\??$/, '')
  return `/practices/${practiceId}/${path}`
}

/** The screen that is shown. */
export function useScreen(): Screen | undefined {
  const { pathname } = useLocation()
  return SCREENS.findLast((each) => matchPath(`/practices/:practiceId/${each.path}`, pathname) !== null)
}
