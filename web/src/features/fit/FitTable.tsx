import { Button } from '@mantine/core'
import { HIGHEST_CAPO, type FitOption } from '@velvet-porch/core/arrange'
import { memo, useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import type { FitWords } from './useFitWords.ts'
import css from './FitTable.module.css'
import { alongSeries } from '../../ui/alongSeries.ts'

interface Props {
  readonly options: readonly FitOption[]
  readonly best: ReadonlySet<string>
  readonly numbers: readonly number[]
  readonly chosen: string | undefined
  readonly onChoose: (id: string) => void
  /** The row under the pointer, undefined where it has left the table. */
  readonly onHover: (id: string | undefined) => void
  readonly words: FitWords
  readonly sings: boolean
  /** How many options stand below the last row, and what shows more of them. */
  readonly further: number
  readonly onMore: () => void
}

const COLUMNS = [
  'tuning',
  'capo',
  'sounds',
  'shapes',
  'effort',
  'stretch',
  'barres',
  'roots',
  'room',
  'octave',
  'voice',
  'away',
  'retune',
] as const
type Column = (typeof COLUMNS)[number]

/** The options as rows, best trade-offs first; each figure says in its head where it comes from. */
export const FitTable = memo(function FitTable(props: Props) {
  const { options, best, numbers, chosen, onChoose, onHover, words, sings, further, onMore } = props
  const { t } = useTranslation()
  const plays = options.some((o) => o.figures.room !== undefined)
  const columns = useMemo(
    () => COLUMNS.filter((c) => (c === 'voice' ? sings : c === 'room' || c === 'octave' ? plays : true)),
    [sings, plays],
  )
  const stop = (options.find((o) => o.id === chosen) ?? options[0])?.id
  return (
    <div className={css['fit-table']} tabIndex={-1} onMouseLeave={() => onHover(undefined)}>
      <table aria-label={t('fit.table')}>
        <thead>
          <tr>
            {columns.map((c) => (
              <th key={c} scope="col" title={t(`fit.from.${c}`)}>
                {t(`fit.columns.${c}`)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody data-series onKeyDown={alongSeries}>
          {options.map((o) => (
            <Row
              key={o.id}
              option={o}
              isBest={best.has(o.id)}
              isChosen={o.id === chosen}
              isStop={o.id === stop}
              columns={columns}
              {...{ numbers, words, onChoose, onHover }}
            />
          ))}
        </tbody>
      </table>
      {further > 0 ? (
        <Button size="compact-xs" variant="default" m={6} onClick={onMore}>
          {t('fit.further', { count: further })}
        </Button>
      ) : null}
    </div>
  )
})

interface RowProps extends Pick<Props, 'numbers' | 'words' | 'onChoose' | 'onHover'> {
  readonly option: FitOption
  readonly isBest: boolean
  readonly isChosen: boolean
  /** True for the one that the Tab key reaches; arrow keys go to the others. */
  readonly isStop: boolean
  readonly columns: readonly Column[]
}

/** Drawn anew only where its option changes: there are many, several times a second. */
const Row = memo(function Row(props: RowProps) {
  const { option: o, isBest, isChosen, isStop, columns, numbers, words, onChoose, onHover } = props
  const { t } = useTranslation()
  const { figures: f, choice } = o
  const cells: Readonly<Record<Column, () => string | number>> = {
    tuning: () => words.tuning(o),
    capo: () => choice.capo,
    sounds: () => words.sounds(o),
    shapes: () => words.shapes(o),
    effort: () =>
      t('fit.effortCell', {
        effort: f.effort.toFixed(1),
        hardest: f.hardest.effort.toFixed(1),
        measure: numbers[f.hardest.measure]!,
      }),
    stretch: () => t('fit.stretchCell', { mm: f.stretch.mm, measure: numbers[f.stretch.measure]! }),
    barres: () => f.barres,
    roots: () => t('fit.rootsCell', { open: f.openRoots, changes: f.changes }),
    room: () => (f.room ? t('fit.roomCell', f.room) : '–'),
    octave: () => words.signed(choice.octave ?? 0),
    voice: () => o.sung?.outside.length ?? '',
    away: () => words.signed(choice.shift),
    retune: () => (o.retuned.length === 0 ? '–' : words.retuned(o)),
  }
  const states = [isChosen && 'chosen', isBest && 'best', o.estimated && 'estimated'].filter(Boolean)
  return (
    <tr
      className={states.join(' ')}
      tabIndex={isStop ? 0 : -1}
      aria-selected={isChosen}
      onFocus={() => onChoose(o.id)}
      onClick={() => onChoose(o.id)}
      onMouseEnter={() => onHover(o.id)}
    >
      {columns.map((c) =>
        c === 'tuning' ? (
          <th key={c} scope="row">
            {isBest ? <span className={css['best-mark']}>{t('fit.best')}</span> : null}
            {o.estimated ? <span className={css.about}>{t('fit.about')}</span> : null} {cells[c]()}
          </th>
        ) : c === 'capo' && choice.capo > HIGHEST_CAPO ? (
          <td key={c} className="caution" title={t('fit.highCapo')}>
            {choice.capo} !
          </td>
        ) : (
          <td key={c}>{cells[c]()}</td>
        ),
      )}
    </tr>
  )
})
