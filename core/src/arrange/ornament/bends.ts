import { present } from '../../invariant.ts'
import { isArrival, type Grip, type TabNote } from '../../document/tab.ts'
import { pitchAt } from '../../instrument/setup.ts'
import { eachInTurns, type Turns } from '../../turns.ts'
import { isTouched, mayLead } from './arrival.ts'
import { bendableBy, bentGrip } from './bendRoom.ts'
import type { OrnamentPage, Unpicked } from './ornamentPage.ts'
import { GRACED_S, isSlurTime } from './usualTimes.ts'

/** Bends that nobody asked for, at the fullest density. */
export function* proposeBends(page: OrnamentPage): Turns<void> {
  yield* eachInTurns(page.melody, (i, k) => {
    const from = page.melody[k - 1]
    const note = page.notes[i]!
    if (from === undefined || page.asked.has(note.id) || note.bend || isArrival(note.attack)) return
    const event = page.events.get(note.sourceId ?? '')
    if (event && (event.graces.length > 0 || event.ornaments.length > 0)) return
    if (invitesBend(page, from, i)) bend(page, from, i, k)
  })
}

/** The finger of the note before stays and pushes its string up. */
export function bend(page: OrnamentPage, from: number, to: number, k: number): boolean {
  const [a, b] = [page.notes[from]!, page.notes[to]!]
  if (!mayLead(a) || a.bend || !page.isHeldInto(from, to) || !push(page, to, k, a)) return false
  page.notes[to] = {
    ...b,
    place: a.place,
    left: a.left,
    attack: 'bend',
    bend: b.place.fret - a.place.fret,
  }
  page.span('bend', a, b)
  afterBend(page, to, k, b)
  return true
}

/** The string is pushed up before it is struck: from the pitch that the line falls to, else as far as it gives. */
export function preBend(page: OrnamentPage, to: number, k: number): boolean {
  const b = page.notes[to]!
  if (b.attack !== 'pluck' || isTouched(b.place)) return false
  const { string, fret } = b.place
  const next = page.notes[page.melody[k + 1] ?? -1]
  const falls = next ? pitchAt(page.setup, b.place) - pitchAt(page.setup, next.place) : 0
  const most = bendableBy(page.setup, string)
  const semitones = falls >= 1 && falls <= most ? falls : most
  const place = { string, fret: fret - semitones }
  if (semitones === 0 || !push(page, to, k, { place, left: b.left })) return false
  page.notes[to] = { ...b, place, bend: semitones }
  afterBend(page, to, k, b)
  return true
}

/** Up to the next melody note the grips hold the finger where it pushes; false where one of them cannot. */
function push(page: OrnamentPage, to: number, k: number, stop: Pick<TabNote, 'place' | 'left'>): boolean {
  const at = page.gripAt(page.starts[to]!)
  const until = page.starts[page.melody[k + 1] ?? -1] ?? Infinity
  const moved: Grip[] = []
  for (let g = at; g >= 0 && g < page.grips.length && (g === at || page.gripStarts[g]! < until); g++) {
    const held = bentGrip(page.setup, stop, page.notes[to]!, page.grips[g]!)
    if (!held) return false
    moved.push(held)
  }
  moved.forEach((held, i) => (page.grips[at + i] = held))
  return moved.length > 0
}

/** After a bend the same note again is struck with the string still up; the note that it came from lets it back. */
function afterBend(page: OrnamentPage, bent: number, k: number, unbent: Unpicked): void {
  const { place, left, bend } = page.notes[bent]!
  let last = bent
  for (let j = k + 1; j < page.melody.length; j++) {
    const i = page.melody[j]!
    const note = page.notes[i]!
    const asked = page.asked.get(note.id)
    const goesOn =
      note.attack === 'pluck' &&
      !note.graces &&
      note.place.string === place.string &&
      page.starts[last]! + page.notes[last]!.dur.ticks === page.starts[i]!
    if (!goesOn) return
    if (note.place.fret === place.fret && note.left === left && asked !== 'pluck') {
      page.notes[i] = { ...note, attack: 'release' }
      page.span('release', page.notes[last]!, note)
      return
    }
    if (note.place.fret !== unbent.place.fret || !push(page, i, j, { place, left })) return
    page.notes[i] = { ...note, place, left, bend: present(bend) }
    last = i
  }
}

/** At the fullest density a short note under a long one, a step below on its string, is pushed up to it. */
function invitesBend(page: OrnamentPage, from: number, to: number): boolean {
  if (page.densityAt(to) < 3 || page.secondsOf(to) < GRACED_S) return false
  return isSlurTime(page.plan.secondsBetween(page.starts[from]!, page.starts[to]!))
}
