import type { Level } from '../../document/style.ts'
import { LEAN_LIMIT_MM } from '../../instrument/handLimits.ts'

/**
 * Prices of the solver, in one unit of cost (about a finger landing in hurry). They say taste; what a hand
 * cannot do is excluded before any price is asked. Sources: common practice and listening; no published source.
 */
export const WEIGHTS = {
  /** A finger comes down; one that slides along its string as a guide; mm that it slides. */
  land: 0.3,
  guide: 0.35,
  guideMm: 0.01,
  /** A finger jumps to another string, times hurry; a roll to the neighbouring string at the same fret. */
  hop: 0.6,
  hopHurry: 1.6,
  roll: 0.4,
  /** Jumping in less than `HOP_LIMIT_S` is not asked of anybody. */
  hopTooFast: 70,
  shift: 1,
  shiftMm: 0.06,
  /** Seconds at which a shift has its plain price; least and most share of it with more or less time. */
  shiftCalmS: 0.4,
  shiftLeast: 0.45,
  shiftMost: 1.4,
  /** Moves of the index finger by up to a fret space near the nut are a lean of the hand, not a shift. */
  leanLimitMm: LEAN_LIMIT_MM,
  leanMm: 0.015,
  /** Share of a shift's price while only open strings sound. */
  openBridge: 0.4,
  excess: 1.6,
  slack: 0.45,
  reversal: 0.8,
  squeeze: 0.7,
  /** Fingers 3 and 4 four frets apart, as only a small neck lets them. */
  wideLastFingers: 60,
  weakFinger: [0, 0, 0.05, 0.12, 0.3],
  barre: 1.6,
  barreString: 0.25,
  barreBeat: 0.3,
  /** Fingers 1 and 2 side by side under a hand of four, where players lay the first across. No source. */
  twoForBarre: 2.5,
  stretchBeat: 0.2,
  melodyOnBassString: 0.5,
  bassOnThird: 2.5,
  bassOnTreble: 6,
  bassClose: 0.5,
  /**
   * A bass beyond the frets of the level, another tone of the chord in its stead, and a melody note that lies within them
   * too. No source.
   */
  bassBeyond: 8,
  bassInstead: 5,
  beyondFrets: 3,
  /** A bass on another string than the teacher says, and none at all. No source. */
  bassOffSaid: 9,
  noSaid: 20,
  /** The melody on a lower string than the bass: it can be played, but the picking hand must cross. */
  crossedVoices: 8,
  /** An inner voice on a higher string than the melody and yet below it. No source. */
  crossedInner: 8,
  notTextbookBass: 3.5,
  notTextbookFinger: 4,
  notTextbookPlace: 2.5,
  otherShape: 0.8,
  nonRoot: 40,
  noRootAtChange: 50,
  noRoot: 7,
  noAlternate: 3.6,
  /** A bass left out that the level below has; less than a beat of the melody. */
  noInherited: 12,
  alternateFifth: 0,
  alternateRoot: 0.3,
  alternateThird: 0.9,
  alternateOther: 1.8,
  /** Leaving a pinned shape costs so many times more; its barre and place on the neck so many times less. */
  pinnedFirm: 3,
  pinnedEase: 0.3,
  /** An alternate bass on a string that the chord shape leaves out. */
  alternateOffShape: 0.8,
  sameBassAgain: 2.8,
  /** A slur of the source on two strings: it would have to be plucked. No source. */
  slurBroken: 4,
  /** A step off the beat that the level would slur, on two strings; a wider one, which the tune does not go up the neck for. No source. */
  ownSlurBroken: 2,
  ownWideSlurBroken: 0.8,
  /** A fast note off the beat on another string than the one before it, where a flat pick should stay: the stroke up would cross. No source. */
  upstrokeCrosses: 2.5,
  /** A place at which an ornament of the source cannot be played. No source. */
  ornamentLost: 3.5,
  melodyCut: 16,
  melodyCutBeat: 6,
  bassCut: 1,
  bassCutBeat: 1.2,
  hoverFret: 0.08,
  /** The thumb over the neck: an awkward wrist, for those who use it at all. */
  thumbOver: 1.2,
  /** One pitch struck again with another finger: the hand moves while the ear hears one note. */
  substitute: 0.5,
  /** Fingers that slide along together cost as one, and this share of each further one. */
  gripSlide: 0.25,
  /** A pedal on the fifth, and one that needs a finger. */
  pedalFifth: 0.8,
  pedalFretted: 1.6,
  noPedal: 5,
  /** A note of the second part left out; and its time cut. */
  noPart: 14,
  /** A root that the school wants only sometimes. */
  noRootSometimes: 2,
  /** A fill left out; another string than the pattern's; the note that was struck last. */
  noFill: 3,
  noInheritedFill: 7,
  fillTurn: 0.35,
  /** A string other than the figure's; one over the melody. No source. */
  figureTurn: 3,
  fillOverMelody: 0.4,
  /** A figure that stays on one string; what another fill costs beyond being left out where it strikes
   * the note of the fill before. No source. */
  figureOnOneString: 2.8,
  sameFillAgain: 0.5,
  /** Bass, melody and the tone between them are one tone in octaves: it sounds hollow. No source. */
  bareOctaves: 3.5,
  fillNotChord: 1.2,
  /** A second voice left out, by itself and over a bass; away from the neighbouring string; its time cut. */
  noSecond: 9,
  noSecondOverBass: 4,
  secondApart: 0.7,
  /** An open string as the second voice where double stops are closed. No source. */
  secondOpen: 2.2,
  secondCut: 1.5,
  /** A second voice that leaps along its string while the melody goes by step. No source. */
  secondLeaps: 2.5,
  secondCutBeat: 1.5,
  /** A step up from an open string that is stopped on a lower one, far up: the open string rubs against it. No source. */
  stepOffOpen: 2.5,
  /** A voicing left out; another one held than was struck. */
  noVoicing: 16,
  noVoicingAtChange: 30,
  /** The chord on which the music comes to rest is left out. */
  noEnding: 60,
  voicingLost: 3,
  /** A lower voice that moves where the chord is struck again. No source. */
  lowerMoved: 3.4,
  /** A suspended fourth or a seventh that does not go down by a step where the next chord has its third. No source. */
  toneNotLed: 4.5,
  /** A chord that comes without a note on a bass string, and one of two notes. No source. */
  voicingNoBass: 5,
  voicingBare: 6,
  /** Each fret above the fourth at which the lowest voice of a new chord stands. No source. */
  voicingHighBass: 1.6,
  /** The melody on an inner string, where a string above has the note. No source. */
  melodyInside: 1.5,
  inversionAtChange: 12,
  inversionFifth: 2.4,
  inversionThird: 2.4,
  inversionOther: 5,
  voicingNoTone: 2,
  voicingNoFifth: 0.2,
  voicingNoRoot: 1.2,
  voicingDoubled: 0.5,
  /** The tone that the melody is about to go down or up to sounds under it already: never with a suspension (strict counterpoint, from memory). */
  voicingResolved: 3,
  voicingGap: 0.5,
  voicingMud: 1.2,
  voicingFingers: 0.3,
  /** What a voicing is worth that lies in the book's shape of the chord. No source. */
  voicingBook: 2.5,
  voicingBeat: 0.9,
  /** The melody note before does not ring on. */
  notRinging: 11,
  harmonic: 1.4,
  /** Against the school: an open string where the hand should stay, a fretted one where an open one sounds. */
  openAvoided: 1.1,
  openMissed: 1.3,
  /** A note that a hand near the nut stretches for, where an open string has it. No source. */
  openPassedOver: 1,
  positionFirm: 1.7,
  /** Strings between two that one stroke must sound, and notes beyond what the picking hand can take at once. */
  strokeGap: 3.2,
  tooManyPicked: 4,
  /** Playing an equal measure the same way again, where it is to be varied. */
  varied: 2.2,
} as const

