import type { Attack } from '../model/arrangement.ts'
import { EXPRESSION_PARTS } from '../model/expression.ts'
import { fill } from './template.ts'
import type { Count } from './beatCount.ts'
import type { FingerOn, LessonStep, StepGrace, StepNote } from './lessonStep.ts'
import { ROW_SIGN, type Wording } from './words/wording.ts'

/** The count of a step in words. */
export function countText({ beat, syllable, share }: Count, { count }: Wording): string {
  if (syllable !== undefined) return fill(count.syllable, { syllable, beat })
  return share ? fill(count.share, { share: share.join('/'), beat }) : fill(count.beat, { beat })
}

/** The name of what a place sounds, in the naming that is wanted. */
export type NameOf = (string: number, fret: number) => string

/**
 * What a step asks for, a sentence a thing: first how it is played from here on, then the fretting hand, what sounds,
 * what rings on, and the teacher's words.
 * @param nameOf present where notes are called by name as well
 */
export function stepSentences(step: LessonStep, words: Wording, nameOf?: NameOf): string[] {
  const { hand, shift, notes, ringing, ready = [], either = [], torn = [], expression = {}, remark } = step
  const names = (fingers: readonly FingerOn['finger'][]) => fingers.map((f) => words.fingers[f]).join(', ')
  const how = EXPRESSION_PARTS.flatMap((part) => expression[part] ?? []).map((e) => words.expression[e])
  return [
    ...(how.length > 0 ? [fill(words.from, { how: how.join(', ') })] : []),
    ...(torn.length > 0 ? [fill(words.hand.torn, { fingers: names(torn) })] : []),
    ...(hand.stays.length > 0
      ? [fill(words.hand.stays, { fingers: names(hand.stays.map((f) => f.finger)) })]
      : []),
    ...(hand.lifts.length > 0 ? [fill(words.hand.lifts, { fingers: names(hand.lifts) })] : []),
    ...(shift ? [fill(words.hand.shift, { to: shift.to })] : []),
    ...hand.slides.map((f) => onNeck(f, words, words.hand.slides, words.hand.slidesBarre)),
    ...hand.lands.map((f) => onNeck(f, words, words.hand.lands, words.hand.barre)),
    ...either.map((e) =>
      fill(words.hand.either, {
        string: e.string,
        fingers: e.fingers.map((f) => words.fingers[f]).join(', '),
      }),
    ),
    ...sounded(notes, [...hand.stays, ...hand.slides, ...hand.lands], words, nameOf),
    ...(ringing.length > 0 ? [fill(words.ringing, { strings: ringing.join(', ') })] : []),
    ...(ready.length > 0 ? [fill(words.hand.ready, { fingers: names(ready.map((f) => f.finger)) })] : []),
    ...(remark === undefined ? [] : [fill(words.remark, { remark })]),
  ]
}

function onNeck(f: FingerOn, words: Wording, single: string, barre: string): string {
  const values = { finger: words.fingers[f.finger], fret: f.fret, string: f.from, from: f.from, to: f.to }
  return fill(f.from === f.to ? single : barre, values)
}

/** The notes of a step, those that are sounded in one way together. */
function sounded(
  notes: readonly StepNote[],
  down: readonly FingerOn[],
  words: Wording,
  nameOf: NameOf | undefined,
): string[] {
  const by = new Map<Attack, StepNote[]>()
  for (const n of notes) by.set(n.attack, [...(by.get(n.attack) ?? []), n])
  return [...by].map(([attack, own]) => {
    const template = attack === 'pluck' && own.length > 1 ? words.together : words.attack[attack]
    return fill(template, { notes: own.map((n) => noteText(n, down, words, nameOf)).join('; ') })
  })
}

/** A note's place, from the inside out: where, how it is bent or approached, by what it is struck, with which signs. */
function noteText(
  n: StepNote,
  down: readonly FingerOn[],
  words: Wording,
  nameOf: NameOf | undefined,
): string {
  const { place } = words
  const { string, fret, touched = 0 } = n
  let text = fill(
    n.touched === undefined
      ? fret === 0
        ? place.open
        : place.fret
      : n.artificial
        ? place.artificial
        : place.harmonic,
    { string, fret, touched },
  )
  // A finger that touches for a harmonic is not put down, and one that no grip has is not said to be: named with the note.
  const touches = n.touched !== undefined && !n.artificial
  if (n.finger !== undefined && (touches || (n.fret > 0 && !liesAt(down, n))))
    text = fill(place.by, { place: text, finger: words.fingers[n.finger] })
  if (n.beside) text = fill(place[n.beside], { place: text })
  if (n.bend !== undefined) text = fill(place.bent, { place: text, bend: n.bend })
  if (n.graces.length > 0)
    text = fill(place.graces, {
      place: text,
      graces: n.graces.map((g) => graceText(g, words)).join(ROW_SIGN),
    })
  if (
    n.finger === undefined &&
    n.fret > 0 &&
    n.touched === undefined &&
    n.attack !== 'bottle' &&
    n.attack !== 'muted'
  )
    text = fill(place.noFinger, { place: text })
  if (nameOf && n.attack !== 'muted')
    text = fill(place.named, { place: text, name: nameOf(string, n.artificial ? touched : fret) })
  if (n.picking !== undefined && n.picking !== 'none')
    text = fill(place.picked, { place: text, picking: words.picking[n.picking] })
  for (const mark of n.marks) text = fill(place.marked, { place: text, mark: words.marks[mark] })
  return text
}

const liesAt = (down: readonly FingerOn[], { finger, string, fret }: StepNote): boolean =>
  down.some((f) => f.finger === finger && f.fret === fret && f.from <= string && string <= f.to)

function graceText(
  { fret, finger, attack, optional }: StepGrace,
  { grace, place, fingers }: Wording,
): string {
  let text = fret === 0 ? grace.open : fill(grace.fret, { fret })
  if (finger !== undefined) text = fill(place.by, { place: text, finger: fingers[finger] })
  else if (fret > 0) text = fill(place.noFinger, { place: text })
  text = fill(grace.attack[attack], { grace: text })
  return optional ? fill(grace.optional, { grace: text }) : text
}
