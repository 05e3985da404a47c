import { arranging, wholeTune } from '@velvet-porch/core/arrange'
import { readAbc } from '@velvet-porch/core/input/abc'
import { guitarSetup } from '@velvet-porch/core/instrument'
import { finish } from '@velvet-porch/core/turns'
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { porch, porchAsCalled, root } from './support.ts'

const corpus = join(root, 'core/test/corpus/traditional.abc')
const folder = () => mkdtempSync(join(tmpdir(), 'velvet-'))

interface Read {
  readonly kind: string
  readonly tunes: readonly { title: string; measures: number; notes: number; chords: number }[]
}
const read = (file: string) => JSON.parse(porch('read', file, '--json').stdout) as Read

describe('porch convert', () => {
  const convert = (ending: string) => {
    const file = join(folder(), `a.${ending}`)
    const run = porch('convert', corpus, file, '--tune', '2', '--style', 'arpeggio', '--level', '3')
    return { file, run }
  }

  /** Notes of the tab as the core arranges it. */
  const arranged = () => {
    const tune = readAbc(readFileSync(corpus, 'utf8'), () => 'tune')[1]!.tune!
    return finish(arranging(tune, guitarSetup(), wholeTune(tune, 'arpeggio', 3))).layer.notes.length
  }

  it.each(['musicxml', 'mxl', 'txt', 'json', 'places.abc'])(
    'writes a tab as %s, and reads it back',
    (ending) => {
      const { file, run } = convert(ending)
      expect(run.status).toBe(0)
      // Ties of ABC are notes of their own where they are counted.
      const notes = ending === 'places.abc' ? {} : { notes: arranged() }
      expect(read(file).tunes[0]).toMatchObject({
        title: 'Amazing Grace',
        measures: 17,
        chords: 11,
        ...notes,
      })
    },
  )

  it.each([
    ['mid', /^MThd/],
    ['svg', /^<svg/],
    ['wav', /^RIFF/],
    ['pdf', /^%PDF/],
    ['png', /^.PNG/],
  ])('writes a tab as %s', (ending, begins) => {
    const { file, run } = convert(ending)
    expect(run.stderr).toContain(`a.${ending}`)
    expect(readFileSync(file).subarray(0, 8).toString('latin1')).toMatch(begins)
  })

  it('says what is not carried', () => {
    const { file, run } = convert('abc')
    expect(run.stderr).toContain('Not carried: tuning and capo; strings and frets')
    expect(read(file).tunes[0]).toMatchObject({ notes: 36 })
  })

  it('keeps the tab that a file has, from format to format', () => {
    const out = folder()
    const [first, second, third] = ['a.musicxml', 'b.json', 'c.musicxml'].map((n) => join(out, n)) as [
      string,
      string,
      string,
    ]
    porch('convert', corpus, first, '--tune', '1', '--style', 'chord-melody')
    porch('convert', first, second)
    porch('convert', second, third)
    // Boxes are drawn from what the hands hold, which is found anew.
    const notes = (file: string) => readFileSync(file, 'utf8').replace(/<frame>.*?<\/frame>/g, '')
    expect(notes(third) === notes(first)).toBe(true)
  })

  it('says what is wrong: another ending, no tune, no words, nowhere to write', () => {
    const out = folder()
    const said = (...args: string[]) => {
      const run = porch('convert', ...args)
      expect(run.status).toBe(1)
      return run.stderr
    }
    expect(said(corpus, join(out, 'a.doc'))).toContain('is no file that can be written; use musicxml, mxl')
    expect(said(corpus)).toContain('porch convert IN OUT')
    expect(said(corpus, join(out, 'a.cho'))).toContain('has no words')
    expect(said(corpus, join(out, 'none', 'a.json'))).toContain('cannot be written')
    expect(said(join(out, 'none.abc'), join(out, 'a.json'))).toContain('there is no such file')
    expect(readdirSync(out)).toEqual([])
  })

  it('converts a folder on all cores: one bad tune is named and stops nothing', () => {
    const [from, to] = [folder(), join(folder(), 'out')]
    mkdirSync(join(from, 'deeper'))
    writeFileSync(join(from, 'book.abc'), readFileSync(corpus))
    writeFileSync(join(from, 'deeper', 'empty.abc'), 'nothing at all\n')
    writeFileSync(join(from, 'deeper', 'cut.mid'), 'MThd')
    writeFileSync(join(from, 'read.me'), 'not asked for')
    const run = porchAsCalled('arrange', from, '--out', to, '--to', 'json,musicxml', '--level', '2')
    expect(run.status).toBe(1)
    expect(run.stderr).toContain('15 tunes read, 26 files written')
    expect(run.stderr).toContain('2 failed')
    expect(run.stderr).toMatch(/cut\.mid: the MIDI file is cut short/)
    const written = readdirSync(to).sort()
    expect(written).toHaveLength(26)
    expect(written[0]).toBe('book-001.json')
    expect(read(join(to, 'book-002.musicxml')).tunes[0]!.title).toBe('Amazing Grace')
    expect(existsSync(join(to, 'read.json'))).toBe(false)
  })

  it('prints a folder as one book', () => {
    const [from, to] = [folder(), join(folder(), 'Evenings.pdf')]
    writeFileSync(
      join(from, 'two.abc'),
      ['Larch Row', 'Mill Race']
        .map((t, i) => `X:${i + 1}\nT:${t}\nM:4/4\nL:1/4\nK:G\n"G"GABc|"D"d4|]\n`)
        .join('\n'),
    )
    const run = porch('arrange', from, '--out', to, '--level', '2')
    expect(run.stderr).toContain('2 tunes in')
    expect(run.status).toBe(0)
    const text = spawnSync('pdftotext', ['-layout', to, '-'], { encoding: 'utf8' }).stdout
    expect(text).toMatch(/^\s*Evenings\s/)
    expect(text).toMatch(/1\. Larch Row .* 2\n/)
    expect(text).toMatch(/2\. Mill Race .* [34]\n/)
  })
})
