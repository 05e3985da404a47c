import type { AbcElement, AbcStaff } from 'abcjs/src/api/abc_tunebook.js'
import { readChordSymbol } from '../../music/harmony/chordSymbol.ts'
import type { Id } from '../../document/ids.ts'
import type { AbcSpan, ChordMark, Jump, Section, TempoMark, Tuplet, TuneEvent } from '../../document/tune.ts'
import type { Key } from '../../music/pitch/key.ts'
import { midiOf, plainPitch, type Pitch } from '../../music/pitch/pitch.ts'
import { measureLength, type Metre } from '../../music/time/metre.ts'
import { WHOLE, type Ticks } from '../../music/time/ticks.ts'
import { writtenValue } from '../../music/time/writtenValue.ts'
import { durationOf } from '../../document/durationOf.ts'
import { cutTo, LIMITS } from '../../document/limits.ts'
import { message } from '../../messages/message.ts'
import type { Problem } from '../problem.ts'
import { AccidentalMemory, type Propagation } from './accidentals.ts'
import { ticksOfShare } from './duration.ts'
import { clefTranspose, readEnding, readKey, readMetre } from './abcFields.ts'

/** A measure while it is being read: its number of ticks is known only at the bar line. */
export interface DraftMeasure {
  id: Id
  length: Ticks
  metre: Metre
  key: Key
  repeatStart: boolean
  repeats: boolean
  barline: 'single' | 'double' | 'final' | 'none'
  endings: number[]
  segno: boolean
  coda: boolean
  fine: boolean
  jump?: Jump
  from: number
}

/** What one voice of a tune holds. Positions refer to the voice's own measures. */
export interface VoiceReading {
  readonly measures: DraftMeasure[]
  readonly events: TuneEvent[]
  readonly chords: ChordMark[]
  readonly tuplets: Tuplet[]
  readonly sections: Section[]
  readonly tempos: TempoMark[]
  readonly spans: AbcSpan[]
}

export interface VoiceStart {
  readonly voice: number
  readonly metre: Metre
  readonly key: Key
  readonly signature: readonly { readonly acc: string; readonly note: string }[]
  /** Semitones that an octave clef or a transposing clef adds to the written notes. */
  readonly transpose: number
  readonly propagation: Propagation
}

type Report = (severity: Problem['severity'], offset: number, says: Problem['says']) => void

const JUMPS: Readonly<Record<string, Jump>> = {
  'D.C.': 'daCapo',
  dacapo: 'daCapo',
  'D.S.': 'dalSegno',
  'D.C.alfine': 'daCapoAlFine',
  'D.C.alcoda': 'daCapoAlCoda',
  'D.S.alfine': 'dalSegnoAlFine',
  'D.S.alcoda': 'dalSegnoAlCoda',
}
const SIGNS = new Set(['segno', 'coda', 'fine', ...Object.keys(JUMPS)])

type TooLong = 'reading.longPartName' | 'reading.longOrnament' | 'reading.longChordName'

/** Walks the elements of one voice. A small state machine: one method an element type. */
export class VoiceReader {
  private readonly out: VoiceReading = {
    measures: [],
    events: [],
    chords: [],
    tuplets: [],
    sections: [],
    tempos: [],
    spans: [],
  }
  private readonly memory: AccidentalMemory
  private metre: Metre
  private key: Key
  private slurs = 0
  /** True after a rest. */
  private silent = true
  private tick: Ticks = 0
  private open: DraftMeasure | undefined
  private next = { repeatStart: false, endings: [] as number[] }
  private tuplet: { tuplet: Tuplet; left: number } | undefined
  private ties = new Map<string, { event: number; pitch: Pitch }>()
  private pendingSection: string | undefined
  private pendingTempo: number | undefined
  private transpose: number
  /** True once the tune has all the measures that it may have: what follows is left out. */
  private full = false
  private readonly start: VoiceStart
  private readonly report: Report
  private readonly newId: (prefix: string) => Id

  constructor(start: VoiceStart, report: Report, newId: (prefix: string) => Id) {
    this.start = start
    this.report = report
    this.newId = newId
    this.metre = start.metre
    this.key = start.key
    this.transpose = start.transpose
    this.memory = new AccidentalMemory(start.propagation)
    this.memory.setSignature(start.signature)
  }

