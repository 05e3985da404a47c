import { Button, Group } from '@mantine/core'
import { IconMaximize } from '@tabler/icons-react'
import { useTranslation } from 'react-i18next'
import { setPrefs, usePrefs } from '../../state/prefs.ts'
import type { Instead } from './EasierHere.tsx'
import { LessonOptions } from './LessonOptions.tsx'
import { StudentMenu } from './StudentMenu.tsx'
import type { Taught } from './useTaught.ts'
import css from './LessonHead.module.css'

/** What is taught, to whom, and how. */
export function LessonHead({
  title,
  student,
  own,
  instead,
  onWritten,
  onFull,
}: Pick<Taught, 'student' | 'own'> & {
  title: string
  instead: Instead | undefined
  /** Back from another version to what is written. */
  onWritten: () => void
  onFull: () => void
}) {
  const { t } = useTranslation()
  const { lesson: settings } = usePrefs()
  return (
    <header className={`bench-title ${css['teach-head']}`}>
      <h1>{title}</h1>
      {instead ? (
        <Button size="compact-xs" variant="light" color="lamp" onClick={onWritten}>
          {t('teach.instead', { what: instead.name })}
        </Button>
      ) : null}
      <Group gap={6} ml="auto" wrap="nowrap">
        <StudentMenu student={student} own={own} />
        <LessonOptions settings={settings} onChange={(next) => setPrefs({ lesson: next })} />
        {document.fullscreenEnabled ? (
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconMaximize size={15} />}
            onClick={onFull}
          >
            {t('teach.full')}
          </Button>
        ) : null}
      </Group>
    </header>
  )
}
