import { groupBy, uniq } from 'es-toolkit'
import { isShift, positionWayMm } from '../../hand/moves/handPosition.ts'
import { type PlacedFinger, placedFingers } from '../../hand/moves/placedFinger.ts'
import { ticksAt, timelineOf } from '../../document/form/timeline.ts'
import { BAR_FINGER, barNotes } from '../../document/barNotes.ts'
import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { Grip, TabNote } from '../../document/tab.ts'
import { EXPRESSION_PARTS, type Expression } from '../../document/expression.ts'
import { joinedUntil } from '../../document/joinedUntil.ts'
import { MARKS } from '../../document/marks.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { OCTAVE } from '../../instrument/setup.ts'
import { finish, type Turns } from '../../turns.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { beatCount } from './beatCount.ts'
import { alternativeFingers } from './alternativeFingers.ts'
import { alongsideOf } from './alongside.ts'
import type { Alongside } from './alongsideChoice.ts'
import { offBefore } from './hammered.ts'
import { handMove } from './handMove.ts'
import type { LessonStep, StepNote } from './lessonStep.ts'
import { withPreparedFingers } from './preparedFingers.ts'
import { wholeShapes } from './wholeShapes.ts'

/**
 * The finished tab as a lesson: one step for every moment at which a hand does something, in the order of the page.
 * @param wanted what each step tells of its notes beside
 */
export const lessonSteps = (tune: TuneDoc, tab: SteppedTab, wanted: Alongside = 'none'): LessonStep[] =>
  finish(stepping(tune, tab, wanted))

/** What a lesson's steps are read from. */
type SteppedTab = Pick<ArrangementDoc, 'base' | 'setup'> & Partial<Pick<ArrangementDoc, 'transposed'>>

/** Moments between two turns. */
const A_TURN = 128

/** The same, giving its turn back. */
export function* stepping(
  tune: TuneDoc,
  { base, setup, transposed = 0 }: SteppedTab,
  wanted: Alongside = 'none',
): Turns<LessonStep[]> {
  const alongside = alongsideOf(tune, { setup, transposed }, wanted)
  const timeline = timelineOf(tune.measures)
  const notesAt = groupBy(base.notes, (n) => ticksAt(timeline, n.pos))
  const gripAt = groupBy(base.grips, (g) => ticksAt(timeline, g.pos))
  const moments = uniq([...Object.keys(notesAt), ...Object.keys(gripAt)].map(Number)).sort((a, b) => a - b)
  const joined = joinedUntil(base, timeline)
  const steps: LessonStep[] = []
  let down: readonly PlacedFinger[] = []
  let position: number | undefined
  /** Where the hand was last said to be, or began. */
  let stood: number | undefined
  let sounding: readonly { string: number; until: Ticks }[] = []
  let measure = 0
  let lastShape: string | undefined
  let bottleneck = false
  const onBar = barNotes(base)
  const barMeasures = new Set(base.notes.filter((n) => onBar.has(n.id)).map((n) => n.pos.measure))
  const wholeShape = wholeShapes(setup, tune.pins)
  for (const [i, at] of moments.entries()) {
    if (i % A_TURN === 0) yield
    while (measure + 1 < timeline.starts.length && timeline.starts[measure + 1]! <= at) measure++
    const grip: Grip | undefined = gripAt[at]?.at(-1)
    const notes = [...(notesAt[at] ?? [])].sort((a, b) => b.place.string - a.place.string)
    const now = grip ? placedFingers(grip) : down
    const struck = new Set(notes.map((n) => n.place.string))
    const ringing = sounding.filter((s) => s.until > at && !struck.has(s.string))
    const stepNotes = notes.map(stepNote)
    const hand = offBefore(handMove(down, now), stepNotes, down)
    const landed = hand.lands.length + hand.slides.length > 0
    // Fingers that merely leave move no hand, and one that stays holds it where it is.
    const placed = grip && (landed || position === undefined) && now.length > 0 ? grip.position : position
    // A lean to the next fret is no way to go; several leans are.
    const shift =
      stood !== undefined &&
      placed !== undefined &&
      hand.stays.length === 0 &&
      isShift(positionWayMm(setup, stood, placed))
        ? { from: stood, to: placed }
        : undefined
    if (shift || stood === undefined) stood = placed
    const tick = at - timeline.starts[measure]!
    // It goes on lying on the strings until the finger is wanted without it.
    const carried = down.some(isBarFinger) && !hand.lands.some(isBarFinger)
    bottleneck = barMeasures.has(tune.measures[measure]!.id) || (bottleneck && carried)
    const named = grip && wholeShape(grip)
    const shape = named && { ...named, taken: named.name !== lastShape && hand.lands.length > 0 }
    if (grip) lastShape = named?.name
    steps.push({
      measure,
      tick,
      count: beatCount(tune.measures[measure]!, tick),
      ...(bottleneck ? { bottleneck } : {}),
      hand,
      ...(shape ? { shape } : {}),
      ...conflictsIn(now),
      ...(placed === undefined ? {} : { position: placed }),
      ...(shift ? { shift } : {}),
      notes: stepNotes,
      ...alongside(at, measure, notes),
      ringing: ringing.map((s) => s.string).sort((a, b) => b - a),
      ...statedAt(notes),
    })
    down = now
    position = placed
    sounding = [
      ...ringing,
      ...notes.map((n) => ({
        string: n.place.string,
        until: Math.max(at + n.dur.ticks, joined.get(n.id) ?? 0),
      })),
    ]
  }
  yield
  return yield* alternativeFingers(withPreparedFingers(steps), setup)
}

