import { describe, expect, it } from 'vitest'
import { audit, type FindingKind, type WrittenNote } from '../../src/audit/index.ts'
import { finishedTabOf, type TabJson } from '../../src/output/index.ts'
import { readTabJson } from '../../src/schema/index.ts'
import { arrangeTune, CORPUS } from '../support/tunes.ts'
import { say } from '../support/words.ts'

const good = arrangeTune(CORPUS[1]!, 'alternating-bass', 3).json

type Notes = WrittenNote[]

/** A copy of a sound tab with its notes changed. */
const withNotes = (change: (notes: Notes) => Notes): TabJson => ({
  ...good,
  notes: change(good.notes.map((n) => ({ ...n }))),
})

const kinds = (json: TabJson) => new Set(audit(finishedTabOf(json)).findings.map((f) => f.kind))

const firstOf = (notes: Notes, role: string, where: (n: WrittenNote) => boolean = () => true) =>
  notes.findIndex((n) => n.role === role && where(n))

const patch = (notes: Notes, at: number, by: Partial<WrittenNote>): Notes =>
  notes.map((n, i) => (i === at ? { ...n, ...by } : n))

describe('the audit finds planted faults', () => {
  it('has nothing to say of the sound tab', () => {
    expect(audit(finishedTabOf(good)).findings).toEqual([])
  })

  const planted: readonly (readonly [string, FindingKind, (n: Notes) => Notes])[] = [
    ['a dropped melody note', 'melodyMissing', (n) => n.filter((_, i) => i !== firstOf(n, 'melody'))],
    ['a shortened melody note', 'melodyWrong', (n) => patch(n, firstOf(n, 'melody'), { duration: 1260 })],
    [
      'a melody note a fret too high',
      'melodyWrong',
      (n) => {
        const at = firstOf(n, 'melody')
        return patch(n, at, { fret: n[at]!.fret + 1, midi: n[at]!.midi + 1, leftFinger: 4 })
      },
    ],
    ['an extra melody note', 'melodyExtra', (n) => [...n, { ...n[firstOf(n, 'melody')]!, start: 11000 }]],
    ['a melody note that stops early', 'melodyCut', (n) => patch(n, firstOf(n, 'melody'), { ring: 10 })],
    ['a pitch that is not at its place', 'wrongPitch', (n) => patch(n, firstOf(n, 'bass'), { midi: 41 })],
    [
      'two notes on one string',
      'stringClash',
      (n) => {
        const at = firstOf(n, 'bass', (b) => n.some((m) => m.role === 'melody' && m.start === b.start))
        const melody = n.find((m) => m.role === 'melody' && m.start === n[at]!.start)!
        return patch(n, at, { string: melody.string })
      },
    ],
    ['a bass that is cut', 'bassCut', (n) => patch(n, firstOf(n, 'bass'), { ring: 100 })],
    [
      'a wrong root',
      'wrongRoot',
      (n) => {
        const at = firstOf(n, 'bass', (b) => good.chords.some((c) => c.start === b.start))
        return patch(n, at, { string: 6, fret: 1, midi: 41, leftFinger: 1 })
      },
    ],
    [
      'a missing root',
      'noRoot',
      (n) => {
        const at = firstOf(
          n,
          'bass',
          (b) =>
            good.chords.some((c) => c.start === b.start) &&
            n.some((m) => m.role === 'melody' && m.start === b.start && (m.midi - b.midi) % 12 !== 0),
        )
        return n.filter((_, i) => i !== at)
      },
    ],
    ['a place off the neck', 'outsideNeck', (n) => patch(n, firstOf(n, 'bass'), { string: 7 })],
    [
      'a bass over the melody',
      'melodyMasked',
      (n) => {
        const at = firstOf(n, 'bass', (b) => n.some((m) => m.role === 'melody' && m.start === b.start))
        return patch(n, at, { string: 1, fret: 12, midi: 76, leftFinger: 4 })
      },
    ],
    [
      'one picking finger on two strings',
      'pluckTwice',
      (n) => {
        const at = firstOf(n, 'melody', (m) => n.some((b) => b.role === 'bass' && b.start === m.start))
        return patch(n, at, { rightFinger: 'p' })
      },
    ],
  ]

  it.each(planted)('%s', (_, kind, change) => {
    expect(kinds(withNotes(change))).toContain(kind)
  })

  it('an impossible stretch, a finger at two frets, crossed fingers', () => {
    const base = good.notes[0]!
    const pair = (a: Partial<WrittenNote>, b: Partial<WrittenNote>) =>
      withNotes((n) => [
        ...n.filter((x) => x.start > 60000),
        { ...base, role: 'bass', start: 0, duration: 10080, ring: 10080, ...a },
        { ...base, role: 'fill', start: 0, duration: 10080, ring: 10080, ...b },
      ])
    expect(
      kinds(
        pair(
          { string: 6, fret: 1, midi: 41, leftFinger: 1, rightFinger: 'p' },
          { string: 2, fret: 7, midi: 66, leftFinger: 4, rightFinger: 'm' },
        ),
      ),
    ).toContain('stretch')
    expect(
      kinds(
        pair(
          { string: 6, fret: 1, midi: 41, leftFinger: 1, rightFinger: 'p' },
          { string: 2, fret: 3, midi: 62, leftFinger: 1, rightFinger: 'm' },
        ),
      ),
    ).toContain('fingerTwice')
    // A finger that touches one string does not press another.
    const touching = { string: 5, fret: 5, midi: 69, harmonic: 4, leftFinger: 3, rightFinger: 'p' } as const
    const pressing = { string: 6, fret: 5, midi: 45, rightFinger: 'm' } as const
    expect(kinds(pair({ ...pressing, leftFinger: 3 }, touching))).toContain('fingerTwice')
    expect(kinds(pair({ ...pressing, leftFinger: 2 }, touching))).not.toContain('fingerTwice')
    expect(
      kinds(
        pair(
          { string: 6, fret: 5, midi: 45, leftFinger: 1, rightFinger: 'p' },
          { string: 2, fret: 3, midi: 62, leftFinger: 3, rightFinger: 'm' },
        ),
      ),
    ).toContain('fingerOrder')
  })

  it('a jump of one finger that is too fast, and a repeat by one picking finger', () => {
    const fast = { ...good, tune: { ...good.tune, tempos: [{ start: 0, bpm: 480 }] } }
    const base = good.notes[0]!
    const run = [1, 3, 1, 3].map((string, i): WrittenNote => ({
      ...base,
      role: 'fill',
      start: i * 5040,
      duration: 5040,
      ring: 5040,
      string,
      fret: 2 + (i % 2),
      midi: string === 1 ? 66 : 58,
      leftFinger: 2,
      rightFinger: 'i',
    }))
    const found = kinds({ ...fast, notes: run })
    expect(found).toContain('hop')
    expect(found).toContain('pickRepeat')
  })

  it('tells for how long a note is written, and for how long the hand holds it', () => {
    const at = firstOf([...good.notes], 'melody')
    const { string, duration } = good.notes[at]!
    const report = audit(finishedTabOf(withNotes((n) => patch(n, at, { ring: duration / 2 }))))
    expect(say(report.findings.find((f) => f.kind === 'melodyCut')!.says)).toBe(
      `the melody on string ${string} is written for ${duration / 10080} quarter notes; the hand holds it for ${duration / 20160}`,
    )
  })

  it('a slide from nowhere at an open string, or one that nothing plucks', () => {
    const open = firstOf([...good.notes], 'melody', (n) => n.fret === 0)
    const fretted = firstOf([...good.notes], 'melody', (n) => n.fret > 2)
    expect(kinds(withNotes((n) => patch(n, fretted, { slideFromBelow: true })))).not.toContain('arrivalFrom')
    expect(kinds(withNotes((n) => patch(n, open, { slideOffUp: true })))).toContain('arrivalFrom')
    expect(
      kinds(withNotes((n) => patch(n, fretted, { slideFromBelow: true, rightFinger: 'none' }))),
    ).toContain('arrivalFrom')
  })

  it('tells what chord is heard over a wrong bass', () => {
    const at = firstOf([...good.notes], 'bass', (b) =>
      good.chords.some((c) => c.start === b.start && c.sounding === 'G'),
    )
    const report = audit(
      finishedTabOf(withNotes((n) => patch(n, at, { string: 5, fret: 2, midi: 47, leftFinger: 1 }))),
    )
    expect(say(report.findings.find((f) => f.kind === 'wrongRoot')!.says)).toContain('heard as G over B')
  })

  it('reads back the file that it is given, and refuses another', () => {
    const text = JSON.stringify({ ...good, audit: audit(finishedTabOf(good)) })
    expect(readTabJson(JSON.parse(text)).notes).toEqual(good.notes)
    expect(() => readTabJson({ ...good, schemaVersion: 2 })).toThrow(/schemaVersion/)
    expect(() => readTabJson({ ...good, notes: [{}] })).toThrow(/notes\[0\]/)
  })
})
