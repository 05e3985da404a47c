import { bendRange } from '../instrument/stringBend.ts'
import { groupBy } from 'es-toolkit'
import { message, type Message } from '../messages/message.ts'
import { spanOf, type PickingSchool, type PickingSign } from '../instrument/hand.ts'
import { reach } from '../instrument/geometry.ts'
import { lastFret, pitchAt } from '../instrument/setup.ts'
import { mod12, pitchText, plainPitch, type Midi } from '../music/pitch/pitch.ts'
import { QUARTER, type Ticks } from '../music/time/ticks.ts'
import { measureAtTick, playedNotes, type PlayedNote } from './playedOrder.ts'
import type { FinishedTab, WrittenNote } from './finishedTab.ts'
import { arrivalFaults, isArrivalNote } from './arrivals.ts'
import { heardBass, type HeardBass } from './heardBass.ts'
import { HOP_LIMIT_S, PICK_REPEAT_LIMIT_S } from '../instrument/handLimits.ts'

export const FINDING_KINDS = [
  'melodyMissing',
  'melodyWrong',
  'melodyExtra',
  'melodyCut',
  'melodyMasked',
  'stringClash',
  'outsideNeck',
  'wrongPitch',
  'outsideMeasure',
  'noRoot',
  'wrongRoot',
  'bassCut',
  'stretch',
  'fingerTwice',
  'fingerOrder',
  'hop',
  'pluckTwice',
  'arrivalFrom',
  'fingerNotDown',
  'bendRoom',
  'bendHard',
  'pickCross',
  'pickRepeat',
  'pickGap',
] as const
export type FindingKind = (typeof FINDING_KINDS)[number]

/** Kinds that make a tab wrong, as against less comfortable. */
export const STRUCTURAL: ReadonlySet<FindingKind> = new Set<FindingKind>([
  'melodyMissing',
  'melodyWrong',
  'melodyExtra',
  'melodyMasked',
  'stringClash',
  'outsideNeck',
  'wrongPitch',
  'outsideMeasure',
  'stretch',
  'fingerTwice',
  'fingerOrder',
  'pluckTwice',
  'arrivalFrom',
  'fingerNotDown',
  'bendRoom',
])

/** Something wrong with a finished tab. `measure` is an index; `value` is in the unit that the kind implies. */
export interface Finding {
  readonly kind: FindingKind
  readonly measure: number
  readonly start: number
  readonly says: Message<'auditing'>
  readonly value?: number
}

export interface AuditReport {
  readonly structural: number
  readonly findings: readonly Finding[]
  readonly melodyNotes: number
  readonly melodyKept: number
  readonly harmonyChanges: number
  readonly rootsInBass: number
  readonly widestStretchMm: number
}

/** Checks a finished tab against its source, from the page alone, in played order. */
export function audit(tab: FinishedTab): AuditReport {
  const findings: Finding[] = []
  const add: Add = (kind, start, says, value) =>
    findings.push({
      kind,
      measure: measureAtTick(tab, start),
      start,
      says,
      ...(value === undefined ? {} : { value }),
    })
  const melodyKept = checkMelody(tab, add)
  checkPlaces(tab, add)
  const played = playedNotes(tab)
  checkStrings(tab, played, add)
  checkMasking(tab, played, add)
  const widestStretchMm = checkHand(tab, played, add)
  checkHops(played, add)
  checkPicking(
    tab,
    played.filter((p) => p.note.rightFinger !== 'none'),
    add,
  )
  checkArticulation(tab, played, add)
  const roots = checkRoots(tab, played, add)
  const unique = [
    ...new Map(findings.map((f) => [`${f.kind} ${f.start} ${JSON.stringify(f.says)}`, f])).values(),
  ].sort((a, b) => a.start - b.start)
  return {
    structural: unique.filter((f) => STRUCTURAL.has(f.kind)).length,
    findings: unique,
    melodyNotes: tab.source.length,
    melodyKept,
    harmonyChanges: roots.changes,
    rootsInBass: roots.kept,
    widestStretchMm,
  }
}

type Add = (kind: FindingKind, start: number, says: Message<'auditing'>, value?: number) => void

/** A pitch as it is named without a key around it. */
const noteName = (midi: Midi) => pitchText(plainPitch(midi, false))

const quarters = (ticks: Ticks) => Number((ticks / QUARTER).toFixed(3))

