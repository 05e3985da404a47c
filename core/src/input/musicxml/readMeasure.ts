import { chordOfKind, type ChordKind } from '../../output/musicxml/chordKinds.ts'
import { chordText, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import type { Pitch } from '../../music/pitch/pitch.ts'
import { keyOf, keyOfSignature, type Key } from '../../music/pitch/key.ts'
import { LIMITS } from '../../document/limits.ts'
import type { Jump } from '../../document/tune.ts'
import type { Metre } from '../../music/time/metre.ts'
import { QUARTER, WHOLE, type Ticks } from '../../music/time/ticks.ts'
import { child, children, numberIn, textIn, type XmlElement } from './xmlTree.ts'
import {
  BASES,
  degreeOf,
  isRatio,
  jumpOf,
  metreOf,
  metronomeBpm,
  modeOf,
  nameOf,
  pitchOf,
} from './xmlValues.ts'

/** A note or rest as a file has it. Ticks from the start of its measure. */
export interface XmlNote {
  readonly element: XmlElement
  readonly tick: Ticks
  readonly ticks: Ticks
  /** What the file calls its voice, and its staff. */
  readonly voice: string
  readonly staff: number
  /** Struck with the note before it. */
  readonly isChord: boolean
  readonly isGrace: boolean
  /** As written; absent for a rest. */
  readonly pitch?: Pitch
  readonly base?: number
  readonly dots: number
  readonly tuplet?: { readonly actual: number; readonly normal: number; readonly begins: boolean }
  readonly tiedFrom: boolean
  readonly tiedTo: boolean
}

/** A chord name over a measure. */
export interface XmlHarmony {
  readonly tick: Ticks
  readonly symbol: string
  readonly parsed?: ChordReading
  readonly line: number
  /** Nobody wrote it: it is what the music implies. */
  readonly implied?: boolean
}

/** A measure of a part as a file has it. */
export interface XmlMeasure {
  readonly notes: readonly XmlNote[]
  readonly harmonies: readonly XmlHarmony[]
  /** Quarter notes a minute, where they change. */
  readonly tempos: readonly { readonly tick: Ticks; readonly bpm: number }[]
  readonly marks: readonly { readonly tick: Ticks; readonly element: XmlElement; readonly staff: number }[]
  readonly rehearsal?: string
  readonly length: Ticks
  readonly metre: Metre
  readonly key: Key
  readonly repeatStart: boolean
  readonly repeats: boolean
  readonly times?: number
  readonly barline: 'single' | 'double' | 'final' | 'none'
  readonly endingStarts?: string
  readonly endingEnds: boolean
  readonly segno: boolean
  readonly coda: boolean
  readonly fine: boolean
  readonly jump?: Jump
  readonly swing?: 'light' | 'shuffle' | 'straight'
  /** Semitones from what is written to what sounds. */
  readonly transpose: number
  /** True where it was longer than any is. */
  readonly isCut: boolean
  readonly line: number
}

/** What holds from one measure of a part to the next. */
export interface PartState {
  divisions: number
  metre: Metre
  key: Key
  /** Semitones from what is written to what sounds. */
  transpose: number
  /** Staves that are tabs. */
  readonly tabStaves: Set<number>
  /** Strings and capo of tabs, where the file says them. */
  details?: XmlElement
}

export const newPartState = (): PartState => ({
  divisions: 1,
  metre: { num: 4, den: 4 },
  key: keyOf({ step: 'C', alter: 0 }, 'major'),
  transpose: 0,
  tabStaves: new Set(),
})

/** Reads a measure, moving the state of its part. */
export function readMeasure(element: XmlElement, state: PartState): XmlMeasure {
  const reading = new MeasureReading(state, element.line)
  for (const item of element.children) reading.take(item)
  return reading.done()
}

/** The longest measure that is read, in ticks. */
const LONGEST = LIMITS.measureWholes * WHOLE

class MeasureReading {
  private readonly notes: XmlNote[] = []
  private readonly harmonies: XmlHarmony[] = []
  private readonly tempos: { tick: Ticks; bpm: number }[] = []
  private readonly marks: { tick: Ticks; element: XmlElement; staff: number }[] = []
  private readonly signs = {
    repeatStart: false,
    repeats: false,
    barline: 'single' as XmlMeasure['barline'],
    endingEnds: false,
    segno: false,
    coda: false,
    fine: false,
  }
  private times: number | undefined
  private endingStarts: string | undefined
  private jump: Jump | undefined
  private rehearsal: string | undefined
  private swing: XmlMeasure['swing']
  /** In ticks, not rounded: a length in divisions need not be a whole number of them. */
  private at = 0
  private isCut = false
  private lastStart = 0
  private end = 0

  constructor(
    private readonly state: PartState,
    private readonly line: number,
  ) {}

  take(item: XmlElement): void {
    if (item.name === 'note') this.note(item)
    else if (item.name === 'backup') this.move(-(numberIn(item, 'duration') ?? 0))
    else if (item.name === 'forward') this.move(numberIn(item, 'duration') ?? 0)
    else if (item.name === 'attributes') this.attributes(item)
    else if (item.name === 'harmony') this.harmony(item)
    else if (item.name === 'direction') this.direction(item)
    else if (item.name === 'sound') this.sound(item, Math.round(this.at))
    else if (item.name === 'barline') this.barlineOf(item)
  }

  done(): XmlMeasure {
    return {
      ...this.signs,
      notes: this.notes,
      harmonies: this.harmonies,
      tempos: this.tempos,
      marks: this.marks,
      length: Math.round(this.end),
      metre: this.state.metre,
      key: this.state.key,
      transpose: this.state.transpose,
      line: this.line,
      isCut: this.isCut,
      ...(this.times === undefined ? {} : { times: this.times }),
      ...(this.endingStarts === undefined ? {} : { endingStarts: this.endingStarts }),
      ...(this.jump === undefined ? {} : { jump: this.jump }),
      ...(this.rehearsal === undefined ? {} : { rehearsal: this.rehearsal }),
      ...(this.swing === undefined ? {} : { swing: this.swing }),
    }
  }

  private ticksOf(divisions: number): number {
    return (divisions * QUARTER) / this.state.divisions
  }

  /** A length that no note has is cut to the longest; so is a measure. */
  private lengthOf(divisions: number): number {
    const length = Math.min(this.ticksOf(divisions), LIMITS.noteWholes * WHOLE)
    const within = Math.min(length, LONGEST - this.at)
    if (within < this.ticksOf(divisions)) this.isCut = true
    return Math.max(0, within)
  }

  private move(divisions: number): void {
    const to = this.at + this.ticksOf(divisions)
    if (to > LONGEST) this.isCut = true
    this.at = Math.max(0, Math.min(to, LONGEST))
    this.end = Math.max(this.end, this.at)
  }

  private note(element: XmlElement): void {
    const isGrace = child(element, 'grace') !== undefined
    if (child(element, 'cue')) {
      this.move(numberIn(element, 'duration') ?? 0)
      return
    }
    const isChord = child(element, 'chord') !== undefined
    const length = isGrace ? 0 : this.lengthOf(Math.max(0, numberIn(element, 'duration') ?? 0))
    if (!isChord) this.lastStart = this.at
    const start = isChord ? this.lastStart : this.at
    const tick = Math.round(start)
    const pitch = pitchOf(child(element, 'pitch'))
    const base = BASES[textIn(element, 'type') ?? '']
    const modification = child(element, 'time-modification')
    const ties = children(element, 'tie')
    const tied = ties.length > 0 ? ties : notationsOf(element).flatMap((n) => children(n, 'tied'))
    const ratio = {
      actual: numberIn(modification, 'actual-notes'),
      normal: numberIn(modification, 'normal-notes'),
    }
    const begins = notationsOf(element)
      .flatMap((n) => children(n, 'tuplet'))
      .some((t) => t.attributes['type'] === 'start')
    this.notes.push({
      element,
      tick,
      ticks: Math.round(start + length) - tick,
      voice: textIn(element, 'voice') ?? '1',
      staff: numberIn(element, 'staff') ?? 1,
      isChord,
      isGrace,
      ...(pitch ? { pitch } : {}),
      ...(base === undefined ? {} : { base }),
      dots: Math.min(3, children(element, 'dot').length),
      ...(isRatio(ratio) ? { tuplet: { ...ratio, begins } } : {}),
      tiedFrom: tied.some((t) => t.attributes['type'] === 'stop'),
      tiedTo: tied.some((t) => t.attributes['type'] === 'start'),
    })
    if (!isChord && !isGrace) {
      this.at += length
      this.end = Math.max(this.end, this.at)
    }
  }

  private attributes(element: XmlElement): void {
    const { state } = this
    const divisions = numberIn(element, 'divisions')
    if (divisions !== undefined && divisions > 0) state.divisions = divisions
    const time = child(element, 'time')
    const metre = time && metreOf(time)
    if (metre) state.metre = metre
    const transpose = child(element, 'transpose')
    if (transpose)
      state.transpose =
        (numberIn(transpose, 'chromatic') ?? 0) + 12 * (numberIn(transpose, 'octave-change') ?? 0)
    const key = child(element, 'key')
    if (key) state.key = keyOfSignature(numberIn(key, 'fifths') ?? 0, modeOf(textIn(key, 'mode')))
    for (const clef of children(element, 'clef'))
      if (textIn(clef, 'sign') === 'TAB') state.tabStaves.add(Number(clef.attributes['number'] ?? 1))
    for (const details of children(element, 'staff-details'))
      if (child(details, 'staff-tuning') || child(details, 'capo')) state.details = details
  }

  private harmony(element: XmlElement): void {
    const tick = Math.max(0, Math.round(this.at + this.ticksOf(numberIn(element, 'offset') ?? 0)))
    const kind = child(element, 'kind')
    if (!kind) return
    const printed = kind.attributes['text']
    if (kind.text === 'none') {
      this.harmonies.push({ tick, symbol: 'N.C.', line: element.line })
      return
    }
    const root = nameOf(child(element, 'root'), 'root')
    if (!root) return
    const bass = nameOf(child(element, 'bass'), 'bass')
    const chord: ChordKind = { kind: kind.text, degrees: children(element, 'degree').flatMap(degreeOf) }
    const parsed = chordOfKind(root, chord, printed, bass)
    const symbol = parsed ? chordText(parsed) : (printed ?? kind.text)
    this.harmonies.push({
      tick,
      symbol,
      line: element.line,
      ...(parsed ? { parsed } : {}),
      ...(element.attributes['type'] === 'implied' ? { implied: true } : {}),
    })
  }

  private direction(element: XmlElement): void {
    const tick = Math.max(0, Math.round(this.at + this.ticksOf(numberIn(element, 'offset') ?? 0)))
    const sound = child(element, 'sound')
    if (sound) this.sound(sound, tick)
    for (const type of children(element, 'direction-type'))
      for (const item of type.children) {
        if (item.name === 'rehearsal' && item.text !== '') this.rehearsal ??= item.text
        else if (item.name === 'segno') this.signs.segno = true
        else if (item.name === 'coda') this.signs.coda = true
        else if (item.name === 'metronome' && !sound?.attributes['tempo']) {
          const bpm = metronomeBpm(item)
          if (bpm !== undefined) this.tempo(tick, bpm)
        } else if (item.name === 'words') this.words(item, tick, element)
        else this.marks.push({ tick, element: item, staff: numberIn(element, 'staff') ?? 1 })
      }
  }

  private words(item: XmlElement, tick: Ticks, direction: XmlElement): void {
    const jump = jumpOf(item.text)
    if (jump) this.jump = jump
    else if (/^\s*fine\.?\s*$/i.test(item.text)) this.signs.fine = true
    else if (/^\s*to\s+coda\b/i.test(item.text)) this.signs.coda = true
    else this.marks.push({ tick, element: item, staff: numberIn(direction, 'staff') ?? 1 })
  }

  private sound({ attributes, children: inner }: XmlElement, tick: Ticks): void {
    const bpm = Number(attributes['tempo'] ?? NaN)
    if (Number.isFinite(bpm)) this.tempo(tick, bpm)
    if (attributes['dacapo'] === 'yes') this.jump ??= 'daCapo'
    if (attributes['dalsegno'] !== undefined) this.jump ??= 'dalSegno'
    if (attributes['fine'] !== undefined) this.signs.fine = true
    if (attributes['segno'] !== undefined) this.signs.segno = true
    if (attributes['coda'] !== undefined || attributes['tocoda'] !== undefined) this.signs.coda = true
    const swing = inner.find((c) => c.name === 'swing')
    if (!swing) return
    const [first, second] = [numberIn(swing, 'first') ?? 1, numberIn(swing, 'second') ?? 1]
    const share = first / (first + second)
    this.swing = child(swing, 'straight') || share <= 0.5 ? 'straight' : share < 0.63 ? 'light' : 'shuffle'
  }

  private tempo(tick: Ticks, bpm: number): void {
    if (bpm < LIMITS.slowest || bpm > LIMITS.fastest || this.tempos.some((t) => t.tick === tick)) return
    this.tempos.push({ tick, bpm: Math.round(bpm * 100) / 100 })
  }

  private barlineOf(element: XmlElement): void {
    const isLeft = element.attributes['location'] === 'left'
    const style = textIn(element, 'bar-style')
    const repeat = child(element, 'repeat')
    const ending = child(element, 'ending')
    if (child(element, 'segno')) this.signs.segno = true
    if (child(element, 'coda')) this.signs.coda = true
    if (repeat?.attributes['direction'] === 'forward') this.signs.repeatStart = true
    else if (repeat) {
      this.signs.repeats = true
      const times = Number(repeat.attributes['times'] ?? NaN)
      if (Number.isInteger(times) && times >= 2 && times <= LIMITS.passes + 1) this.times = times
    }
    if (ending?.attributes['type'] === 'start') this.endingStarts = ending.attributes['number'] ?? ''
    else if (ending) this.signs.endingEnds = true
    if (isLeft || style === undefined) return
    this.signs.barline =
      style === 'light-heavy' || style === 'heavy-heavy' || style === 'heavy'
        ? 'final'
        : style === 'light-light'
          ? 'double'
          : style === 'none'
            ? 'none'
            : 'single'
  }
}

export const notationsOf = (note: XmlElement): readonly XmlElement[] => children(note, 'notations')
