import { message, type Message } from '../../messages/message.ts'
import type { Score } from '../../document/score.ts'
import { writingAbc } from '../../output/abc/writeAbc.ts'
import { likelyMeaning, type CapoMeaning, type NamedMoment } from '../capoMeaning.ts'
import type { Problem } from '../problem.ts'
import type { ReadMeasure, ReadSign, ReadTab } from './readTab.ts'
import {
  chordText,
  readChordSymbol,
  transposeChord,
  type ChordReading,
} from '../../music/harmony/chordSymbol.ts'
import { type GraceNote, type TabNote } from '../../document/tab.ts'
import type { Id } from '../../document/ids.ts'
import { TUNE_SCHEMA, type ChordMark, type Measure, type TuneDoc } from '../../document/tune.ts'
import type { Player } from '../../instrument/hand.ts'
import { cutTo, LIMITS } from '../../document/limits.ts'
import { HARMONICS } from '../../instrument/harmonics.ts'
import { highestCapo, setupOf } from '../../instrument/setupOf.ts'
import { lastFret, pitchAt, type Place, type Setup } from '../../instrument/setup.ts'
import { namedTunings, readTuning } from '../../instrument/tunings.ts'
import type { Key } from '../../music/pitch/key.ts'
import type { Midi } from '../../music/pitch/pitch.ts'
import { hasSlideRoom, type SlideMark } from '../../document/marks.ts'
import type { School } from '../../document/school.ts'
import { USUAL_TEMPO } from '../../music/time/tempo.ts'
import { finish, mapInTurns, type Turns } from '../../turns.ts'
import { voicesOfTab, type UnnamedNote } from './tabVoices.ts'
import { givenScore } from '../givenScore.ts'
import { likelyKey } from '../likelyKey.ts'
import { spelledChords } from './spelledChords.ts'

/** A read tab that cannot become a score. */
export class TabReadError extends Error {
  override readonly name = 'TabReadError'
  constructor(readonly says: Message<'reading'>) {
    super(`${says.code} ${JSON.stringify(says.values)}`)
  }
}

/**
 * A tune and its tab from a read plain-text tab. The highest note of each onset on the upper strings is taken for the
 * melody; fingers and picking are found; every note is locked as typed.
 * @throws TabReadError where nothing can be played: no notes, a number of strings that no instrument has
 */
export const scoreOfTab = (
  read: ReadTab,
  id: Id,
  player: Player,
  newTitle: string,
  choices: TabChoices = {},
): TabScore => finish(scoringTab(read, id, player, newTitle, choices))

/** The same in turns: long tabs take their time. */
export function* scoringTab(
  read: ReadTab,
  id: Id,
  player: Player,
  newTitle: string,
  { school, meaning }: TabChoices = {},
): Turns<TabScore> {
  const setup = setupFor(read, player)
  const problems: Problem[] = []
  const placed = read.measures.map((m) => onNeck(m, setup, problems))
  if (placed.every((m) => m.signs.length === 0)) throw new TabReadError(message('reading.noFrets'))
  const notes = yield* mapInTurns(placed, (m, i) => notesOf(m, `m${i + 1}`, setup))
  yield
  const capo = setup.capo[0]!
  const named = capo > 0 && !read.shapes && placed.some((m) => m.chords.length > 0)
  const means = read.shapes ? 'shapes' : (meaning ?? likelyMeaning(namedMoments(placed, notes, setup), capo))
  const up = means === 'shapes' ? capo : 0
  const marks = mapInTurns(placed, (m, i) => chordsOf(m, i, read.suggested, up))
  const given = (yield* marks).flat()
  yield
  const midis = notes.flat().map((n) => pitchAt(setup, n.place))
  const key = likelyKey({ chords: given.flatMap((c) => c.parsed ?? []), midis }, read.key, capo)
  yield
  const title = `${read.title ?? newTitle}${read.player === undefined ? '' : `, ${read.player}`}`
  const bare = tuneOf(read, placed, id, key, title)
  yield
  const held = placed.map((m) => m.signs.filter((s) => s.held).map((s) => s.string))
  const melody = yield* voicesOfTab(bare, notes, held, setup, key)
  yield
  const chords = given.length > 0 ? given : spelledIn(bare, notes, setup, key.fifths < 0)
  yield
  const whole: TuneDoc = { ...bare, events: melody.events, chords }
  const tune: TuneDoc = { ...whole, abc: { text: yield* writingAbc(whole), spans: [] } }
  const score = yield* givenScore({ tune, setup, notes: melody.notes, transposed: 0, school })
  return { ...score, problems, ...(named ? { capoNames: { capo, meaning: means } } : {}) }
}

