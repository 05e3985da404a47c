import { knownIn } from '../../invariant.ts'
import { measureNumbers } from '../../document/form/measureNumbers.ts'
import { measureAt, ticksAt, type Timeline } from '../../document/form/timeline.ts'
import { chordText } from '../../music/harmony/chordSymbol.ts'
import type { Id } from '../../document/ids.ts'
import type { Layer } from '../../document/arrangement.ts'
import type { TabNote } from '../../document/tab.ts'
import type { Measure, TuneDoc } from '../../document/tune.ts'
import { OCTAVE, type Setup } from '../../instrument/setup.ts'
import { nameText, plainName } from '../../music/pitch/pitch.ts'
import type { HarmonySegment } from '../../arrange/plan/harmonyLine.ts'
import { QUARTER, type Ticks } from '../../music/time/ticks.ts'
import { barNotes } from '../../document/barNotes.ts'
import { BAR_SIGN, HELD_SIGN, REST_SIGN, rhythmText, SUGGESTED_LINE } from './tabSigns.ts'

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
  /** Stretches that the palm damps, or that ring on. */
  readonly touches: string
  /** Letters of the time from each onset to the next. */
  readonly rhythm: string
  /** Fingers of the fretting hand and of the picking hand under each onset, from the lowest string. */
  readonly left: string
  readonly right: string
  /** Measure number, and the ending where one starts. */
  readonly heading: string
}

/**
 * The tab as plain text in a fixed-width font: chord names as shapes, the rhythm in letters, a line a string, the fingers
 * of both hands, measure numbers, repeats and endings, and what the signs mean.
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
    ...(tune.chords.length > 0 && tune.chords.every((c) => c.origin === 'suggested') ? [SUGGESTED_LINE] : []),
  ]
  const numbers = measureNumbers(tune.measures)
  const joins = joinsOf(input.layer, input.timeline)
  const held = heldOver(input)
  const notesOf = byMeasure(input.layer.notes)
  const harmonyOf = harmonyByMeasure(input)
  const blocks = tune.measures.map((m, i) =>
    blockOf(input, m, i, numbers[i]!, notesOf.get(m.id) ?? [], harmonyOf[i]!, joins, held.get(i) ?? []),
  )
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
    const touches = system.map((b) => b.touches).join('')
    if (touches.trim() !== '') lines.push(`   ${touches}`.trimEnd())
    lines.push(`   ${system.map((b) => b.rhythm).join('')}`.trimEnd())
    names.forEach((name, s) => lines.push(`${name}|${system.map((b) => b.rows[s]!).join('')}`))
    for (const [name, of] of HANDS) {
      const own = system.map((b) => b[of]).join('')
      if (own.trim() !== '') lines.push(`${name} ${own}`.trimEnd())
    }
  }
  return [...head, ...lines, '', ...LEGEND, ''].join('\n')
}

const HANDS = [
  ['LH', 'left'],
  ['RH', 'right'],
] as const

/** What the signs of a plain-text tab mean. */
const LEGEND = [
  'Over the strings: time to the next note, w whole, h half, q quarter, e eighth, s sixteenth, t thirty-second,',
  'f sixty-fourth; . dotted, 3 of a triplet, z silence first. LH fretting fingers, RH picking hand, low string first.',
  'h hammer-on, p pull-off, / \\ slide (before or behind one fret: in from nowhere, off to nowhere), b bend,',
  'r release, ^ bent before the stroke, ~ vibrato, x muted, <> harmonic, () may be left out,',
  '{} cents beside the fret, B the bottleneck, = sounds on over the bar line, PM damped by the palm.',
]

function byMeasure(notes: readonly TabNote[]): Map<Id, TabNote[]> {
  const own = new Map<Id, TabNote[]>()
  for (const n of notes) {
    const here = own.get(n.pos.measure)
    if (here) here.push(n)
    else own.set(n.pos.measure, [n])
  }
  return own
}

/** The chords that begin in each measure. */
function harmonyByMeasure({ tune, timeline, harmony }: TextTabInput): HarmonySegment[][] {
  const own: HarmonySegment[][] = tune.measures.map(() => [])
  for (const h of harmony) own[measureAt(timeline, h.start)]?.push(h)
  return own
}

