import { describe, expect, it } from 'vitest'
import { arranging, wholeTune } from '../../../src/arrange/index.ts'
import { guitarSetup } from '../../../src/instrument/index.ts'
import { definedShape } from '../../../src/input/song/definedShape.ts'
import { readSong } from '../../../src/input/song/readingSong.ts'
import { tuneOfSong } from '../../../src/input/song/songTune.ts'
import { writeChordPro } from '../../../src/output/index.ts'
import { finish } from '../../../src/turns.ts'

const SONG =
  '{title: Gate Song}\n{define: G base-fret 3 frets 1 3 3 2 1 1 fingers 1 3 4 2 1 1}\n{start_of_verse}\n[G]Over the [C]gate I [G]go\n{end_of_verse}\n'

describe('a shape that a song brings', () => {
  it('is read from the lowest string on, its frets counted from the base fret', () => {
    expect(definedShape('G/B base-fret 1 frets x 2 0 0 3 x fingers 0 1 0 0 3 0')).toMatchObject({
      chord: 'G/B',
      frets: [null, 3, 0, 0, 2, null],
      fingers: [0, 3, 0, 0, 1, 0],
    })
    expect(definedShape('Bm base-fret 2 frets x 1 3 3 2 1')?.frets).toEqual([2, 3, 4, 4, 2, null])
  })

  it('gets fingers where none are written, and is none where no hand could hold it', () => {
    expect(definedShape('C frets x 3 2 0 1 0')?.fingers).toEqual([0, 1, 0, 2, 3, 0])
    expect(definedShape('C frets 1 9 1 9 1 9')).toBeUndefined()
    expect(definedShape('C frets x 3 2')).toBeUndefined()
    expect(definedShape('Blue frets x 3 2 0 1 0')).toBeUndefined()
    expect(definedShape('anything else')).toBeUndefined()
  })

  it('is pinned to the tune, held by its accompaniment, and written again', () => {
    const { tune, problems } = tuneOfSong(readSong(SONG), 't')
    expect(problems.filter((p) => p.severity === 'warning')).toEqual([])
    expect(tune.pins?.map((p) => p.frets)).toEqual([[3, 3, 4, 5, 5, 3]])
    const setup = guitarSetup()
    const { layer } = finish(arranging(tune, setup, wholeTune(tune, 'strum', 2)))
    const [one] = layer.notes
    const first = layer.notes.filter(
      (n) => n.pos.measure === one!.pos.measure && n.pos.tick === one!.pos.tick,
    )
    expect(first.map((n) => n.place.fret).sort()).toEqual([3, 3, 3, 4, 5, 5])
    const written = writeChordPro(tune, { capo: 0 })
    expect(written).toContain('{define: G base-fret 1 frets 3 5 5 4 3 3 fingers 1 3 4 2 1 1}')
    expect(tuneOfSong(readSong(written), 't').tune.pins).toEqual(tune.pins)
  })
})
