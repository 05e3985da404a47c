import { message } from '../messages/message.ts'
import { type PlayedNote } from './playedOrder.ts'
import type { FinishedTab } from './finishedTab.ts'
import type { Add } from './finding.ts'
import { harmonicsAtEnd, isLetGo } from './letGo.ts'
import { heldFor } from './heldFor.ts'

/** Two notes at once on a string, and notes ended early by the next one on their string or by their own finger. */
export function checkStrings(tab: FinishedTab, played: readonly PlayedNote[], add: Add): void {
  const end = harmonicsAtEnd(tab)
  const last = new Map<number, PlayedNote>()
  for (const p of played) {
    const before = last.get(p.note.string)
    if (before && before.at === p.at)
      add('stringClash', p.note.start, message('auditing.stringClash', { string: p.note.string }))
    else if (before && before.at + before.note.duration > p.at && !isLetGo(before.note, end))
      cutShort(before, p.at, add)
    last.set(p.note.string, p)
  }
  const held = new Map<string | number, PlayedNote>()
  for (const p of played) {
    const f = p.note.leftFinger
    if (f === 0) continue
    const before = held.get(f)?.note.harmonic ? undefined : held.get(f)
    const moved = before && before.note.fret !== p.note.fret
    const isOver = !before || isLetGo(before.note, end)
    if (!isOver && moved && before.at < p.at && before.at + before.note.duration > p.at)
      cutShort(before, p.at, add)
    held.set(f, p)
  }
  for (const n of tab.notes) {
    if (n.ring >= n.duration || n.role === 'melody' || isLetGo(n, end)) continue
    // Where the page was given each length is a wish of the teacher; the arranger's own inner notes end as the hand likes.
    if (n.role === 'bass' || tab.measures[n.measure]?.given)
      add(
        'bassCut',
        n.start,
        message(n.role === 'bass' ? 'auditing.bassStops' : 'auditing.innerStops', heldFor(n)),
        n.duration - n.ring,
      )
  }
}

function cutShort(p: PlayedNote, at: number, add: Add): void {
  const kind = p.note.role === 'melody' ? 'melodyCut' : 'bassCut'
  add(
    kind,
    p.note.start,
    message(p.note.role === 'melody' ? 'auditing.melodyCut' : 'auditing.noteCut', { string: p.note.string }),
    p.at + p.note.duration - at,
  )
}