/** How a tab becomes a score where its text leaves it open. */
export interface TabChoices {
  readonly school?: School
  readonly meaning?: CapoMeaning
}

/** The score of a read tab, and what of the tab it could not take. */
export interface TabScore extends Score {
  readonly problems: readonly Problem[]
  /** What its chord names were taken for, where there is a capo and the text does not say it. */
  readonly capoNames?: { readonly capo: number; readonly meaning: CapoMeaning }
}

/** The chord names of a tab with the notes under each, as they sound. */
function namedMoments(
  measures: readonly ReadMeasure[],
  notes: readonly (readonly UnnamedNote[])[],
  setup: Setup,
): NamedMoment[] {
  const moments: { chord: ChordReading; midis: Midi[] }[] = []
  measures.forEach(({ chords }, i) => {
    const names = [...chords].sort((a, b) => a.tick - b.tick)
    let next = 0
    for (const n of [...notes[i]!].sort((a, b) => a.pos.tick - b.pos.tick)) {
      while (next < names.length && names[next]!.tick <= n.pos.tick) {
        const reading = readChordSymbol(names[next++]!.symbol)
        if (reading.kind === 'chord') moments.push({ chord: reading.chord, midis: [] })
      }
      moments.at(-1)?.midis.push(pitchAt(setup, n.place))
    }
  })
  return moments
}

function setupFor({ strings, names, capo, tuning: said }: ReadTab, player: Player): Setup {
  const kind = strings === 4 ? 'mandolin' : 'guitar'
  if (strings !== 4 && strings !== 6) throw new TabReadError(message('reading.otherStrings', { strings }))
  const usual = namedTunings(kind)[0]!.tuning
  if (!names) {
    const head = said === undefined ? undefined : readTuning(kind, said)
    const own = head && 'tuning' in head ? head.tuning : usual
    return setupOf(kind, own, { fret: Math.min(capo, highestCapo(kind)) }, player)
  }
  const text = [...names]
    .reverse()
    .map((n) => n[0]!.toUpperCase() + n.slice(1).replace('♯', '#').replace('♭', 'b'))
    .join(' ')
  const tuning = readTuning(kind, text)
  return setupOf(
    kind,
    'tuning' in tuning ? tuning.tuning : usual,
    { fret: Math.min(capo, highestCapo(kind)) },
    player,
  )
}

/** Signs that this neck has; a harmonic that no string has becomes the fret itself. What it has not is said. */
function onNeck(measure: ReadMeasure, setup: Setup, problems: Problem[]): ReadMeasure {
  const { strings } = setup.instrument
  const has = (s: ReadSign) => s.string <= strings && (s.fret ?? 0) <= lastFret(setup, s.string)
  const signs = measure.signs.filter(has)
  for (const s of measure.signs)
    if (!has(s))
      problems.push({
        severity: 'warning',
        line: measure.line + s.string - 1,
        column: s.column + 1,
        says:
          s.string > strings
            ? message('reading.tooManyStrings', { strings })
            : message('reading.behindCapo', { string: s.string, fret: s.fret ?? 0 }),
      })
  return signs.length === measure.signs.length ? measure : { ...measure, signs }
}

function notesOf(measure: ReadMeasure, id: Id, setup: Setup): UnnamedNote[] {
  const lastOn = new Map<number, ReadSign>()
  const waiting = new Map<number, GraceNote[]>()
  const inTime = [...measure.signs].sort((a, b) => a.tick - b.tick || a.column - b.column)
  return inTime.flatMap((sign): UnnamedNote[] => {
    if (sign.held) return []
    const before = lastOn.get(sign.string)
    lastOn.set(sign.string, sign)
    const place = placeOf(sign, before, setup)
    if (sign.grace) {
      const grace: GraceNote = {
        place,
        left: 0,
        attack: sign.lead ?? 'pluck',
        ...(sign.optional ? { optional: true as const } : {}),
      }
      waiting.set(sign.string, [...(waiting.get(sign.string) ?? []), grace])
      return []
    }
    const graces = waiting.get(sign.string)
    waiting.delete(sign.string)
    const bend = sign.soundsAs === undefined ? 0 : sign.soundsAs - place.fret
    return [
      {
        pos: { measure: id, tick: sign.tick },
        place,
        left: place.fret > 0 ? (sign.left ?? 0) : 0,
        right: sign.right ?? 'none',
        attack: sign.muted
          ? 'muted'
          : (sign.lead ?? (sign.bottle && place.fret > 0 && !place.harmonic ? 'bottle' : 'pluck')),
        optional: sign.optional ?? false,
        ...(graces ? { graces } : {}),
        ...(sign.vibrato ? { vibrato: true as const } : {}),
        ...(sign.palm ? { palmMute: true as const } : {}),
        ...(sign.letRing ? { letRing: true as const } : {}),
        ...(bend > 0 && bend <= 4 ? { bend } : {}),
        ...slidesOf(sign, place, lastFret(setup, sign.string)),
      },
    ]
  })
}

