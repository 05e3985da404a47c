import { hasSlideRoom } from '../../document/marks.ts'
import { lastFret } from '../../instrument/setup.ts'
import { inFullMeasure, strongBeats } from '../../music/time/metre.ts'
import { hasIdiom } from './idioms.ts'
import type { OrnamentPage } from './ornamentPage.ts'

/** A note that is slid into lasts so long (seconds), and lies so high, at least. No source. */
const LEAST_S = 1
const LEAST_FRET = 3

/** Measures from one slide to the next, at least. No source. */
const MEASURES_APART = 4

/** Long notes of the tune on strong beats are slid into from below, by a finger that lies on no other string. */
export function addSlidesIn(page: OrnamentPage): void {
  let last = -MEASURES_APART
  for (const [k, i] of page.melody.entries()) {
    const note = page.notes[i]!
    const m = page.measureOf(i)
    if (!hasIdiom(page, i, 'slideIn') || page.regionOf(i)?.without?.includes('slides')) continue
    const { place, attack, graces, bend, left, id } = note
    const measure = page.tune.measures[m]!
    const before = page.notes[page.melody[k - 1] ?? -1]
    const grip = page.grips[page.gripAt(page.starts[i]!)]
    const isStrong = strongBeats(measure.metre).includes(inFullMeasure(measure, note.pos.tick))
    const isPlain = attack === 'pluck' && !graces && !bend && !page.asked.has(id)
    const isAlone = grip?.pressed.every((p) => p.finger !== left || p.string === place.string) === true
    const isNew = before?.place.string !== place.string || before.place.fret !== place.fret
    if (
      m - last >= MEASURES_APART &&
      isStrong &&
      isPlain &&
      isAlone &&
      isNew &&
      left !== 0 &&
      place.fret >= LEAST_FRET &&
      page.secondsOf(i) >= LEAST_S &&
      hasSlideRoom('slideFromBelow', place, lastFret(page.setup, place.string))
    ) {
      page.notes[i] = { ...note, slideFromBelow: true }
      last = m
    }
  }
}
