import { measureNumbers } from '../../document/form/measureNumbers.ts'
import { timelineOf, type Timeline } from '../../document/form/timeline.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { Score } from '../../document/score.ts'
import { BACKING_VOICE } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Setup } from '../../instrument/setup.ts'
import { plainName, type Midi } from '../../music/pitch/pitch.ts'
import { commonDivisor } from '../../music/time/commonDivisor.ts'
import { QUARTER, type Ticks } from '../../music/time/ticks.ts'
import { el, escaped, leaf } from '../markup.ts'
import { joinsOf } from './joins.ts'
import { partXml, type Part, type PartVoice, type Placed } from './partXml.ts'
import { placedOver, remarksIn } from './placedOver.ts'
import { syllablesOf } from './syllables.ts'
import { tabVoice, tuneVoice, type VoiceMeasures } from './voices.ts'

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
      el('work', {}, leaf('work-title', tune.title)),
      el(
        'identification',
        {},
        tune.composer ? el('creator', { type: 'composer' }, escaped(tune.composer)) : '',
        tune.rights ? leaf('rights', tune.rights) : '',
        el(
          'encoding',
          {},
          leaf('software', 'Velvet Porch'),
          el('supports', { element: 'accidental', type: 'yes' }),
          el('supports', { element: 'beam', type: 'yes' }),
          el('supports', { element: 'stem', type: 'no' }),
        ),
        tune.source ? leaf('source', tune.source) : '',
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
    leaf('part-name', name),
    el('score-instrument', { id: `${id}-I1` }, leaf('instrument-name', name)),
    el('midi-instrument', { id: `${id}-I1` }, leaf('midi-program', program)),
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
    staves: { count: 1, clefs: el('clef', {}, leaf('sign', 'G'), leaf('line', 2)), details: '' },
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
  const octave = setup.instrument.kind === 'mandolin' ? '' : leaf('clef-octave-change', -1)
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
        el('clef', { number: 1 }, leaf('sign', 'G'), leaf('line', 2), octave) +
        el('clef', { number: 2 }, leaf('sign', 'TAB'), leaf('line', 5)),
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
    leaf('staff-lines', instrument.strings),
    ...strings.map((open, i) => {
      const { step, alter } = plainName(open % 12, open % 12 !== 6 && open % 12 !== 1)
      return el(
        'staff-tuning',
        { line: i + 1 },
        leaf('tuning-step', step),
        ...(alter === 0 ? [] : [leaf('tuning-alter', alter)]),
        leaf('tuning-octave', octaveOf(open)),
      )
    }),
    ...(isFull && capo[0]! > 0 ? [leaf('capo', capo[0]!)] : []),
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
