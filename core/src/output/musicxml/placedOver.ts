import { knownIn } from '../../invariant.ts'
import { feelMarks } from '../../document/swing.ts'
import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { Id } from '../../document/ids.ts'
import type { TabNote } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { heldShape } from '../../lesson/steps/heldShape.ts'
import { transposeKey } from '../../music/pitch/key.ts'
import { beatLength, isCompound } from '../../music/time/metre.ts'
import { QUARTER, type Ticks } from '../../music/time/ticks.ts'
import { el, escaped, leaf } from '../markup.ts'
import { harmonyXml } from './harmonyXml.ts'
import type { Placed } from './partXml.ts'

/** What stands over each measure: parts, tempos, swing, chords. */
export function placedOver(
  tune: TuneDoc,
  arrangement: ArrangementDoc | undefined,
  timeline: Timeline,
): Placed[][] {
  const transposed = arrangement?.transposed ?? 0
  const feels = arrangement ? feelMarks(tune, arrangement.regions) : new Map<Id, never>()
  const at = (c: { readonly pos: { readonly measure: Id; readonly tick: Ticks } }) => ticksAt(timeline, c.pos)
  const chords = [...tune.chords].sort((a, b) => at(a) - at(b))
  return tune.measures.map((m) => {
    const flats = transposeKey(m.key, transposed).fifths < 0
    const section = tune.sections.find((s) => s.measure === m.id)
    const feel = feels.get(m.id)
    return [
      ...(section ? [{ tick: 0, xml: () => aboveXml(leaf('rehearsal', section.name)) }] : []),
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
      leaf('beat-unit', 'quarter'),
      dotted ? el('beat-unit-dot', {}) : '',
      leaf('per-minute', rounded(dotted ? bpm / 1.5 : bpm)),
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
      : leaf('first', first) + leaf('second', second) + leaf('swing-type', 'eighth')
  return aboveXml(el('words', {}, words), el('sound', {}, el('swing', {}, swing)))
}

const TOUCH_WORDS = { flesh: 'flesh', nail: 'nail', pick: 'pick' } as const
const PLUCK_WORDS = { bridge: 'sul ponticello', hole: 'ordinario', neck: 'sul tasto' } as const
const PACE_WORDS = { rit: 'rit.', aTempo: 'a tempo' } as const

/** Loudness, touch, pace and words to the student, where they begin. */
export function remarksIn(tune: TuneDoc, notes: readonly TabNote[], timeline: Timeline): Placed[][] {
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
            offset === 0 ? '' : leaf('offset', offset),
          ),
      })
  }
  return tune.measures.map((m) => knownIn(byMeasure, m.id))
}
