import { Button, Group, SegmentedControl, Switch, Text } from '@mantine/core'
import { IconArrowLeft } from '@tabler/icons-react'
import { bookPieces, PAPERS, usualHandout, type Paper } from '@velvet-porch/core/output/handout'
import { movesOf } from '@velvet-porch/core/studio'
import { useCallback, useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useParams } from 'react-router'
import { useSets } from '../../../state/studio.ts'
import { PaperButtons } from '../../handout/PaperButtons.tsx'
import { PaperPages } from '../../handout/PaperPages.tsx'
import { useMoveWords } from '../useMoveWords.ts'
import { useSetTunes } from '../useSetTunes.ts'
import { useBookTunes } from './useBookTunes.ts'
import css from './book.module.css'

/** All pages of a set list as one book: title, contents with what is done between the tunes, then every tune from a page of its own. */
export function SetBookPage() {
  const { t } = useTranslation()
  const { set: id } = useParams()
  const set = useSets()?.find((s) => s.id === id)
  const [paper, setPaper] = useState<Paper>('a4')
  const [large, setLarge] = useState(false)
  const made = useBookTunes(
    set,
    useMemo(() => ({ paper, large }), [paper, large]),
  )
  const tunes = useSetTunes(set)
  const { moveText, setupText } = useMoveWords()
  const pages = useRef<readonly string[]>([])
  const takePages = useCallback((all: readonly string[]) => void (pages.current = all), [])
  const name = set?.name ?? ''
  const words = made?.find((m) => m.words)?.words
  const pagesOf = (id: string) => made?.find((m) => m.id === id)?.pieces ?? []
  const without = tunes?.filter((tune) => pagesOf(tune.id).length === 0) ?? []
  const pieces = useMemo(() => {
    const own = new Map(made?.map((m) => [m.id, m.pieces]))
    const printed = tunes?.filter((tune) => (own.get(tune.id) ?? []).length > 0) ?? []
    const moves = movesOf(printed)
    const minutes = printed.reduce((sum, tune) => sum + tune.minutes, 0)
    return bookPieces(
      {
        title: name,
        about: t('sets.book.about', { count: printed.length, minutes }),
        contents: t('sets.book.contents'),
      },
      printed.map((tune, i) => ({
        id: tune.id,
        title: tune.title,
        setup: setupText(tune),
        moves: (moves[i] ?? []).map(moveText),
        pieces: own.get(tune.id) ?? [],
      })),
    )
  }, [made, tunes, name, t, setupText, moveText])
  const handout = useMemo(() => ({ ...usualHandout('book'), paper, large }), [paper, large])
  return (
    <div className={css['book']}>
      <header className="bench-title no-print">
        <Button
          component={Link}
          to={`/sets/${id ?? ''}`}
          size="compact-sm"
          variant="default"
          leftSection={<IconArrowLeft size={15} />}
        >
          {t('sets.book.back')}
        </Button>
        <h1>{t('sets.book.title', { name })}</h1>
        <Group gap={8} ml="auto">
          <Switch
            size="xs"
            label={t('handout.large')}
            checked={large}
            onChange={(e) => setLarge(e.currentTarget.checked)}
          />
          <SegmentedControl
            size="xs"
            aria-label={t('sets.book.paper')}
            data={PAPERS.map((value) => ({ value, label: t(`handout.papers.${value}`) }))}
            value={paper}
            onChange={setPaper}
          />
          <PaperButtons title={name} handout={handout} pages={pages} disabled={!words} />
        </Group>
      </header>
      {without.length > 0 && made ? (
        <Text size="sm" className="no-print" p="sm">
          {t('sets.book.without', { titles: without.map((tune) => tune.title).join(', ') })}
        </Text>
      ) : null}
      {words ? (
        <PaperPages handout={handout} pieces={pieces} words={words} title={name} onPages={takePages} />
      ) : (
        <Text p="md">{t(made ? 'sets.book.nothing' : 'sets.book.making')}</Text>
      )}
    </div>
  )
}
