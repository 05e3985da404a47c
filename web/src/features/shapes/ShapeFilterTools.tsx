import { Checkbox, Group, Select, Stack, TextInput } from '@mantine/core'
import { useDebouncedCallback } from '@mantine/hooks'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { WISH_PARAMS, type useShapeFilters, type FilterParam } from './useShapeFilters.ts'

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
                  p === 'nobarre' || p === 'lying'
                    ? t(`shapes.filter.${p}`)
                    : `${t(`shapes.filter.${p}`)} ${texts[p]}`,
                )
                .join(', '),
            })
          : t('shapes.noWishes')}
      </summary>
      <Group gap="xs" align="flex-start">
        {(['bass', 'top', 'place', 'ring', 'leave', 'zone', 'max'] as const).map((param) => (
          <WishText key={param} param={param} value={texts[param]} wrong={faults.includes(param)} set={set} />
        ))}
        <Select
          w={96}
          label={t('shapes.filter.free')}
          data={['', '1', '2', '3'].map((n) => ({ value: n, label: n || t('shapes.any') }))}
          value={texts.free}
          allowDeselect={false}
          onChange={(value) => set({ free: value ?? '' })}
        />
        <Stack gap={6} mt={22}>
          <Checkbox
            size="sm"
            label={t('shapes.filter.nobarre')}
            checked={texts.nobarre !== ''}
            onChange={(event) => set({ nobarre: event.currentTarget.checked ? '1' : '', lying: '' })}
          />
          <Checkbox
            size="sm"
            label={t('shapes.filter.lying')}
            checked={texts.lying !== ''}
            onChange={(event) => set({ lying: event.currentTarget.checked ? '1' : '', nobarre: '' })}
          />
        </Stack>
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
  param: 'bass' | 'top' | 'place' | 'ring' | 'leave' | 'zone' | 'max'
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
