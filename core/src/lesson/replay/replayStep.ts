import { present } from '../../invariant.ts'
import type { Finger, PlacedFinger } from '../../hand/moves/placedFinger.ts'
import {
  EXPRESSIONS,
  EXPRESSION_PARTS,
  type Expression,
  type ExpressionWord,
} from '../../document/expression.ts'
import { readBack } from '../text/template.ts'
import type { Wording } from '../text/words/wording.ts'
import { fingerNamed, nameKey, ReplayError, type ReplayedNote } from './replayed.ts'
import { soundedIn } from './replaySound.ts'

/** One step: two hands that do what each of its sentences says. */
export function followed(
  rest: string,
  before: ReadonlyMap<Finger, PlacedFinger>,
  words: Wording,
): { down: Map<Finger, PlacedFinger>; notes: ReplayedNote[]; expression: Expression } {
  const down = new Map(before)
  const moved = new Set<Finger>()
  const notes: ReplayedNote[] = []
  let expression: Expression = {}
  const fingerOf = (name: string): Finger => fingerNamed(words, name)
  const move = (name: string, on: Omit<PlacedFinger, 'finger'>) => {
    const finger = fingerOf(name)
    if (moved.has(finger)) throw new ReplayError(`The ${name} is needed twice at once: ${rest}`)
    moved.add(finger)
    down.set(finger, { finger, ...on })
  }
  for (const sentence of rest.replace(/\.$/, '').split('. ')) {
    const { hand } = words
    if (sentence === hand.held) {
      if (down.size === 0) throw new ReplayError(`Nothing is held: ${rest}`)
      continue
    }
    let read = readBack(hand.stays, sentence)
    if (read) {
      for (const name of present(read.fingers).split(', '))
        if (!down.has(fingerOf(name)))
          throw new ReplayError(`The ${name} is to stay and is not down: ${rest}`)
      continue
    }
    if ((read = readBack(hand.lifts, sentence))) {
      for (const name of present(read.fingers).split(', ')) down.delete(fingerOf(name))
      continue
    }
    if (readBack(hand.holds, sentence)) {
      if (down.size === 0) throw new ReplayError(`Nothing is held: ${rest}`)
      continue
    }
    const taken = readBack(hand.takes, sentence)
    if ((read = taken ?? readBack(hand.changes, sentence))) {
      if (taken) down.clear()
      for (const place of present(read.places).split('; ')) {
        const across = readBack(hand.across, place)
        const { finger, fret, from, to, string } = { ...readBack(hand.at, place), ...across }
        move(present(finger), {
          fret: +present(fret),
          from: +(from ?? present(string)),
          to: +(to ?? present(string)),
        })
      }
      continue
    }
    if ((read = readBack(words.from, sentence))) {
      expression = expressionIn(present(read.how), words)
      continue
    }
    if (
      [
        hand.shift,
        hand.alternative,
        hand.prepare,
        hand.conflict,
        words.ringing,
        words.harmony.over,
        words.lengths.beats,
      ].some((t) => readBack(t, sentence))
    )
      continue
    if ((read = readBack(hand.lands, sentence))) {
      move(present(read.finger), {
        fret: +present(read.fret),
        from: +present(read.string),
        to: +present(read.string),
      })
      continue
    }
    if ((read = readBack(hand.barre, sentence))) {
      move(present(read.finger), {
        fret: +present(read.fret),
        from: +present(read.from),
        to: +present(read.to),
      })
      continue
    }
    if ((read = readBack(hand.slides, sentence)) || (read = readBack(hand.slidesBarre, sentence))) {
      const own = down.get(fingerOf(present(read.finger)))
      const [from, to] = [+(read.from ?? present(read.string)), +(read.to ?? present(read.string))]
      if (!own || own.from !== from || own.to !== to)
        throw new ReplayError(`The ${read.finger} is to slide and does not lie there: ${rest}`)
      move(present(read.finger), { fret: +present(read.fret), from, to })
      continue
    }
    const sounded = soundedIn(sentence, down, words)
    // A finger that hammers comes down with the sound.
    for (const { finger, fret, string } of sounded.hammers)
      down.set(finger, { finger, fret, from: string, to: string })
    notes.push(...sounded.notes)
  }
  return { down, notes, expression }
}

function expressionIn(how: string, words: Wording): Expression {
  const said = how.split(', ').map((text) => nameKey(words.expression, text) as ExpressionWord)
  return Object.fromEntries(
    EXPRESSION_PARTS.flatMap((part) => {
      const own = said.find((word) => (EXPRESSIONS[part] as readonly ExpressionWord[]).includes(word))
      return own === undefined ? [] : [[part, own]]
    }),
  )
}
