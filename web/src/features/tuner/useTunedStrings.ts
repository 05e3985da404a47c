import type { TunedString } from '@velvet-porch/core/input/audio'
import { useState } from 'react'

/** Readings in a row that must agree before a string counts as tuned. */
const AGREEING = 4

interface Tuned {
  readonly of: string
  readonly strings: readonly number[]
  /** The string that is in tune now, and for how many readings. */
  readonly now: { readonly string: number; readonly times: number } | undefined
  /** The look at the sound that was counted last. */
  readonly look: object | undefined
  /** True where strings had been tuned before the tuning or the capo changed, until each has been tuned again. */
  readonly again: boolean
}

const nothing = (of: string, again: boolean): Tuned => ({
  of,
  strings: [],
  now: undefined,
  look: undefined,
  again,
})

/**
 * The strings that have been in tune for a moment; none after the tuning or the capo has changed: a capo pulls sharp.
 * @param of what they are tuned to, as a text that two can be told apart by
 * @param count of strings that there are
 * @param look at the sound, of which the reading is: each is counted once
 */
export function useTunedStrings(
  of: string,
  count: number,
  reading: TunedString | undefined,
  look: object,
): Pick<Tuned, 'strings' | 'again'> {
  const [tuned, setTuned] = useState(() => nothing(of, false))
  const next =
    tuned.of === of
      ? withReading(tuned, count, reading, look)
      : nothing(of, tuned.strings.length > 0 || tuned.again)
  // Told while drawing: what is shown is never one reading behind.
  if (next !== tuned) setTuned(next)
  return next
}

function withReading(tuned: Tuned, count: number, reading: TunedString | undefined, look: object): Tuned {
  if (tuned.look === look) return tuned
  if (!reading || reading.turn !== 'inTune') return { ...tuned, look, now: undefined }
  const { string } = reading
  const times = tuned.now?.string === string ? tuned.now.times + 1 : 1
  const isDone = times >= AGREEING && !tuned.strings.includes(string)
  const strings = isDone ? [...tuned.strings, string] : tuned.strings
  return { ...tuned, look, strings, now: { string, times }, again: tuned.again && strings.length < count }
}
