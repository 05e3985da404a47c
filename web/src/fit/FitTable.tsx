import { ScrollArea, Table } from '@mantine/core'
import { HIGH_CAPO, type FitOption } from '@velvet-porch/core'
import { useTranslation } from 'react-i18next'
import type { FitWords } from './useFitWords.ts'

interface Props {
  readonly options: readonly FitOption[]
  readonly best: ReadonlySet<string>
  readonly numbers: readonly number[]
  readonly chosen: string | undefined
  readonly onChoose: (id: string) => void
  readonly words: FitWords
  readonly sings: boolean
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
  'voice',
  'away',
  'retune',
] as const

/** The options as rows, best trade-offs first; each figure says in its head where it comes from. */
export function FitTable({ options, best, numbers, chosen, onChoose, words, sings }: Props) {
  const { t } = useTranslation()
  const columns = COLUMNS.filter((c) => c !== 'voice' || sings)
  const cell = (o: FitOption, column: (typeof COLUMNS)[number]) => {
    const { figures: f, choice } = o
    switch (column) {
      case 'tuning':
        return words.tuning(o)
      case 'capo':
        return choice.capo > HIGH_CAPO ? (
          <span className="caution" title={t('fit.highCapo')}>
            {choice.capo} !
          </span>
        ) : (
          choice.capo
        )
      case 'sounds':
        return words.sounds(o)
      case 'shapes':
        return words.shapes(o)
      case 'effort':
        return t('fit.effortCell', {
          effort: f.effort.toFixed(1),
          hardest: f.hardest.effort.toFixed(1),
          measure: numbers[f.hardest.measure],
        })
      case 'stretch':
        return t('fit.stretchCell', { mm: f.stretch.mm, measure: numbers[f.stretch.measure] })
      case 'barres':
        return f.barres
      case 'roots':
        return t('fit.rootsCell', { open: f.openRoots, changes: f.changes })
      case 'room':
        return f.room ? t('fit.roomCell', f.room) : '–'
      case 'voice':
        return o.sung ? o.sung.outside.length : ''
      case 'away':
        return words.signed(choice.shift)
      case 'retune':
        return o.retuned.length === 0 ? '–' : words.retuned(o)
    }
  }
  return (
    <ScrollArea.Autosize mah={252} type="auto" className="fit-table">
      <Table stickyHeader highlightOnHover aria-label={t('fit.table')} withRowBorders>
        <Table.Thead>
          <Table.Tr>
            {columns.map((c) => (
              <Table.Th key={c} title={t(`fit.from.${c}`)}>
                {t(`fit.columns.${c}`)}
              </Table.Th>
            ))}
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {options.map((o) => (
            <Table.Tr
              key={o.id}
              className={[
                o.id === chosen ? 'chosen' : '',
                best.has(o.id) ? 'best' : '',
                o.estimated ? 'estimated' : '',
              ].join(' ')}
              tabIndex={0}
              aria-selected={o.id === chosen}
              onFocus={() => onChoose(o.id)}
              onClick={() => onChoose(o.id)}
            >
              {columns.map((c, i) =>
                i === 0 ? (
                  <Table.Th key={c} scope="row">
                    {best.has(o.id) ? <span className="best-mark">{t('fit.best')}</span> : null}
                    {o.estimated ? <span className="about">{t('fit.about')}</span> : null} {cell(o, c)}
                  </Table.Th>
                ) : (
                  <Table.Td key={c}>{cell(o, c)}</Table.Td>
                ),
              )}
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
    </ScrollArea.Autosize>
  )
}
