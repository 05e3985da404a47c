import type { Timeline } from '../../document/form/timeline.ts'
import type { Layer } from '../../document/arrangement.ts'
import type { TabNote } from '../../document/tab.ts'
import { withoutNotes } from './placed.ts'

/** A tab as it is played by somebody who leaves out all that may be left out: notes, and short notes before others. */
export function withoutOptional(layer: Layer, timeline: Timeline): Layer {
  const notes = layer.notes.map(withoutGraces)
  return withoutNotes({ ...layer, notes }, (n) => n.optional, timeline)
}

function withoutGraces(note: TabNote): TabNote {
  if (!note.graces?.some((g) => g.optional)) return note
  const { graces, ...plain } = note
  const kept = graces.filter((g) => !g.optional)
  return kept.length > 0 ? { ...plain, graces: kept } : { ...plain, attack: 'pluck' }
}
