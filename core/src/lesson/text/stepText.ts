import { type PlacedFinger, heldOn } from '../../hand/moves/placedFinger.ts'
import { BAR_FINGER } from '../../document/barNotes.ts'
import type { Attack } from '../../document/tab.ts'
import { EXPRESSION_PARTS } from '../../document/expression.ts'
import { fill } from './template.ts'
import type { Count } from '../steps/beatCount.ts'
import { isHammered } from '../steps/hammered.ts'
import { isBare, type LessonStep, type StepNote } from '../steps/lessonStep.ts'
import { harmonyText, lengthsText } from './alongsideText.ts'
import { capital, uncapital } from './words/capital.ts'
import type { Wording } from './words/wording.ts'

/** The count of a step in words. */
export function countText({ beat, syllable, share }: Count, { count }: Wording): string {
  if (syllable !== undefined) return fill(count.syllable, { syllable, beat })
  return share ? fill(count.share, { share: share.join('/'), beat }) : fill(count.beat, { beat })
}

/** The words for a step: while the little finger carries the bottleneck, what it does is said of that. */
export const wordsAt = ({ bottleneck }: Pick<LessonStep, 'bottleneck'>, words: Wording): Wording =>
  bottleneck ? { ...words, fingers: { ...words.fingers, [BAR_FINGER]: words.bottleneck } } : words

/** The name of what a place sounds, in the naming that is wanted. */
export type NameOf = (string: number, fret: number) => string

/**
 * What a step asks for, a sentence a thing: first how it is played from here on, then the fretting hand, what sounds,
 * what rings on, and the teacher's words.
 * @param nameOf present where notes are called by name as well
 */
export function stepSentences(step: LessonStep, plain: Wording, nameOf?: NameOf): string[] {
  const words = wordsAt(step, plain)
  const {
    hand,
    shift,
    notes,
    ringing,
    prepared = [],
    alternatives = [],
    conflicts = [],
    expression = {},
    remark,
  } = step
  const names = (fingers: readonly PlacedFinger['finger'][]) =>
    fingers.map((f) => words.fingers[f]).join(', ')
  const how = EXPRESSION_PARTS.flatMap((part) => expression[part] ?? []).map((e) => words.expression[e])
  // What comes down with the sound is said with it.
  const lands = hand.lands.filter((f) => !isHammered(f, notes))
  const taken = shapeText(step, lands, words)
  // Who takes a shape with all fingers lets go of what was there.
  const isTaken = taken !== undefined && hand.stays.length === 0
  const sentences = [
    ...(how.length > 0 ? [fill(words.from, { how: how.join(', ') })] : []),
    ...(conflicts.length > 0 ? [fill(words.hand.conflict, { fingers: names(conflicts) })] : []),
    ...(isHeld(step)
      ? [step.shape ? fill(words.hand.holds, { chord: step.shape.name }) : words.hand.held]
      : hand.stays.length > 0
        ? [fill(words.hand.stays, { fingers: names(hand.stays.map((f) => f.finger)) })]
        : []),
    ...(hand.lifts.length > 0 && !isTaken ? [fill(words.hand.lifts, { fingers: names(hand.lifts) })] : []),
    ...(shift ? [fill(words.hand.shift, { to: shift.to })] : []),
    ...hand.slides.map((f) => onNeck(f, words, words.hand.slides, words.hand.slidesBarre)),
    ...(taken ? [taken] : lands.map((f) => onNeck(f, words, words.hand.lands, words.hand.barre))),
    ...alternatives.map((e) =>
      fill(words.hand.alternative, {
        string: e.string,
        fingers: e.fingers.map((f) => words.fingers[f]).join(', '),
      }),
    ),
    ...sounded(notes, [...hand.stays, ...hand.slides, ...lands], words, nameOf),
    ...alongsideSentences(step, words),
    ...(ringing.length > 0 ? [fill(words.ringing, { strings: ringing.join(', ') })] : []),
    ...(prepared.length > 0
      ? [fill(words.hand.prepare, { fingers: names(prepared.map((f) => f.finger)) })]
      : []),
    ...(remark === undefined ? [] : [fill(words.remark, { remark })]),
  ]
  return sentences.map(capital)
}

/** Harmony and lengths, where they are wanted. */
export const alongsideSentences = (
  { harmony, lengths }: Pick<LessonStep, 'harmony' | 'lengths'>,
  words: Wording,
): string[] => [
  ...(harmony ? [harmonyText(harmony, words)] : []),
  ...(lengths ? [lengthsText(lengths, words)] : []),
]

