import type { FingerSpan } from '../moves/placedFinger.ts'
import type { PressedPlace } from '../../document/tab.ts'
import { fingersOf, type LeftFinger, type Techniques } from '../../instrument/hand.ts'

/** The thumb over the neck, where fingers are numbers. */
export const THUMB = 5

/** A finger as a number: 1–4, the thumb 5, 0 none. */
export const fingerNumber = (finger: LeftFinger): number => (finger === 'T' ? THUMB : finger)

/** A number as a finger; the inverse of `fingerNumber`. */
export const leftFinger = (finger: number): LeftFinger =>
  finger === THUMB ? 'T' : (finger as Exclude<LeftFinger, 'T'>)

/** A finger on a string at a fret where the search counts fingers: 1–4, the thumb 5. Frets count from the capo. */
export type Pressed = PressedPlace<number>

/** True where the same finger is at the same place. */
export const isPressed = <P extends { string: number; fret: number; finger: unknown }>(
  pressed: readonly P[],
  p: P,
): boolean => pressed.some((q) => q.string === p.string && q.fret === p.fret && q.finger === p.finger)

/** True where two hands hold the same places under the same fingers. */
export const holdSame = <P extends { string: number; fret: number; finger: unknown }>(
  a: readonly P[],
  b: readonly P[],
): boolean => a.length === b.length && a.every((p) => isPressed(b, p))

/** What is pressed, whatever its order, in a few characters. */
export const pressedKey = (pressed: readonly Pressed[]): string =>
  pressed
    .map((p) => `${p.string} ${p.fret} ${p.finger}`)
    .sort()
    .join()

/** The places of a grip of the document, their fingers as numbers. */
export const pressedOf = (
  places: readonly { readonly string: number; readonly fret: number; readonly finger: LeftFinger }[],
): Pressed[] => places.map((p) => ({ ...p, finger: fingerNumber(p.finger) }))

/** Where one finger stands: a single string, or a barre from `top` (highest-pitched) to `low`. 0 codes "nowhere". */
export type FingerCode = number

export function fingerCode(top: number, low: number, fret: number): FingerCode {
  return fret | (top << 5) | (low << 9)
}

export const codeFret = (code: FingerCode): number => code & 31
export const codeTop = (code: FingerCode): number => (code >> 5) & 15
export const codeLow = (code: FingerCode): number => code >> 9

/** What a finger with this code covers. */
export const fingerSpan = (code: FingerCode): FingerSpan => ({
  fret: codeFret(code),
  from: codeTop(code),
  to: codeLow(code),
})

/** The codes of the four fingers and the thumb, index finger first. */
export function fingerCodes(pressed: readonly Pressed[]): FingerCode[] {
  const codes: FingerCode[] = [0, 0, 0, 0, 0]
  for (const p of pressed) {
    const before = codes[p.finger - 1]!
    codes[p.finger - 1] =
      before === 0
        ? fingerCode(p.string, p.string, p.fret)
        : fingerCode(Math.min(codeTop(before), p.string), Math.max(codeLow(before), p.string), p.fret)
  }
  return codes
}

/** Places by their finger, index finger first, the thumb last. */
export const byFinger = (pressed: readonly Pressed[]): readonly (readonly Pressed[])[] =>
  [1, 2, 3, 4, THUMB].map((f) => pressed.filter((p) => p.finger === f)).filter((group) => group.length > 0)

/** True where a hand plays with a finger, as it is numbered here. */
export const hasFinger = (techniques: Techniques, finger: number): boolean =>
  finger === THUMB ? techniques.thumbOver : fingersOf(techniques).includes(finger)
