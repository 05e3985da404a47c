import { notifications } from '@mantine/notifications'
import { useEffect } from 'react'
import { useTranslation } from 'react-i18next'
import { db } from '../state/db.ts'
import { currentPrefs, setPrefs } from '../state/prefs.ts'

/** The page has settled by then: a backup is no part of opening it. */
const SETTLED_MS = 20_000
const DAY_MS = 86_400_000

/** Keeps a backup of the day by itself, and asks for a file when the last one is older than the teacher wants. */
export function useBackupCare(): void {
  const { t } = useTranslation()
  useEffect(() => {
    const care = async () => {
      const { keepDailyBackup } = await import('../state/dailyBackups.ts')
      await keepDailyBackup()
      const { backup } = currentPrefs()
      const { everyDays, savedAt, since } = backup
      if (everyDays === 0 || (await db.tunes.count()) === 0) return
      // The days are counted from the first tune on.
      if (since === 0) setPrefs({ backup: { ...backup, since: Date.now() } })
      const days = Math.floor((Date.now() - Math.max(savedAt, since || Date.now())) / DAY_MS)
      if (days > everyDays)
        notifications.show({
          title: t('storage.remindTitle'),
          message: t('storage.remindText', { count: days }),
          autoClose: false,
        })
    }
    // What fails here is shown where storage is asked for next.
    const timer = setTimeout(() => void care().catch(() => undefined), SETTLED_MS)
    return () => clearTimeout(timer)
  }, [t])
}
