import { bassPitchClass, chordPitchClasses, chordText } from '../harmony/chordSymbol.ts'
import type { Level } from '../model/arrangement.ts'
import { lastFret, openPitch, pitchAt, placesOf, type Place, type Setup } from '../neck/setup.ts'
import { mod12, pitchClass, type Midi } from '../pitch/pitch.ts'
import type { Plan, Slice } from '../plan/plan.ts'
import { framesFor, type Frame } from '../shapes/textbook.ts'
import { LEVEL_RULES, WEIGHTS } from './weights.ts'

/** A place that would do for a bass, with the price of this choice. */
export interface BassOption {
  readonly place: Place
  readonly price: number
  readonly nonRoot: boolean
}

/** What one slice asks of the hand. Slices with equal signatures share their candidates. */
export interface Wish {
  readonly signature: string
  readonly level: Level
  readonly melody:
    { readonly midi: Midi; readonly onset: boolean; readonly places: readonly Place[] } | undefined
  readonly bass:
    | {
        readonly onset: boolean
        readonly change: boolean
        readonly kind: 'root' | 'alternate'
        readonly options: readonly BassOption[]
      }
    | undefined
  readonly frames: readonly Frame[]
}

/** Turns a slice of the plan into a wish: every place that each voice could take, with the frames of its chord. */
export function wishOf(
  plan: Plan,
  slice: Slice,
  setup: Setup,
  frameCache: Map<string, readonly Frame[]>,
): Wish {
  const rules = LEVEL_RULES[slice.level]
  const segment = plan.harmony[slice.segment]
  const bassWish = plan.bass[slice.bass]
  const bassSegment = bassWish ? plan.harmony[bassWish.segment] : undefined
  const midi = slice.melody >= 0 ? plan.melodyMidi[slice.melody]! : undefined
  const chord = segment?.shape ? chordText(segment.shape) : '-'
  let known = frameCache.get(chord)
  if (!known)
    frameCache.set(chord, (known = segment?.shape ? framesFor(segment.shape, setup, plan.pins) : []))
  const frames = known.slice(0, rules.frames)
  const melody =
    midi === undefined
      ? undefined
      : { midi, onset: slice.melodyOnset, places: reachable(placesOf(setup, midi), rules.lastFret) }
  const bass =
    bassWish && bassSegment?.sounding
      ? {
          onset: slice.bassOnset,
          change: bassWish.change,
          kind: bassWish.kind,
          options: bassOptions(
            setup,
            bassWish.kind,
            chordPitchClasses(bassSegment.sounding),
            bassPitchClass(bassSegment.sounding),
            pitchClass(bassSegment.sounding.root),
            midi,
            Math.max(rules.lastFret, ...(melody?.places.map((p) => p.fret) ?? [])),
          ),
        }
      : undefined
  const bassChord = bass && bassSegment?.shape ? chordText(bassSegment.shape) : '-'
  const signature = [
    slice.level,
    midi ?? '-',
    melody?.onset,
    chord,
    bassChord,
    bass?.kind,
    bass?.onset,
    bass?.change,
  ].join('|')
  return { signature, level: slice.level, melody, bass, frames }
}

function reachable(places: readonly Place[], last: number): readonly Place[] {
  const near = places.filter((p) => p.fret <= last)
  return near.length > 0 ? near : places
}

/** All places below the melody that give the wished bass; root wishes without any get other chord tones, dearly. */
function bassOptions(
  setup: Setup,
  kind: 'root' | 'alternate',
  pcs: readonly number[],
  bassPc: number,
  rootPc: number,
  melody: Midi | undefined,
  last: number,
): BassOption[] {
  const options: BassOption[] = []
  for (let string = setup.instrument.strings; string >= 1; string--) {
    const most = Math.min(last, lastFret(setup, string))
    for (let fret = 0; fret <= most; fret++) {
      const place = { string, fret }
      const midi = pitchAt(setup, place)
      const pc = mod12(midi)
      if (melody !== undefined && midi >= melody) break
      const isRoot = pc === bassPc
      if (kind === 'root' ? !isRoot : !pcs.includes(pc)) continue
      options.push({
        place,
        nonRoot: false,
        price:
          stringPrice(string) +
          closePrice(midi, melody) +
          (kind === 'root' ? 0 : alternatePrice(mod12(pc - rootPc))),
      })
    }
  }
  if (kind === 'alternate' || options.length > 0) return options
  for (let string = setup.instrument.strings; string >= 4; string--) {
    for (let fret = 0; fret <= 4; fret++) {
      const midi = openPitch(setup, string) + fret
      if (pcs.includes(mod12(midi)) && (melody === undefined || midi < melody)) {
        options.push({ place: { string, fret }, price: WEIGHTS.nonRoot, nonRoot: true })
      }
    }
  }
  return options
}

function stringPrice(string: number): number {
  return string >= 4 ? 0 : string === 3 ? WEIGHTS.bassOnThird : WEIGHTS.bassOnTreble
}

function closePrice(midi: Midi, melody: Midi | undefined): number {
  return melody !== undefined && melody - midi < 5 ? WEIGHTS.bassClose : 0
}

function alternatePrice(interval: number): number {
  if (interval === 7) return WEIGHTS.alternateFifth
  if (interval === 0) return WEIGHTS.alternateRoot
  if (interval === 3 || interval === 4) return WEIGHTS.alternateThird
  return WEIGHTS.alternateOther
}