function blockOf(
  input: TextTabInput,
  measure: Measure,
  index: number,
  number: number,
  notes: readonly TabNote[],
  chordsHere: readonly HarmonySegment[],
  joins: Joins,
  held: readonly number[],
): Block {
  const { timeline } = input
  const start = timeline.starts[index]!
  const onsets = [
    ...new Set([
      ...notes.map((n) => n.pos.tick),
      ...chordsHere.map((h) => h.start - start),
      ...(held.length > 0 ? [0] : []),
    ]),
  ].sort((a, b) => a - b)
  const leads = new Map(notes.map((n) => [n.id, leadText(n, joins.fretBefore)]))
  const frets = new Map(notes.map((n) => [n.id, fretText(n, joins.wayOn.get(n.id))]))
  const [room, tail] = [new Map<Ticks, number>(), new Map<Ticks, number>()]
  const atLeast = (of: Map<Ticks, number>, tick: Ticks, n: number) =>
    of.set(tick, Math.max(of.get(tick) ?? 0, n))
  for (const n of notes) {
    atLeast(room, n.pos.tick, knownIn(leads, n.id).length)
    atLeast(tail, n.pos.tick, knownIn(frets, n.id).length)
  }
  const struck = [...new Set([...notes.map((n) => n.pos.tick), ...(held.length > 0 ? [0] : [])])].sort(
    (a, b) => a - b,
  )
  const times = rhythmOf(struck, measure.length)
  const hands = {
    left: handLine(notes, (n) => (joins.onBar.has(n.id) ? BAR_SIGN : n.left === 0 ? '' : String(n.left))),
    right: handLine(notes, signOf),
  }
  for (const of of [times.letters, hands.left, hands.right])
    for (const [tick, text] of of) atLeast(tail, tick, text.length)
  const touches = touchStretches(notes)
  for (const { from, word } of touches) atLeast(tail, from, word.length + 1)
  if (times.silence !== '' && struck.length > 0) atLeast(room, struck[0]!, times.silence.length + 1)
  const columns = columnsOf(onsets, measure.length, room, tail)
  const width = columns.width
  const open = measure.repeatStart ? ':' : ''
  const close =
    measure.repeatEnd > 1 ? ':|' : measure.barline === 'final' || measure.barline === 'double' ? '||' : '|'
  const rows = Array.from({ length: input.setup.instrument.strings }, (_, s) => {
    const cells = new Array<string>(width).fill('-')
    if (held.includes(s + 1)) put(cells, knownIn(columns.at, 0), HELD_SIGN)
    for (const n of notes) {
      if (n.place.string !== s + 1) continue
      const lead = knownIn(leads, n.id)
      put(cells, knownIn(columns.at, n.pos.tick) - lead.length, lead + knownIn(frets, n.id))
    }
    return (
      (s === 2 || s === 3 ? open.padEnd(1, '-') : '-') +
      cells.join('') +
      (close.startsWith(':') && s !== 2 && s !== 3 ? '-|' : close)
    )
  })
  const line = new Array<string>(rows[0]!.length).fill(' ')
  for (const h of chordsHere) {
    put(line, 1 + knownIn(columns.at, h.start - start), h.shape ? chordText(h.shape) : h.symbol)
  }
  const ending =
    measure.endings.length > 0 && input.tune.measures[index - 1]?.endings.join() !== measure.endings.join()
  const spread = (texts: ReadonlyMap<Ticks, string>) => {
    const own = new Array<string>(rows[0]!.length).fill(' ')
    for (const [tick, text] of texts) put(own, 1 + knownIn(columns.at, tick), text)
    return own
  }
  const touched = new Array<string>(rows[0]!.length).fill(' ')
  for (const { from, to, word } of touches) {
    const [first, last] = [knownIn(columns.at, from), knownIn(columns.at, to)]
    put(touched, 1 + first, `${word.padEnd(last - first, '-')}|`)
  }
  const rhythm = spread(times.letters)
  if (times.silence !== '') put(rhythm, 1, times.silence)
  const heading = `${number}${ending ? ` [${measure.endings.join(',')}.` : ''}`
  return {
    rows,
    chords: line.slice(0, rows[0]!.length).join(''),
    touches: touched.join(''),
    rhythm: rhythm.join(''),
    left: spread(hands.left).join(''),
    right: spread(hands.right).join(''),
    heading,
  }
}

/** What stands over a stretch that is touched in one way; the reader knows these words. */
const TOUCHES = [
  ['palmMute', 'PM'],
  ['letRing', 'let ring'],
] as const

interface TouchStretch {
  readonly from: Ticks
  readonly to: Ticks
  readonly word: string
}

/** Onsets in a row of which every note is damped by the palm, or rings on. */
function touchStretches(notes: readonly TabNote[]): TouchStretch[] {
  const sounding = notes.filter((n) => n.attack !== 'muted')
  const ticks = [...new Set(sounding.map((n) => n.pos.tick))].sort((a, b) => a - b)
  return TOUCHES.flatMap(([mark, word]) => {
    const stretches: { from: Ticks; to: Ticks; word: string }[] = []
    ticks.forEach((tick, i) => {
      const all = (at: Ticks | undefined) =>
        at !== undefined && sounding.filter((n) => n.pos.tick === at).every((n) => n[mark])
      if (!all(tick)) return
      const last = stretches.at(-1)
      if (last && all(ticks[i - 1])) last.to = tick
      else stretches.push({ from: tick, to: tick, word })
    })
    return stretches
  })
}

/** Strings that sound on over the bar line into each measure, and are not struck at its beginning. */
function heldOver({ layer, timeline }: TextTabInput): Map<number, number[]> {
  const { starts } = timeline
  const at = (n: TabNote) => ticksAt(timeline, n.pos)
  const struck = new Set(layer.notes.map((n) => `${at(n)} ${n.place.string}`))
  const held = new Map<number, number[]>()
  for (const n of layer.notes) {
    const end = at(n) + n.dur.ticks
    for (let m = measureAt(timeline, at(n)) + 1; m < starts.length && starts[m]! < end; m++)
      if (!struck.has(`${starts[m]!} ${n.place.string}`))
        held.set(m, [...(held.get(m) ?? []), n.place.string])
  }
  return held
}

/** The time from each onset to the next, and the silence before the first, in letters; nothing where letters cannot say it. */
function rhythmOf(struck: readonly Ticks[], length: Ticks): { letters: Map<Ticks, string>; silence: string } {
  const letters = struck.map((tick, i) => rhythmText((struck[i + 1] ?? length) - tick))
  const first = struck[0] ?? length
  const silence = first > 0 ? rhythmText(first) : ''
  if (silence === undefined || letters.some((l) => l === undefined))
    return { letters: new Map(), silence: '' }
  return {
    letters: new Map(struck.map((tick, i) => [tick, letters[i]!])),
    silence: silence === '' ? '' : REST_SIGN + silence,
  }
}

/** What one hand does at each onset, from the lowest string. */
function handLine(notes: readonly TabNote[], sign: (n: TabNote) => string): Map<Ticks, string> {
  const line = new Map<Ticks, string>()
  for (const n of [...notes].sort((a, b) => b.place.string - a.place.string)) {
    const text = (line.get(n.pos.tick) ?? '') + sign(n)
    if (text !== '') line.set(n.pos.tick, text)
  }
  return line
}

/** A picking sign as one letter: strokes of the pick as `d` and `u`. */
const signOf = ({ right }: TabNote): string =>
  right === 'none' ? '' : right === 'down' ? 'd' : right === 'up' ? 'u' : right

/**
 * What stands before a fret: its grace notes, and the sign of an arrival: `h` hammer-on, `p` pull-off, `b` bend, `r` release,
 * slides as they go.
 */
function leadText(note: TabNote, before: ReadonlyMap<Id, number>): string {
  const chain = [...(note.graces ?? []), note]
  let text = note.slideFromBelow ? '/' : note.slideFromAbove ? '\\' : ''
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
 * may be left out, and the fret that a bend sounds like, in brackets; `^` where the string is up before the stroke. Behind it
 * `~` for vibrato, cents beside the fret in braces and the way of a slide off it.
 * @param wayOn the way of a slide to a later fret that other strings sound before
 */
function fretText(note: TabNote, wayOn = ''): string {
  const off = note.slideOffUp ? '/' : note.slideOffDown ? '\\' : wayOn
  const cents = note.place.offsetCents
  const beside = cents ? `{${cents > 0 ? '+' : ''}${cents}}` : ''
  return plainFretText(note) + (note.vibrato ? '~' : '') + beside + off
}

function plainFretText({ place, attack, optional, bend }: TabNote): string {
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

/** How the notes of a page are joined. */
interface Joins {
  /** The fret from which each joined note is reached. */
  readonly fretBefore: ReadonlyMap<Id, number>
  /** The way of slides during which other strings are sounded, by the note that they begin at. */
  readonly wayOn: ReadonlyMap<Id, string>
  /** What a bottleneck stops. */
  readonly onBar: ReadonlySet<Id>
}

function joinsOf({ notes, spans }: Layer, timeline: Timeline): Joins {
  const byId = new Map(notes.map((n) => [n.id, n]))
  const onsets = [...new Set(notes.map((n) => ticksAt(timeline, n.pos)))].sort((a, b) => a - b)
  const order = new Map(onsets.map((tick, i) => [tick, i]))
  const orderOf = (n: TabNote) => knownIn(order, ticksAt(timeline, n.pos))
  const fretBefore = new Map<Id, number>()
  const wayOn = new Map<Id, string>()
  for (const { from, to, kind } of spans) {
    const [a, b] = [byId.get(from), byId.get(to)]
    fretBefore.set(to, a?.place.fret ?? 0)
    if (kind === 'slide' && a && b && orderOf(b) - orderOf(a) > 1)
      wayOn.set(from, b.place.fret > a.place.fret ? '/' : '\\')
  }
  return { fretBefore, wayOn, onBar: barNotes({ notes, spans }) }
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
