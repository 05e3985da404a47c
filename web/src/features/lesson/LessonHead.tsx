import { Button, Group, Select } from '@mantine/core'
import { IconMaximize } from '@tabler/icons-react'
import { TEACH_LAYERS, type TeachLayer } from '@velvet-porch/core/lesson'
import { useTranslation } from 'react-i18next'
import { setPrefs, usePrefs } from '../../state/prefs.ts'
import type { Instead } from './EasierHere.tsx'
import { LessonOptions } from './LessonOptions.tsx'
import { StudentMenu } from './StudentMenu.tsx'
import type { Taught } from './useTaught.ts'
import css from './LessonHead.module.css'

/** What is taught, to whom, which layer of it, and how. */
export function LessonHead({
  title,
  student,
  own,
  instead,
  onWritten,
  layer,
  onLayer,
  onFull,
}: Pick<Taught, 'student' | 'own'> & {
  title: string
  instead: Instead | undefined
  /** Back from another version to what is written. */
  onWritten: () => void
  layer: TeachLayer
  onLayer: (layer: TeachLayer) => void
  onFull: () => void
}) {
  const { t } = useTranslation()
  const { lesson: settings } = usePrefs()
  return (
    <header className="bench-title">
      <h1>{title}</h1>
      <span className="setup">{t('teach.subtitle')}</span>
      {instead ? (
        <Button size="compact-xs" variant="light" color="lamp" onClick={onWritten}>
          {t('teach.instead', { what: instead.name })}
        </Button>
      ) : null}
      <Group gap={6} ml="auto">
        <Select
          className={css['teach-layer']}
          size="xs"
          aria-label={t('teach.layer')}
          value={layer}
          onChange={(v) => v && onLayer(v)}
          data={TEACH_LAYERS.map((value) => ({ value, label: t(`teach.layers.${value}`) }))}
          allowDeselect={false}
          comboboxProps={{ withinPortal: false }}
        />
        <StudentMenu student={student} own={own} />
        <LessonOptions settings={settings} onChange={(next) => setPrefs({ lesson: next })} />
        <Button size="compact-sm" variant="default" leftSection={<IconMaximize size={15} />} onClick={onFull}>
          {t('teach.full')}
        </Button>
      </Group>
    </header>
  )
}
