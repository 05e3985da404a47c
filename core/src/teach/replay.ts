import type { Attack, GraceNote } from '../model/arrangement.ts'
import type { Mark } from '../model/marks.ts'
import type { PickingSign } from '../neck/hand.ts'
import { EXPRESSIONS, EXPRESSION_PARTS, type Expression, type ExpressionWord } from '../model/expression.ts'
import { heldOn, type Finger, type FingerOn, type StepNote } from './lessonStep.ts'
import { readBack } from './template.ts'
import { capital } from './words/capital.ts'
import { ROW_SIGN, type Wording } from './words/wording.ts'

/** A note as somebody plays it who has only the words; its finger is the one that lies there by then. */
export type ReplayedNote = Omit<StepNote, 'artificial'>

export interface ReplayedStep {
  /** The title of the measure, as it is displayed. */
  readonly measure: string
  readonly count: string
  readonly notes: readonly ReplayedNote[]
  /** All fingers that are down. */
  readonly down: readonly FingerOn[]
  readonly expression: Expression
  readonly remark?: string
}

/** The words ask for something that cannot be done or understood. */
export class ReplayError extends Error {
  override readonly name = 'ReplayError'
}

/**
 * Follows a script from its displayed text alone: two hands that do what each sentence says.
 * @throws ReplayError where a sentence is not understood, or asks for a finger that is not there or twice at once
 */
