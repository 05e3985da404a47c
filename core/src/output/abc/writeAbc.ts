import { knownIn } from '../../invariant.ts'
import type { Id } from '../../document/ids.ts'
import type { ChordMark, Jump, Measure, TuneDoc, TuneEvent } from '../../document/tune.ts'
import type { Key, Mode } from '../../music/pitch/key.ts'
import { nameText } from '../../music/pitch/pitch.ts'
import type { Metre } from '../../music/time/metre.ts'
import { commonDivisor } from '../../music/time/commonDivisor.ts'
import { LIMITS } from '../../document/limits.ts'
import { QUARTER, WHOLE, type Ticks } from '../../music/time/ticks.ts'
import { finish, type Turns, eachInTurns } from '../../turns.ts'
import { PitchWriter } from './writePitch.ts'

/** The unit of written lengths: L:1/8. */
const UNIT: Ticks = QUARTER / 2

/** Measures a line, where no section begins. */
const MEASURES_A_LINE = 4

const MODES: Readonly<Record<Mode, string>> = {
  major: '',
  minor: 'm',
  dorian: 'dor',
  mixolydian: 'mix',
  phrygian: 'phr',
  lydian: 'lyd',
  locrian: 'loc',
}

const JUMPS: Readonly<Record<Jump, string>> = {
  daCapo: 'D.C.',
  dalSegno: 'D.S.',
  daCapoAlFine: 'D.C.alfine',
  daCapoAlCoda: 'D.C.alcoda',
  dalSegnoAlFine: 'D.S.alfine',
  dalSegnoAlCoda: 'D.S.alcoda',
}

/** Fields of the head that are written anew; further fields of an earlier text are kept. */
const OWN_FIELDS = /^(X|T|C|S|M|L|Q|K|V|P|U|I|m|w|W):|^%%propagate-accidentals/

/**
 * Writes a tune as ABC (standard 2.1). Reading the text again gives the same tune, but for ids; a chord that stands
 * inside a note parts it into two tied notes, as ABC has no other place for it. Suggested chords are not written.
 * @param earlier a text of the same tune: fields of its head that a tune does not hold are kept
 */
export const writeAbc = (tune: TuneDoc, earlier = ''): string => finish(writingAbc(tune, earlier))

/** What is written besides what a tune holds. */
export interface AbcMore {
  /** Annotations before notes, by the event, in their quotes. */
  readonly marks?: ReadonlyMap<Id, string>
  /** Further lines of the head. */
  readonly head?: readonly string[]
}

/** The same in turns, some lines each. */
export function* writingAbc(tune: TuneDoc, earlier = '', more: AbcMore = {}): Turns<string> {
  const voices = [...new Set([0, ...tune.events.map((e) => e.voice)])].sort((a, b) => a - b)
  const first = tune.measures[0]!
  const stated = tune.tempos.find((t) => t.stated && t.pos.measure === first.id && t.pos.tick === 0)
  const head = [
    'X:1',
    `T:${oneLine(tune.title)}`,
    ...(more.head ?? []),
    ...keptFields(earlier),
    ...(tune.composer ? [`C:${oneLine(tune.composer)}`] : []),
    ...(tune.source ? [`S:${oneLine(tune.source)}`] : []),
    `M:${metreText(first.metre)}`,
    'L:1/8',
    ...(stated ? [`Q:${tempoText(stated.bpm)}`] : []),
    ...(voices.length > 1 ? voices.map((v) => `V:${v + 1}`) : []),
    `K:${keyText(first.key)}`,
  ]
  const writers = new Map<number, VoiceWriter>()
  for (const v of voices) writers.set(v, new VoiceWriter(tune, v, yield* eventsOf(tune, v), more.marks))
  const lines: string[] = []
  for (const [i, { from, to }] of linesOf(tune).entries()) {
    if (i % 16 === 15) yield
    const section = tune.sections.find((s) => s.measure === tune.measures[from]!.id)
    if (section) lines.push(`P:${oneLine(section.name)}`)
    for (const v of voices) {
      const written = knownIn(writers, v).line(from, to)
      if (voices.length > 1) lines.push(`V:${v + 1}`)
      lines.push(...written)
    }
  }
  return [...head, ...lines, ''].join('\n')
}

const oneLine = (text: string) => text.replace(/[\r\n]+/g, ' ').trim()

const metreText = ({ num, den, display }: Metre) =>
  display === 'common' ? 'C' : display === 'cut' ? 'C|' : `${num}/${den}`

