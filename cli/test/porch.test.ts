import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { replay, USUAL_SPEECH, wordsFor } from '@velvet-porch/core/lesson'
import { describe, expect, it } from 'vitest'
import { porch, porchAsCalled, root } from './support.ts'

const corpus = join(root, 'core/test/corpus/traditional.abc')

const file = (name: string, content: string | Uint8Array) => {
  const path = join(mkdtempSync(join(tmpdir(), 'velvet-')), name)
  writeFileSync(path, content)
  return path
}

interface Printed {
  schemaVersion: number
  setup: { tuning: number[]; capo: number }
  source: unknown[]
  notes: {
    start: number
    duration: number
    ring: number
    string: number
    fret: number
    midi: number
    role: string
    leftFinger: number | 'T'
    rightFinger: string
  }[]
  chords: { symbol: string; sounding: string }[]
  warnings: string[]
  audit: { structural: number }
}

describe('porch', () => {
  it('arrange --json prints the stable object, and audit agrees with it', () => {
    const run = porchAsCalled(
      'arrange',
      corpus,
      '--tune',
      '2',
      '--style',
      'alternating-bass',
      '--level',
      '3',
      '--capo',
      '2',
      '--json',
    )
    expect(run.status).toBe(0)
    const json = JSON.parse(run.stdout) as Printed
    expect(Object.keys(json)).toEqual(
      expect.arrayContaining([
        'schemaVersion',
        'tune',
        'setup',
        'transposed',
        'source',
        'notes',
        'chords',
        'audit',
        'warnings',
        'elapsedMs',
      ]),
    )
    expect(json.schemaVersion).toBe(1)
    expect(json.setup).toMatchObject({ tuning: [40, 45, 50, 55, 59, 64], capo: 2 })
    for (const n of json.notes) {
      expect(n.midi).toBe([64, 59, 55, 50, 45, 40][n.string - 1]! + 2 + n.fret)
      expect(n.ring).toBeGreaterThanOrEqual(n.duration)
    }
    expect(json.chords[0]).toMatchObject({ symbol: 'F', sounding: 'G' })
    const report = porch('audit', file('tab.json', run.stdout))
    expect(report.status).toBe(0)
    expect(JSON.parse(report.stdout)).toEqual(json.audit)
  })

  it('arrange prints aligned tab and says what it did on standard error', () => {
    const run = porch('arrange', corpus, '--tune', '1')
    expect(run.status).toBe(0)
    expect(run.stdout).toContain('Twinkle, Twinkle')
    expect(run.stdout).toMatch(/^E \|/m)
    expect(run.stderr).toContain('42 of 42 melody notes')
  })

  it('keeps a lock, in every style, and says so in the note', () => {
    for (const style of ['melody-bass', 'cross-string', 'flatpicked-lead']) {
      const lock = 'measure 1 beat 1 melody string 3 fret 5 finger 3'
      const run = porch('arrange', corpus, '--style', style, '--level', '3', '--lock', lock, '--json')
      const json = JSON.parse(run.stdout) as Printed
      const first = json.notes.find((n) => n.role === 'melody')!
      expect([first.string, first.fret, first.leftFinger]).toEqual([3, 5, 3])
      expect(run.status).toBe(0)
    }
  })

  it('harmonises a bare melody and marks every chord as a suggestion', () => {
    const run = porch('arrange', corpus, '--harmonise', '--manner', 'moving', '--json')
    const json = JSON.parse(run.stdout) as { chords: { origin: string }[]; warnings: string[] }
    expect(json.chords.length).toBeGreaterThan(3)
    expect(json.chords.every((c) => c.origin === 'suggested')).toBe(true)
    expect(json.warnings.join()).toContain('The chords are a suggestion')
  })

  it('audit says in words what is wrong in a tab', () => {
    const json = JSON.parse(porch('arrange', corpus, '--json').stdout) as Printed
    const [first, ...notes] = json.notes
    const wrong = { ...json, notes: [{ ...first!, fret: 30 }, ...notes] }
    const report = porch('audit', file('wrong.json', JSON.stringify(wrong)))
    const { findings } = JSON.parse(report.stdout) as { findings: { kind: string; text: string }[] }
    expect(findings.find((f) => f.kind === 'outsideNeck')!.text).toBe(
      `string ${first!.string}, fret 30 is not on this neck`,
    )
    expect(findings.every((f) => Object.keys(f).join().startsWith('kind,measure,start,text'))).toBe(true)
  })

  it('arranges for the mandolin', () => {
    const run = porch(
      'arrange',
      corpus,
      '--instrument',
      'mandolin',
      '--style',
      'double-stops',
      '--level',
      '4',
      '--json',
    )
    const json = JSON.parse(run.stdout) as Printed & { audit: { structural: number } }
    expect(json.setup.tuning).toEqual([55, 62, 69, 76])
    expect(json.audit.structural).toBe(0)
    expect(json.notes.some((n) => n.role === 'harmony')).toBe(true)
  })

  it.each([
    [['arrange'], "missing required argument 'file'"],
    [['arrange', 'no-such-file.abc'], 'there is no such file'],
    [['arrange', corpus, '--style', 'polka'], '--style "polka" is not known'],
    [['arrange', corpus, '--level', '9'], 'from 1 to 5'],
    [['arrange', corpus, '--tune', '99'], 'from 1 to 13'],
    [['arrange', corpus, '--capo', '13'], 'from 0 to 12'],
    [['arrange', corpus, '--instrument', 'mandolin', '--style', 'drone'], 'needs separate bass strings'],
    [['arrange', corpus, '--style', 'chord-melody', '--level', '1'], 'starts at level 2'],
    [['arrange', corpus, '--lock', 'measure 2 beat 1 melody'], 'is not understood; write it as'],
    [['arrange', corpus, '--lock', 'measure 99 beat 1 bass finger 2'], 'has no measure 99'],
    [['arrange', corpus, '--lock', 'measure 1 beat 1.5 fill finger 2'], 'no such note is played there'],
    [['arrange', corpus, '--school', 'root=perhaps'], 'use always, sometimes, never'],
    [['lesson'], "missing required argument 'file'"],
    [['hands'], "missing required argument 'file'"],
    [['hands', corpus], 'no places are given'],
    [['lesson', corpus, '--alongside', 'jokes'], 'use none, lengths, harmony, both'],
    [['bake'], "unknown command 'bake'"],
    [['audit', corpus], 'not JSON'],
    [['arrange', corpus, '--capoz', '3'], '(Did you mean --capo?)'],
    [['fit', corpus, 'another.abc'], 'too many arguments'],
    [[], 'Usage: porch'],
  ])('%j fails with code 1 and says why', (args, message) => {
    const run = porch(...args)
    expect(run.status).toBe(1)
    expect(run.stderr).toContain(message)
    expect(run.stdout).toBe('')
  })

  it.each(['arrange', 'easier', 'fit', 'hands', 'lesson', 'audit', 'shapes', 'name'])(
    '%s says what it does and what may be asked of it',
    (name) => {
      const help = porch(name, '--help')
      expect(help.status).toBe(0)
      expect(help.stdout).toMatch(new RegExp(`^Usage: porch ${name} <`))
      expect(porch('--help').stdout).toMatch(new RegExp(`^  ${name} `, 'm'))
    },
  )

  it('takes a number below zero as it is written', () => {
    const json = JSON.parse(porch('arrange', corpus, '--shift', '-2', '--json').stdout) as {
      transposed: number
    }
    expect(json.transposed).toBe(-2)
  })

  it('hands finds both hands of a text tab, as the same object as an arrangement, and lesson teaches it', () => {
    const file = join(root, 'cli', 'test', 'gateSong.txt')
    const run = porch('hands', file, '--json')
    const json = JSON.parse(run.stdout) as Printed & { audit: { structural: number } }
    expect(json.audit.structural).toBe(0)
    // C, Am and the barre F under the fingers that hold them.
    expect(json.notes.slice(0, 4).map((n) => [n.string, n.fret, n.leftFinger])).toEqual([
      [5, 3, 3],
      [3, 0, 0],
      [2, 1, 1],
      [4, 2, 2],
    ])
    expect(json.warnings.join()).toContain('no rhythm is written over some measures')
    const said = porch('lesson', file).stdout
    expect(said).toContain('Take F (1-3-4-2): index finger across strings 1 to 6, fret 1; ')
    expect(said.match(/Hold (C|Am|F|G)\./g)!.length).toBeGreaterThan(12)
  })

  it('hands finds both hands of ABC with places over its notes, tune by tune', () => {
    const file = join(root, 'cli', 'test', 'placed.abc')
    const placed = (tune: string) => {
      const json = JSON.parse(porch('hands', file, '--tune', tune, '--json').stdout) as Printed & {
        audit: { structural: number }
      }
      expect(json.audit.structural).toBe(0)
      return json.notes.map((n) => `${n.string}.${n.fret} ${n.leftFinger} ${n.rightFinger}`)
    }
    expect(placed('1').slice(0, 4)).toEqual(['5.3 3 p', '4.2 2 i', '3.0 0 i', '2.1 1 m'])
    expect(placed('2').map((n) => n.split(' ')[0])).toEqual(['2.7', '1.7', '2.10', '1.7', '2.8', '2.7'])
  })

  it('lesson prints the arrangement in words, which can be followed back to its tab', () => {
    const args = [corpus, '--tune', '1', '--style', 'alternating-bass', '--level', '3']
    const said = porch('lesson', ...args)
    expect(said.stderr).toBe('')
    expect(said.stdout).toMatch(/^Twinkle/)
    const steps = replay(said.stdout.slice(said.stdout.indexOf('\n\n') + 2), wordsFor(USUAL_SPEECH))
    const json = JSON.parse(porch('arrange', ...args, '--json').stdout) as Printed
    const places = (list: readonly { string: number; fret: number }[]) =>
      list.map((n) => `${n.string}/${n.fret}`).sort()
    expect(places(steps.flatMap((s) => s.notes))).toEqual(places(json.notes))
  })

  it('read says what a text is and what is understood of it, and reads what is piped in', () => {
    const song = join(root, 'cli', 'test', 'song.txt')
    const { kind, tunes } = JSON.parse(porch('read', song, '--json').stdout) as {
      kind: string
      tunes: { problems: { line: number; code: string; text: string }[] }[]
    }
    expect(kind).toBe('song')
    const { problems, ...facts } = tunes[0]!
    expect(facts).toEqual({
      title: 'Lock Lane',
      measures: 10,
      notes: 0,
      chords: 8,
      words: 11,
      tuning: null,
      capo: 3,
      key: 'Bb major',
      tempo: 96,
    })
    expect(problems.map((p) => [p.line, p.code])).toEqual([
      [8, 'reading.songBars'],
      [8, 'reading.songShapes'],
      [10, 'reading.songChord'],
    ])
    expect(problems[2]!.text).toBe('“Gqx” is no chord that is understood — kept as it stands, not played')
    expect(porch('read', corpus).stdout).toContain('A text in ABC.')
    expect(porch('read', join(root, 'cli', 'test', 'gateSong.txt')).stdout).toContain('A text tab.')
    const nothing = porch('read', join(root, 'package.json'))
    expect([nothing.status, nothing.stderr]).toEqual([
      1,
      expect.stringContaining('this is no tune that was saved here'),
    ])
  })

  it('arranges a song: strummed as it says, behind its capo, and teaches it', () => {
    const song = join(root, 'cli', 'test', 'song.txt')
    const json = JSON.parse(porch('arrange', song, '--json').stdout) as Printed & {
      capo: number
      audit: { structural: number }
    }
    expect(json.audit.structural).toBe(0)
    // "D DU UDU": down on 1 and 2, up after 2 and after 3, down on 4, up after it.
    const first = json.notes.filter((n) => n.start < 40_320)
    expect([...new Set(first.map((n) => `${n.start / 5040} ${n.rightFinger}`))]).toEqual([
      '0 down',
      '2 down',
      '3 up',
      '5 up',
      '6 down',
      '7 up',
    ])
    expect(porch('lesson', song).stdout).toContain('Take G')
    expect(porch('arrange', song, '--capo-means', 'sound').stdout).toContain('capo 3')
  })

  it('lesson --json keeps the names of its fields', () => {
    const printed = porch(
      'lesson',
      corpus,
      '--tune',
      '1',
      '--style',
      'alternating-bass',
      '--level',
      '2',
      '--json',
    )
    const { steps } = JSON.parse(printed.stdout) as { steps: Record<string, unknown>[] }
    const fields = new Set(steps.flatMap((s) => Object.keys(s)))
    for (const field of [
      'measure',
      'count',
      'hand',
      'notes',
      'ringing',
      'shape',
      'position',
      'ready',
      'either',
    ])
      expect(fields).toContain(field)
    // The names that the code has for two of them stay inside it.
    expect(fields).not.toContain('prepared')
    expect(fields).not.toContain('alternatives')
  })

  it('refuses binary, empty and note-less files and a melody that no octave holds', () => {
    const failing = [
      [file('a.abc', Uint8Array.of(0, 1, 2, 0)), 'not a text file'],
      [file('b.abc', ''), 'empty'],
      [file('c.abc', 'X:1\nK:C\nz4|'), 'no notes'],
      [file('e.abc', 'X:1\nM:4/4\nL:1/4\nK:C\nz4|'), 'no notes yet'],
      [file('d.abc', "X:1\nL:1/4\nM:4/4\nK:C\nCDEF|C,,,C,C c'''|"), 'Measure 2'],
    ] as const
    for (const [path, message] of failing) {
      const run = porch('arrange', path)
      expect(run.status).toBe(1)
      expect(run.stderr).toContain(message)
    }
  })
})
