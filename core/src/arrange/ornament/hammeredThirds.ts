import { openPitch } from '../../instrument/setup.ts'
import { scaleOf } from '../../music/pitch/key.ts'
import { mod12, pitchClass } from '../../music/pitch/pitch.ts'
import { beatLength } from '../../music/time/metre.ts'
import { eachInTurns, type Turns } from '../../turns.ts'
import { graceChain } from './graceChain.ts'
import { hasIdiom } from './idioms.ts'
import type { OrnamentPage } from './ornamentPage.ts'

/** The third stands within two frets of its open string. */
const HIGHEST_FRET = 2

/** A note that is hammered on lasts so long (seconds) at least. No source. */
const LEAST_S = 0.2

/** Measures from one hammered third to the next, at least: more would be a manner. No source. */
const MEASURES_APART = 2

/**
 * In the first beat of a chord its third is hammered on from the open string, among the notes under the tune: from the note of the key
 * below it, or from the minor third to the major.
 */
export function* addHammeredThirds(page: OrnamentPage): Turns<void> {
  let last = -MEASURES_APART
  const order = page.notes.map((_, i) => i).sort((a, b) => page.starts[a]! - page.starts[b]!)
  yield* eachInTurns(order, (i) => {
    const m = page.measureOf(i)
    if (m - last < MEASURES_APART || !isThird(page, i)) return
    const note = page.notes[i]!
    const at = page.gripAt(page.starts[i]!)
    const before = page.gripAt(page.starts[i]! - 1)
    // The string rings open before: no finger comes off it for this.
    const isFree = before < 0 || page.grips[before]!.pressed.every((p) => p.string !== note.place.string)
    if (at < 0 || !isFree) return
    const chain = graceChain(page.setup, note, page.grips[at]!, [openPitch(page.setup, note.place.string)])
    if (chain?.attack !== 'hammer') return
    page.grips[at] = chain.grip
    const graces = chain.graces.map((g) => ({ ...g, optional: true as const }))
    page.notes[i] = { ...note, graces, attack: chain.attack }
    last = m
  })
}

/** True for a note under the tune that is its chord's third, new with the chord, a step over its open string. */
function isThird(page: OrnamentPage, i: number): boolean {
  const { role, place, attack, graces, id } = page.notes[i]!
  if (!hasIdiom(page, i, 'hammeredThird') || role === 'melody' || attack !== 'pluck' || graces) return false
  if (place.harmonic || place.fret < 1 || place.fret > HIGHEST_FRET || page.asked.has(id)) return false
  // Where the music comes to rest the chord is struck as one.
  const start = page.starts[i]!
  const rests = page.plan.endings.some((e) => start >= e.at && start < e.until)
  if (page.secondsOf(i) < LEAST_S || rests) return false
  const segment = page.plan.harmony.find((h) => h.start <= start && h.end > start)
  const measure = page.tune.measures[page.measureOf(i)]!
  if (!segment?.sounding || start - segment.start >= beatLength(measure.metre)) return false
  const open = openPitch(page.setup, place.string)
  const third = mod12(open + place.fret - pitchClass(segment.sounding.root))
  const fromMinor = third === 4 && place.fret === 1
  return (
    (third === 3 || third === 4) &&
    (fromMinor || scaleOf(page.plan.keys[page.measureOf(i)]!).includes(mod12(open)))
  )
}
