import { message } from '../messages/message.ts'
import { lastFret, pitchAt } from '../instrument/setup.ts'
import { measureAtTick } from './playedOrder.ts'
import type { FinishedTab } from './finishedTab.ts'
import type { Add } from './finding.ts'
import { noteName } from './noteName.ts'

/** Each note on the neck, at its pitch, under a finger where it is fretted, inside its measure. */
export function checkPlaces(tab: FinishedTab, add: Add): void {
  for (const n of tab.notes) {
    const onNeck =
      n.string >= 1 &&
      n.string <= tab.setup.instrument.strings &&
      n.fret >= 0 &&
      n.fret <= lastFret(tab.setup, n.string)
    if (!onNeck)
      add('outsideNeck', n.start, message('auditing.notOnNeck', { string: n.string, fret: n.fret }))
    else if (pitchAt(tab.setup, n) + (n.bend ?? 0) !== n.midi) {
      add(
        'wrongPitch',
        n.start,
        message('auditing.otherPitch', {
          string: n.string,
          fret: n.fret,
          heard: noteName(pitchAt(tab.setup, n) + (n.bend ?? 0)),
          written: noteName(n.midi),
        }),
      )
    }
    if ((n.fret === 0) !== (n.leftFinger === 0))
      add(
        'outsideNeck',
        n.start,
        message('auditing.openFinger', { string: n.string, fret: n.fret, finger: n.leftFinger }),
      )
    const measure = tab.measures[measureAtTick(tab, n.start)]
    if (!measure || n.start >= measure.start + measure.length || n.duration <= 0)
      add('outsideMeasure', n.start, message('auditing.outsideMeasure'))
  }
}
