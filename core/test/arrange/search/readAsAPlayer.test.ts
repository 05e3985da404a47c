import { groupBy } from 'es-toolkit'
import { describe, expect, it } from 'vitest'
import { beatStarts, chordPitchClasses, readChordSymbol } from '../../../src/music/index.ts'
import { pitchAt, setupOf } from '../../../src/instrument/index.ts'
import { ticksAt, timelineOf } from '../../../src/document/index.ts'
import { arrangedScore } from '../../support/score.ts'
import { arrangeTune, CORPUS, tuneOfMusic } from '../../support/tunes.ts'
import type { TabJson } from '../../../src/output/index.ts'

const withChords = CORPUS.filter((t) => t.chords.length > 0)

const onsetsOf = ({ notes }: TabJson) =>
  Object.values(groupBy(notes, (n) => n.start))
    .map((struck) => [...struck].sort((a, b) => a.midi - b.midi))
    .sort((a, b) => a[0]!.start - b[0]!.start)

/** Chords struck under a melody note that goes on by step into the chord, and how many have that tone already. */
function dissonances(json: TabJson) {
  const onsets = onsetsOf(json).filter((o) => o.some((n) => n.role === 'melody'))
  let all = 0
  let early = 0
  onsets.forEach((notes, i) => {
    const top = notes.at(-1)!
    const chord = json.chords.findLast((c) => c.start <= top.start)
    const ends = json.chords.find((c) => c.start > top.start)?.start ?? Infinity
    const next = onsets[i + 1]?.find((n) => n.role === 'melody')
    const read = chord && readChordSymbol(chord.sounding)
    if (read?.kind !== 'chord' || !next || next.start >= ends || notes.length < 3) return
    const tones = chordPitchClasses(read.chord)
    const goesOn = Math.abs(next.midi - top.midi) <= 2 && tones.includes(next.midi % 12)
    if (tones.includes(top.midi % 12) || !goesOn) return
    all++
    if (notes.slice(1, -1).some((n) => n.midi % 12 === next.midi % 12)) early++
  })
  return { all, early }
}

describe('chord melody', () => {
  const pages = withChords.flatMap((tune) =>
    ([3, 4, 5] as const).map((l) => arrangeTune(tune, 'chord-melody', l)),
  )

  it('leaves a dissonance to resolve: its tone is not under it already, but in the bass', () => {
    const found = pages.map(({ json }) => dissonances(json))
    const sum = (of: 'all' | 'early') => found.reduce((n, f) => n + f[of], 0)
    expect(sum('all')).toBeGreaterThan(30)
    expect(sum('early') / sum('all')).toBeLessThanOrEqual(0.1)
    const { json } = arrangeTune(
      tuneOfMusic('"Am"c2 B2|"Em"A2 G2|"Am"A4|', 'M:4/4\nL:1/4\nK:Am'),
      'chord-melody',
      3,
    )
    const [, , over] = onsetsOf(json)
    expect(over!.map((n) => n.midi % 12)).not.toContain(7)
  })

  it('goes on in two voices between the beats, over a chord that rings on', () => {
    let between = 0
    for (const tune of withChords) {
      const { json, plan } = arrangeTune(tune, 'chord-melody', 5)
      const { starts } = timelineOf(tune.measures)
      const rests = plan.inner.filter((i) => i.rests)
      const whole = new Set([...json.chords, ...rests].map((c) => c.start))
      for (const notes of onsetsOf(json)) {
        const { start } = notes[0]!
        const m = starts.findLastIndex((s) => s <= start)
        const { metre, nominal, length } = tune.measures[m]!
        const isBeat = beatStarts(metre).includes(start - starts[m]! + nominal - length)
        if (isBeat || start === starts[m] || whole.has(start)) continue
        between++
        expect(notes.length).toBeLessThanOrEqual(2)
      }
    }
    expect(between).toBeGreaterThan(200)
  })

  it('does not stop a bass string for a tune that the third string has', () => {
    let stopped = 0
    let notes = 0
    for (const { json } of pages)
      for (const n of json.notes) {
        if (n.role !== 'melody') continue
        notes++
        if (n.string > 3 && n.fret > 3 && n.midi >= 55) stopped++
      }
    expect(stopped).toBeLessThanOrEqual(notes / 1000)
  })
})

const mandolin = setupOf('mandolin', [76, 69, 62, 55], { fret: 0 })

