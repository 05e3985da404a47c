import type { AbcElement } from 'abcjs/src/api/abc_tunebook.js'
import type { Id } from '../../document/ids.ts'
import type { Jump } from '../../document/tune.ts'
import type { Key } from '../../music/pitch/key.ts'
import { type Metre } from '../../music/time/metre.ts'
import { WHOLE, type Ticks } from '../../music/time/ticks.ts'
import { LIMITS } from '../../document/limits.ts'
import { message } from '../../messages/message.ts'
import { readEnding } from './abcFields.ts'

import type { DraftMeasure, Report, VoiceReading, VoiceStart } from './voiceReading.ts'
import { quarterTempo } from './quarterTempo.ts'

const JUMPS: Readonly<Record<string, Jump>> = {
  'D.C.': 'daCapo',
  dacapo: 'daCapo',
  'D.S.': 'dalSegno',
  'D.C.alfine': 'daCapoAlFine',
  'D.C.alcoda': 'daCapoAlCoda',
  'D.S.alfine': 'dalSegnoAlFine',
  'D.S.alcoda': 'dalSegnoAlCoda',
}
/** Decorations that say how the piece goes on, not how a note is played. */
export const SIGNS = new Set(['segno', 'coda', 'fine', ...Object.keys(JUMPS)])

/**
 * The measures of one voice as they are read: where the bar lines fall, what repeats, and the metre, key, part and tempo
 * that hold for the measure to come.
 */
export class MeasureDrafts {
  readonly out: VoiceReading = {
    measures: [],
    events: [],
    chords: [],
    tuplets: [],
    sections: [],
    tempos: [],
    spans: [],
    places: new Map(),
  }
  metre: Metre
  key: Key
  /** Ticks of the open measure that are filled. */
  tick: Ticks = 0
  /** True once the tune has all the measures that it may have: what follows is left out. */
  full = false
  private open: DraftMeasure | undefined
  private next = { repeatStart: false, endings: [] as number[] }
  private pendingSection: string | undefined
  private pendingTempo: number | undefined
  private readonly report: Report
  private readonly newId: (prefix: string) => Id
  private readonly onBarLine: () => void

  constructor(
    start: Pick<VoiceStart, 'metre' | 'key'>,
    report: Report,
    newId: (prefix: string) => Id,
    onBarLine: () => void,
  ) {
    this.metre = start.metre
    this.key = start.key
    this.report = report
    this.newId = newId
    this.onBarLine = onBarLine
  }

  finish(): VoiceReading {
    if (this.open && this.tick > 0) this.close('none')
    if (this.open) this.leaveOut(this.open)
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

  /** A part begins with the next measure. */
  section(name: string): void {
    this.pendingSection = name
  }

  /** The measure in which the next note stands: begun here where none is open. */
  measure(from: number): DraftMeasure {
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

  close(barline: DraftMeasure['barline']): void {
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
    this.onBarLine()
  }

  bar(element: AbcElement): void {
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

  takeKey(key: Key): void {
    this.key = key
    if (this.open && this.tick === 0) this.open.key = key
  }

  takeMetre(metre: Metre): void {
    this.metre = metre
    if (this.open && this.tick === 0) this.open.metre = metre
  }

  tempo(element: AbcElement): void {
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

  /** Segno, coda, Fine and jumps, on the measure in which or after which they stand. */
  signs(element: AbcElement): void {
    const holder = this.open ?? this.out.measures.at(-1)
    if (!holder) return
    for (const sign of element.decoration ?? []) {
      if (sign === 'segno') holder.segno = true
      else if (sign === 'coda') holder.coda = true
      else if (sign === 'fine') holder.fine = true
      else if (JUMPS[sign]) holder.jump = JUMPS[sign]
    }
  }
}
