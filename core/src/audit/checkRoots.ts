import { message, type Message } from '../messages/message.ts'
import { mod12 } from '../music/pitch/pitch.ts'
import { type PlayedNote } from './playedOrder.ts'
import type { FinishedTab } from './finishedTab.ts'
import { heardBass, type HeardBass } from './heardBass.ts'
import type { Add } from './finding.ts'

/** Looks for the chord's bass note at the bottom of what sounds where each chord starts. */
export function checkRoots(
  tab: FinishedTab,
  played: readonly PlayedNote[],
  add: Add,
): { changes: number; kept: number } {
  let changes = 0
  let kept = 0
  for (const chord of tab.chords) {
    if (chord.bass === undefined || !chord.rootWanted) continue
    changes++
    const here = played.filter(
      (p) => p.note.start <= chord.start && p.note.start + p.note.duration > chord.start && p.pass === 1,
    )
    const bass = here.filter((p) => p.note.start === chord.start && p.note.role === 'bass')
    const lowest = [...(bass.length > 0 ? bass : here)].sort((a, b) => a.note.midi - b.note.midi)[0]
    if (lowest && mod12(lowest.note.midi) === chord.bass) {
      kept++
      continue
    }
    const heard = heardBass(
      here.map((p) => p.note.midi),
      chord,
    )
    const kind = bass.length > 0 ? 'wrongRoot' : 'noRoot'
    add(kind, chord.start, rootMessage(kind, chord.symbol, heard))
  }
  return { changes, kept }
}

function rootMessage(
  kind: 'wrongRoot' | 'noRoot',
  chord: string,
  heard: HeardBass | undefined,
): Message<'auditing'> {
  if (!heard) return message('auditing.rootSilent', { chord })
  const { bass, inChord } = heard
  if (inChord)
    return message(kind === 'noRoot' ? 'auditing.rootOther' : 'auditing.otherBass', { chord, bass })
  return message(kind === 'noRoot' ? 'auditing.rootForeign' : 'auditing.foreignBass', { chord, bass })
}
