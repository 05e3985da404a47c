import { isArrival, type Arrival } from '../../document/tab.ts'
import { beatStarts, inFullMeasure } from '../../music/time/metre.ts'
import { eachInTurns, type Turns } from '../../turns.ts'
import { mayLead, reachedBy } from './arrival.ts'
import { bend, preBend } from './bends.ts'
import type { OrnamentPage } from './ornamentPage.ts'
import { heldByOther, otherFingers } from './otherFinger.ts'
import { isSlurTime, SLUR_SPANS } from './usualTimes.ts'

/** Notes that the fretting hand reaches alone from the melody note before. */
export function* addSlurs(page: OrnamentPage): Turns<void> {
  let last = -2
  yield* eachInTurns(page.melody, (i, k) => {
    const from = page.melody[k - 1]
    const lock = page.asked.get(page.notes[i]!.id)
    if (lock === 'preBend') {
      if (!preBend(page, i, k)) page.leave(i, 'noBend')
      return
    }
    if (from === undefined || lock === 'pluck' || page.notes[i]!.graces) return
    const asked = lock !== undefined && isArrival(lock) ? lock : undefined
    // A string that was pushed up is still up, or let back to the note that it came from.
    if (isArrival(page.notes[i]!.attack) || page.notes[i]!.bend) return
    if (asked === 'bend') {
      if (bend(page, from, i, k)) last = k
      else page.leave(i, 'noBend')
      return
    }
    if (!asked && !isWanted(page, from, i, last === k - 1)) return
    if (join(page, from, i, asked)) last = k
    else if (asked) page.leave(i, 'notPossible')
  })
}

/** True where the source slurs the note, or the density lets it be. */
function isWanted(page: OrnamentPage, from: number, to: number, afterSlur: boolean): boolean {
  const density = page.densityAt(to)
  const note = page.notes[to]!
  if (density === 0) return false
  if (note.sourceId !== undefined && page.events.get(note.sourceId)?.slurred) return true
  if (density === 1) return false
  const measure = page.tune.measures[page.measureOf(to)]!
  if (beatStarts(measure.metre).includes(inFullMeasure(measure, note.pos.tick))) return false
  if (density === 2 && afterSlur) return false
  const seconds = page.plan.secondsBetween(page.starts[from]!, page.starts[to]!)
  if (!isSlurTime(seconds)) return false
  return Math.abs(note.place.fret - page.notes[from]!.place.fret) <= SLUR_SPANS[density]
}

function join(page: OrnamentPage, from: number, to: number, asked: Arrival | undefined): boolean {
  const [a, b] = [page.notes[from]!, page.notes[to]!]
  if (!mayLead(a) || b.attack !== 'pluck' || !page.isHeldInto(from, to)) return false
  const at = page.gripAt(page.starts[to]!)
  const before = page.gripAt(page.starts[to]! - 1)
  if (at < 0 || before < 0 || at === before) return false
  const reached = reachedBy(page.setup, a, b, page.grips[before]!, page.grips[at]!, asked)
  if (!reached || page.landsTooFast(before, reached.before)) return false
  if (reached.how === 'slide' && !asked && page.regionOf(to)?.without?.includes('slides'))
    return insteadOfSlide(page, from, to, before, at)
  page.grips[before] = reached.before
  page.grips[at] = reached.at
  page.notes[to] = { ...b, attack: reached.how }
  page.span(reached.how, a, b)
  together(page, from, to, reached.how, before, at)
  return true
}

/** Another finger hammers the note on, or is there before it is pulled off to; where none can, it is plucked. */
function insteadOfSlide(page: OrnamentPage, from: number, to: number, before: number, at: number): boolean {
  const [a, b] = [page.notes[from]!, page.notes[to]!]
  for (const finger of otherFingers(page.setup, a.left, b.place.fret - a.place.fret)) {
    const held = heldByOther(page.setup, page.grips, at, b.place, b.left, finger)
    if (!held?.length || page.isElsewhereNear(finger, b.place.string, at, at + held.length)) continue
    const note = { ...b, left: finger }
    const reached = reachedBy(page.setup, a, note, page.grips[before]!, held[0]!)
    if (!reached || page.landsTooFast(before, reached.before)) continue
    ;[reached.at, ...held.slice(1)].forEach((grip, i) => (page.grips[at + i] = grip))
    page.grips[before] = reached.before
    page.notes[to] = { ...note, attack: reached.how }
    page.span(reached.how, a, note)
    return true
  }
  return false
}

/**
 * Notes struck with both that go along with the melody: slid by the same finger as far, or hammered on or pulled off by
 * fingers of their own.
 */
function together(
  page: OrnamentPage,
  from: number,
  to: number,
  how: Arrival,
  before: number,
  at: number,
): void {
  for (const [p, q] of companions(page, from, to)) {
    const [a, b] = [page.notes[p]!, page.notes[q]!]
    if (!mayLead(a) || b.attack !== 'pluck') continue
    if (how === 'slide') {
      const frets = page.notes[to]!.place.fret - page.notes[from]!.place.fret
      if (a.left !== b.left || a.left === 0 || b.place.fret - a.place.fret !== frets) continue
    } else {
      if (!page.isHeldInto(p, q)) continue
      const reached = reachedBy(page.setup, a, b, page.grips[before]!, page.grips[at]!, how)
      if (!reached || page.landsTooFast(before, reached.before)) continue
      page.grips[before] = reached.before
      page.grips[at] = reached.at
    }
    page.notes[q] = { ...b, attack: how }
    page.span(how, a, b)
  }
}

/** Pairs of notes on one string, struck with the first and with the second note of the melody. */
function companions(page: OrnamentPage, from: number, to: number): (readonly [number, number])[] {
  const struckWith = (i: number) =>
    page.starts.flatMap((s, k) => (s === page.starts[i]! && k !== i ? [k] : []))
  const first = struckWith(from)
  return struckWith(to).flatMap((q) => {
    const p = first.find((x) => page.notes[x]!.place.string === page.notes[q]!.place.string)
    return p === undefined ? [] : [[p, q] as const]
  })
}