function checkMelody(tab: FinishedTab, add: Add): number {
  const melody = tab.notes.filter((n) => n.role === 'melody')
  const at = groupBy(melody, (n) => n.start)
  let kept = 0
  for (const source of tab.source) {
    const note = at[source.start]?.shift()
    const wanted = source.midi + tab.transposed
    if (!note)
      add('melodyMissing', source.start, message('auditing.melodyMissing', { wanted: noteName(wanted) }))
    else if (note.midi !== wanted) {
      const values = { wanted: noteName(wanted), note: noteName(note.midi) }
      add('melodyWrong', source.start, message('auditing.melodyOther', values))
    } else if (note.duration !== source.duration) {
      const lengths = { wanted: quarters(source.duration), lasts: quarters(note.duration) }
      add(
        'melodyWrong',
        source.start,
        message('auditing.melodyLength', { note: noteName(note.midi), ...lengths }),
      )
    } else {
      kept++
      if (note.ring < note.duration)
        add('melodyCut', note.start, message('auditing.melodyStops'), note.duration - note.ring)
    }
  }
  for (const rest of Object.values(at))
    for (const n of rest) add('melodyExtra', n.start, message('auditing.melodyExtra'))
  return kept
}

function checkPlaces(tab: FinishedTab, add: Add): void {
  for (const n of tab.notes) {
    const onNeck =
      n.string >= 1 &&
      n.string <= tab.setup.instrument.strings &&
      n.fret >= 0 &&
      n.fret <= lastFret(tab.setup, n.string)
    if (!onNeck)
      add('outsideNeck', n.start, message('auditing.notOnNeck', { string: n.string, fret: n.fret }))
    else if (pitchAt(tab.setup, n) + (n.bend ?? 0) !== n.midi) {
      add(
        'wrongPitch',
        n.start,
        message('auditing.otherPitch', {
          string: n.string,
          fret: n.fret,
          heard: noteName(pitchAt(tab.setup, n) + (n.bend ?? 0)),
          written: noteName(n.midi),
        }),
      )
    }
    if ((n.fret === 0) !== (n.leftFinger === 0))
      add(
        'outsideNeck',
        n.start,
        message('auditing.openFinger', { string: n.string, fret: n.fret, finger: n.leftFinger }),
      )
    const measure = tab.measures[measureAtTick(tab, n.start)]
    if (!measure || n.start >= measure.start + measure.length || n.duration <= 0)
      add('outsideMeasure', n.start, message('auditing.outsideMeasure'))
  }
}

/** Two notes at once on a string, and notes ended early by the next one on their string or by their own finger. */
function checkStrings(tab: FinishedTab, played: readonly PlayedNote[], add: Add): void {
  const last = new Map<number, PlayedNote>()
  for (const p of played) {
    const before = last.get(p.note.string)
    if (before && before.at === p.at)
      add('stringClash', p.note.start, message('auditing.stringClash', { string: p.note.string }))
    else if (before && before.at + before.note.duration > p.at) cutShort(before, p.at, add)
    last.set(p.note.string, p)
  }
  const held = new Map<string | number, PlayedNote>()
  for (const p of played) {
    const f = p.note.leftFinger
    if (f === 0) continue
    const before = held.get(f)?.note.harmonic ? undefined : held.get(f)
    const moved = before && before.note.fret !== p.note.fret
    if (before && moved && before.at < p.at && before.at + before.note.duration > p.at)
      cutShort(before, p.at, add)
    held.set(f, p)
  }
  for (const n of tab.notes) {
    if (n.role === 'bass' && n.ring < n.duration)
      add('bassCut', n.start, message('auditing.bassStops'), n.duration - n.ring)
  }
}

function cutShort(p: PlayedNote, at: number, add: Add): void {
  const kind = p.note.role === 'melody' ? 'melodyCut' : 'bassCut'
  add(
    kind,
    p.note.start,
    message(p.note.role === 'melody' ? 'auditing.melodyCut' : 'auditing.noteCut', { string: p.note.string }),
    p.at + p.note.duration - at,
  )
}

/** At a melody onset nothing else that is struck or still written may lie above it. */
function checkMasking(tab: FinishedTab, played: readonly PlayedNote[], add: Add): void {
  let window: PlayedNote[] = []
  for (let i = 0; i < played.length;) {
    const at = played[i]!.at
    const struck: PlayedNote[] = []
    while (i < played.length && played[i]!.at === at) struck.push(played[i++]!)
    window = window.filter((p) => p.at + p.note.duration > at)
    for (const m of struck.filter((p) => p.note.role === 'melody')) {
      const mayLieAbove = tab.measures[m.note.measure]?.harmonyAbove
      const above = [...window, ...struck].find(
        (p) =>
          p.note.role !== 'melody' &&
          p.note.midi >= m.note.midi &&
          !(mayLieAbove && p.note.role === 'harmony'),
      )
      if (above) add('melodyMasked', m.note.start, message('auditing.melodyMasked'))
    }
    window.push(...struck)
  }
}

