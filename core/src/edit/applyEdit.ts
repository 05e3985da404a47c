import { writeAbc } from '../output/abc/writeAbc.ts'
import { withCuts } from '../document/form/cutMeasures.ts'
import type { TuneDoc } from '../document/tune.ts'
import { isFresh, madeFresh } from '../document/freshness/fresh.ts'
import {
  MELODY_EDITS,
  SONG_EDITS,
  TAB_EDITS,
  type EditCommand,
  type Edited,
  type MelodyEdit,
  type SongEdit,
  type TabEdit,
} from './edited.ts'
import type { Score } from '../document/score.ts'
import { writeFigure } from './figure/figure.ts'
import { editForm } from './form.ts'
import { editMeasures } from './measures.ts'
import { editMelody } from './melody.ts'
import { editSong } from './song.ts'
import { editTab } from './tab.ts'
import { tidyTab } from './tidyTab.ts'

/** Edits after which the tab is still an answer to the tune: both were written together. */
const TOGETHER: ReadonlySet<EditCommand['do']> = new Set([
  ...TAB_EDITS,
  'tie',
  'triplet',
  'rhythm',
  'insert',
  'delete',
  'paste',
  'move',
  'figure',
  'pickup',
  'cut',
  'section',
  'provenance',
  'writeOut',
])

const isMelodyEdit = (edit: EditCommand): edit is MelodyEdit =>
  (MELODY_EDITS as readonly string[]).includes(edit.do)
const isSongEdit = (edit: EditCommand): edit is SongEdit =>
  (SONG_EDITS as readonly string[]).includes(edit.do)
const isTabEdit = (edit: EditCommand): edit is TabEdit => (TAB_EDITS as readonly string[]).includes(edit.do)

/**
 * Writes one thing on the sheet by hand: the tune, its text and its tab change together, or nothing does.
 * @returns the score after it, or why it cannot be, with the nearest thing that can
 * @example applyEdit({ tune }, { do: 'insert', before: 4, count: 2 })
 */
export function applyEdit(score: Score, edit: EditCommand): Edited {
  const edited = dispatched(score, edit)
  if (!edited.ok) return edited
  const { arrangement: tab } = edited.score
  const measures = withCuts(edited.score.tune.measures)
  const tune =
    measures === edited.score.tune.measures ? edited.score.tune : { ...edited.score.tune, measures }
  const written = tune === score.tune ? tune : withText(tune)
  // An edit of the tab leaves it tidy.
  const arrangement = tab && tune !== score.tune && !isTabEdit(edit) ? tidyTab(tune, tab) : tab
  if (!arrangement) return { ok: true, score: { tune: written } }
  const wasFresh = score.arrangement !== undefined && isFresh(score.tune, score.arrangement)
  const kept = wasFresh && TOGETHER.has(edit.do) ? madeFresh(written, arrangement) : arrangement
  return { ok: true, score: { tune: written, arrangement: kept } }
}

function dispatched(score: Score, edit: EditCommand): Edited {
  if (isMelodyEdit(edit)) return editMelody(score, edit)
  if (isTabEdit(edit)) return editTab(score, edit)
  if (isSongEdit(edit)) return editSong(score, edit)
  switch (edit.do) {
    case 'figure':
      return writeFigure(score, edit)
    case 'insert':
    case 'delete':
    case 'paste':
    case 'move':
    case 'metre':
    case 'key':
    case 'tempo':
    case 'pickup':
    case 'cut':
      return editMeasures(score, edit)
    default:
      return editForm(score, edit)
  }
}

const withText = (tune: TuneDoc): TuneDoc => ({
  ...tune,
  abc: { text: writeAbc(tune, tune.abc?.text), spans: [] },
})
