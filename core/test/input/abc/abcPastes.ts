/** A text in ABC as people send it, and what must come out: a line a tune, with measures, notes, given chords, key, metre, words. */
export interface AbcPaste {
  readonly what: string
  readonly text: string
  readonly read: readonly string[]
}

/** Tunes made up for these tests, sent the way people send them. */
export const ABC_PASTES: readonly AbcPaste[] = [
  {
    what: 'two tunes that have lost their numbers',
    text: 'T:One\nM:4/4\nL:1/8\nK:G\nGABc d2d2|g4 d4|\n\nT:Two\nM:3/4\nL:1/8\nK:D\nD2F2A2|d6|\n',
    read: ['One · 2 measures · 8 notes · G major 4/4', 'Two · 2 measures · 4 notes · D major 3/4'],
  },
  {
    what: 'an empty line between all lines',
    text: 'X:1\n\nT:One\n\nM:4/4\n\nL:1/8\n\nK:G\n\nGABc d2d2|g4 d4|\n\nBABc d2d2|G8|\n\nX:2\n\nT:Two\n\nK:D\n\nD2F2A2d2|d8|\n',
    read: ['One · 4 measures · 15 notes · G major 4/4', 'Two · 2 measures · 5 notes · D major 4/4'],
  },
  {
    what: 'an empty line inside a tune',
    text: 'X:1\nT:One\nM:4/4\nL:1/8\nK:G\nGABc d2d2|g4 d4|\n\nBABc d2d2|G8|\n',
    read: ['One · 4 measures · 15 notes · G major 4/4'],
  },
  {
    what: 'prose before, between and after',
    text: 'Hi all,\nhere is the tune I promised:\n\nX:1\nT:One\nM:4/4\nL:1/8\nK:G\nGABc d2d2|g4 d4|\n\nAnd this is another one that goes with it.\n\nX:2\nT:Two\nK:D\nD2F2A2d2|d8|\n\nCheers, Bo\n',
    read: ['One · 2 measures · 8 notes · G major 4/4', 'Two · 2 measures · 5 notes · D major 4/4'],
  },
  {
    what: 'curly quotes round the chords',
    text: 'X:1\nT:One\nM:4/4\nL:1/8\nK:G\n“G”GABc “D7”d2d2|“G”g4 “D”d4|\n',
    read: ['One · 2 measures · 8 notes · G D7 G D · G major 4/4'],
  },
  {
    what: 'entities of a web page',
    text: 'X:1\nT:Salt &amp; Tar\nM:4/4\nL:1/8\nK:G\n&quot;G&quot;GABc d2d2|A&gt;B c&lt;d e4|\n',
    read: ['Salt & Tar · 2 measures · 11 notes · G · G major 4/4'],
  },
  {
    what: 'no key',
    text: 'X:1\nT:One\nM:4/4\nL:1/8\nGABc d2d2|g4 d4|\n',
    read: ['One · 2 measures · 8 notes · C major 4/4 · ! noKey'],
  },
  {
    what: 'the key behind the music',
    text: 'X:1\nT:One\nM:4/4\nL:1/8\nGABc d2d2|g4 d4|\nK:G\n',
    read: ['One · 2 measures · 8 notes · G major 4/4 · ! lateKey'],
  },
  {
    what: 'the key before the title',
    text: 'X:1\nK:G\nT:One\nM:4/4\nL:1/8\nGABc d2d2|g4 d4|\n',
    read: ['One · 2 measures · 8 notes · G major 4/4'],
  },
  {
    what: 'words over the notes',
    text: 'X:1\nT:One\nM:4/4\nL:1/4\nK:G\nw: down by the wa-ter side now sing\nGABc|dcBA|\nw: sing it a-gain as be-fore\nGABc|dcB2|\n',
    read: [
      'One · 4 measures · 15 notes · G major 4/4 · down by the wa- ter side now sing sing it a- gain as be- fore',
    ],
  },
  {
    what: 'words under rests',
    text: 'X:1\nT:One\nM:4/4\nL:1/4\nK:G\n"G"z4|"C"z4|\nw: down by the wa-ter\n"D"z4|"G"z4|\nw: sing\n',
    read: ['One · 4 measures · 0 notes · G C D G · G major 4/4 · down by the water sing'],
  },
  {
    what: 'stray bar lines',
    text: 'X:1\nT:One\nM:4/4\nL:1/8\nK:G\n|GABc d2d2|g4 d4||\n|\n| BABc d2d2|G8|\n||\n',
    read: ['One · 4 measures · 15 notes · G major 4/4'],
  },
  {
    what: 'Windows line ends',
    text: 'X:1\r\nT:One\r\nM:4/4\r\nL:1/8\r\nK:G\r\nGABc d2d2|g4 d4|\r\n\r\nX:2\r\nT:Two\r\nK:D\r\nD2F2A2d2|d8|\r\n',
    read: ['One · 2 measures · 8 notes · G major 4/4', 'Two · 2 measures · 5 notes · D major 4/4'],
  },
  {
    what: 'music and nothing else',
    text: '|: G2 BG dGBG | c2 ec gcec :|\n',
    read: ['Untitled · 2 measures · 14 notes · C major 4/4 · ! noKey'],
  },
  {
    what: 'a second head without a number or an empty line',
    text: 'X:1\nT:One\nM:4/4\nK:G\nG2B2d2g2|\nT:Two\nM:3/4\nK:D\nD2F2A2|\n',
    read: ['One · 1 measures · 4 notes · G major 4/4', 'Two · 1 measures · 3 notes · D major 3/4'],
  },
  {
    what: 'a quoted mail',
    text: '> X:1\n> T:One\n> M:4/4\n> L:1/8\n> K:G\n> GABc d2d2|g4 d4|\n',
    read: ['One · 2 measures · 8 notes · G major 4/4'],
  },
  {
    what: 'tags of a web page',
    text: '<pre>X:1<br>\nT:One<br>\nM:4/4<br>\nK:G<br>\nGABc d2d2|g4 d4|<br>\n</pre>',
    read: ['One · 2 measures · 8 notes · G major 4/4'],
  },
  {
    what: 'all on one line',
    text: 'X:1 T:One Two M:4/4 L:1/8 K:G GABc d2d2|g4 d4|',
    read: ['One Two · 2 measures · 8 notes · G major 4/4'],
  },
  {
    what: 'indented',
    text: '   X:1\n   T:One\n   M:4/4\n   K:G\n   GABc d2d2|g4 d4|\n',
    read: ['One · 2 measures · 8 notes · G major 4/4'],
  },
  {
    what: 'small letters for the fields',
    text: 'x:1\nt:One\nm:4/4\nk:G\nGABc d2d2|g4 d4|\n',
    read: ['One · 2 measures · 8 notes · G major 4/4'],
  },
  {
    what: 'spaces before the colons',
    text: 'X : 1\nT : One\nM : 4/4\nK : G\nGABc d2d2|g4 d4|\n',
    read: ['One · 2 measures · 8 notes · G major 4/4'],
  },
  {
    what: 'one number twice',
    text: 'X:1\nT:One\nM:4/4\nK:G\nG2B2d2g2|\n\nX:1\nT:Two\nM:3/4\nK:D\nD2F2A2|\n',
    read: ['One · 1 measures · 4 notes · G major 4/4', 'Two · 1 measures · 3 notes · D major 3/4'],
  },
  {
    what: 'titles as numbered headings',
    text: '1. One\nM:4/4\nK:G\nG2B2d2g2|\n\n2. Two\nM:3/4\nK:D\nD2F2A2|\n',
    read: ['One · 1 measures · 4 notes · G major 4/4', 'Two · 1 measures · 3 notes · D major 3/4'],
  },
  {
    what: 'rules between the tunes',
    text: 'X:1\nT:One\nM:4/4\nK:G\nG2B2d2g2|\n-----------\nX:2\nT:Two\nK:D\nD2F2A2d2|\n=====\n',
    read: ['One · 1 measures · 4 notes · G major 4/4', 'Two · 1 measures · 4 notes · D major 4/4'],
  },
  {
    what: 'a title of a part inside a tune stays in it',
    text: 'X:1\nT:One\nM:4/4\nK:G\nG2B2d2g2|\nT:The turn\nd2B2G4|\n',
    read: ['One · 2 measures · 7 notes · G major 4/4'],
  },
  {
    what: 'a byte-order mark, and a trailing space on every line',
    text: '﻿X:1 \nT:One \nM:4/4 \nK:G \nGABc d2d2|g4 d4| \n',
    read: ['One · 2 measures · 8 notes · G major 4/4'],
  },
  {
    what: 'comments and directives of other programs',
    text: '%abc-2.1\n%%scale 0.7\nX:1\nT:One % first\nM:4/4\nK:G % one sharp\n%%stretchlast 1\nGABc d2d2|g4 d4| % end\n',
    read: ['One · 2 measures · 8 notes · G major 4/4'],
  },
  {
    what: 'chord names with signs of print',
    text: 'X:1\nT:One\nM:4/4\nL:1/8\nK:F\n"B♭"F4 "F♯m"F4|"N.C."F8|\n',
    read: ['One · 2 measures · 3 notes · B♭ F♯m N.C. · F major 4/4'],
  },
  {
    what: 'an apostrophe of print behind a note',
    text: 'X:1\nT:One\nM:4/4\nL:1/4\nK:C\nc’ b a g|c4|\n',
    read: ['One · 2 measures · 5 notes · C major 4/4'],
  },
  {
    what: 'a tune that is only begun beside one that is whole',
    text: 'X:1\nT:Begun\nM:4/4\nK:G\n\nX:2\nT:Whole\nM:4/4\nK:G\nG2B2d2g2|\n',
    read: ['nothing: line 1 noNotes', 'Whole · 1 measures · 4 notes · G major 4/4'],
  },
]