/** A harmonic's finger is free again as soon as the string sounds. */
const isReleased = (note: WrittenNote, struckAt: number, at: number) =>
  note.harmonic !== undefined && struckAt < at

/** Stretches, fingers on two frets at once, and crossed fingers, among notes that sound together. */
function checkHand(tab: FinishedTab, played: readonly PlayedNote[], add: Add): number {
  let widest = 0
  let window: PlayedNote[] = []
  for (const p of played) {
    window = window.filter((w) => w.at + Math.min(w.note.duration, w.note.ring) > p.at)
    const b = p.note
    for (const w of window) {
      const a = w.note
      if (
        typeof a.leftFinger !== 'number' ||
        typeof b.leftFinger !== 'number' ||
        a.leftFinger === 0 ||
        b.leftFinger === 0 ||
        isReleased(a, w.at, p.at)
      )
        continue
      if (a.string === b.string) continue
      if (a.leftFinger === b.leftFinger) {
        if (a.fret !== b.fret)
          add(
            'fingerTwice',
            b.start,
            message('auditing.fingerTwice', { finger: b.leftFinger, from: a.fret, to: b.fret }),
          )
        continue
      }
      const [low, high] = a.leftFinger < b.leftFinger ? [a, b] : [b, a]
      if (low.fret > high.fret)
        add(
          'fingerOrder',
          b.start,
          message('auditing.fingerOrder', { low: low.leftFinger, high: high.leftFinger }),
        )
      const capo = tab.setup.capo
      const mm = reach(
        tab.setup.instrument,
        { string: a.string, fret: a.fret + capo[a.string - 1]! },
        { string: b.string, fret: b.fret + capo[b.string - 1]! },
      )
      widest = Math.max(widest, mm)
      const limit = spanOf(tab.setup.player.spans, a.leftFinger, b.leftFinger)
      if (mm > limit)
        add(
          'stretch',
          b.start,
          message('auditing.stretch', {
            low: low.leftFinger,
            high: high.leftFinger,
            mm: mm.toFixed(0),
            limit,
          }),
          mm,
        )
    }
    window.push(p)
  }
  return widest
}

function checkHops(played: readonly PlayedNote[], add: Add): void {
  const last = new Map<string | number, PlayedNote>()
  for (const p of played) {
    const f = p.note.leftFinger
    // A bottleneck lies across all strings: it does not jump between them.
    if (f === 0 || p.note.technique === 'bottle') continue
    const before = last.get(f)
    if (
      before &&
      before.note.string !== p.note.string &&
      before.seconds < p.seconds &&
      p.seconds - before.seconds < HOP_LIMIT_S - 1e-6
    ) {
      const roll = before.note.fret === p.note.fret && Math.abs(before.note.string - p.note.string) === 1
      if (!roll)
        add(
          'hop',
          p.note.start,
          message('auditing.hop', {
            finger: f,
            from: before.note.string,
            to: p.note.string,
            seconds: (p.seconds - before.seconds).toFixed(2),
          }),
          p.seconds - before.seconds,
        )
    }
    last.set(f, p)
  }
}

const FINGER_ORDER: Readonly<Record<string, number>> = { p: 0, down: 0, i: 1, m: 2, a: 3 }
const isStroke = (sign: PickingSign) => sign === 'down' || sign === 'up'

/** Strings that one stroke, or the index of a thumb-and-index hand, must sound together: neighbours. */
function checkTogether(
  p: WrittenNote,
  q: WrittenNote,
  between: boolean,
  add: Add,
  school: PickingSchool,
): void {
  const same = p.rightFinger === q.rightFinger
  if (same && isStroke(p.rightFinger)) {
    // A brush passes over strings that the fretting hand damps.
    if (Math.abs(p.string - q.string) > 1 && !between && p.technique !== 'brush')
      add('pickGap', q.start, message('auditing.pickGap', { from: p.string, to: q.string }))
  } else if (same) {
    const brushes = p.rightFinger === 'i' && school === 'thumbAndIndex' && Math.abs(p.string - q.string) <= 2
    const sweeps = p.rightFinger === 'p' && Math.abs(p.string - q.string) === 1
    if (!brushes && !sweeps) add('pluckTwice', q.start, message('auditing.pickTwo', { sign: q.rightFinger }))
  } else {
    const order = (n: WrittenNote) => FINGER_ORDER[n.rightFinger] ?? 0
    if (p.rightFinger === 'up' || q.rightFinger === 'up')
      add('pluckTwice', q.start, message('auditing.strokesAtOnce'))
    else if ((p.string - q.string) * (order(p) - order(q)) > 0)
      add('pickCross', q.start, message('auditing.pickCross', { one: p.rightFinger, other: q.rightFinger }))
  }
}

