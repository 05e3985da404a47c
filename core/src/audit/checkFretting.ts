import { message } from '../messages/message.ts'
import { spanOf } from '../instrument/hand.ts'
import { reach } from '../instrument/geometry.ts'
import { type PlayedNote } from './playedOrder.ts'
import type { FinishedTab, WrittenNote } from './finishedTab.ts'
import { HOP_LIMIT_S } from '../instrument/handLimits.ts'
import type { Add } from './finding.ts'

/** A harmonic's finger is free again as soon as the string sounds. */
const isReleased = (note: WrittenNote, struckAt: number, at: number) =>
  note.harmonic !== undefined && struckAt < at

/** Stretches, fingers on two frets at once, and crossed fingers, among notes that sound together. */
export function checkHand(tab: FinishedTab, played: readonly PlayedNote[], add: Add): number {
  let widest = 0
  let window: PlayedNote[] = []
  for (const p of played) {
    window = window.filter((w) => w.at + Math.min(w.note.duration, w.note.ring) > p.at)
    const b = p.note
    for (const w of window) {
      const a = w.note
      if (
        typeof a.leftFinger !== 'number' ||
        typeof b.leftFinger !== 'number' ||
        a.leftFinger === 0 ||
        b.leftFinger === 0 ||
        isReleased(a, w.at, p.at)
      )
        continue
      if (a.string === b.string) continue
      if (a.leftFinger === b.leftFinger) {
        if (a.fret !== b.fret)
          add(
            'fingerTwice',
            b.start,
            message('auditing.fingerTwice', { finger: b.leftFinger, from: a.fret, to: b.fret }),
          )
        else if ((a.harmonic === undefined) !== (b.harmonic === undefined))
          add('fingerTwice', b.start, message('auditing.touchAndPress', { finger: b.leftFinger }))
        continue
      }
      const [low, high] = a.leftFinger < b.leftFinger ? [a, b] : [b, a]
      if (low.fret > high.fret)
        add(
          'fingerOrder',
          b.start,
          message('auditing.fingerOrder', { low: low.leftFinger, high: high.leftFinger }),
        )
      const capo = tab.setup.capo
      const mm = reach(
        tab.setup.instrument,
        { string: a.string, fret: a.fret + capo[a.string - 1]! },
        { string: b.string, fret: b.fret + capo[b.string - 1]! },
      )
      widest = Math.max(widest, mm)
      const limit = spanOf(tab.setup.player.spans, a.leftFinger, b.leftFinger)
      if (mm > limit)
        add(
          'stretch',
          b.start,
          message('auditing.stretch', {
            low: low.leftFinger,
            high: high.leftFinger,
            mm: mm.toFixed(0),
            limit,
          }),
          mm,
        )
    }
    window.push(p)
  }
  return widest
}

/** One finger on two strings one after the other, faster than it can jump. */
export function checkHops(played: readonly PlayedNote[], add: Add): void {
  const last = new Map<string | number, PlayedNote>()
  for (const p of played) {
    const f = p.note.leftFinger
    // A bottleneck lies across all strings: it does not jump between them.
    if (f === 0 || p.note.technique === 'bottle') continue
    const before = last.get(f)
    if (
      before &&
      before.note.string !== p.note.string &&
      before.seconds < p.seconds &&
      p.seconds - before.seconds < HOP_LIMIT_S - 1e-6
    ) {
      const roll = before.note.fret === p.note.fret && Math.abs(before.note.string - p.note.string) === 1
      if (!roll)
        add(
          'hop',
          p.note.start,
          message('auditing.hop', {
            finger: f,
            from: before.note.string,
            to: p.note.string,
            seconds: (p.seconds - before.seconds).toFixed(2),
          }),
          p.seconds - before.seconds,
        )
    }
    last.set(f, p)
  }
}
