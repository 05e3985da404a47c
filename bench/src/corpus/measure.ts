import { bassPitchClass, mod12, readChordSymbol } from '@velvet-porch/core/music'
import { fingersOf, lastFret, pitchAt, placesOf, type Setup } from '@velvet-porch/core/instrument'
import type { Layer, Region, TuneDoc } from '@velvet-porch/core/document'
import { handFault, type Pressed } from '@velvet-porch/core/hand'
import { heldShapesFor } from '@velvet-porch/core/chords'
import { arranging, type Plan, type SolveMemory } from '@velvet-porch/core/arrange'
import { audit, STRUCTURAL, type AuditReport } from '@velvet-porch/core/audit'
import { finishedTabOf, tabJson, type TabJson } from '@velvet-porch/core/output'
import { finish } from '@velvet-porch/core/turns'

import { lessonDiffers } from './lesson.ts'

/** An arrangement as the corpus looks at it: the finished page and what the audit says. */
export interface Arrangement {
  readonly tune: TuneDoc
  readonly json: TabJson
  readonly report: AuditReport
  readonly layer: Layer
  readonly plan: Plan
  readonly ms: number
}

export function arrangeFor(
  tune: TuneDoc,
  setup: Setup,
  regions: readonly Region[],
  memory?: SolveMemory,
): Arrangement {
  const started = performance.now()
  const { plan, layer } = finish(arranging(tune, setup, regions, memory ? { memory } : {}))
  const ms = performance.now() - started
  const json = tabJson(tune, setup, plan, layer, [], 0)
  return { tune, json, report: audit(finishedTabOf(json)), layer, plan, ms }
}

/** Counts of everything that is checked; sums of many arrangements are added field by field. */
export interface Counts {
  arrangements: number
  structural: number
  melodyNotes: number
  melodyKept: number
  harmonyChanges: number
  roots: number
  /** Missing roots that exhaustive search over the hard rules confirms: no hand could have them. */
  rootsImpossible: number
  textbookFingers: number
  textbookChanges: number
  crossings: number
  crossingsRinging: number
  strokes: number
  strokesRepeated: number
  hops: number
  repeatedMeasures: number
  repeatedUnlike: number
  notes: number
  /** Lessons from whose words the tab cannot be had again. */
  lessonsWrong: number
  ms: number
}

export const NOTHING: Counts = {
  arrangements: 0,
  structural: 0,
  melodyNotes: 0,
  melodyKept: 0,
  harmonyChanges: 0,
  roots: 0,
  rootsImpossible: 0,
  textbookFingers: 0,
  textbookChanges: 0,
  crossings: 0,
  crossingsRinging: 0,
  strokes: 0,
  strokesRepeated: 0,
  hops: 0,
  repeatedMeasures: 0,
  repeatedUnlike: 0,
  notes: 0,
  lessonsWrong: 0,
  ms: 0,
}

export function added(a: Counts, b: Counts): Counts {
  return Object.fromEntries(
    Object.keys(a).map((k) => [k, a[k as keyof Counts] + b[k as keyof Counts]]),
  ) as unknown as Counts
}

/** Everything that can be counted on a finished page. */
export function countsOf(setup: Setup, made: Arrangement): Counts {
  const { tune, json, report, layer, ms } = made
  const ringing = ringingCrossings(json)
  const strokes = strokeTurns(json)
  const textbook = textbookFingers(setup, json)
  const repeats = repeatedMeasures(json)
  return {
    arrangements: 1,
    lessonsWrong: lessonDiffers(tune, setup, layer) ? 1 : 0,
    structural: report.findings.filter((f) => STRUCTURAL.has(f.kind)).length,
    melodyNotes: report.melodyNotes,
    melodyKept: report.melodyKept,
    harmonyChanges: report.harmonyChanges,
    roots: report.rootsInBass,
    rootsImpossible: report.findings.filter(
      (f) => (f.kind === 'noRoot' || f.kind === 'wrongRoot') && !rootExists(setup, json, f.start),
    ).length,
    textbookFingers: textbook.kept,
    textbookChanges: textbook.changes,
    crossings: ringing.crossings,
    crossingsRinging: ringing.ringing,
    strokes: strokes.turns,
    strokesRepeated: strokes.repeated,
    hops: report.findings.filter((f) => f.kind === 'hop').length,
    repeatedMeasures: repeats.pairs,
    repeatedUnlike: repeats.unlike,
    notes: json.notes.length,
    ms,
  }
}

/**
 * Whether any hand could hold the melody and the chord's root below it at a harmony change: plain search over all
 * places and fingers by the hard rules, knowing nothing of the solver.
 */
