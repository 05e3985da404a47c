import { WHOLE, type Ticks } from '../../music/time/ticks.ts'

/** Letters of a rhythm line, longest first: whole, half, quarter, eighth, sixteenth, thirty-second, sixty-fourth. */
const LETTERS = ['w', 'h', 'q', 'e', 's', 't', 'f'] as const

interface Piece {
  readonly text: string
  readonly ticks: Ticks
}

/** Every value that one letter can say: plain, dotted (`.`), or of a triplet (`3`). */
const PIECES: readonly Piece[] = LETTERS.flatMap((letter, i): Piece[] => {
  const ticks = WHOLE / 2 ** i
  return [
    { text: letter, ticks },
    { text: `${letter}.`, ticks: ticks * 1.5 },
    { text: `${letter}3`, ticks: (ticks * 2) / 3 },
  ]
})
  .filter((p) => Number.isInteger(p.ticks))
  .sort((a, b) => b.ticks - a.ticks)

/** Letters for a length; several are added up. Undefined where no four of them do. @example rhythmText(WHOLE / 4) // 'q' */
export function rhythmText(ticks: Ticks): string | undefined {
  for (let most = 1; most <= 4; most++) {
    const found = pieced(ticks, most, 0)
    if (found !== undefined) return found
  }
  return undefined
}

function pieced(ticks: Ticks, most: number, from: number): string | undefined {
  for (let i = from; i < PIECES.length; i++) {
    const { text, ticks: own } = PIECES[i]!
    if (own > ticks) continue
    if (own === ticks) return text
    if (most === 1) return undefined
    const rest = pieced(ticks - own, most - 1, i)
    if (rest !== undefined) return text + rest
  }
  return undefined
}

/** The length that letters say. Undefined where they are none. @example rhythmTicks('q.') // 15120 */
export function rhythmTicks(text: string): Ticks | undefined {
  let ticks = 0
  let rest = text
  while (rest !== '') {
    const piece = PIECES.filter((p) => rest.startsWith(p.text)).sort(
      (a, b) => b.text.length - a.text.length,
    )[0]
    if (!piece) return undefined
    ticks += piece.ticks
    rest = rest.slice(piece.text.length)
  }
  return ticks > 0 ? ticks : undefined
}

/** What a rhythm line writes for silence before the first note of a measure. */
/** Said in the head of a text tab over which nobody has written chords. */
export const SUGGESTED_LINE = 'Chord names are suggested by the notes'

/** Stands on a string that was struck in a measure before and sounds on over the bar line. */
export const HELD_SIGN = '='

/** Stands for the bottleneck among the fretting fingers. */
export const BAR_SIGN = 'B'

export const REST_SIGN = 'z'

const STRING_OF_TAB = /^\s*(?:[A-Ga-g][#b]?)?\s*[|:]?-[-\d|hpbrx/\\~().:]{5,}/

/** True for a line that is a string of a tab, in the middle of other text. */
export const isTabLine = (line: string): boolean => STRING_OF_TAB.test(line)
