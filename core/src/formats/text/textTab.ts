import { measureNumbers } from '../../form/measureNumbers.ts'
import type { Timeline } from '../../form/timeline.ts'
import { chordText } from '../../harmony/chordSymbol.ts'
import type { Id } from '../../model/ids.ts'
import type { Layer, TabNote } from '../../model/arrangement.ts'
import type { Measure, TuneDoc } from '../../model/tune.ts'
import { OCTAVE, type Setup } from '../../neck/setup.ts'
import { nameText, plainName } from '../../pitch/pitch.ts'
import type { HarmonySegment } from '../../plan/harmonyLine.ts'
import { QUARTER, type Ticks } from '../../time/ticks.ts'

export interface TextTabInput {
  readonly tune: TuneDoc
  readonly timeline: Timeline
  readonly setup: Setup
  readonly layer: Layer
  readonly harmony: readonly HarmonySegment[]
}

/** Widest line of a plain-text tab, in characters. */
const LINE_WIDTH = 78

/** One dash is a sixteenth; shorter notes get a column of their own. */
const CELL: Ticks = QUARTER / 4

interface Block {
  readonly rows: readonly string[]
  readonly chords: string
  /** Measure number, and the ending where one starts. */
  readonly heading: string
}

/**
 * The tab as plain text in a fixed-width font: chord names as shapes, six lines, measure numbers, repeats and endings.
 */
export function textTab(input: TextTabInput): string {
  const { tune, setup } = input
  const tuning = [...setup.tuning]
    .reverse()
    .map((m) => nameText(plainName(m, false)))
    .join(' ')
  const capo = setup.capo[0]!
  const head = [
    tune.title,
    ...(tune.composer ? [tune.composer] : []),
    `Tuning ${tuning}${capo > 0 ? `, capo ${capo}; chord names are shapes` : ''}`,
  ]
  const numbers = measureNumbers(tune.measures)
  const blocks = tune.measures.map((m, i) => blockOf(input, m, i, numbers[i]!))
  const names = setup.tuning.map((m) => nameText(plainName(m, false)).padEnd(2))
  const lines: string[] = []
  for (let i = 0; i < blocks.length;) {
    const system: Block[] = []
    let width = 3
    while (i < blocks.length && (system.length === 0 || width + blocks[i]!.rows[0]!.length <= LINE_WIDTH)) {
      width += blocks[i]!.rows[0]!.length
      system.push(blocks[i++]!)
    }
    lines.push('', `   ${system.map((b) => b.heading.padEnd(b.rows[0]!.length)).join('')}`.trimEnd())
    lines.push(`   ${system.map((b) => b.chords).join('')}`.trimEnd())
    names.forEach((name, s) => lines.push(`${name}|${system.map((b) => b.rows[s]!).join('')}`))
  }
  return [...head, ...lines, ''].join('\n')
}

