import type { TFunction } from 'i18next'
import { UnstyledButton } from '@mantine/core'
import { formMap, type TuneDoc } from '@velvet-porch/core/document'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { player } from '../../score/playback/player.ts'
import type { SheetPosition } from '../../score/sheet/sheetModel.ts'
import css from './FormLine.module.css'

/** The form as it is played, part by part; each part is played from where it begins. With its length in measures and minutes. */
export function FormLine({
  tune,
  numbers,
  onPosition,
}: {
  tune: TuneDoc
  numbers: readonly number[]
  onPosition: ((position: SheetPosition) => void) | undefined
}) {
  const { t } = useTranslation()
  const map = useMemo(() => formMap(tune), [tune])
  const minutes = `${Math.floor(map.seconds / 60)}:${String(Math.round(map.seconds) % 60).padStart(2, '0')}`
  return (
    <nav className={css['form-line']} aria-label={t('view.map')} data-testid="form-line">
      {map.parts.map((p, i) => (
        <UnstyledButton
          key={i}
          className={css['form-part']}
          aria-label={t('view.playFrom', { name: nameOf(p.name, t), number: numbers[p.measure]! })}
          onClick={() => {
            onPosition?.({ measure: p.measure, tick: 0 })
            void player.play(p.startTick)
          }}
        >
          {nameOf(p.name, t)}
          {p.times > 1 ? <b> × {p.times}</b> : null}
        </UnstyledButton>
      ))}
      <span>{t('view.length', { count: map.measures, minutes })}</span>
    </nav>
  )
}

const nameOf = (name: string, t: TFunction) => name || t('view.whole')
