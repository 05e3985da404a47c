import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { changesOn, lineBars, wordsInMeasures, type Score, type TuneDoc } from '../../src/document/index.ts'
import { applyEdit, clipOf, type SongEdit } from '../../src/edit/index.ts'
import { readSong } from '../../src/input/song/readingSong.ts'
import { tuneOfSong } from '../../src/input/song/songTune.ts'
import { writeChordPro } from '../../src/output/index.ts'
import { readTuneDoc } from '../../src/schema/index.ts'
import { SONG_PASTES } from '../input/song/songPastes.ts'

const TEXT = `Ferry Song
Capo 2

[Verse 1]
G              D
Down by the water the willows hang low
Em       C
I am the ferryman, row

[Chorus]
C    D        G
Row, row, carry me over (x2)
`

const made = (text = TEXT) => tuneOfSong(readSong(text), 't')
const edited = (score: Score, edit: SongEdit): TuneDoc => {
  const result = applyEdit(score, edit)
  if (!result.ok) throw new Error(result.refusal.reason)
  return result.score.tune
}
const refusal = (tune: TuneDoc, edit: SongEdit) => {
  const result = applyEdit({ tune }, edit)
  return result.ok ? undefined : result.refusal.reason
}
const places = (tune: TuneDoc, line: number) =>
  lineBars(tune)[line]!.changes.map((c) => `${c.chord.symbol} ${c.bar + 1}+${c.share}`)

describe('the bars of a song', () => {
  it('are said for a line: measures come and go at its end, the changes are laid anew, the others stay', () => {
    const { tune } = made()
    const [first, second] = lineBars(tune)
    const shorter = edited({ tune }, { do: 'lineBars', line: first!.line.id, bars: 2 })
    expect(lineBars(shorter).map((l) => l.bars)).toEqual([2, 4, 4])
    expect(places(shorter, 0)).toEqual(['A 1+0', 'E 2+0'])
    expect(places(shorter, 1)).toEqual(places(tune, 1))
    expect(lineBars(shorter)[0]!.guessed).toBe(false)
    const longer = edited({ tune: shorter }, { do: 'lineBars', line: second!.line.id, bars: 8 })
    expect(lineBars(longer).map((l) => l.bars)).toEqual([2, 8, 4])
    expect(longer.measures).toHaveLength(14)
  })

  it('keep the signs of a repeat round the line', () => {
    const { tune } = made()
    const last = lineBars(tune)[2]!
    for (const bars of [2, 6]) {
      const now = edited({ tune }, { do: 'lineBars', line: last.line.id, bars })
      const own = now.measures.filter((m) => lineBars(now)[2]!.line.measures.includes(m.id))
      expect(own).toHaveLength(bars)
      expect([own[0]!.repeatStart, own.at(-1)!.repeatEnd]).toEqual([true, 2])
      expect(own.slice(0, -1).every((m) => m.repeatEnd === 1)).toBe(true)
    }
  })

  it('are said for all guesses at once, and said to be right', () => {
    const { tune } = made()
    const two = edited({ tune }, { do: 'everyLine', bars: 2 })
    expect(lineBars(two).map((l) => [l.bars, l.guessed])).toEqual([
      [2, true],
      [2, true],
      [2, true],
    ])
    const sure = edited({ tune: two }, { do: 'confirmBars' })
    expect(lineBars(sure).some((l) => l.guessed)).toBe(false)
    expect(edited({ tune: sure }, { do: 'everyLine', bars: 4 }).measures).toHaveLength(6)
  })

  it('refuse what no line has, and to lose notes', () => {
    const { tune } = made()
    const line = lineBars(tune)[0]!.line.id
    expect(refusal(tune, { do: 'lineBars', line, bars: 0 })).toBe('barsOfLine')
    expect(refusal(tune, { do: 'lineBars', line: 'nothing', bars: 2 })).toBe('noSuchLine')
    const sung = applyEdit(
      { tune },
      { do: 'note', at: { measure: 'm4', tick: 0 }, ticks: 10080, pitch: { step: 'A', alter: 0, octave: 4 } },
    )
    if (!sung.ok) throw new Error('no note')
    expect(refusal(sung.score.tune, { do: 'lineBars', line, bars: 2 })).toBe('notesInBars')
  })
})