it('a second voice does not leap on its string under a step of the tune', () => {
  let steps = 0
  let leaps = 0
  for (const tune of withChords) {
    const { notes } = arrangedScore(tune, 'double-stops', 5, mandolin).arrangement.base
    const timeline = timelineOf(tune.measures)
    const pairs = Object.entries(groupBy(notes, (n) => ticksAt(timeline, n.pos)))
      .sort(([a], [b]) => Number(a) - Number(b))
      .map(([, struck]) => ({
        m: struck.find((n) => n.role === 'melody'),
        s: struck.find((n) => n.role === 'harmony'),
      }))
    pairs.slice(1).forEach((b, i) => {
      const a = pairs[i]!
      if (!a.m || !a.s || !b.m || !b.s) return
      const step = Math.abs(pitchAt(mandolin, a.m.place) - pitchAt(mandolin, b.m.place))
      if (step === 0 || step > 2) return
      steps++
      if (a.s.place.string === b.s.place.string && Math.abs(a.s.place.fret - b.s.place.fret) >= 3) leaps++
    })
  }
  expect(leaps).toBeLessThanOrEqual(steps / 50)
})

it('on a mandolin a chord under the tune is more than one tone in octaves', () => {
  let chords = 0
  let bare = 0
  for (const tune of withChords)
    for (const level of [3, 5] as const) {
      const { notes } = arrangedScore(tune, 'chord-melody', level, mandolin).arrangement.base
      const struck = groupBy(notes, (n) => `${n.pos.measure} ${n.pos.tick}`)
      for (const chord of Object.values(struck)) {
        if (!chord.some((n) => n.role === 'harmony')) continue
        chords++
        if (new Set(chord.map((n) => pitchAt(mandolin, n.place) % 12)).size < 2) bare++
      }
    }
  expect(chords).toBeGreaterThan(200)
  expect(bare).toBeLessThanOrEqual(chords / 100)
})

it('in double stops both voices are slurred or both are plucked', () => {
  const arrivals: readonly string[] = ['hammer', 'pull', 'slide']
  const sourceSlurs = (tune: (typeof withChords)[number]) =>
    new Set(tune.events.flatMap((e) => (e.slurred ? [e.id] : [])))
  let slurred = 0
  for (const tune of withChords)
    for (const setup of [undefined, mandolin]) {
      const { notes } = arrangedScore(tune, 'double-stops', 5, ...(setup ? [setup] : [])).arrangement.base
      const written = sourceSlurs(tune)
      const struck = groupBy(notes, (n) => `${n.pos.measure} ${n.pos.tick}`)
      for (const together of Object.values(struck)) {
        const melody = together.find((n) => n.role === 'melody')
        if (!melody || !arrivals.includes(melody.attack)) continue
        if (melody.sourceId !== undefined && written.has(melody.sourceId)) continue
        slurred++
        expect(together.filter((n) => !arrivals.includes(n.attack))).toEqual([])
      }
    }
  expect(slurred).toBeGreaterThan(20)
})

it('a step up from an open string stays on it', () => {
  const air = tuneOfMusic(
    '"Am"A2 A|e2 e|"G"B>c B|"Am"A3|z e g|a2 g|"C"e f d|"Am"e3|',
    'M:3/4\nL:1/4\nQ:1/4=108\nK:Ador',
  )
  let steps = 0
  for (const tune of [air, ...withChords]) {
    const { json } = arrangeTune(tune, 'arpeggio', 5)
    const melody = json.notes.filter((n) => n.role === 'melody')
    melody.slice(1).forEach((to, i) => {
      const from = melody[i]!
      if (from.fret !== 0 || to.midi <= from.midi || to.midi > from.midi + 2) return
      if (from.start + from.duration !== to.start) return
      steps++
      expect(to.string, `${tune.title} ${to.start}`).toBeLessThanOrEqual(from.string)
    })
  }
  expect(steps).toBeGreaterThan(30)
})

it('one finger lies across where two would stand side by side under a full hand', () => {
  const airs = [
    '"F"F>F F A|"C7"G>F G A|"Dm"F>D "C7"D C|"F"F3 z|]',
    '"F"F>F F A|"Bb"d3 d|"F"c>A A F|"C7"G>F G A|"F"F3 z|]',
    '"F"A2 c2|"Bb"d2 B2|"Gm"B2 A2|"C7"G2 E2|"F"F3 z|]',
  ].map((music) => tuneOfMusic(music, 'M:4/4\nL:1/4\nQ:1/4=92\nK:F'))
  let hands = 0
  for (const tune of [...airs, ...withChords])
    for (const level of [3, 5] as const)
      for (const { pressed } of arrangedScore(tune, 'double-stops', level).arrangement.base.grips) {
        const [first, second, third, last] = [1, 2, 3, 4].map((f) => pressed.find((p) => p.finger === f))
        if (!first || !second || !third || !last) continue
        hands++
        const across = first.fret === second.fret && Math.abs(first.string - second.string) === 1
        expect(across && third.fret > first.fret && last.fret > first.fret, tune.title).toBe(false)
      }
  expect(hands).toBeGreaterThan(10)
})

