import { fingerFromNut, fretFromNut, stringSpacingAt, type Setup } from '@velvet-porch/core/instrument'

/** Neighbouring strings stand this far apart, in pixels: a finger can tap between them. */
const STRING_GAP_PX = 25

/** On a low window, such as a phone's, they come nearer, down to this: so much of the neck is to be seen. */
const LEAST_STRING_GAP_PX = 17
const LEAST_SEEN_MM = 100

/** A finger's mark, in pixels; on a narrow neck as wide as the gap between strings. */
const FINGER_RADIUS_PX = 12

/** Room above the first fret line, for open-string marks, and below the last, for the picking hand. */
const TOP_PX = 34
const BOTTOM_PX = 30

/** Room at the sides for fret numbers and for half a finger. */
const SIDES_PX = 42

/** So many frets above its position most of the hand is at work. */
const REACH_FRETS = 2

/** The window on the neck, true to scale: where frets, strings and places stand in pixels. */
export interface NeckView {
  readonly top: number
  /** Fret lines in the window, counted from the nut. */
  readonly frets: readonly number[]
  readonly strings: readonly number[]
  readonly capo: number
  readonly centre: number
  /** Radius of a finger's mark. */
  readonly finger: number
  readonly endY: number
  readonly fretY: (fret: number) => number
  readonly stringX: (string: number, y: 'top' | 'end' | number) => number
  /** A place; `fret` counts from the capo, 0 is the open string above the window. */
  readonly place: (string: number, fret: number) => { readonly cx: number; readonly cy: number }
}

/** Lays the window round a hand position (counted from the capo); left-handed necks are mirrored. */
export function neckView(setup: Setup, position: number, size: { width: number; height: number }): NeckView {
  const { instrument } = setup
  const capo = setup.capo[0]!
  const { nut } = instrument.spacing
  // Strings draw apart up the neck: where the hand is they still have to fit.
  const widest = stringSpacingAt(
    instrument,
    fretFromNut(instrument.scaleLength, capo + position + REACH_FRETS),
  )
  const fits = Math.min(
    (size.height - TOP_PX - BOTTOM_PX) / LEAST_SEEN_MM,
    (size.width - SIDES_PX) / ((instrument.strings - 1) * widest),
  )
  const perMm = Math.min(STRING_GAP_PX / nut, Math.max(LEAST_STRING_GAP_PX / nut, fits))
  const top = position > 1 ? capo + position - 2 : capo
  const fromMm = fretFromNut(instrument.scaleLength, top)
  const visibleMm = Math.max(120, (size.height - TOP_PX - BOTTOM_PX) / perMm)
  const frets: number[] = []
  for (
    let f = top;
    f <= instrument.frets && fretFromNut(instrument.scaleLength, f) - fromMm <= visibleMm;
    f++
  )
    frets.push(f)
  const endMm = Math.min(fromMm + visibleMm, fretFromNut(instrument.scaleLength, frets.at(-1) ?? top) + 12)
  const y = (mm: number) => TOP_PX + (mm - fromMm) * perMm
  const xAtMm = (string: number, mm: number) => {
    const away = ((instrument.strings + 1) / 2 - string) * stringSpacingAt(instrument, mm) * perMm
    return size.width / 2 + (setup.player.handedness === 'left' ? -away : away)
  }
  const fretY = (fret: number) => y(fretFromNut(instrument.scaleLength, fret))
  return {
    top,
    frets,
    strings: Array.from({ length: instrument.strings }, (_, i) => i + 1),
    capo,
    centre: size.width / 2,
    finger: Math.min(FINGER_RADIUS_PX, perMm * nut * 0.48),
    endY: y(endMm),
    fretY,
    stringX: (string, at) =>
      xAtMm(string, at === 'top' ? fromMm : at === 'end' ? endMm : fretFromNut(instrument.scaleLength, at)),
    place: (string, fret) => {
      if (fret === 0) return { cx: xAtMm(string, fromMm), cy: 14 }
      const mm = fingerFromNut(instrument.scaleLength, fret + capo)
      return { cx: xAtMm(string, mm), cy: y(mm) }
    },
  }
}
