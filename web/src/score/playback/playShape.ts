import { hertz } from '@velvet-porch/core/music'
import { pitchAt, type Setup } from '@velvet-porch/core/instrument'
import { player } from './player.ts'

/** Milliseconds between strings of a strum and of a slow picking. */
const STRUM_MS = 28
const PICK_MS = 260

/** Sounds a shape from its lowest string up, as one strum or string by string. */
export function hearShape(setup: Setup, frets: readonly (number | null)[], how: 'strum' | 'pick'): void {
  const strings = frets.flatMap((fret, i) => (fret === null ? [] : [i + 1])).reverse()
  strings.forEach((string, n) =>
    setTimeout(
      () => void player.pluck(string, hertz(pitchAt(setup, { string, fret: frets[string - 1]! }))),
      n * (how === 'strum' ? STRUM_MS : PICK_MS),
    ),
  )
}
