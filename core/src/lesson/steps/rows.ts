import { present } from '../../invariant.ts'
import type { PlacedFinger } from '../../hand/moves/placedFinger.ts'
import { isBare, type LessonStep, type StepNote } from './lessonStep.ts'

/** Steps that are said one after the other: a row of single notes, or one step alone. */
export interface Row {
  readonly steps: readonly LessonStep[]
  /** The one string of a row, or the one position of the hand in it; both absent for a step alone. */
  readonly string?: number
  readonly position?: number
}

/** Fewer notes than these are said one by one. */
const LEAST = 3

/**
 * The steps of one measure, runs of single notes put together: on one string, or under one position of the hand. In a
 * row nothing moves but the finger of each note; what is kept down stays all along.
 */
export function rowsOf(steps: readonly LessonStep[]): Row[] {
  const rows: Row[] = []
  for (let i = 0; i < steps.length;) {
    const row = [ofString, ofPosition].map((fits) => longest(steps, i, fits)).sort((a, b) => b - a)[0]!
    if (row < LEAST) rows.push({ steps: [steps[i++]!] })
    else {
      const own = steps.slice(i, i + row)
      const { string } = present(noteOf(own[0]!))
      const position = own[0]!.position
      const one = own.every((s) => present(noteOf(s)).string === string)
      rows.push({ steps: own, ...(one ? { string } : { position: present(position) }) })
      i += row
    }
  }
  return rows
}

type Fits = (first: LessonStep, step: LessonStep) => boolean

const ofString: Fits = (first, step) => present(noteOf(first)).string === present(noteOf(step)).string
const ofPosition: Fits = (first, step) =>
  first.position !== undefined && first.position > 0 && first.position === step.position

/** How many steps from one on are a row. */
function longest(steps: readonly LessonStep[], from: number, fits: Fits): number {
  const first = steps[from]!
  if (!noteOf(first)) return 1
  const kept = keptIn(first)
  if (!kept) return 1
  let n = 1
  for (; from + n < steps.length; n++) {
    const step = steps[from + n]!
    const goesOn =
      noteOf(step) &&
      fits(first, step) &&
      step.shift === undefined &&
      step.hand.slides.length === 0 &&
      sameFingers(kept, keptIn(step)) &&
      step.ringing.join() === first.ringing.join()
    if (!goesOn) break
  }
  return n
}

/** The one plain note of a step; undefined where there is more to say. */
function noteOf({ notes, hand, conflicts, expression, remark }: LessonStep): StepNote | undefined {
  const [note, more] = notes
  if (!note || more || conflicts || expression || remark !== undefined || hand.slides.length > 0)
    return undefined
  const plain = note.attack === 'pluck' && isBare(note) && (note.fret === 0 || note.finger !== undefined)
  return plain ? note : undefined
}

/** The fingers that a step keeps beside the one of its note; undefined where others land. */
export function keptIn(step: LessonStep): readonly PlacedFinger[] | undefined {
  const { hand, notes } = step
  const own = (f: PlacedFinger) =>
    f.finger === notes[0]!.finger && f.fret === notes[0]!.fret && f.from === f.to
  if (!hand.lands.every(own)) return undefined
  const kept = hand.stays.filter((f) => !own(f))
  // A barre that stops the note as well is more than a row says.
  return kept.some((f) => f.finger === notes[0]!.finger) ? undefined : kept
}

const sameFingers = (a: readonly PlacedFinger[], b: readonly PlacedFinger[] | undefined): boolean =>
  b !== undefined &&
  a.length === b.length &&
  a.every((f, i) => f.finger === b[i]!.finger && f.fret === b[i]!.fret && f.from === b[i]!.from)
