import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { LANGUAGES } from '../../src/messages/index.ts'
import { pitchIn, plainPitch } from '../../src/music/index.ts'
import { guitarSetup, setupOf, tuningById, type Setup } from '../../src/instrument/index.ts'
import {
  ARRIVALS,
  EXPRESSIONS,
  MARKS,
  type TabNote,
  LEVELS,
  SOLO_STYLES,
  type Level,
  type Score,
  type Style,
} from '../../src/document/index.ts'
import { refusalOf } from '../../src/arrange/index.ts'
import {
  USUAL_SPEECH,
  wordsFor,
  lessonScript,
  lessonSteps,
  replay,
  ReplayError,
  scriptText,
  type NameOf,
  type Speech,
} from '../../src/lesson/index.ts'
import { arrangedScore } from '../support/score.ts'
import { replayedTab, writtenTab } from '../support/replayedTab.ts'
import { CORPUS, tuneOf } from '../support/tunes.ts'

const ENGLISH_WORDS = wordsFor(USUAL_SPEECH)

/** What the displayed text says, and nothing else. */
const wordsOf = ({ tune, arrangement }: Required<Score>, words = ENGLISH_WORDS, nameOf?: NameOf) =>
  replay(scriptText(lessonScript(tune, arrangement, words, undefined, nameOf)), words)

function expectSame(
  { tune, arrangement }: Required<Score>,
  what: string,
  words = ENGLISH_WORDS,
  nameOf?: NameOf,
): void {
  const text = scriptText(lessonScript(tune, arrangement, words, undefined, nameOf))
  expect(replayedTab(text, words, tune), what).toEqual(writtenTab(tune, arrangement.base))
}

const cases: [string, Style, Level, Setup][] = [
  ...SOLO_STYLES.flatMap((style) =>
    LEVELS.filter((l) => !refusalOf(style, l, guitarSetup().instrument)).map(
      (level): [string, Style, Level, Setup] => ['guitar', style, level, guitarSetup(level % 3)],
    ),
  ),
  ...(['chord-melody', 'double-stops', 'cross-string', 'flatpicked-lead'] as const).map(
    (style): [string, Style, Level, Setup] => ['mandolin', style, 4, setupOf('mandolin')],
  ),
  ...(['picking', 'bass-brush', 'strum', 'shuffle'] as const).map((style): [string, Style, Level, Setup] => [
    'guitar',
    style,
    3,
    guitarSetup(),
  ]),
  ['guitar', 'bottleneck', 3, setupOf('guitar', tuningById('guitar', 'openG'))],
  ['guitar', 'drone', 4, setupOf('guitar', tuningById('guitar', 'dadgad'))],
]

