import { Chip, Group, Text } from '@mantine/core'
import { withId, type ArrangementDoc } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'
import type { SheetModel, SheetPosition } from '../../score/sheet/sheetModel.ts'
import {
  askedArticulation,
  isSoundedAs,
  locksFor,
  soundedAt,
  articulationsOf,
  type ArticulationChoice,
} from './soundedAs.ts'
import type { BenchArranger } from './useArranger.ts'
import { newId } from '../../newId.ts'
import css from './SoundedAs.module.css'

const AUTO = 'auto'

/** How the selected melody note is sounded: plucked, or reached from the note before; a swap is one action. */
export function SoundedAs({
  model,
  doc,
  arranger,
  position,
}: {
  model: SheetModel
  doc: ArrangementDoc
  arranger: BenchArranger
  position: SheetPosition
}) {
  const { t } = useTranslation()
  const note = soundedAt(model, position)
  const { settings } = arranger
  if (!note || !settings) return null
  const ways = articulationsOf(doc.setup, note)
  if (ways.length < 2) return null
  const { to } = note
  const asked = askedArticulation(settings.locks, to)
  const choose = (way: string) => {
    const own = way === AUTO ? [] : locksFor(doc.setup, note, way as ArticulationChoice)
    const touched = new Set([to.id, note.from?.id, ...own.map((l) => l.target)])
    const locks = own.map((l) => withId(l, newId()))
    void arranger.choose(
      t('ornament.howCommand', {
        what: t(`ornament.ways.${way as ArticulationChoice}`),
        number: model.numbers[position.measure]!,
      }),
      (now) => ({ locks: [...now.locks.filter((l) => !touched.has(l.target)), ...locks] }),
    )
  }
  const missed = asked && !isSoundedAs(to, asked)
  return (
    <div className={css['sounded-as']} data-testid="sounded">
      <Text size="xs">{t('ornament.how')}</Text>
      <Chip.Group value={asked ?? AUTO} onChange={choose}>
        <Group gap={4} role="radiogroup" aria-label={t('ornament.how')}>
          {[AUTO, ...ways].map((w) => (
            <Chip key={w} value={w} size="xs" variant="outline">
              {t(`ornament.ways.${w as ArticulationChoice}`)}
            </Chip>
          ))}
        </Group>
      </Chip.Group>
      {missed ? (
        <Text size="xs" role="status">
          {t('ornament.missed')}
        </Text>
      ) : null}
    </div>
  )
}
