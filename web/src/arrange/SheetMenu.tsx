import { ActionIcon, Checkbox, Popover, SegmentedControl, Stack, Text, Tooltip } from '@mantine/core'
import { IconLayoutRows } from '@tabler/icons-react'
import { useTranslation } from 'react-i18next'
import { setPrefs, usePrefs, type SheetPrefs } from '../store/prefs.ts'

/** How the sheet is shown: form as signs or written out, measures a line, further lanes. Kept for this device. */
export function SheetMenu() {
  const { t } = useTranslation()
  const { sheet } = usePrefs()
  const set = (change: Partial<SheetPrefs>) => setPrefs({ sheet: { ...sheet, ...change } })
  return (
    <Popover position="bottom-end" withinPortal trapFocus returnFocus shadow="md">
      <Popover.Target>
        <Tooltip label={t('view.title')}>
          <ActionIcon variant="subtle" color="plum" aria-label={t('view.title')}>
            <IconLayoutRows size={18} />
          </ActionIcon>
        </Tooltip>
      </Popover.Target>
      <Popover.Dropdown>
        <Stack gap={6} w={280}>
          <Text size="sm" id="view-form">
            {t('view.form')}
          </Text>
          <SegmentedControl
            size="xs"
            aria-labelledby="view-form"
            value={sheet.form}
            onChange={(form) => set({ form: form as SheetPrefs['form'] })}
            data={(['signs', 'out'] as const).map((value) => ({ value, label: t(`view.forms.${value}`) }))}
          />
          <Text size="sm" id="view-line">
            {t('view.perLine')}
          </Text>
          <SegmentedControl
            size="xs"
            aria-labelledby="view-line"
            value={String(sheet.perLine)}
            onChange={(n) => set({ perLine: Number(n) as SheetPrefs['perLine'] })}
            data={['0', '1', '2', '4'].map((value) => ({
              value,
              label: value === '0' ? t('view.fit') : value,
            }))}
          />
          <Checkbox
            mt={4}
            label={t('view.strings')}
            checked={sheet.strings}
            onChange={(e) => set({ strings: e.currentTarget.checked })}
          />
        </Stack>
      </Popover.Dropdown>
    </Popover>
  )
}
