import { knownIn } from '../../invariant.ts'
import { feelMarks } from '../../document/swing.ts'
import { measureNumbers } from '../../document/form/measureNumbers.ts'
import { ticksAt, timelineOf, type Timeline } from '../../document/form/timeline.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { Id } from '../../document/ids.ts'
import type { Score } from '../../document/score.ts'
import { BACKING_VOICE, type TabNote } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Setup } from '../../instrument/setup.ts'
import { heldShape } from '../../lesson/steps/heldShape.ts'
import { transposeKey } from '../../music/pitch/key.ts'
import { plainName, type Midi } from '../../music/pitch/pitch.ts'
import { commonDivisor } from '../../music/time/commonDivisor.ts'
import { beatLength, isCompound } from '../../music/time/metre.ts'
import { QUARTER, type Ticks } from '../../music/time/ticks.ts'
import { el, escaped } from '../markup.ts'
import { harmonyXml } from './harmonyXml.ts'
import { joinsOf } from './joins.ts'
import { partXml, type Part, type PartVoice, type Placed } from './partXml.ts'
import { syllablesOf } from './syllables.ts'
import { tabVoice, tuneVoice, type VoiceMeasures } from './voices.ts'

const text = (name: string, content: string | number): string => el(name, {}, escaped(String(content)))

/** What a MusicXML file is headed with. Readers of 4.0 need no more. */
const HEAD = `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">
`

/** General MIDI programs, counted from 1. */
const PROGRAMS = { voice: 54, strings: 26 } as const

const INSTRUMENT_NAMES = {
  guitar: 'Guitar',
  mandolin: 'Mandolin',
  baritone: 'Baritone guitar',
  tenor: 'Tenor guitar',
} as const

/**
 * A tune, or its arrangement, as MusicXML 4.0: the arrangement as staff and tab with strings, frets, fingers and what the hands do, in
 * two voices; a melody that is only sung as a part of its own. Pitches stand as they sound, under a clef an octave down for guitars.
 */
export function writeMusicXml({ tune, arrangement }: Score): string {
  const timeline = timelineOf(tune.measures)
  const transposed = arrangement?.transposed ?? 0
  const notes = arrangement?.base.notes ?? []
  const isSung = !arrangement || notes.some((n) => n.notationVoice === BACKING_VOICE)
  const tuneVoices = [...new Set(tune.events.map((e) => e.voice))].sort((a, b) => a - b)
  const sung = isSung ? (arrangement ? [0] : tuneVoices).map((v) => tuneVoice(tune, v, transposed)) : []
  const played = arrangement ? playedVoices(tune, arrangement, timeline) : []
  const unit = unitOf([...sung, ...played], tune)
  const common = {
    tune,
    numbers: measureNumbers(tune.measures),
    transposed,
    divisions: QUARTER / unit,
    units: (ticks: Ticks) => Math.round(ticks / unit),
  }
  const over = placedOver(tune, arrangement, timeline)
  const none = tune.measures.map((): Placed[] => [])
  const parts: Part[] = [
    ...(isSung ? [sungPart(common, sung, over)] : []),
    ...(arrangement
      ? [playedPart(isSung ? 'P2' : 'P1', common, arrangement, played, isSung ? none : over, timeline)]
      : []),
  ]
  return (
    HEAD +
    el(
      'score-partwise',
      { version: '4.0' },
      el('work', {}, text('work-title', tune.title)),
      el(
        'identification',
        {},
        tune.composer ? el('creator', { type: 'composer' }, escaped(tune.composer)) : '',
        tune.rights ? text('rights', tune.rights) : '',
        el(
          'encoding',
          {},
          text('software', 'Velvet Porch'),
          el('supports', { element: 'accidental', type: 'yes' }),
          el('supports', { element: 'beam', type: 'yes' }),
          el('supports', { element: 'stem', type: 'no' }),
        ),
        tune.source ? text('source', tune.source) : '',
      ),
      el(
        'part-list',
        {},
        ...(isSung ? [scorePartXml('P1', 'Melody', PROGRAMS.voice)] : []),
        ...(arrangement
          ? [
              scorePartXml(
                isSung ? 'P2' : 'P1',
                INSTRUMENT_NAMES[arrangement.setup.instrument.kind],
                PROGRAMS.strings,
              ),
            ]
          : []),
      ),
      ...parts.map((p) => `\n${partXml(p)}`),
    ) +
    '\n'
  )
}

const scorePartXml = (id: string, name: string, program: number): string =>
  el(
    'score-part',
    { id },
    text('part-name', name),
    el('score-instrument', { id: `${id}-I1` }, text('instrument-name', name)),
    el('midi-instrument', { id: `${id}-I1` }, text('midi-program', program)),
  )