describe('a change of chord', () => {
  it('goes to the beat to which it is dragged, and never past its neighbours', () => {
    const { tune } = made()
    const { line, changes } = lineBars(tune)[0]!
    const chord = changes[1]!.chord.id
    const moved = edited({ tune }, { do: 'moveChange', line: line.id, chord, bar: 3, share: 0.5 })
    expect(places(moved, 0)).toEqual(['A 1+0', 'E 4+0.5'])
    expect(refusal(tune, { do: 'moveChange', line: line.id, chord, bar: 0, share: 0 })).toBe('changeOrder')
    // The words stay over it.
    expect(changesOn(moved, line).map((c) => c.at)).toEqual(changesOn(tune, line).map((c) => c.at))
  })

  it('falls where it was tapped', () => {
    const { tune } = made()
    const { line } = lineBars(tune)[1]!
    const tapped = edited(
      { tune },
      {
        do: 'lineTimes',
        line: line.id,
        bars: 2,
        changes: [
          { bar: 0, share: 0 },
          { bar: 1, share: 0.75 },
        ],
      },
    )
    expect(places(tapped, 1)).toEqual(['F#m 1+0', 'D 2+0.75'])
  })
})

describe('the words of a song', () => {
  it('are corrected as text: bars that were settled stay, so do ids and what hangs on them', () => {
    const { tune, capo } = made()
    const { line } = lineBars(tune)[0]!
    const settled = edited({ tune }, { do: 'lineBars', line: line.id, bars: 2 })
    const text = writeChordPro(settled, { capo, plain: true })
    const better = edited(
      { tune: settled },
      { do: 'songText', text: text.replace('hang low', 'bend low').replace('[Em]I am', '[Em]You are'), capo },
    )
    expect(lineBars(better).map((l) => [l.bars, l.guessed])).toEqual([
      [2, false],
      [4, true],
      [4, true],
    ])
    expect(better.measures.map((m) => m.id)).toEqual(settled.measures.map((m) => m.id))
    expect(better.song!.lines.map((l) => l.text)).toContain('Down by the water the willows bend low')
  })

  it('written out and read again are the same song', () => {
    for (const { text } of SONG_PASTES) {
      const { tune, capo } = made(text)
      const again = edited(
        { tune },
        { do: 'songText', text: writeChordPro(tune, { capo, plain: true }), capo },
      )
      expect({ ...again, abc: undefined }).toEqual({ ...tune, abc: undefined })
    }
  })

  it('text without any chord or word changes nothing', () => {
    expect(refusal(made().tune, { do: 'songText', text: '   ', capo: 0 })).toBe('noSong')
  })

  it('fall into their measures: all of them, once, in order', () => {
    for (const { text } of SONG_PASTES) {
      const { tune } = made(text)
      const plain = (s: string) => s.replace(/[\s-]+/g, '')
      const lines = tune
        .song!.lines.filter((l) => l.kind === 'sung')
        .map((l) => plain(l.text))
        .join('')
      expect(
        plain(
          wordsInMeasures(tune)
            .map((w) => w.text)
            .join(''),
        ),
      ).toBe(lines)
    }
  })
})