it('a tune note that is struck again on a mandolin stays where it is, rather than go under the chord that it tops', () => {
  const tune = tuneOfMusic(
    '"F"F>F F A|"C7"G>F G A|"F"F>F A c|"Bb"d3 d|"F"c>A A F|"C7"G>F G A|"Dm"F>D "C7"D C|"F"F4|]',
    'M:4/4\nL:1/4\nQ:1/4=92\nK:F',
  )
  const melody = arrangedScore(tune, 'chord-melody', 3, mandolin).arrangement.base.notes.filter(
    (n) => n.role === 'melody',
  )
  const again = melody.filter((n, i) => {
    const before = melody[i - 1]
    return before && pitchAt(mandolin, before.place) === pitchAt(mandolin, n.place)
  })
  expect(again.length).toBeGreaterThan(4)
  for (const n of again) expect([n.pos, n.place.fret]).toEqual([n.pos, expect.toSatisfy((f) => f <= 5)])
})

it('a fill lies no step from the bass that it is struck with, as an open string does beside a bass that walks by', () => {
  // Traditional, from memory.
  const jig = tuneOfMusic(
    'A|"D"AFA Agf|"Bm"edB "G"BAF|"D"AFA def|"A7"gfg e2A|"D"AFA Agf|"Bm"edB "G"BAF|"D"AFA "A7"faf|"D"ded d2:|\n' +
      'f/g/|"D"aba afd|"G"bab bge|"D"aba afd|"A7"gfg e2A|"D"aba "A7"agf|"G"gfg "Bm"efg|"D"Ace "A7"gec|"D"ded d2:|',
    'M:6/8\nL:1/8\nQ:3/8=100\nK:D',
  )
  const close: unknown[] = []
  let fills = 0
  for (const style of ['melody-bass', 'alternating-bass', 'arpeggio'] as const)
    for (const tune of [jig, ...withChords.slice(0, 6)])
      for (const struck of onsetsOf(arrangeTune(tune, style, 5).json)) {
        const bass = struck.find((n) => n.role === 'bass')
        for (const fill of struck.filter((n) => n.role === 'fill' || n.role === 'harmony')) {
          fills++
          if (bass && Math.abs(fill.midi - bass.midi) < 3) close.push([style, tune.title, fill.start])
        }
      }
  expect(fills).toBeGreaterThan(200)
  expect(close).toEqual([])
})

it('a second voice lies over the bass that it is struck with: the chord is not turned over', () => {
  const under: unknown[] = []
  let three = 0
  for (const tune of withChords.slice(0, 8))
    for (const level of [4, 5] as const)
      for (const struck of onsetsOf(arrangeTune(tune, 'double-stops', level).json)) {
        const bass = struck.find((n) => n.role === 'bass')
        const second = struck.find((n) => n.role === 'harmony')
        if (!bass || !second) continue
        three++
        if (second.midi - bass.midi < 3) under.push([tune.title, level, bass.start])
      }
  expect(three).toBeGreaterThan(50)
  expect(under).toEqual([])
})

it('a tune does not go up the neck to be slurred over a third, where it lies under the hand', () => {
  // Traditional, from memory: A, F sharp and A are on strings 3 and 4 under the first position.
  const jig = tuneOfMusic(
    'A|"D"AFA Agf|"Bm"edB "G"BAF|"D"AFA def|"A7"gfg e2A|"D"AFA Agf|"Bm"edB "G"BAF|"D"AFA "A7"faf|"D"ded d2|]',
    'M:6/8\nL:1/8\nQ:3/8=100\nK:D',
  )
  const low = arrangeTune(jig, 'flatpicked-lead', 5).json.notes.filter(
    (n) => n.role === 'melody' && n.midi === 57,
  )
  expect(low.length).toBeGreaterThan(8)
  for (const n of low) expect([n.start, n.string, n.fret]).toEqual([n.start, 3, 2])
})

