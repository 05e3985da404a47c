import { notifications } from '@mantine/notifications'
import { useCallback } from 'react'
import { useTranslation } from 'react-i18next'
import { undoShelfStep } from '../../state/shelfSteps.ts'

/** Takes the last step on the shelf back, and says which it was. */
export function useShelfUndo(): () => Promise<void> {
  const { t } = useTranslation()
  return useCallback(async () => {
    const step = await undoShelfStep()
    if (!step) return void notifications.show({ message: t('shelf.nothingToUndo') })
    const what =
      step.kind === 'add'
        ? t('shelf.did.add', { count: step.ids.length, title: step.title })
        : t(`shelf.did.${step.kind}`, { title: step.title })
    notifications.show({ message: t('shelf.undone', { what }) })
  }, [t])
}
