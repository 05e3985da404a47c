import type { TabNote } from './tab.ts'

/** The rolled notes of some measure, moment by moment. */
export function rolledChords(notes: readonly TabNote[]): TabNote[][] {
  const chords = new Map<number, TabNote[]>()
  for (const n of notes) {
    if (!n.rolled) continue
    const chord = chords.get(n.pos.tick)
    if (chord) chord.push(n)
    else chords.set(n.pos.tick, [n])
  }
  return [...chords.values()]
}
