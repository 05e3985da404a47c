import { spanOf, type HandSpans } from '../../instrument/hand.ts'
import { reach } from '../../instrument/geometry.ts'
import { fretOnNeck, type Setup } from '../../instrument/setup.ts'
import { THUMB, type Pressed } from './pressed.ts'

/** Why a hand cannot hold a set of fingers. */
export type HandFault =
  | { readonly kind: 'twoFrets'; readonly finger: number }
  | { readonly kind: 'order'; readonly fingers: readonly [number, number] }
  | {
      readonly kind: 'span'
      readonly fingers: readonly [number, number]
      readonly mm: number
      readonly limit: number
    }
  | { readonly kind: 'barre'; readonly finger: number; readonly string: number }
  | { readonly kind: 'thumb'; readonly string: number; readonly fret: number }

/**
 * The hard rules of the fretting hand: a finger is on one fret; fingers rise with the frets; the thumb over the neck
 * stands within a fret of the lowest finger; a finger on several strings is a barre that covers all between, with no lower fret and no ringing open string inside; no pair of
 * fingers is wider apart than this hand reaches. Taste is not judged here.
 * @param openStrings strings that must ring open at the same time
 */
export function handFault(
  setup: Setup,
  spans: HandSpans,
  pressed: readonly Pressed[],
  openStrings: readonly number[] = [],
): HandFault | undefined {
  for (let i = 0; i < pressed.length; i++) {
    const a = pressed[i]!
    for (let j = i + 1; j < pressed.length; j++) {
      const b = pressed[j]!
      if (a.finger === b.finger) {
        if (a.fret !== b.fret) return { kind: 'twoFrets', finger: a.finger }
        const fault = barreFault(a, b, pressed, openStrings)
        if (fault) return fault
        continue
      }
      if (a.finger === THUMB || b.finger === THUMB) continue
      const [low, high] = a.finger < b.finger ? [a, b] : [b, a]
      if (low.fret > high.fret) return { kind: 'order', fingers: [low.finger, high.finger] }
      const mm = reachMm(setup, a, b)
      const limit = spanOf(spans, a.finger, b.finger)
      if (mm > limit) return { kind: 'span', fingers: [low.finger, high.finger], mm, limit }
    }
  }
  return thumbFault(pressed)
}

/** The thumb over the neck stands within a fret of the lowest finger. */
function thumbFault(pressed: readonly Pressed[]): HandFault | undefined {
  const thumb = pressed.find((p) => p.finger === THUMB)
  if (!thumb || pressed.length === 1) return undefined
  let nearest = Infinity
  for (const p of pressed) if (p.finger !== THUMB) nearest = Math.min(nearest, p.fret)
  const near = nearest === Infinity || Math.abs(thumb.fret - nearest) <= 1
  return near ? undefined : { kind: 'thumb', string: thumb.string, fret: thumb.fret }
}

function barreFault(
  a: Pressed,
  b: Pressed,
  pressed: readonly Pressed[],
  openStrings: readonly number[],
): HandFault | undefined {
  const top = Math.min(a.string, b.string)
  const low = Math.max(a.string, b.string)
  for (let string = top + 1; string < low; string++) {
    if (openStrings.includes(string)) return { kind: 'barre', finger: a.finger, string }
    if (pressed.some((p) => p.string === string && p.fret < a.fret))
      return { kind: 'barre', finger: a.finger, string }
  }
  return undefined
}

/** Reach in mm between two pressed places at this setup's capo. */
export function reachMm(setup: Setup, a: Pressed, b: Pressed): number {
  return reach(
    setup.instrument,
    { string: a.string, fret: fretOnNeck(setup, a) },
    { string: b.string, fret: fretOnNeck(setup, b) },
  )
}

/** The widest reach of a grip in mm: index side to little-finger side; 0 with fewer than two fingers. */
export function widestReach(setup: Setup, pressed: readonly Pressed[]): number {
  let widest = 0
  for (let i = 0; i < pressed.length; i++) {
    for (let j = i + 1; j < pressed.length; j++) {
      if (pressed[i]!.finger !== pressed[j]!.finger)
        widest = Math.max(widest, reachMm(setup, pressed[i]!, pressed[j]!))
    }
  }
  return widest
}