  read(element: AbcElement): void {
    if (this.full) return
    switch (element.el_type) {
      case 'note':
        return this.note(element)
      case 'bar':
        return this.bar(element)
      case 'key':
        return this.takeKey(element)
      case 'meter':
        return this.meter(element)
      case 'tempo':
        return this.tempo(element)
      case 'clef':
        this.transpose = clefTranspose(element)
        return
      case 'part':
        this.pendingSection = this.within(
          element,
          element.title ?? '',
          LIMITS.sectionName,
          'reading.longPartName',
        )
        return
      case 'overlay':
        this.report('note', element.startChar, message('reading.overlay'))
        return
    }
  }

  /** What the head of a further line says: a metre on a line of its own, a clef that was given again. */
  newLine({ meter, clef, key }: Pick<AbcStaff, 'meter' | 'clef' | 'key'>): void {
    const metre = meter && readMetre(meter)
    if (metre) this.takeMetre(metre)
    if (key) this.takeKey(key)
    this.transpose = clefTranspose(clef)
  }

  finish(): VoiceReading {
    if (this.open && this.tick > 0) this.close('none')
    if (this.open) this.leaveOut(this.open)
    for (const { event } of this.ties.values()) {
      const span = this.out.spans.find((s) => s.target === this.out.events[event]!.id)
      this.report('warning', span?.from ?? 0, message('reading.tieNowhere'))
    }
    return this.out
  }

  /** Takes back a measure in which nothing has a length: what was said in it has no place. */
  private leaveOut({ id, from }: DraftMeasure): void {
    const keep = <T>(list: T[], measureOf: (x: T) => Id) => {
      const kept = list.filter((x) => measureOf(x) !== id)
      const gone = list.length - kept.length
      list.splice(0, list.length, ...kept)
      return gone
    }
    const chords = keep(this.out.chords, (c) => c.pos.measure)
    keep(this.out.tempos, (t) => t.pos.measure)
    keep(this.out.sections, (s) => s.measure)
    if (chords > 0) this.report('warning', from, message('reading.chordsWithoutNote', { count: chords }))
  }

  /** A text within its limit; what is longer is cut, and said to be. */
  private within({ startChar }: AbcElement, text: string, most: number, code: TooLong): string {
    const { text: kept, cut } = cutTo(text, most)
    if (cut) this.report('warning', startChar, message(code, { letters: text.length, most }))
    return kept
  }

  private measure(from: number): DraftMeasure {
    if (this.open && this.tick >= LIMITS.measureWholes * WHOLE) {
      this.report('warning', from, message('reading.endlessMeasure', { wholes: LIMITS.measureWholes }))
      this.close('none')
    }
    if (!this.open) {
      this.open = {
        id: this.newId('m'),
        length: 0,
        metre: this.metre,
        key: this.key,
        repeatStart: this.next.repeatStart,
        repeats: false,
        barline: 'single',
        endings: [...this.next.endings],
        segno: false,
        coda: false,
        fine: false,
        from,
      }
      this.next.repeatStart = false
      this.tick = 0
      if (this.pendingSection !== undefined) {
        this.out.sections.push({ id: this.newId('s'), name: this.pendingSection, measure: this.open.id })
        this.pendingSection = undefined
      }
      if (this.pendingTempo !== undefined)
        this.out.tempos.push({
          pos: { measure: this.open.id, tick: 0 },
          bpm: this.pendingTempo,
          stated: true,
        })
      this.pendingTempo = undefined
    }
    return this.open
  }

  private close(barline: DraftMeasure['barline']): void {
    if (!this.open) return
    this.open.length = this.tick
    this.open.barline = barline
    const chord = this.out.chords.at(-1)
    if (chord?.pos.measure === this.open.id && chord.pos.tick >= this.tick && this.tick > 0) {
      this.out.chords.pop()
      this.report('warning', this.open.from, message('reading.chordBehindLast', { chord: chord.symbol }))
    }
    const tempo = this.out.tempos.at(-1)
    // A tempo behind the last note of a measure is that of the next one.
    if (tempo?.pos.measure === this.open.id && tempo.pos.tick >= this.tick && this.tick > 0) {
      this.out.tempos.pop()
      this.pendingTempo = tempo.bpm
    }
    this.out.measures.push(this.open)
    if (this.out.measures.length >= LIMITS.measures) {
      this.report('warning', this.open.from, message('reading.tooManyMeasures', { most: LIMITS.measures }))
      this.full = true
    }
    this.open = undefined
    this.tick = 0
    this.memory.barLine()
  }

