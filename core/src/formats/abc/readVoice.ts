import type { AbcElement } from 'abcjs/src/api/abc_tunebook.js'
import { readChordSymbol } from '../../harmony/chordSymbol.ts'
import type { Id } from '../../model/ids.ts'
import type { AbcSpan, ChordMark, Jump, Section, TempoMark, Tuplet, TuneEvent } from '../../model/tune.ts'
import type { Key } from '../../pitch/key.ts'
import { midiOf, plainPitch, type Pitch } from '../../pitch/pitch.ts'
import { measureLength, type Metre } from '../../time/metre.ts'
import { WHOLE, type Ticks } from '../../time/ticks.ts'
import { writtenValue } from '../../time/writtenValue.ts'
import { durationOf } from '../../model/durationOf.ts'
import type { Problem } from '../problem.ts'
import { AccidentalMemory, type Propagation } from './accidentals.ts'
import { ticksOfShare } from './duration.ts'
import { readEnding, readKey, readMetre } from './abcFields.ts'

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

type Report = (severity: Problem['severity'], offset: number, message: string, understood: string) => void

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
  private tick: Ticks = 0
  private open: DraftMeasure | undefined
  private next = { repeatStart: false, endings: [] as number[] }
  private tuplet: { tuplet: Tuplet; left: number } | undefined
  private ties = new Map<string, { event: number; pitch: Pitch }>()
  private pendingSection: string | undefined
  private readonly start: VoiceStart
  private readonly report: Report
  private readonly newId: (prefix: string) => Id

  constructor(start: VoiceStart, report: Report, newId: (prefix: string) => Id) {
    this.start = start
    this.report = report
    this.newId = newId
    this.metre = start.metre
    this.key = start.key
    this.memory = new AccidentalMemory(start.propagation)
    this.memory.setSignature(start.signature)
  }

  read(element: AbcElement): void {
    switch (element.el_type) {
      case 'note':
        return this.note(element)
      case 'bar':
        return this.bar(element)
      case 'key':
        this.key = readKey(element)
        this.memory.setSignature(element.accidentals ?? [])
        if (this.open && this.tick === 0) this.open.key = this.key
        return
      case 'meter':
        return this.meter(element)
      case 'tempo':
        return this.tempo(element)
      case 'part':
        this.pendingSection = element.title ?? ''
        return
      case 'overlay':
        this.report(
          'note',
          element.startChar,
          'a second voice in the same measure (&)',
          'kept out for now; the first one is read',
        )
        return
    }
  }

  finish(): VoiceReading {
    if (this.open && this.tick > 0) this.close('none')
    for (const { event } of this.ties.values()) {
      const span = this.out.spans.find((s) => s.target === this.out.events[event]!.id)
      this.report('warning', span?.from ?? 0, 'a tie leads nowhere', 'the note ends where it is written')
    }
    return this.out
  }

  private measure(from: number): DraftMeasure {
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
    }
    return this.open
  }

  private close(barline: DraftMeasure['barline']): void {
    if (!this.open) return
    this.open.length = this.tick
    this.open.barline = barline
    this.out.measures.push(this.open)
    this.open = undefined
    this.tick = 0
    this.memory.barLine()
  }

  private bar(element: AbcElement): void {
    if (this.tuplet) {
      this.report(
        'warning',
        element.startChar,
        'a tuplet is not full at the bar line',
        'the notes it has keep their lengths',
      )
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
    if (type === 'bar_left_repeat' || type === 'bar_dbl_repeat') this.next.repeatStart = true
    if (element.endEnding) this.next.endings = []
    if (element.startEnding !== undefined) {
      this.next.endings = readEnding(element.startEnding)
      if (this.next.endings.length === 0) {
        this.report(
          'warning',
          element.startChar,
          `"${element.startEnding}" is no number of an ending`,
          'played on every pass',
        )
      }
    }
  }

  private meter(element: AbcElement): void {
    const metre = readMetre(element)
    if (!metre) {
      this.report('warning', element.startChar, 'this metre is impossible', 'the metre before it goes on')
      return
    }
    this.metre = metre
    if (this.open && this.tick === 0) this.open.metre = metre
  }

  private tempo(element: AbcElement): void {
    const bpm = quarterTempo(element.tempo ?? (element as { duration?: number[] | number; bpm?: number }))
    if (bpm === undefined) return
    const measure = this.measure(element.startChar)
    this.out.tempos.push({ pos: { measure: measure.id, tick: this.tick }, bpm, stated: true })
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
    const share = isWhole ? 1 : (element.duration ?? 0)
    const { ticks, exact } = ticksOfShare(share, tuplet?.actual, tuplet?.normal)
    if (!exact) {
      this.report(
        'warning',
        element.startChar,
        'a note value too odd for exact time',
        'rounded to the nearest 1/10,080 of a quarter',
      )
    }
    if (ticks <= 0) {
      this.report('warning', element.startChar, 'a note without length', 'left out')
      return
    }
    const id = this.newId('e')
    const sounding = this.pitches(element)
    const top = sounding.at(-1)
    this.out.events.push({
      id,
      voice: this.start.voice,
      pos: { measure: measure.id, tick: this.tick },
      dur: { ticks, ...writtenValue(share), ...(tuplet ? { tupletId: tuplet.id } : {}) },
      ...(top ? { pitch: top.pitch } : {}),
      chordTones: sounding.slice(0, -1).map((s) => s.pitch),
      graces: (element.gracenotes ?? []).map((g) => this.sounding(this.memory.spell(g.pitch, g.accidental))),
      ornaments: (element.decoration ?? []).filter((d) => !SIGNS.has(d)),
      ...(this.slurredHere(element) ? { slurred: true as const } : {}),
      ...lyricsOf(element),
    })
    this.out.spans.push({ target: id, from: element.startChar, to: element.endChar })
    this.tie(element, sounding)
    this.tick += ticks
    if (this.tuplet && --this.tuplet.left <= 0) this.tuplet = undefined
  }

  /** True inside a slur that began before this note. */
  private slurredHere({ pitches = [] }: AbcElement): boolean {
    const joined = this.slurs > 0
    for (const p of pitches) this.slurs += (p.startSlur?.length ?? 0) - (p.endSlur?.length ?? 0)
    return joined && pitches.length > 0
  }

  private wholeMeasures(element: AbcElement): void {
    const count = Math.min(Math.max(1, element.rest?.text ?? 1), 100)
    for (let i = 0; i < count; i++) {
      const measure = this.measure(element.startChar)
      const ticks = measureLength(this.metre)
      const id = this.newId('e')
      this.out.events.push({
        id,
        voice: this.start.voice,
        pos: { measure: measure.id, tick: 0 },
        dur: durationOf(ticks),
        chordTones: [],
        graces: [],
        ornaments: [],
      })
      this.out.spans.push({ target: id, from: element.startChar, to: element.endChar })
      this.tick = ticks
      if (i < count - 1) this.close('single')
    }
  }

  private tupletAt(element: AbcElement): Tuplet | undefined {
    if (element.startTriplet && element.tripletMultiplier) {
      const actual = element.startTriplet
      const tuplet = { id: this.newId('t'), actual, normal: Math.round(actual * element.tripletMultiplier) }
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
        .map((s) => s.trim())
        .filter((s) => s !== '')) {
        const reading = readChordSymbol(symbol)
        if (reading.kind === 'unknown') {
          this.report(
            'warning',
            element.startChar,
            `"${symbol}" is no chord symbol that is known here`,
            'kept and shown; no chord is assumed under it',
          )
        }
        this.out.chords.push({
          id: this.newId('c'),
          pos: { measure: measure.id, tick: this.tick },
          symbol,
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
      .map(({ pitch, startsTie }) => ({ pitch: this.sounding(pitch), startsTie }))
      .sort((a, b) => midiOf(a.pitch) - midiOf(b.pitch))
  }

  private sounding(pitch: Pitch): Pitch {
    const { transpose } = this.start
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
        this.report(
          'warning',
          element.startChar,
          'the tie before this note joins two different pitches',
          'read as two notes',
        )
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
  return bpm >= 10 && bpm <= 500 ? bpm : undefined
}

/** Syllables by verse; a hyphen at the end says that the word goes on. */
function lyricsOf({ lyric = [] }: AbcElement): Pick<TuneEvent, 'lyric' | 'moreLyrics'> {
  const verses = lyric.map(({ syllable, divider }) => `${syllable.trim()}${divider === '-' ? '-' : ''}`)
  const [first, ...more] = verses
  if (verses.every((v) => v === '' || v === '-')) return {}
  return { lyric: first ?? '', ...(more.some(Boolean) ? { moreLyrics: more } : {}) }
}
