import { Button, Group, SegmentedControl, Switch, Text } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { IconArrowLeft, IconFileTypePdf, IconPrinter } from '@tabler/icons-react'
import { bookPieces, PAPERS, usualHandout, type Paper } from '@velvet-porch/core/output/handout'
import { movesOf } from '@velvet-porch/core/studio'
import { useCallback, useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useParams } from 'react-router'
import { useSets } from '../../../state/studio.ts'
import { errorWords } from '../../../workers/errorWords.ts'
import { PaperPages } from '../../handout/PaperPages.tsx'
import { savePdf } from '../../handout/pdf.ts'
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
  const [busy, setBusy] = useState(false)
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
  const printed = tunes?.filter((tune) => made?.some((m) => m.id === tune.id && m.pieces.length > 0)) ?? []
  const without = tunes?.filter((tune) => !printed.includes(tune)) ?? []
  // Texts are made anew at each look; what is laid on pages changes with what it says alone.
  const moves = movesOf(printed)
  const minutes = printed.reduce((sum, tune) => sum + tune.minutes, 0)
  const front = JSON.stringify({
    about: t('sets.book.about', { count: printed.length, minutes }),
    contents: t('sets.book.contents'),
    tunes: printed.map((tune, i) => ({
      id: tune.id,
      title: tune.title,
      setup: setupText(tune),
      moves: (moves[i] ?? []).map(moveText),
    })),
  })
  const pieces = useMemo(() => {
    const { tunes: listed, ...book } = JSON.parse(front) as {
      about: string
      contents: string
      tunes: { id: string; title: string; setup: string; moves: string[] }[]
    }
    return bookPieces(
      { title: name, ...book },
      listed.map((tune) => ({ ...tune, pieces: made?.find((m) => m.id === tune.id)?.pieces ?? [] })),
    )
  }, [front, name, made])
  const handout = useMemo(() => ({ ...usualHandout('book'), paper, large }), [paper, large])
  const toPdf = async () => {
    setBusy(true)
    try {
      await savePdf(name, handout, pages.current)
    } catch (e) {
      notifications.show({ color: 'lamp', title: t('handout.noPdf'), message: errorWords(t, e) })
    } finally {
      setBusy(false)
    }
  }
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
          <Button
            size="compact-sm"
            variant="default"
            disabled={!words}
            leftSection={<IconPrinter size={15} />}
            onClick={() => window.print()}
          >
            {t('handout.print')}
          </Button>
          <Button
            size="compact-sm"
            disabled={!words}
            loading={busy}
            leftSection={<IconFileTypePdf size={15} />}
            onClick={() => void toPdf()}
          >
            {t('handout.pdf')}
          </Button>
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
