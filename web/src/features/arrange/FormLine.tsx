import type { TFunction } from 'i18next'
import { Menu, UnstyledButton } from '@mantine/core'
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
      {map.parts.length > 1 ? (
        <Menu position="bottom-start" shadow="md">
          <Menu.Target>
            <UnstyledButton className={css['form-part']}>
              {map.parts
                .slice(0, MOST_NAMED)
                .map((p) => partText(p, t))
                .join(' · ')}
              {map.parts.length > MOST_NAMED ? ' …' : ''}
            </UnstyledButton>
          </Menu.Target>
          <Menu.Dropdown>
            {map.parts.map((p, i) => (
              <Menu.Item
                key={i}
                onClick={() => {
                  onPosition?.({ measure: p.measure, tick: 0 })
                  void player.play(p.startTick)
                }}
              >
                {t('view.playFrom', { name: nameOf(p.name, t), number: numbers[p.measure]! })}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
      ) : null}
      <span>{t('view.length', { count: map.measures, minutes })}</span>
    </nav>
  )
}

/** Parts that are named in the line; the rest stand in its menu. */
const MOST_NAMED = 5

const partText = (p: { readonly name: string; readonly times: number }, t: TFunction) =>
  p.times > 1 ? `${nameOf(p.name, t)} × ${p.times}` : nameOf(p.name, t)

const nameOf = (name: string, t: TFunction) => name || t('view.whole')
