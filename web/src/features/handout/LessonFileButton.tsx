import { Button } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { IconDeviceMobile } from '@tabler/icons-react'
import type { ArrangementDoc, TuneDoc } from '@velvet-porch/core/document'
import type { LessonSettings } from '@velvet-porch/core/lesson'
import { lessonFileHtml } from '@velvet-porch/core/output/handout'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { saveAs } from '../../ui/saveAs.ts'
import look from '../../lessonFile/look.css?inline'
import { db } from '../../state/db.ts'
import { fontCss } from '../../ui/fontCss.ts'
import { errorWords } from '../../workers/errorWords.ts'

/** Saves the lesson as one file that opens anywhere, without a network. */
export function LessonFileButton({
  tune,
  doc,
  settings,
  student,
}: {
  tune: TuneDoc
  doc: ArrangementDoc
  settings: LessonSettings
  /** The id of the student for whom it is made. */
  student: string | undefined
}) {
  const { t } = useTranslation()
  const [busy, setBusy] = useState(false)
  const save = async () => {
    setBusy(true)
    try {
      const reply = await fetch('/lesson-file.js')
      if (!reply.ok) throw new Error(t('handout.noLessonFile'))
      const { notes = {} } = (await db.teaching.get(tune.id)) ?? {}
      const html = lessonFileHtml(
        { tune, doc, settings, notes, ...(student === undefined ? {} : { student }) },
        await reply.text(),
        `${await fontCss()}${look}`,
      )
      saveAs(`${tune.title}.html`, html, 'text/html')
    } catch (e) {
      notifications.show({ color: 'red', message: errorWords(t, e) })
    } finally {
      setBusy(false)
    }
  }
  return (
    <Button
      size="compact-sm"
      variant="default"
      loading={busy}
      leftSection={<IconDeviceMobile size={15} />}
      onClick={() => void save()}
    >
      {t('handout.lessonFile')}
    </Button>
  )
}
