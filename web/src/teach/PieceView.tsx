import { Anchor, Button, Textarea } from '@mantine/core'
import { pieceWords, recipeIn, type Lesson, type Piece } from '@velvet-porch/core'
import { noteKey } from '@velvet-porch/core/paper'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { keepPieceNote } from '../store/teaching.ts'

/** One piece: what is other than in the piece it is like, how it is practised, what the teacher says to it. */
export function PieceView({
  lesson,
  piece,
  notes,
  onTempo,
}: {
  lesson: Lesson
  piece: Piece
  notes: Readonly<Record<string, string>>
  /** Plays the piece in a loop at a tempo. */
  onTempo: (bpm: number) => void
}) {
  const { t } = useTranslation()
  const { tune, doc } = lesson
  const { ladder, ceiling } = recipeIn(lesson, piece)
  const { title, like, differences, recipe, odd } = pieceWords(lesson, piece)
  const own = doc.variants.filter((v) =>
    tune.measures.slice(piece.from, piece.to + 1).some((m) => v.measures.includes(m.id)),
  )
  return (
    <div className="teach-view" data-testid="piece">
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
      <p className="teach-ladder" role="group" aria-label={t('teach.ladder')}>
        {ladder.map((bpm) => (
          <Button
            key={bpm}
            size="compact-sm"
            variant={ceiling && bpm > ceiling.bpm ? 'default' : 'light'}
            onClick={() => onTempo(bpm)}
          >
            {t('teach.rung', { bpm })}
          </Button>
        ))}
      </p>
      {odd.map((text) => (
        <p key={text}>{text}.</p>
      ))}
      <p>
        {own.length > 0 ? `${t('teach.easierThere', { names: own.map((v) => v.name).join(', ') })} ` : null}
        <Anchor component={Link} to={`/tunes/${tune.id}/arrange?from=${piece.from}&to=${piece.to}`}>
          {t('teach.easier')}
        </Anchor>
      </p>
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