const keyText = ({ tonic, mode }: Key) => nameText(tonic) + MODES[mode]

const tempoText = (bpm: number) => `1/4=${Number(bpm.toFixed(2))}`

/** Fields of an earlier head that this writer does not write itself. */
function keptFields(text: string): string[] {
  const lines = text.split('\n')
  const key = lines.findIndex((l) => l.startsWith('K:'))
  return lines.slice(0, Math.max(0, key)).filter((l) => /^([A-Za-z]:|%%)/.test(l) && !OWN_FIELDS.test(l))
}

/** Which measures stand on one line: a section begins one. */
function linesOf({ measures, sections }: TuneDoc): { from: number; to: number }[] {
  const starts = new Set(sections.map((s) => s.measure))
  const lines: { from: number; to: number }[] = []
  measures.forEach((m, i) => {
    const line = lines.at(-1)
    const pickup = line && line.from === 0 && measures[0]!.length < measures[0]!.nominal ? 1 : 0
    if (!line || starts.has(m.id) || i - line.from >= MEASURES_A_LINE + pickup) lines.push({ from: i, to: i })
    else line.to = i
  })
  return lines
}

type Sung = Pick<TuneEvent, 'lyric' | 'moreLyrics'>

/** A written measure with everything that it was written from. */
interface Written {
  readonly from: readonly unknown[]
  readonly text: string
  readonly sung: readonly Sung[]
}

/** Measures as they were written last, by voice: an edit changes few of them. */
const known = new WeakMap<Measure, Map<number, Written>>()

/** The tied half of a parted note: it has no syllable of its own. */
const WORDLESS: Sung = {}

/** The events of a voice: those of each measure in order, and the one that follows each. */
interface VoiceEvents {
  readonly byMeasure: ReadonlyMap<Id, readonly TuneEvent[]>
  readonly nextOf: ReadonlyMap<Id, TuneEvent>
}

function* eventsOf(tune: TuneDoc, voice: number): Turns<VoiceEvents> {
  const byMeasure = new Map<Id, TuneEvent[]>()
  yield* eachInTurns(tune.events, (e) => e.voice === voice && pushTo(byMeasure, e.pos.measure, e), 2048)
  const nextOf = new Map<Id, TuneEvent>()
  let before: TuneEvent | undefined
  const inOrder = eachInTurns(tune.measures, ({ id }) => {
    for (const e of byMeasure.get(id)?.sort((a, b) => a.pos.tick - b.pos.tick) ?? []) {
      if (before) nextOf.set(before.id, e)
      before = e
    }
  })
  yield* inOrder
  return { byMeasure, nextOf }
}

/** A chord over a note. One that begins like an annotation is kept apart from those by a space. */
const chordSign = (symbol: string): string =>
  `"${/^[\^_<>@]/.test(symbol) ? ' ' : ''}${symbol.replace(/"/g, '')}"`

/** True where the bar line behind a measure ends its ending (standard 4.9): what follows has to say it anew. */
const closesEnding = ({ repeatEnd, barline }: Measure): boolean =>
  repeatEnd > 1 || barline === 'double' || barline === 'final'

/** Writes one voice line by line; accidentals, tuplets and signatures go on from one to the next. */
class VoiceWriter {
  private readonly pitches = new PitchWriter()
  private readonly byMeasure: VoiceEvents['byMeasure']
  private readonly chords = new Map<Id, ChordMark[]>()
  private readonly tuplets: ReadonlyMap<Id, { actual: number; normal: number }>
  private readonly nextOf: VoiceEvents['nextOf']
  private readonly tune: TuneDoc
  private readonly voice: number
  private readonly marks: ReadonlyMap<Id, string> | undefined

  constructor(
    tune: TuneDoc,
    voice: number,
    { byMeasure, nextOf }: VoiceEvents,
    marks: ReadonlyMap<Id, string> | undefined,
  ) {
    this.marks = marks
    this.byMeasure = byMeasure
    this.nextOf = nextOf
    this.tune = tune
    this.voice = voice
    this.tuplets = new Map(tune.tuplets.map((t) => [t.id, t]))
    if (voice === 0)
      for (const c of tune.chords) if (c.origin !== 'suggested') pushTo(this.chords, c.pos.measure, c)
  }

