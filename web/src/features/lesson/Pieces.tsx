import { tuneEffort, type MeasureEffort } from '@velvet-porch/core/hand'
import type { Piece } from '@velvet-porch/core/lesson'
import { useTranslation } from 'react-i18next'
import css from './Pieces.module.css'

/** A ceiling this many times over the goal is nobody's worry. */
const WORTH_SAYING = 2

/** The tune in pieces, in a row: what comes again says how it differs; the one at hand says its hardest measure. */
export function Pieces({
  effort,
  pieces,
  numbers,
  goalBpm,
  at,
  onPiece,
}: {
  effort: readonly MeasureEffort[]
  pieces: readonly Piece[]
  numbers: readonly number[]
  goalBpm: number
  at: Piece | undefined
  onPiece: (piece: Piece) => void
}) {
  const { t } = useTranslation()
  const range = (from: number, to: number) =>
    from === to ? String(numbers[from]) : `${numbers[from]}–${numbers[to]}`
  const pieceName = (p: Piece) =>
    [
      t(p.from === p.to ? 'teach.pieceOne' : 'teach.pieceMore', {
        number: p.number,
        measures: range(p.from, p.to),
      }),
      likeText(p),
    ]
      .filter(Boolean)
      .join('. ')
  const likeText = ({ like }: Piece) =>
    like
      ? like.differs.length === 0
        ? t('teach.same', { piece: like.piece })
        : t('teach.like', { piece: like.piece, list: like.differs.map((m) => numbers[m]).join(', ') })
      : ''
  const why = ({ parts: [main] }: MeasureEffort) =>
    main ? t(`effort.value.${main.part}`, { n: Number(main.value.toFixed(main.value < 10 ? 1 : 0)) }) : ''
  const { hardest } = tuneEffort(at ? effort.slice(at.from, at.to + 1) : [])
  return (
    <div className={css['teach-pieces']} data-pieces>
      <ol aria-label={t('teach.pieces')}>
        {pieces.map((p) => (
          <li key={p.number}>
            <button
              type="button"
              aria-current={p === at ? 'true' : undefined}
              title={likeText(p)}
              aria-label={pieceName(p)}
              onClick={() => onPiece(p)}
            >
              <b>{p.number}</b> {range(p.from, p.to)}
              {p.like ? (
                <span className="soft">
                  {' '}
                  {p.like.differs.length === 0 ? '=' : '≈'}
                  {p.like.piece}
                </span>
              ) : null}
            </button>
          </li>
        ))}
      </ol>
      <p className="soft" role="status">
        {at
          ? [
              likeText(at),
              hardest
                ? hardest.ceiling && hardest.ceiling.bpm < WORTH_SAYING * goalBpm
                  ? t('teach.hardestUpTo', {
                      measure: numbers[hardest.measure]!,
                      effort: hardest.effort.toFixed(1),
                      why: why(hardest),
                      bpm: hardest.ceiling.bpm,
                    })
                  : t('teach.hardest', {
                      measure: numbers[hardest.measure]!,
                      effort: hardest.effort.toFixed(1),
                      why: why(hardest),
                    })
                : '',
            ]
              .filter(Boolean)
              .join(' ')
          : ''}
      </p>
    </div>
  )
}
