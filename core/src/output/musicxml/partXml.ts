import type { Measure, TuneDoc } from '../../document/tune.ts'
import { signatureAlter, transposeKey, type Key } from '../../music/pitch/key.ts'
import type { Pitch } from '../../music/pitch/pitch.ts'
import { beatLength, inFullMeasure } from '../../music/time/metre.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { el, leaf } from '../markup.ts'
import { beamsOf } from './beams.ts'
import { endXml, startXml } from './barlineXml.ts'
import { gracePitch, signXml, type VoiceWriting } from './noteXml.ts'
import type { VoiceMeasures, VoiceSign } from './voices.ts'

/** A voice of a part, and how it is written. */
export interface PartVoice extends VoiceWriting {
  readonly measures: VoiceMeasures
}

/** Something that stands at a moment of a measure: a chord, a tempo, words. `xml` is asked for how far behind what comes next it is. */
export interface Placed {
  readonly tick: Ticks
  readonly xml: (offset: number) => string
}

/** A part: its voices, what stands over them, and what its first measure says of its staves. */
export interface Part {
  readonly id: string
  readonly tune: TuneDoc
  readonly numbers: readonly number[]
  readonly transposed: number
  readonly units: (ticks: Ticks) => number
  readonly divisions: number
  readonly voices: readonly PartVoice[]
  /** Of the staves: how many, their clefs, and the strings of a tab. */
  readonly staves: { readonly count: number; readonly clefs: string; readonly details: string }
  readonly placed: readonly (readonly Placed[])[]
}

export const partXml = (part: Part): string =>
  el('part', { id: part.id }, ...part.tune.measures.map((m, i) => measureXml(part, m, i)))

function measureXml(part: Part, measure: Measure, index: number): string {
  const { tune, numbers, units, voices } = part
  const before = tune.measures[index - 1]
  const isPartial = measure.length < measure.nominal && (index === 0 || numbers[index] === numbers[index - 1])
  const filled = voices.filter((v, k) => k === 0 || v.measures[index]!.length > 0)
  const key = transposeKey(measure.key, part.transposed)
  const accidentals = new Accidentals(key, pitchesOf(voices, index, key))
  const body = filled.map((voice, k) => {
    const signs = voice.measures[index]!
    const back = k === 0 ? '' : el('backup', {}, leaf('duration', units(measure.length)))
    return back + voiceXml(voice, signs, measure, key, accidentals, k === 0 ? part.placed[index]! : [], units)
  })
  return `\n${el(
    'measure',
    { number: String(numbers[index]), implicit: isPartial ? 'yes' : undefined },
    attributesXml(part, measure, before, key),
    startXml(tune.measures, index),
    ...body,
    endXml(tune.measures, index),
  )}`
}

function attributesXml(part: Part, measure: Measure, before: Measure | undefined, key: Key): string {
  const isNewKey = !before || before.key.fifths !== measure.key.fifths || before.key.mode !== measure.key.mode
  const { num, den, display } = measure.metre
  const isNewTime = !before || before.metre.num !== num || before.metre.den !== den
  if (!isNewKey && !isNewTime) return ''
  return el(
    'attributes',
    {},
    before ? '' : leaf('divisions', part.divisions),
    isNewKey ? el('key', {}, leaf('fifths', key.fifths), leaf('mode', key.mode)) : '',
    isNewTime ? el('time', { symbol: display }, leaf('beats', num), leaf('beat-type', den)) : '',
    before || part.staves.count === 1 ? '' : leaf('staves', part.staves.count),
    before ? '' : part.staves.clefs,
    before ? '' : part.staves.details,
  )
}

function voiceXml(
  writing: PartVoice,
  signs: readonly VoiceSign[],
  measure: Measure,
  key: Key,
  accidentals: Accidentals,
  placed: readonly Placed[],
  units: (ticks: Ticks) => number,
): string {
  const beams = writing.isTab ? [] : beamsOf(signs, beatLength(measure.metre), inFullMeasure(measure, 0))
  const waiting = [...placed].sort((a, b) => a.tick - b.tick)
  const out: string[] = []
  let at = 0
  const forward = (to: Ticks) => {
    if (to > at)
      out.push(
        el(
          'forward',
          {},
          leaf('duration', units(to - at)),
          leaf('voice', writing.voice),
          writing.staff === undefined ? '' : leaf('staff', writing.staff),
        ),
      )
    at = Math.max(at, to)
  }
  const put = (until: Ticks, now: Ticks) => {
    while (waiting[0] && waiting[0].tick < until) {
      const next = waiting.shift()!
      out.push(next.xml(units(next.tick - now)))
    }
  }
  signs.forEach((sign, i) => {
    forward(sign.tick)
    put(sign.tick + sign.ticks, sign.tick)
    const [before, after] = [signs[i - 1], signs[i + 1]]
    out.push(
      signXml(
        sign,
        {
          beams: beams[i] ?? [],
          beginsTuplet: sign.tuplet !== undefined && before?.tuplet !== sign.tuplet,
          endsTuplet: sign.tuplet !== undefined && after?.tuplet !== sign.tuplet,
          slur: {
            begins: !writing.isTab && after?.event?.slurred === true,
            ends: !writing.isTab && sign.event?.slurred === true && before !== undefined,
          },
          key,
          accidentalOf: (pitch) => accidentals.at(sign.tick, writing.voice, pitch),
        },
        writing,
      ),
    )
    at = sign.tick + sign.ticks
  })
  forward(measure.length)
  put(Infinity, at)
  return out.join('')
}

/** A pitch of a measure and when it is written. */
interface WrittenPitch {
  readonly tick: Ticks
  readonly voice: number
  readonly pitch: Pitch
}

/**
 * The accidentals that one measure of a staff has to print: where the key or an earlier sign of any of its voices says otherwise.
 */
class Accidentals {
  private readonly printed = new Map<string, number>()

  constructor(key: Key, written: readonly WrittenPitch[]) {
    const said = new Map<string, number>()
    for (const one of [...written].sort((a, b) => a.tick - b.tick)) {
      const { step, alter, octave } = one.pitch
      const slot = step + String(octave)
      if ((said.get(slot) ?? signatureAlter(key.fifths, step)) === alter) continue
      said.set(slot, alter)
      this.printed.set(nameOf(one), alter)
    }
  }

  at(tick: Ticks, voice: number, pitch: Pitch): number | undefined {
    return this.printed.get(nameOf({ tick, voice, pitch }))
  }
}

const nameOf = ({ tick, voice, pitch: { step, alter, octave } }: WrittenPitch): string =>
  `${tick} ${voice} ${step}${alter}/${octave}`

/** All pitches of a measure that may need an accidental, those of short notes before their note. */
const pitchesOf = (voices: readonly PartVoice[], index: number, key: Key): WrittenPitch[] =>
  voices
    .filter((v) => !v.isTab)
    .flatMap(({ voice, setup, measures }) =>
      measures[index]!.filter((s) => !s.tiedFrom).flatMap(({ tick, sounded, event }) =>
        [
          ...sounded.flatMap(({ note }) =>
            setup && note?.graces ? note.graces.map((g) => gracePitch(setup, g.place, key)) : [],
          ),
          ...(sounded.every((x) => !x.note) ? (event?.graces ?? []) : []),
          ...sounded.map((x) => x.pitch),
        ].map((pitch) => ({ tick, voice, pitch })),
      ),
    )
