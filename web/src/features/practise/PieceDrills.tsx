import { isInPiece, type Lesson, type Piece } from '@velvet-porch/core/lesson'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { DrillsView } from '../lesson/DrillsView.tsx'
import css from './practise.module.css'

/** Drills for the hard changes of the piece at hand, unfolded where it is practised; nothing where none is hard. */
export function PieceDrills({ lesson, piece }: { lesson: Lesson; piece: Piece }) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  const own = useMemo(
    () => ({ ...lesson, spots: lesson.spots.filter((s) => isInPiece(piece, s)) }),
    [lesson, piece],
  )
  if (own.spots.length === 0) return null
  return (
    <details
      className={css['practise-recording']}
      data-testid="piece-drills"
      onToggle={(e) => setOpen(e.currentTarget.open)}
    >
      <summary>{t('practise.pieceDrills')}</summary>
      {open ? <DrillsView lesson={own} onPosition={() => undefined} /> : null}
    </details>
  )
}
