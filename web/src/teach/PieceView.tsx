import { Anchor, Button, Textarea } from '@mantine/core'
import {
  differencesIn,
  differenceText,
  oddSlowly,
  pieceText,
  recipeIn,
  recipeText,
  type Lesson,
  type Piece,
} from '@velvet-porch/core'
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
  const { saying, tune, doc } = lesson
  const recipe = recipeIn(lesson, piece)
  const { differs, odd } = saying.paper
  const like = piece.like
  const differences = differencesIn(lesson, piece)
  const own = doc.variants.filter((v) =>
    tune.measures.slice(piece.from, piece.to + 1).some((m) => v.measures.includes(m.id)),
  )
  return (
    <div className="teach-view" data-testid="piece">
      <h2>{pieceText(piece, saying)}</h2>
      {like ? (
        <p>
          {(like.differs.length === 0 ? differs.same : differs.like).replace('{piece}', String(like.piece))}
        </p>
      ) : null}
      {differences.length > 0 ? (
        <ul>
          {differences.map((d) => (
            <li key={`${d.measure} ${d.tick} ${d.string} ${d.kind}`}>{differenceText(d, saying)}</li>
          ))}
        </ul>
      ) : null}
      {recipeText(recipe, saying).map((text) => (
        <p key={text}>{text}.</p>
      ))}
      <p className="teach-ladder" role="group" aria-label={t('teach.ladder')}>
        {recipe.ladder.map((bpm) => (
          <Button
            key={bpm}
            size="compact-sm"
            variant={recipe.ceiling && bpm > recipe.ceiling.bpm ? 'default' : 'light'}
            onClick={() => onTempo(bpm)}
          >
            {t('teach.rung', { bpm })}
          </Button>
        ))}
      </p>
      {oddSlowly(tune, doc, piece).map((o) => (
        <p key={o}>{odd[o]}.</p>
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
