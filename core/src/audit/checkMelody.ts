import { groupBy } from 'es-toolkit'
import { message } from '../messages/message.ts'
import { type PlayedNote } from './playedOrder.ts'
import type { Ticks } from '../music/time/ticks.ts'
import type { FinishedTab, WrittenNote } from './finishedTab.ts'
import type { Add } from './finding.ts'
import { harmonicsAtEnd, isLetGo } from './letGo.ts'
import { heldFor, quarters } from './heldFor.ts'
import { noteName } from './noteName.ts'

/** The melody against its source: nothing missing, other, shorter or added. @returns notes that are kept as written */
export function checkMelody(tab: FinishedTab, add: Add): number {
  const melody = tab.notes.filter((n) => n.role === 'melody')
  const at = groupBy(melody, (n) => n.start)
  const end = harmonicsAtEnd(tab)
  let kept = 0
  for (const source of tab.source) {
    const note = at[source.start]?.shift()
    const wanted = source.midi + tab.transposed
    if (!note)
      add('melodyMissing', source.start, message('auditing.melodyMissing', { wanted: noteName(wanted) }))
    else if (note.midi !== wanted) {
      const values = { wanted: noteName(wanted), note: noteName(note.midi) }
      add('melodyWrong', source.start, message('auditing.melodyOther', values))
    } else if (note.duration !== source.duration) {
      const lengths = { wanted: quarters(source.duration), lasts: quarters(note.duration) }
      add(
        'melodyWrong',
        source.start,
        message('auditing.melodyLength', { note: noteName(note.midi), ...lengths }),
      )
    } else {
      kept++
      if (note.ring < note.duration && !isLetGo(note, end))
        add(
          'melodyCut',
          note.start,
          message('auditing.melodyStops', heldFor(note)),
          note.duration - note.ring,
        )
    }
  }
  for (const rest of Object.values(at))
    for (const n of rest) add('melodyExtra', n.start, message('auditing.melodyExtra'))
  return kept
}

/** At a melody onset nothing else that is struck or still written may lie above it. */
export function checkMasking(tab: FinishedTab, played: readonly PlayedNote[], add: Add): void {
  const isRest = restsIn(tab)
  let window: PlayedNote[] = []
  for (let i = 0; i < played.length;) {
    const at = played[i]!.at
    const struck: PlayedNote[] = []
    while (i < played.length && played[i]!.at === at) struck.push(played[i++]!)
    window = window.filter((p) => p.at + p.note.duration > at)
    for (const m of struck.filter((p) => p.note.role === 'melody')) {
      const mayLieAbove = tab.measures[m.note.measure]?.harmonyAbove || isRest(m.note)
      const above = [...window, ...struck].find(
        (p) =>
          p.note.role !== 'melody' &&
          p.note.midi >= m.note.midi &&
          !(mayLieAbove && p.note.role === 'harmony'),
      )
      if (above) add('melodyMasked', m.note.start, message('auditing.melodyMasked'))
    }
    window.push(...struck)
  }
}

/**
 * True for a melody note on which the music comes to rest: the tune's last one, and one that ends its measure as that does, on the
 * same note over the same chord. There the chord may be struck above it.
 */
function restsIn({ notes, chords }: FinishedTab): (note: WrittenNote) => boolean {
  const melody = notes.filter((n) => n.role === 'melody')
  const last = melody.reduce<WrittenNote | undefined>((a, b) => (a && a.start >= b.start ? a : b), undefined)
  const chordAt = (at: Ticks) => chords.findLast((c) => c.start <= at)?.symbol
  const closes = new Map<number, Ticks>()
  for (const n of notes) closes.set(n.measure, Math.max(n.start, closes.get(n.measure) ?? 0))
  return (note) =>
    last !== undefined &&
    (note.start === last.start ||
      (note.midi === last.midi &&
        closes.get(note.measure) === note.start &&
        chordAt(note.start) === chordAt(last.start)))
}
