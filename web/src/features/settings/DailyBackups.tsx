import { Button, Group, Text } from '@mantine/core'
import { IconFolderPlus } from '@tabler/icons-react'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { backupFolder, canChooseFolder, chooseFolder, dailyBackups } from '../../state/dailyBackups.ts'
import { isNearlyFull } from '../../state/stay.ts'
import { download } from '../../ui/saveAs.ts'
import { errorWords } from '../../workers/errorWords.ts'

interface Props {
  readonly onBring: (bytes: Uint8Array<ArrayBuffer>, day: string) => void
}

/** The backups that the app made by itself, day by day, and the folder into which they go as well. */
export function DailyBackups({ onBring }: Props) {
  const { t } = useTranslation()
  const queries = useQueryClient()
  const [failed, setFailed] = useState<string>()
  const { data } = useQuery({
    queryKey: ['dailyBackups'],
    queryFn: async () => ({
      days: await dailyBackups(),
      folder: (await backupFolder()) ?? '',
      full: await isNearlyFull(),
    }),
    networkMode: 'always',
    staleTime: 0,
  })
  const choose = async () => {
    try {
      await chooseFolder()
      await queries.invalidateQueries({ queryKey: ['dailyBackups'] })
    } catch (error) {
      // Whoever closes the browser's own dialog has chosen nothing.
      if (!(error instanceof DOMException && error.name === 'AbortError')) setFailed(errorWords(t, error))
    }
  }
  if (!data) return null
  const { days, folder, full } = data
  return (
    <section aria-labelledby="daily-backups" data-testid="daily-backups">
      <h3 id="daily-backups">{t('data.daily')}</h3>
      <Text size="sm" c="dimmed">
        {t('data.dailyHint')}
      </Text>
      {full ? <Text role="alert">{t('data.nearlyFull')}</Text> : null}
      {days.length === 0 ? <Text size="sm">{t('data.noneYet')}</Text> : null}
      <ul>
        {days.map(({ day, tunes, bytes }) => (
          <li key={day}>
            <Group gap="sm">
              <span>{t('data.ofDay', { day, count: tunes })}</span>
              <Button size="compact-sm" variant="default" onClick={() => onBring(bytes, day)}>
                {t('data.bringDay', { day })}
              </Button>
              <Button
                size="compact-sm"
                variant="subtle"
                onClick={() =>
                  download(`velvet-porch ${day}.zip`, new Blob([bytes], { type: 'application/zip' }))
                }
              >
                {t('data.saveDay', { day })}
              </Button>
            </Group>
          </li>
        ))}
      </ul>
      {canChooseFolder() ? (
        <Group gap="sm">
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconFolderPlus size={16} />}
            onClick={() => void choose()}
          >
            {t('data.folder')}
          </Button>
          <Text size="sm">{folder === '' ? t('data.noFolder') : t('data.inFolder', { name: folder })}</Text>
        </Group>
      ) : null}
      {failed ? <Text role="alert">{failed}</Text> : null}
    </section>
  )
}