  private bar(element: AbcElement): void {
    if (this.tuplet) {
      this.report('warning', element.startChar, message('reading.openTuplet'))
      this.tuplet = undefined
    }
    this.signs(element)
    const type = element.type ?? ''
    const repeats = type === 'bar_right_repeat' || type === 'bar_dbl_repeat'
    const heavy = type === 'bar_thin_thick' || type === 'bar_thick_thin'
    if (this.open && this.tick > 0) {
      this.close(
        heavy || repeats
          ? 'final'
          : type === 'bar_thin_thin'
            ? 'double'
            : type === 'bar_invisible'
              ? 'none'
              : 'single',
      )
    }
    const last = this.out.measures.at(-1)
    if (repeats && last) last.repeats = true
    // A measure without notes yet (a chord or a note without length stood in it) is still the one to come.
    if (type === 'bar_left_repeat' || type === 'bar_dbl_repeat') {
      if (this.open) this.open.repeatStart = true
      else this.next.repeatStart = true
    }
    if (element.endEnding) this.next.endings = []
    if (element.endEnding && this.open) this.open.endings = []
    if (element.startEnding !== undefined) {
      this.next.endings = readEnding(element.startEnding)
      if (this.next.endings.length === 0) {
        this.report(
          'warning',
          element.startChar,
          message('reading.badEnding', { ending: element.startEnding }),
        )
      }
      if (this.open) this.open.endings = [...this.next.endings]
    }
  }

  private meter(element: AbcElement): void {
    const metre = readMetre(element)
    if (!metre) {
      this.report('warning', element.startChar, message('reading.badMetreHere'))
      return
    }
    this.takeMetre(metre)
  }

  private takeKey(key: NonNullable<AbcStaff['key']>): void {
    this.key = readKey(key)
    this.memory.setSignature(key.accidentals ?? [])
    if (this.open && this.tick === 0) this.open.key = this.key
  }

  private takeMetre(metre: Metre): void {
    this.metre = metre
    if (this.open && this.tick === 0) this.open.metre = metre
  }

  private tempo(element: AbcElement): void {
    const stated = element.tempo ?? (element as { duration?: number[] | number; bpm?: number })
    const bpm = quarterTempo(stated)
    if (bpm === undefined) {
      if (stated.bpm)
        this.report(
          'warning',
          element.startChar,
          message('reading.tempoBeyondHere', { slowest: LIMITS.slowest, fastest: LIMITS.fastest }),
        )
      return
    }
    if (this.open && this.tick > 0)
      this.out.tempos.push({ pos: { measure: this.open.id, tick: this.tick }, bpm, stated: true })
    else this.pendingTempo = bpm
  }

  private signs(element: AbcElement): void {
    const holder = this.open ?? this.out.measures.at(-1)
    if (!holder) return
    for (const sign of element.decoration ?? []) {
      if (sign === 'segno') holder.segno = true
      else if (sign === 'coda') holder.coda = true
      else if (sign === 'fine') holder.fine = true
      else if (JUMPS[sign]) holder.jump = JUMPS[sign]
    }
  }