  /** The music of some measures, and the words under it. */
  line(from: number, to: number): string[] {
    const music: string[] = []
    const sung: Sung[] = []
    for (let i = from; i <= to; i++) {
      const measure = this.measure(i)
      music.push(measure.text)
      sung.push(...measure.sung)
    }
    const verses = Math.max(
      0,
      ...sung.map((e) => (e.lyric === undefined ? 0 : 1 + (e.moreLyrics?.length ?? 0))),
    )
    const words = Array.from({ length: verses }, (_, v) =>
      `w:${sung.map((e) => syllable(e, v)).join('')}`.trimEnd(),
    )
    return [music.join(' '), ...words]
  }

  private measure(index: number): Written {
    const { measures, tuplets, tempos } = this.tune
    const m = measures[index]!
    const events = this.byMeasure.get(m.id) ?? []
    const last = events.at(-1)
    const from = [
      ...[measures[index - 1], measures[index + 1], tuplets, tempos, last && this.nextOf.get(last.id)],
      ...events,
      null,
      ...(this.chords.get(m.id) ?? []),
    ]
    const own = known.get(m)?.get(this.voice)
    if (own && own.from.length === from.length && own.from.every((x, i) => x === from[i])) {
      this.pitches.setKey(m.key.fifths)
      return own
    }
    const sung: Sung[] = []
    const written = { from, text: this.written(index, events, sung), sung }
    known.set(m, new Map(known.get(m)).set(this.voice, written))
    return written
  }

  private written(index: number, events: readonly TuneEvent[], sung: Sung[]): string {
    const { measures } = this.tune
    const m = measures[index]!
    const before = measures[index - 1]
    const after = measures[index + 1]
    let text = ''
    if (before && metreText(before.metre) !== metreText(m.metre)) text += `[M:${metreText(m.metre)}]`
    if (before && keyText(before.key) !== keyText(m.key)) {
      text += `[K:${keyText(m.key)}]`
    }
    this.pitches.setKey(m.key.fifths)
    const signs = this.voice === 0 ? `${m.segno ? '!segno!' : ''}${m.coda ? '!coda!' : ''}` : ''
    text += this.music(m, index, events, signs, sung)
    this.pitches.barLine()
    const start = m.repeatStart ? '|:' : ''
    const goesOn = before && m.endings.join() === before.endings.join() && !closesEnding(before)
    const ending = m.endings.length > 0 && !goesOn ? `[${m.endings.join(',')} ` : ''
    const end = this.voice === 0 ? `${m.fine ? '!fine!' : ''}${m.jump ? `!${JUMPS[m.jump]}!` : ''}` : ''
    return `${start}${ending}${text} ${end}${barLine(m, after)}`
  }

  private music(
    m: Measure,
    index: number,
    events: readonly TuneEvent[],
    signs: string,
    sung: Sung[],
  ): string {
    const chords = new Map((this.chords.get(m.id) ?? []).map((c) => [c.pos.tick, c.symbol]))
    const tempos = new Map(
      this.voice === 0
        ? this.tune.tempos
            .filter((t) => t.stated && t.pos.measure === m.id && !(index === 0 && t.pos.tick === 0))
            .map((t) => [t.pos.tick, t.bpm])
        : [],
    )
    const words: string[] = []
    let sign = signs
    let at = 0
    const lead = (tick: Ticks) => {
      const tempo = tempos.get(tick)
      const symbol = chords.get(tick)
      const text = `${tempo === undefined ? '' : `[Q:${tempoText(tempo)}]`}${symbol === undefined ? '' : chordSign(symbol)}${sign}`
      sign = ''
      return text
    }
    /** A stretch is parted where a chord begins inside it. */
    const parts = (from: Ticks, to: Ticks) => {
      const cuts = [...chords.keys(), ...tempos.keys(), ...longest(from, to)]
        .filter((t) => t > from && t < to)
        .sort((a, b) => a - b)
      return [from, ...new Set(cuts)].map((t, i, all) => ({ from: t, to: all[i + 1] ?? to }))
    }
    const rest = (from: Ticks, to: Ticks) => {
      for (const p of parts(from, to)) words.push(`${lead(p.from)}z${lengthText(p.to - p.from)}`)
    }
    events.forEach((e, i) => {
      if (e.pos.tick > at) rest(at, e.pos.tick)
      at = e.pos.tick + e.dur.ticks
      if (!e.pitch && !e.dur.tupletId) return rest(e.pos.tick, at)
      words.push(this.event(e, events[i - 1], parts(e.pos.tick, at), lead, sung))
    })
    if (at < m.length || events.length === 0) rest(at, Math.max(m.length, at))
    return words.join(' ')
  }