type Common = Pick<Part, 'tune' | 'numbers' | 'transposed' | 'divisions' | 'units'>

/** The melody as it is sung, or a tune alone with all its voices. */
function sungPart(common: Common, sung: readonly VoiceMeasures[], over: Part['placed']): Part {
  const words = syllablesOf(common.tune)
  const joins = joinsOf([], [])
  return {
    ...common,
    id: 'P1',
    voices: sung.map((measures, v): PartVoice => ({
      measures,
      units: common.units,
      voice: v + 1,
      isTab: false,
      joins,
      ...(sung.length > 1 ? { stem: v % 2 === 0 ? 'up' : 'down' } : {}),
      ...(v === 0 ? { words } : {}),
    })),
    staves: { count: 1, clefs: el('clef', {}, text('sign', 'G'), text('line', 2)), details: '' },
    placed: over,
  }
}

/** What is played, as staff and tab: the tune and the voices under it, each on both. */
function playedPart(
  id: string,
  common: Common,
  { setup, base }: ArrangementDoc,
  played: readonly VoiceMeasures[],
  over: Part['placed'],
  timeline: Timeline,
): Part {
  const joins = joinsOf(base.notes, base.spans)
  const words = syllablesOf(common.tune)
  const said = remarksIn(common.tune, base.notes, timeline)
  const onStaff = { units: common.units, setup, joins, staff: 1, isTab: false } as const
  const onTab = { ...onStaff, staff: 2, isTab: true, stem: 'none' } as const
  const octave = setup.instrument.kind === 'mandolin' ? '' : text('clef-octave-change', -1)
  return {
    ...common,
    id,
    voices: [
      { ...onStaff, measures: played[0]!, voice: 1, stem: 'up', words },
      { ...onStaff, measures: played[1]!, voice: 2, stem: 'down' },
      { ...onTab, measures: played[0]!, voice: 5 },
      { ...onTab, measures: played[1]!, voice: 6 },
    ],
    staves: {
      count: 2,
      clefs:
        el('clef', { number: 1 }, text('sign', 'G'), text('line', 2), octave) +
        el('clef', { number: 2 }, text('sign', 'TAB'), text('line', 5)),
      details: stringsXml(setup),
    },
    placed: over.map((own, i) => [...own, ...said[i]!]),
  }
}

/** Strings from the lowest line up, with the capo. A capo on some strings only is written as their tuning. */
function stringsXml({ tuning, capo, instrument }: Setup): string {
  const isFull = capo.every((c) => c === capo[0])
  const strings = tuning.map((open, i) => open + (isFull ? 0 : capo[i]!)).toReversed()
  return el(
    'staff-details',
    { number: 2 },
    text('staff-lines', instrument.strings),
    ...strings.map((open, i) => {
      const { step, alter } = plainName(open % 12, open % 12 !== 6 && open % 12 !== 1)
      return el(
        'staff-tuning',
        { line: i + 1 },
        text('tuning-step', step),
        ...(alter === 0 ? [] : [text('tuning-alter', alter)]),
        text('tuning-octave', octaveOf(open)),
      )
    }),
    ...(isFull && capo[0]! > 0 ? [text('capo', capo[0]!)] : []),
  )
}

const octaveOf = (midi: Midi): number => Math.floor(midi / 12) - 1

function playedVoices(tune: TuneDoc, doc: ArrangementDoc, timeline: Timeline): VoiceMeasures[] {
  const { setup, transposed, base } = doc
  const common = { tune, timeline, setup, transposed }
  return [
    tabVoice({ ...common, notes: base.notes.filter((n) => n.role === 'melody') }, true),
    tabVoice({ ...common, notes: base.notes.filter((n) => n.role !== 'melody') }, false),
  ]
}

/** The longest unit that all lengths are whole numbers of. */
function unitOf(voices: readonly VoiceMeasures[], tune: TuneDoc): Ticks {
  let unit: Ticks = QUARTER
  for (const m of tune.measures) unit = commonDivisor(unit, m.length)
  for (const c of [...tune.chords, ...tune.tempos]) unit = commonDivisor(unit, c.pos.tick)
  for (const sign of voices.flat(2)) unit = commonDivisor(commonDivisor(unit, sign.tick), sign.ticks)
  return unit
}

