/** What stands for a date that was begun and not finished: it is typed, so it is neither absent nor a date. */
export const UNFINISHED = 'unfinished'
