import { describe, expect, it } from 'vitest'
import { arrangementOf, arranging, songRegions } from '../../../src/arrange/index.ts'
import { readSong } from '../../../src/input/song/readingSong.ts'
import { tuneOfSong } from '../../../src/input/song/songTune.ts'
import { DEFAULT_PLAYER, setupOf, STANDARD_TUNING } from '../../../src/instrument/index.ts'
import { lessonOf, USUAL_LESSON } from '../../../src/lesson/index.ts'
import { handoutPieces, usualHandout } from '../../../src/output/handout/index.ts'
import { songParts } from '../../../src/output/handout/songParts.ts'
import { finish } from '../../../src/turns.ts'

const SONG = `Gate Song
Capo 2
Strum: D DU UDU

[Verse 1]
G            D
Open the gate and let me in
Ada: Em               C
Ada: I have been out in the rain

[Chorus] x2
C       G
Gate, gate, swing for me

[Verse 2]
Close the gate behind the cart
Night is coming to the fen

Chorus
| D . G . | C |
`

function scoreOf(text: string) {
  const { tune, capo, strum } = tuneOfSong(readSong(text), 't')
  const setup = setupOf('guitar', STANDARD_TUNING, { fret: capo }, DEFAULT_PLAYER)
  const regions = songRegions(tune, strum)
  const { layer, plan } = finish(arranging(tune, setup, regions))
  return {
    tune,
    doc: arrangementOf('a', tune.title, tune, setup, regions, { layer, transposed: plan.transposed }),
  }
}

const textOf = (html: string) => html.replace(/<[^>]*>/g, '').replace(/\u00a0/g, ' ')

describe('a song page', () => {
  const { tune, doc } = scoreOf(SONG)
  const parts = songParts(tune, doc, 'letters')

  it('has the parts in their order, with the chords as the hand calls them over their syllables', () => {
    expect(parts.map((p) => [p.name, p.times, p.again])).toEqual([
      ['Verse 1', 1, false],
      ['Chorus', 2, false],
      ['Verse 2', 1, false],
      ['Chorus', 1, false],
    ])
    expect(parts[0]!.lines[0]!.sung).toEqual([
      { chord: 'G', text: 'Open the gate' },
      { chord: 'D', text: ' and let me in' },
    ])
    expect(parts[0]!.lines[1]!.singer).toBe('Ada')
    // Words that have no chords of their own have none written over them.
    expect(parts[2]!.lines[0]!.sung).toEqual([{ chord: '', text: 'Close the gate behind the cart' }])
    // A line that is played alone is written bar by bar.
    expect(parts[3]!.lines.at(-1)!.bars).toEqual(['D G', 'C'])
  })

  it('follows the capo and the key in which it is played', () => {
    const higher = { ...doc, setup: { ...doc.setup, capo: doc.setup.capo.map(() => 0) } }
    expect(songParts(tune, higher, 'letters')[0]!.lines[0]!.sung.map((s) => s.chord)).toEqual(['A', 'E'])
    // Who plays along without a capo has what sounds.
    const sounding = songParts(tune, doc, 'letters', 'sounding')[0]!.lines[0]!.sung
    expect(sounding.map((s) => s.chord)).toEqual(['A', 'E'])
    expect(songParts(tune, { ...doc, transposed: 3 }, 'letters')[0]!.lines[0]!.sung[0]!.chord).toBe('B♭')
  })

  it('is handed out with shapes and strum once, and a part that comes again named alone', () => {
    const again = scoreOf(
      `${SONG.replace(/Chorus\n\|.*\n$/, '[Chorus] x2\nC       G\nGate, gate, swing for me\n')}`,
    )
    const lesson = lessonOf(again.tune, again.doc, USUAL_LESSON)
    const pieces = handoutPieces(usualHandout('t', true), lesson).map((p) => textOf(p.html))
    const page = pieces.join('\n')
    expect(page).toContain('Capo at fret 2')
    expect(page.match(/Strum:/g)).toHaveLength(1)
    const strum = handoutPieces(usualHandout('t', true), lesson).find((p) => p.html.includes('Strum:'))!.html
    const ways = [...strum.matchAll(/aria-label="(down|up)stroke"/g)].map((m) => m[1]![0]).join('')
    expect(ways).toBe('dduudu')
    // D DU UDU in eighths: on 1, 2 and its half, the half of 3, 4 and its half.
    expect([...strum.matchAll(/<small>([^<]*)/g)].map((m) => m[1])).toEqual([
      '1',
      '2',
      '&#38;',
      '&#38;',
      '4',
      '&#38;',
    ])
    expect(page.match(/Chorus ×2/g)).toHaveLength(2)
    expect(page.match(/swing for me/g)).toHaveLength(1)
  })

  it('stands in two columns on one page where that makes room for all of it', () => {
    const verse = (n: number) => `[Verse ${n}]\n${'G     D\nA short line here\n'.repeat(6)}\n`
    const pieces = (verses: number) => {
      const long = scoreOf(`Long\n\n${Array.from({ length: verses }, (_, i) => verse(i + 1)).join('\n')}`)
      const handout = { ...usualHandout('t', true), blocks: [{ id: 'l', kind: 'lyrics' }] } as const
      return handoutPieces(handout, lessonOf(long.tune, long.doc, USUAL_LESSON)).filter((p) => !p.heads)
    }
    expect(pieces(2).length).toBe(2)
    expect(pieces(4).map((p) => p.html.includes('class="columns"'))).toEqual([true])
    // What two columns do not hold goes on to the next page, part by part.
    expect(pieces(9).length).toBe(9)
  })
})
