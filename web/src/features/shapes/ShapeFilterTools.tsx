import { Checkbox, Group, Select, TextInput } from '@mantine/core'
import { useDebouncedCallback } from '@mantine/hooks'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { WISH_PARAMS, type useShapeFilters, type FilterParam } from './useShapeFilters.ts'

const ZONE_CHOICES = ['1-4', '4-8', '7-12', '10-15'] as const

/** What the shape must do besides being the chord. */
export function ShapeFilterTools({
  state: { texts, faults },
  set,
}: {
  state: ReturnType<typeof useShapeFilters>
  set: (change: Partial<Record<string, string>>) => void
}) {
  const { t } = useTranslation()
  const active = WISH_PARAMS.filter((p) => texts[p] !== '')
  // Open from the start where the address brings filters along; after that the reader folds it.
  const [openAtFirst] = useState(active.length > 0)
  return (
    <details className="filters" open={openAtFirst}>
      <summary>
        {active.length > 0
          ? t('shapes.filters', {
              list: active
                .map((p) =>
                  p === 'nobarre' ? t('shapes.filter.nobarre') : `${t(`shapes.filter.${p}`)} ${texts[p]}`,
                )
                .join(', '),
            })
          : t('shapes.noWishes')}
      </summary>
      <Group gap="xs" align="flex-start">
        {(['bass', 'top', 'place', 'ring', 'leave', 'max'] as const).map((param) => (
          <WishText key={param} param={param} value={texts[param]} wrong={faults.includes(param)} set={set} />
        ))}
        <Select
          w={112}
          label={t('shapes.filter.zone')}
          data={[
            { value: '', label: t('shapes.anywhere') },
            ...ZONE_CHOICES.map((z) => ({ value: z, label: z })),
          ]}
          value={texts.zone}
          allowDeselect={false}
          onChange={(value) => set({ zone: value ?? '' })}
        />
        <Select
          w={96}
          label={t('shapes.filter.free')}
          data={['', '1', '2', '3'].map((n) => ({ value: n, label: n || t('shapes.any') }))}
          value={texts.free}
          allowDeselect={false}
          onChange={(value) => set({ free: value ?? '' })}
        />
        <Checkbox
          mt={32}
          label={t('shapes.filter.nobarre')}
          checked={texts.nobarre !== ''}
          onChange={(event) => set({ nobarre: event.currentTarget.checked ? '1' : '' })}
        />
      </Group>
    </details>
  )
}

function WishText({
  param,
  value,
  wrong,
  set,
}: {
  param: 'bass' | 'top' | 'place' | 'ring' | 'leave' | 'max'
  value: string
  wrong: boolean
  set: (change: Partial<Record<FilterParam, string>>) => void
}) {
  const { t } = useTranslation()
  const [draft, setDraft] = useState(value)
  const commit = useDebouncedCallback((text: string) => set({ [param]: text.trim() }), 300)
  return (
    <TextInput
      w={104}
      label={t(`shapes.filter.${param}`)}
      placeholder={t(`shapes.filterHint.${param}`)}
      value={draft}
      error={wrong ? t(`shapes.filterFault.${param}`) : undefined}
      onChange={(event) => {
        setDraft(event.currentTarget.value)
        commit(event.currentTarget.value)
      }}
    />
  )
}