  private event(
    e: TuneEvent,
    before: TuneEvent | undefined,
    parts: readonly { from: Ticks; to: Ticks }[],
    lead: (tick: Ticks) => string,
    sung: Sung[],
  ): string {
    const tuplet = e.dur.tupletId ? this.tuplets.get(e.dur.tupletId) : undefined
    const opens = tuplet && before?.dur.tupletId !== e.dur.tupletId
    const group = opens ? `(${tuplet.actual}:${tuplet.normal}:${this.tupletSize(e)}` : ''
    const next = this.nextOf.get(e.id)
    const slurOpens = !e.slurred && next?.slurred ? '(' : ''
    const slurEnds = e.slurred && !next?.slurred ? ')' : ''
    if (e.pitch) sung.push(e)
    // A tuplet's note is never parted: its tied halves would not count as one of the group.
    const pieces = tuplet ? [{ from: e.pos.tick, to: e.pos.tick + e.dur.ticks }] : parts
    return pieces
      .map((p, i) => {
        const written = tuplet ? ((p.to - p.from) * tuplet.actual) / tuplet.normal : p.to - p.from
        if (!e.pitch) return `${lead(p.from)}${i === 0 ? group : ''}z${lengthText(written)}`
        const graces =
          i === 0 && e.graces.length > 0 ? `{${e.graces.map((g) => this.pitches.write(g)).join('')}}` : ''
        const ornaments = i === 0 ? e.ornaments.map(ornamentText).join('') : ''
        const pitches = [...e.chordTones, e.pitch].map((pitch) => this.pitches.write(pitch))
        const head = pitches.length > 1 ? `[${pitches.join('')}]` : pitches[0]!
        const last = i === pieces.length - 1
        const tie = !last || (e.tieTo && next?.id === e.tieTo) ? '-' : ''
        if (!last) sung.push(WORDLESS)
        const mark = i === 0 ? (this.marks?.get(e.id) ?? '') : ''
        return `${lead(p.from)}${mark}${i === 0 ? group + slurOpens : ''}${graces}${ornaments}${head}${lengthText(written)}${tie}${last ? slurEnds : ''}`
      })
      .join(' ')
  }

  /** Events of a tuplet from its first on, without a break. */
  private tupletSize(first: TuneEvent): number {
    let size = 1
    let next = this.nextOf.get(first.id)
    for (; next && next.dur.tupletId === first.dur.tupletId; next = this.nextOf.get(next.id)) size++
    return size
  }
}

/** Where a stretch is parted that is longer than one note can be. */
function longest(from: Ticks, to: Ticks): Ticks[] {
  const step = LIMITS.noteWholes * WHOLE
  return Array.from({ length: Math.floor((to - from) / step) }, (_, i) => from + (i + 1) * step)
}

/** Ornaments with a sign of their own are not known by name everywhere. */
const SIGNS: Readonly<Record<string, string>> = { staccato: '.', irishroll: '~' }

const ornamentText = (name: string) => SIGNS[name] ?? `!${name}!`

function pushTo<K, V>(lists: Map<K, V[]>, key: K, value: V): void {
  const list = lists.get(key)
  if (list) list.push(value)
  else lists.set(key, [value])
}

/** @example lengthText(15120) // '3' eighths; a quarter of an eighth is '/4' */
function lengthText(ticks: Ticks): string {
  const divisor = commonDivisor(ticks, UNIT)
  const [num, den] = [ticks / divisor, UNIT / divisor]
  return `${num === 1 ? '' : num}${den === 1 ? '' : `/${den}`}`
}

function barLine(m: Measure, after: Measure | undefined): string {
  if (m.repeatEnd > 1) return ':|'
  if (m.barline === 'final') return '|]'
  // An ending is closed by a double bar where no repeat sign does it.
  if (m.barline === 'double' || (m.endings.length > 0 && after?.endings.length === 0)) return '||'
  return m.barline === 'none' && after ? '[|]' : '|'
}

/** One syllable of a words line; `*` for a note without one. */
function syllable({ lyric = '', moreLyrics = [] }: Sung, verse: number): string {
  const text = [lyric, ...moreLyrics][verse] ?? ''
  if (text === '') return '* '
  const goesOn = text.endsWith('-')
  const plain = (goesOn ? text.slice(0, -1) : text).replace(/\s+/g, '~').replace(/-/g, '\\-')
  return goesOn ? `${plain}-` : `${plain} `
}