/** What stands over each measure: parts, tempos, swing, chords. */
function placedOver(tune: TuneDoc, arrangement: ArrangementDoc | undefined, timeline: Timeline): Placed[][] {
  const transposed = arrangement?.transposed ?? 0
  const feels = arrangement ? feelMarks(tune, arrangement.regions) : new Map<Id, never>()
  const at = (c: { readonly pos: { readonly measure: Id; readonly tick: Ticks } }) => ticksAt(timeline, c.pos)
  const chords = [...tune.chords].sort((a, b) => at(a) - at(b))
  return tune.measures.map((m) => {
    const flats = transposeKey(m.key, transposed).fifths < 0
    const section = tune.sections.find((s) => s.measure === m.id)
    const feel = feels.get(m.id)
    return [
      ...(section ? [{ tick: 0, xml: () => aboveXml(text('rehearsal', section.name)) }] : []),
      ...tune.tempos
        .filter((t) => t.stated && t.pos.measure === m.id)
        .map(({ pos, bpm }): Placed => ({
          tick: pos.tick,
          xml: () => tempoXml(bpm, isCompound(m.metre) && beatLength(m.metre) === 1.5 * QUARTER),
        })),
      ...(feel ? [{ tick: 0, xml: () => swingXml(feel) }] : []),
      ...chords.flatMap((c, i): Placed[] => {
        if (c.pos.measure !== m.id) return []
        const next = chords[i + 1]
        const end = next ? Math.max(at(next), at(c) + 1) : timeline.length
        const held = arrangement && shapeHeld(arrangement, timeline, at(c), end)
        return [{ tick: c.pos.tick, xml: (offset) => harmonyXml(c, transposed, flats, held, offset) }]
      }),
    ]
  })
}

/** Strings that make a shape worth a box. */
const LEAST_STRINGS = 4

function shapeHeld({ base, setup }: ArrangementDoc, timeline: Timeline, from: Ticks, to: Ticks) {
  const held = heldShape(base, setup.instrument.strings, timeline, from, to)
  return held && held.frets.filter((f) => f !== null).length >= LEAST_STRINGS ? held : undefined
}

const aboveXml = (type: string, sound = ''): string =>
  el('direction', { placement: 'above' }, el('direction-type', {}, type), sound)

const tempoXml = (bpm: number, dotted: boolean): string =>
  aboveXml(
    el(
      'metronome',
      {},
      text('beat-unit', 'quarter'),
      dotted ? el('beat-unit-dot', {}) : '',
      text('per-minute', rounded(dotted ? bpm / 1.5 : bpm)),
    ),
    el('sound', { tempo: bpm }),
  )

const rounded = (n: number): number => Math.round(n * 100) / 100

/** Swing as MusicXML 4.0 has it: the shares of the two halves of a beat. */
function swingXml(feel: 'light' | 'shuffle' | 'straight'): string {
  const words = { light: 'Light swing', shuffle: 'Shuffle', straight: 'Straight' }[feel]
  const [first, second] = { light: [58, 42], shuffle: [2, 1], straight: [1, 1] }[feel] as [number, number]
  const swing =
    feel === 'straight'
      ? el('straight', {})
      : text('first', first) + text('second', second) + text('swing-type', 'eighth')
  return aboveXml(el('words', {}, words), el('sound', {}, el('swing', {}, swing)))
}

const TOUCH_WORDS = { flesh: 'flesh', nail: 'nail', pick: 'pick' } as const
const PLUCK_WORDS = { bridge: 'sul ponticello', hole: 'ordinario', neck: 'sul tasto' } as const
const PACE_WORDS = { rit: 'rit.', aTempo: 'a tempo' } as const

/** Loudness, touch, pace and words to the student, where they begin. */
function remarksIn(tune: TuneDoc, notes: readonly TabNote[], timeline: Timeline): Placed[][] {
  const byMeasure = new Map<Id, Placed[]>(tune.measures.map((m) => [m.id, []]))
  const inTime = [...notes].sort((a, b) => ticksAt(timeline, a.pos) - ticksAt(timeline, b.pos))
  for (const { pos, dynamic, touch, pluckAt, pace, remark } of inTime) {
    const words = [
      ...(touch ? [TOUCH_WORDS[touch]] : []),
      ...(pluckAt ? [PLUCK_WORDS[pluckAt]] : []),
      ...(pace ? [PACE_WORDS[pace]] : []),
      ...(remark ? [remark] : []),
    ]
    const types = [
      ...(dynamic ? [el('dynamics', {}, el(dynamic, {}))] : []),
      ...words.map((w) => el('words', {}, escaped(w))),
    ]
    const own = byMeasure.get(pos.measure)
    for (const type of types)
      own?.push({
        tick: pos.tick,
        xml: (offset) =>
          el(
            'direction',
            { placement: 'below' },
            el('direction-type', {}, type),
            offset === 0 ? '' : text('offset', offset),
          ),
      })
  }
  return tune.measures.map((m) => knownIn(byMeasure, m.id))
}
