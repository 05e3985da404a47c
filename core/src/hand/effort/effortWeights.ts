/**
 * What the parts of effort weigh, and how fast a hand can be. Common practice and trial on the demo tunes, no published
 * source; the order of what is easy and what is hard is tested, not the numbers.
 */
export const EFFORT = {
  /** Share of a hand's own span that is held without strain. */
  comfortShare: 0.72,
  /** Millimetres over comfort, millimetres a second, landed fingers a second and so on that make one point. */
  stretchMm: 11,
  shiftMmPerS: 45,
  barreStrings: 3.4,
  changesPerS: 1.6,
  pickingPerS: 2.8,
  independentPerS: 1.6,
  /** Onsets a second up to which speed alone is no effort, and those over it that make one point. */
  calmPerS: 3,
  hastePerS: 2.2,
} as const

/** Seconds that moves need: the base of any move, then what each part adds. */
export const MOVE_S = {
  base: 0.05,
  finger: 0.045,
  hop: 0.04,
  barre: 0.09,
  slideMm: 1 / 900,
  shiftMm: 1 / 420,
  /** Share of a shift's time while open strings sound alone. */
  openBridge: 0.6,
  /** A stretch of this many mm over comfort doubles the time. */
  stretchMm: 45,
} as const

/** Seconds between two plucks: of one finger, of the thumb, of different fingers, of a pick on one string and across. */
export const PLUCK_S = {
  finger: 0.16,
  thumb: 0.15,
  others: 0.07,
  stroke: 0.075,
  sameStroke: 0.13,
  crossing: 0.012,
} as const
