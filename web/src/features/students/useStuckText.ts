import type { StuckPiece } from '@velvet-porch/core/studio'
import { useTranslation } from 'react-i18next'
import { useDayWords } from './useDayWords.ts'
import type { StudiedTune } from './useStudies.ts'

/** Where somebody does not get on, in words. */
export function useStuckText() {
  const { t } = useTranslation()
  const { dayText } = useDayWords()
  return ({ title, pieceName }: StudiedTune, { piece, bpm, sessions, since }: StuckPiece): string =>
    t(bpm === 0 ? 'studio.stuckNever' : 'studio.stuckAt', {
      title,
      piece: pieceName(piece),
      bpm,
      sessions,
      day: dayText(since),
    })
}