  private note(element: AbcElement): void {
    if (element.rest?.type === 'spacer') return
    const measure = this.measure(element.startChar)
    this.signs(element)
    this.chordMarks(element, measure)
    if (element.rest?.type.includes('multimeasure')) return this.wholeMeasures(element)
    const tuplet = this.tupletAt(element)
    // The parser takes a whole rest for a rest of one measure, by the metre of the head alone.
    const isWhole = element.rest?.type === 'whole' && measureLength(this.metre) >= WHOLE
    const share = this.shareOf(element, isWhole)
    const { ticks, exact } = ticksOfShare(share, tuplet?.actual, tuplet?.normal)
    if (!exact) {
      this.report('warning', element.startChar, message('reading.oddValue'))
    }
    if (ticks <= 0) {
      this.report('warning', element.startChar, message('reading.noLength'))
      if (this.tuplet && --this.tuplet.left <= 0) this.tuplet = undefined
      return
    }
    const id = this.newId('e')
    // What a grace note raises or lowers holds for the note that it leads to.
    const graces = (element.gracenotes ?? []).flatMap(
      (g) => this.reachable(element, this.sounding(this.memory.spell(g.pitch, g.accidental))) ?? [],
    )
    const sounding = this.pitches(element)
    const top = sounding.at(-1)
    this.out.events.push({
      id,
      voice: this.start.voice,
      pos: { measure: measure.id, tick: this.tick },
      dur: { ticks, ...writtenValue(share), ...(tuplet ? { tupletId: tuplet.id } : {}) },
      ...(top ? { pitch: top.pitch } : {}),
      chordTones: sounding.slice(0, -1).map((s) => s.pitch),
      graces,
      ornaments: this.ornaments(element),
      ...(this.slurredHere(element, top !== undefined) ? { slurred: true as const } : {}),
    })
    this.out.spans.push({ target: id, from: element.startChar, to: element.endChar })
    this.tie(element, sounding)
    this.tick += ticks
    if (this.tuplet && --this.tuplet.left <= 0) this.tuplet = undefined
  }

  /** Share of a whole note, within what a note can last. */
  private shareOf(element: AbcElement, isWhole: boolean): number {
    const share = isWhole ? 1 : (element.duration ?? 0)
    if (!Number.isFinite(share) || share < 0) return 0
    if (share <= LIMITS.noteWholes) return share
    this.report('warning', element.startChar, message('reading.longNote', { wholes: LIMITS.noteWholes }))
    return LIMITS.noteWholes
  }

  private ornaments(element: AbcElement): string[] {
    return (element.decoration ?? [])
      .filter((d) => !SIGNS.has(d) && d.trim() !== '')
      .map((d) => this.within(element, d, LIMITS.ornament, 'reading.longOrnament'))
  }

  /** A pitch, where there is such a note. */
  private reachable(element: AbcElement, pitch: Pitch): Pitch | undefined {
    const midi = midiOf(pitch)
    const { lowestMidi, highestMidi, lowestOctave, highestOctave } = LIMITS
    const { octave, alter } = pitch
    if (
      midi >= lowestMidi &&
      midi <= highestMidi &&
      octave >= lowestOctave &&
      octave <= highestOctave &&
      Math.abs(alter) <= 2
    )
      return pitch
    this.report('warning', element.startChar, message('reading.noSuchNote'))
    return undefined
  }

  /** True inside a slur that began before this note. */
  private slurredHere({ pitches = [] }: AbcElement, sounds: boolean): boolean {
    // A slur ends at a rest.
    const joined = this.slurs > 0 && !this.silent
    this.silent = !sounds
    for (const p of pitches) this.slurs += (p.startSlur?.length ?? 0) - (p.endSlur?.length ?? 0)
    return joined && sounds
  }

  private wholeMeasures(element: AbcElement): void {
    // No tie and no slur goes over a rest.
    this.tie(element, [])
    this.silent = true
    const written = element.rest?.text ?? 1
    const count = Number.isInteger(written) ? Math.min(Math.max(1, written), LIMITS.restMeasures) : 1
    if (written > count)
      this.report('warning', element.startChar, message('reading.longRest', { written, most: count }))
    for (let i = 0; i < count && !this.full; i++) {
      const measure = this.measure(element.startChar)
      const ticks = measureLength(this.metre)
      const id = this.newId('e')
      this.out.events.push({
        id,
        voice: this.start.voice,
        pos: { measure: measure.id, tick: this.tick },
        dur: durationOf(ticks),
        chordTones: [],
        graces: [],
        ornaments: [],
      })
      this.out.spans.push({ target: id, from: element.startChar, to: element.endChar })
      this.tick += ticks
      if (i < count - 1) this.close('single')
    }
  }

