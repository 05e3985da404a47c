import type { Style } from '@velvet-porch/core/document'

/** A style in a musician's words: what it is, and what it does from which level on. Common practice, no source. */
export interface StyleWords {
  readonly name: string
  readonly what: string
  readonly levels: readonly [string, string, string, string, string]
}

export const STYLE_WORDS: Readonly<Record<Style, StyleWords>> = {
  'melody-bass': {
    name: 'Melody and bass',
    what: 'Two voices: the tune, and a bass that holds. What sounds between them is sparse.',
    levels: [
      'One root a chord, struck again after two measures of it. First frets, book fingers.',
      'Roots on strong beats.',
      'Root and fifth in turn; a chord tone where the tune holds for three beats.',
      'A pinch where the chord comes and on one; basses step into fourths and fifths; steps off the beat are slurred, thirds hammered on from the open string, long notes slid into.',
      'A third voice with the tune on every beat; fills after two beats of rest.',
    ],
  },
  'alternating-bass': {
    name: 'Alternating bass',
    what: 'A steady thumb between root and other tones of the chord; the tune lies over it, on and off the beat.',
    levels: [
      'Root and fifth in half time.',
      'The thumb on every beat. In waltz time one bass, and lighter chords on two and three.',
      'A pinch where the chord comes; chord tones in gaps of two beats.',
      'Basses step into the next chord; fills on half beats, by the fingers alone; slurs off the beat, hammered thirds, slides into long notes.',
      'Fills wherever the tune leaves a beat; none hammers one note.',
    ],
  },
  arpeggio: {
    name: 'Arpeggio',
    what: 'A figure of the fingers over the strings that tune and bass leave free, on both sides of the tune.',
    levels: [
      'A root a chord, the figure on beats.',
      'Roots on strong beats.',
      'The figure on half beats over four strings; root and fifth in turn; a pinch where the chord comes, and with every beat where the tune leaves the figure no room. Under a high tune a triad up the neck, over an open bass.',
      'Basses step into the next chord; slurs off the beat; thirds hammered on.',
      'A pinch on every beat.',
    ],
  },
  'chord-melody': {
    name: 'Chord melody',
    what: 'The tune on top of its chords, their lower voices kept while the chord stays, a bass below each.',
    levels: [
      '(from level 2 on)',
      'Three voices where the chord comes.',
      'Three voices on strong beats.',
      'Four where the chord comes and on one, three on the other beats; full chords under notes of three beats are rolled.',
      'The same, and between the beats a second voice with the tune, over the chord that rings on.',
    ],
  },
  drone: {
    name: 'Drone',
    what: 'Tonic and fifth go on below, whatever the chord.',
    levels: [
      'The tonic once a measure.',
      'Two strings of drone on one.',
      'On strong beats; drone tones where the tune rests for two beats.',
      'On every beat, two strings with the tune; drone tones on half beats.',
      'Drone tones wherever the tune leaves a beat.',
    ],
  },
  'cross-string': {
    name: 'Cross-string',
    what: 'Neighbouring notes of the tune on different strings, each ringing into the next, like a harp.',
    levels: [
      'In the first frets, ringing where that lies there.',
      'Ringing wherever a hand reaches it; the last chord whole.',
      'A root a chord; harmonics.',
      'A root a measure; a figure on beats where the tune rests for two.',
      'Roots on strong beats, the figure on half beats.',
    ],
  },
  'double-stops': {
    name: 'Double stops',
    what: 'The tune in thirds and sixths; both voices are slurred or both plucked.',
    levels: [
      'On strong beats.',
      'On every beat.',
      'On half beats; a chord tone in long notes.',
      'With every note that leaves the time.',
      'Over roots; fills on half beats.',
    ],
  },
  'flatpicked-lead': {
    name: 'Flatpicked lead',
    what: 'The tune alone with a pick, down and up by the beat; it closes on a strummed chord.',
    levels: [
      'The tune.',
      'Strokes over the chord where the tune holds for three beats; the last chord strummed.',
      'A neighbouring string with it where the chord comes; strokes over the chord where the tune holds for two beats.',
      'A neighbouring string on every beat; slurs off the beat, slides into long notes.',
      'The strokes on half beats; fast notes off the beat stay on the string of the note before, so that no stroke up has to cross.',
    ],
  },
  picking: {
    name: 'Picking pattern',
    what: 'Accompanies a singer: a pattern of the fingers on each chord.',
    levels: [
      'One finger at a time.',
      'On every half beat.',
      'Thumb in turn, pinches.',
      'Fuller pinches; the bass walks under the pattern into fourths and fifths.',
      'Sixteenths, or pinches all through; rests of the singer are filled.',
    ],
  },
  'bass-brush': {
    name: 'Bass and brush',
    what: 'Accompanies a singer: a bass, answered by strokes across the upper strings.',
    levels: [
      'A stroke on the beat.',
      'With an upstroke.',
      'Basses in turn.',
      'Upstrokes all through; walks into fourths and fifths.',
      'Accents, sixteenths; rests of the singer are filled.',
    ],
  },
  strum: {
    name: 'Strum',
    what: 'Accompanies a singer: whole strokes.',
    levels: [
      'On the beat.',
      'With an upstroke before the next measure.',
      'Syncopated, or on every half beat.',
      'Accents on two and four; walks into fourths and fifths.',
      'Light strokes in sixteenths, damped ones.',
    ],
  },
  shuffle: {
    name: 'Shuffle',
    what: 'Accompanies a singer: root and fifth, root and sixth on two bass strings, long and short.',
    levels: [
      'Root and fifth on the beat.',
      'Fifth and sixth in turn.',
      'Each struck twice, long and short; at the end of a form root and fifth turn it home.',
      'The flat seventh on top of the wave; every second measure pushes on with a triplet; the turnaround goes down by half steps.',
      'Every measure pushes on; rests of the singer are filled with runs in triplets.',
    ],
  },
  'bass-tune': {
    name: 'Tune in the bass',
    what: 'The tune on the low strings, struck by the thumb; brushes over the higher strings of the shape between its notes, none that would bite with the note that sounds. Each section goes to the octave in which it lies lowest.',
    levels: [
      'A brush on each beat of notes of three beats and more.',
      'Under notes of two beats too; the last note is struck with its chord.',
      'A brush after each note of a beat, where the tempo leaves the hand the time; in a measure without room for brushes its first note is struck with the chord.',
      'The arm comes back up after each brush of a long note; notes on one and where the chord comes are hammered on from open strings; without room for brushes strong beats are struck with the chord.',
      'The note that a chord comes with is struck with it; under notes of three beats a bass of the chord on strong beats.',
    ],
  },
  bottleneck: {
    name: 'Bottleneck',
    what: 'The tune under a bar in an open tuning: straight across where the chord lies, which it comes to rest on.',
    levels: [
      'The tune, note by note.',
      'Open basses on strong beats; the bar slides to notes nearby; the last chord straight across.',
      'A second note straight across on beats.',
      'A bass on every beat; slides from below.',
      'A second note with every note.',
    ],
  },
}
