/** A passage with the fingers that a player would take. */
export interface Passage {
  readonly name: string
  /** Chord names over steps, by their index; absent: none is given. */
  readonly chords?: Readonly<Record<number, string>>
  readonly strings?: 4 | 6
  /** Steps of an eighth: `string.fret`, together with `+`; `h`, `p` or `s` before a place: hammered on, pulled off, slid to; `-` a rest. */
  readonly places: string
  /** Fingers of the places in the same order; several answers that a teacher would take. */
  readonly fingers: readonly string[]
}

/**
 * Passages fingered by hand. Broken chords: the usual first-position fingers of first method books (common practice; they
 * agree with the open chord data set, see `bench/src/chordSet`). Scales in the first position: as methods of the early 19th
 * century (Carulli, Giuliani, Sor, Aguado) print them, one finger a fret, from memory. The others are common practice, no source.
 */
export const PASSAGES: readonly Passage[] = [
  // Broken chords in the open position, chords named.
  {
    name: 'C, thumb first',
    chords: { 0: 'C' },
    places: '5.3 3.0 2.1 4.2 3.0 2.1 1.0 2.1',
    fingers: ['3 0 1 2 0 1 0 1'],
  },
  {
    name: 'Am, thumb first',
    chords: { 0: 'Am' },
    places: '5.0 4.2 3.2 2.1 1.0 2.1 3.2 4.2',
    fingers: ['0 2 3 1 0 1 3 2'],
  },
  {
    name: 'G with the high G',
    chords: { 0: 'G' },
    places: '6.3 4.0 3.0 1.3 5.2 4.0 3.0 1.3',
    fingers: ['2 0 0 3 1 0 0 3', '3 0 0 4 2 0 0 4'],
  },
  {
    name: 'Em',
    chords: { 0: 'Em' },
    places: '6.0 5.2 4.2 3.0 2.0 3.0 4.2 5.2',
    fingers: ['0 2 3 0 0 0 3 2', '0 1 2 0 0 0 2 1'],
  },
  { name: 'D', chords: { 0: 'D' }, places: '4.0 3.2 2.3 1.2 2.3 3.2 4.0 3.2', fingers: ['0 1 3 2 3 1 0 1'] },
  {
    name: 'Dm',
    chords: { 0: 'Dm' },
    places: '4.0 3.2 2.3 1.1 2.3 3.2 4.0 3.2',
    fingers: ['0 2 3 1 3 2 0 2', '0 2 4 1 4 2 0 2'],
  },
  { name: 'E', chords: { 0: 'E' }, places: '6.0 5.2 4.2 3.1 2.0 1.0 3.1 4.2', fingers: ['0 2 3 1 0 0 1 3'] },
  {
    name: 'A',
    chords: { 0: 'A' },
    places: '5.0 4.2 3.2 2.2 1.0 2.2 3.2 4.2',
    fingers: ['0 1 2 3 0 3 2 1', '0 2 1 3 0 3 1 2'],
  },
  {
    name: 'E7',
    chords: { 0: 'E7' },
    places: '6.0 5.2 4.0 3.1 2.0 1.0 3.1 4.0',
    fingers: ['0 2 0 1 0 0 1 0'],
  },
  {
    name: 'A7',
    chords: { 0: 'A7' },
    places: '5.0 4.2 3.0 2.2 1.0 2.2 3.0 4.2',
    fingers: ['0 2 0 3 0 3 0 2', '0 1 0 2 0 2 0 1'],
  },
  {
    name: 'D7',
    chords: { 0: 'D7' },
    places: '4.0 3.2 2.1 1.2 2.1 3.2 4.0 3.2',
    fingers: ['0 2 1 3 1 2 0 2'],
  },
  {
    name: 'G7',
    chords: { 0: 'G7' },
    places: '6.3 4.0 3.0 2.0 1.1 2.0 3.0 4.0',
    fingers: ['3 0 0 0 1 0 0 0'],
  },
  {
    name: 'B7',
    chords: { 0: 'B7' },
    places: '5.2 4.1 3.2 2.0 1.2 2.0 3.2 4.1',
    fingers: ['2 1 3 0 4 0 3 1'],
  },
  {
    name: 'small F',
    chords: { 0: 'F' },
    places: '4.3 3.2 2.1 1.1 2.1 3.2 4.3 3.2',
    fingers: ['3 2 1 1 1 2 3 2'],
  },
  {
    name: 'C over G',
    chords: { 0: 'C/G' },
    places: '6.3 4.2 3.0 2.1 5.3 4.2 3.0 2.1',
    fingers: ['3 2 0 1 4 2 0 1', '4 2 0 1 3 2 0 1'],
  },
  {
    name: 'D over F sharp',
    chords: { 0: 'D/F#' },
    places: '6.2 4.0 3.2 2.3 1.2 2.3 3.2 4.0',
    fingers: ['1 0 2 4 3 4 2 0', '2 0 1 4 3 4 1 0'],
  },
  {
    name: 'Am over G',
    chords: { 0: 'Am/G' },
    places: '6.3 4.2 3.2 2.1 1.0 2.1 3.2 4.2',
    fingers: ['4 2 3 1 0 1 3 2'],
  },
  {
    name: 'C to Am: two fingers stay',
    chords: { 0: 'C', 4: 'Am' },
    places: '5.3 4.2 3.0 2.1 5.0 4.2 3.2 2.1',
    fingers: ['3 2 0 1 0 2 3 1'],
  },
  {
    name: 'C to D7',
    chords: { 0: 'C', 4: 'D7' },
    places: '5.3 4.2 3.0 2.1 4.0 3.2 2.1 1.2',
    fingers: ['3 2 0 1 0 2 1 3'],
  },
  {
    name: 'barre F',
    chords: { 0: 'F' },
    places: '6.1 4.3 3.2 2.1 1.1 2.1 3.2 4.3',
    fingers: ['1 4 2 1 1 1 2 4', '1 3 2 1 1 1 2 3'],
  },
  {
    name: 'barre Bm',
    chords: { 0: 'Bm' },
    places: '5.2 4.4 3.4 2.3 1.2 2.3 3.4 4.4',
    fingers: ['1 3 4 2 1 2 4 3'],
  },
  {
    name: 'barre Gm at fret 3',
    chords: { 0: 'Gm' },
    places: '6.3 5.5 4.5 3.3 2.3 1.3 2.3 3.3',
    fingers: ['1 3 4 1 1 1 1 1'],
  },
  // Broken chords that no name stands over.
  { name: 'C, not named', places: '5.3 4.2 3.0 2.1 1.0 2.1 3.0 4.2', fingers: ['3 2 0 1 0 1 0 2'] },
  { name: 'Am, not named', places: '5.0 4.2 3.2 2.1 3.2 4.2 5.0 4.2', fingers: ['0 2 3 1 3 2 0 2'] },
  {
    name: 'E, not named',
    places: '6.0 4.2 3.1 2.0 6.0 4.2 3.1 2.0',
    fingers: ['0 3 1 0 0 3 1 0', '0 2 1 0 0 2 1 0'],
  },
  {
    name: 'D form at fret 7',
    places: '3.7 2.8 1.7 2.8 3.7 2.8 1.7 2.8',
    fingers: ['1 3 2 3 1 3 2 3', '1 2 1 2 1 2 1 2'],
  },
  {
    name: 'pinches over C',
    places: '5.3+2.1 3.0 4.2 2.1 5.3+2.1 3.0 4.2 2.1',
    fingers: ['3 1 0 2 1 3 1 0 2 1'],
  },
  {
    name: 'a melody finger over C',
    chords: { 0: 'C' },
    places: '5.3 3.0 2.3 4.2 5.3 3.0 2.1 4.2',
    fingers: ['3 0 4 2 3 0 1 2'],
  },
  // Lines in the open position.
  {
    name: 'C major, first position',
    places: '5.3 4.0 4.2 4.3 3.0 3.2 2.0 2.1',
    fingers: ['3 0 2 3 0 2 0 1'],
  },
  {
    name: 'C major upwards to the third',
    places: '2.1 2.3 1.0 1.1 1.3 1.1 1.0 2.3',
    fingers: ['1 3 0 1 3 1 0 3', '1 4 0 1 4 1 0 4', '1 3 0 1 4 1 0 3'],
  },
  {
    name: 'G major, first position',
    places: '6.3 5.0 5.2 5.3 4.0 4.2 4.4 3.0',
    fingers: ['3 0 2 3 0 2 4 0', '3 0 1 2 0 1 3 0'],
  },
  {
    name: 'E minor downwards',
    places: '3.0 4.4 4.2 4.0 5.3 5.2 5.0 6.3',
    fingers: ['0 4 2 0 3 2 0 3', '0 3 1 0 3 2 0 3', '0 3 1 0 2 1 0 2'],
  },
  {
    name: 'chromatic, a finger a fret',
    places: '6.1 6.2 6.3 6.4 5.1 5.2 5.3 5.4',
    fingers: ['1 2 3 4 1 2 3 4'],
  },
  // Lines in a position.
  { name: 'a lick at fret 7', places: '4.7 4.10 4.7 4.9 4.7 4.9 4.7 4.10', fingers: ['1 4 1 3 1 3 1 4'] },
  {
    name: 'G major in the second position',
    places: '6.3 6.5 5.2 5.3 5.5 4.2 4.4 4.5',
    fingers: ['2 4 1 2 4 1 3 4'],
  },
  {
    name: 'A minor pentatonic at fret 5',
    places: '6.5 6.8 5.5 5.7 4.5 4.7 3.5 3.7',
    fingers: ['1 4 1 3 1 3 1 3'],
  },
  {
    name: 'and on the high strings',
    places: '2.5 2.8 1.5 1.8 1.5 2.8 2.5 3.7',
    fingers: ['1 4 1 4 1 4 1 3'],
  },
  {
    name: 'a repeated pitch keeps its finger',
    places: '2.8 2.8 2.10 2.8 2.8 2.7 2.8 2.8',
    fingers: ['2 2 4 2 2 1 2 2'],
  },
  {
    name: 'E major in the fourth position',
    places: '5.7 4.4 4.6 4.7 3.4 3.6 2.4 2.5',
    fingers: ['4 1 3 4 1 3 1 2'],
  },
  {
    name: 'hammered up, pulled down',
    places: '3.5 h3.7 p3.5 4.7 3.5 h3.7 p3.5 4.7',
    fingers: ['1 3 1 3 1 3 1 3'],
  },
  {
    name: 'a slide stays on its finger',
    places: '2.5 2.6 2.8 s2.10 2.8 2.10 2.8 s2.5',
    fingers: ['1 2 4 4 1 4 1 1', '1 2 3 3 1 3 1 1', '1 1 3 3 1 3 1 1', '1 2 4 4 2 4 2 2', '1 1 3 3 1 3 3 3'],
  },
  {
    name: 'a chain of hammer-ons rises',
    places: '2.5 h2.6 h2.8 1.5 1.8 p1.5 2.8 2.6',
    fingers: ['1 2 4 1 4 1 4 2'],
  },
  // Two voices.
  {
    name: 'thirds on strings 2 and 3',
    places: '3.0+2.1 3.2+2.3 3.4+2.5 3.5+2.6 3.4+2.5 3.2+2.3 3.0+2.1 3.2+2.3',
    fingers: ['0 1 1 2 1 2 1 2 1 2 1 2 0 1 1 2', '0 1 2 3 2 3 2 3 2 3 2 3 0 1 2 3'],
  },
  {
    name: 'sixths on strings 1 and 3',
    places: '3.4+1.3 3.5+1.5 3.7+1.7 3.9+1.8 3.7+1.7 3.5+1.5 3.4+1.3 3.5+1.5',
    fingers: [
      '2 1 2 3 2 3 2 1 2 3 2 3 2 1 2 3',
      '3 2 2 3 2 3 3 2 2 3 2 3 3 2 2 3',
      '2 1 1 1 1 1 2 1 1 1 1 1 2 1 1 1',
      '2 1 2 3 2 3 3 1 2 3 2 3 2 1 2 3',
    ],
  },
  // Mandolin, two frets a finger.
  {
    name: 'mandolin G scale',
    strings: 4,
    places: '4.0 4.2 4.4 4.5 3.0 3.2 3.4 3.5',
    fingers: ['0 1 2 3 0 1 2 3'],
  },
  {
    name: 'mandolin, the A string down',
    strings: 4,
    places: '1.0 2.5 2.4 2.2 2.0 3.5 3.4 3.2',
    fingers: ['0 3 2 1 0 3 2 1'],
  },
  {
    name: 'mandolin broken G',
    strings: 4,
    chords: { 0: 'G' },
    places: '4.0 3.0 2.2 1.3 2.2 3.0 4.0 3.0',
    fingers: ['0 0 1 2 1 0 0 0', '0 0 1 3 1 0 0 0'],
  },
  {
    name: 'mandolin broken C',
    strings: 4,
    chords: { 0: 'C' },
    places: '4.0 3.2 2.3 1.0 2.3 3.2 4.0 3.2',
    fingers: ['0 1 2 0 2 1 0 1'],
  },
  {
    name: 'mandolin fifths at fret 7',
    strings: 4,
    places: '2.7 2.9 2.10 1.7 1.9 1.10 1.9 1.7',
    fingers: ['1 2 3 1 2 3 2 1', '1 2 2 1 2 2 2 1'],
  },
  // Hammer-ons and pull-offs on two strings, and round another string. Common practice, no source.
  {
    name: 'C, hammered on two strings',
    chords: { 0: 'C' },
    places: '5.3+4.0+2.0 h4.2+h2.1 3.0 2.1 5.3+4.0+2.0 h4.2+h2.1 3.0 2.1',
    fingers: ['3 0 0 2 1 0 1 3 0 0 2 1 0 1'],
  },
  {
    name: 'two strings hammered and pulled at fret 5',
    places: '4.5+2.5 h4.7+h2.7 p4.5+p2.5 3.5 4.5+2.5 h4.7+h2.7 p4.5+p2.5 3.5',
    fingers: ['1 1 3 4 1 1 1 1 1 3 4 1 1 1', '1 2 3 4 1 2 1 1 2 3 4 1 2 1', '1 1 2 3 1 1 1 1 1 2 3 1 1 1'],
  },
  {
    name: 'pulled off after the string over it',
    places: '2.3 1.0 p2.1 3.0 2.3 1.0 p2.1 3.0',
    fingers: ['3 0 1 0 3 0 1 0', '4 0 1 0 4 0 1 0', '2 0 1 0 2 0 1 0'],
  },
]
