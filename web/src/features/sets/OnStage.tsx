import { Button, Group } from '@mantine/core'
import { useHotkeys } from '@mantine/hooks'
import type { SetMove } from '@velvet-porch/core/studio'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useMoveWords } from './useMoveWords.ts'
import type { ShownTune } from './useSetTunes.ts'
import css from './sets.module.css'

/** One tune at a time, large enough to be read from a music stand: what it is played on, and what is done before the next. */
export function OnStage({
  tunes,
  moves,
}: {
  tunes: readonly ShownTune[]
  moves: readonly (readonly SetMove[])[]
}) {
  const { t } = useTranslation()
  const { moveText, setupText } = useMoveWords()
  const [chosen, setChosen] = useState(0)
  const at = Math.min(chosen, tunes.length - 1)
  const go = (by: number) => setChosen(Math.min(tunes.length - 1, Math.max(0, at + by)))
  useHotkeys([
    ['ArrowRight', () => go(1)],
    ['PageDown', () => go(1)],
    ['ArrowLeft', () => go(-1)],
    ['PageUp', () => go(-1)],
  ])
  const tune = tunes[at]
  const next = tunes[at + 1]
  if (!tune) return null
  const before = moves[at] ?? []
  return (
    <div className={css['set-stage']} data-testid="on-stage">
      <div className="soft">{t('sets.ofAll', { at: at + 1, all: tunes.length })}</div>
      {before.length > 0 ? (
        <div className={css['set-stage-moves']}>{before.map(moveText).join(' · ')}</div>
      ) : null}
      <h2>{tune.title}</h2>
      <div className={css['set-stage-setup']}>{setupText(tune)}</div>
      <div className={css['set-stage-next']}>
        {next
          ? `${t('sets.then', { title: next.title })}${
              (moves[at + 1] ?? []).length > 0 ? `: ${(moves[at + 1] ?? []).map(moveText).join(' · ')}` : ''
            }`
          : t('sets.lastOne')}
      </div>
      <Group mt="xl">
        <Button size="lg" variant="default" disabled={at === 0} onClick={() => go(-1)}>
          {t('sets.back')}
        </Button>
        <Button size="lg" disabled={!next} onClick={() => go(1)}>
          {t('sets.next')}
        </Button>
      </Group>
    </div>
  )
}