const isBarFinger = ({ finger }: PlacedFinger): boolean => finger === BAR_FINGER

/** Fingers that are to be in two places, where there are any. */
function conflictsIn(now: readonly PlacedFinger[]): Pick<LessonStep, 'conflicts'> {
  const conflicts = now.map((f) => f.finger).filter((f, i, all) => all.indexOf(f) < i)
  return conflicts.length > 0 ? { conflicts: [...new Set(conflicts)] } : {}
}

/** What the notes of a moment state about how it is played, and the teacher's words at them. */
function statedAt(notes: readonly TabNote[]): Pick<LessonStep, 'expression' | 'remark'> {
  const expression: Expression = Object.fromEntries(
    EXPRESSION_PARTS.flatMap((part) => {
      const said = notes.findLast((n) => n[part] !== undefined)?.[part]
      return said === undefined ? [] : [[part, said]]
    }),
  )
  const remarks = notes
    .map((n) => (n.remark ?? '').replaceAll(/\s+/g, ' ').trim())
    .filter((remark) => remark !== '')
  return {
    ...(Object.keys(expression).length > 0 ? { expression } : {}),
    ...(remarks.length > 0 ? { remark: remarks.join(' / ') } : {}),
  }
}

function stepNote({ place, left, right, attack, bend, graces = [], ...note }: TabNote): StepNote {
  return {
    string: place.string,
    fret: place.fret,
    ...(left === 0 ? {} : { finger: left }),
    ...(right === 'none' ? {} : { picking: right }),
    attack,
    ...(place.harmonic ? { touched: place.fret } : place.artificial ? { touched: place.fret + OCTAVE } : {}),
    artificial: place.artificial ?? false,
    ...(place.offsetCents ? { beside: place.offsetCents < 0 ? 'short' : 'beyond' } : {}),
    ...(bend === undefined ? {} : { bend }),
    graces: graces.map(({ place: { fret }, left: finger, attack, optional }) => ({
      fret,
      ...(finger === 0 ? {} : { finger }),
      attack,
      ...(optional ? { optional } : {}),
    })),
    marks: MARKS.filter((m) => note[m] === true),
  }
}
