import { SegmentedControl } from '@mantine/core'
import type { TuneDoc } from '@velvet-porch/core/document'
import { useState, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import type { Writing } from '../../../score/edit/useWriting.ts'
import { useArrangement } from '../../../state/useTune.ts'
import { SongBars } from './SongBars.tsx'
import { SongText } from './SongText.tsx'
import sideCss from '../TextSide.module.css'

interface Props {
  readonly tune: TuneDoc
  readonly run: Writing['run']
  /** The tune's ABC with what is said of it. */
  readonly abc: ReactNode
}

type View = 'words' | 'bars' | 'abc'

/** A song beside its page: its words with the chords, the bars of its lines, and its ABC. */
export function SongSide({ tune, run, abc }: Props) {
  const { t } = useTranslation()
  const arrangement = useArrangement(tune.id)
  const [view, setView] = useState<View>('words')
  const guessed = tune.measures.some((m) => m.provenance === 'guessed')
  const choice = (
    <SegmentedControl<View>
      size="xs"
      aria-label={t('song.view')}
      value={view}
      onChange={setView}
      data={[
        { value: 'words', label: t('song.words') },
        { value: 'bars', label: guessed ? t('song.barsGuessed') : t('song.bars') },
        { value: 'abc', label: t('tune.text') },
      ]}
    />
  )
  if (view === 'abc')
    return (
      <div className={sideCss['song-abc']}>
        {choice}
        {abc}
      </div>
    )
  const capo = arrangement?.setup.capo[0] ?? 0
  const transposed = arrangement?.transposed ?? 0
  return (
    <aside className={sideCss['tune-side']}>
      {choice}
      {arrangement === undefined ? null : view === 'words' ? (
        <SongText tune={tune} capo={capo} transposed={transposed} run={run} />
      ) : (
        <SongBars tune={tune} capo={capo - transposed} run={run} />
      )}
    </aside>
  )
}
