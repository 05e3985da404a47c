/** What an accompaniment could not do as it was asked, and what it does instead. */
export const accompanying = {
  noChords:
    'Measure {{number}}: an accompaniment needs chords, and there are none. Write them over the tune, or have them proposed.',
  noShape:
    'Measure {{number}}: this hand holds no shape for {{chord}} in this tuning; the chord is left out. Pin a shape of your own.',
  noShuffle:
    'Measure {{number}}: no place for root, fifth and sixth of {{chord}} in reach of this hand; its shape is struck instead.',
  otherMetre:
    'Measure {{number}}: the pattern is for {{wanted}}, the measure has {{metre}}; the usual pattern of {{metre}} is played.',
  badPattern: 'Measure {{number}}: the usual pattern is played.',
  mutedString:
    'Measure {{number}}: the shape of {{chord}} mutes string {{from}}; string {{to}} is plucked instead.',
  mutedAndLeftOut:
    'Measure {{number}}: the shape of {{chord}} mutes string {{from}}, and no other string is free; it is left out.',
  fewStrings_one: 'Measure {{number}}: the shape of {{chord}} has one string fewer than the stroke asks for.',
  fewStrings_other:
    'Measure {{number}}: the shape of {{chord}} has {{count}} strings fewer than the stroke asks for.',
  movedUp_one:
    'Measure {{number}}: the instrument does not have a note of the melody; it is played an octave higher.',
  movedUp_other:
    'Measure {{number}}: the instrument does not have a note of the melody; it is played {{count}} octaves higher.',
  movedDown_one:
    'Measure {{number}}: the instrument does not have a note of the melody; it is played an octave lower.',
  movedDown_other:
    'Measure {{number}}: the instrument does not have a note of the melody; it is played {{count}} octaves lower.',
  innerStrings_one:
    '{{count}} of {{of}} melody notes lies below string 2 in this key. In {{key}} the tune lies on strings 1 and 2.',
  innerStrings_other:
    '{{count}} of {{of}} melody notes lie below string 2 in this key. In {{key}} the tune lies on strings 1 and 2.',
  innerStringsCapo_one:
    '{{count}} of {{of}} melody notes lies below string 2 in this key. In {{key}}, capo {{capo}}, the tune lies on strings 1 and 2.',
  innerStringsCapo_other:
    '{{count}} of {{of}} melody notes lie below string 2 in this key. In {{key}}, capo {{capo}}, the tune lies on strings 1 and 2.',
  highFrets_one:
    '{{count}} of {{of}} melody notes lies above fret 4 in this key. In {{key}} the tune lies in the first frets.',
  highFrets_other:
    '{{count}} of {{of}} melody notes lie above fret 4 in this key. In {{key}} the tune lies in the first frets.',
  highFretsCapo_one:
    '{{count}} of {{of}} melody notes lies above fret 4 in this key. In {{key}}, capo {{capo}}, the tune lies in the first frets.',
  highFretsCapo_other:
    '{{count}} of {{of}} melody notes lie above fret 4 in this key. In {{key}}, capo {{capo}}, the tune lies in the first frets.',
  rootTaken_one:
    '{{count}} of {{of}} melody notes lies on the string of its chord’s low root in this key. In {{key}} the root lies free in the first frets.',
  rootTaken_other:
    '{{count}} of {{of}} melody notes lie on the strings of their chords’ low roots in this key. In {{key}} the roots lie free in the first frets.',
  rootTakenCapo_one:
    '{{count}} of {{of}} melody notes lies on the string of its chord’s low root in this key. In {{key}}, capo {{capo}}, the root lies free in the first frets.',
  rootTakenCapo_other:
    '{{count}} of {{of}} melody notes lie on the strings of their chords’ low roots in this key. In {{key}}, capo {{capo}}, the roots lie free in the first frets.',
  lowerString_one: 'With the lowest string a semitone lower it would be there.',
  lowerString_other: 'With the lowest string {{count}} semitones lower it would be there.',
  againstArm:
    "Measure {{number}}: step {{step}} of the pattern strikes against the arm's swing (down on the beat, up off it).",
} as const

/** What is wrong in a pattern as it is written, with the way out. */
export const pattern = {
  sign: 'Step {{step}}, "{{word}}": use b, a, string numbers, ^1, D, U, d, u, and . to let ring.',
  twice: 'Step {{step}}, "{{word}}": a string is named twice. Take one of them out.',
  reach: 'Step {{step}}, "{{word}}": "at least" is more than "at most". Turn them round.',
  silent: 'The pattern is silent: put at least one b, string number or stroke into it.',
  tooLong:
    'Measure {{measure}} of the pattern has {{steps}} steps, and {{wanted}} fill it. Take out {{over}}, or add a bar line.',
  tooShort:
    'Measure {{measure}} of the pattern has {{steps}} steps, and {{wanted}} fill it. Add {{missing}} (a dot lets ring).',
} as const
