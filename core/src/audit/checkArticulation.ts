import { hasSlideRoom, SLIDE_MARKS } from '../document/marks.ts'
import { lastFret } from '../instrument/setup.ts'
import { bendRange } from '../instrument/stringBend.ts'
import { message } from '../messages/message.ts'
import { type PlayedNote } from './playedOrder.ts'
import type { FinishedTab } from './finishedTab.ts'
import { arrivalFaults, isArrivalNote } from './arrivals.ts'
import type { Add } from './finding.ts'

/** How notes are sounded: arrivals, bends, slides, and that each is sounded at all. */
export function checkArticulation(tab: FinishedTab, played: readonly PlayedNote[], add: Add): void {
  for (const { note, fault } of arrivalFaults(played, tab.grips)) add(fault.kind, note.start, fault.says)
  for (const n of tab.notes) {
    if (n.bend) {
      const { easy, most } = n.leftFinger === 0 ? { easy: 0, most: 0 } : bendRange(tab.setup, n)
      const values = { string: n.string, fret: n.fret, semitones: n.bend }
      if (n.bend > most) add('bendRoom', n.start, message('auditing.bendRoom', values))
      else if (n.bend > easy) add('bendHard', n.start, message('auditing.bendHard', values), n.bend)
    }
    const slide = SLIDE_MARKS.find((m) => n[m])
    if (slide !== undefined && !hasSlideRoom(slide, n, lastFret(tab.setup, n.string)))
      add('arrivalFrom', n.start, message('auditing.noSlide', { string: n.string, fret: n.fret }))
    if ((n.slideFromBelow ?? n.slideFromAbove) && n.rightFinger === 'none')
      add('arrivalFrom', n.start, message('auditing.slideNotStruck', { string: n.string }))
    if (n.rightFinger === 'none' && !isArrivalNote(n))
      add('pluckTwice', n.start, message('auditing.notSounded', { string: n.string }))
  }
}