export function replay(text: string, words: Wording): ReplayedStep[] {
  const steps: ReplayedStep[] = []
  let measure = ''
  let down = new Map<Finger, FingerOn>()
  for (const line of text.split('\n')) {
    if (line === '' || readBack(`${words.silent}.`, line)) continue
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
    const told = readBack(words.line, line)
    if (!told) {
      if (line !== words.pickup && !readBack(words.measure, line))
        throw new ReplayError(`Not understood: ${line}`)
      measure = line
      continue
    }
    const { rest, remark } = parted(told.rest!, words)
    const step = followed(rest, down, words)
    ;({ down } = step)
    steps.push({
      measure,
      count: told.count!,
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
  const at = text.indexOf(before!)
  const read = at < 0 ? undefined : readBack(`${words.remark}.`, text.slice(at))
  return read ? { rest: text.slice(0, at).trimEnd(), remark: read.remark! } : { rest: text }
}

interface ToldRow {
  /** What is said before it: fingers that stay, what rings on. */
  readonly before: readonly string[]
  readonly string?: string
  readonly items: readonly string[]
}

/** A line that tells a row of single notes; undefined where it tells something else. */
function rowIn(line: string, words: Wording): ToldRow | undefined {
  const said = line.replace(/\.$/, '').split('. ')
  const last = said.at(-1)!
  const read = readBack(words.row.string, last) ?? readBack(words.row.position, last)
  if (!read) return undefined
  const { string, items } = read
  return { before: said.slice(0, -1), ...(string ? { string } : {}), items: items!.split(ROW_SIGN) }
}

/** The notes of a row: each puts its finger down and lifts the last one; what was said to stay stays. */
function playedRow(
  { before, string, items }: ToldRow,
  hand: ReadonlyMap<Finger, FingerOn>,
  words: Wording,
): { count: string; note: ReplayedNote; down: Map<Finger, FingerOn> }[] {
  const names = before.flatMap((s) => readBack(words.hand.stays, s)?.fingers?.split(', ') ?? [])
  const kept = new Map<Finger, FingerOn>()
  for (const name of names) {
    const finger = keyOf(words.fingers, name) as Finger
    const on = hand.get(finger)
    if (!on) throw new ReplayError(`The ${name} is to stay and is not down: ${items.join(ROW_SIGN)}`)
    kept.set(finger, on)
  }
  return items.map((item) => {
    const { count, place, picking } = itemIn(item, words)
    const at =
      string === undefined
        ? (readBack(words.row.stringFret, place) ?? readBack(words.row.stringOpen, place))
        : (readBack(words.row.fret, place) ?? readBack(words.row.open, place))
    if (!at) throw new ReplayError(`No place: ${item}`)
    const own = Number(at.string ?? string)
    const fret = Number(at.fret ?? 0)
    const finger = at.finger === undefined ? undefined : (keyOf(words.fingers, at.finger) as Finger)
    if (finger !== undefined && kept.has(finger))
      throw new ReplayError(`The ${at.finger} is to stay and is needed: ${item}`)
    const down = new Map(kept)
    if (finger !== undefined) down.set(finger, { finger, fret, from: own, to: own })
    const note: ReplayedNote = {
      string: own,
      fret,
      ...(finger === undefined ? {} : { finger }),
      ...(picking === undefined ? {} : { picking: keyOf(words.picking, picking) as PickingSign }),
      attack: 'pluck',
      graces: [],
      marks: [],
    }
    return { count, note, down }
  })
}

/** An item of a row taken apart. Counts and places are parted where both can be read. */
function itemIn(item: string, words: Wording): { count: string; place: string; picking: string | undefined } {
  const picked = readBack(words.place.picked, item)
  const plain = picked ? picked.place! : item
  const named = readBack(words.place.named, plain)
  const text = named ? named.place! : plain
  const { row } = words
  for (let at = text.indexOf(' '); at >= 0; at = text.indexOf(' ', at + 1)) {
    const place = text.slice(at + 1)
    const reads = [row.stringFret, row.stringOpen, row.fret, row.open].some((t) => readBack(t, place))
    if (reads) return { count: text.slice(0, at), place, picking: picked?.picking }
  }
  throw new ReplayError(`No place: ${item}`)
}

function followed(
  rest: string,
  before: ReadonlyMap<Finger, FingerOn>,
  words: Wording,
): { down: Map<Finger, FingerOn>; notes: ReplayedNote[]; expression: Expression } {
  const down = new Map(before)
  const moved = new Set<Finger>()
  const notes: ReplayedNote[] = []
  let expression: Expression = {}
  const fingerOf = (name: string): Finger => keyOf(words.fingers, name) as Finger
  const move = (name: string, on: Omit<FingerOn, 'finger'>) => {
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
      for (const name of read.fingers!.split(', '))
        if (!down.has(fingerOf(name)))
          throw new ReplayError(`The ${name} is to stay and is not down: ${rest}`)
      continue
    }
    if ((read = readBack(hand.lifts, sentence))) {
      for (const name of read.fingers!.split(', ')) down.delete(fingerOf(name))
      continue
    }
    if ((read = readBack(words.from, sentence))) {
      expression = expressionIn(read.how!, words)
      continue
    }
    if ([hand.shift, hand.either, hand.ready, hand.torn, words.ringing].some((t) => readBack(t, sentence)))
      continue
    if ((read = readBack(hand.lands, sentence))) {
      move(read.finger!, { fret: +read.fret!, from: +read.string!, to: +read.string! })
      continue
    }
    if ((read = readBack(hand.barre, sentence))) {
      move(read.finger!, { fret: +read.fret!, from: +read.from!, to: +read.to! })
      continue
    }
    if ((read = readBack(hand.slides, sentence)) || (read = readBack(hand.slidesBarre, sentence))) {
      const own = down.get(fingerOf(read.finger!))
      const [from, to] = [+(read.from ?? read.string!), +(read.to ?? read.string!)]
      if (!own || own.from !== from || own.to !== to)
        throw new ReplayError(`The ${read.finger} is to slide and does not lie there: ${rest}`)
      move(read.finger!, { fret: +read.fret!, from, to })
      continue
    }
    const chain = sentence.split(words.then).map((text, i) => (i === 0 ? text : capital(text)))
    const items = chain.map((text) => soundedIn(text, words))
    if (items.some((item) => !item)) throw new ReplayError(`Not understood: ${sentence}`)
    const sounded = items.flatMap((item) => item!.notes.flatMap((n) => notesFrom(n, item!, down, words)))
    for (const { attack, by, string, fret } of sounded)
      // A finger that hammers comes down with the sound.
      if (attack === 'hammer' && by !== undefined)
        down.set(by, { finger: by, fret, from: string, to: string })
    notes.push(...(chain.length === 1 ? sounded.map(plainNote) : [chained(sounded)]))
  }
  return { down, notes, expression }
}

function expressionIn(how: string, words: Wording): Expression {
  const said = how.split(', ').map((text) => keyOf(words.expression, text) as ExpressionWord)
  return Object.fromEntries(
    EXPRESSION_PARTS.flatMap((part) => {
      const own = said.find((word) => (EXPRESSIONS[part] as readonly ExpressionWord[]).includes(word))
      return own === undefined ? [] : [[part, own]]
    }),
  )
}

interface Sounded {
  readonly attack: Attack
  readonly optional: boolean
  readonly notes: string[]
}

function soundedIn(sentence: string, words: Wording): Sounded | undefined {
  const together = readBack(words.together, sentence)
  if (together) return { attack: 'pluck', optional: false, notes: together.notes!.split('; ') }
  const left = readBack(words.optional, sentence)
  // What begins like another is longer, and looked at first.
  const longest = Object.entries(words.attack).sort(([, a], [, b]) => b.length - a.length)
  for (const [attack, template] of longest) {
    const read = readBack(template, left?.grace ?? sentence)
    if (read)
      return { attack: attack as Attack, optional: left !== undefined, notes: read.notes!.split('; ') }
  }
  return undefined
}

/** A note with the finger that is named with it, and whether it may be left out. */
interface ReadNote extends ReplayedNote {
  readonly by?: Finger
  readonly leave: boolean
}

const plainNote = ({ by: _, leave: __, ...note }: ReadNote): ReplayedNote => note

/** Quick notes one after the other are one note with short ones before it; it is struck where the first of them is. */
function chained(notes: readonly ReadNote[]): ReplayedNote {
  const { picking: _, ...last } = plainNote(notes.at(-1)!)
  const { picking } = notes[0]!
  return {
    ...last,
    ...(picking === undefined ? {} : { picking }),
    graces: notes.slice(0, -1).map(({ fret, by, attack, leave }) => ({
      fret,
      ...(by === undefined ? {} : { finger: by }),
      attack: attack as GraceNote['attack'],
      ...(leave ? { optional: true } : {}),
    })),
  }
}

/** The notes of one text: one, or neighbouring strings as the hand holds them. */
function notesFrom(
  text: string,
  item: Sounded,
  down: ReadonlyMap<Finger, FingerOn>,
  words: Wording,
): ReadNote[] {
  const { place, picking } = words
  const picked = readBack(place.picked, text)
  const read = readBack(place.strings, picked?.place ?? text)
  if (!read || !/^\d+$/.test(read.to!)) return [noteFrom(text, item, down, words)]
  const strings = Array.from({ length: +read.from! - +read.to! + 1 }, (_, i) => +read.from! - i)
  return strings.map((string): ReadNote => {
    const held = heldOn([...down.values()], string)
    return {
      string,
      fret: held?.fret ?? 0,
      ...(held ? { finger: held.finger } : {}),
      ...(picked ? { picking: keyOf(picking, picked.picking!) as PickingSign } : {}),
      attack: item.attack,
      leave: item.optional,
      graces: [],
      marks: [],
    }
  })
}

/** Reads a note from the outside in, as its words were put around one another. */
function noteFrom(
  text: string,
  { attack, optional }: Sounded,
  down: ReadonlyMap<Finger, FingerOn>,
  { place, picking, marks, fingers }: Wording,
): ReadNote {
  const found: Mark[] = []
  let rest = text
  // Marks stand outermost, so that a comma elsewhere is none.
  for (let said = lastMark(rest, marks); said !== ''; said = lastMark(rest, marks)) {
    found.unshift(keyOf(marks, said) as Mark)
    rest = rest.slice(0, rest.length - said.length - 2)
  }
  const picked = readBack(place.picked, rest)
  if (picked) rest = picked.place!
  const called = readBack(place.named, rest)
  if (called) rest = called.place!
  const open = readBack(place.noFinger, rest)
  if (open) rest = open.place!
  const bent = readBack(place.bent, rest)
  if (bent) rest = bent.place!
  const beside = (['short', 'beyond'] as const).find((side) => readBack(place[side], rest))
  if (beside) rest = readBack(place[beside], rest)!.place!
  const by = readBack(place.by, rest)
  if (by) rest = by.place!
  const at =
    readBack(place.artificial, rest) ??
    readBack(place.harmonic, rest) ??
    readBack(place.fret, rest) ??
    readBack(place.open, rest)
  if (!at) throw new ReplayError(`No place: ${text}`)
  const string = Number(at.string)
  const touched = at.touched === undefined ? undefined : Number(at.touched)
  const fret = at.fret !== undefined ? Number(at.fret) : (touched ?? 0)
  const named = by ? (keyOf(fingers, by.finger!) as Finger) : undefined
  const finger = named ?? (fret > 0 ? fingerAt(down, string, fret) : undefined)
  return {
    string,
    fret,
    ...(finger === undefined ? {} : { finger }),
    ...(named === undefined ? {} : { by: named }),
    leave: optional,
    ...(picked ? { picking: keyOf(picking, picked.picking!) as PickingSign } : {}),
    attack,
    ...(touched === undefined ? {} : { touched }),
    ...(beside ? { beside } : {}),
    ...(bent ? { bend: Number(bent.to!.replace('½', '.5')) - fret } : {}),
    graces: [],
    marks: found,
  }
}

/** The finger at a place: the one that is put there, before one that only lies across it. */
function fingerAt(down: ReadonlyMap<Finger, FingerOn>, string: number, fret: number): Finger | undefined {
  const there = [...down.values()].filter((f) => f.fret === fret && f.from <= string && string <= f.to)
  return there.sort((a, b) => a.to - a.from - (b.to - b.from))[0]?.finger
}

/** The mark that a text ends with, or nothing that is one. */
const lastMark = (text: string, marks: Wording['marks']): string =>
  Object.values(marks).find((m) => text.endsWith(`, ${m}`)) ?? ''

function keyOf(names: Readonly<Record<string, string>>, name: string): string | number {
  const key = Object.entries(names).find(([, n]) => n === name || capital(n) === name)?.[0]
  if (key === undefined) throw new ReplayError(`Nobody is called “${name}”.`)
  return /^\d$/.test(key) ? Number(key) : key
}
