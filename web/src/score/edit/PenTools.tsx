import { Checkbox, Chip, Group } from '@mantine/core'
import type { Ticks } from '@velvet-porch/core/music'
import { useTranslation } from 'react-i18next'
import { ticksOf, valueOf, VALUES, VALUE_SIGNS, type Value } from './values.ts'

/** How long the next note is: a value, with or without a dot. */
export function PenTools({ ticks, onTicks }: { ticks: Ticks; onTicks: (ticks: Ticks) => void }) {
  const { t } = useTranslation()
  const own = valueOf(ticks)
  const dotted = own?.dotted ?? false
  return (
    <>
      <Chip.Group
        value={own ? String(own.value) : ''}
        onChange={(v) => onTicks(ticksOf(Number(v) as Value, dotted))}
      >
        <Group gap={3} role="radiogroup" aria-label={t('write.value')} wrap="nowrap">
          {VALUES.map((v) => (
            <Chip key={v} value={String(v)} size="xs" variant="outline" aria-label={t(`write.values.${v}`)}>
              {VALUE_SIGNS[v]}
            </Chip>
          ))}
        </Group>
      </Chip.Group>
      <Checkbox
        size="xs"
        label={t('write.dotted')}
        checked={dotted}
        disabled={!own}
        onChange={(e) => own && onTicks(ticksOf(own.value, e.currentTarget.checked))}
      />
    </>
  )
}
