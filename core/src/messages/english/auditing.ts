/** What the audit finds wrong in a finished tab. */
export const auditing = {
  melodyMissing: 'the melody note {{wanted}} is not played',
  melodyOther: 'the melody should be {{wanted}} here, and is {{note}}',
  melodyLength: 'the melody note {{note}} should last {{wanted}} quarter notes, and lasts {{lasts}}',
  melodyExtra: 'a melody note that the source does not have',
  melodyStops:
    'the melody on string {{string}} is written for {{wanted}} quarter notes; the hand holds it for {{held}}',
  melodyCut: 'the melody note on string {{string}} is cut short',
  melodyMasked: 'another note lies over the melody',
  bassStops:
    'the bass on string {{string}} is written for {{wanted}} quarter notes; the hand holds it for {{held}}',
  innerStops:
    'the note on string {{string}} is written for {{wanted}} quarter notes; the hand holds it for {{held}}',
  noteCut: 'the note on string {{string}} is cut short',
  notOnNeck: 'string {{string}}, fret {{fret}} is not on this neck',
  otherPitch: 'string {{string}}, fret {{fret}} sounds {{heard}}, not {{written}}',
  openFinger: 'string {{string}}, fret {{fret}} with finger {{finger}}',
  neckEnds: 'the neck ends below fret {{fret}}',
  outsideMeasure: 'a note outside every measure',
  stringClash: 'two notes at once on string {{string}}',
  fingerTwice: 'finger {{finger}} is needed at frets {{from}} and {{to}} at once',
  fingerOrder: 'finger {{low}} stands above finger {{high}}',
  stretch: 'fingers {{low}} and {{high}} are {{mm}} mm apart; this hand reaches {{limit}}',
  hop: 'finger {{finger}} jumps from string {{from}} to {{to}} in {{seconds}} s',
  pickGap: 'one stroke skips strings between {{from}} and {{to}}',
  pickTwo: '{{sign}} plucks two strings at once',
  strokesAtOnce: 'two strokes at once',
  pickCross: '{{one}} and {{other}} cross',
  pickRepeat: '{{sign}} plucks twice in {{seconds}} s',
  indexTouches: 'the index touches an artificial harmonic and cannot pluck',
  notSounded: 'nothing sounds the note on string {{string}}',
  bendRoom: 'string {{string}} cannot be pushed up {{semitones}} semitones at fret {{fret}}',
  bendHard: 'pushing string {{string}} up {{semitones}} semitones at fret {{fret}} takes a strong hand',

  // Notes that the fretting hand sounds.
  fromNothing: 'nothing sounds on string {{string}} for the note to come from',
  hammerDown: 'a hammer-on from fret {{from}} to {{to}} does not go up',
  pullUp: 'a pull-off from fret {{from}} to {{to}} does not go down',
  noSlide:
    'no finger can slide so at string {{string}}, fret {{fret}}: it needs a fretted note with neck on that side',
  slideNotStruck: 'string {{string}} is slid into from nowhere, and nothing plucks it',
  slideNowhere: 'a slide from fret {{from}} to {{to}} goes nowhere',
  slideFingers: 'a slide needs one finger, not {{from}} and {{to}}',
  bendFingers: 'a bend and its release need one finger at one fret',
  bendWrongWay: 'a bend from {{from}} to {{to}} semitones does not go up',
  releaseWrongWay: 'a release from {{from}} to {{to}} semitones does not go down',
  ownNote: 'finger {{finger}} cannot hammer on or pull off to its own note',
  hammerTied: 'finger {{finger}} cannot hammer on string {{string}} while it holds string {{held}}',
  mustStay: 'finger {{finger}} must stay at fret {{fret}} of string {{string}} under the hammer-on',
  mustBeDown: 'finger {{finger}} must be at fret {{fret}} of string {{string}} before the pull-off',

  // Roots of the chords.
  otherBass: 'under {{chord}} the bass is another note: heard as {{chord}} over {{bass}}',
  foreignBass: 'under {{chord}} the bass is another note: heard over {{bass}}, which is not in the chord',
  rootSilent: 'under {{chord}} no root is played: nothing sounds',
  rootOther: 'under {{chord}} no root is played: heard as {{chord}} over {{bass}}',
  rootForeign: 'under {{chord}} no root is played: heard over {{bass}}, which is not in the chord',
} as const