/** A shape that is known by name, put down whole or with the fingers that change; undefined where fingers move alone. */
function shapeText(
  { shape, hand }: LessonStep,
  lands: readonly PlacedFinger[],
  words: Wording,
): string | undefined {
  const alone = lands.length < 2 && hand.stays.length === 0
  if (!shape?.taken || alone || lands.length === 0 || lands.length < hand.lands.length) return undefined
  if (hand.slides.length > 0) return undefined
  return fill(hand.stays.length > 0 ? words.hand.changes : words.hand.takes, {
    chord: shape.name,
    fingers: shape.fingers.join('-'),
    places: [...lands]
      .sort((a, b) => b.to - a.to)
      .map((f) => onNeck(f, words, words.hand.at, words.hand.across))
      .join('; '),
  })
}

/** True where several fingers are down and none moves. */
const isHeld = ({ hand, shift }: LessonStep): boolean =>
  hand.stays.length > 1 && hand.lifts.length + hand.slides.length + hand.lands.length === 0 && !shift

function onNeck(f: PlacedFinger, words: Wording, single: string, barre: string): string {
  const values = { finger: words.fingers[f.finger], fret: f.fret, string: f.from, from: f.from, to: f.to }
  return fill(f.from === f.to ? single : barre, values)
}

/** The notes of a step, those that are sounded in one way together; quick notes on one string one after the other. */
function sounded(
  notes: readonly StepNote[],
  down: readonly PlacedFinger[],
  words: Wording,
  nameOf: NameOf | undefined,
): string[] {
  const by = new Map<Attack, StepNote[]>()
  for (const n of notes) if (n.graces.length === 0) by.set(n.attack, [...(by.get(n.attack) ?? []), n])
  const texts = [...by].map(([attack, own]) => {
    const across = attack === 'pluck' ? undefined : acrossText(own, down, words)
    if (across !== undefined) return fill(words.attack[attack], { notes: across })
    const template = attack === 'pluck' && own.length > 1 ? words.together : words.attack[attack]
    return fill(template, { notes: own.map((n) => noteText(n, down, words, nameOf)).join('; ') })
  })
  return [...texts, ...notes.filter((n) => n.graces.length > 0).map((n) => chainText(n, words, nameOf))]
}

/** A stroke over neighbouring strings that sounds what the hand holds, in a few words; undefined where there is more to say. */
function acrossText(
  notes: readonly StepNote[],
  down: readonly PlacedFinger[],
  { place, picking: signs }: Wording,
): string | undefined {
  const [first, second] = notes
  if (!first || !second) return undefined
  const { picking } = first
  const plain = notes.every((n, i) => {
    const held = heldOn(down, n.string)
    const asHeld = n.fret === (held?.fret ?? 0) && n.finger === held?.finger && n.string === first.string - i
    return asHeld && n.picking === picking && isBare(n)
  })
  if (!plain) return undefined
  const text = fill(place.strings, { from: first.string, to: notes.at(-1)!.string })
  return picking === undefined || picking === 'none'
    ? text
    : fill(place.picked, { place: text, picking: signs[picking] })
}

/** Quick notes and the note that they lead to: each with its finger; what is struck is struck at the first. */
function chainText(
  { graces, picking, ...note }: StepNote,
  words: Wording,
  nameOf: NameOf | undefined,
): string {
  const { string } = note
  const plain = { string, artificial: false, graces: [], marks: [] }
  const items = graces.map(({ optional, ...grace }, i) => {
    const own = { ...plain, ...grace, ...(i === 0 && picking !== undefined ? { picking } : {}) }
    const text = fill(words.attack[grace.attack], { notes: noteText(own, [], words, undefined) })
    return optional ? fill(words.optional, { grace: text }) : text
  })
  const last = fill(words.attack[note.attack], {
    notes: noteText({ ...note, graces: [] }, [], words, nameOf),
  })
  return [...items, last].map((text, i) => (i === 0 ? text : uncapital(text))).join(words.then)
}

/** A note's place, from the inside out: where, how it is bent or approached, by what it is struck, with which signs. */
function noteText(
  n: StepNote,
  down: readonly PlacedFinger[],
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
  if (n.bend !== undefined)
    text = fill(place.bent, { place: text, to: String(n.fret + n.bend).replace('.5', '½') })
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

const liesAt = (down: readonly PlacedFinger[], { finger, string, fret }: StepNote): boolean =>
  down.some((f) => f.finger === finger && f.fret === fret && f.from <= string && string <= f.to)
