import { present } from '../../invariant.ts'
import type { Finger, PlacedFinger } from '../../hand/moves/placedFinger.ts'
import { readBack } from '../text/template.ts'
import type { Wording } from '../text/words/wording.ts'
import { ReplayError, type ReplayedStep } from './replayed.ts'
import { playedRow, rowIn } from './replayRow.ts'
import { followed } from './replayStep.ts'

/**
 * Follows a script from its displayed text alone: two hands that do what each sentence says.
 * @throws ReplayError where a sentence is not understood, or asks for a finger that is not there or twice at once
 */
export function replay(text: string, words: Wording): ReplayedStep[] {
  const steps: ReplayedStep[] = []
  let measure = ''
  let down = new Map<Finger, PlacedFinger>()
  const atStart = new Map<string, Map<Finger, PlacedFinger>>()
  /** The hand after the measures as they are usually played, while those of one pass are followed. */
  let usual: Map<Finger, PlacedFinger> | undefined
  for (const line of text.split('\n')) {
    if (line === '' || [words.silent.one, words.silent.more].some((s) => readBack(`${s}.`, line))) continue
    const row = rowIn(line, words)
    if (row) {
      for (const step of playedRow(row, down, words)) {
        ;({ down } = step)
        steps.push({
          measure,
          count: step.count,
          notes: [step.note],
          down: [...down.values()],
          expression: {},
        })
      }
      continue
    }
    const stepLine = readBack(words.line, line)
    if (!stepLine) {
      if (line !== words.pickup && !readBack(words.measure, line))
        throw new ReplayError(`Not understood: ${line}`)
      measure = line
      const onPass = readBack(words.measureOnPass, line)
      // Measures of one pass go on from what was before them; what follows goes on as usual.
      if (onPass) {
        if (!usual) {
          usual = down
          down = new Map(atStart.get(present(onPass.number)))
        }
      } else {
        if (usual) down = usual
        usual = undefined
        atStart.set(readBack(words.measure, line)?.number ?? '0', new Map(down))
      }
      continue
    }
    const { rest, remark } = parted(present(stepLine.rest), words)
    const step = followed(rest, down, words)
    ;({ down } = step)
    steps.push({
      measure,
      count: present(stepLine.count),
      notes: step.notes,
      down: [...down.values()],
      expression: step.expression,
      ...(remark === undefined ? {} : { remark }),
    })
  }
  return steps
}

/** The teacher's words stand last, and may hold whatever there is. */
function parted(text: string, words: Wording): { rest: string; remark?: string } {
  const [before] = words.remark.split('{remark}')
  const at = text.indexOf(present(before))
  const read = at < 0 ? undefined : readBack(`${words.remark}.`, text.slice(at))
  return read ? { rest: text.slice(0, at).trimEnd(), remark: present(read.remark) } : { rest: text }
}
