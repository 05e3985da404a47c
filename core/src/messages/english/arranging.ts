/** Why a tune cannot be arranged as asked, with the way out. */
export const arranging = {
  outOfReach:
    'Measure {{number}}: the melody leaves the instrument ({{lowest}}–{{highest}}) in every octave. Lower the capo, or write the measure nearer to the rest.',
  tooWide:
    'Measure {{number}}: the melody leaves the instrument ({{lowest}}–{{highest}}) in every octave. It spans more than the instrument has: shorten its range.',
  bassStrings:
    'This style needs separate bass strings, which this instrument does not have. Choose chord melody, double stops, cross-string or flatpicked lead.',
  chordsAtLevelOne: 'Chord melody starts at level 2: at level 1 there are no shapes to put under the tune.',
  noMelody:
    'The tune has chords and no melody yet: choose a style that accompanies (picking, bass and brush, strum, shuffle), or write the melody.',
  noOpenChord:
    'A bottleneck lies straight across the strings and needs a tuning whose open strings are one chord: choose open D, open G or open C.',
  neighbours:
    'Measure {{number}}: no hand gets there from the measures around it, which stay as they are. Select more measures, or raise the level.',
  oneLock:
    'Measure {{number}}: a lock cannot be kept by this hand at this level. Take the lock off, or raise the level.',
  locks: 'Measure {{number}}: {{locks}} locks contradict each other. Take one of them off.',
} as const

/** What is odd in the form of a tune. */
export const form = {
  endless: 'The repeats never end; playing stops here.',
  noCoda: 'A jump to the coda, but no coda sign is written after it.',
  noSegno: 'A jump to the sign, but no sign is written.',
} as const
