import { HIGHEST_CAPO } from '../simplify/stretchByCapo.ts'
import { measureAt, melodyOf, timelineOf } from '../../document/form/timeline.ts'
import { chordText, transposeChord, type ChordReading } from '../../music/harmony/chordSymbol.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { setupOf } from '../../instrument/setupOf.ts'
import { spellInKey, transposeKey, type Key } from '../../music/pitch/key.ts'
import { midiOf, type Pitch } from '../../music/pitch/pitch.ts'
import { harmonyLine } from '../plan/harmonyLine.ts'
import { heldShapesFor } from '../../chords/textbook.ts'
import { nearestShift } from './shifts.ts'

/** Who else is in the room. */
export const PARTNERS = ['piano', 'fiddle', 'secondGuitar', 'bFlat', 'eFlat'] as const
export type Partner = (typeof PARTNERS)[number]

/** A chord of a part, where it starts. */
export interface PartChord {
  readonly measure: number
  readonly tick: number
  readonly chord: ChordReading
}

/** A note of a part as it is written. */
export interface PartNote {
  readonly measure: number
  readonly tick: number
  readonly ticks: number
  readonly pitch: Pitch
}

/** What one of the players reads. */
export interface PartnerPart {
  readonly partner: Partner | 'capoPlayer'
  /** Semitones from the sounding pitch to what is written: a part for an instrument in B flat is written 2 higher. */
  readonly written: number
  readonly key: Key
  /** The capo that it is played with. */
  readonly capo: number
  readonly chords: readonly PartChord[]
  /** The melody, where this player may have it. */
  readonly notes: readonly PartNote[]
}

/** Written minus sounding pitch, melody octaves aside. A clarinet in B flat sounds a whole step lower than written, an
 * alto saxophone in E flat a major sixth. Common knowledge of instruments, from memory. */
const WRITTEN: Readonly<Record<Partner, number>> = {
  piano: 0,
  fiddle: 0,
  secondGuitar: 0,
  bFlat: 2,
  eFlat: 9,
}

/**
 * The parts of everybody who plays a tune together: the capo player's shapes, the chords as they sound, a second guitar in
 * another family of shapes, parts for instruments that are written higher than they sound.
 * @param transposed semitones by which the tune sounds from its source, octaves included
 */
export function partnerParts(
  tune: TuneDoc,
  transposed: number,
  capo: number,
  partners: readonly Partner[],
): PartnerPart[] {
  const shift = nearestShift(transposed)
  const sounding = transposeKey(tune.measures[0]!.key, shift)
  const first = partOf(tune, shift, 'capoPlayer', 0, capo)
  return [
    first,
    ...partners.map((partner) =>
      partner === 'secondGuitar'
        ? partOf(tune, shift, partner, 0, otherCapo(tune, shift, sounding, capo))
        : partOf(tune, shift, partner, WRITTEN[partner], 0),
    ),
  ]
}

function partOf(
  tune: TuneDoc,
  shift: number,
  partner: PartnerPart['partner'],
  written: number,
  capo: number,
): PartnerPart {
  const timeline = timelineOf(tune.measures)
  const key = transposeKey(tune.measures[0]!.key, shift + written - capo)
  const flats = key.fifths < 0
  const harmony = harmonyLine(tune, timeline, 0, shift)
  const at = (start: number) => {
    const measure = measureAt(timeline, start)
    return { measure, tick: start - timeline.starts[measure]! }
  }
  const plays = partner !== 'piano' && partner !== 'capoPlayer' && partner !== 'secondGuitar'
  return {
    partner,
    written,
    key,
    capo,
    chords: harmony.flatMap((h) =>
      h.sounding ? [{ ...at(h.start), chord: transposeChord(h.sounding, written - capo, flats) }] : [],
    ),
    notes: plays
      ? melodyOf(tune, timeline).map((n) => ({
          ...at(n.start),
          ticks: n.duration,
          pitch: spellInKey(
            midiOf(n.pitch) + shift + written,
            transposeKey(tune.measures[n.measure]!.key, shift + written),
          ),
        }))
      : [],
  }
}

/**
 * The capo at which a second guitar's shapes are the most familiar, in another key than the first one's; none where that
 * is as good.
 */
function otherCapo(tune: TuneDoc, shift: number, sounding: Key, first: number): number {
  const chords = [
    ...new Map(
      harmonyLine(tune, timelineOf(tune.measures), 0, shift).flatMap((h) =>
        h.sounding ? [[chordText(h.sounding), h.sounding] as const] : [],
      ),
    ).values(),
  ]
  const guitar = setupOf('guitar')
  const strange = (capo: number) => {
    const flats = transposeKey(sounding, -capo).fifths < 0
    return chords.filter((c) => {
      const shape = heldShapesFor(transposeChord(c, -capo, flats), guitar)[0]
      // What a first book prints: a known shape, and no finger laid across strings.
      return !shape?.textbook || shape.fingers.some((group) => group.length > 1)
    }).length
  }
  let best = first === 0 ? 1 : 0
  for (let capo = 0; capo <= HIGHEST_CAPO; capo++) {
    if (capo === first) continue
    const [a, b] = [strange(capo) + capo * 0.1, strange(best) + best * 0.1]
    if (a < b) best = capo
  }
  return best
}
