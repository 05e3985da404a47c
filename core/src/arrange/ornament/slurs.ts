import type { Style } from '../../document/style.ts'
import { isArrival, type Arrival } from '../../document/tab.ts'
import { beatStarts, inFullMeasure } from '../../music/time/metre.ts'
import { eachInTurns, type Turns } from '../../turns.ts'
import { mayLead, reachedBy, type Reached } from './arrival.ts'
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
    const written = isWritten(page, i)
    if (!asked && !written && !isWanted(page, from, i, last === k - 1)) return
    if (join(page, from, i, asked, written)) last = k
    else if (asked) page.leave(i, 'notPossible')
  })
}

/** True where the source slurs the note, and ornaments of the source are played. */
function isWritten(page: OrnamentPage, to: number): boolean {
  const { sourceId } = page.notes[to]!
  return page.densityAt(to) > 0 && sourceId !== undefined && page.events.get(sourceId)?.slurred === true
}

/** True where the density lets the note be slurred. */
function isWanted(page: OrnamentPage, from: number, to: number, afterSlur: boolean): boolean {
  const density = page.densityAt(to)
  const note = page.notes[to]!
  if (density <= 1) return false
  const measure = page.tune.measures[page.measureOf(to)]!
  if (beatStarts(measure.metre).includes(inFullMeasure(measure, note.pos.tick))) return false
  if (density === 2 && afterSlur) return false
  const seconds = page.plan.secondsBetween(page.starts[from]!, page.starts[to]!)
  if (!isSlurTime(seconds)) return false
  return Math.abs(note.place.fret - page.notes[from]!.place.fret) <= SLUR_SPANS[density]
}

function join(
  page: OrnamentPage,
  from: number,
  to: number,
  asked: Arrival | undefined,
  written: boolean,
): boolean {
  const [a, b] = [page.notes[from]!, page.notes[to]!]
  if (!mayLead(a) || b.attack !== 'pluck' || !page.isHeldInto(from, to)) return false
  const at = page.gripAt(page.starts[to]!)
  const before = page.gripAt(page.starts[to]! - 1)
  if (at < 0 || before < 0 || at === before) return false
  const reached = reachedBy(page.setup, a, b, page.grips[before]!, page.grips[at]!, asked)
  if (!reached || page.landsTooFast(before, reached.before)) return false
  if (reached.how === 'slide' && !asked && page.regionOf(to)?.without?.includes('slides'))
    return insteadOfSlide(page, from, to, before, at)
  const along = together(page, from, to, reached, before)
  if (!asked && !written && isLeftBehind(page, to, along)) return false
  page.grips[before] = along.before
  page.grips[at] = along.at
  page.notes[to] = { ...b, attack: reached.how }
  page.span(reached.how, a, b)
  for (const [p, q] of along.pairs) {
    const second = page.notes[q]!
    page.notes[q] = { ...second, attack: reached.how }
    page.span(reached.how, page.notes[p]!, second)
  }
  return true
}

/** Styles whose two voices are one: the hand slurs both or plucks both. Common practice, no source. */
const BOTH_OR_NEITHER: ReadonlySet<Style> = new Set(['double-stops'])

/** True where a second voice would be plucked beside the slurred tune, and the style has them sound as one. */
function isLeftBehind(page: OrnamentPage, to: number, along: Along): boolean {
  const style = page.regionOf(to)?.style
  return style !== undefined && BOTH_OR_NEITHER.has(style) && struckWith(page, to).length > along.pairs.length
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

/** Notes that go along with a slur of the melody, from and to, and what the hand holds with them. */
interface Along extends Pick<Reached, 'before' | 'at'> {
  readonly pairs: readonly (readonly [number, number])[]
}

/**
 * Notes struck with both that go along with the melody: slid by the same finger as far, or hammered on or pulled off by
 * fingers of their own.
 */
function together(page: OrnamentPage, from: number, to: number, melody: Reached, before: number): Along {
  const { how } = melody
  const frets = page.notes[to]!.place.fret - page.notes[from]!.place.fret
  let along: Along = { before: melody.before, at: melody.at, pairs: [] }
  for (const pair of companions(page, from, to)) {
    const [p, q] = pair
    const [a, b] = [page.notes[p]!, page.notes[q]!]
    if (!mayLead(a) || b.attack !== 'pluck') continue
    if (how === 'slide') {
      if (a.left !== b.left || a.left === 0 || b.place.fret - a.place.fret !== frets) continue
      along = { ...along, pairs: [...along.pairs, pair] }
    } else {
      if (!page.isHeldInto(p, q)) continue
      const reached = reachedBy(page.setup, a, b, along.before, along.at, how)
      if (!reached || page.landsTooFast(before, reached.before)) continue
      along = { before: reached.before, at: reached.at, pairs: [...along.pairs, pair] }
    }
  }
  return along
}

/** Indices of the notes that are struck with one. */
function struckWith(page: OrnamentPage, i: number): number[] {
  return page.starts.flatMap((s, k) => (s === page.starts[i]! && k !== i ? [k] : []))
}

/** Pairs of notes on one string, struck with the first and with the second note of the melody. */
function companions(page: OrnamentPage, from: number, to: number): (readonly [number, number])[] {
  const first = struckWith(page, from)
  return struckWith(page, to).flatMap((q) => {
    const p = first.find((x) => page.notes[x]!.place.string === page.notes[q]!.place.string)
    return p === undefined ? [] : [[p, q] as const]
  })
}
