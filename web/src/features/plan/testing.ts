import type { Schemas } from '../../api/client'

/** Plans for tests: as the server answers, with made-up names. */
export function part(own: Partial<Schemas['PlannedPart']> = {}): Schemas['PlannedPart'] {
  return {
    variation: 'a.one',
    name: 'One',
    short: 'one',
    line: 'chair 45',
    dose_s: 30,
    dose: '30 s',
    doses: [
      { seconds: 30, words: '30 s' },
      { seconds: 40, words: '40 s' },
    ],
    rounds: 1,
    verdict: 'clear',
    allowed: true,
    reasons: [],
    figure: '<svg></svg>',
    figure_words: 'Sitting',
    since: 'new here',
    changed: true,
    why: '',
    ...own,
  }
}

export function pose(family: string, own: Partial<Schemas['PlannedPose']> = {}): Schemas['PlannedPose'] {
  return {
    family,
    name: `Pose ${family}`,
    shared: false,
    fixed: false,
    seconds: 120,
    left: part(),
    right: part(),
    left_missing: '',
    right_missing: '',
    ...own,
  }
}

export function plan(
  poses: Schemas['PlannedPose'][],
  own: Partial<Schemas['PlanOut']> = {},
): Schemas['PlanOut'] {
  return {
    date: '2026-11-23',
    today: '2026-11-23',
    version: 1,
    time: null,
    minutes: 60,
    breath_s: 6,
    last_visit: '2026-11-16',
    last_ladders: 2,
    started: false,
    seconds: 600,
    poses,
    pieces: [],
    levels: [
      { level: 'standing', words: 'standing' },
      { level: 'seated', words: 'chair' },
      { level: 'floor', words: 'floor' },
    ],
    concerns: [],
    reasons: [],
    left_out: [],
    counters: [],
    ...own,
  }
}