/** The slides of a sign from and to nowhere, where the neck has room for them. */
function slidesOf({ slidIn, off }: ReadSign, place: Place, last: number): Pick<TabNote, SlideMark> {
  const wanted: SlideMark[] = [
    ...(slidIn ? [slidIn === 'below' ? ('slideFromBelow' as const) : ('slideFromAbove' as const)] : []),
    ...(off ? [off === 'up' ? ('slideOffUp' as const) : ('slideOffDown' as const)] : []),
  ]
  return Object.fromEntries(wanted.filter((m) => hasSlideRoom(m, place, last)).map((m) => [m, true]))
}

function placeOf(sign: ReadSign, before: ReadSign | undefined, setup: Setup): Place {
  const { string } = sign
  // A bend stays on its fret; the text says what it sounds like.
  if (sign.lead === 'bend' && before?.fret !== undefined) return { string, fret: before.fret }
  const fret = sign.fret ?? 0
  if (sign.artificial && fret + 12 <= lastFret(setup, string)) return { string, fret, artificial: true }
  const node = sign.harmonic ? HARMONICS.find((h) => h.fret === fret) : undefined
  if (node) return { string, fret, harmonic: node.parts }
  return { string, fret, ...(sign.offsetCents && sign.bottle ? { offsetCents: sign.offsetCents } : {}) }
}

function tuneOf(read: ReadTab, placed: readonly ReadMeasure[], id: Id, key: Key, title: string): TuneDoc {
  const nominal = (read.metre.num * 40_320) / read.metre.den
  const measures = placed.map((m, i): Measure => ({
    id: `m${i + 1}`,
    nominal,
    length: m.length,
    metre: read.metre,
    key,
    repeatStart: m.repeatStart,
    repeatEnd: m.repeatEnd ? Math.min(m.times ?? 2, LIMITS.passes + 1) : 1,
    barline: i === placed.length - 1 ? 'final' : 'single',
    endings: [],
    provenance: m.guessed ? 'guessed' : 'source',
  }))
  return {
    schema: TUNE_SCHEMA,
    id,
    rev: 1,
    title,
    ...(read.artist === undefined ? {} : { composer: cutTo(read.artist, LIMITS.composer).text }),
    measures,
    events: [],
    chords: [],
    tuplets: [],
    sections: placed.flatMap((m, i) =>
      m.part === undefined
        ? []
        : [{ id: `s${i + 1}`, name: cutTo(m.part, LIMITS.sectionName).text, measure: `m${i + 1}` }],
    ),
    tempos: [
      {
        pos: { measure: 'm1', tick: 0 },
        bpm: read.bpm ?? USUAL_TEMPO,
        stated: read.bpm !== undefined,
      },
    ],
  }
}

/** What the notes spell where nobody has written chords over them. */
const spelledIn = (
  { measures }: TuneDoc,
  notes: readonly (readonly UnnamedNote[])[],
  setup: Setup,
  flats: boolean,
): ChordMark[] =>
  spelledChords(
    measures.map(({ id, length }, i) => ({
      id,
      length,
      places: notes[i]!.filter((n) => n.attack !== 'muted').map((n) => ({
        tick: n.pos.tick,
        place: n.place,
      })),
    })),
    setup,
    flats,
  )

function chordsOf({ chords }: ReadMeasure, index: number, suggested: boolean, up: number): ChordMark[] {
  return chords.map(({ tick, symbol }, k): ChordMark => {
    const reading = readChordSymbol(symbol)
    const parsed = reading.kind === 'chord' ? reading.chord : undefined
    const sounding = parsed && up > 0 ? transposeChord(parsed, up, false) : parsed
    return {
      id: `c${index + 1}.${k + 1}`,
      pos: { measure: `m${index + 1}`, tick },
      symbol: sounding ? chordText(sounding) : symbol,
      origin: suggested ? 'suggested' : 'given',
      ...(sounding ? { parsed: sounding } : {}),
    }
  })
}
