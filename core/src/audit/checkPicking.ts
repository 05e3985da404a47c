import { message } from '../messages/message.ts'
import { type PickingSchool, type PickingSign } from '../instrument/hand.ts'
import { lastFret } from '../instrument/setup.ts'
import { type PlayedNote } from './playedOrder.ts'
import type { FinishedTab, WrittenNote } from './finishedTab.ts'
import { PICK_REPEAT_LIMIT_S } from '../instrument/handLimits.ts'
import type { Add } from './finding.ts'

const FINGER_ORDER: Readonly<Record<string, number>> = { p: 0, down: 0, i: 1, m: 2, a: 3 }
const isStroke = (sign: PickingSign) => sign === 'down' || sign === 'up'

/** Strings that one stroke, or the index of a thumb-and-index hand, must sound together: neighbours. */
function checkTogether(
  p: WrittenNote,
  q: WrittenNote,
  between: boolean,
  add: Add,
  school: PickingSchool,
): void {
  const same = p.rightFinger === q.rightFinger
  if (same && isStroke(p.rightFinger)) {
    // A brush passes over strings that the fretting hand damps.
    if (Math.abs(p.string - q.string) > 1 && !between && p.technique !== 'brush')
      add('pickGap', q.start, message('auditing.pickGap', { from: p.string, to: q.string }))
  } else if (same) {
    const brushes = p.rightFinger === 'i' && school === 'thumbAndIndex' && Math.abs(p.string - q.string) <= 2
    const sweeps = p.rightFinger === 'p' && Math.abs(p.string - q.string) === 1
    if (!brushes && !sweeps) add('pluckTwice', q.start, message('auditing.pickTwo', { sign: q.rightFinger }))
  } else {
    const order = (n: WrittenNote) => FINGER_ORDER[n.rightFinger] ?? 0
    if (p.rightFinger === 'up' || q.rightFinger === 'up')
      add('pluckTwice', q.start, message('auditing.strokesAtOnce'))
    else if ((p.string - q.string) * (order(p) - order(q)) > 0)
      add('pickCross', q.start, message('auditing.pickCross', { one: p.rightFinger, other: q.rightFinger }))
  }
}

/** The picking hand: one finger a string, fingers in order, none again too soon. */
export function checkPicking(tab: FinishedTab, played: readonly PlayedNote[], add: Add): void {
  const last = new Map<string, PlayedNote>()
  for (let i = 0; i < played.length;) {
    const at = played[i]!.at
    const struck: PlayedNote[] = []
    while (i < played.length && played[i]!.at === at) struck.push(played[i++]!)
    const touched = struck.find((p) => p.note.artificial)
    if (touched && struck.some((p) => p.note.rightFinger === 'i'))
      add('pluckTwice', touched.note.start, message('auditing.indexTouches'))
    if (touched && touched.note.fret + 12 > lastFret(tab.setup, touched.note.string))
      add('outsideNeck', touched.note.start, message('auditing.neckEnds', { fret: touched.note.fret + 12 }))
    struck.forEach((p, k) => {
      for (const q of struck.slice(k + 1)) {
        const between = struck.some(
          (b) => (b.note.string - p.note.string) * (b.note.string - q.note.string) < 0,
        )
        const school = tab.measures[p.note.measure]?.picking ?? tab.setup.player.school
        checkTogether(p.note, q.note, between, add, school)
      }
    })
    for (const p of struck) {
      const sign = p.note.rightFinger
      const before = last.get(sign)
      const lags = before && p.seconds > before.seconds && p.seconds - before.seconds < PICK_REPEAT_LIMIT_S
      if (lags && sign !== 'p' && !isStroke(sign))
        add(
          'pickRepeat',
          p.note.start,
          message('auditing.pickRepeat', { sign, seconds: (p.seconds - before.seconds).toFixed(2) }),
        )
    }
    for (const p of struck) last.set(p.note.rightFinger, p)
  }
}
