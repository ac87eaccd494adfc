/** The word at the head of a lane, by what the lane stands for; keys under `side`. */
export const LANE_HEAD = { left: 'Left', right: 'Right', both: 'Both' } as const
