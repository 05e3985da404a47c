import { message, type Message } from '../messages/message.ts'
import type { HeldGrip, WrittenGrace, WrittenNote } from './finishedTab.ts'
import type { PlayedNote } from './playedOrder.ts'

/** What an arrival breaks. */
export interface ArrivalFault {
  readonly kind: 'arrivalFrom' | 'fingerNotDown'
  readonly says: Message<'auditing'>
}

const ARRIVALS = new Set(['hammer', 'pull', 'slide', 'bend', 'release'])
export const isArrivalNote = ({ technique }: Pick<WrittenNote, 'technique'>): boolean =>
  ARRIVALS.has(technique)

/**
 * Checks notes that the fretting hand sounds alone, from the page: a hammer-on rises from a note that still sounds on its
 * string and whose finger stays down, by a finger that holds no other string that sounds; a pull-off falls to an open
 * string or to a finger that is down before; a slide is made by one finger.
 */
export function arrivalFaults(
  played: readonly PlayedNote[],
  grips: readonly HeldGrip[],
): { readonly note: WrittenNote; readonly fault: ArrivalFault }[] {
  const faults: { note: WrittenNote; fault: ArrivalFault }[] = []
  const last = new Map<number, PlayedNote>()
  for (const p of played) {
    const { note } = p
    const before = last.get(note.string)
    last.set(note.string, p)
    const add = (fault: ArrivalFault | undefined) => fault && faults.push({ note, fault })
    const at = gripAt(grips, note.start)
    if (note.graces?.length) {
      add(chainFault(note, note.graces, at) ?? tiedFault(p, played, at, at))
      continue
    }
    if (!isArrivalNote(note)) continue
    // Another voice may go on in between: what counts is that the string still sounds, not how long it is written.
    const sounds = before && before.at < p.at && before.at + before.note.ring >= p.at
    if (!sounds)
      add({
        kind: 'arrivalFrom',
        says: message('auditing.fromNothing', { string: note.string }),
      })
    else {
      const held = gripAt(grips, note.start - 1)
      add(stepFault(before.note, note, held, at) ?? tiedFault(p, played, held, at))
    }
  }
  return faults
}

/** A finger that is to hammer and holds another string, before and after, that sounds then. */
function tiedFault(
  { note, at: moment }: PlayedNote,
  played: readonly PlayedNote[],
  before: HeldGrip | undefined,
  at: HeldGrip | undefined,
): ArrivalFault | undefined {
  if (note.technique !== 'hammer') return undefined
  const { fret, leftFinger: finger } = note
  const holds = (grip: HeldGrip | undefined, string: number) =>
    grip?.pressed.some((p) => p.string === string && p.fret === fret && p.finger === finger) ?? false
  // Behind short notes it comes later than what is struck with them.
  const graced = (note.graces?.length ?? 0) > 0
  const tied = played.find(
    (o) =>
      o.note.string !== note.string &&
      o.note.fret === fret &&
      (o.at < moment || (graced && o.at === moment)) &&
      o.at + Math.min(o.note.duration, o.note.ring) > moment &&
      holds(before, o.note.string) &&
      holds(at, o.note.string),
  )
  return (
    tied && {
      kind: 'fingerNotDown',
      says: message('auditing.hammerTied', { finger, string: note.string, held: tied.note.string }),
    }
  )
}

interface Stopped {
  readonly fret: number
  readonly leftFinger: WrittenNote['leftFinger']
  readonly technique: string
  readonly bend?: number
}

const WRONG_WAY: Readonly<Record<string, 'auditing.hammerDown' | 'auditing.pullUp'>> = {
  hammer: 'auditing.hammerDown',
  pull: 'auditing.pullUp',
}

/** One step along a string. */
function stepFault(
  from: Stopped,
  to: Stopped & Pick<WrittenNote, 'string'>,
  before: HeldGrip | undefined,
  at: HeldGrip | undefined,
): ArrivalFault | undefined {
  const { string } = to
  if (to.technique === 'bend' || to.technique === 'release') return bendFault(from, to)
  const wrongWay =
    to.technique === 'hammer'
      ? to.fret <= from.fret
      : to.technique === 'pull'
        ? to.fret >= from.fret
        : to.fret === from.fret
  if (wrongWay)
    return {
      kind: 'arrivalFrom',
      says: message(WRONG_WAY[to.technique] ?? 'auditing.slideNowhere', { from: from.fret, to: to.fret }),
    }
  if (to.technique === 'slide')
    return from.leftFinger === to.leftFinger && from.fret > 0 && to.fret > 0
      ? undefined
      : {
          kind: 'arrivalFrom',
          says: message('auditing.slideFingers', { from: from.leftFinger, to: to.leftFinger }),
        }
  if (from.leftFinger === to.leftFinger)
    return {
      kind: 'fingerNotDown',
      says: message('auditing.ownNote', { finger: to.leftFinger }),
    }
  if (to.technique === 'hammer' && from.fret > 0 && at && !isDown(at, string, from))
    return {
      kind: 'fingerNotDown',
      says: message('auditing.mustStay', { finger: from.leftFinger, fret: from.fret, string }),
    }
  if (to.technique === 'pull' && to.fret > 0 && before && !isDown(before, string, to))
    return {
      kind: 'fingerNotDown',
      says: message('auditing.mustBeDown', { finger: to.leftFinger, fret: to.fret, string }),
    }
  return undefined
}

/** A bend and its release happen under one finger at one place: up from a straight string, back to it. */
function bendFault(from: Stopped, to: Stopped): ArrivalFault | undefined {
  const same = from.fret === to.fret && from.leftFinger === to.leftFinger && to.fret > 0
  if (!same) return { kind: 'arrivalFrom', says: message('auditing.bendFingers') }
  const [before, after] = [from.bend ?? 0, to.bend ?? 0]
  const wrongWay = to.technique === 'bend' ? after <= before : after >= before
  return wrongWay
    ? {
        kind: 'arrivalFrom',
        says: message(to.technique === 'bend' ? 'auditing.bendWrongWay' : 'auditing.releaseWrongWay', {
          from: before,
          to: after,
        }),
      }
    : undefined
}

/** Short notes and their note: one after the other, all their fingers down at once. */
function chainFault(
  note: WrittenNote,
  graces: readonly WrittenGrace[],
  at: HeldGrip | undefined,
): ArrivalFault | undefined {
  const chain = [...graces, note]
  for (let i = 1; i < chain.length; i++) {
    const [a, b] = [chain[i - 1]!, chain[i]!]
    if (a.string !== note.string || !isArrivalNote(b)) continue
    const fault = stepFault(a, b, at, at)
    if (fault) return fault
  }
  return undefined
}

const isDown = ({ pressed }: HeldGrip, string: number, { fret, leftFinger }: Stopped): boolean =>
  pressed.some((p) => p.string === string && p.fret === fret && p.finger === leftFinger)

/** The grip that is held at a written time; undefined where the page has none. */
function gripAt(grips: readonly HeldGrip[], at: number): HeldGrip | undefined {
  let low = 0
  let high = grips.length
  while (low < high) {
    const mid = (low + high) >> 1
    if (grips[mid]!.start <= at) low = mid + 1
    else high = mid
  }
  return grips[low - 1]
}
