import { groupBy, omit } from 'es-toolkit'
import { isArrival, type TabNote } from '../../document/tab.ts'
import { lastFret, type Place, type Setup } from '../../instrument/setup.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import type { ShapeUnder } from './shapeUnder.ts'

/** A note of a figure at its time, and the shapes that it leaves and comes to. */
export interface FigureNote {
  readonly note: TabNote
  readonly at: Ticks
  readonly from: ShapeUnder
  readonly to: ShapeUnder
}

/**
 * A figure played on other shapes: basses keep their place beside the root, all else its string where the shape has it; a note beside
 * the shape stays as many frets beside it. What finds no string is left out.
 * @returns the notes with their new places, in order of time
 */
export function onShapes(figure: readonly FigureNote[], setup: Setup): TabNote[] {
  const moments = groupBy(figure, (f) => f.at)
  const made: { at: Ticks; from: number; note: TabNote }[] = []
  for (const moment of Object.values(moments).sort((a, b) => a[0]!.at - b[0]!.at)) {
    const taken = new Set<number>()
    // From the bass up: what is above makes way.
    for (const { note, at, from, to } of moment.toSorted(
      (a, b) => b.note.place.string - a.note.place.string,
    )) {
      const before = made.findLast((m) => m.from === note.place.string && m.at < at)
      const wanted =
        isArrival(note.attack) && !note.graces && before
          ? [before.note.place.string]
          : stringsFor(note.place.string, from, to, setup)
      const string = wanted.find((s) => !taken.has(s))
      if (string === undefined) continue
      taken.add(string)
      made.push({ at, from: note.place.string, note: placedOn(note, string, from, to, setup, before?.note) })
    }
  }
  return made.map((m) => m.note)
}

/** The lowest strings, which carry the bass. */
const firstBass = ({ instrument }: Setup): number => Math.ceil(instrument.strings / 2) + 1

/** Strings of the new shape for what was on a string of the old one, the likeliest first. */
function stringsFor(string: number, from: ShapeUnder, to: ShapeUnder, setup: Setup): number[] {
  const sounding = to.frets.flatMap((fret, i) => (fret === null ? [] : [i + 1]))
  const isBass = string >= firstBass(setup) || string === from.bass
  if (string === from.bass) return [to.bass, ...sounding.filter((s) => s < to.bass).reverse()]
  if (isBass) {
    const [step, low] = [from.bass - string, firstBass(setup) - 1]
    const others = sounding.filter((s) => s !== to.bass && s >= low)
    const distance = (s: number) =>
      Math.abs(to.bass - s - step) + (Math.sign(to.bass - s) === Math.sign(step) ? 0 : 3)
    return [...others.sort((a, b) => distance(a) - distance(b)), to.bass]
  }
  const upper = sounding.filter((s) => s < to.bass)
  return upper.sort((a, b) => Math.abs(a - string) - Math.abs(b - string) || a - b)
}

/** A note on a string of the new shape, as far beside it as it was beside the old one, played as it can be played there. */
function placedOn(
  note: TabNote,
  string: number,
  from: ShapeUnder,
  to: ShapeUnder,
  setup: Setup,
  before: TabNote | undefined,
): TabNote {
  const old = from.frets[note.place.string - 1]
  const home = to.frets[string - 1] ?? 0
  const last = lastFret(setup, string)
  const fretOf = (place: Place) => {
    const wanted = old === null || old === undefined ? home : home + place.fret - old
    return wanted >= 0 && wanted <= last ? wanted : undefined
  }
  const bare = omit(note, ['graces'])
  const sound = note.place.harmonic !== undefined || note.place.artificial === true
  const place: Place = sound ? { ...note.place, string } : { string, fret: fretOf(note.place) ?? home }
  const graces = (note.graces ?? []).flatMap((g) => {
    const fret = fretOf(g.place)
    return fret === undefined || fret === place.fret
      ? []
      : [{ ...g, left: 0 as const, place: { ...g.place, string, fret } }]
  })
  const kept: TabNote = { ...bare, place, left: 0, ...(graces.length > 0 ? { graces } : {}) }
  const reached =
    graces.at(-1)?.place.fret ?? (before?.place.string === string ? before.place.fret : undefined)
  if (!isArrival(note.attack) || canArrive(note.attack, reached, place.fret)) return kept
  return { ...omit(kept, ['bend']), attack: 'pluck', right: before?.right ?? note.right }
}

/** True where the fretting hand can sound a fret from another in this way. */
function canArrive(attack: TabNote['attack'], from: number | undefined, to: number): boolean {
  if (from === undefined) return false
  if (attack === 'hammer') return to > from
  if (attack === 'pull') return to < from
  if (attack === 'slide') return to !== from && to > 0 && from > 0
  return to === from && to > 0
}