it('any edits of any song leave a song that storage takes, with every chord in its own line', () => {
  const step = fc.record({
    kind: fc.constantFrom('lineBars', 'everyLine', 'confirmBars', 'moveChange', 'songText'),
    line: fc.nat(20),
    bars: fc.integer({ min: 1, max: 9 }),
    change: fc.nat(6),
    eighth: fc.nat(63),
  })
  fc.assert(
    fc.property(
      fc.constantFrom(...SONG_PASTES),
      fc.array(step, { minLength: 1, maxLength: 6 }),
      ({ text }, steps) => {
        const { tune: first, capo } = made(text)
        const symbols = (t: TuneDoc) => t.chords.map((c) => c.symbol)
        let tune = first
        for (const { kind, line, bars, change, eighth } of steps) {
          const lines = lineBars(tune)
          const own = lines[line % lines.length]!
          const edits: Record<typeof kind, SongEdit> = {
            lineBars: { do: 'lineBars', line: own.line.id, bars },
            everyLine: { do: 'everyLine', bars },
            confirmBars: { do: 'confirmBars' },
            moveChange: {
              do: 'moveChange',
              line: own.line.id,
              chord: own.changes[change % Math.max(1, own.changes.length)]?.chord.id ?? 'none',
              bar: Math.floor(eighth / 8) % own.bars,
              share: (eighth % 8) / 8,
            },
            songText: { do: 'songText', text: writeChordPro(tune, { capo, plain: true }), capo },
          }
          const result = applyEdit({ tune }, edits[kind])
          if (result.ok) tune = result.score.tune
        }
        readTuneDoc(JSON.parse(JSON.stringify(tune)))
        expect(symbols(tune)).toEqual(symbols(first))
        expect(tune.song!.lines.map((l) => l.text)).toEqual(first.song!.lines.map((l) => l.text))
        // Every measure belongs to one line, as before.
        const inLines = tune.song!.lines.filter((l) => l.kind === 'sung').flatMap((l) => l.measures)
        expect([...inLines].sort()).toEqual(tune.measures.map((m) => m.id).sort())
      },
    ),
    { numRuns: 200 },
  )
})

describe('measures of a song that are copied', () => {
  const words = (tune: TuneDoc) => tune.song!.lines.map((l) => l.text)
  const sungAlone = (tune: TuneDoc, lines: readonly number[]) =>
    lines.map((i) => {
      const line = tune.song!.lines[i]!
      const at = new Set(line.measures)
      return wordsInMeasures(tune)
        .filter((w) => at.has(w.measure))
        .map((w) => w.text)
        .join(' ')
    })

  it('have their words with them', () => {
    const { tune } = made()
    const [first] = lineBars(tune)
    const clip = clipOf({ tune }, 0, first!.bars - 1)
    const result = applyEdit({ tune }, { do: 'paste', before: first!.bars, clip })
    if (!result.ok) throw new Error(result.refusal.reason)
    const now = result.score.tune
    expect(words(now)).toEqual([words(tune)[0], ...words(tune)])
    const [own, copy] = sungAlone(now, [0, 1])
    expect(copy).toBe(own)
    expect(readTuneDoc(now)).toEqual(now)
    // A line that is copied in part stays where it is.
    const part = applyEdit({ tune }, { do: 'paste', before: 1, clip: clipOf({ tune }, 0, 0) })
    expect(part.ok && words(part.score.tune)).toEqual(words(tune))
  })

  it('are sung each time where the form is written out', () => {
    const { tune } = made()
    const result = applyEdit({ tune }, { do: 'writeOut' })
    if (!result.ok) throw new Error(result.refusal.reason)
    const now = result.score.tune
    expect(words(now)).toEqual([...words(tune), words(tune)[2]])
    const [once, again] = sungAlone(now, [2, 3])
    expect(again).toBe(once)
    expect(new Set(now.song!.lines.map((l) => l.id)).size).toBe(4)
  })

  it('stay once where they are moved', () => {
    const { tune } = made()
    const [first] = lineBars(tune)
    const result = applyEdit(
      { tune },
      { do: 'move', from: 0, to: first!.bars - 1, before: tune.measures.length },
    )
    if (!result.ok) throw new Error(result.refusal.reason)
    expect(words(result.score.tune)).toEqual(words(tune))
  })
})
