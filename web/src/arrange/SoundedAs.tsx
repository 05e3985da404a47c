import { SegmentedControl, Text } from '@mantine/core'
import { isArrival, type ArrangementDoc } from '@velvet-porch/core'
import { useTranslation } from 'react-i18next'
import type { SheetModel, Spot } from '../sheet/sheetModel.ts'
import { locksFor, pairAt, waysOf, type SoundedWay } from './soundedAs.ts'
import type { Arranger } from './useArranger.ts'

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
  const pair = pairAt(model, spot)
  const { settings } = arranger
  if (!pair || !settings) return null
  const ways = waysOf(doc.setup, pair)
  if (ways.length < 2) return null
  const { from, to } = pair
  const asked = settings.locks.find((l) => l.target === to.id && l.field === 'attack')?.value as
    SoundedWay | undefined
  const choose = (way: string) => {
    const other = settings.locks.filter((l) => l.target !== to.id && l.target !== from.id)
    const own = way === AUTO ? [] : locksFor(doc.setup, pair, way as SoundedWay)
    const locks = [...other, ...own.map((l) => ({ ...l, id: crypto.randomUUID() }))]
    void arranger.arrange(
      { ...settings, locks },
      t('ornament.howCommand', {
        what: t(`ornament.ways.${way as SoundedWay}`),
        number: model.numbers[spot.measure],
      }),
    )
  }
  const missed = asked && isArrival(asked) && to.attack !== asked
  return (
    <div className="sounded-as" data-testid="sounded">
      <Text size="xs">{t('ornament.how')}</Text>
      <SegmentedControl
        size="xs"
        fullWidth
        aria-label={t('ornament.how')}
        value={asked ?? AUTO}
        onChange={choose}
        data={[AUTO, ...ways].map((w) => ({ value: w, label: t(`ornament.ways.${w as SoundedWay}`) }))}
      />
      {missed ? (
        <Text size="xs" role="status">
          {t('ornament.missed')}
        </Text>
      ) : null}
    </div>
  )
}
