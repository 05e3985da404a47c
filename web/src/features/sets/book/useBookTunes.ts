import { isSongAlone } from '@velvet-porch/core/document'
import { lessonOf, type PaperWords } from '@velvet-porch/core/lesson'
import {
  handoutPieces,
  usualHandout,
  type BlockKind,
  type HandoutDoc,
  type PaperPiece,
} from '@velvet-porch/core/output/handout'
import type { SetList } from '@velvet-porch/core/studio'
import { useMemo } from 'react'
import { db } from '../../../state/db.ts'
import { currentPrefs } from '../../../state/prefs.ts'
import { arrangementId } from '../../../state/shelf.ts'
import { useOneByOne } from '../../../ui/useOneByOne.ts'

/** How a book is printed. */
export type BookPaper = Pick<HandoutDoc, 'paper' | 'large'>

/** The pages of one tune; without pieces where it has no tab. */
export interface SetPages {
  readonly id: string
  readonly pieces: readonly PaperPiece[]
  readonly words: PaperWords | undefined
}

/** What a player needs of a tune at a gig; how to practise it stays at home. */
const ON_STAGE: ReadonlySet<BlockKind> = new Set(['title', 'setup', 'shapes', 'tab', 'lyrics'])

/** The pages of each tune of a set, made one after the other; undefined until all are there. */
export function useBookTunes(set: SetList | undefined, paper: BookPaper): readonly SetPages[] | undefined {
  const { paper: sheet, large } = paper
  const ids = useMemo(() => set?.items.map((item) => item.tuneId), [set])
  const pagesOf = useMemo(() => (id: string) => setPages(id, { paper: sheet, large }), [sheet, large])
  return useOneByOne(ids, pagesOf)
}

async function setPages(id: string, paper: BookPaper): Promise<SetPages> {
  const [tune, doc] = await Promise.all([db.tunes.get(id), db.arrangements.get(arrangementId(id))])
  if (!tune || !doc) return { id, pieces: [], words: undefined }
  const usual = usualHandout(id, isSongAlone(tune))
  const { lesson: settings } = currentPrefs()
  const handout: HandoutDoc = {
    ...usual,
    ...paper,
    settings,
    blocks: usual.blocks.filter((b) => ON_STAGE.has(b.kind)),
  }
  const lesson = lessonOf(tune, doc, settings)
  return { id, pieces: handoutPieces(handout, lesson), words: lesson.phrasing.paper }
}