function checkPicking(tab: FinishedTab, played: readonly PlayedNote[], add: Add): void {
  const last = new Map<string, PlayedNote>()
  for (let i = 0; i < played.length;) {
    const at = played[i]!.at
    const struck: PlayedNote[] = []
    while (i < played.length && played[i]!.at === at) struck.push(played[i++]!)
    const touched = struck.find((p) => p.note.artificial)
    if (touched && struck.some((p) => p.note.rightFinger === 'i'))
      add('pluckTwice', touched.note.start, message('auditing.indexTouches'))
    if (touched && touched.note.fret + 12 > lastFret(tab.setup, touched.note.string))
      add('outsideNeck', touched.note.start, message('auditing.neckEnds', { fret: touched.note.fret + 12 }))
    struck.forEach((p, k) => {
      for (const q of struck.slice(k + 1)) {
        const between = struck.some(
          (b) => (b.note.string - p.note.string) * (b.note.string - q.note.string) < 0,
        )
        const school = tab.measures[p.note.measure]?.picking ?? tab.setup.player.school
        checkTogether(p.note, q.note, between, add, school)
      }
    })
    for (const p of struck) {
      const sign = p.note.rightFinger
      const before = last.get(sign)
      const lags = before && p.seconds > before.seconds && p.seconds - before.seconds < PICK_REPEAT_LIMIT_S
      if (lags && sign !== 'p' && !isStroke(sign))
        add(
          'pickRepeat',
          p.note.start,
          message('auditing.pickRepeat', { sign, seconds: (p.seconds - before.seconds).toFixed(2) }),
        )
    }
    for (const p of struck) last.set(p.note.rightFinger, p)
  }
}

function checkArticulation(tab: FinishedTab, played: readonly PlayedNote[], add: Add): void {
  for (const { note, fault } of arrivalFaults(played, tab.grips)) add(fault.kind, note.start, fault.says)
  for (const n of tab.notes) {
    if (n.bend) {
      const { easy, most } = n.leftFinger === 0 ? { easy: 0, most: 0 } : bendRange(tab.setup, n)
      const values = { string: n.string, fret: n.fret, semitones: n.bend }
      if (n.bend > most) add('bendRoom', n.start, message('auditing.bendRoom', values))
      else if (n.bend > easy) add('bendHard', n.start, message('auditing.bendHard', values), n.bend)
    }
    if (n.rightFinger === 'none' && !isArrivalNote(n))
      add('pluckTwice', n.start, message('auditing.notSounded', { string: n.string }))
  }
}

/** Looks for the chord's bass note at the bottom of what sounds where each chord starts. */
function checkRoots(
  tab: FinishedTab,
  played: readonly PlayedNote[],
  add: Add,
): { changes: number; kept: number } {
  let changes = 0
  let kept = 0
  for (const chord of tab.chords) {
    if (chord.bass === undefined || !chord.rootWanted) continue
    changes++
    const here = played.filter(
      (p) => p.note.start <= chord.start && p.note.start + p.note.duration > chord.start && p.pass === 1,
    )
    const bass = here.filter((p) => p.note.start === chord.start && p.note.role === 'bass')
    const lowest = [...(bass.length > 0 ? bass : here)].sort((a, b) => a.note.midi - b.note.midi)[0]
    if (lowest && mod12(lowest.note.midi) === chord.bass) {
      kept++
      continue
    }
    const heard = heardBass(
      here.map((p) => p.note.midi),
      chord,
    )
    const kind = bass.length > 0 ? 'wrongRoot' : 'noRoot'
    add(kind, chord.start, rootMessage(kind, chord.symbol, heard))
  }
  return { changes, kept }
}

function rootMessage(
  kind: 'wrongRoot' | 'noRoot',
  chord: string,
  heard: HeardBass | undefined,
): Message<'auditing'> {
  if (!heard) return message('auditing.rootSilent', { chord })
  const { bass, inChord } = heard
  if (inChord)
    return message(kind === 'noRoot' ? 'auditing.rootOther' : 'auditing.otherBass', { chord, bass })
  return message(kind === 'noRoot' ? 'auditing.rootForeign' : 'auditing.foreignBass', { chord, bass })
}
