import { Button, Textarea } from '@mantine/core'
import type { ArrangementDoc } from '@velvet-porch/core/document'
import { pieceWords, recipeIn, type Lesson, type Piece } from '@velvet-porch/core/lesson'
import { noteKey } from '@velvet-porch/core/output/handout'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { PlayerRow } from '../../state/db.ts'
import { keepPieceNote } from '../../state/teaching.ts'
import { EasierHere, type Instead } from './EasierHere.tsx'
import lessonCss from './lesson.module.css'
import css from './PieceView.module.css'

/** One piece: what is other than in the piece it is like, how it is practised, easier versions, the teacher's words to it. */
export function PieceView({
  lesson,
  piece,
  notes,
  taught,
  student,
  instead,
  onInstead,
  onTempo,
}: {
  lesson: Lesson
  piece: Piece
  notes: Readonly<Record<string, string>>
  /** As it is taught with nothing in place of it. */
  taught: ArrangementDoc
  student: PlayerRow | undefined
  instead: Instead | undefined
  onInstead: (version: Instead | undefined) => void
  /** Plays the piece in a loop at a tempo. */
  onTempo: (bpm: number) => void
}) {
  const { t } = useTranslation()
  const { tune } = lesson
  const { tempos, ceiling } = recipeIn(lesson, piece)
  const { title, like, differences, recipe, odd } = pieceWords(lesson, piece)
  return (
    <div className={lessonCss['teach-view']} data-testid="piece">
      <h2>{title}</h2>
      {like ? <p>{like}</p> : null}
      {differences.length > 0 ? (
        <ul>
          {differences.map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
      ) : null}
      {recipe.map((text) => (
        <p key={text}>{text}.</p>
      ))}
      <p className={css['teach-tempos']} role="group" aria-label={t('teach.tempos')}>
        {tempos.map((bpm) => (
          <Button
            key={bpm}
            size="compact-sm"
            variant={ceiling && bpm > ceiling.bpm ? 'default' : 'light'}
            onClick={() => onTempo(bpm)}
          >
            {t('teach.bpm', { bpm })}
          </Button>
        ))}
      </p>
      {odd.map((text) => (
        <p key={text}>{text}.</p>
      ))}
      <EasierHere
        tune={tune}
        doc={taught}
        range={piece}
        student={student}
        instead={instead}
        onInstead={onInstead}
      />
      <PieceNote key={noteKey(tune, piece)} tuneId={tune.id} piece={noteKey(tune, piece)} kept={notes} />
    </div>
  )
}

function PieceNote({
  tuneId,
  piece,
  kept,
}: {
  tuneId: string
  piece: string
  kept: Readonly<Record<string, string>>
}) {
  const { t } = useTranslation()
  const [typed, setTyped] = useState<string>()
  return (
    <Textarea
      label={t('teach.note')}
      autosize
      minRows={2}
      maxLength={1000}
      value={typed ?? kept[piece] ?? ''}
      onChange={(e) => {
        setTyped(e.currentTarget.value)
        void keepPieceNote(tuneId, piece, e.currentTarget.value)
      }}
    />
  )
}
