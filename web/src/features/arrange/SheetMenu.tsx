import { present } from '@velvet-porch/core/invariant'
import { Button, Checkbox, Popover, SegmentedControl, Stack, Text } from '@mantine/core'
import { IconLayoutRows } from '@tabler/icons-react'
import { useId } from 'react'
import { useTranslation } from 'react-i18next'
import { useCurrentPlayer } from '../../state/players.ts'
import { holds } from '../../ui/holds.ts'
import { setPrefs, usePrefs, ZOOMS, type SheetPrefs } from '../../state/prefs.ts'
import { useLeavingOut } from './useAsPlayed.ts'

/** What stands at the notes, those of every day first. */
const DAILY = ['fingers', 'picking', 'counts', 'degrees'] as const
const SHOWN = ['strings', 'boxes', 'intervals', 'remarks'] as const

/** How the sheet is shown: form as signs or written out, measures a line, page or line, size, names, further layers. Kept for this device. */
export function SheetMenu() {
  const { t } = useTranslation()
  const { sheet } = usePrefs()
  const player = useCurrentPlayer()
  const [leaves, setLeaves] = useLeavingOut()
  const set = (change: Partial<SheetPrefs>) => setPrefs({ sheet: { ...sheet, ...change } })
  return (
    <Popover position="bottom-end" withinPortal trapFocus returnFocus shadow="md">
      <Popover.Target>
        <Button
          size="compact-sm"
          variant="subtle"
          color="plum"
          leftSection={<IconLayoutRows size={16} />}
          title={t('view.title')}
          {...holds([
            ...DAILY.map((layer) => t(`arrange.${layer}`)),
            ...SHOWN.map((layer) => t(`view.layer.${layer}`)),
            t('view.leaveOut', { name: player.name || t('instrument.adult') }),
            ...(['form', 'perLine', 'layout', 'zoom', 'names', 'durations'] as const).map((k) =>
              t(`view.${k}`),
            ),
          ])}
        >
          {t('view.button')}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <Stack gap={6} w={280}>
          {DAILY.map((layer) => (
            <Checkbox
              key={layer}
              label={t(`arrange.${layer}`)}
              checked={sheet[layer]}
              onChange={(e) => set({ [layer]: e.currentTarget.checked })}
            />
          ))}
          <Choice
            label={t('view.form')}
            value={sheet.form}
            of={['signs', 'out'] as const}
            name={(v) => t(`view.forms.${v}`)}
            onChange={(form) => set({ form })}
          />
          <Choice
            label={t('view.perLine')}
            value={sheet.perLine}
            of={[0, 1, 2, 4] as const}
            name={(v) => (v === 0 ? t('view.fit') : String(v))}
            onChange={(perLine) => set({ perLine })}
          />
          <Choice
            label={t('view.layout')}
            value={sheet.layout}
            of={['page', 'line'] as const}
            name={(v) => t(`view.layouts.${v}`)}
            onChange={(layout) => set({ layout })}
          />
          <Choice
            label={t('view.zoom')}
            value={sheet.zoom}
            of={ZOOMS}
            name={(v) => `${v} %`}
            onChange={(zoom) => set({ zoom })}
          />
          <Choice
            label={t('view.names')}
            value={sheet.names}
            of={['shapes', 'sounding'] as const}
            name={(v) => t(`view.named.${v}`)}
            onChange={(names) => set({ names })}
          />
          <Choice
            label={t('view.durations')}
            value={sheet.durations}
            of={['ring', 'plain'] as const}
            name={(v) => t(`view.lasting.${v}`)}
            onChange={(durations) => set({ durations })}
          />
          {SHOWN.map((layer) => (
            <Checkbox
              key={layer}
              label={t(`view.layer.${layer}`)}
              checked={sheet[layer]}
              onChange={(e) => set({ [layer]: e.currentTarget.checked })}
            />
          ))}
          <Checkbox
            label={t('view.leaveOut', { name: player.name || t('instrument.adult') })}
            checked={leaves}
            onChange={(e) => setLeaves(e.currentTarget.checked)}
          />
        </Stack>
      </Popover.Dropdown>
    </Popover>
  )
}

/** One of a few, by name. */
function Choice<V extends string | number>({
  label,
  value,
  of,
  name,
  onChange,
}: {
  label: string
  value: V
  of: readonly V[]
  name: (value: V) => string
  onChange: (value: V) => void
}) {
  const id = useId()
  return (
    <>
      <Text size="sm" id={id}>
        {label}
      </Text>
      <SegmentedControl
        size="xs"
        aria-labelledby={id}
        value={String(value)}
        onChange={(chosen) => onChange(present(of.find((v) => String(v) === chosen)))}
        data={of.map((v) => ({ value: String(v), label: name(v) }))}
      />
    </>
  )
}
