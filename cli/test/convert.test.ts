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
  it('writes a tune in every format, told by the ending, and reads it back', () => {
    const out = folder()
    const convert = (ending: string) =>
      porch('convert', corpus, join(out, `a.${ending}`), '--tune', '2', '--style', 'arpeggio', '--level', '3')
    for (const ending of ['musicxml', 'mxl', 'txt', 'json']) {
      expect(convert(ending).status).toBe(0)
      const { tunes } = read(join(out, `a.${ending}`))
      expect(tunes[0]).toMatchObject({ title: 'Amazing Grace', measures: 17, notes: 106, chords: 11 })
    }
    expect(convert('abc').stderr).toContain('Not carried: tuning and capo; strings and frets')
    expect(read(join(out, 'a.abc')).tunes[0]).toMatchObject({ notes: 36 })
    const begins = (ending: string) => {
      const run = convert(ending)
      expect(run.stderr).toContain(`a.${ending}`)
      return readFileSync(join(out, `a.${ending}`))
        .subarray(0, 8)
        .toString('latin1')
    }
    expect(begins('mid')).toMatch(/^MThd/)
    expect(begins('svg')).toMatch(/^<svg/)
    expect(begins('wav')).toMatch(/^RIFF/)
    expect(begins('pdf')).toMatch(/^%PDF/)
    expect(begins('png')).toMatch(/^.PNG/)
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
