/** What a reader says of a text: `what` is odd in it, and what was `taken` for it. */
export const reading = {
  // The text as a whole.
  empty: { what: 'the text is empty', taken: 'paste or open a tune in ABC' },
  tooLong: { what: 'the text of this tune is too long', taken: 'nothing was read; take it apart' },
  notAbc: {
    what: 'this does not look like a tune in ABC',
    taken: 'nothing was read; a tune needs a key (K:) and notes with bar lines',
  },
  unreadable: {
    what: 'the text could not be read',
    taken: 'nothing was read; take out what is unusual in it and try again ({{reason}})',
  },
  unparsed: { what: 'the text could not be parsed', taken: 'nothing was read' },
  notKept: { what: 'what was read cannot be kept', taken: 'nothing was read ({{reason}})' },
  badLine: { what: 'this line cannot be read', taken: 'left out' },
  moreProblems: { what: '{{count}} more problems from here on', taken: 'read as far as possible' },
  noNotes: {
    what: 'the tune holds no notes',
    taken: 'nothing to arrange; write the melody after the K: line',
  },
  noMelody: { what: 'the tune has chords and no melody', taken: 'it can be accompanied' },
  onlyRests: { what: 'nothing but rests yet', taken: 'notes can be written on the staff or in the tab' },
  tooManyMeasures: { what: 'the tune has more than {{most}} measures', taken: 'what follows is left out' },
  block: { what: 'a block of {{kind}}', taken: 'left out; it is no music' },
  openBlock: { what: 'a block of {{kind}} that never ends', taken: 'left out; it is no music' },
  prose: { what: 'text after an empty line', taken: 'left out; it is no music' },
  backslash: { what: '"\\" means nothing here', taken: 'left out' },

  // Scores in MusicXML.
  notXml: {
    what: 'the file is no XML, or is cut short ({{reason}})',
    taken: 'nothing was read; save it again',
  },
  notMusicXml: {
    what: 'the file is XML but no score (it begins with "{{element}}")',
    taken: 'nothing was read; save it as MusicXML',
  },
  xmlEntities: {
    what: 'the file defines entities of its own',
    taken: 'nothing was read; no score needs them',
  },
  xmlTooDeep: { what: 'elements lie more than {{most}} deep', taken: 'nothing was read' },
  xmlTooMany: { what: 'the file has more than {{most}} elements', taken: 'nothing was read; take it apart' },
  badMxl: {
    what: 'the packed file is damaged, or no packed score',
    taken: 'nothing was read; save it again',
  },
  emptyMxl: { what: 'no score is in the packed file', taken: 'nothing was read' },
  mxlTooLarge: { what: 'the packed score is over {{most}} MB', taken: 'nothing was read' },
  stringTwice: {
    what: 'measure {{measure}} has two notes on string {{string}} at once',
    taken: 'the first stands; one string sounds one note',
  },
  voicesLeft: {
    what_one: 'one more voice',
    what_other: '{{count}} more voices',
    taken: 'left out; the melody is among those that are kept',
  },

  // MIDI files.
  notMidi: { what: 'the file is no MIDI file', taken: 'nothing was read' },
  midiTooLarge: { what: 'the MIDI file is over {{most}} MB', taken: 'nothing was read; take it apart' },
  midiCut: { what: 'the MIDI file is cut short', taken: 'nothing was read; save or load it again' },
  badMidi: { what: 'the MIDI file is damaged ({{reason}})', taken: 'nothing was read; save it again' },
  midiOfSongs: {
    what: 'the MIDI file holds several songs one after the other (format 2)',
    taken: 'nothing was read; save each as a file of its own',
  },
  midiInSeconds: {
    what: 'the MIDI file counts in seconds and film frames, not in beats',
    taken: 'nothing was read; save it with beats',
  },
  hangingNotes: {
    what_one: 'a note that nothing ends',
    what_other: '{{count}} notes that nothing ends',
    taken: 'held to the end of the track',
  },
  drumsLeft: { what: 'drums (channel 10)', taken: 'left out; they have no pitch' },
  offTheGrid: {
    what: '{{percent}} % of the notes lie between the places of the grid',
    taken: 'drawn to the nearest one; try shorter notes, or play it in to clicks',
  },
  notesTogether: {
    what_one: 'a note falls together with the one before it',
    what_other: '{{count}} notes fall together with the one before them',
    taken: 'they are read as one; choose shorter notes to keep them apart',
  },
  swingStraightened: {
    what: 'the second half of each beat comes late',
    taken: 'written as even halves; choose a swing when it is arranged',
  },
  chordsGuessed: {
    what: 'no chords are named',
    taken: 'guessed from what sounds together; change them as you like',
  },

  // Fields.
  noKey: { what: 'there is no key (K:)', taken: 'read in C major' },
  lateKey: { what: 'the key stands behind the music', taken: 'taken for all of it' },
  badUnit: {
    what: '"{{unit}}" is no unit of length (L:)',
    taken: 'read as the parser took it, in eighths where it took none; write it as 1/8',
  },
  badMetre: {
    what: '"{{metre}}" is an impossible metre',
    taken: 'read in 4/4; measures keep the notes they have',
  },
  badMetreHere: { what: 'this metre is impossible', taken: 'the metre before it goes on' },
  partOrder: {
    what: 'an order of parts (P:{{parts}})',
    taken: 'kept in the text; the tune is played as its repeats say',
  },
  noTempo: { what: 'no tempo is given', taken: 'played at {{bpm}} quarter notes a minute' },
  tempoBeyond: { what: 'a tempo (Q:) beyond {{slowest}} to {{fastest}}', taken: 'left out' },
  tempoBeyondHere: {
    what: 'a tempo beyond {{slowest}} to {{fastest}} quarter notes a minute',
    taken: 'the tempo before it goes on',
  },
  tempoAfterMelody: { what: 'a tempo in voice {{voice}} where the melody has ended', taken: 'left out' },
  longTitle: { what: 'the title has {{letters}} letters', taken: 'cut to {{most}}' },
  longComposer: { what: 'the composer has {{letters}} letters', taken: 'cut to {{most}}' },
  longSource: { what: 'the source has {{letters}} letters', taken: 'cut to {{most}}' },
  longPartName: { what: 'a name of a part of {{letters}} letters', taken: 'cut to {{most}}' },
  longOrnament: { what: 'an ornament of {{letters}} letters', taken: 'cut to {{most}}' },
  longChordName: { what: 'a chord symbol of {{letters}} letters', taken: 'cut to {{most}}' },
  longSyllable: { what: 'a syllable of {{letters}} letters', taken: 'cut to {{most}}' },

  // Measures and form.
  oddMeasure: {
    what: 'measure {{number}} has {{beats}} of {{nominal}} quarter notes',
    taken: 'kept as written',
  },
  endlessMeasure: {
    what: 'a measure of over {{wholes}} whole notes',
    taken: 'ended here; what follows is a measure of its own',
  },
  badEnding: { what: '"{{ending}}" is no number of an ending', taken: 'played on every pass' },
  badBarLine: { what: '"{{sign}}" is no bar line', taken: 'left out' },

  // Notes.
  strayCharacter: { what: '"{{sign}}" means nothing here', taken: 'left out; the notes around it were read' },
  strayBracket: { what: '"[" needs a number, a chord or a field after it', taken: 'left out' },
  otherWarning: { what: '{{text}}', taken: 'read as far as possible' },
  tieNowhere: { what: 'a tie leads nowhere', taken: 'the note ends where it is written' },
  tieOfTwoPitches: {
    what: 'the tie before this note joins two different pitches',
    taken: 'read as two notes',
  },
  nestedTuplet: { what: 'a tuplet starts inside another', taken: 'the inner one was left out' },
  openTuplet: {
    what: 'a tuplet is not full at the bar line',
    taken: 'the notes it has keep their lengths',
  },
  oddTuplet: {
    what: 'a tuplet of {{actual}} notes in the time of {{normal}}',
    taken: 'its notes keep their plain lengths',
  },
  oddValue: {
    what: 'a note value too odd for exact time',
    taken: 'rounded to the nearest 1/10,080 of a quarter',
  },
  noLength: { what: 'a note without length', taken: 'left out' },
  longNote: { what: 'a note longer than {{wholes}} whole notes', taken: 'cut to {{wholes}}' },
  longRest: { what: 'a rest of {{written}} measures', taken: 'cut to {{most}} measures' },
  noSuchNote: { what: 'a note that no instrument has', taken: 'left out; its time is kept' },
  graceNotes: {
    what_one: 'grace notes on one note',
    what_other: 'grace notes on {{count}} notes',
    taken: 'played where the hand can',
  },
  ornaments: {
    what_one: 'an ornament on one note',
    what_other: 'ornaments on {{count}} notes',
    taken: 'played where the hand can',
  },
  otherOrnaments: {
    what_one: 'an ornament of another kind on one note',
    what_other: 'ornaments of other kinds on {{count}} notes',
    taken: 'kept in the tune and shown, not arranged yet',
  },
  unknownOrnament: { what: 'unknown ornament near "{{sign}}"', taken: 'left out' },
  notesUnderMelody: {
    what_one: 'notes under the melody in one place',
    what_other: 'notes under the melody in {{count}} places',
    taken: 'the top note is the melody; the others are kept, not arranged yet',
  },

  // Voices.
  voices: {
    what: '{{count}} voices',
    taken: 'the first is the melody; the others are kept, not arranged yet',
  },
  overlay: {
    what: 'a second voice in the same measure (&)',
    taken: 'kept out for now; the first one is read',
  },
  voiceGoesOn: { what: 'voice {{voice}} goes on after the melody', taken: 'the melody rests there' },
  voiceLonger: {
    what: 'voice {{voice}} has more beats here than the melody',
    taken: 'kept as written',
  },
  voiceShorter: {
    what: 'voice {{voice}} has fewer beats here than the melody',
    taken: 'it rests for the others',
  },

  // Chords and words.
  noChords: {
    what: 'no chords are given',
    taken: 'a simple harmony of the key is suggested; change it as you like',
  },
  unknownChord: {
    what: '"{{chord}}" is no chord symbol that is known here',
    taken: 'kept and shown; no chord is assumed under it',
  },
  twoChords: {
    what: 'two chord names in one place ("{{first}}" and "{{second}}")',
    taken: 'the second stands',
  },
  chordsWithoutNote: {
    what_one: 'one chord name without a note',
    what_other: '{{count}} chord names without a note',
    taken: 'left out',
  },
  chordBehindLast: {
    what: 'the chord name "{{chord}}" stands behind the last note',
    taken: 'left out',
  },
  syllablesLeft: {
    what_one: 'one syllable without a note',
    what_other: '{{count}} syllables without a note',
    taken: 'left out: {{words}}',
  },

  // Text tab.
  noFrets: {
    what: 'the tab holds no frets',
    taken: 'paste the lines of the strings, with their frets, and try again',
  },
  otherStrings: {
    what: 'the tab has {{strings}} lines',
    taken: 'tabs of six lines (guitar) or four (mandolin) are read',
  },
  unevenSystem: {
    what: 'this system has {{strings}} lines, the first one {{first}}',
    taken: 'read as it stands; lines that the instrument does not have are left out',
  },
  brokenString: {
    what: 'this looks like a string of a tab, and is not read as one',
    taken: 'left out; write it with dashes, frets and bars alone, under the strings it belongs to',
  },
  longTab: { what: 'the tab has {{measures}} measures', taken: 'the first {{most}} were read' },
  guessedRhythm: {
    what: 'no rhythm is written over some measures',
    taken: 'it is guessed from the spacing; those measures are marked as guessed',
  },
  badTabMetre: { what: '"{{metre}}" is an impossible metre', taken: 'left out; write it as 3/4 or 6/8' },
  straySign: { what: '"{{sign}}" means nothing here', taken: 'left out; the frets around it were read' },
  noSuchFret: {
    what: 'no neck has a fret {{fret}}',
    taken: 'read as {{first}} and then {{second}}',
  },
  fretsOutsideBars: {
    what_one: 'one fret of this system stands between no bar lines',
    what_other: '{{count}} frets of this system stand between no bar lines',
    taken: 'left out',
  },
  longRhythm: {
    what: 'the rhythm over this measure is longer than its metre',
    taken: 'read as it stands; the measure is longer',
  },
  placesMissing: {
    what: 'measure {{measure}}: a note needs a place for each of its {{notes}} pitches, and has {{places}}',
    taken: 'write string and fret as an annotation over it, as "^5.3" or "^5.3:3+4.2:2"',
  },
  placeOffNeck: {
    what: 'measure {{measure}}: this instrument has no fret {{fret}} on string {{string}}',
    taken: 'name another place, or another instrument',
  },
  placeOtherPitch: {
    what: 'measure {{measure}}: string {{string}}, fret {{fret}} does not sound the note that it stands over',
    taken: 'all places must lie the same number of semitones from what is written',
  },
  fingersBeside: {
    what: '“{{fingers}}” does not name a finger for each note over it',
    taken: 'the fingers there were found anew',
  },
  rhythmBeside: {
    what: 'the rhythm over this measure does not stand over its frets',
    taken: 'the rhythm is guessed from the spacing',
  },
  tooManyStrings: { what: 'the instrument has {{strings}} strings', taken: 'left out' },
  // Songs.
  songTab: { what: 'a passage of tab inside the song', taken: 'kept as text under its line' },
  songDirective: { what: '{{directive}} is not understood', taken: 'kept as a remark' },
  songRemark: { what: '“{{text}}” stands before the song', taken: 'kept as a remark' },
  songChord: { what: '“{{symbol}}” is no chord that is understood', taken: 'kept as it stands, not played' },
  songBars: {
    what: 'no bar lines say how long each chord lasts',
    taken: 'a line takes {{bars}} bars until you say otherwise',
  },
  songShapes: {
    what: 'capo {{capo}}',
    taken: 'the chord names are the shapes that the hand holds',
  },
  songSound: { what: 'capo {{capo}}', taken: 'the chord names are what sounds' },
  songNoPart: { what: '{{part}} is called for and stands nowhere', taken: 'left out' },
  songBorrowed: { what: '{{part}} has no chords of its own', taken: 'played with those of {{from}}' },
  songLongLine: { what: 'this line has more than {{most}} letters', taken: 'cut' },
  songRepeatInside: {
    what: 'a repeat of {{times}} times stands round another repeat',
    taken: 'the inner one is kept',
  },
  noKind: {
    what: 'neither a tune in ABC, nor tab, nor a song with chords is found',
    taken: 'nothing was read; a song needs chords over its words or in brackets inside them',
  },
  noSong: {
    what: 'no chords and no words are found',
    taken: 'nothing was read; write chords over the words, or in brackets inside them',
  },
  behindCapo: { what: 'string {{string}} has no fret {{fret}} behind this capo', taken: 'left out' },
} as const