  private tupletAt(element: AbcElement): Tuplet | undefined {
    if (element.startTriplet && element.tripletMultiplier) {
      const actual = element.startTriplet
      const normal = Math.round(actual * element.tripletMultiplier)
      if (actual < 2 || actual > LIMITS.tuplet || !(normal >= 1 && normal <= LIMITS.tuplet)) {
        this.report('warning', element.startChar, message('reading.oddTuplet', { actual, normal }))
        this.tuplet = undefined
        return undefined
      }
      const tuplet = { id: this.newId('t'), actual, normal }
      this.out.tuplets.push(tuplet)
      this.tuplet = { tuplet, left: element.tripletR ?? actual }
    }
    return this.tuplet?.tuplet
  }

  private chordMarks(element: AbcElement, measure: DraftMeasure): void {
    for (const mark of element.chord ?? []) {
      if (mark.position !== 'default') continue
      for (const symbol of mark.name
        .split('\n')
        .map((s) => s.replace(/"/g, '').trim())
        .filter((s) => s !== '')) {
        const reading = readChordSymbol(symbol)
        if (reading.kind === 'unknown') {
          this.report('warning', element.startChar, message('reading.unknownChord', { chord: symbol }))
        }
        const last = this.out.chords.at(-1)
        if (last?.pos.measure === measure.id && last.pos.tick === this.tick) {
          this.out.chords.pop()
          if (last.symbol !== symbol)
            this.report(
              'warning',
              element.startChar,
              message('reading.twoChords', { first: last.symbol, second: symbol }),
            )
        }
        this.out.chords.push({
          id: this.newId('c'),
          pos: { measure: measure.id, tick: this.tick },
          symbol: this.within(element, symbol, LIMITS.chordSymbol, 'reading.longChordName'),
          origin: 'given',
          ...(reading.kind === 'chord' ? { parsed: reading.chord } : {}),
        })
      }
    }
  }

  /** The element's notes, lowest first. */
  private pitches(element: AbcElement): { pitch: Pitch; startsTie: boolean }[] {
    return (element.pitches ?? [])
      .map((p) => {
        const tiedFrom = this.ties.get(String(p.pitch))
        return {
          pitch: this.memory.spell(p.pitch, p.accidental, tiedFrom?.pitch.alter),
          startsTie: p.startTie !== undefined,
          raw: p.pitch,
        }
      })
      .flatMap(({ pitch, startsTie }) => {
        const own = this.reachable(element, this.sounding(pitch))
        return own ? [{ pitch: own, startsTie }] : []
      })
      .sort((a, b) => midiOf(a.pitch) - midiOf(b.pitch))
  }

  private sounding(pitch: Pitch): Pitch {
    const { transpose } = this
    if (transpose % 12 === 0) return { ...pitch, octave: pitch.octave + transpose / 12 }
    return plainPitch(midiOf(pitch) + transpose, this.key.fifths < 0)
  }

  private tie(element: AbcElement, sounding: readonly { pitch: Pitch }[]): void {
    const here = this.out.events.length - 1
    const top = sounding.at(-1)?.pitch
    for (const { event, pitch } of this.ties.values()) {
      if (top && midiOf(top) === midiOf(pitch)) {
        this.out.events[event] = { ...this.out.events[event]!, tieTo: this.out.events[here]!.id }
      } else if (sounding.every((s) => midiOf(s.pitch) !== midiOf(pitch))) {
        this.report('warning', element.startChar, message('reading.tieOfTwoPitches'))
      }
    }
    this.ties.clear()
    if (!top) return
    for (const p of element.pitches ?? []) {
      const spelled = this.sounding(this.memory.spell(p.pitch, undefined))
      if (p.startTie && midiOf(spelled) === midiOf(top))
        this.ties.set(String(p.pitch), { event: here, pitch: top })
    }
  }
}

/** Quarter notes a minute of a `Q:` field; undefined where it holds words only or nothing playable. */
export function quarterTempo(
  raw: { duration?: number[] | number; bpm?: number } | undefined,
): number | undefined {
  if (!raw?.bpm || !Number.isFinite(raw.bpm)) return undefined
  const shares = Array.isArray(raw.duration) ? raw.duration : [raw.duration ?? 0.25]
  const bpm = raw.bpm * shares.reduce((a, b) => a + b, 0) * 4
  return bpm >= LIMITS.slowest && bpm <= LIMITS.fastest ? bpm : undefined
}
