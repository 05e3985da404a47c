import { present } from '@velvet-porch/core/invariant'
import { Select } from '@mantine/core'
import { sameContent } from '@velvet-porch/core/document'
import type { Choosing } from '@velvet-porch/core/edit'
import { useTranslation } from 'react-i18next'
import type { MarkedMeasures } from '../sheet/selection.ts'
import { choicesOf, choiceWords } from './choices.ts'

/** Says what the note tools change: the note under the cursor, or a voice, a string or all of the marked measures. */
export function TargetSelect({
  choosing,
  onChoosing,
  range,
  numbers,
  strings,
}: {
  choosing: Choosing | undefined
  onChoosing: (choosing: Choosing | undefined) => void
  range: MarkedMeasures | undefined
  numbers: readonly number[]
  strings: number
}) {
  const { t } = useTranslation()
  const choices = choicesOf(strings)
  const value = present(choices.find((c) => sameContent(c.choosing, choosing))).value
  const [from, to] = range ? [numbers[range.from], numbers[range.to]] : []
  return (
    <Select
      size="xs"
      w={190}
      aria-label={t('write.choose.label')}
      value={value}
      disabled={!range}
      allowDeselect={false}
      data={[
        { value: 'one', label: choiceWords(t, undefined) },
        {
          group:
            from === to
              ? t('write.choose.inMeasure', { from: from ?? '' })
              : t('write.choose.inMeasures', { from: from ?? '', to: to ?? '' }),
          items: choices.slice(1).map((c) => ({ value: c.value, label: choiceWords(t, c.choosing) })),
        },
      ]}
      onChange={(v) => onChoosing(choices.find((c) => c.value === v)?.choosing)}
    />
  )
}