function blockOf(input: TextTabInput, measure: Measure, index: number, number: number): Block {
  const { timeline, layer, harmony } = input
  const start = timeline.starts[index]!
  const notes = layer.notes.filter((n) => n.pos.measure === measure.id)
  const chordsHere = harmony.filter((h) => h.start >= start && h.start < start + measure.length)
  const frets = slidFrom(layer)
  const onsets = [
    ...new Set([...notes.map((n) => n.pos.tick), ...chordsHere.map((h) => h.start - start)]),
  ].sort((a, b) => a - b)
  const leads = new Map(notes.map((n) => [n.id, leadText(n, frets)]))
  const [room, tail] = [new Map<Ticks, number>(), new Map<Ticks, number>()]
  const atLeast = (of: Map<Ticks, number>, tick: Ticks, n: number) =>
    of.set(tick, Math.max(of.get(tick) ?? 0, n))
  for (const n of notes) {
    atLeast(room, n.pos.tick, leads.get(n.id)!.length)
    atLeast(tail, n.pos.tick, fretText(n).length)
  }
  const columns = columnsOf(onsets, measure.length, room, tail)
  const width = columns.width
  const open = measure.repeatStart ? ':' : ''
  const close =
    measure.repeatEnd > 1 ? ':|' : measure.barline === 'final' || measure.barline === 'double' ? '||' : '|'
  const rows = Array.from({ length: input.setup.instrument.strings }, (_, s) => {
    const cells = new Array<string>(width).fill('-')
    for (const n of notes) {
      if (n.place.string !== s + 1) continue
      const lead = leads.get(n.id)!
      put(cells, columns.at.get(n.pos.tick)! - lead.length, lead + fretText(n))
    }
    return (
      (s === 2 || s === 3 ? open.padEnd(1, '-') : '-') +
      cells.join('') +
      (close.startsWith(':') && s !== 2 && s !== 3 ? '-|' : close)
    )
  })
  const line = new Array<string>(rows[0]!.length).fill(' ')
  for (const h of chordsHere) {
    put(line, 1 + columns.at.get(h.start - start)!, h.shape ? chordText(h.shape) : h.symbol)
  }
  const ending =
    measure.endings.length > 0 && input.tune.measures[index - 1]?.endings.join() !== measure.endings.join()
  const heading = `${number}${ending ? ` [${measure.endings.join(',')}.` : ''}`
  return { rows, chords: line.slice(0, rows[0]!.length).join(''), heading }
}

/**
 * What stands before a fret: its grace notes, and the sign of an arrival: `h` hammer-on, `p` pull-off, `b` bend, `r` release,
 * slides as they go.
 */
function leadText(note: TabNote, before: ReadonlyMap<Id, number>): string {
  const chain = [...(note.graces ?? []), note]
  let text = ''
  chain.forEach(({ place, attack }, i) => {
    const last = i === 0 ? before.get(note.id) : chain[i - 1]!.place.fret
    if (attack === 'hammer') text += 'h'
    else if (attack === 'pull') text += 'p'
    else if (attack === 'bend') text += 'b'
    else if (attack === 'release') text += 'r'
    else if (attack === 'slide') text += last !== undefined && last > place.fret ? '\\' : '/'
    if (i === chain.length - 1) return
    const fret = note.graces?.[i]?.optional ? `(${place.fret})` : String(place.fret)
    text += (i > 0 && attack === 'pluck' ? '-' : '') + fret
  })
  return text
}

/**
 * Harmonics stand in angle brackets (an artificial one behind the fret that is stopped), muted strings are crosses, what
 * may be left out, and the fret that a bend sounds like, in brackets; `^` where the string is up before the stroke.
 */
function fretText({ place, attack, optional, bend }: TabNote): string {
  if (bend) return attack === 'bend' ? `(${place.fret + bend})` : `${place.fret}^(${place.fret + bend})`
  const text =
    attack === 'muted'
      ? 'x'
      : place.harmonic
        ? `<${place.fret}>`
        : place.artificial
          ? `${place.fret}<${place.fret + OCTAVE}>`
          : String(place.fret)
  return optional ? `(${text})` : text
}

/** The fret from which each joined note is reached. */
function slidFrom({ notes, spans }: Layer): Map<Id, number> {
  const fretOf = new Map(notes.map((n) => [n.id, n.place.fret]))
  return new Map(spans.map((s) => [s.to, fretOf.get(s.from) ?? 0]))
}

function put(cells: string[], at: number, text: string): void {
  for (let i = 0; i < text.length && at + i < cells.length; i++) cells[at + i] = text[i]!
}

/**
 * A column for each onset: one dash a sixteenth, at least room for two digits and a dash.
 * @param room characters that stand before an onset's frets
 * @param tail characters that its frets take
 */
function columnsOf(
  onsets: readonly Ticks[],
  length: Ticks,
  room: ReadonlyMap<Ticks, number>,
  tail: ReadonlyMap<Ticks, number>,
): { at: Map<Ticks, number>; width: number } {
  const at = new Map<Ticks, number>()
  let column = 0
  onsets.forEach((tick, i) => {
    const before = onsets[i - 1]
    const lead = room.get(tick) ?? 0
    column =
      before === undefined
        ? Math.max(lead, Math.round(tick / CELL))
        : column +
          Math.max(
            3,
            (tail.get(before) ?? 0) + 1 + lead,
            lead + (lead > 1 ? 2 : 0),
            Math.round((tick - before) / CELL),
          )
    at.set(tick, column)
  })
  const last = onsets.at(-1) ?? 0
  const end = Math.max(3, (tail.get(last) ?? 0) + 1, Math.round((length - last) / CELL))
  return { at, width: column + end }
}
