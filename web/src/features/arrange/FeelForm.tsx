import { SegmentedControl, Stack, Text } from '@mantine/core'
import { CLOSES, FEELS, LAST_CHORDS, type Region } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'

interface Props {
  readonly region: Region
  /** False in 6/8 and the like, which have their own lilt. */
  readonly canSwing: boolean
  /** True where the section comes to the end of the tune. */
  readonly ends: boolean
  readonly onRegion: (change: (region: Region) => Region, label: string) => void
}

/** How unevenly a section's beats are halved, and how it comes to the tune's end. */
export function FeelForm({ region, canSwing, ends, onRegion }: Props) {
  const { t } = useTranslation()
  const choose = (key: 'feel' | 'close' | 'lastChord', value: string | undefined, what: string) =>
    onRegion(({ [key]: _, ...r }) => (value ? { ...r, [key]: value } : r), t('feel.command', { what }))
  return (
    <Stack gap={6} mb={10}>
      {canSwing ? (
        <Choice
          label={t('feel.label')}
          none={t('feel.straight')}
          options={FEELS.map((f) => [f, t(`feel.${f}`)])}
          value={region.feel}
          onChange={(v, what) => choose('feel', v, what)}
        />
      ) : null}
      {ends ? (
        <Choice
          label={t('feel.end')}
          none={t('feel.inTime')}
          options={CLOSES.map((c) => [c, t(`feel.${c}`)])}
          value={region.close}
          onChange={(v, what) => choose('close', v, what)}
        />
      ) : null}
      {ends ? (
        <Choice
          label={t('feel.lastChord')}
          none={t('feel.plain')}
          options={LAST_CHORDS.map((c) => [c, t(`feel.${c}`)])}
          value={region.lastChord}
          onChange={(v, what) => choose('lastChord', v, what)}
        />
      ) : null}
    </Stack>
  )
}

function Choice({
  label,
  none,
  options,
  value,
  onChange,
}: {
  label: string
  /** What nothing chosen is called. */
  none: string
  options: readonly (readonly [string, string])[]
  value: string | undefined
  onChange: (value: string | undefined, label: string) => void
}) {
  const all: readonly (readonly [string, string])[] = [['', none], ...options]
  return (
    <div>
      <Text size="xs" fw={600}>
        {label}
      </Text>
      <SegmentedControl
        size="xs"
        fullWidth
        aria-label={label}
        value={value ?? ''}
        onChange={(v) => onChange(v === '' ? undefined : v, all.find(([k]) => k === v)?.[1] ?? none)}
        data={all.map(([v, words]) => ({ value: v, label: words }))}
      />
    </div>
  )
}