describe('the lesson read back from its words alone', () => {
  it.each(cases)(
    '%s, %s, level %i: strings, frets, fingers and picking are those of the tab',
    (name, style, level, setup) => {
      for (const tune of [CORPUS[0]!, CORPUS[3]!])
        expectSame(arrangedScore(tune, style, level, setup), `${tune.title}, ${name} ${style} ${level}`)
    },
  )

  const speeches = LANGUAGES.flatMap((language) =>
    (['full', 'short'] as const).flatMap((length) =>
      (['names', 'numbers'] as const).map((fingers): Speech => ({ language, length, fingers })),
    ),
  )
  const spoken = (
    [
      [0, 'melody-bass', 2],
      [3, 'chord-melody', 4],
      [5, 'flatpicked-lead', 3],
      [1, 'arpeggio', 5],
    ] as const
  ).map(([tune, style, level]) => arrangedScore(CORPUS[tune]!, style, level))
  const openG = setupOf('guitar', tuningById('guitar', 'openG'))
  const slid = arrangedScore(CORPUS[3]!, 'bottleneck', 3, openG)
  it.each(speeches)('says the same in %o, note names or not', (speech) => {
    const words = wordsFor(speech)
    const nameOf = (string: number, fret: number) => pitchIn('german', plainPitch(40 + string + fret, false))
    // Every way of speaking with every second tune, in turn.
    const which = speeches.indexOf(speech) % 2
    for (const score of spoken.filter((_, i) => i % 2 === which)) {
      const { title } = score.tune
      expectSame(score, title, words)
      expectSame(score, `${title}, named`, words, nameOf)
    }
    expectSame(slid, 'under a bottleneck', words)
  })

  it.each(speeches)('speaks of the bottleneck, not of the finger that carries it, in %o', (speech) => {
    const words = wordsFor(speech)
    const { tune, arrangement } = slid
    const said = scriptText(lessonScript(tune, arrangement, words))
    expect(said.toLowerCase()).toContain(words.bottleneck)
    expect(said.toLowerCase()).not.toContain(words.fingers[4].toLowerCase())
    // A tune without one has its little finger.
    const bare = spoken[1]!
    const plain = scriptText(lessonScript(bare.tune, bare.arrangement, words)).toLowerCase()
    expect(plain).toContain(words.fingers[4].toLowerCase())
    expect(plain).not.toContain(words.bottleneck)
  })

  /** Signs, words and short notes put on a note, as a teacher may put them there. */
  const touches = fc.record(
    {
      remark: fc.oneof(
        fc.string({ maxLength: 40 }),
        fc.constantFrom(
          'Your teacher says: “no”. Lift: ring finger.',
          '<b>1: Pluck string 9 open.</b>',
          'Soft.\n\nMeasure 7\n1: x',
          '»« … ”” . ',
        ),
      ),
      dynamic: fc.constantFrom(...EXPRESSIONS.dynamic),
      touch: fc.constantFrom(...EXPRESSIONS.touch),
      pluckAt: fc.constantFrom(...EXPRESSIONS.pluckAt),
      pace: fc.constantFrom(...EXPRESSIONS.pace),
      attack: fc.constantFrom(...(['pluck', 'tremolo', 'brush', 'muted', ...ARRIVALS] as const)),
      bend: fc.constantFrom(0.5, 1, 2),
      graces: fc.array(
        fc
          .record({
            fret: fc.nat(12),
            finger: fc.constantFrom(...([0, 1, 2, 3, 4] as const)),
            // A finger that hammers is one of the grip, which these short notes do not have.
            attack: fc.constantFrom(...(['pluck', 'pull', 'slide', 'bend', 'release'] as const)),
          })
          .map(({ fret, finger, attack }) => ({
            place: { string: 1, fret },
            left: fret === 0 ? (0 as const) : finger,
            attack,
          })),
        { minLength: 1, maxLength: 3 },
      ),
      ...Object.fromEntries(MARKS.map((mark) => [mark, fc.constant(true as const)])),
    },
    { requiredKeys: [] },
  )
  it('whatever a teacher puts on a note is told, and the teacher’s words do no harm to what is told', () => {
    const [score] = spoken
    const { base } = score!.arrangement
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(base.notes.length - 1), touches), { maxLength: 12 }),
        fc.constantFrom(...speeches),
        (put, speech) => {
          const notes = [...base.notes]
          for (const [i, touch] of put) notes[i] = { ...notes[i]!, ...(touch as Partial<TabNote>) }
          const touched = { ...score!, arrangement: { ...score!.arrangement, base: { ...base, notes } } }
          expectSame(touched, JSON.stringify(put), wordsFor(speech))
        },
      ),
      { numRuns: 150 },
    )
  })

  it('runs on one string or in one position are said as a row', () => {
    const { tune, arrangement } = arrangedScore(
      tuneOf('X:1\nT:Run\nM:4/4\nL:1/8\nK:C\n"C"CDEF GABc|cBAG FEDC|]\n'),
      'flatpicked-lead',
      1,
    )
    const script = lessonScript(tune, arrangement, ENGLISH_WORDS)
    const rows = script.flatMap((m) => m.lines).filter((l) => l.steps > 1)
    expect(rows.length).toBeGreaterThan(0)
    for (const r of rows) expect(r.text).toMatch(/In a row (on string \d|with the hand at fret \d+): /)
    expect(script.flatMap((m) => m.lines).reduce((n, l) => n + l.steps, 0)).toBe(
      lessonSteps(tune, arrangement).length,
    )
  })

  it('counts are those of the primers: beats by number, & between, every eighth of 6/8 (common practice)', () => {
    const count = (head: string, music: string) => {
      const tune = tuneOf(`X:1\nT:Count\n${head}\nK:C\n${music}\n`)
      return wordsOf(arrangedScore(tune, 'melody-bass', 1)).map((s) => s.count)
    }
    expect(count('M:4/4\nL:1/8', '"C"cdef g2 g2|')).toEqual(['1', '& of 1', '2', '& of 2', '3', '4'])
    expect(count('M:4/4\nL:1/16', '"C"cdef g4 g8|')).toEqual(['1', 'e of 1', '& of 1', 'a of 1', '2', '3'])
    expect(count('M:6/8\nL:1/8', '"C"cde gfe|')).toEqual(['1', '2', '3', '4', '5', '6'])
    expect(count('M:4/4\nL:1/4', 'G|"C"cdef|"C"c4|')).toEqual(['4', '1', '2', '3', '4', '1'])
    // Half of the "&": counted as a share of the beat.
    expect(count('M:2/4\nL:1/32', '"C"cdef g4 g8|')).toContain('1/8 after 1')
  })

  it('hands are followed: a finger is never needed twice at once, none stays that is not down', () => {
    for (const tune of CORPUS.slice(0, 6))
      for (const step of wordsOf(arrangedScore(tune, 'alternating-bass', 5))) {
        const fingers = step.down.map((f) => f.finger)
        expect(new Set(fingers).size).toBe(fingers.length)
      }
  })

  it('what cannot be done or understood is found out', () => {
    const said = (line: string) => () => replay(`Measure 1\n${line}`, ENGLISH_WORDS)
    expect(
      said('1: Put the ring finger on string 2, fret 3. Put the ring finger on string 1, fret 3.'),
    ).toThrow(/twice/)
    expect(said('1: Keep down: ring finger.')).toThrow(ReplayError)
    expect(said('1: Slide the ring finger along string 2 to fret 5.')).toThrow(/does not lie there/)
    expect(said('1: Whistle.')).toThrow(/Not understood/)
    // A finger that is put on a string stops it, whatever lies across.
    const covered =
      '1: Lay the middle finger across strings 1 to 4 at fret 2. Put the ring finger on string 2, fret 2. Pluck string 2 at fret 2.'
    expect(said(covered)()[0]!.notes[0]!.finger).toBe(3)
    // Without the finger nobody lies at the place.
    expect(
      replay('Measure 1\n1: Pluck string 2 at fret 3 (middle).', ENGLISH_WORDS)[0]!.notes[0]!.finger,
    ).toBeUndefined()
  })

  it('strings that nobody plays in a measure are named, and really are silent', () => {
    const { tune, arrangement } = arrangedScore(CORPUS[0]!, 'melody-bass', 2)
    for (const { measure, silent } of lessonScript(tune, arrangement, ENGLISH_WORDS)) {
      const id = tune.measures[measure]!.id
      const struck = new Set(
        arrangement.base.notes.filter((n) => n.pos.measure === id).map((n) => n.place.string),
      )
      const named = silent?.match(/\d/g)?.map(Number) ?? []
      for (const s of named) expect(struck.has(s)).toBe(false)
      expect(named.length + struck.size).toBeLessThanOrEqual(6)
    }
  })

  it('a tab with a finger still to be chosen says so and teaches the rest', () => {
    const score = arrangedScore(tuneOf('X:1\nT:Hole\nM:4/4\nL:1/4\nK:C\n"C"cdef|]\n'), 'melody-bass', 1)
    const { base } = score.arrangement
    const target = base.notes.find((n) => n.left !== 0)!
    const notes = base.notes.map((n) => (n === target ? { ...n, left: 0 as const } : n))
    const holed = { ...score, arrangement: { ...score.arrangement, base: { ...base, notes, grips: [] } } }
    const text = scriptText(lessonScript(holed.tune, holed.arrangement, ENGLISH_WORDS))
    expect(text).toContain(
      `string ${target.place.string} at fret ${target.place.fret} with a finger still to be chosen`,
    )
    expectSame(holed, 'a hole')
  })
})
