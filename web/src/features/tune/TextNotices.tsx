import { Alert, Button, Group, Text } from '@mantine/core'
import { useTranslation } from 'react-i18next'
import { saveAs } from '../../ui/saveAs.ts'
import { useStorageTrouble } from '../../state/storageTrouble.ts'
import type { AbcText } from './useAbcText.ts'

/** What is to be said of a tune's text: it cannot be read, it is not stored, an older one was left behind. */
export function TextNotices({ abc, title }: { abc: AbcText; title: string }) {
  const { t, i18n } = useTranslation()
  const trouble = useStorageTrouble()
  const { readable, failed, older, text } = abc
  const when = new Intl.DateTimeFormat(i18n.language, { dateStyle: 'medium', timeStyle: 'short' })
  const save = (what: string) => saveAs(`${title}.abc`, what, 'text/vnd.abc')
  return (
    <>
      {readable ? null : (
        <Alert color="red" mt="xs" title={failed === undefined ? undefined : t('tune.unreadable')}>
          {failed ?? t('tune.kept')}
        </Alert>
      )}
      {trouble ? (
        <Button mt="xs" size="compact-sm" variant="default" onClick={() => save(text)}>
          {t('tune.saveText')}
        </Button>
      ) : null}
      {older ? (
        <Alert
          color="lamp"
          mt="xs"
          title={t('tune.older', { when: when.format(older.at) })}
          data-testid="older-text"
        >
          <Text size="sm">{t('tune.olderText')}</Text>
          <Group gap="xs" mt="xs">
            <Button size="compact-sm" onClick={abc.takeOlder}>
              {t('tune.olderTake')}
            </Button>
            <Button size="compact-sm" variant="default" onClick={() => save(older.text)}>
              {t('tune.saveText')}
            </Button>
            <Button size="compact-sm" variant="subtle" onClick={abc.forgetOlder}>
              {t('tune.olderForget')}
            </Button>
          </Group>
        </Alert>
      ) : null}
    </>
  )
}