it('a low tune note that is held has the chord lightly over it, where nothing fits between it and the bass', () => {
  // Traditional, from memory; in the second measure E on string 4 lies over the open A.
  const line = '"G"G B/A/G/F/|"Am"E2 "D7"F|"G"G>A B|"C"c2 "D7"d|"G"B2 "Em"B|"Am"A2 "D7"A|"G"G3-|G2'
  const tune = tuneOfMusic(`D|${line} D|${line}|]`, 'M:3/4\nL:1/4\nQ:1/4=112\nK:G')
  const { json } = arrangeTune(tune, 'alternating-bass', 3)
  const low = json.notes.find((n) => n.role === 'melody' && n.midi === 52)!
  const over = json.notes.filter(
    (n) => n.role === 'fill' && n.start > low.start && n.start < low.start + low.duration,
  )
  expect(low.string).toBe(4)
  expect(over.length).toBeGreaterThan(0)
  for (const n of over) expect(n.string).toBeLessThan(low.string)
})

/** Ends on its root on the fifth string, as low as the instrument has it; low notes before it. */
const lowTune = tuneOfMusic(
  'E,F,|"C"G,2A,2 C2D2|"C"G2 A2 G2 FE|"F"A,2 A,2 C2 A,2|"C"G,2 E,2 E,2 D,2|"G7"D,2 E,2 F,2 E,2|"C"C,8|]',
  'M:4/4\nL:1/8\nK:C',
)

it('a tune that ends on the lowest root has nothing under it', () => {
  for (const style of ['melody-bass', 'alternating-bass'] as const)
    for (const level of [1, 2, 3, 4, 5] as const) {
      const { json } = arrangeTune(lowTune, style, level)
      const last = onsetsOf(json)
        .filter((o) => o.some((n) => n.role === 'melody'))
        .at(-1)!
      expect(last[0]).toMatchObject({ role: 'melody', string: 5, fret: 3 })
    }
})

it('fills over a low tune lie on the strings next to it', () => {
  for (const style of ['melody-bass', 'alternating-bass'] as const) {
    const { json } = arrangeTune(lowTune, style, 5)
    for (const fill of json.notes.filter((n) => n.role === 'fill')) {
      const tune = json.notes.findLast((n) => n.role === 'melody' && n.start <= fill.start)!
      if (tune.string >= 4) expect(tune.string - fill.string).toBeLessThanOrEqual(2)
    }
  }
})

it('a pickup is heard with the chord that it leads to: under its E lies no tone of A minor', () => {
  const { plan } = arrangeTune(lowTune, 'double-stops', 3)
  const [first] = plan.inner
  expect(first!.start).toBeLessThan(plan.harmony[0]!.start)
  // E over C and over G: the third and the sixth, which are both of C major; neither its fifth nor its fourth is.
  expect(first!.second.map((s) => s.midi % 12).sort()).toEqual([0, 7])
})

describe('a pinch', () => {
  it('is a chord where its root comes high: not one tone in three octaves', () => {
    const highRoots = tuneOfMusic('"D"F2D2|"A"A4|"D"F2A2|"A"A2E2|"G"G4|"A"A4|"D"D4|', 'M:4/4\nL:1/4\nK:D')
    for (const style of ['melody-bass', 'alternating-bass', 'arpeggio'] as const) {
      const { json } = arrangeTune(highRoots, style, 5)
      const pinches = onsetsOf(json).filter((o) => o.length === 3)
      expect(pinches.length, style).toBeGreaterThan(4)
      expect(pinches.filter((o) => new Set(o.map((n) => n.midi % 12)).size === 1)).toEqual([])
    }
  })
})

describe('a chord low down', () => {
  it('has a fifth rather than a second that beats: E and B under a tune that stops on low E', () => {
    const turnaround = tuneOfMusic('"Am"c2A2|A4|"E7"B2^G2|"E7"B2E2|', 'M:4/4\nL:1/4\nK:Am')
    for (const style of ['melody-bass', 'chord-melody'] as const)
      for (const level of [3, 5] as const) {
        const { json } = arrangeTune(turnaround, style, level)
        // Seconds below E♭3 are what arrangers call mud. From memory, no source.
        const rough = onsetsOf(json).filter((notes) =>
          notes.some((n, i) => i > 0 && n.midi - notes[i - 1]!.midi <= 2 && notes[i - 1]!.midi < 51),
        )
        expect(
          rough.map((o) => o.map((n) => n.midi)),
          `${style} ${level}`,
        ).toEqual([])
      }
  })
})
