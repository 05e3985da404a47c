import { partHeadIn } from '../partHeads.ts'
import { timesInLine } from '../times.ts'

/** What stands round a system of tab: its part, how often it is played, which instrument plays it. */
export interface SystemMarks {
  readonly part?: string
  readonly times?: number
  /** A name of one of several instruments: "Guitar 2". */
  readonly player?: string
}

/** How far over a system its heading may stand, in lines; one under it that counts stands right there. */
const OVER = 5

const PLAYER =
  /^[[(]?\s*((?:gtr|guitar|gt|mandolin|mando|lead|rhythm|part)\.?\s*(?:#?\s*(?:\d|[IVX]{1,3}|[A-D])\b)?(?:\s*\([^()]*\))?)\s*[\])]?\s*:?\s*$/i

/** The player that a line names: "Guitar 1:", "Gtr. II", "Lead guitar". */
export function playerIn(line: string): string | undefined {
  const bare = line.trim()
  const found = PLAYER.exec(bare)
  if (found && !/^(?:lead|rhythm|part)\b\s*$/i.test(found[1]!)) return found[1]!.trim()
  const spoken =
    /^[[(]?\s*((?:lead|rhythm|acoustic|second|first)\s+(?:guitar|mandolin))\s*[\])]?\s*:?$/i.exec(bare)
  return spoken?.[1]
}

/**
 * The marks of a system.
 * @param lines all lines of the text
 * @param first index of its first string
 * @param count how many strings it has
 * @param after index of the line behind the system before it
 */
export function marksOfSystem(
  lines: readonly string[],
  first: number,
  count: number,
  after: number,
): SystemMarks {
  let part: string | undefined
  let times: number | undefined
  let player: string | undefined
  for (let i = first - 1; i >= Math.max(after, first - OVER); i--) {
    const line = lines[i]!
    player ??= playerIn(line)
    const head = playerIn(line) ? undefined : partHeadIn(line)
    if (head && !head.rest && part === undefined) {
      part = head.name
      if (head.times > 1) times ??= head.times
    }
    times ??= timesInLine(line)
  }
  // Behind the last bar of a string, or right under the strings.
  for (let i = first; i < first + count; i++) {
    const tail = /[|\s]\s*([([]?\s*(?:[x×]\s*\d{1,2}|\d{1,2}\s*[x×]|(?:play|repeat)\b[^|]*)[)\]]?)\s*$/i.exec(
      lines[i]!,
    )
    if (tail) times ??= timesInLine(tail[1]!)
  }
  const under = lines[first + count]
  if (under !== undefined) times ??= timesInLine(under)
  return {
    ...(part === undefined ? {} : { part }),
    ...(times === undefined || times < 2 ? {} : { times }),
    ...(player === undefined ? {} : { player }),
  }
}
