import { present } from '../../invariant.ts'
import { groupBy } from 'es-toolkit'
import { measureNumbers } from '../../document/form/measureNumbers.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { finish, mapInTurns, type Turns } from '../../turns.ts'
import type { LessonStep } from '../steps/lessonStep.ts'
import { lessonSteps } from '../steps/lessonSteps.ts'
import { keptIn, rowsOf, type Row } from '../steps/rows.ts'
import type { StepHarmony } from '../steps/alongside.ts'
import { harmonyText, lengthsText } from './alongsideText.ts'
import { countText, stepSentences, wordsAt, type NameOf } from './stepText.ts'
import { fill } from './template.ts'
import { ROW_SIGN, type Wording } from './words/wording.ts'

/** A line of the script: one step, or a row of them. */
export interface ScriptLine {
  readonly text: string
  /** Index of its first step. */
  readonly first: number
  readonly steps: number
}

/** One measure of a lesson in words. */
export interface MeasureScript {
  /** Index of the measure. */
  readonly measure: number
  /** The pass on which it is played so, where it is played otherwise on the others. */
  readonly pass?: number
  readonly title: string
  /** Strings that are not played in it; absent where all are. */
  readonly silent?: string
  readonly lines: readonly ScriptLine[]
}

/**
 * The whole tab as a script, measure by measure; measures in which nothing happens are left out.
 * @param nameOf present where notes are called by name as well
 */
export const lessonScript = (
  tune: TuneDoc,
  doc: Pick<ArrangementDoc, 'base' | 'setup'>,
  words: Wording,
  steps: readonly LessonStep[] = lessonSteps(tune, doc),
  nameOf?: NameOf,
): MeasureScript[] => finish(scripting(tune, doc, words, steps, nameOf))

/** Measures between two turns. */
const A_TURN = 32

/** The same, giving its turn back. */
export function* scripting(
  tune: TuneDoc,
  doc: Pick<ArrangementDoc, 'setup'>,
  words: Wording,
  steps: readonly LessonStep[],
  nameOf?: NameOf,
): Turns<MeasureScript[]> {
  const numbers = measureNumbers(tune.measures)
  let first = 0
  const scriptOf = (own: readonly LessonStep[]): MeasureScript => {
    const { measure, pass } = own[0]!
    const silent = silentStrings(own, doc.setup.instrument.strings)
    const lines = rowsOf(own).map((row): ScriptLine => {
      const line = { text: rowText(row, words, nameOf), first, steps: row.steps.length }
      first += row.steps.length
      return line
    })
    return {
      measure,
      ...(pass === undefined ? {} : { pass }),
      title:
        pass === undefined
          ? measureTitle(numbers[measure]!, words)
          : passTitle(numbers[measure]!, pass, words),
      ...(silent.length > 0
        ? { silent: fill(words.silent[silent.length > 1 ? 'more' : 'one'], { strings: silent.join(', ') }) }
        : {}),
      lines,
    }
  }
  const measures = Object.values(groupBy(steps, (s) => `m${s.measure} ${s.pass ?? ''}`))
  return yield* mapInTurns(measures, scriptOf, A_TURN)
}

/** The title of a measure by its number; a pickup has none. */
export const measureTitle = (number: number, words: Wording): string =>
  number === 0 ? words.pickup : fill(words.measure, { number })

/** The title of a measure, or of the measures between two numbers, as it is played on one pass. */
export const passTitle = (number: number | string, pass: number, words: Wording): string =>
  fill(words.measureOnPass, { number, time: words.times[pass - 1] ?? pass })

function rowText(row: Row, plain: Wording, nameOf: NameOf | undefined): string {
  const first = row.steps[0]!
  const words = wordsAt(first, plain)
  if (row.string === undefined && row.position === undefined)
    return fill(words.line, {
      count: countText(first.count, words),
      rest: sentences(stepSentences(first, plain, nameOf)),
    }).trimEnd()
  const kept = present(keptIn(first))
  const keep =
    kept.length > 0
      ? [fill(words.hand.stays, { fingers: kept.map((f) => words.fingers[f.finger]).join(', ') })]
      : []
  const rings = first.ringing.length > 0 ? [fill(words.ringing, { strings: first.ringing.join(', ') })] : []
  const shift = first.shift ? [fill(words.hand.shift, { to: first.shift.to })] : []
  const items = row.steps.map((s) => itemText(s, row, words, nameOf)).join(ROW_SIGN)
  const said =
    row.string === undefined
      ? fill(words.row.position, { position: present(row.position), items })
      : fill(words.row.string, { string: row.string, items })
  return sentences([...keep, ...shift, ...rings, ...alongsideOfRow(row, words), said])
}

/** Harmony of a row, chord by chord, and the lengths of its notes in order. */
function alongsideOfRow({ steps }: Row, words: Wording): string[] {
  const chords: StepHarmony[] = []
  for (const { harmony } of steps) {
    if (!harmony) continue
    const last = chords.at(-1)
    if (last?.chord === harmony.chord)
      chords[chords.length - 1] = { ...last, degrees: [...last.degrees, ...harmony.degrees] }
    else chords.push({ chord: harmony.chord, degrees: harmony.degrees })
  }
  const lengths = steps.flatMap((s) => s.lengths ?? [])
  return [
    ...chords.map((harmony) => harmonyText(harmony, words)),
    ...(lengths.length > 0 ? [lengthsText(lengths, words)] : []),
  ]
}

const sentences = (list: readonly string[]): string => list.map((t) => `${t}.`).join(' ')

/** One note of a row with its count. */
function itemText(
  { notes, count }: LessonStep,
  { string }: Row,
  words: Wording,
  nameOf: NameOf | undefined,
): string {
  const n = notes[0]!
  const { row, place, fingers } = words
  const finger = n.finger === undefined ? '' : fingers[n.finger]
  const template =
    string === undefined
      ? n.fret === 0
        ? row.stringOpen
        : row.stringFret
      : n.fret === 0
        ? row.open
        : row.fret
  let note = fill(template, { string: n.string, fret: n.fret, finger })
  if (nameOf) note = fill(place.named, { place: note, name: nameOf(n.string, n.fret) })
  if (n.picking !== undefined && n.picking !== 'none')
    note = fill(place.picked, { place: note, picking: words.picking[n.picking] })
  return fill(row.item, { count: countText(count, words), note })
}

/** Strings that neither are struck nor ring on in some steps, the lowest first. */
function silentStrings(steps: readonly LessonStep[], strings: number): number[] {
  const heard = new Set(steps.flatMap((s) => [...s.notes.map((n) => n.string), ...s.ringing]))
  return Array.from({ length: strings }, (_, i) => strings - i).filter((s) => !heard.has(s))
}

/** The script as plain text. */
export const scriptText = (script: readonly MeasureScript[]): string =>
  script
    .map(({ title, silent, lines }) =>
      [title, ...(silent ? [`${silent}.`] : []), ...lines.map((l) => l.text)].join('\n'),
    )
    .join('\n\n')