export function rootExists(setup: Setup, json: TabJson, start: number): boolean {
  const chord = json.chords.find((c) => c.start === start)
  const reading = chord && readChordSymbol(chord.sounding)
  if (reading?.kind !== 'chord') return false
  const root = bassPitchClass(reading.chord)
  const sounding = json.notes.find(
    (n) => n.role === 'melody' && n.start <= start && n.start + n.duration > start,
  )
  const fingers = fingersOf(setup.player.techniques)
  const { strings } = setup.instrument
  for (const melody of sounding ? placesOf(setup, sounding.midi) : [undefined]) {
    for (let string = 1; string <= strings; string++) {
      if (string === melody?.string) continue
      for (let fret = 0; fret <= Math.min(lastFret(setup, string), 17); fret++) {
        const midi = pitchAt(setup, { string, fret })
        if (mod12(midi) !== root || (sounding && midi >= sounding.midi)) continue
        for (const m of melody && melody.fret > 0 ? fingers : [0]) {
          for (const b of fret > 0 ? fingers : [0]) {
            const pressed: Pressed[] = []
            if (melody && m > 0) pressed.push({ string: melody.string, fret: melody.fret, finger: m })
            if (b > 0) pressed.push({ string, fret, finger: b })
            const open = [...(melody?.fret === 0 ? [melody.string] : []), ...(fret === 0 ? [string] : [])]
            if (m > 0 && m === b) continue
            if (!handFault(setup, setup.player.spans, pressed, open)) return true
          }
        }
      }
    }
  }
  return false
}

/** Of the melody's steps from string to string, those whose first note rings into the second. */
export function ringingCrossings(json: TabJson): { crossings: number; ringing: number } {
  const melody = json.notes.filter((n) => n.role === 'melody').sort((a, b) => a.start - b.start)
  let crossings = 0
  let ringing = 0
  melody.forEach((note, i) => {
    const before = melody[i - 1]
    if (!before || before.start + before.duration !== note.start || before.midi === note.midi) return
    if (before.measure !== note.measure) return
    crossings++
    if (before.string !== note.string && before.ring > before.duration) ringing++
  })
  return { crossings, ringing }
}

/** Strokes of a pick that follow one another within a beat, and those that do not turn. */
export function strokeTurns(json: TabJson): { turns: number; repeated: number } {
  const onsets = [...new Map(json.notes.map((n) => [n.start, n])).values()].sort((a, b) => a.start - b.start)
  let turns = 0
  let repeated = 0
  onsets.forEach((note, i) => {
    const before = onsets[i - 1]
    const isStroke = (sign: string) => sign === 'down' || sign === 'up'
    if (!before || !isStroke(note.rightFinger) || !isStroke(before.rightFinger)) return
    turns++
    if (note.rightFinger === before.rightFinger) repeated++
  })
  return { turns, repeated }
}

/** At each chord change, whether the struck notes have the fingers that a first book prints for the shape. */
export function textbookFingers(setup: Setup, json: TabJson): { kept: number; changes: number } {
  let kept = 0
  let changes = 0
  for (const chord of json.chords) {
    const reading = readChordSymbol(chord.symbol)
    if (reading.kind !== 'chord') continue
    const book = heldShapesFor(reading.chord, setup)[0]
    if (!book?.textbook) continue
    const struck = json.notes.filter((n) => n.start === chord.start)
    if (struck.length === 0) continue
    const inBook = struck.filter((n) => n.fret > 0 && book.frets[n.string - 1] === n.fret)
    changes++
    const fits = inBook.every((n) => {
      const own = book.pressed.find((p) => p.string === n.string)
      return own !== undefined && own.finger === n.leftFinger
    })
    const bass = struck.find((n) => n.role === 'bass')
    const ownBass = book.frets.findLastIndex((f) => f !== null) + 1
    if (fits && (!bass || bass.string === ownBass)) kept++
  }
  return { kept, changes }
}

/**
 * Measures with the same source and chords as an earlier one, the same note held into them, and those of them that are not
 * played alike.
 */
export function repeatedMeasures(json: TabJson): { pairs: number; unlike: number } {
  const first = new Map<string, string>()
  let pairs = 0
  let unlike = 0
  for (const m of json.tune.measures) {
    const inside = <T extends { start: number }>(list: readonly T[]) =>
      list.filter((x) => x.start >= m.start && x.start < m.start + m.length)
    const source = inside(json.source).map((n) => `${n.start - m.start}/${n.duration}/${n.midi}`)
    const into = json.source.filter((n) => n.start < m.start && n.start + n.duration > m.start)
    const wanted = inside(json.chords).map((c) => `${c.start - m.start}${c.sounding}`)
    const before = json.chords.filter((c) => c.start <= m.start).at(-1)?.sounding
    const notes = json.notes.filter((n) => n.measure === m.index)
    const strike = (role: string) => notes.filter((n) => n.role === role).map((n) => n.start - m.start)
    const content = JSON.stringify([
      m.length,
      m.metre,
      source,
      into.map((n) => n.midi),
      wanted,
      before,
      strike('bass'),
      strike('fill'),
      strike('harmony'),
    ])
    const played = JSON.stringify(
      notes.map((n) => [n.start - m.start, n.string, n.fret, n.leftFinger, n.role]).sort(),
    )
    const known = first.get(content)
    if (known === undefined) {
      first.set(content, played)
      continue
    }
    pairs++
    if (known !== played) unlike++
  }
  return { pairs, unlike }
}
