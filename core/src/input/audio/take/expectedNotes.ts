import { bpmAt } from '../../../document/form/tempoMap.ts'
import { pitchAt, type Setup } from '../../../instrument/setup.ts'
import { hertz } from '../../../music/pitch/pitch.ts'
import { QUARTER, type Ticks } from '../../../music/time/ticks.ts'
import type { Performance } from '../../../output/sound/performance.ts'

/** A note that a take should have. */
export interface ExpectedNote {
  /** Played tick, and seconds from the beginning of the take. */
  readonly at: Ticks
  readonly seconds: number
  readonly string: number
  readonly hertz: number
  /** Frets of its string from the nut or the capo up to it. */
  readonly fret: number
  /** Seconds that it rings, where nothing ends it before. */
  readonly rings: number
  /** False where the fretting hand sounds it alone: it has no stroke of its own. */
  readonly isStruck: boolean
}

/**
 * The notes of a stretch that is played once, with the seconds at which they are due. Clicks of muted strings have no pitch and are left out.
 * @param tempo share of the written tempo
 * @param setup what it is played on
 */
export function expectedNotes(
  score: Performance,
  { from, to }: { readonly from: Ticks; readonly to: Ticks },
  tempo: number,
  setup: Setup,
): readonly ExpectedNote[] {
  const fretOf = (string: number, sounding: number) =>
    Math.round(12 * Math.log2(sounding / hertz(pitchAt(setup, { string, fret: 0 }))))
  const seconds = secondsFrom(score, from, tempo)
  return score.notes.flatMap((n) =>
    n.at < from || n.at >= to || n.damping === 'muted'
      ? []
      : [
          {
            at: n.at,
            seconds: seconds(n.at),
            string: n.string,
            hertz: n.hertz,
            fret: fretOf(n.string, n.hertz),
            rings: seconds(Math.max(n.at + 1, n.until)) - seconds(n.at),
            isStruck: !n.arrival,
          },
        ],
  )
}

/** Seconds from a played tick to another one, with every change of tempo between them. */
export function secondsFrom(
  { tempos }: Pick<Performance, 'tempos'>,
  from: Ticks,
  tempo: number,
): (at: Ticks) => number {
  const turns = tempos.map((t) => t.at).filter((at) => at > from)
  return (at) => {
    let seconds = 0
    let last = from
    for (const turn of [...turns.filter((t) => t < at), at]) {
      seconds += ((turn - last) * 60) / (QUARTER * bpmAt(tempos, last + 0.5) * tempo)
      last = turn
    }
    return seconds
  }
}