/** What a level allows and how dear it holds the first position and whole chord shapes. */
export interface LevelRules {
  /** Most strings under one finger. */
  readonly barreStrings: number
  /** Price a fret above first position. */
  readonly highFret: number
  /** Price a beat for the share of the chord shape that the hand does not hold. */
  readonly shapeBeat: number
  /** Highest fret offered where the note lies on several places: of a melody alone, and where a bass goes with it. */
  readonly lastFret: number
  readonly lastFretOverBass: number
  /** Frets beyond which a note is dear, as they are not learned yet. */
  readonly lastEasyFret: number
  /** How many shapes of a chord may serve as held shapes. */
  readonly heldShapes: number
  /** Share of the price of leaving the book's shape. */
  readonly textbook: number
  /** Price of each voice that a voicing has fewer than it could: a fuller level is fuller. */
  readonly thin: number
}

export const LEVEL_RULES: Readonly<Record<Level, LevelRules>> = {
  1: {
    barreStrings: 1,
    highFret: 0.9,
    shapeBeat: 0.5,
    lastFret: 4,
    lastFretOverBass: 12,
    lastEasyFret: 4,
    heldShapes: 1,
    textbook: 1,
    thin: 1,
  },
  2: {
    barreStrings: 2,
    highFret: 0.4,
    shapeBeat: 0.5,
    lastFret: 12,
    lastFretOverBass: 12,
    lastEasyFret: Infinity,
    heldShapes: 1,
    textbook: 1,
    thin: 0.9,
  },
  3: {
    barreStrings: 6,
    highFret: 0.3,
    shapeBeat: 0.9,
    lastFret: 15,
    lastFretOverBass: 15,
    lastEasyFret: Infinity,
    heldShapes: 3,
    textbook: 1,
    thin: 1.5,
  },
  4: {
    barreStrings: 6,
    highFret: 0.2,
    shapeBeat: 0.8,
    lastFret: 15,
    lastFretOverBass: 15,
    lastEasyFret: Infinity,
    heldShapes: 3,
    textbook: 0.7,
    thin: 1.7,
  },
  5: {
    barreStrings: 6,
    highFret: 0.15,
    shapeBeat: 0.8,
    lastFret: 17,
    lastFretOverBass: 17,
    lastEasyFret: Infinity,
    heldShapes: 3,
    textbook: 0.5,
    thin: 3.4,
  },
}
