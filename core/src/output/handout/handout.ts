import { USUAL_PAPER_LAYERS, type PaperLayers } from '../engrave/tabPage.ts'
import type { Id } from '../../document/ids.ts'
import { USUAL_LESSON, type LessonSettings } from '../../lesson/text/lessonSettings.ts'

export const HANDOUT_SCHEMA = 1

/** What a handout is composed of. */
export const BLOCK_KINDS = [
  'title',
  'setup',
  'shapes',
  'frames',
  'tab',
  'steps',
  'drills',
  'plan',
  'form',
  'lyrics',
  'partner',
  'notes',
] as const
export type BlockKind = (typeof BLOCK_KINDS)[number]

export interface Block {
  readonly id: Id
  readonly kind: BlockKind
  /** Measures by index, both ends included, for tab and steps; absent: all. */
  readonly from?: number
  readonly to?: number
  /** Counts beneath what is struck, for frames. */
  readonly counts?: boolean
  /** What the teacher writes, for notes. */
  readonly text?: string
}

export const PAPERS = ['a4', 'letter'] as const
export type Paper = (typeof PAPERS)[number]

/** A handout as it is kept. */
export interface HandoutDoc {
  readonly schema: typeof HANDOUT_SCHEMA
  /** The tune's. */
  readonly id: Id
  readonly paper: Paper
  /** Large print, for a music stand or weak eyes. */
  readonly large: boolean
  readonly layers: PaperLayers
  readonly settings: LessonSettings
  readonly blocks: readonly Block[]
}

/** Letters of a teacher's notes at most. */
export const LONGEST_NOTES = 2000

/** What most teachers hand out of a tune: title, capo and tuning, shapes, the tab, how to practise it. */
const OF_A_TUNE = ['title', 'setup', 'shapes', 'tab', 'plan'] as const

/** And of a song: its words with the chords instead. */
const OF_A_SONG = ['title', 'setup', 'shapes', 'lyrics'] as const

/** @param song true for a tune that is words with chords and no melody */
export const usualHandout = (id: Id, song = false): HandoutDoc => ({
  schema: HANDOUT_SCHEMA,
  id,
  paper: 'a4',
  large: false,
  layers: USUAL_PAPER_LAYERS,
  settings: USUAL_LESSON,
  blocks: (song ? OF_A_SONG : OF_A_TUNE).map((kind) => ({ id: kind, kind })),
})

/** Sheets of paper in px (1/96 inch), and the margin on every side. */
export const PAPER_PX: Readonly<Record<Paper, { readonly width: number; readonly height: number }>> = {
  a4: { width: 793.7, height: 1122.5 },
  letter: { width: 816, height: 1056 },
}
export const MARGIN_PX = 53
/** Height of the line at the foot of a page. */
export const FOOT_PX = 22

/** By how much large print is larger. */
export const LARGE = 1.4

export const printScale = ({ large }: Pick<HandoutDoc, 'large'>): number => (large ? LARGE : 1)
