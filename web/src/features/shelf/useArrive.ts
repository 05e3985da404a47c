import { notifications } from '@mantine/notifications'
import { useCallback } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { noteShelfStep } from '../../state/shelfSteps.ts'
import { askToStay } from '../../state/stay.ts'
import type { Intake } from './intake.ts'

/** Says what came in and what did not, and opens a tune that came in alone. */
export function useArrive(): (intake: Intake) => void {
  const { t } = useTranslation()
  const go = useNavigate()
  return useCallback(
    (intake: Intake) => {
      if (intake.complaints.length > 0) {
        notifications.show({
          title: t('shelf.readNone'),
          message: intake.complaints.slice(0, 4).join('\n'),
          color: 'red',
          autoClose: false,
          style: { whiteSpace: 'pre-line' },
        })
      }
      if (intake.tunes.length > 0) void askToStay()
      if (intake.tunes.length > 0)
        noteShelfStep({
          kind: 'add',
          ids: intake.tunes.map((tune) => tune.id),
          title: intake.tunes[0]!.title,
        })
      if (intake.tunes.length === 1)
        void go(`/tunes/${intake.tunes[0]!.id}/${intake.withTab ? 'arrange' : 'tune'}`)
      else if (intake.tunes.length > 1)
        notifications.show({ message: t('shelf.readSome', { count: intake.tunes.length }) })
    },
    [go, t],
  )
}
