import type { AbcElement, AbcStaff } from 'abcjs/src/api/abc_tunebook.js'
import { readChordSymbol } from '../../music/harmony/chordSymbol.ts'
import type { Id } from '../../document/ids.ts'
import type { Tuplet } from '../../document/tune.ts'
import { midiOf, plainPitch, type Pitch } from '../../music/pitch/pitch.ts'
import { measureLength } from '../../music/time/metre.ts'
import { WHOLE } from '../../music/time/ticks.ts'
import { writtenValue } from '../../music/time/writtenValue.ts'
import { durationOf } from '../../document/durationOf.ts'
import { cutTo, LIMITS } from '../../document/limits.ts'
import { message } from '../../messages/message.ts'
import { AccidentalMemory } from './accidentals.ts'
import { ticksOfShare } from './duration.ts'
import { clefTranspose, readKey, readMetre } from './abcFields.ts'

import { readPlaceMark, type GivenPlace } from './placeMarks.ts'
import { MeasureDrafts, SIGNS } from './measureDrafts.ts'
import type { DraftMeasure, Report, VoiceReading, VoiceStart } from './voiceReading.ts'

type TooLong = 'reading.longPartName' | 'reading.longOrnament' | 'reading.longChordName'

/** Walks the elements of one voice. A small state machine: one method an element type. */
export class VoiceReader {
  private readonly drafts: MeasureDrafts
  private readonly out: VoiceReading
  private readonly memory: AccidentalMemory
  private slurs = 0
  /** True after a rest. */
  private silent = true
  private tuplet: { tuplet: Tuplet; left: number } | undefined
  private ties = new Map<string, { event: number; pitch: Pitch }>()
  private transpose: number
  private readonly start: VoiceStart
  private readonly report: Report
  private readonly newId: (prefix: string) => Id

  constructor(start: VoiceStart, report: Report, newId: (prefix: string) => Id) {
    this.start = start
    this.report = report
    this.newId = newId
    this.transpose = start.transpose
    this.memory = new AccidentalMemory(start.propagation)
    this.memory.setSignature(start.signature)
    this.drafts = new MeasureDrafts(start, report, newId, () => this.memory.barLine())
    this.out = this.drafts.out
  }

  read(element: AbcElement): void {
    if (this.drafts.full) return
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
        return this.drafts.tempo(element)
      case 'clef':
        this.transpose = clefTranspose(element)
        return
      case 'part':
        this.drafts.section(
          this.within(element, element.title ?? '', LIMITS.sectionName, 'reading.longPartName'),
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
    if (metre) this.drafts.takeMetre(metre)
    if (key) this.takeKey(key)
    this.transpose = clefTranspose(clef)
  }

  finish(): VoiceReading {
    this.drafts.finish()
    for (const { event } of this.ties.values()) {
      const span = this.out.spans.find((s) => s.target === this.out.events[event]!.id)
      this.report('warning', span?.from ?? 0, message('reading.tieNowhere'))
    }
    return this.out
  }

  /** A text within its limit; what is longer is cut, and said to be. */
  private within({ startChar }: AbcElement, text: string, most: number, code: TooLong): string {
    const { text: kept, cut } = cutTo(text, most)
    if (cut) this.report('warning', startChar, message(code, { letters: text.length, most }))
    return kept
  }

  private bar(element: AbcElement): void {
    if (this.tuplet) {
      this.report('warning', element.startChar, message('reading.openTuplet'))
      this.tuplet = undefined
    }
    this.drafts.bar(element)
  }

  private meter(element: AbcElement): void {
    const metre = readMetre(element)
    if (!metre) {
      this.report('warning', element.startChar, message('reading.badMetreHere'))
      return
    }
    this.drafts.takeMetre(metre)
  }

  private takeKey(key: NonNullable<AbcStaff['key']>): void {
    this.drafts.takeKey(readKey(key))
    this.memory.setSignature(key.accidentals ?? [])
  }

  private note(element: AbcElement): void {
    if (element.rest?.type === 'spacer') return
    const measure = this.drafts.measure(element.startChar)
    this.drafts.signs(element)
    this.chordMarks(element, measure)
    if (element.rest?.type.includes('multimeasure')) return this.wholeMeasures(element)
    const tuplet = this.tupletAt(element)
    // The parser takes a whole rest for a rest of one measure, by the metre of the head alone.
    const isWhole = element.rest?.type === 'whole' && measureLength(this.drafts.metre) >= WHOLE
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
      pos: { measure: measure.id, tick: this.drafts.tick },
      dur: { ticks, ...writtenValue(share), ...(tuplet ? { tupletId: tuplet.id } : {}) },
      ...(top ? { pitch: top.pitch } : {}),
      chordTones: sounding.slice(0, -1).map((s) => s.pitch),
      graces,
      ornaments: this.ornaments(element),
      ...(this.slurredHere(element, top !== undefined) ? { slurred: true as const } : {}),
    })
    this.out.spans.push({ target: id, from: element.startChar, to: element.endChar })
    const places = placesAt(element)
    if (places.length > 0) this.out.places.set(id, places)
    this.tie(element, sounding)
    this.drafts.tick += ticks
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
    for (let i = 0; i < count && !this.drafts.full; i++) {
      const measure = this.drafts.measure(element.startChar)
      const ticks = measureLength(this.drafts.metre)
      const id = this.newId('e')
      this.out.events.push({
        id,
        voice: this.start.voice,
        pos: { measure: measure.id, tick: this.drafts.tick },
        dur: durationOf(ticks),
        chordTones: [],
        graces: [],
        ornaments: [],
      })
      this.out.spans.push({ target: id, from: element.startChar, to: element.endChar })
      this.drafts.tick += ticks
      if (i < count - 1) this.drafts.close('single')
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
        if (last?.pos.measure === measure.id && last.pos.tick === this.drafts.tick) {
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
          pos: { measure: measure.id, tick: this.drafts.tick },
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
    return plainPitch(midiOf(pitch) + transpose, this.drafts.key.fifths < 0)
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

/** The places that annotations at an element give. */
const placesAt = ({ chord = [] }: AbcElement): GivenPlace[] =>
  chord.flatMap((mark) => (mark.position === 'default' ? [] : (readPlaceMark(mark.name) ?? [])))
