import { Chip, Group, Text } from '@mantine/core'
import type { ArrangementDoc } from '@velvet-porch/core'
import { useTranslation } from 'react-i18next'
import type { SheetModel, Spot } from '../sheet/sheetModel.ts'
import { askedWay, isSoundedAs, locksFor, soundedAt, waysOf, type SoundedWay } from './soundedAs.ts'
import type { Arranger } from './useArranger.ts'
import { newId } from '../store/newId.ts'

const AUTO = 'auto'

/** How the selected melody note is sounded: plucked, or reached from the note before; a swap is one action. */
export function SoundedAs({
  model,
  doc,
  arranger,
  spot,
}: {
  model: SheetModel
  doc: ArrangementDoc
  arranger: Arranger
  spot: Spot
}) {
  const { t } = useTranslation()
  const note = soundedAt(model, spot)
  const { settings } = arranger
  if (!note || !settings) return null
  const ways = waysOf(doc.setup, note)
  if (ways.length < 2) return null
  const { to } = note
  const asked = askedWay(settings.locks, to)
  const choose = (way: string) => {
    const own = way === AUTO ? [] : locksFor(doc.setup, note, way as SoundedWay)
    const touched = new Set([to.id, note.from?.id, ...own.map((l) => l.target)])
    const other = settings.locks.filter((l) => !touched.has(l.target))
    const locks = [...other, ...own.map((l) => ({ ...l, id: newId() }))]
    void arranger.arrange(
      { ...settings, locks },
      t('ornament.howCommand', {
        what: t(`ornament.ways.${way as SoundedWay}`),
        number: model.numbers[spot.measure],
      }),
    )
  }
  const missed = asked && !isSoundedAs(to, asked)
  return (
    <div className="sounded-as" data-testid="sounded">
      <Text size="xs">{t('ornament.how')}</Text>
      <Chip.Group value={asked ?? AUTO} onChange={choose}>
        <Group gap={4} role="radiogroup" aria-label={t('ornament.how')}>
          {[AUTO, ...ways].map((w) => (
            <Chip key={w} value={w} size="xs" variant="outline">
              {t(`ornament.ways.${w as SoundedWay}`)}
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
