import { openPitch } from '../../instrument/setup.ts'
import { scaleOf, type Key } from '../../music/pitch/key.ts'
import { mod12 } from '../../music/pitch/pitch.ts'
import { inFullMeasure, strongBeats } from '../../music/time/metre.ts'
import { eachInTurns, type Turns } from '../../turns.ts'
import { isTouched } from './arrival.ts'
import { graceChain } from './graceChain.ts'
import type { OrnamentPage } from './ornamentPage.ts'
import { sourceGraces } from './sourceOrnaments.ts'
import { GRACE_S, GRACED_S } from './usualTimes.ts'

/** Seconds that a note keeps at least behind its short notes. Common practice, no source. */
const LEAST_LEFT_S = 0.09

/** A stopped note of this many seconds and more trembles at the fullest density. No source. */
const VIBRATO_S = 0.9

/** Short notes before those that have them in the source, or get them at the fullest density. */
export function* addGraces(page: OrnamentPage): Turns<void> {
  yield* eachInTurns(page.melody, (i) => {
    const note = page.notes[i]!
    const event = note.sourceId === undefined ? undefined : page.events.get(note.sourceId)
    if (!event) return
    const density = page.densityAt(i)
    const key = page.plan.keys[page.measureOf(i)]!
    const wanted = sourceGraces(event, key, page.plan.transposed)
    if (note.bend) {
      // The finger is on its way up the string.
      if (wanted.length > 0) page.leave(i, 'noRoom')
      return
    }
    const pitches = wanted.length > 0 || density < 3 ? wanted : unaskedGrace(page, i, key)
    if (pitches.length === 0) return
    if (wanted.length > 0 && density === 0) {
      page.leave(i, 'none')
      return
    }
    const seconds = page.secondsOf(i)
    if (seconds - pitches.length * GRACE_S < LEAST_LEFT_S) {
      if (wanted.length > 0) page.leave(i, 'tooFast')
      return
    }
    const at = page.gripAt(page.starts[i]!)
    const chain = at < 0 ? undefined : graceChain(page.setup, note, page.grips[at]!, pitches)
    if (!chain) {
      if (wanted.length > 0) page.leave(i, 'noRoom')
      return
    }
    page.grips[at] = chain.grip
    // What the source has not may be left out.
    const graces =
      wanted.length > 0 ? chain.graces : chain.graces.map((g) => ({ ...g, optional: true as const }))
    page.notes[i] = { ...note, graces, attack: chain.attack }
  })
}

/** At the fullest density a long note on a strong beat is hammered on from the step below it. */
function unaskedGrace(page: OrnamentPage, i: number, key: Key): number[] {
  const note = page.notes[i]!
  const measure = page.tune.measures[page.measureOf(i)]!
  const strong = strongBeats(measure.metre).includes(inFullMeasure(measure, note.pos.tick))
  if (!strong || note.place.fret === 0 || isTouched(note.place) || page.secondsOf(i) < GRACED_S) return []
  const scale = scaleOf(key)
  const open = openPitch(page.setup, note.place.string)
  for (let fret = note.place.fret - 1; fret >= Math.max(0, note.place.fret - 2); fret--)
    if (scale.includes(mod12(open + fret))) return [open + fret]
  return []
}

/** At the fullest density long stopped notes tremble. */
export function addVibrato(page: OrnamentPage): void {
  for (const i of page.melody) {
    const note = page.notes[i]!
    if (page.densityAt(i) < 3 || note.place.fret === 0 || isTouched(note.place) || note.attack === 'tremolo')
      continue
    if (page.secondsOf(i) >= VIBRATO_S) page.notes[i] = { ...note, vibrato: true }
  }
}
